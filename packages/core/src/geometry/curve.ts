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
 * ch. IV): two points give a straight line, three exactly a parabola, an arc is followed closely.
 * Points that coincide with the one before are passed over.
 */
export function smoothPath(through: readonly Point[]): MeasuredPath {
  const points = through.filter((p, i) => i === 0 || distance(p, through[i - 1] as Point) > 1e-9)
  if (points.length < 3) return measurePath(points)
  const chords = points.slice(1).map((p, i) => distance(points[i] as Point, p))
  const tangents = points.map((_, i) => tangentAt(points, chords, i))
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
  if (lengthPx < 0) return beyond(path.points[1] as Point, first, -lengthPx)
  if (lengthPx > whole) return beyond(path.points[path.points.length - 2] as Point, last, lengthPx - whole)
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

/** Slope at point i, per unit of chord length, of the parabola through it and its neighbours (at an end: the nearest three). */
function tangentAt(points: readonly Point[], chords: readonly number[], i: number): Point {
  const middle = Math.min(Math.max(i, 1), points.length - 2)
  const h0 = chords[middle - 1] as number
  const h1 = chords[middle] as number
  const [p, q, r] = [points[middle - 1] as Point, points[middle] as Point, points[middle + 1] as Point]
  const along = (axis: 'x' | 'y') => {
    const d0 = (q[axis] - p[axis]) / h0
    const d1 = (r[axis] - q[axis]) / h1
    const bend = (d1 - d0) / (h0 + h1)
    if (i < middle) return d0 - bend * h0
    return i > middle ? d1 + bend * h1 : d0 + bend * h0
  }
  return { x: along('x'), y: along('y') }
}

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

/**
 * Where on a path the point nearest to `p` lies: its share of the arc length (0–1) and the distance off it in pixels.
 * On a path of no length the share is 0.
 */
export function locate(path: MeasuredPath, p: Point): { share: number; offPx: number } {
  let best = { share: 0, offPx: distance(path.points[0] as Point, p) }
  const whole = pathLength(path)
  for (let i = 1; i < path.points.length && whole > 0; i++) {
    const near = nearestOnPiece(p, path.points[i - 1] as Point, path.points[i] as Point)
    const offPx = distance(near.point, p)
    if (offPx >= best.offPx) continue
    const before = path.lengths[i - 1] as number
    best = { share: (before + near.t * ((path.lengths[i] as number) - before)) / whole, offPx }
  }
  return best
}
