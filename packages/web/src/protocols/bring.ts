import type { PictureSize } from '@unhurried/core/assets'
import type { NotIn } from '../words/bringing.ts'

/** A picture that came in: as it is kept, and what is known of it. */
export interface Brought extends PictureSize {
  /** a whole PNG; nothing is in it but the picture */
  readonly bytes: Uint8Array
  readonly name: string
  /** its size before it was made smaller */
  readonly was: PictureSize
  /** for how long it is shown where it comes from, in thousandths of a second; null where that is not said */
  readonly shownMs: number | null
  /** the drawn text (SVG) it was painted from, where it was one */
  readonly text?: string
}

/** What came of bringing something in: its pictures in order, and what of it had to stay outside. */
export interface BroughtAll {
  readonly pictures: readonly Brought[]
  readonly out: readonly NotIn[]
}

export interface BringProtocol {
  /** Pictures in a file: one, those of a moving picture, or all that are packed in it. Never throws on what is in it. */
  bring(file: Blob, name: string, paper: PictureSize): Promise<BroughtAll>
  /** A picture that was painted elsewhere, as it is kept. */
  keep(bitmap: ImageBitmap, name: string, paper: PictureSize): Promise<BroughtAll>
}
