import { shareOf, type Ratio } from '../chart/halves.ts'
import { knottedPath, placeAlong } from '../geometry/curve.ts'
import type { Point } from '../geometry/point.ts'

/** A place of one mark on a drawing that exists, in the order of time. */
export interface MarkedPlace {
  readonly drawing: string
  readonly at: Point
}

/**
 * Where a mark belongs on the next drawing: at the ratio of the arc between its two parents, along the smooth path through
 * all drawings on which the mark is placed, and not only on the straight line between the two. `way` are these places in
 * the order of time. Past the second parent (overshoot) the path goes straight on. Null while a parent has no place.
 */
export function crossOf(way: readonly MarkedPlace[], left: string, right: string, ratio: Ratio): Point | null {
  const from = way.findIndex(place => place.drawing === left)
  const to = way.findIndex(place => place.drawing === right)
  if (from < 0 || to < 0) return null
  const share = shareOf(ratio)
  // What comes after the later parent has no say in how a movement swings past it.
  const seen = share > 1 ? way.slice(0, to + 1) : way
  const { path, knots } = knottedPath(seen.map(place => place.at))
  const [a, b] = [knots[from] as number, knots[to] as number]
  return placeAlong(path, a + (b - a) * share)
}
