import type { Point } from '@unhurried/core/geometry'
import { curve, disc, type Mark } from './tilda.ts'

/** The lamp it flies round. */
const MOON: Point = { x: 1046, y: 138 }
/** One turn: five drawings. */
const DRAWINGS = 5

/** A moth once round the moon, its wings going up and down: drawings to repeat. */
export function moth(): { id: string; number: number; marks: Mark[] }[] {
  return Array.from({ length: DRAWINGS }, (_, i) => {
    const angle = (i / DRAWINGS) * 2 * Math.PI - 0.6
    const at = { x: MOON.x - 20 + 104 * Math.cos(angle), y: MOON.y + 10 + 62 * Math.sin(angle) }
    const beat = [1, 0.45, -0.35, 0.2, 0.8][i] as number
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
