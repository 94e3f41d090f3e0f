import { getStroke } from 'perfect-freehand'
import { map, scaleOf, type Matrix } from './matrix.ts'
import { boxOf, distanceToPiece, EMPTY_BOX, grown, insidePolygon, type Box, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** How much of a line's width pressure decides: a feather touch gives about a third of the full width. */
const THINNING = 0.62
/** How strongly the outline is rounded off; the samples themselves are smoothed while they are drawn. */
const OUTLINE_SMOOTHING = 0.6
const OUTLINE_STREAMLINE = 0.2

/** A flat polygon of alternating x, y in pixels. */
export type FlatPolygon = Float32Array

/** The outline of a line drawn through samples: a closed polygon, thick where pressure was. `width` is in pixels. */
export function lineOutline(samples: readonly Sample[], width: number, finished = true): FlatPolygon {
  const outline = getStroke(
    samples.map(s => [s.x, s.y, s.pressure]),
    {
      size: width,
      thinning: THINNING,
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

/** A stroke resolved to where it lies on the paper: what is needed to paint, hit and measure it. */
export interface PlacedStroke {
  readonly samples: readonly Sample[]
  /** full width in pixels at pressure 1 */
  readonly width: number
  readonly kind: 'line' | 'shape'
  readonly box: Box
}

/** Resolves stored samples, a part of them (from, to; inclusive) and a map to a stroke on the paper. */
export function placeStroke(
  stored: readonly Sample[],
  kind: 'line' | 'shape',
  width: number,
  part: readonly [number, number] | null,
  matrix: Matrix | null,
): PlacedStroke {
  const cut = part ? stored.slice(part[0], part[1] + 1) : stored
  const samples = matrix ? mapSamples(cut, matrix) : cut
  const scaled = matrix ? width * scaleOf(matrix) : width
  const box = samples.length ? grown(boxOf(samples), kind === 'line' ? scaled / 2 : 0) : EMPTY_BOX
  return { samples, width: scaled, kind, box }
}

/** Whether a round tip of `radius` px at `p` touches the stroke. A painted shape is touched anywhere inside it. */
export function touches(stroke: PlacedStroke, p: Point, radius: number): boolean {
  const { samples, box } = stroke
  const reach = radius + (stroke.kind === 'line' ? stroke.width / 2 : 0)
  if (p.x < box.left - radius || p.x > box.right + radius || p.y < box.top - radius || p.y > box.bottom + radius) {
    return false
  }
  if (stroke.kind === 'shape' && insidePolygon(p, samples)) return true
  if (samples.length === 1) return Math.hypot((samples[0] as Sample).x - p.x, (samples[0] as Sample).y - p.y) <= reach
  return samples.some((s, i) => i > 0 && distanceToPiece(p, samples[i - 1] as Sample, s) <= reach)
}

/**
 * The parts of a line that are left after a round tip of `radius` px rubbed along `path`: inclusive sample ranges, each
 * of at least two samples. The whole range when nothing was touched, none when all was.
 */
export function partsLeft(stroke: PlacedStroke, path: readonly Point[], radius: number): [number, number][] {
  const reach = radius + stroke.width / 4
  const kept = stroke.samples.map(s => !nearPath(s, path, reach))
  const parts: [number, number][] = []
  let start = -1
  kept.forEach((keep, i) => {
    if (keep && start < 0) start = i
    if (start >= 0 && (!keep || i === kept.length - 1)) {
      const end = keep ? i : i - 1
      if (end > start || kept.length === 1) parts.push([start, end])
      start = -1
    }
  })
  return parts
}

function nearPath(p: Point, path: readonly Point[], reach: number): boolean {
  if (path.length === 1) return Math.hypot((path[0] as Point).x - p.x, (path[0] as Point).y - p.y) <= reach
  return path.some((q, i) => i > 0 && distanceToPiece(p, path[i - 1] as Point, q) <= reach)
}

/** The share of a loop drawn round a stroke that a stroke must have inside to be gathered: more than half its samples. */
const GATHER_SHARE = 0.5

/** Whether a loop drawn by hand gathers the stroke: more than half of its samples lie inside. */
export function gathers(loop: readonly Point[], stroke: PlacedStroke): boolean {
  const inside = stroke.samples.filter(s => insidePolygon(s, loop)).length
  return inside > stroke.samples.length * GATHER_SHARE
}
