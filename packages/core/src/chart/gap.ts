import { needWhole } from '../errors.ts'

/** A whole-number way out of a gap that does not divide evenly. */
export interface GapMove {
  /** which of the two keys moves, and the frame (or number) it moves to */
  readonly key: 'from' | 'to'
  readonly frame: number
  /** where the drawing in question then falls */
  readonly at: number
}

/** Where a drawing wished at a share of the way in time falls between two keys, and what can be done when that is no whole frame. */
export interface GapReading {
  /** the wished frame, e.g. 45.5 */
  readonly wished: number
  readonly exact: boolean
  /** the nearest whole frames, the nearer (or earlier) first */
  readonly nearest: readonly number[]
  /** moving one key by one or more frames, the smallest moves first, so that it falls on a whole frame */
  readonly moves: readonly GapMove[]
}

/**
 * The frame of drawing `index` (0-based) of `count` evenly timed inbetweens between keys on frames `from` and `to`, and,
 * when it is no whole frame, the nearest choices. Between 43 and 48 the half falls on 45.5: 45 or 46, or one key moved by
 * a frame (48 to 47 or 49, 43 to 42 or 44). Throws when the keys are less than two frames apart.
 */
export function readGap(from: number, to: number, index = 0, count = 1): GapReading {
  needWhole(from, 0, 'frame')
  needWhole(to, from + 2, 'later key')
  needWhole(count, 1, 'count')
  const place = (a: number, b: number) => ((b - a) * (index + 1)) / (count + 1) + a
  const whole = (a: number, b: number) => ((b - a) * (index + 1)) % (count + 1) === 0
  const wished = place(from, to)
  if (whole(from, to)) return { wished, exact: true, nearest: [wished], moves: [] }
  const low = Math.floor(wished)
  const nearest = (wished - low <= 0.5 ? [low, low + 1] : [low + 1, low]).filter(f => f > from && f < to)
  const moves: GapMove[] = []
  for (let by = 1; by <= count && moves.length < 4; by++) {
    for (const b of [to - by, to + by]) {
      if (b > from + 1 && whole(from, b)) moves.push({ key: 'to', frame: b, at: place(from, b) })
    }
    for (const a of [from - by, from + by]) {
      if (a >= 0 && a < to - 1 && whole(a, to)) moves.push({ key: 'from', frame: a, at: place(a, to) })
    }
  }
  return { wished, exact: false, nearest, moves }
}
