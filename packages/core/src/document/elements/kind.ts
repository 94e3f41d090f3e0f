import type { Matrix } from '../../geometry/matrix.ts'
import type { Nib } from '../../geometry/nib.ts'
import type { PlacedPicture } from '../../geometry/picture.ts'
import type { Point } from '../../geometry/point.ts'
import type { Sample } from '../../geometry/samples.ts'
import type { PlacedStroke } from '../../geometry/stroke.ts'
import type { AssetRef } from '../../assets/asset.ts'
import type { ElementForms, Picture, ShotDocument, Stroke } from '../model/model.ts'
import type { Refusal } from '../model/refusal.ts'

/** Elements resolved to where they lie on the paper, by the name of their kind. */
export interface PlacedForms {
  readonly line: PlacedStroke
  readonly shape: PlacedStroke
  readonly picture: PlacedPicture
}
/** Anything that lies on the paper, resolved to where. */
export type Placed = PlacedForms[keyof PlacedForms]

/** What is left of a stroke that was cut: the stroke without its id, and its own samples where they are new ones. */
export interface Piece {
  readonly stroke: Omit<Stroke, 'id'>
  readonly path: readonly Sample[] | null
}

/** Pieces inside a loop and outside it. */
export interface Parted {
  readonly inside: readonly Piece[]
  readonly outside: readonly Piece[]
}

/** A stroke with its stored bytes, as it is sent to be measured elsewhere. */
export interface StoredStroke extends Pick<Stroke, 'id' | 'kind' | 'width' | 'part' | 'swatch' | 'label'> {
  readonly matrix: Matrix | null
  readonly nib: Nib
  readonly bytes: Uint8Array
}

/** What each kind of element knows of itself. Lengths in paper pixels. */
export interface ElementKind<K extends keyof ElementForms> {
  /** properties that may be set of one that lies on a drawing */
  readonly settable: readonly (keyof Stroke | keyof Picture)[]
  /** why it cannot lie on a drawing of this document, or null */
  refuse(document: ShotDocument, element: ElementForms[K]): Refusal | null
  /** the colour it is drawn in, or null */
  swatch(element: ElementForms[K]): string | null
  /** the stored thing it shows */
  asset(element: ElementForms[K]): AssetRef
  /** itself, showing another stored thing */
  showing(element: ElementForms[K], id: string): ElementForms[K]
  /** what makes two of them the same, wherever they lie in the order of painting */
  likeness(element: ElementForms[K]): readonly unknown[]
  /** where it lies on the paper; null while what it needs is not there */
  placed(element: ElementForms[K], samples: (id: string) => readonly Sample[] | null): PlacedForms[K] | null
  /** whether a round tip of `radiusPx` touches it along a track */
  touched(placed: PlacedForms[K], track: readonly Point[], radiusPx: number): boolean
  /** whether a loop drawn by hand gathers it: most of it lies inside */
  gathered(placed: PlacedForms[K], loop: readonly Point[]): boolean
  /** what is left after a round tip rubbed along a track; null when it is untouched, or is not cut at all */
  left(
    element: ElementForms[K],
    placed: PlacedForms[K],
    track: readonly Point[],
    radiusPx: number,
  ): readonly Piece[] | null
  /** parted by a loop; 'inside' or 'outside' when it lies there whole */
  parted(element: ElementForms[K], placed: PlacedForms[K], loop: readonly Point[]): Parted | 'inside' | 'outside'
  /** what of it is measured, for what measures elsewhere; null while what it needs is not there */
  silhouette(element: ElementForms[K], bytes: (id: string) => Uint8Array | undefined): StoredStroke | null
}
