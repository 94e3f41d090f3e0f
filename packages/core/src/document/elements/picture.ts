import { pictureShape, placePicture } from '../../geometry/picture.ts'
import { gathers, touches } from '../../geometry/stroke.ts'
import type { Box } from '../../geometry/point.ts'
import { LIMITS } from '../model/model.ts'
import { refusal } from '../model/refusal.ts'
import type { ElementKind } from './kind.ts'

const isSide = (px: number): boolean => Number.isInteger(px) && px >= 1 && px <= LIMITS.picturePx

/** Whether a box can be what is seen of a picture: something of it, and nothing beyond. */
const isCutOf = ({ left, top, right, bottom }: Box, widthPx: number, heightPx: number): boolean =>
  left >= 0 && top >= 0 && right <= widthPx && bottom <= heightPx && right - left >= 1 && bottom - top >= 1

/** A picture that was brought in: it is moved and taken off whole, and never cut by a rubber. */
export const PICTURE: ElementKind<'picture'> = {
  settable: ['matrix', 'opacity', 'cut', 'placeholder', 'z'],
  refuse(_document, { widthPx, heightPx, opacity, cut, placeholder }) {
    if (!isSide(widthPx) || !isSide(heightPx)) return refusal('bad-value', 'size of the picture')
    if (cut && !isCutOf(cut, widthPx, heightPx)) return refusal('bad-value', 'what of the picture is seen')
    if (typeof placeholder !== 'boolean') return refusal('bad-value', 'placeholder')
    return opacity >= 0 && opacity <= 1 ? null : refusal('bad-value', 'opacity')
  },
  swatch: () => null,
  asset: ({ picture }) => ({ kind: 'picture', id: picture }),
  showing: (element, picture) => ({ ...element, picture }),
  likeness: ({ picture, matrix, opacity, cut }) => [
    picture,
    matrix,
    opacity,
    cut && [cut.left, cut.top, cut.right, cut.bottom].join(' '),
  ],
  placed: ({ widthPx, heightPx, matrix, cut }) => placePicture(widthPx, heightPx, matrix, cut),
  touched: (placed, track, radiusPx) => touches(pictureShape(placed), track, radiusPx),
  gathered: (placed, loop) => gathers(loop, pictureShape(placed)),
  left: () => null,
  parted: (_picture, placed, loop) => (gathers(loop, pictureShape(placed)) ? 'inside' : 'outside'),
  // What of it is see-through is not known here: nothing is measured rather than the whole sheet.
  silhouette: () => null,
}
