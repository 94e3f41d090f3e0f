import type { MediaFormName } from '@unhurried/core/assets'
import type { Flux, Peaks } from '@unhurried/core/sound'
import type { NotBrought } from '../words/bringing.ts'

/** A recording as it is kept: nothing is in it but what is heard. */
export interface PackedSound {
  readonly bytes: Uint8Array
  /** SHA-256 of the bytes, hexadecimal */
  readonly id: string
  readonly form: MediaFormName
}

/** What is heard over some frames, as samples of two channels. */
export interface Mix {
  readonly rate: number
  readonly channels: readonly Float32Array[]
}

/** A recording, or why there is none. */
export type SoundPacked =
  { readonly ok: true; readonly sound: PackedSound } | { readonly ok: false; readonly why: NotBrought }

/** What is drawn and read of a recording. */
export interface SoundSurvey {
  readonly peaks: Peaks
  readonly flux: Flux
}

export interface SoundProtocol {
  /** Reads a file that comes from outside, without unpacking what is heard. Never throws on what is in it. */
  pack(file: Blob): Promise<SoundPacked>
  /** Looks through what is heard: samples of one or two channels. */
  survey(channels: readonly Float32Array[], rate: number): SoundSurvey
  /** What is heard made so many times as long, at its pitch. */
  stretch(channels: readonly Float32Array[], rate: number, factor: number): Float32Array[]
}
