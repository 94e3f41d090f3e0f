import { ascii } from './bytes.ts'

/** A form in which recordings, clips and pictures of a film are kept. */
interface MediaForm {
  readonly of: 'sound' | 'film' | 'picture'
  /** whether bytes begin like it */
  begins(bytes: Uint8Array): boolean
  readonly type: string
}

/** An MPEG audio frame (ISO/IEC 11172-3, 2.4.1): eleven set bits, and no reserved version, layer or rate. */
const beginsFrame = (bytes: Uint8Array): boolean =>
  bytes[0] === 0xff &&
  ((bytes[1] ?? 0) & 0xe0) === 0xe0 &&
  ((bytes[1] ?? 0) & 0x18) !== 0x08 &&
  ((bytes[1] ?? 0) & 0x06) !== 0 &&
  ((bytes[2] ?? 0xf0) & 0xf0) !== 0xf0

/** The signature of a PNG (ISO/IEC 15948, 5.2). */
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] as const

/** The forms media are stored in; a missing one does not compile. */
export const MEDIA_FORMS = {
  wav: { of: 'sound', begins: bytes => ascii(bytes, 0, 'RIFF') && ascii(bytes, 8, 'WAVE'), type: 'audio/wav' },
  mp3: { of: 'sound', begins: bytes => ascii(bytes, 0, 'ID3') || beginsFrame(bytes), type: 'audio/mpeg' },
  ogg: { of: 'sound', begins: bytes => ascii(bytes, 0, 'OggS'), type: 'audio/ogg' },
  flac: { of: 'sound', begins: bytes => ascii(bytes, 0, 'fLaC'), type: 'audio/flac' },
  mp4: { of: 'film', begins: bytes => ascii(bytes, 4, 'ftyp'), type: 'video/mp4' },
  webm: {
    of: 'film',
    begins: bytes => bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3,
    type: 'video/webm',
  },
  png: {
    of: 'picture',
    begins: bytes => PNG.every((byte, i) => bytes[i] === byte),
    type: 'image/png',
  },
} as const satisfies Record<string, MediaForm>
export type MediaFormName = keyof typeof MEDIA_FORMS

/** What bytes from outside are, by what they begin with; null when they are no recording or clip. */
export const mediaForm = (bytes: Uint8Array): MediaFormName | null =>
  (Object.keys(MEDIA_FORMS) as MediaFormName[]).find(form => MEDIA_FORMS[form].begins(bytes)) ?? null

/** Stored media are known by the SHA-256 of all their bytes, in hexadecimal. */
const MEDIA_ID = /^[0-9a-f]{64}$/
/** Whether a text can be the name of stored media. */
export const isMediaId = (text: string): boolean => MEDIA_ID.test(text)

/** Bytes of media go, and are kept, in pieces of this many; the last is what is left. */
export const MEDIA_CHUNK_BYTES = 1024 * 1024

/** How many pieces so many bytes are. */
export const mediaChunks = (bytes: number): number => Math.ceil(bytes / MEDIA_CHUNK_BYTES)

/** How many bytes a piece of media of so many bytes has. */
export const mediaChunkBytes = (bytes: number, index: number): number =>
  Math.min(MEDIA_CHUNK_BYTES, bytes - index * MEDIA_CHUNK_BYTES)

/** Bounds of recordings and clips that are brought in, whatever the server's are. */
export const MEDIA_LIMITS = { bytes: 200 * 1024 * 1024, channels: 8 } as const
