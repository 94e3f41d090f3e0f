import type { Element } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { Shape } from '@unhurried/core/raster'

/** A stroke with its stored samples. */
export type StrokeToMeasure = Pick<Element, 'kind' | 'width' | 'part' | 'matrix' | 'nib'> & {
  readonly bytes: Uint8Array
}

/** What the measuring worker answers. */
export interface MeasureProtocol {
  /** the silhouette of one drawing, in paper pixels; `spaces` are places in enclosed empty space that is not body */
  measure(strokes: readonly StrokeToMeasure[], spaces: readonly Point[], closedGapPx: number): Shape
}
