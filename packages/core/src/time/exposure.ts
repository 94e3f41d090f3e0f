import { needWhole, UsageError } from '../errors.ts'

/**
 * One line of an exposure sheet column: a drawing (or, with null, nothing) held for a number of frames.
 *
 * A column is a list of runs in *plain form*: every run lasts at least one frame and no two neighbours show the same
 * drawing. A column in plain form is nothing but the function frame → drawing written down, so two columns are equal
 * exactly when they look equal.
 */
export interface Run {
  readonly drawing: string | null
  readonly frames: number
}

/** A run with the frame it starts on, counted from 0. */
export interface PlacedRun extends Run {
  readonly start: number
}

/** Number of frames that a column covers. */
export function lengthOf(runs: readonly Run[]): number {
  let n = 0
  for (const run of runs) n += run.frames
  return n
}

/** Joins neighbours that show the same drawing and drops runs of no frames. Throws on a negative or broken length. */
export function plain(runs: readonly Run[]): Run[] {
  const out: Run[] = []
  for (const run of runs) {
    needWhole(run.frames, 0, 'frames of a run')
    if (run.frames === 0) continue
    const last = out[out.length - 1]
    if (last && last.drawing === run.drawing) out[out.length - 1] = { ...last, frames: last.frames + run.frames }
    else out.push(bare(run))
  }
  return out
}

/** A run without the place it had; itself when it had none, for columns of thousands are made again and again. */
const bare = (run: Run): Run => ('start' in run ? { drawing: run.drawing, frames: run.frames } : run)

/** Whether two columns in plain form show the same. */
export const sameRuns = (a: readonly Run[], b: readonly Run[]): boolean =>
  a.length === b.length && a.every((run, i) => run.drawing === b[i]?.drawing && run.frames === b[i]?.frames)

/** The runs of a column with the frame each starts on. */
export function placed(runs: readonly Run[]): PlacedRun[] {
  let start = 0
  return runs.map(run => {
    const at = { ...run, start }
    start += run.frames
    return at
  })
}

/** The run that covers a frame, or null outside the column. */
export function runAt(runs: readonly Run[], frame: number): PlacedRun | null {
  let start = 0
  for (const run of runs) {
    if (frame >= start && frame < start + run.frames) return { ...run, start }
    start += run.frames
  }
  return null
}

/** The drawing exposed on a frame, or null where nothing is. */
export function drawingAt(runs: readonly Run[], frame: number): string | null {
  return runAt(runs, frame)?.drawing ?? null
}

/** The part of a column from frame `from` up to, but not with, frame `to`. */
export function slice(runs: readonly Run[], from: number, to: number): Run[] {
  const out: Run[] = []
  let start = 0
  for (const run of runs) {
    const a = Math.max(from, start)
    const b = Math.min(to, start + run.frames)
    if (b > a) out.push({ drawing: run.drawing, frames: b - a })
    start += run.frames
  }
  return out
}

/** Where a frame falls in a column: the index of the run that covers it, and how many frames of that run lie before it. */
function locate(runs: readonly Run[], frame: number): { index: number; before: number } {
  let index = 0
  let before = frame
  for (const run of runs) {
    if (before < run.frames) break
    before -= run.frames
    index++
  }
  return { index, before }
}

/**
 * Puts `written` in place of frames `from` up to, but not with, `to`. Only the runs that touch this stretch are made
 * anew; all others stay the values they are, which keeps columns of a thousand runs cheap to change.
 */
function spliced(runs: readonly Run[], from: number, to: number, written: readonly Run[]): Run[] {
  const [a, b] = [locate(runs, from), locate(runs, to)]
  const [first, last] = [runs[a.index], runs[b.index]]
  // Where the stretch begins with a run, the one ahead may show the same drawing; behind it the rest of a run stands.
  const start = a.before > 0 ? a.index : Math.max(0, a.index - 1)
  const head = first && a.before > 0 ? [{ drawing: first.drawing, frames: a.before }] : runs.slice(start, a.index)
  const tail = last ? [{ drawing: last.drawing, frames: last.frames - b.before }] : []
  return [...runs.slice(0, start), ...plain([...head, ...written, ...tail]), ...runs.slice(b.index + 1)]
}

/**
 * Writes `written` over a column from frame `from` on; what lies before and behind stays where it is.
 * Throws when it would reach outside the column.
 */
export function overwrite(runs: readonly Run[], from: number, written: readonly Run[]): Run[] {
  const to = from + lengthOf(written)
  const length = lengthOf(runs)
  needWhole(from, 0, 'frame')
  if (to > length) throw new UsageError(`frames ${from} to ${to} reach outside a column of ${length}`)
  return spliced(runs, from, to, written)
}

/**
 * Puts `inserted` before frame `at`; everything from there on moves back. The column grows. Throws a UsageError on a frame
 * outside the column.
 */
export function insert(runs: readonly Run[], at: number, inserted: readonly Run[]): Run[] {
  const length = lengthOf(runs)
  needWhole(at, 0, 'frame')
  if (at > length) throw new UsageError(`frame ${at} lies outside a column of ${length}`)
  return spliced(runs, at, at, inserted)
}

/** Takes frames `from` up to, but not with, `to` out; everything behind moves up. The column shrinks. */
export function remove(runs: readonly Run[], from: number, to: number): Run[] {
  return spliced(runs, from, Math.max(from, to), [])
}

/** A hold of the frame before `at` for `frames` frames: what an inserted frame shows unless told otherwise. */
export function heldAt(runs: readonly Run[], at: number, frames: number): Run[] {
  return [{ drawing: at > 0 ? drawingAt(runs, at - 1) : null, frames }]
}

/**
 * Makes a column `length` frames long: cuts its end off, or adds nothing at the end. Throws a UsageError on a length that
 * is no whole number from 0.
 */
export function fitTo(runs: readonly Run[], length: number): Run[] {
  needWhole(length, 0, 'length')
  const now = lengthOf(runs)
  return now >= length ? slice(runs, 0, length) : plain([...runs, { drawing: null, frames: length - now }])
}

/** Every drawing of a column in order of first exposure, once each. */
export function drawingsOf(runs: readonly Run[]): string[] {
  const seen = new Set<string>()
  for (const run of runs) if (run.drawing !== null) seen.add(run.drawing)
  return [...seen]
}

/**
 * Whole frames in proportion to weights, `frames` altogether, at least one each while there are enough: every part ends
 * where the running total comes nearest (at halves the earlier frame), so that no error adds up (J. E. Bresenham, 1965).
 * Throws when there are fewer frames than weights.
 */
export function shareFrames(frames: number, weights: readonly number[]): number[] {
  needWhole(frames, weights.length, 'frames')
  const total = weights.reduce((a, b) => a + b, 0)
  let [given, passed] = [0, 0]
  return weights.map((weight, i) => {
    passed += weight
    const behind = weights.length - 1 - i
    const nearest = Math.ceil((2 * frames * passed - total) / (2 * total))
    const end = Math.min(frames - behind, Math.max(given + 1, nearest))
    const part = end - given
    given = end
    return part
  })
}

/**
 * Splits `frames` over `parts` as evenly as whole frames allow: 36 over 24 is 1, 2, 1, 2 …. Throws a UsageError on fewer
 * than one part, or fewer frames than parts.
 */
export function spread(frames: number, parts: number): number[] {
  needWhole(parts, 1, 'parts')
  return shareFrames(
    frames,
    Array.from({ length: parts }, () => 1),
  )
}
