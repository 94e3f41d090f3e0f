import type { Mix } from '../../protocols/sound.ts'
import type { Picture } from '../pictures.ts'

/** What is to be made, whatever the format: sizes in pixels, pictures in their order. */
export interface Film {
  readonly width: number
  readonly height: number
  /** whole frames a second */
  readonly fps: number
  /** without the paper; its colour (#rrggbb) is told all the same */
  readonly seeThrough: boolean
  readonly paper: string
  /** how often it goes round; null: for ever, where the format can */
  readonly turns: number | null
  /** what is heard during one turn */
  readonly sound: Mix | null
  readonly pictures: readonly Picture[]
  /** Paints a picture on the one brush of the film and gives it. */
  paint(picture: Picture): Promise<OffscreenCanvasRenderingContext2D>
  /** How much is done, 0–1. */
  tell(share: number): void
}

export type Encode = (film: Film) => Promise<Uint8Array<ArrayBuffer>>

/** A line of figures about a file before it is made. */
export interface Figure {
  readonly name: string
  readonly says: string
}

/** A format of send-off: what the room has to know, and how it is made (in a worker, loaded when it is wanted). */
export interface SendFormat {
  readonly words: string
  /** what it is good for, in one line */
  readonly says: string
  readonly make: string
  readonly extension: string
  readonly type: string
  /** whether it can be without the paper */
  readonly seeThrough: boolean
  /** whether it goes round for ever, so many times, or is no moving picture at all */
  readonly turns: 'for ever' | 'times' | 'none'
  /** whether sound goes in it, beside it as a file of its own, or not at all */
  readonly sound: 'inside' | 'beside' | 'none'
  /** the size that is made for one that is wished: some formats take even numbers only */
  size(width: number, height: number): { readonly width: number; readonly height: number }
  figures(film: Pick<Film, 'pictures' | 'fps' | 'turns'>): readonly Figure[]
  encode(): Promise<Encode>
}

export const anySize = (width: number, height: number) => ({ width, height })
const even = (n: number) => Math.max(2, 2 * Math.round(n / 2))
/** Video is stored in blocks of two by two. */
export const evenSize = (width: number, height: number) => ({ width: even(width), height: even(height) })

/** Frames of one turn. */
export const framesOf = (pictures: readonly Picture[]): number => pictures.reduce((sum, one) => sum + one.frames, 0)
