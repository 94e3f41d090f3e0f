import { locate, pathLength, placeAlong, smoothPath, type MeasuredPath } from '../geometry/curve.ts'
import { distance, type Point } from '../geometry/point.ts'

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
  /** share of the arc length from A to B, 0–1; past B (overshoot) more than 1 */
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
  const led = places.filter(place => place.leads && place.planned < 1 && place.drawn).map(place => place.drawn as Point)
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
    const { share, offPx } = place.planned > 1 ? locatePast(path, place.drawn) : locate(path, place.drawn)
    const leads = place.leads && place.planned < 1
    return { share, offPx: leads ? 0 : offPx, aheadPx: (share - place.planned) * whole }
  })
}

/** Where a drawing past the end of a path lies: along and off the straight line on from it. */
function locatePast(path: MeasuredPath, p: Point): { share: number; offPx: number } {
  const whole = pathLength(path)
  const [end, on] = [placeAlong(path, whole), placeAlong(path, whole + 1)]
  const [dx, dy] = [p.x - end.x, p.y - end.y]
  const along = dx * (on.x - end.x) + dy * (on.y - end.y)
  return { share: 1 + along / whole, offPx: Math.abs(dx * (on.y - end.y) - dy * (on.x - end.x)) }
}

/** What to do about a drawing that misses its place: how far to move it, and where to, in words. */
export interface Correction {
  readonly index: number
  readonly from: Point
  readonly to: Point
  readonly distancePx: number
  readonly words: string
}

/**
 * The drawing that misses its place by most (its tick's place on the path, off-path distance included), and the way to
 * its place. Null when all lie within `tolerance` of the way's length.
 */
export function worstCorrection(
  path: MeasuredPath,
  places: readonly WayPlace[],
  tolerance = WAY_TOLERANCE,
): Correction | null {
  const whole = pathLength(path)
  let worst: Correction | null = null
  places.forEach((place, index) => {
    if (!place.drawn) return
    const to = placeAlong(path, place.planned * whole)
    const distancePx = distance(place.drawn, to)
    if (distancePx <= tolerance * whole || (worst && distancePx <= worst.distancePx)) return
    worst = { index, from: place.drawn, to, distancePx, words: directionInWords(place.drawn, to) }
  })
  return worst
}

/** A move on the paper in words: "12 px right, 5 px up". */
export function directionInWords(from: Point, to: Point): string {
  const [dx, dy] = [Math.round(to.x - from.x), Math.round(to.y - from.y)]
  const parts = [
    dx !== 0 && `${Math.abs(dx)} px ${dx > 0 ? 'right' : 'left'}`,
    dy !== 0 && `${Math.abs(dy)} px ${dy > 0 ? 'down' : 'up'}`,
  ]
  return parts.filter(Boolean).join(', ') || 'less than a pixel'
}

/** How fast a step of a chart is: pixels a frame on the measured path, planned, and drawn where both its ends are. */
export interface StepSpeed {
  readonly frames: number
  readonly plannedPx: number
  readonly drawnPx: number | null
}

/**
 * Pixels a frame for every step of a chart from key to key: `shares` are the planned places (keys left out), `read` the
 * measured ones, `holds` for how many frames the first key and each drawing are held (one more than there are shares).
 */
export function stepSpeeds(
  wholePx: number,
  shares: readonly number[],
  read: readonly (number | null)[],
  holds: readonly number[],
): StepSpeed[] {
  const planned = [0, ...shares, 1]
  const drawn = [0, ...read, 1]
  return holds.map((frames, i) => {
    const [a, b] = [drawn[i] ?? null, drawn[i + 1] ?? null]
    const step = Math.abs((planned[i + 1] as number) - (planned[i] as number))
    return {
      frames,
      plannedPx: (step * wholePx) / frames,
      drawnPx: a === null || b === null ? null : (Math.abs(b - a) * wholePx) / frames,
    }
  })
}
