import { UsageError } from '../errors.ts'
import { distance, lerp, nearestOnPiece, type Point } from './point.ts'

/** A path as a fine polyline with the arc length up to each of its points, in pixels. */
export interface MeasuredPath {
  readonly points: readonly Point[]
  readonly lengths: readonly number[]
}

/** The whole arc length of a path in pixels. */
export const pathLength = (path: MeasuredPath): number => path.lengths[path.lengths.length - 1] ?? 0

/** Measures a polyline. Throws on an empty one. */
export function measurePath(points: readonly Point[]): MeasuredPath {
  if (points.length === 0) throw new UsageError('a path needs at least one point')
  const lengths = [0]
  for (let i = 1; i < points.length; i++) {
    lengths.push((lengths[i - 1] as number) + distance(points[i - 1] as Point, points[i] as Point))
  }
  return { points, lengths }
}

const PIECES_PER_SPAN = 48

/**
 * The smooth path through points, as a fine polyline. Piecewise cubic Hermite in chord-length parameter with Bessel
 * tangents (the slope of the parabola through each point and its neighbours; de Boor, "A Practical Guide to Splines",
 * ch. IV): two points give a straight line, three exactly a parabola, an arc is followed closely. Where the way turns
 * back, a tangent keeps nothing that would lead back along either chord, so that the path never runs past a point it
 * turns at (as in F. N. Fritsch and R. E. Carlson, "Monotone piecewise cubic interpolation", 1980, for both chords).
 * Points that coincide with the one before are passed over.
 */
export function smoothPath(through: readonly Point[]): MeasuredPath {
  const points = through.filter((p, i) => i === 0 || distance(p, through[i - 1] as Point) > 1e-9)
  if (points.length < 3) return measurePath(points)
  const chords = points.slice(1).map((p, i) => distance(points[i] as Point, p))
  const tangents = tangentsOf(points, chords)
  const fine: Point[] = [points[0] as Point]
  chords.forEach((h, i) => {
    const [a, b] = [points[i] as Point, points[i + 1] as Point]
    const [u, v] = [tangents[i] as Point, tangents[i + 1] as Point]
    for (let k = 1; k <= PIECES_PER_SPAN; k++) fine.push(hermite(a, b, u, v, h, k / PIECES_PER_SPAN))
  })
  return measurePath(fine)
}

/** A smooth path together with the arc length at which it passes through each of the given points. */
export interface KnottedPath {
  readonly path: MeasuredPath
  readonly knots: readonly number[]
}

/** The smooth path through points, and where on it they lie. Throws on none. */
export function knottedPath(through: readonly Point[]): KnottedPath {
  const path = smoothPath(through)
  const pieces = path.points.length === 1 ? 0 : path.points.length === 2 ? 1 : PIECES_PER_SPAN
  let span = 0
  const knots = through.map((p, i) => {
    if (i > 0 && distance(p, through[i - 1] as Point) > 1e-9) span++
    return path.lengths[span * pieces] as number
  })
  return { path, knots }
}

/** The place `lengthPx` along a path; before its start or past its end straight on. */
export function placeAlong(path: MeasuredPath, lengthPx: number): Point {
  const whole = pathLength(path)
  const [first, last] = [path.points[0] as Point, path.points[path.points.length - 1] as Point]
  if (whole === 0) return first
  // Points that lie on the end itself tell no direction.
  if (lengthPx < 0) return beyond(path.points.find(p => distance(p, first) > 0) as Point, first, -lengthPx)
  if (lengthPx > whole)
    return beyond([...path.points].reverse().find(p => distance(p, last) > 0) as Point, last, lengthPx - whole)
  return pointAlong(path, lengthPx / whole)
}

function beyond(before: Point, end: Point, by: number): Point {
  const step = distance(before, end)
  return { x: end.x + ((end.x - before.x) * by) / step, y: end.y + ((end.y - before.y) * by) / step }
}

/** The part of a path from one arc length to another. */
export function partOfPath(path: MeasuredPath, fromPx: number, toPx: number): MeasuredPath {
  const inner = path.points.filter((_, i) => {
    const l = path.lengths[i] as number
    return l > fromPx && l < toPx
  })
  return measurePath([placeAlong(path, fromPx), ...inner, placeAlong(path, toPx)])
}

/** Slopes at all points, per unit of chord length. */
function tangentsOf(points: readonly Point[], chords: readonly number[]): Point[] {
  const ways = chords.map((h, i) => scaled(minus(points[i + 1] as Point, points[i] as Point), 1 / h))
  const inner = ways
    .slice(1)
    .map((after, i) => innerTangent(ways[i] as Point, after, chords[i] as number, chords[i + 1] as number))
  // At an end: the slope there of the parabola that has the neighbour's slope.
  const [first, last] = [ways[0] as Point, ways[ways.length - 1] as Point]
  const [second, lastButOne] = [inner[0] as Point, inner[inner.length - 1] as Point]
  return [minus(scaled(first, 2), second), ...inner, minus(scaled(last, 2), lastButOne)]
}

/** Slope at a point between two chords of lengths h0 and h1 (directions as unit vectors): Bessel's, without what leads back. */
function innerTangent(before: Point, after: Point, h0: number, h1: number): Point {
  const whole = h0 + h1
  const bessel = { x: (h1 * before.x + h0 * after.x) / whole, y: (h1 * before.y + h0 * after.y) / whole }
  return [before, after].reduce((t, way) => {
    const along = t.x * way.x + t.y * way.y
    return along < 0 ? minus(t, scaled(way, along)) : t
  }, bessel)
}

const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y })
const scaled = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by })

function hermite(a: Point, b: Point, u: Point, v: Point, h: number, t: number): Point {
  const t2 = t * t
  const t3 = t2 * t
  const [ha, hu, hb, hv] = [2 * t3 - 3 * t2 + 1, (t3 - 2 * t2 + t) * h, 3 * t2 - 2 * t3, (t3 - t2) * h]
  return { x: ha * a.x + hu * u.x + hb * b.x + hv * v.x, y: ha * a.y + hu * u.y + hb * b.y + hv * v.y }
}

/** The point at the share `t` (0–1) of the arc length of a path. */
export function pointAlong(path: MeasuredPath, t: number): Point {
  const wanted = Math.max(0, Math.min(1, t)) * pathLength(path)
  const next = path.lengths.findIndex(l => l >= wanted)
  if (next <= 0) return path.points[0] as Point
  const before = path.lengths[next - 1] as number
  const span = (path.lengths[next] as number) - before
  return lerp(path.points[next - 1] as Point, path.points[next] as Point, span === 0 ? 0 : (wanted - before) / span)
}

/** A place on a path: its share of the arc length (0–1), and how far from it the point that was looked for lies, in pixels. */
export interface Located {
  readonly share: number
  readonly offPx: number
}

/** Where on a path the point nearest to `p` lies. On a path of no length the share is 0. */
export const locate = (path: MeasuredPath, p: Point): Located =>
  nearPlaces(path, p).reduce((best, place) => (place.offPx < best.offPx ? place : best))

/**
 * Where on a path `p` lies when it is meant to lie about `meant` of the way along: a path that turns back on itself passes
 * many places twice. Of all places on it that are nearer than those around them, and not more than `slackPx` farther than
 * the nearest, the one whose share is nearest to `meant`.
 */
export function locateBranch(path: MeasuredPath, p: Point, meant: number, slackPx: number): Located {
  const places = nearPlaces(path, p)
  const least = Math.min(...places.map(place => place.offPx))
  return places
    .filter(place => place.offPx <= least + slackPx)
    .reduce((best, place) => (Math.abs(place.share - meant) < Math.abs(best.share - meant) ? place : best))
}

/** The places of a path that lie nearer to `p` than those just before and just behind them. */
function nearPlaces(path: MeasuredPath, p: Point): Located[] {
  const whole = pathLength(path)
  const start = { share: 0, offPx: distance(path.points[0] as Point, p) }
  if (whole === 0) return [start]
  const nearest = path.points.slice(1).map((b, i): Located => {
    const near = nearestOnPiece(p, path.points[i] as Point, b)
    const before = path.lengths[i] as number
    const share = (before + near.t * ((path.lengths[i + 1] as number) - before)) / whole
    return { share, offPx: distance(near.point, p) }
  })
  return nearest.filter((place, i) => {
    const [before, behind] = [nearest[i - 1], nearest[i + 1]]
    return place.offPx <= (before?.offPx ?? Infinity) && place.offPx <= (behind?.offPx ?? Infinity)
  })
}
