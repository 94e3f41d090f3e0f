import { boxOf, isEmptyBox, type Box, type Point } from './point.ts'

/**
 * A flat affine map, in the order canvas and SVG use:
 *
 *     x' = a·x + c·y + e
 *     y' = b·x + d·y + f
 */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0]

/** The map that does `first`, then `then`. */
export function after(first: Matrix, then: Matrix): Matrix {
  const [a, b, c, d, e, f] = first
  const [A, B, C, D, E, F] = then
  return [A * a + C * b, B * a + D * b, A * c + C * d, B * c + D * d, A * e + C * f + E, B * e + D * f + F]
}

/** A point mapped by a matrix. */
export function map(m: Matrix, p: Point): Point {
  return { x: m[0] * p.x + m[2] * p.y + m[4], y: m[1] * p.x + m[3] * p.y + m[5] }
}

/** The map that undoes `m`; null when m flattens the plane and cannot be undone. */
export function inverse(m: Matrix): Matrix | null {
  const [a, b, c, d, e, f] = m
  const det = a * d - b * c
  if (!Number.isFinite(det) || Math.abs(det) < 1e-12) return null
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det]
}

/** The matrix that shifts by so many pixels. */
export const translation = (dx: number, dy: number): Matrix => [1, 0, 0, 1, dx, dy]

/** Scaling by sx, sy that leaves `about` where it is. */
export const scaling = (sx: number, sy: number, about: Point): Matrix => [
  sx,
  0,
  0,
  sy,
  about.x - sx * about.x,
  about.y - sy * about.y,
]

/** A turn by `angleRad`, clockwise as seen (y runs down), that leaves `about` where it is. */
export function rotation(angleRad: number, about: Point): Matrix {
  const c = Math.cos(angleRad)
  const s = Math.sin(angleRad)
  return [c, s, -s, c, about.x - c * about.x + s * about.y, about.y - s * about.x - c * about.y]
}

/** Mirrors across the line through `about` at an angle (y downwards: clockwise from the right as seen). */
export function reflection(axisRad: number, about: Point): Matrix {
  const [c, d] = [Math.cos(2 * axisRad), Math.sin(2 * axisRad)]
  return [c, d, d, -c, about.x - c * about.x - d * about.y, about.y - d * about.x + c * about.y]
}

/** By what factor lengths grow on average: the square root of the factor for areas. Line weight follows it. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]))

/** The upright box round a box mapped by a matrix; an empty one stays empty. */
export const mappedBox = (m: Matrix, box: Box): Box =>
  isEmptyBox(box)
    ? box
    : boxOf(
        [
          { x: box.left, y: box.top },
          { x: box.right, y: box.top },
          { x: box.right, y: box.bottom },
          { x: box.left, y: box.bottom },
        ].map(corner => map(m, corner)),
      )
