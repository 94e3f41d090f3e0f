import {
  elementsInOrder,
  kindOf,
  type Drawing,
  type Element,
  type Picture,
  type PlacedOf,
  type Stroke,
} from '@unhurried/core/document'
import { EMPTY_BOX, unite, unpackSamples, type Box, type Sample } from '@unhurried/core/geometry'
import { shallowRef } from 'vue'
import { inked, type Inked } from './nibs.ts'

/** Where elements find the bytes of what they show. */
export interface AssetSource {
  bytes(id: string): Uint8Array | undefined
}

/**
 * Elements resolved to where they lie on the paper and to what is painted, each worked out once: an element never changes,
 * a changed one is another.
 */
export function strokeBook(source: AssetSource) {
  const unpacked = new Map<string, readonly Sample[]>()
  const placedOf = new WeakMap<Element, PlacedOf<Element>>()
  const inkedOf = new WeakMap<Stroke, Inked>()
  /** decoded pictures; null while one is being decoded, and where it cannot be */
  const decoded = new Map<string, ImageBitmap | null>()
  const failed = new Set<string>()
  const coming = new Set<Promise<void>>()
  /** grows with every picture that is decoded */
  const pictures = shallowRef(0)

  function samples(id: string): readonly Sample[] | null {
    const known = unpacked.get(id)
    if (known) return known
    const bytes = source.bytes(id)
    if (!bytes) return null
    const fresh = unpackSamples(bytes)
    unpacked.set(id, fresh)
    return fresh
  }

  /** Where an element lies on the paper; null while what it shows is not here. */
  function placed<E extends Element>(element: E): PlacedOf<E> | null {
    const known = placedOf.get(element) as PlacedOf<E> | undefined
    if (known) return known
    const fresh = kindOf(element).placed(element, samples) as PlacedOf<E> | null
    if (fresh) placedOf.set(element, fresh as PlacedOf<Element>)
    return fresh
  }

  /** What is painted for a stroke. */
  function ink(stroke: Stroke): Inked | null {
    const known = inkedOf.get(stroke)
    if (known) return known
    const lies = placed(stroke)
    if (!lies) return null
    const fresh = inked(lies.samples, lies.kind, lies.width, lies.nib)
    inkedOf.set(stroke, fresh)
    return fresh
  }

  async function decode(id: string, bytes: Uint8Array): Promise<void> {
    decoded.set(id, null)
    try {
      decoded.set(id, await createImageBitmap(new Blob([bytes.slice()], { type: 'image/png' })))
    } catch {
      // Whoever stored it saw it; here it stays unseen, and everything else is painted.
      failed.add(id)
    }
    pictures.value++
  }

  /** A picture ready to be painted; null until it is decoded. */
  function picture({ picture: id }: Picture): ImageBitmap | null {
    const known = decoded.get(id)
    const bytes = known === undefined ? source.bytes(id) : undefined
    if (bytes) {
      const under = decode(id, bytes).finally(() => coming.delete(under))
      coming.add(under)
    }
    return known ?? null
  }

  return {
    placed,
    ink,
    picture,
    /** how many pictures were decoded so far, for those who paint again when there are more */
    decoded: () => pictures.value,
    /** whether all pictures on a drawing can be painted by now */
    isWhole: (drawing: Drawing): boolean => {
      const shown = Object.values(drawing.elements).filter(element => element.kind === 'picture')
      return shown.every(element => picture(element) !== null || failed.has(element.picture))
    },
    /** Waits until all pictures of drawings can be painted. */
    async ready(drawings: Iterable<Drawing>): Promise<void> {
      for (const drawing of drawings) {
        for (const element of Object.values(drawing.elements)) if (element.kind === 'picture') picture(element)
      }
      await Promise.all(coming)
    },
    /** Lets what a shot shows go when it is put away. */
    forget(): void {
      unpacked.clear()
      for (const bitmap of decoded.values()) bitmap?.close()
      decoded.clear()
    },
    /** The box round all that lies on a drawing, in paper pixels; empty when nothing does. */
    boxOf: (drawing: Drawing): Box =>
      elementsInOrder(drawing).reduce((all, element) => unite(all, placed(element)?.box ?? EMPTY_BOX), EMPTY_BOX),
  }
}

export type StrokeBook = ReturnType<typeof strokeBook>
