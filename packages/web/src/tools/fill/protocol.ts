import type { Element } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { Region } from '@unhurried/core/raster'

/** A line with its stored samples. */
export type LineToBound = Pick<Element, 'kind' | 'width' | 'part' | 'matrix' | 'nib'> & {
  readonly bytes: Uint8Array
}

/** What the filling worker answers. */
export interface FillProtocol {
  /** these lines bound regions from now on, on a paper of so many pixels */
  bound(lines: readonly LineToBound[], paper: { readonly width: number; readonly height: number }, gapPx: number): void
  /** the region round a place, in paper pixels; null off the paper */
  at(place: Point): Region | null
}
