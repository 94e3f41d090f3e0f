import { getStroke } from 'perfect-freehand'
import { map, scaleOf, type Matrix } from './matrix.ts'
import { INK, taperOf, widthAt, type Nib } from './nib.ts'
import {
  boxesMeet,
  boxOf,
  distance,
  distanceBetweenPieces,
  EMPTY_BOX,
  grown,
  insidePolygon,
  type Box,
  type Point,
} from './point.ts'
import { FARTHEST_PX, type Sample } from './samples.ts'

/** How strongly the outline is rounded off; the samples themselves are smoothed while they are drawn. */
const OUTLINE_SMOOTHING = 0.6
const OUTLINE_STREAMLINE = 0.2

/** A flat polygon of alternating x, y in pixels. */
export type FlatPolygon = Float32Array

/**
 * The outline of a line drawn through samples with a nib: a closed polygon, thick where pressure was. `width` is in
 * pixels; an unfinished line is still being drawn and has no drawn-out end yet.
 */
export function lineOutline(samples: readonly Sample[], width: number, nib: Nib = INK, finished = true): FlatPolygon {
  const taper = nib.ends === 'tapered' && samples.length > 2 ? taperOf(nib.ends, width, lengthOf(samples)) : 0
  const cap = nib.ends !== 'blunt'
  const outline = getStroke(
    samples.map(s => [s.x, s.y, s.pressure]),
    {
      size: width,
      thinning: nib.thinning,
      start: { cap, taper },
      end: { cap, taper: finished ? taper : 0 },
      smoothing: OUTLINE_SMOOTHING,
      streamline: OUTLINE_STREAMLINE,
      simulatePressure: false,
      last: finished,
    },
  )
  const flat = new Float32Array(outline.length * 2)
  outline.forEach((p, i) => {
    flat[2 * i] = p[0] as number
    flat[2 * i + 1] = p[1] as number
  })
  return flat
}

/** How long the way through samples is, in pixels. */
export function lengthOf(samples: readonly Point[]): number {
  let length = 0
  for (let i = 1; i < samples.length; i++) length += distance(samples[i - 1] as Sample, samples[i] as Sample)
  return length
}

/** The path of samples itself as a closed polygon: the edge of a painted shape. */
export function shapeOutline(samples: readonly Sample[]): FlatPolygon {
  const flat = new Float32Array(samples.length * 2)
  samples.forEach((s, i) => {
    flat[2 * i] = s.x
    flat[2 * i + 1] = s.y
  })
  return flat
}

/** Samples moved by a map. Pressure stays; the width of the line is scaled by the caller with `scaleOf`. */
export function mapSamples(samples: readonly Sample[], matrix: Matrix): Sample[] {
  return samples.map(s => ({ ...map(matrix, s), pressure: s.pressure }))
}

/** A line on the paper is at least and at most so wide, whatever map it is under. */
const THINNEST_PX = 0.05
const WIDEST_PX = 2400

const within = (value: number, least: number, most: number): number =>
  Number.isFinite(value) ? Math.max(least, Math.min(most, value)) : least

/** Samples under a map, none of them farther off the paper than any sample may lie. */
const mappedWithin = (samples: readonly Sample[], matrix: Matrix): Sample[] =>
  mapSamples(samples, matrix).map(({ x, y, pressure }) => ({
    x: within(x, -FARTHEST_PX, FARTHEST_PX),
    y: within(y, -FARTHEST_PX, FARTHEST_PX),
    pressure,
  }))

/** A stroke resolved to where it lies on the paper: what is needed to paint, hit and measure it. */
export interface PlacedStroke {
  readonly samples: readonly Sample[]
  /** width in pixels at half of the full pressure */
  readonly width: number
  readonly kind: 'line' | 'shape'
  readonly nib: Nib
  readonly box: Box
}

/**
 * Resolves stored samples, a part of them (from, to; inclusive) and a map to a stroke on the paper. Its reach and its width
 * are bounded, whatever was stored, so that what it costs to paint is too.
 */
export function placeStroke(
  stored: readonly Sample[],
  kind: 'line' | 'shape',
  width: number,
  part: readonly [number, number] | null,
  matrix: Matrix | null,
  nib: Nib = INK,
): PlacedStroke {
  const cut = part ? stored.slice(part[0], part[1] + 1) : stored
  const samples = matrix ? mappedWithin(cut, matrix) : cut
  const scaled = within(matrix ? width * scaleOf(matrix) : width, THINNEST_PX, WIDEST_PX)
  const box = samples.length
    ? grown(boxOf(samples), kind === 'line' ? widthAt(1, scaled, nib.thinning) / 2 : 0)
    : EMPTY_BOX
  return { samples, width: scaled, kind, nib, box }
}

/**
 * Whether a round tip of `radius` px touches the stroke anywhere on its way along `track` (one point is a tap). A painted
 * shape is touched anywhere inside it.
 */
export function touches(stroke: PlacedStroke, track: readonly Point[], radius: number): boolean {
  const { samples, box, kind } = stroke
  if (samples.length === 0 || !boxesMeet(grown(boxOf(track), radius), box)) return false
  if (kind === 'shape' && track.some(p => insidePolygon(p, samples))) return true
  const reach = radius + (kind === 'line' ? stroke.width / 2 : 0)
  return pieces(samples).some(([a, b]) => rubs(a, b, track, reach))
}

/**
 * The parts of a line that are left after a round tip of `radius` px rubbed along `track`: inclusive sample ranges, each
 * of at least two samples. A line is parted wherever the tip comes near it, between two samples too. The whole range when
 * nothing was touched, none when all was.
 */
export function partsLeft(stroke: PlacedStroke, track: readonly Point[], radius: number): [number, number][] {
  const { samples } = stroke
  const last = samples.length - 1
  const reach = radius + stroke.width / 4
  if (!boxesMeet(grown(boxOf(track), reach), stroke.box)) return [[0, last]]
  if (last === 0) return rubs(samples[0] as Sample, samples[0] as Sample, track, reach) ? [] : [[0, 0]]
  const parts: [number, number][] = []
  let start = 0
  for (let i = 0; i < last; i++) {
    if (!rubs(samples[i] as Sample, samples[i + 1] as Sample, track, reach)) continue
    if (i > start) parts.push([start, i])
    start = i + 1
  }
  if (last > start) parts.push([start, last])
  return parts
}

/** The straight pieces of a path; a path of one point is one piece of no length. */
function pieces(path: readonly Point[]): [Point, Point][] {
  if (path.length === 1) return [[path[0] as Point, path[0] as Point]]
  return path.slice(1).map((p, i) => [path[i] as Point, p])
}

const rubs = (a: Point, b: Point, track: readonly Point[], reach: number): boolean =>
  pieces(track).some(([c, d]) => distanceBetweenPieces(a, b, c, d) <= reach)

/** The share of a loop drawn round a stroke that a stroke must have inside to be gathered: more than half its samples. */
const GATHER_SHARE = 0.5

/** Whether a loop drawn by hand gathers the stroke: more than half of its samples lie inside. */
export function gathers(loop: readonly Point[], stroke: PlacedStroke): boolean {
  const inside = stroke.samples.filter(s => insidePolygon(s, loop)).length
  return inside > stroke.samples.length * GATHER_SHARE
}
