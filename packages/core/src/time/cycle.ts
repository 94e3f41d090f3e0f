import { needWhole } from '../errors.ts'
import { lengthOf, overwrite, plain, slice, type Run } from './exposure.ts'

/**
 * A *linked cycle*: a stretch of a column that shows a pattern over and over. The pattern is kept in one place; the frames
 * of the stretch follow from it.
 */
export interface Cycle {
  readonly id: string
  readonly layer: string
  /** the frames it covers: from `from` up to, but not with, `to`; null repeats to the end of the shot */
  readonly from: number
  readonly to: number | null
  /** frames of the pattern passed over at the start: 0 begins with its first frame */
  readonly offset: number
  /** one turn, in order; not joined with the next turn */
  readonly pattern: readonly Run[]
}

/** Frames of one turn. */
export const periodOf = (cycle: Pick<Cycle, 'pattern'>): number => lengthOf(cycle.pattern)

/**
 * `frames` frames of a pattern repeated, beginning `offset` frames into it. In plain form. Throws a UsageError on a
 * pattern without frames, and on frames that are no whole number from 0.
 */
export function unrolled(pattern: readonly Run[], offset: number, frames: number): Run[] {
  needWhole(frames, 0, 'frames')
  const period = lengthOf(pattern)
  needWhole(period, 1, 'frames of a pattern')
  const start = modulo(offset, period)
  const out: Run[] = slice(pattern, start, Math.min(period, start + frames))
  let left = frames - lengthOf(out)
  for (; left >= period; left -= period) for (const run of pattern) out.push(run)
  return plain(left > 0 ? out.concat(slice(pattern, 0, left)) : out)
}

/** The last frame (not included) of a cycle in a take of `length` frames. */
export const cycleEnd = (cycle: Pick<Cycle, 'to'>, length: number): number => cycle.to ?? length

/** A column with a cycle's frames written over it. Frames of the cycle that lie outside the column are left out. */
export function withCycle(column: readonly Run[], cycle: Cycle): Run[] {
  const length = lengthOf(column)
  const end = Math.min(length, cycleEnd(cycle, length))
  if (end <= cycle.from) return [...column]
  return overwrite(column, cycle.from, unrolled(cycle.pattern, cycle.offset, end - cycle.from))
}

/**
 * A column with the frames of several cycles of its layer, none over another, written over it: in one pass, whatever their
 * number. Frames of a cycle that lie outside the column are left out.
 */
export function withCycles(column: readonly Run[], cycles: readonly Cycle[]): Run[] {
  const length = lengthOf(column)
  const pieces: (readonly Run[])[] = []
  let rest = { runs: column, index: 0, before: 0 }
  let at = 0
  for (const cycle of [...cycles].sort((a, b) => a.from - b.from)) {
    const end = Math.min(length, cycleEnd(cycle, length))
    if (end <= cycle.from) continue
    const ahead = taken(rest, cycle.from - at)
    pieces.push(ahead.runs, unrolled(cycle.pattern, cycle.offset, end - cycle.from))
    rest = taken(ahead.rest, end - cycle.from).rest
    at = end
  }
  pieces.push(taken(rest, length - at).runs)
  return plain(pieces.flat())
}

/** Where reading a column has come to: the run it stands in, and frames of it read already. */
interface Reading {
  readonly runs: readonly Run[]
  readonly index: number
  readonly before: number
}

/** The next `frames` frames of a column, and where reading goes on. */
function taken(from: Reading, frames: number): { runs: Run[]; rest: Reading } {
  const out: Run[] = []
  let { index, before } = from
  let left = frames
  while (left > 0) {
    const run = from.runs[index] as Run
    const some = Math.min(left, run.frames - before)
    out.push({ drawing: run.drawing, frames: some })
    left -= some
    before += some
    if (before === run.frames) [index, before] = [index + 1, 0]
  }
  return { runs: out, rest: { runs: from.runs, index, before } }
}

/** The frame of the pattern (0-based) that frame `frame` of the take shows. */
export function patternFrame(cycle: Cycle, frame: number): number {
  return modulo(frame - cycle.from + cycle.offset, periodOf(cycle))
}

/** How a cycle fits the stretch it repeats over. */
export interface CycleFit {
  readonly period: number
  readonly frames: number
  /** whole turns, and the frames left over */
  readonly turns: number
  readonly remainder: number
  /** stretches near this one that hold whole turns: shorter (or null when not even one turn fits) and longer */
  readonly shorter: number | null
  readonly longer: number
  /** the offset with which the stretch ends on the last frame of the pattern */
  readonly offsetToEnd: number
  /** how many frames later to begin so that whole turns remain; equals the remainder */
  readonly startLater: number
}

/**
 * Turns, remainder, and what length, offset or start would come out even. All in frames. Throws a UsageError on a period
 * or frames under 1.
 */
export function fitOf(period: number, frames: number): CycleFit {
  needWhole(period, 1, 'frames of a pattern')
  needWhole(frames, 1, 'frames')
  const turns = Math.floor(frames / period)
  const remainder = frames % period
  return {
    period,
    frames,
    turns,
    remainder,
    shorter: turns === 0 ? null : turns * period,
    longer: remainder === 0 ? frames : (turns + 1) * period,
    offsetToEnd: modulo(-frames, period),
    startLater: remainder,
  }
}

/**
 * Pattern lengths near `period` of which whole turns fill `frames`, nearest first: what a secondary cycle can run in.
 * Throws a UsageError on frames under 1.
 */
export function fittingPeriods(frames: number, period: number, most = 3): number[] {
  needWhole(frames, 1, 'frames')
  const divisors = Array.from({ length: frames }, (_, i) => i + 1).filter(n => frames % n === 0)
  return divisors.sort((a, b) => Math.abs(a - period) - Math.abs(b - period) || a - b).slice(0, most)
}

/**
 * After how many frames two cycles of a and b frames stand together as they began: the least common multiple. Throws a
 * UsageError on a cycle without frames.
 */
export function meetAgain(a: number, b: number): number {
  needWhole(a, 1, 'frames of a cycle')
  needWhole(b, 1, 'frames of a cycle')
  let [x, y] = [a, b]
  while (y !== 0) [x, y] = [y, x % y]
  return (a / x) * b
}

/**
 * A cycle after `count` frames were put in before `at`: behind it nothing changes, before it (or at its start) it moves,
 * inside it, it grows.
 */
export function cycleAfterInsert(cycle: Cycle, at: number, count: number): Cycle {
  if (at <= cycle.from) return { ...cycle, from: cycle.from + count, to: cycle.to === null ? null : cycle.to + count }
  if (cycle.to === null || at >= cycle.to) return cycle
  return { ...cycle, to: cycle.to + count }
}

/** A cycle after frames [from, to) were taken out of a take that then has `length` frames; null when nothing is left. */
export function cycleAfterRemove(cycle: Cycle, from: number, to: number, length: number): Cycle | null {
  const moved = (frame: number) => (frame <= from ? frame : frame >= to ? frame - (to - from) : from)
  const next = { ...cycle, from: moved(cycle.from), to: cycle.to === null ? null : moved(cycle.to) }
  return cycleEnd(next, length) > next.from ? next : null
}

const modulo = (n: number, m: number): number => ((n % m) + m) % m
