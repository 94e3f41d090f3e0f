import type { Stroke, Operation } from '@unhurried/core/document'
import {
  distance,
  INK,
  packSamples,
  placeStroke,
  type PlacedStroke,
  type Point,
  type Sample,
} from '@unhurried/core/geometry'
import { shapeOf, type Moments } from '@unhurried/core/raster'
import type { Mark } from './tilda.ts'

/** Samples lie about this far apart, as a pen moved at a comfortable speed leaves them. */
const STEP_PX = 5

/** A path drawn by a calm hand: evenly sampled, pressing on gradually and letting go at the end. */
export function penned({ kind, points }: Mark): Sample[] {
  const even = evenly(points)
  return even.map((p, i) => {
    const t = even.length === 1 ? 0.5 : i / (even.length - 1)
    const swell = Math.min(1, Math.sin(Math.PI * Math.min(0.97, Math.max(0.03, t))) * 1.9)
    const wobble = 0.04 * Math.sin(i * 0.7 + points.length)
    return { x: p.x, y: p.y, pressure: kind === 'shape' ? 0.5 : 0.28 + 0.4 * swell ** 0.8 + wobble }
  })
}

function evenly(path: readonly Point[]): Point[] {
  const out: Point[] = [path[0] as Point]
  let carried = 0
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1] as Point, path[i] as Point]
    const length = distance(a, b)
    for (let d = STEP_PX - carried; d <= length; d += STEP_PX) {
      out.push({ x: a.x + ((b.x - a.x) * d) / length, y: a.y + ((b.y - a.y) * d) / length })
    }
    carried = (carried + length) % STEP_PX
  }
  out.push(path[path.length - 1] as Point)
  return out
}

/** What the desk would measure of marks. */
export function measured(marks: readonly Mark[]): Moments {
  const strokes: PlacedStroke[] = marks.map(mark =>
    placeStroke(penned(mark), mark.kind, mark.width, null, null, mark.nib),
  )
  return shapeOf(strokes)
}

/** Marks as pen strokes on a drawing, one operation each as if they had been drawn, and their stored samples. */
export function drawnWith(
  drawing: string,
  marks: readonly Mark[],
): { ops: Operation[]; samples: Map<string, Uint8Array> } {
  const samples = new Map<string, Uint8Array>()
  const ops = marks.map((mark, i): Operation => {
    const id = `${drawing}-${i + 1}`
    samples.set(id, packSamples(penned(mark)))
    const element: Stroke = {
      id,
      kind: mark.kind,
      z: i + 1,
      samples: id,
      part: null,
      matrix: null,
      swatch: mark.swatch,
      width: mark.width,
      nib: mark.nib ?? INK,
      label: mark.label ?? null,
    }
    return { kind: 'elements.add', drawing, elements: [element] }
  })
  return { ops, samples }
}
