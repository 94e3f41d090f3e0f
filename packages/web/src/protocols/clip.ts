import type { MediaFormName } from '@unhurried/core/assets'
import type { Change } from '@unhurried/core/clip'
import type { Point } from '@unhurried/core/geometry'
import type { NotBrought } from '../words/bringing.ts'

/** A clip as it is kept: its pictures alone, packed anew. */
export interface PackedClip {
  readonly bytes: Uint8Array
  /** SHA-256 of the bytes, hexadecimal */
  readonly id: string
  readonly form: MediaFormName
  readonly widthPx: number
  readonly heightPx: number
  readonly seconds: number
}

/** A clip, or why there is none; `no-pictures` where a file holds none, but may hold sound. */
export type ClipPacked =
  { readonly ok: true; readonly clip: PackedClip } | { readonly ok: false; readonly why: NotBrought | 'no-pictures' }

/** What is known of an opened clip: the moments at which its pictures begin, in seconds, rising. */
export interface ClipTimes {
  readonly times: readonly number[]
}

/** Where something lies on a picture, by its number; pixels of the clip. */
export interface FoundPlace extends Point {
  readonly number: number
  readonly sure: number
}

/** Why following ended: all was looked through, it was lost, there is nothing to hold on to, or it was called off. */
export type FollowEnd = 'through' | 'lost' | 'flat' | 'off'

/** A picture of a sequence that becomes a clip: PNG, and how long it is shown. */
export interface SequencePicture {
  readonly bytes: Uint8Array
  readonly seconds: number
}

export interface ClipProtocol {
  /** Reads a file that comes from outside. Never throws on what is in it. */
  pack(file: Blob): Promise<ClipPacked>
  /** Makes a clip of pictures that follow one another, as large as the first; the others in its middle. Never throws on what is in them. */
  packPictures(pictures: readonly SequencePicture[]): Promise<ClipPacked>
  /** Opens a kept clip. Rejects when it cannot be read. */
  open(bytes: Uint8Array): Promise<ClipTimes>
  /** One picture of the opened clip, by its number, no wider than so many pixels; null where there is none. */
  picture(number: number, widthPx: number): Promise<ImageBitmap | null>
  /** Small pictures of the opened clip from one number up to, but not with, another, JPEG; going on where the last ended costs least. */
  small(from: number, to: number, widthPx: number): Promise<Uint8Array[]>
  /**
   * Follows what lies at a place of a picture, pixels of the clip, on through the ones after it, or before it, up to but not with another; `told` hears of each place
   * found, some at a time, and says whether to go on.
   */
  follow(from: number, to: number, at: Point, told: (found: FoundPlace[]) => boolean): Promise<FollowEnd>
  /** How much each picture differs from the one before, from one number up to, but not with, another; `told` hears how many are done. */
  changes(from: number, to: number, told: (done: number) => void): Promise<Change[]>
}
