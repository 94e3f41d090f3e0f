import type { Element } from '@unhurried/core/document'
import type { Moments } from '@unhurried/core/raster'

/** A stroke with its stored samples. */
export type StrokeToMeasure = Pick<Element, 'kind' | 'width' | 'part' | 'matrix' | 'nib'> & {
  readonly bytes: Uint8Array
}

/** What the measuring worker answers. */
export interface MeasureProtocol {
  /** the silhouette of one drawing, in paper pixels */
  measure(strokes: readonly StrokeToMeasure[]): Moments
}
