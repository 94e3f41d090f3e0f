import type { Drawing, Element } from '@unhurried/core/document'
import { elementsInOrder } from '@unhurried/core/document'
import {
  lineOutline,
  placeStroke,
  shapeOutline,
  unpackSamples,
  type FlatPolygon,
  type PlacedStroke,
  type Sample,
} from '@unhurried/core/geometry'

/** Where elements find their stored samples. */
export interface SampleSource {
  bytes(id: string): Uint8Array | undefined
}

/**
 * Elements resolved to strokes on the paper and outlines, each worked out once: an element never changes, a changed one
 * is another.
 */
export function strokeBook(source: SampleSource) {
  const unpacked = new Map<string, readonly Sample[]>()
  const placedOf = new WeakMap<Element, PlacedStroke>()
  const pathOf = new WeakMap<Element, Path2D>()

  function samples(id: string): readonly Sample[] | null {
    const known = unpacked.get(id)
    if (known) return known
    const bytes = source.bytes(id)
    if (!bytes) return null
    const fresh = unpackSamples(bytes)
    unpacked.set(id, fresh)
    return fresh
  }

  function placed(element: Element): PlacedStroke | null {
    const known = placedOf.get(element)
    if (known) return known
    const stored = samples(element.samples)
    if (!stored) return null
    const stroke = placeStroke(stored, element.kind, element.width, element.part, element.matrix)
    placedOf.set(element, stroke)
    return stroke
  }

  function path(element: Element): Path2D | null {
    const known = pathOf.get(element)
    if (known) return known
    const stroke = placed(element)
    if (!stroke) return null
    const fresh = toPath(outlineOf(stroke))
    pathOf.set(element, fresh)
    return fresh
  }

  return {
    placed,
    path,
    /** Lets the samples of a shot go that is put away. */
    forget: () => unpacked.clear(),
    strokes: (drawing: Drawing) =>
      elementsInOrder(drawing).flatMap(element => {
        const stroke = placed(element)
        return stroke ? [stroke] : []
      }),
  }
}

export type StrokeBook = ReturnType<typeof strokeBook>

export const outlineOf = (stroke: PlacedStroke): FlatPolygon =>
  stroke.kind === 'shape' ? shapeOutline(stroke.samples) : lineOutline(stroke.samples, stroke.width)

/** A closed path through a flat polygon, rounded through the middles of its sides so that a few points look smooth. */
export function toPath(flat: FlatPolygon): Path2D {
  const path = new Path2D()
  const n = flat.length / 2
  if (n < 2) return path
  const x = (i: number) => flat[2 * (i % n)] as number
  const y = (i: number) => flat[2 * (i % n) + 1] as number
  path.moveTo((x(0) + x(1)) / 2, (y(0) + y(1)) / 2)
  for (let i = 1; i <= n; i++) path.quadraticCurveTo(x(i), y(i), (x(i) + x(i + 1)) / 2, (y(i) + y(i + 1)) / 2)
  path.closePath()
  return path
}
