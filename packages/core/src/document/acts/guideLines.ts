import { distance, lerp, type Point } from '../../geometry/point.ts'
import { INK } from '../../geometry/nib.ts'
import { FARTHEST_PX, packSamples } from '../../geometry/samples.ts'
import type { ConstructionSink } from '../../motion/recipe.ts'
import { figureOf } from '../../motion/table.ts'
import type { Run } from '../../time/exposure.ts'
import { newLayer } from '../model/fresh.ts'
import { guidePath, guidePlan } from '../model/guides.ts'
import type { Drawing, Guide, Label, ShotDocument, Stroke, Take } from '../model/model.ts'
import { has } from '../model/table.ts'
import type { Operation } from '../operations/index.ts'
import { layPath } from './paths.ts'

/** A guide as plain lines: the operations, and the samples of the strokes they bring. */
export interface GuideLines {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
}

/** Samples of a line lie no farther apart, px; and a round is so many pieces. */
const STEP_PX = 8
const ROUND_PIECES = 48
const LINE_PX = 2
/** Under the layer it serves, and over whatever lies under that. */
const BELOW = 0.25

/**
 * The construction of a guide as pen lines on a new guide layer under the one it serves, drawing by drawing in its time, linked to the
 * end of the shot where it loops; it moves as the layer of the guide does. The layer is on the desk only; its lines are lines like any other.
 */
export function guideLines(
  document: ShotDocument,
  take: Take,
  guide: Guide,
  name: string,
  newId: () => string,
): GuideLines {
  const plan = guidePlan(document, guide)
  const samples = new Map<string, Uint8Array>()
  const swatch = has(document.swatches, 'pond') ? 'pond' : (Object.keys(document.swatches)[0] ?? '')
  const order = (document.layers[guide.layer]?.order ?? 0) - BELOW
  const layer = newLayer(newId(), name, order, { kind: 'guide' })
  const drawings = plan.drawings.map((planned): Drawing => {
    const traced = tracedFigure(sink => figureOf(guide.recipe, plan, planned.frame, sink))
    const strokes = traced.map(({ points, label }, i): Stroke => {
      const id = newId()
      samples.set(id, packSamples(points.map(({ x, y }) => ({ x, y, pressure: 0.5 }))))
      return {
        id,
        kind: 'line',
        z: i + 1,
        samples: id,
        part: null,
        matrix: null,
        swatch,
        width: LINE_PX,
        nib: INK,
        label,
      }
    })
    const elements = Object.fromEntries(strokes.map(stroke => [stroke.id, stroke]))
    return {
      id: newId(),
      layer: layer.id,
      number: guide.from + planned.frame + 1,
      role: planned.role,
      elements,
      marks: {},
    }
  })
  const runs = plan.exposures.map(({ drawing, frames }): Run => ({
    drawing: (drawings[drawing] as Drawing).id,
    frames,
  }))
  return {
    ops: [
      { kind: 'layer.add', layer },
      ...layPath(take, layer.id, guidePath(document, take, guide)),
      ...drawings.map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
      ...shown(take, guide, layer.id, plan.loops, runs, newId),
    ],
    samples,
  }
}

/** The exposures of a plan on an empty layer: linked to the end where it loops, else as far as the shot goes. */
function shown(
  take: Take,
  { from }: Guide,
  layer: string,
  loops: boolean,
  runs: readonly Run[],
  newId: () => string,
): Operation[] {
  if (from >= take.length) return []
  if (loops) {
    const cycle = { id: newId(), layer, from, to: null, offset: 0, pattern: runs }
    return [{ kind: 'cycle.add', take: take.id, cycle }]
  }
  let left = take.length - from
  const fits = runs.flatMap((run): Run[] => {
    const frames = Math.min(left, run.frames)
    left -= frames
    return frames > 0 ? [{ ...run, frames }] : []
  })
  return [{ kind: 'exposure.write', take: take.id, layer, from, runs: fits }]
}

/** A line of a construction, and which limb it is of. */
interface Traced {
  readonly points: Point[]
  readonly label: Label | null
}

/** Everything that a construction writes, as lines of points; near and far limbs are labelled. Arrows are hints, and left out; so is what lies too far off to be stored. */
function tracedFigure(write: (sink: ConstructionSink) => void): Traced[] {
  const lines: Traced[] = []
  const add = (points: readonly Point[], label: Label | null = null): void => {
    const isNear = points.every(({ x, y }) => Math.abs(x) < FARTHEST_PX && Math.abs(y) < FARTHEST_PX)
    if (points.length > 1 && isNear) lines.push({ points: filled(points), label })
  }
  write({
    ellipse(_, at, along, across, tiltRad) {
      const [cos, sin] = [Math.cos(tiltRad), Math.sin(tiltRad)]
      add(
        Array.from({ length: ROUND_PIECES + 1 }, (__, i) => {
          const a = (2 * Math.PI * i) / ROUND_PIECES
          const [u, v] = [along * Math.cos(a), across * Math.sin(a)]
          return { x: at.x + u * cos - v * sin, y: at.y + u * sin + v * cos }
        }),
      )
    },
    bend(_, from, control, to) {
      add(
        Array.from({ length: ROUND_PIECES / 2 + 1 }, (__, i) => {
          const t = (2 * i) / ROUND_PIECES
          return lerp(lerp(from, control, t), lerp(control, to, t), t)
        }),
      )
    },
    line: (_, from, to) => add([from, to]),
    path: (_, points, look) => add(points, look === 'near' || look === 'far' ? look : null),
    arrow: () => undefined,
  })
  return lines
}

/** A path with so many points put in that none are farther apart than a step. */
function filled(points: readonly Point[]): Point[] {
  const [first] = points as readonly [Point]
  return points.slice(1).reduce<Point[]>(
    (path, to) => {
      const from = path[path.length - 1] as Point
      const pieces = Math.max(1, Math.ceil(distance(from, to) / STEP_PX))
      for (let k = 1; k <= pieces; k++) path.push(lerp(from, to, k / pieces))
      return path
    },
    [first],
  )
}
