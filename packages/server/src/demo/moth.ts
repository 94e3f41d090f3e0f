import type { Point } from '@unhurried/core/geometry'
import { curve, disc, type Mark } from './tilda.ts'

/** The lamp it flies round, how far from it, and in how many drawings. */
export interface Flight {
  readonly round: Point
  readonly acrossPx: number
  readonly upPx: number
  /** 0 begins to the right of the lamp; clockwise as seen */
  readonly fromRad: number
  readonly drawings: number
}

export const ROUND_THE_MOON: Flight = {
  round: { x: 1026, y: 148 },
  acrossPx: 104,
  upPx: 62,
  fromRad: -0.6,
  drawings: 5,
}
/** Wings up, down, and up again. */
const BEATS = [1, 0.45, -0.35, 0.2, 0.8]

/** A moth once round a lamp, its wings going up and down: drawings to repeat, each on twos. */
export function moth({
  round,
  acrossPx,
  upPx,
  fromRad,
  drawings,
}: Flight): { id: string; number: number; marks: Mark[] }[] {
  return Array.from({ length: drawings }, (_, i) => {
    const angle = (i / drawings) * 2 * Math.PI + fromRad
    const at = { x: round.x + acrossPx * Math.cos(angle), y: round.y + upPx * Math.sin(angle) }
    const beat = BEATS[i % BEATS.length] as number
    return { id: `moth-${i + 1}`, number: 1 + 2 * i, marks: drawn(at, angle + Math.PI / 2, beat) }
  })
}

/** Seen from the side: two wings over a small body, flying along `heading`. */
function drawn(at: Point, heading: number, beat: number): Mark[] {
  const [c, s] = [Math.cos(heading), Math.sin(heading)]
  const flip = c < 0 ? -1 : 1
  const place = (x: number, y: number): Point => ({ x: at.x + x * c - y * s * flip, y: at.y + x * s + y * c * flip })
  const wing = (reach: number, back: number): Point[] =>
    curve(
      [
        place(2, -2),
        place(10 - back, -10 * beat - 3),
        place(4 - back, -26 * beat * reach),
        place(-13 - back, -22 * beat * reach),
        place(-9, -4),
      ],
      true,
      5,
    )
  const body = curve([place(12, 0), place(4, 4), place(-12, 3), place(-15, 0), place(-10, -3), place(6, -4)], true, 5)
  const shape = (swatch: string, points: readonly Point[]): Mark => ({ kind: 'shape', swatch, width: 1, points })
  const line = (width: number, points: readonly Point[]): Mark => ({ kind: 'line', swatch: 'graphite', width, points })
  const far = wing(0.8, 5)
  const near = wing(1, 0)
  return [
    shape('mist-deep', far),
    shape('mist', near),
    shape('bark', body),
    line(2, far),
    line(2.6, near),
    line(2.6, body),
    line(1.6, curve([place(11, -2), place(16, -6), place(20, -9)])),
    shape('lamp', disc(place(9, -1), 1.6, 1.6, 10)),
  ]
}
