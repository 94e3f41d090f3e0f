import type { Point } from '../geometry/point.ts'
import { needPositive } from '../errors.ts'

/**
 * A thrown thing: where it is at the share `u` (0–1) of its flight from `from` to `to`, rising `apexPx` above the straight
 * line between them half-way. Forward speed is constant and gravity is too: a parabola, y downwards. Throws a UsageError
 * on an apex that is not above 0.
 */
export function flightAt(from: Point, to: Point, apexPx: number, u: number): Point {
  needPositive(apexPx, 'apex')
  return { x: from.x + (to.x - from.x) * u, y: from.y + (to.y - from.y) * u - 4 * apexPx * u * (1 - u) }
}
