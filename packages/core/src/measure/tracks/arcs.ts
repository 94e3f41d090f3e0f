import { distance, nearestOnPiece, type Point } from '../../geometry/point.ts'
import { heldPlaces, type Track } from './track.ts'

/** How far a place of a part lies off the arc its neighbours make. */
export interface OffArc {
  readonly frame: number
  readonly px: number
  /** as a share of the mean of the steps before and after it */
  readonly share: number
}

const PIECES = 24

/** The cubic through four points with knots by chord length (Lagrange), between the second and the third of them; null where two of them are the same. */
function cubicThrough(points: readonly [Point, Point, Point, Point]): Point[] | null {
  const knots = points.reduce<number[]>(
    (all, p, i) => [...all, i === 0 ? 0 : (all[i - 1] as number) + distance(points[i - 1] as Point, p)],
    [],
  )
  if (knots.some((knot, i) => i > 0 && knot - (knots[i - 1] as number) < 1e-6)) return null
  const [from, to] = [knots[1] as number, knots[2] as number]
  return Array.from({ length: PIECES + 1 }, (_, k) => {
    const u = from + ((to - from) * k) / PIECES
    let [x, y] = [0, 0]
    points.forEach((p, i) => {
      const weight = knots.reduce((w, knot, j) => (i === j ? w : (w * (u - knot)) / ((knots[i] as number) - knot)), 1)
      x += weight * p.x
      y += weight * p.y
    })
    return { x, y }
  })
}

/** For each place with two neighbours on either side: how far it lies off the cubic through these four, between the nearer two. */
export function offArcs(track: Track): OffArc[] {
  const places = heldPlaces(track)
  return places.slice(2, -2).flatMap((place, k) => {
    const [a, b, , c, d] = places.slice(k, k + 5).map(one => one.at) as [Point, Point, Point, Point, Point]
    const path = cubicThrough([a, b, c, d])
    const step = (distance(b, place.at) + distance(place.at, c)) / 2
    if (!path || step < 1e-6) return []
    const px = Math.min(
      ...path.slice(1).map((to, i) => distance(place.at, nearestOnPiece(place.at, path[i] as Point, to).point)),
    )
    return [{ frame: place.frame, px, share: px / step }]
  })
}
