import { retime } from '../../document/acts/retime.ts'
import { isAnimated, type Layer, type ShotDocument, type Take } from '../../document/model/model.ts'
import { exposures, isBlank, layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { counted } from '../../time/counted.ts'
import { framesTold } from '../../time/framesTold.ts'
import { saysOf } from '../said.ts'
import type { Survey } from '../survey.ts'
import type { Check, Finding, Fix } from './check.ts'

/** Nothing for so short a while is a blink and no pause, seconds. */
const BLINK_S = 0.25
/** So long nothing changes at the beginning of a shot, somewhere in its first stretch of this length, to see who it is; seconds. */
const SEEN_S = 1 / 3
/** Numbers that are named; beyond, they are counted. */
const MOST_NAMED = 6

/** Whether everything that is drawn is shown, and something is shown wherever something is going on. */
export const exposed: Check = {
  words: 'exposure',
  asks: 'Is everything that is drawn shown, and something shown throughout?',
  needs: [],
  fix({ document, take }, { layer, from, to, drawings: [id], figures: { frames, wanted } }) {
    if (layer !== null && wanted !== undefined) return heldFor(document, take, layer, { from, to }, wanted)
    const drawing = find(document.drawings, id ?? '')
    if (!drawing || frames === undefined || to - from !== frames || from === 0) return null
    // What was shown just before is held on.
    if (layer === null) return null
    const before = exposures(take, layer).find(run => run.drawing === drawing.id && run.start + run.frames === from)
    if (!before) return null
    return {
      words: `hold ${drawing.number} ${counted(frames, 'frame')} longer`,
      ops: [{ kind: 'exposure.write', take: take.id, layer, from, runs: [{ drawing: drawing.id, frames }] }],
    }
  },
  inspect: survey => [
    ...layersInOrder(survey.document)
      .filter(isAnimated)
      .flatMap(layer => [
        ...blinks(survey, layer),
        ...early(survey, layer),
        ...never(survey, layer),
        ...unread(survey, layer),
      ]),
    ...hurried(survey),
  ],
}

const numbers = (all: readonly number[]): string =>
  all.length > MOST_NAMED ? `${all.length} drawings` : [...all].sort((a, b) => a - b).join(', ')

/** Short stretches without a drawing between two that have one. */
function blinks({ document, take }: Survey, layer: Layer): Finding[] {
  const runs = exposures(take, layer.id)
  return runs.slice(1).flatMap((run, i): Finding[] => {
    const before = runs[i] as (typeof runs)[number]
    const [from, to] = [before.start + before.frames, run.start]
    if (to <= from || to - from >= BLINK_S * document.format.fps) return []
    const words = `nothing is shown on ${framesTold(from, to)}: a blink of nothing`
    return [
      {
        severity: 'look',
        layer: layer.id,
        from,
        to,
        drawings: [before.drawing as string, run.drawing as string],
        marks: [],
        figures: { frames: to - from },
        at: null,
        words,
      },
    ]
  })
}

/** A layer that ends a blink before the shot does. */
function early({ document, take }: Survey, layer: Layer): Finding[] {
  const last = exposures(take, layer.id).at(-1)
  if (!last) return []
  const ends = last.start + last.frames
  const missing = take.length - ends
  if (missing <= 0 || missing >= BLINK_S * document.format.fps) return []
  return [
    {
      severity: 'look',
      layer: layer.id,
      from: ends,
      to: take.length,
      drawings: [last.drawing as string],
      marks: [],
      figures: { frames: missing },
      at: null,
      words: `ends ${counted(missing, 'frame')} before the shot does, on ${ends}`,
    },
  ]
}

/** Drawings that no take shows. */
function never({ document }: Survey, layer: Layer): Finding[] {
  const shown = new Set(
    Object.values(document.takes).flatMap(take => exposures(take, layer.id).map(run => run.drawing)),
  )
  const left = Object.values(document.drawings).filter(
    drawing => drawing.layer === layer.id && !isBlank(drawing) && !shown.has(drawing.id),
  )
  if (left.length === 0) return []
  const one = left.length === 1
  return [
    {
      severity: 'look',
      layer: layer.id,
      from: 0,
      to: 1,
      drawings: left.map(drawing => drawing.id),
      marks: [],
      figures: { drawings: left.length },
      at: null,
      words: `${numbers(left.map(drawing => drawing.number))} ${one ? 'is' : 'are'} drawn, and no take shows ${one ? 'it' : 'them'}`,
    },
  ]
}

/** A pose that is to be read is held so long, seconds. */
const READ_S = 0.25

/** Poses that are said to be read, and are gone before they could be. What is said of several drawings is a pose that is kept alive: it is held as long as all of them. */
function unread({ document, take }: Survey, layer: Layer): Finding[] {
  const wanted = Math.ceil(READ_S * document.format.fps - 1e-9)
  return saysOf(document, 'reads')
    .filter(saying => saying.layer === layer.id)
    .flatMap((saying): Finding[] => {
      const runs = exposures(take, layer.id).filter(
        run => run.start < saying.to && run.start + run.frames > saying.from,
      )
      const [first, last] = [runs[0], runs.at(-1)]
      const drawing = find(document.drawings, (first?.drawing ?? '') as string)
      if (!first || !last || !drawing) return []
      const isOne = runs.length === 1
      const [from, to] = isOne
        ? [first.start, first.start + first.frames]
        : [Math.max(saying.from, first.start), Math.min(saying.to, last.start + last.frames)]
      if (to - from >= wanted) return []
      const named = isOne ? `${drawing.number} is` : `${numbersOf(document, runs)} are`
      return [
        {
          severity: 'look',
          layer: layer.id,
          ...{ from, to, drawings: runs.map(run => run.drawing as string), marks: [], at: null },
          figures: { frames: to - from, wanted },
          words: `${named} to be read, and held for ${counted(to - from, 'frame')}: a quarter of a second is ${wanted}`,
        },
      ]
    })
}

const numbersOf = ({ drawings }: ShotDocument, runs: readonly { readonly drawing: string | null }[]): string =>
  numbers(runs.flatMap(run => find(drawings, run.drawing ?? '')?.number ?? []))

/** From where the time for a longer hold is taken: free frames, the holds behind it, or the shot becomes longer. */
const ROOM_FOR_IT = ['free', 'shorter', 'longer'] as const

/** A stretch of a layer held for so many frames. */
function heldFor(
  document: ShotDocument,
  take: Take,
  layer: string,
  { from, to }: { readonly from: number; readonly to: number },
  frames: number,
): Fix | null {
  for (const room of ROOM_FOR_IT) {
    const marked = { layers: [layer], from, to }
    const step = retime(document, take, marked, { kind: 'stretch', frames }, { following: 'ripple', room })
    if (step.ok) return { words: `hold it ${counted(frames - (to - from), 'frame')} longer`, ops: step.ops }
  }
  return null
}

/** A shot that is no loop and in whose first third of a second nothing rests. */
function hurried({ document, take }: Survey): Finding[] {
  const needed = SEEN_S * document.format.fps
  if (take.loop || take.length < 3 * needed) return []
  const layers = layersInOrder(document).filter(layer => isAnimated(layer) && exposures(take, layer.id).length > 0)
  const [lowest] = layers
  if (!lowest) return []
  const rests = layers.some(layer => {
    const first = exposures(take, layer.id)[0]
    return first && (first.start >= needed || first.start + first.frames >= needed)
  })
  if (rests) return []
  const first = exposures(take, lowest.id)[0]
  return [
    {
      severity: 'note',
      layer: lowest.id,
      from: 0,
      to: Math.ceil(needed),
      drawings: find(document.drawings, (first?.drawing ?? '') as string) ? [first?.drawing as string] : [],
      marks: [],
      figures: { frames: Math.ceil(needed) },
      at: null,
      words: `nothing rests in the first third of a second: there is no time to see who it is`,
    },
  ]
}
