import type { StoredStroke } from '@unhurried/core/document'
import type { Box, Matrix, Point } from '@unhurried/core/geometry'
import type { DrawingFacts, Shape } from '@unhurried/core/raster'

/** A stored picture that lies on a drawing. */
export interface StoredPicture {
  /** what it is stored under: the same id is the same picture */
  readonly id: string
  /** PNG */
  readonly bytes: Uint8Array
  readonly matrix: Matrix
  /** what of it is seen, in its pixels; null: all */
  readonly cut: Box | null
}

/** What is measured of one drawing. */
export interface Measured {
  readonly shape: Shape
  readonly facts: DrawingFacts
}

/** What the measuring worker answers. */
export interface MeasureProtocol {
  /** one drawing, in paper pixels, its strokes in the order in which they are painted; `spaces` are places in enclosed empty space that is not body. Of pictures only those on transparency are measured */
  measure(
    strokes: readonly StoredStroke[],
    pictures: readonly StoredPicture[],
    spaces: readonly Point[],
    closedGapPx: number,
  ): Promise<Measured>
}
