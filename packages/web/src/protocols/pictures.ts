import type { Drawing } from '@unhurried/core/document'
import type { DrawingCount } from '@unhurried/core/work'

/** A shot painted small: what is to be said of it first, its pictures as they are painted. */
export interface StripOrder {
  readonly kind: 'strip'
  /** the shot as the server tells it (JSON), and its strokes packed */
  readonly opened: Uint8Array
  readonly strokes: Uint8Array
}

export interface StripFacts {
  readonly kind: 'facts'
  readonly fps: number
  readonly frames: number
  readonly size: { readonly width: number; readonly height: number }
  readonly paper: string
  readonly count: DrawingCount
  /** whose work it is redrawn from; none where it is one's own */
  readonly study: readonly string[]
}
export interface StripPicture {
  readonly kind: 'picture'
  readonly bitmap: ImageBitmap
  readonly frames: number
}

/** One drawing painted as it is to be seen. */
export interface DrawingOrder {
  readonly kind: 'drawing'
  readonly drawing: Drawing
  /** strokes drawn in their own colours, by element; or all of it in one colour */
  readonly look:
    | { readonly kind: 'drawn'; readonly colours: Readonly<Record<string, string>> }
    | { readonly kind: 'wash' | 'lines' | 'hollow' | 'silhouette'; readonly colour: string }
  readonly scale: number
  /** stored samples that this worker was not sent before, by id */
  readonly samples: ReadonlyMap<string, Uint8Array>
}
export interface DrawnPicture {
  readonly kind: 'drawn'
  readonly bitmap: ImageBitmap
  readonly left: number
  readonly top: number
  readonly scale: number
}

export type PictureOrder = StripOrder | DrawingOrder
export type PicturePart = StripFacts | StripPicture | DrawnPicture
