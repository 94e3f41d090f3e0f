import {
  currentTake,
  elementsInOrder,
  exposures,
  isAnimated,
  kindOf,
  placedAll,
  type Batch,
  type ShotDocument,
} from '@unhurried/core/document'
import { acceptFinding, findings, type CheckName, type Found, type Survey } from '@unhurried/core/measure'
import type { ModelSheet } from '@unhurried/core/models'
import { factsOf, shapeOf, type DrawingFacts, type Shape } from '@unhurried/core/raster'

interface Reason {
  readonly check: CheckName
  readonly why: string
}

const LATER: Reason = { check: 'exposed', why: 'it is cut in from the shot before, where one has seen who it is' }
/** What is meant so in shots of the demo, and why. */
const REASONS: Readonly<Record<string, readonly Reason[]>> = {
  'Reed waltz': [LATER],
  'Heron lifts a foot': [LATER],
  'Heron shivers': [LATER],
  'Mist over a warm stone': [{ check: 'seam', why: 'the lowest wisp is born there' }],
}

/** A shot as the measuring room surveys it, without the frames as they are delivered. */
export function surveyOf(
  document: ShotDocument,
  samples: ReadonlyMap<string, Uint8Array>,
  models: readonly ModelSheet[] = [],
): Survey {
  const take = currentTake(document)
  const shapes = new Map<string, Shape>()
  const facts = new Map<string, DrawingFacts>()
  const shown = new Set(
    Object.values(document.layers)
      .filter(isAnimated)
      .flatMap(layer => exposures(take, layer.id).map(run => run.drawing as string)),
  )
  for (const id of shown) {
    const drawing = document.drawings[id]
    if (!drawing) continue
    const { placed, limbs } = placedAll(
      elementsInOrder(drawing).flatMap(
        element => kindOf(element).silhouette(element, asset => samples.get(asset)) ?? [],
      ),
    )
    shapes.set(id, shapeOf(placed, { limbs }))
    facts.set(id, factsOf(placed))
  }
  return { document, take, shapes, facts, delivered: null, loop: take.loop, models }
}

/** What is found in a shot of the demo and has its reason is said to be meant so. */
export function meantSo(name: string, document: ShotDocument, samples: ReadonlyMap<string, Uint8Array>): Batch[] {
  const reasons = Object.hasOwn(REASONS, name) ? (REASONS[name] as readonly Reason[]) : []
  if (reasons.length === 0) return []
  const all: Found[] = findings(surveyOf(document, samples))
  const ops = all.flatMap((found, i) => {
    const reason = reasons.find(({ check }) => check === found.check)
    return reason ? acceptFinding(document, found, all, reason.why, `meant-${i + 1}`) : []
  })
  return ops.length > 0 ? [{ id: 'meant-so', label: 'meant so', ops }] : []
}
