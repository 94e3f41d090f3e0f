import type { Box, Matrix } from '@unhurried/core/geometry'
import type { Corners, Levels, Parting, Registered, Registration } from '@unhurried/core/sheets'
import type { NotBrought } from '../words/bringing.ts'

/** A photograph that was read: as it is kept while one works with it, and what was found on it. */
export interface TakenSheet {
  readonly widthPx: number
  readonly heightPx: number
  /** corners of the paper; null where it fills the photograph */
  readonly corners: Corners | null
  /** by what it can be registered as it seems: marks it has, else what is drawn on it */
  readonly by: Registration
  /** paper and ink as they were found */
  readonly levels: Levels
  readonly seen: ImageBitmap
}
export type SheetTaken =
  { readonly ok: true; readonly sheet: TakenSheet } | { readonly ok: false; readonly why: NotBrought }

/** The ink of a sheet on transparency, without marks of registration, and the drawings on it. */
export interface SheetInk {
  readonly ink: ImageBitmap
  readonly boxes: readonly Box[]
  /** marks by which it can be registered */
  readonly marks: number
}

/** A drawing of a sheet, pixels of its photograph. */
export interface SheetPart {
  readonly sheet: string
  readonly box: Box
}

/** A drawing as it goes onto the paper, inked on transparency. */
export interface InkedDrawing {
  /** a whole PNG, as large as the paper */
  readonly bytes: Uint8Array
}

export interface SheetsProtocol {
  /** Reads a photograph that comes from outside, and keeps it under an id. Never throws on what is in it. */
  read(id: string, file: Blob): Promise<SheetTaken>
  /** Lets a photograph go. */
  drop(id: string): void
  /** Inks a sheet, and finds the drawings on it. */
  ink(id: string, levels: Levels, how: Parting, by: Registration): SheetInk
  /** Lays drawings on the first of them; sheets are inked as they were last. `region` is in pixels of the first photograph. */
  register(parts: readonly SheetPart[], by: Registration, region: Box | null): Registered[]
  /** Drawings on transparency, each through its map from its photograph to the paper. */
  pictures(
    parts: readonly (SheetPart & { readonly matrix: Matrix })[],
    paper: { readonly width: number; readonly height: number },
    colour: string,
  ): Promise<InkedDrawing[]>
  /** The same as painted shapes: for each drawing the packed samples of its pieces. */
  shapes(
    parts: readonly (SheetPart & { readonly matrix: Matrix })[],
    paper: { readonly width: number; readonly height: number },
  ): Uint8Array[][]
}
