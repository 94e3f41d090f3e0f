import { IDENTITY, map, type Matrix } from './matrix.ts'
import { INK } from './nib.ts'
import { boxOf, type Box } from './point.ts'
import type { Sample } from './samples.ts'
import type { PlacedStroke } from './stroke.ts'

/** A picture where it lies on the paper. */
export interface PlacedPicture {
  readonly kind: 'picture'
  /** from picture pixels to paper pixels */
  readonly matrix: Matrix
  /** its four corners, or those of what is seen of it, in paper pixels, from the top left one round */
  readonly edge: readonly Sample[]
  readonly box: Box
}

/** A picture of a size in its own pixels, or what is seen of it, moved by a map, on the paper. */
export function placePicture(
  widthPx: number,
  heightPx: number,
  matrix: Matrix | null,
  cut: Box | null = null,
): PlacedPicture {
  const by = matrix ?? IDENTITY
  const edge = [0, 1, 2, 3].map(corner => {
    const { left, top, right, bottom } = cut ?? { left: 0, top: 0, right: widthPx, bottom: heightPx }
    const own = { x: [1, 2].includes(corner) ? right : left, y: [2, 3].includes(corner) ? bottom : top }
    return { ...map(by, own), pressure: 0.5 }
  })
  return { kind: 'picture', matrix: by, edge, box: boxOf(edge) }
}

/** What a picture covers, as a painted shape: what is touched, gathered and measured of it. */
export const pictureShape = ({ edge, box }: PlacedPicture): PlacedStroke => ({
  kind: 'shape',
  samples: edge,
  width: 1,
  nib: INK,
  box,
})
