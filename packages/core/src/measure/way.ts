import { locate, pathLength, smoothPath, type MeasuredPath } from '../geometry/curve.ts'
import type { Point } from '../geometry/point.ts'

/** A place on the way from key A to key B: what the chart asks for and, once drawn, where the drawing lies. */
export interface WayPlace {
  /** asked for: share of the way, 0–1 */
  readonly planned: number
  /** measured place (centre of the silhouette), or null while nothing is drawn */
  readonly drawn: Point | null
  /** whether the drawing decides the path (keys and breakdowns do) or is judged against it */
  readonly leads: boolean
}

/** Where a drawing really lies on the way from A to B. */
export interface WayReading {
  /** share of the arc length from A to B, 0–1 */
  readonly share: number
  /** distance off the path in pixels; 0 for drawings that make the path */
  readonly offPx: number
  /** measured minus planned share, in pixels along the path; positive is too far on */
  readonly aheadPx: number
}

/** A drawing within this share of the whole way from its tick meets the chart. */
export const WAY_TOLERANCE = 0.02

/** Whether a reading meets what the chart asked for. */
export const meetsChart = (reading: WayReading, planned: number): boolean =>
  Math.abs(reading.share - planned) <= WAY_TOLERANCE

/**
 * The path the action takes: smoothly through A, the drawn breakdowns, and B. Null while a key is missing or A and B lie
 * so close together (under 1 px of path) that nothing can be read from it.
 */
export function wayPath(a: Point | null, places: readonly WayPlace[], b: Point | null): MeasuredPath | null {
  if (!a || !b) return null
  const led = places.filter(place => place.leads && place.drawn).map(place => place.drawn as Point)
  const path = smoothPath([a, ...led, b])
  return pathLength(path) < 1 ? null : path
}

/** Reads a chart back from drawings: for each place its share of the arc from A to B, or null where nothing is drawn. */
export function readWay(a: Point | null, places: readonly WayPlace[], b: Point | null): (WayReading | null)[] {
  const path = wayPath(a, places, b)
  if (!path) return places.map(() => null)
  const whole = pathLength(path)
  return places.map(place => {
    if (!place.drawn) return null
    const { share, offPx } = locate(path, place.drawn)
    return { share, offPx: place.leads ? 0 : offPx, aheadPx: (share - place.planned) * whole }
  })
}
