import { pictureShape, placePicture } from '../../geometry/picture.ts'
import { gathers, touches } from '../../geometry/stroke.ts'
import { LIMITS } from '../model/model.ts'
import { refusal } from '../model/refusal.ts'
import type { ElementKind } from './kind.ts'

const isSide = (px: number): boolean => Number.isInteger(px) && px >= 1 && px <= LIMITS.picturePx

/** A picture that was brought in: it is moved and taken off whole, and never cut by a rubber. */
export const PICTURE: ElementKind<'picture'> = {
  settable: ['matrix', 'opacity', 'z'],
  refuse(_document, { widthPx, heightPx, opacity }) {
    if (!isSide(widthPx) || !isSide(heightPx)) return refusal('bad-value', 'size of the picture')
    return opacity >= 0 && opacity <= 1 ? null : refusal('bad-value', 'opacity')
  },
  swatch: () => null,
  asset: ({ picture }) => ({ kind: 'picture', id: picture }),
  showing: (element, picture) => ({ ...element, picture }),
  likeness: ({ picture, matrix, opacity }) => [picture, matrix, opacity],
  placed: ({ widthPx, heightPx, matrix }) => placePicture(widthPx, heightPx, matrix),
  touched: (placed, track, radiusPx) => touches(pictureShape(placed), track, radiusPx),
  gathered: (placed, loop) => gathers(loop, pictureShape(placed)),
  left: () => null,
  parted: (_picture, placed, loop) => (gathers(loop, pictureShape(placed)) ? 'inside' : 'outside'),
  // What of it is see-through is not known here: nothing is measured rather than the whole sheet.
  silhouette: () => null,
}
