import type { StoredStroke } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { Region } from '@unhurried/core/raster'

/** What the filling worker answers. */
export interface FillProtocol {
  /** these lines bound regions from now on, on a paper of so many pixels */
  bound(lines: readonly StoredStroke[], paper: { readonly width: number; readonly height: number }, gapPx: number): void
  /** the region round a place, in paper pixels; null off the paper */
  at(place: Point): Region | null
}
