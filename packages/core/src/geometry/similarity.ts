import { map, type Matrix } from './matrix.ts'
import { distance, type Point } from './point.ts'

/** A map that shifts, turns and scales, and nothing else. */
export interface Similarity {
  readonly shiftX: number
  readonly shiftY: number
  /** clockwise as seen, radians */
  readonly turnRad: number
  readonly scale: number
}

/** As a matrix: first scaled and turned about (0, 0), then shifted. */
export function matrixOfSimilarity({ shiftX, shiftY, turnRad, scale }: Similarity): Matrix {
  const [c, s] = [scale * Math.cos(turnRad), scale * Math.sin(turnRad)]
  return [c, s, -s, c, shiftX, shiftY]
}

/** What a matrix that only shifts, turns and scales does. */
export const similarityOf = ([a, b, , , e, f]: Matrix): Similarity => ({
  shiftX: e,
  shiftY: f,
  turnRad: Math.atan2(b, a),
  scale: Math.hypot(a, b),
})

/**
 * The shift, turn and scale that bring points nearest to others, by least squares (S. Umeyama, 1991; in the plane a regression of complex numbers), and how far the
 * worst of them is off then, px. Without scale where it is asked so. Null for fewer than two points, or for all in one place.
 */
export function fitPoints(
  from: readonly Point[],
  to: readonly Point[],
  scales = true,
): { readonly matrix: Matrix; readonly offPx: number } | null {
  const n = Math.min(from.length, to.length)
  if (n < 2) return null
  const mean = (points: readonly Point[], of: 'x' | 'y') => points.slice(0, n).reduce((s, p) => s + p[of], 0) / n
  const [fx, fy, tx, ty] = [mean(from, 'x'), mean(from, 'y'), mean(to, 'x'), mean(to, 'y')]
  let [re, im, all] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    const [p, q] = [from[i] as Point, to[i] as Point]
    const [u, v, x, y] = [p.x - fx, p.y - fy, q.x - tx, q.y - ty]
    re += u * x + v * y
    im += u * y - v * x
    all += u * u + v * v
  }
  if (all < 1e-9 || (re === 0 && im === 0)) return null
  const long = scales ? all : Math.hypot(re, im)
  const [c, s] = [re / long, im / long]
  const matrix: Matrix = [c, s, -s, c, tx - c * fx + s * fy, ty - s * fx - c * fy]
  const offPx = Math.max(...from.slice(0, n).map((p, i) => distance(map(matrix, p), to[i] as Point)))
  return { matrix, offPx }
}
