import { cycleEnd, withCycle, type Cycle } from '../../time/cycle.ts'
import { drawingAt, lengthOf, overwrite, plain, type Run } from '../../time/exposure.ts'
import type { Proposal } from './proposal.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { settle, settleForm, type Room } from './room.ts'
import { columnOf, cyclesOf } from '../model/selectors.ts'

/*
 * Linked cycles put on the sheet and moved there as a whole. What they would cover is told first, as with any edit; a stretch
 * past the end of the shot makes it longer only when asked.
 */

/** Links a stretch to a pattern. */
export function linkCycle(document: ShotDocument, take: Take, cycle: Cycle, room: Room = 'free'): Proposal {
  const frames = cycleEnd(cycle, take.length) - cycle.from
  const to = Math.min(take.length, cycle.from + frames)
  const change = { layer: cycle.layer, from: cycle.from, to, stretch: [{ drawing: null, frames }], cycle }
  return settle(document, take, [change], { following: 'stay', room })
}

/** Where a linked cycle is to lie, and on which frame of its pattern it is to begin. */
export type Moving = Partial<Pick<Cycle, 'from' | 'to' | 'offset'>>

/**
 * Moves a linked cycle, or one of its ends. Frames it leaves at its beginning hold what was before it; frames that a whole
 * cycle leaves behind it show what follows it; an end drawn in leaves the frames behind it as they were.
 */
export function moveCycle(document: ShotDocument, take: Take, cycle: Cycle, to: Moving, room: Room = 'free'): Proposal {
  const next = { ...cycle, ...to }
  const [oldEnd, end] = [cycleEnd(cycle, take.length), cycleEnd(next, take.length)]
  const others = cyclesOf(take, cycle.layer).filter(other => other.id !== cycle.id)
  if (next.from < 0 || end <= next.from) return { ok: false, code: 'nothing-left' }
  if (others.some(other => other.from < end && cycleEnd(other, take.length) > next.from)) {
    return { ok: false, code: 'crosses-cycle' }
  }
  const column = columnOf(take, cycle.layer)
  let runs: readonly Run[] =
    end > take.length ? plain([...column, { drawing: null, frames: end - take.length }]) : column
  const hold = (from: number, until: number, drawing: string | null) => {
    if (until > from) runs = overwrite(runs, from, [{ drawing, frames: until - from }])
  }
  hold(cycle.from, Math.min(next.from, oldEnd), cycle.from > 0 ? drawingAt(column, cycle.from - 1) : null)
  const slidBack = next.from < cycle.from && end < oldEnd
  if (slidBack) hold(end, oldEnd, oldEnd < take.length ? drawingAt(column, oldEnd) : null)
  const form = { runs: withCycle(runs, next), cycles: [...others, next].sort((a, b) => a.from - b.from) }
  return settleForm(document, take, cycle.layer, form, room)
}

/** Slides a linked cycle as a whole by so many frames, its last end only where it has one. */
export const slideCycle = (
  document: ShotDocument,
  take: Take,
  cycle: Cycle,
  by: number,
  room: Room = 'free',
): Proposal =>
  moveCycle(document, take, cycle, { from: cycle.from + by, to: cycle.to === null ? null : cycle.to + by }, room)

/** Copies a linked cycle: its pattern, as often as here, from another frame on. */
export function copyCycle(
  document: ShotDocument,
  take: Take,
  cycle: Cycle,
  from: number,
  id: string,
  room: Room = 'free',
): Proposal {
  const frames = cycleEnd(cycle, take.length) - cycle.from
  const to = cycle.to === null ? from + Math.min(frames, lengthOf(cycle.pattern)) : from + frames
  return linkCycle(document, take, { ...cycle, id, from, to }, room)
}
