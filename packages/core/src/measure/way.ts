import { locateBranch, pathLength, placeAlong, smoothPath, type Located, type MeasuredPath } from '../geometry/curve.ts'
import { distance, type Point } from '../geometry/point.ts'
import { THRESHOLDS } from './thresholds.ts'

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
  /** share of the arc length from A to B, 0–1; past B (overshoot) more than 1, back behind A less than 0 */
  readonly share: number
  /** distance off the path in pixels; 0 for drawings that make the path */
  readonly offPx: number
  /** measured minus planned share, in pixels along the path; positive is too far on */
  readonly aheadPx: number
}

/** A drawing within this share of the whole way from its tick meets the chart; so does one within a pixel, however short the way. */
export const WAY_TOLERANCE: number = THRESHOLDS.way.is
const LEAST_TOLERANCE_PX = 1

/** How far, in pixels, a drawing may lie from its place on a way of so many pixels. */
const tolerancePx = (wholePx: number, share = WAY_TOLERANCE): number =>
  Math.max(share * wholePx, LEAST_TOLERANCE_PX) + 1e-9

/** Whether a reading meets what the chart asked for, within a share of the whole way. */
export const meetsChart = (reading: WayReading, planned: number, share = WAY_TOLERANCE): boolean =>
  Math.abs(reading.share - planned) <= share + 1e-9 || Math.abs(reading.aheadPx) <= LEAST_TOLERANCE_PX + 1e-9

/** A drawing farther off its path than this share of its length is off the arc. */
const OFF_PATH = 0.02

/** Whether a reading lies farther off its path than is asked for. */
export const isOffPath = (path: MeasuredPath, { offPx }: WayReading): boolean =>
  offPx > tolerancePx(pathLength(path), OFF_PATH)

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
    const { share, offPx } = whereOnWay(path, place.drawn, place.planned)
    const leads = place.leads && place.planned < 1
    return { share, offPx: leads ? 0 : offPx, aheadPx: (share - place.planned) * whole }
  })
}

/**
 * Where a drawing lies on the way. One that is meant to lie, or lies, past a key is read along the straight line on from
 * there: less than 0 before the first, more than 1 past the last. On a way that turns back it is read on the branch its plan
 * says.
 */
function whereOnWay(path: MeasuredPath, p: Point, planned: number): Located {
  const whole = pathLength(path)
  if (planned > 1) return locatePast(path, p, whole)
  const on = locateBranch(path, p, planned, tolerancePx(whole))
  if (on.share > 1 - 1e-9 && locatePast(path, p, whole).share > 1) return locatePast(path, p, whole)
  if (on.share < 1e-9 && locatePast(path, p, 0).share < 0) return locatePast(path, p, 0)
  return on
}

/** Where a point lies along and off the straight line on from the end of a path (`from` its whole length), or back from its start (0). */
function locatePast(path: MeasuredPath, p: Point, from: number): Located {
  const whole = pathLength(path)
  const out = from === 0 ? -1 : 1
  const [end, on] = [placeAlong(path, from), placeAlong(path, from + out)]
  const [dx, dy] = [p.x - end.x, p.y - end.y]
  const along = dx * (on.x - end.x) + dy * (on.y - end.y)
  return { share: (from + out * along) / whole, offPx: Math.abs(dx * (on.y - end.y) - dy * (on.x - end.x)) }
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
 * its place. Null when all lie within `tolerance` of the way's length, or within a pixel.
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
    if (distancePx <= tolerancePx(whole, tolerance) || (worst && distancePx <= worst.distancePx)) return
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
