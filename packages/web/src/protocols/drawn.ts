import type { Winding } from '@unhurried/core/geometry'

/** A path of a drawn text (SVG 2, 9.3), as it is painted. Colours are #rrggbb. */
export interface DrawnPath {
  readonly d: string
  /** from its own coordinates to the paper, as such texts write it, outermost first */
  readonly transform: string
  readonly fill: string | null
  readonly winding: Winding
  readonly stroke: string | null
  /** in its own coordinates */
  readonly width: number
}

/** What was read of a drawn text: its paths, lowest first, and how many things of it cannot be strokes or shapes. */
export interface DrawnText {
  readonly paths: readonly DrawnPath[]
  /** letters, pictures and patterns */
  readonly leftOut: number
}

/** What makes strokes and shapes of paths. */
export interface DrawnProtocol {
  pieces(paths: readonly DrawnPath[]): DrawnPiece[]
}

/** A stroke or painted shape on the paper: its packed samples. */
export interface DrawnPiece {
  readonly kind: 'line' | 'shape'
  readonly colour: string
  /** of a line, in pixels of the paper */
  readonly widthPx: number
  readonly samples: Uint8Array
}
