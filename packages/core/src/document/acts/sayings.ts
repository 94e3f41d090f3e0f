import type { PlacedRun } from '../../time/exposure.ts'
import type { Saying, ShotDocument } from '../model/model.ts'
import { currentTake, exposures } from '../model/selectors.ts'
import { sizeOf } from '../model/table.ts'
import { applyBatch, type Operation } from '../operations/index.ts'

/** Says something of frames `from` up to, but not with, `to`; at least of one. */
export const addSaying = (saying: Saying): Operation[] => [
  { kind: 'saying.add', saying: { ...saying, to: Math.max(saying.from + 1, saying.to) } },
]

/** Says it of other frames; where it would end before it begins, the other end goes along. */
export function changeSaying(saying: Saying, patch: Partial<Pick<Saying, 'from' | 'to'>>): Operation[] {
  const next = { ...saying, ...patch }
  if (next.to > next.from) return [{ kind: 'saying.set', id: saying.id, patch }]
  const both =
    patch.from === undefined
      ? { from: Math.max(0, next.to - 1), to: Math.max(1, next.to) }
      : { from: next.from, to: next.from + 1 }
  return [{ kind: 'saying.set', id: saying.id, patch: both }]
}

/** It is said no more. */
export const removeSaying = (id: string): Operation[] => [{ kind: 'saying.remove', id }]

/** Where a frame is after the exposures of a layer have changed: on the same drawing, the same of its exposures, as far from its `side`. */
function movedTo(before: readonly PlacedRun[], after: readonly PlacedRun[], frame: number, side: 'start' | 'end') {
  const on = before.find(run => frame >= run.start && frame < run.start + run.frames)
  if (!on) return frame
  const of = (runs: readonly PlacedRun[]) => runs.filter(run => run.drawing === on.drawing)
  const [mine, there] = [of(before).indexOf(on), of(after)]
  const next = there[Math.min(mine, there.length - 1)]
  if (!next) return frame
  const off = side === 'start' ? frame - on.start : on.start + on.frames - 1 - frame
  const within = Math.min(off, next.frames - 1)
  return side === 'start' ? next.start + within : next.start + next.frames - 1 - within
}

/** Kinds of operations that change what is shown on which frame. */
const TIMING = ['exposure.', 'frames.', 'cycle.', 'take.', 'drawing.', 'layer.']

/**
 * What has to be changed of what is said when some operations change the timing of the take that is worked on: it is said of drawings, and goes where they go; what was said of the
 * whole take stays so. Nothing where the operations cannot be done, or themselves change what is said.
 */
export function sayingsAlong(document: ShotDocument, ops: readonly Operation[]): Operation[] {
  const touches = (family: string) => ops.some(op => op.kind.startsWith(family))
  // Most steps are strokes: they time nothing, and are not done twice to find that out.
  if (sizeOf(document.sayings) === 0 || !TIMING.some(touches) || touches('saying.')) return []
  const done = applyBatch(document, ops)
  if (!done.ok || done.document.current !== document.current) return []
  const [before, after] = [currentTake(document), currentTake(done.document)]
  if (before === after) return []
  return Object.values(document.sayings).flatMap(({ id, layer, from, to }): Operation[] => {
    const [was, is] = [exposures(before, layer), exposures(after, layer)]
    const whole = from === 0 && to >= before.length
    const patch = whole
      ? { from, to: Math.max(1, after.length) }
      : { from: movedTo(was, is, from, 'start'), to: movedTo(was, is, to - 1, 'end') + 1 }
    const isSame = patch.from === from && patch.to === to
    return isSame || patch.to <= patch.from || patch.from < 0 ? [] : [{ kind: 'saying.set', id, patch }]
  })
}
