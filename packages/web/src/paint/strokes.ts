import type { Drawing, Element } from '@unhurried/core/document'
import { elementsInOrder } from '@unhurried/core/document'
import { placeStroke, unpackSamples, type PlacedStroke, type Sample } from '@unhurried/core/geometry'
import { inked, type Inked } from './nibs.ts'

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
  const inkedOf = new WeakMap<Element, Inked>()

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
    const stroke = placeStroke(stored, element.kind, element.width, element.part, element.matrix, element.nib)
    placedOf.set(element, stroke)
    return stroke
  }

  /** What is painted for an element. */
  function ink(element: Element): Inked | null {
    const known = inkedOf.get(element)
    if (known) return known
    const stroke = placed(element)
    if (!stroke) return null
    const fresh = inked(stroke.samples, stroke.kind, stroke.width, stroke.nib)
    inkedOf.set(element, fresh)
    return fresh
  }

  return {
    placed,
    ink,
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
