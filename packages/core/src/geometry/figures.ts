import { distance, lerp, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** Samples of a figure lie this far apart on the paper, in pixels. */
const STEP_PX = 3
/** Figures are drawn with half of the full pressure: their lines are as wide as the pen says. */
const PRESSURE = 0.5
const FEWEST = 24
const MOST = 2000

/** An ellipse: half axes in pixels, the first one turned by `turnRad` (clockwise as seen). */
export interface Ellipse {
  readonly centre: Point
  readonly along: number
  readonly across: number
  readonly turnRad: number
}

/** A straight line as evenly laid samples, both ends included. */
export function straightLine(from: Point, to: Point): Sample[] {
  const pieces = Math.max(1, Math.min(MOST, Math.round(distance(from, to) / STEP_PX)))
  return Array.from({ length: pieces + 1 }, (_, i) => ({ ...lerp(from, to, i / pieces), pressure: PRESSURE }))
}

/** Length of the line round an ellipse in pixels (Ramanujan's second approximation, 1914; exact for a circle). */
export function perimeter({ along: a, across: b }: Pick<Ellipse, 'along' | 'across'>): number {
  const h = a + b === 0 ? 0 : ((a - b) / (a + b)) ** 2
  return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
}

/** The line round an ellipse, back to where it began and a little over it, so that no gap shows. */
export function ellipseLine(ellipse: Ellipse): Sample[] {
  const { centre, along, across, turnRad } = ellipse
  const pieces = Math.max(FEWEST, Math.min(MOST, Math.round(perimeter(ellipse) / STEP_PX)))
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)]
  return Array.from({ length: pieces + 2 }, (_, i) => {
    const angle = (2 * Math.PI * i) / pieces
    const [u, v] = [along * Math.cos(angle), across * Math.sin(angle)]
    return { x: centre.x + u * c - v * s, y: centre.y + u * s + v * c, pressure: PRESSURE }
  })
}

/** The end of a line from `from` towards `to`, turned to the nearest multiple of `stepRad`; its length is kept. */
export function snappedTo(from: Point, to: Point, stepRad: number): Point {
  const angle = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / stepRad) * stepRad
  const length = distance(from, to)
  return { x: from.x + length * Math.cos(angle), y: from.y + length * Math.sin(angle) }
}

/** A rectangle between two corners as the track of a line, closed: its corners are met exactly. */
export function rectangleLine(a: Point, b: Point): Sample[] {
  const corners = [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }, a]
  return corners.slice(1).flatMap((to, i) => {
    const side = straightLine(corners[i] as Point, to)
    return i === 0 ? side : side.slice(1)
  })
}
