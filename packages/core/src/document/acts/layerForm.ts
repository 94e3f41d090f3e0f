import { cycleEnd, fitOf, patternFrame, periodOf, type Cycle } from '../../time/cycle.ts'
import { lengthOf, runAt, slice, type PlacedRun, type Run } from '../../time/exposure.ts'
import { replaceStretch, type Following } from '../../time/segment.ts'
import type { Take } from '../model/model.ts'
import { columnOf, cycleAt, cyclesOf } from '../model/selectors.ts'

/** One layer of a take as it is edited: its column, and the linked cycles that lie in it. */
export interface LayerForm {
  readonly runs: readonly Run[]
  readonly cycles: readonly Cycle[]
}

/** How a layer is timed in a take: its runs, and the linked cycles over them. */
export const formOf = (take: Take, layer: string): LayerForm => ({
  runs: columnOf(take, layer),
  cycles: cyclesOf(take, layer),
})

/** The frames around `frame` up to the linked cycles (or the ends of the shot) on either side. */
export function freeStretch(take: Take, layer: string, frame: number): { from: number; to: number } {
  const ends = cyclesOf(take, layer).map(c => ({ from: c.from, to: cycleEnd(c, take.length) }))
  return {
    from: Math.max(0, ...ends.filter(c => c.to <= frame).map(c => c.to)),
    to: Math.min(take.length, ...ends.filter(c => c.from > frame).map(c => c.from)),
  }
}

/** Whether frames [from, to) of a layer touch a linked cycle. */
export function touchesCycle(take: Take, layer: string, from: number, to: number): boolean {
  return cyclesOf(take, layer).some(c => c.from < to && cycleEnd(c, take.length) > from)
}

/**
 * The exposure that covers a frame: in a linked cycle the one of its pattern, where the frame's turn shows it (and so it may
 * begin before the cycle does). `cycle` and `at` tell the cycle and where the exposure begins in its pattern.
 */
export interface Exposure extends PlacedRun {
  readonly cycle: Cycle | null
  readonly at: number
}

/** The exposure of a layer on a frame (from 0), those in linked cycles included; null outside the take. */
export function exposureAt(take: Take, layer: string, frame: number): Exposure | null {
  const cycle = cycleAt(take, layer, frame)
  if (!cycle) {
    const free = freeStretch(take, layer, frame)
    const run = runAt(slice(columnOf(take, layer), free.from, free.to), frame - free.from)
    return run && { ...run, start: free.from + run.start, cycle: null, at: free.from + run.start }
  }
  const at = patternFrame(cycle, frame)
  const run = runAt(cycle.pattern, at)
  return run && { ...run, start: frame - at + run.start, cycle, at: run.start }
}

/** A linked cycle with another pattern: whole turns stay as many, where that is wanted; null when nothing is left of it. */
export function withPattern(cycle: Cycle, pattern: readonly Run[], length: number, keepTurns: boolean): Cycle | null {
  const period = lengthOf(pattern)
  if (period === 0) return null
  const fit = fitOf(periodOf(cycle), cycleEnd(cycle, length) - cycle.from)
  const whole = cycle.to !== null && fit.remainder === 0 && keepTurns
  const to = whole ? cycle.from + fit.turns * period : cycle.to
  return { ...cycle, pattern, offset: Math.min(cycle.offset, period - 1), to }
}

/** Frames [a, b) of a pattern replaced, by a stretch that may be longer or shorter, or made to fit when what follows stays. */
export const patternWith = (cycle: Cycle, a: number, b: number, stretch: readonly Run[], following: Following): Run[] =>
  replaceStretch(cycle.pattern, a, b, stretch, following)
