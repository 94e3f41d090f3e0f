import type { StoredStroke } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { Shape } from '@unhurried/core/raster'

/** What the measuring worker answers. */
export interface MeasureProtocol {
  /** the silhouette of one drawing, in paper pixels; `spaces` are places in enclosed empty space that is not body */
  measure(strokes: readonly StoredStroke[], spaces: readonly Point[], closedGapPx: number): Shape
}
