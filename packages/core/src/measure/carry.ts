import type { Matrix } from '../geometry/matrix.ts'
import type { Moments } from '../raster/moments.ts'

/** A symmetric matrix: xx, xy, yy. */
type Spread = readonly [xx: number, xy: number, yy: number]

/** The spread of a body about its middle: that of its ellipse. */
function spreadOf({ halfAxes: [a, b], tiltRad }: Moments): Spread {
  const [cos, sin] = [Math.cos(tiltRad), Math.sin(tiltRad)]
  return [a * a * cos * cos + b * b * sin * sin, (a * a - b * b) * cos * sin, a * a * sin * sin + b * b * cos * cos]
}

/** The root of a symmetric positive matrix, itself symmetric: (M + √det M · 1) / √(tr M + 2 √det M). */
function rootOf([xx, xy, yy]: Spread): Spread {
  const det = Math.sqrt(Math.max(0, xx * yy - xy * xy))
  const by = Math.sqrt(xx + yy + 2 * det)
  return [(xx + det) / by, xy / by, (yy + det) / by]
}

/** A · M · A of symmetric matrices. */
function between([a, b, d]: Spread, [xx, xy, yy]: Spread): Spread {
  const [p, q] = [a * xx + b * xy, a * xy + b * yy]
  const [r, s] = [b * xx + d * xy, b * xy + d * yy]
  return [p * a + q * b, p * b + q * d, r * b + s * d]
}

/**
 * How a body that was shifted, squashed and stretched has carried its places along: the map that takes its ellipse to the other's and turns nothing that it need not turn (the
 * optimal transport of one normal distribution to another; I. Olkin and F. Pukelsheim, 1982). A matrix of paper pixels; null where either has no body.
 */
export function bodyMap(from: Moments, to: Moments): Matrix | null {
  const [p, q] = [from.centroid, to.centroid]
  if (!p || !q || !(from.halfAxes[1] > 0) || !(to.halfAxes[1] > 0)) return null
  const root = rootOf(spreadOf(from))
  const det = root[0] * root[2] - root[1] * root[1]
  const inverse: Spread = [root[2] / det, -root[1] / det, root[0] / det]
  const [xx, xy, yy] = between(inverse, rootOf(between(root, spreadOf(to))))
  return [xx, xy, xy, yy, q.x - xx * p.x - xy * p.y, q.y - xy * p.x - yy * p.y]
}
