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
  /** the wished frame, e.g. 33.5 */
  readonly wished: number
  readonly exact: boolean
  /** the nearest whole frames, the nearer (or earlier) first */
  readonly nearest: readonly number[]
  /** moving one key by one or more frames, the smallest moves first, so that it falls on a whole frame */
  readonly moves: readonly GapMove[]
}

/** How far the two keys may be moved: the first and last frame the drawing of either may start on. */
export interface GapRoom {
  readonly earliest: number
  readonly latest: number
}

/**
 * The frame of drawing `index` (0-based) of `count` evenly timed inbetweens between keys on frames `from` and `to`, and,
 * when it is no whole frame, the nearest choices. Between 31 and 36 the half falls on 33½: 33 or 34, or one key moved by
 * a frame (36 to 35 or 37, 31 to 30 or 32). Moves leave a frame for every drawing and keep to `room`. Throws when the
 * keys are less than two frames apart.
 */
export function readGap(from: number, to: number, index = 0, count = 1, room: Partial<GapRoom> = {}): GapReading {
  needWhole(from, 0, 'frame')
  needWhole(to, from + 2, 'later key')
  needWhole(count, 1, 'count')
  const place = (a: number, b: number) => ((b - a) * (index + 1)) / (count + 1) + a
  const whole = (a: number, b: number) => ((b - a) * (index + 1)) % (count + 1) === 0
  const wished = place(from, to)
  if (whole(from, to)) return { wished, exact: true, nearest: [wished], moves: [] }
  const low = Math.floor(wished)
  const nearest = (wished - low <= 0.5 ? [low, low + 1] : [low + 1, low]).filter(f => f > from && f < to)
  const { earliest = 0, latest = Infinity } = room
  const fits = (a: number, b: number) => a >= earliest && b <= latest && b - a > count && whole(a, b)
  const moves: GapMove[] = []
  for (let by = 1; by <= count && moves.length < 4; by++) {
    for (const b of [to - by, to + by]) if (fits(from, b)) moves.push({ key: 'to', frame: b, at: place(from, b) })
    for (const a of [from - by, from + by]) if (fits(a, to)) moves.push({ key: 'from', frame: a, at: place(a, to) })
  }
  return { wished, exact: false, nearest, moves }
}
