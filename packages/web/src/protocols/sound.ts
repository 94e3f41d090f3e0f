import type { MediaFormName } from '@unhurried/core/assets'
import type { Flux, Peaks } from '@unhurried/core/sound'
import type { NotBrought } from '../words/bringing.ts'

/** A recording as it is kept: packed anew, so that nothing else that was in its file is in it. */
export interface ReadSound {
  readonly bytes: Uint8Array
  /** SHA-256 of the bytes, hexadecimal */
  readonly id: string
  readonly form: MediaFormName
  readonly seconds: number
}

/** A recording, or why there is none. */
export type SoundRead =
  { readonly ok: true; readonly sound: ReadSound } | { readonly ok: false; readonly why: NotBrought }

/** A recording unpacked: samples of every channel (at most two), and what is drawn and read of it. */
export interface OpenedSound {
  readonly rate: number
  readonly channels: readonly Float32Array[]
  readonly peaks: Peaks
  readonly flux: Flux
}

export interface SoundProtocol {
  /** Reads a file that comes from outside; or says why it cannot be one. Never throws on what is in it. */
  read(file: Blob): Promise<SoundRead>
  /** Unpacks a recording that is kept. Rejects when it cannot be read. */
  open(bytes: Uint8Array): Promise<OpenedSound>
  /** A recording made so many times as long, at its pitch. */
  stretch(channels: readonly Float32Array[], rate: number, factor: number): Promise<Float32Array[]>
}
