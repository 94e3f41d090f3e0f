import { unpackSamples } from '../../geometry/samples.ts'
import { gathers, placeStroke, touches, type PlacedStroke } from '../../geometry/stroke.ts'
import { LIMITS, type Label, type Stroke } from '../model/model.ts'
import { has } from '../model/table.ts'
import { refusal } from '../model/refusal.ts'
import type { ElementKind, StoredStroke } from './kind.ts'

/** What lines and painted shapes have in common: the path of a pen, in a colour. */
export const STROKES: Omit<ElementKind<'line'>, 'left' | 'parted'> = {
  settable: ['matrix', 'swatch', 'width', 'nib', 'label', 'z'],
  refuse(document, { swatch, width, nib, part }) {
    if (!has(document.swatches, swatch)) return refusal('unknown-swatch', swatch)
    if (!(width > 0 && width <= LIMITS.lineWidthPx)) return refusal('bad-value', 'width')
    if (!(nib.thinning >= 0 && nib.thinning <= 1)) return refusal('bad-value', 'nib')
    return part && !(part[0] >= 0 && part[1] >= part[0]) ? refusal('bad-value', 'part') : null
  },
  swatch: ({ swatch }) => swatch,
  asset: ({ samples }) => ({ kind: 'samples', id: samples }),
  showing: (stroke, samples) => ({ ...stroke, samples }),
  likeness: ({ samples, part, matrix, swatch, width }) => [samples, part, matrix, swatch, width],
  placed({ kind, samples, width, part, matrix, nib }, stored) {
    const own = stored(samples)
    return own && placeStroke(own, kind, width, part, matrix, nib)
  },
  touched: touches,
  gathered: (placed, loop) => gathers(loop, placed),
  silhouette({ id, kind, width, part, matrix, nib, samples, swatch, label }, bytesOf) {
    const bytes = bytesOf(samples)
    return bytes ? { id, kind, width, part, matrix, nib, swatch, label, bytes } : null
  },
}

/** A stroke sent to be measured, where it lies on the paper. Throws on broken bytes: they were checked when they came. */
export const placeStored = ({
  bytes,
  kind,
  width,
  part,
  matrix,
  nib,
}: Omit<StoredStroke, 'id' | 'swatch' | 'label'>): PlacedStroke =>
  placeStroke(unpackSamples(bytes), kind, width, part, matrix, nib)

/** Strokes sent to be measured as they lie, and those of them that are limbs by their label. */
export function placedAll(strokes: readonly StoredStroke[]) {
  const placed = strokes.map(stroke => ({ ...placeStored(stroke), element: stroke.id, swatch: stroke.swatch }))
  const limbs = new Map<Label, PlacedStroke[]>()
  strokes.forEach(({ label }, i) => {
    const own = placed[i]
    if (label && own) limbs.set(label, [...(limbs.get(label) ?? []), own])
  })
  return { placed, limbs }
}

/** A stroke without its id, as a part of its samples is. */
export const partOf = ({ id: _, ...stroke }: Stroke, [from, to]: readonly [number, number]): Omit<Stroke, 'id'> => {
  const first = stroke.part?.[0] ?? 0
  return { ...stroke, part: [first + from, first + to] }
}

/** A stroke without its id, as a path of its own is. */
export const pathOf = ({ id: _, ...stroke }: Stroke): Omit<Stroke, 'id'> => ({ ...stroke, part: null, matrix: null })
