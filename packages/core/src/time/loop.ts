/** A stretch of frames played round and round: from `from` up to, but not with, `to`, counted from 0. */
export interface LoopRange {
  readonly from: number
  readonly to: number
}

/** What a loop range becomes when `count` frames are put in before frame `at`. Frames put in inside it belong to it. */
export function loopAfterInsert(loop: LoopRange | null, at: number, count: number): LoopRange | null {
  if (!loop) return null
  if (at <= loop.from) return { from: loop.from + count, to: loop.to + count }
  return at < loop.to ? { from: loop.from, to: loop.to + count } : loop
}

/** What a loop range becomes when frames [from, to) are taken out; null when nothing of it is left. */
export function loopAfterRemove(loop: LoopRange | null, from: number, to: number): LoopRange | null {
  if (!loop) return null
  const moved = (frame: number) => (frame <= from ? frame : frame >= to ? frame - (to - from) : from)
  const next = { from: moved(loop.from), to: moved(loop.to) }
  return next.to > next.from ? next : null
}

/** The frame shown when playback has run on to `frame`: inside a loop it comes round, without one it stops at the end. */
export function wrapFrame(frame: number, loop: LoopRange): number {
  const n = loop.to - loop.from
  return loop.from + ((((frame - loop.from) % n) + n) % n)
}
