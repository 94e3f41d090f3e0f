import { needWhole, UsageError } from '../errors.ts'
import { lengthOf, placed, plain, shareFrames, slice, spread, type Run } from './exposure.ts'

/**
 * Edits of a stretch of a column. A stretch is a list of runs like a column; an edit gives another stretch, longer or
 * shorter, and `replaceStretch` puts it back, with or without moving what follows.
 */

/**
 * Every drawing of a stretch on `n` frames, in order. Frames that show nothing keep their length. Throws a UsageError on
 * an exposure under 1.
 */
export function onN(runs: readonly Run[], n: number): Run[] {
  needWhole(n, 1, 'exposure')
  return runs.map(run => (run.drawing === null ? run : { drawing: run.drawing, frames: n }))
}

/** The drawings of a stretch in the opposite order, each held as long as before. */
export const reversed = (runs: readonly Run[]): Run[] => [...runs].reverse()

/**
 * There and back: the stretch, then its drawings back again, without showing the last one twice running. Gone round as a
 * loop it does not come home, for the loop shows the first one again.
 */
export function thereAndBack(runs: readonly Run[], looped: boolean): Run[] {
  return [...runs, ...runs.slice(looped ? 1 : 0, -1).reverse()]
}

/** A stretch so many times over. Throws a UsageError on fewer than 1 times. */
export function repeated(runs: readonly Run[], times: number): Run[] {
  needWhole(times, 1, 'times')
  return Array.from({ length: times }, () => runs).flat()
}

/**
 * A stretch made `frames` long: every run keeps its share of the time as nearly as whole frames allow and at least one
 * frame. Throws when there are fewer frames than runs.
 */
export function stretched(runs: readonly Run[], frames: number): Run[] {
  needWhole(frames, runs.length, 'frames')
  const holds = shareFrames(
    frames,
    runs.map(run => run.frames),
  )
  return runs.map((run, i) => ({ drawing: run.drawing, frames: holds[i] as number }))
}

/**
 * New lengths for holds that follow a key: in proportion, but holds that are an even sharing out already (as `spread`
 * makes it: 2, 3, 2) are shared out evenly again. Moving a key frame by frame then comes to the same as moving it at
 * once. Throws when there are fewer frames than holds.
 */
export function followedHolds(frames: number, holds: readonly number[]): number[] {
  if (holds.length === 0) return shareFrames(frames, holds)
  const even = spread(
    holds.reduce((a, b) => a + b, 0),
    holds.length,
  )
  return holds.every((hold, i) => hold === even[i]) ? spread(frames, holds.length) : shareFrames(frames, holds)
}

/** How a changed stretch is put back into its column. */
export type Following = 'ripple' | 'stay'

/**
 * A column with frames [from, to) (none, where a stretch is put in) replaced by `stretch`. 'ripple': what follows moves,
 * the column grows or shrinks. 'stay': what follows keeps its frames; a longer stretch is cut off at `to`, a shorter one
 * is filled up by holding its last drawing. Throws a UsageError on frames that are no stretch of the column.
 */
export function replaceStretch(
  runs: readonly Run[],
  from: number,
  to: number,
  stretch: readonly Run[],
  following: Following,
): Run[] {
  needStretch(runs, from, to, 0)
  const length = to - from
  const last = stretch[stretch.length - 1]?.drawing ?? null
  const missing = Math.max(0, length - lengthOf(stretch))
  const put = following === 'ripple' ? stretch : slice([...stretch, { drawing: last, frames: missing }], 0, length)
  return plain([...slice(runs, 0, from), ...put, ...slice(runs, to, lengthOf(runs))])
}

/**
 * Slides frames [from, to) by `by` frames within the column, which keeps its length: the drawing on the side they come
 * from is held longer (nothing, at the ends of the column), what lies in their way is covered. Throws a UsageError on
 * frames that are no stretch of the column.
 */
export function slid(runs: readonly Run[], from: number, to: number, by: number): Run[] {
  needStretch(runs, from, to)
  const length = lengthOf(runs)
  const moved = Math.max(-from, Math.min(length - to, by))
  if (moved === 0) return [...runs]
  const piece = slice(runs, from, to)
  const before = slice(runs, 0, from)
  const after = slice(runs, to, length)
  if (moved > 0) {
    const held = before[before.length - 1]?.drawing ?? null
    return plain([...before, { drawing: held, frames: moved }, ...piece, ...slice(after, moved, lengthOf(after))])
  }
  const held = after[0]?.drawing ?? null
  return plain([...slice(before, 0, from + moved), ...piece, { drawing: held, frames: -moved }, ...after])
}

/**
 * Cuts a hold at a frame: 'end' lets the drawing end with that frame, 'start' lets it begin with it. With 'ripple' the
 * frames that go are taken out; else they show nothing. Throws a UsageError on a frame outside the column.
 */
export function trimmed(runs: readonly Run[], frame: number, side: 'start' | 'end', following: Following): Run[] {
  const run = placed(runs).find(r => frame >= r.start && frame < r.start + r.frames)
  if (!run) throw new UsageError(`frame ${frame} lies outside a column of ${lengthOf(runs)}`)
  const [from, to] = side === 'end' ? [frame + 1, run.start + run.frames] : [run.start, frame]
  if (from >= to) return [...runs]
  return replaceStretch(runs, from, to, following === 'ripple' ? [] : [{ drawing: null, frames: to - from }], 'ripple')
}

function needStretch(runs: readonly Run[], from: number, to: number, least = 1): void {
  needWhole(from, 0, 'frame')
  if (!(to >= from + least && to <= lengthOf(runs))) {
    throw new UsageError(`frames ${from} to ${to} are no stretch of a column of ${lengthOf(runs)}`)
  }
}
