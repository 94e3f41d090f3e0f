import type { FilmClip, ShotDocument, Take } from '@unhurried/core/document'
import type { Box } from '@unhurried/core/geometry'
import type { Mix } from './sound.ts'
import type { LoopRange } from '@unhurried/core/time'

/** A clip that goes out under the drawings: how it lies, and its film. */
export interface SentClip {
  readonly clip: FilmClip
  readonly bytes: Uint8Array
}

/** What is to be made. */
export interface ExportOrder {
  readonly document: ShotDocument
  readonly take: Take
  readonly range: LoopRange
  /** the name of a format of send-off */
  readonly format: string
  readonly width: number
  readonly height: number
  readonly paper: boolean
  /** what of the picture it is, in its own pixels */
  readonly part: Box
  /** how often it goes round; null: for ever */
  readonly turns: number | null
  /** what is heard during one turn */
  readonly sound: Mix | null
  /** one's own clips under the drawings, lowest first */
  readonly clips: readonly SentClip[]
  readonly samples: ReadonlyMap<string, Uint8Array>
}

/** What the exporting worker answers. Stopping it is ending the worker. */
export type ExportMessage =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'done'; readonly bytes: Uint8Array<ArrayBuffer> }
  | { readonly kind: 'failed'; readonly message: string }
