import type { Point } from '../geometry/point.ts'
import { eachRun, type Mask } from './silhouette.ts'

/** What a silhouette amounts to, in pixels of the mask. */
export interface Moments {
  /** number of pixels inside */
  readonly area: number
  /** centre of area, pixel centres at half pixels; null when there is nothing */
  readonly centroid: Point | null
  /** lengths of the half axes of the ellipse with the same second moments, longest first */
  readonly halfAxes: readonly [number, number]
  /** direction of the long axis in radians from +x, clockwise as seen (y runs down), in (−π/2, π/2] */
  readonly tiltRad: number
}

/** 0² + 1² + … + (n − 1)². */
const squaresBelow = (n: number): number => ((n - 1) * n * (2 * n - 1)) / 6

/**
 * Area, centre and main axes of a mask. The ellipse of equal second moments has half axes 2·√λ, where λ are the
 * eigenvalues of the covariance of the pixels (M. R. Teague, "Image analysis via the general theory of moments", 1980).
 */
export function momentsOf(mask: Mask): Moments {
  let area = 0
  let sx = 0
  let sy = 0
  let sxx = 0
  let syy = 0
  let sxy = 0
  // Run by run: the sums of x and of x² over one are differences of those of all numbers below its ends.
  eachRun(mask, (y, from, to) => {
    const count = to - from
    const x1 = (count * (from + to - 1)) / 2
    area += count
    sx += x1
    sxx += squaresBelow(to) - squaresBelow(from)
    sy += y * count
    syy += y * y * count
    sxy += y * x1
  })
  if (area === 0) return { area, centroid: null, halfAxes: [0, 0], tiltRad: 0 }
  const cx = sx / area
  const cy = sy / area
  const vxx = sxx / area - cx * cx
  const vyy = syy / area - cy * cy
  const vxy = sxy / area - cx * cy
  const spread = Math.sqrt(((vxx - vyy) / 2) ** 2 + vxy ** 2)
  const middle = (vxx + vyy) / 2
  return {
    area,
    centroid: { x: cx + 0.5, y: cy + 0.5 },
    halfAxes: [2 * Math.sqrt(middle + spread), 2 * Math.sqrt(Math.max(0, middle - spread))],
    tiltRad: 0.5 * Math.atan2(2 * vxy, vxx - vyy),
  }
}
