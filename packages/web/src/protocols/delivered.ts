import type { Drawing, FilmClip, Format, ShotDocument } from '@unhurried/core/document'
import type { Matrix } from '@unhurried/core/geometry'
import type { Delivered } from '@unhurried/core/measure'
import type { LoopRange } from '@unhurried/core/time'

/** A picture of a film: which known drawings lie where, lowest first. */
export type NamedPicture = readonly { readonly name: number; readonly maps: readonly Matrix[] | null }[]

/** A figure on a frame: its drawing, and which of what lies there is the figure (lines and the paint that goes along with them); all else up to it is its ground. */
export interface NamedFigure {
  /** the id of the drawing */
  readonly drawing: string
  readonly frame: number
  readonly of: readonly number[]
}

/** A film to be looked at as it is delivered. */
export interface DeliveredOrder {
  readonly format: Format
  readonly swatches: ShotDocument['swatches']
  readonly pictures: readonly NamedPicture[]
  /** the number of its picture for every frame */
  readonly frames: readonly number[]
  readonly loop: LoopRange | null
  readonly figures: readonly NamedFigure[]
  /** one's own clips that lie under the drawings as they go out, lowest first; their films are known */
  readonly clips: readonly FilmClip[]
  /** how wide it is shown, pixels: what flashes is judged by what of the eye's field it covers */
  readonly shownPx: number
}

export interface DeliveredProtocol {
  /** Hears of a drawing under a name of its own; of another one under the same name never. */
  know(name: number, drawing: Drawing, samples: ReadonlyMap<string, Uint8Array>): Promise<void>
  /** Hears of the film of a clip, by what it is stored under. */
  knowFilm(media: string, bytes: Uint8Array): Promise<void>
  /** Looks at a film of drawings it knows; `told` hears how many pictures are painted, of how many. What was painted before is not painted again. */
  look(order: DeliveredOrder, told: (painted: number, of: number) => void): Promise<Delivered>
}
