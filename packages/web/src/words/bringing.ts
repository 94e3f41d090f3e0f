import { INCOMING_LIMITS, MEDIA_LIMITS } from '@unhurried/core/assets'
import { LIMITS } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'

/** Why something could not be brought in. */
export type NotBrought =
  | 'unknown'
  | 'broken'
  | 'too-many-bytes'
  | 'too-many-pixels'
  | 'too-many-pictures'
  | 'too-much-drawn'
  | 'too-long'
  | 'nothing-in-it'
  | 'no-reader'
  | 'no-sound'
  | 'no-clip'
  | 'too-many-media-bytes'
  | 'too-many-seconds'

export interface NotIn {
  readonly name: string
  readonly why: NotBrought
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`

const WHY: Readonly<Record<NotBrought, string>> = {
  unknown: 'is no picture that can be brought in (PNG, JPEG, WebP, GIF, AVIF, SVG, or a zip of them)',
  broken: 'is broken, or cut off',
  'too-many-bytes': `is too much at once: ${megabytes(INCOMING_LIMITS.bytes)} a file`,
  'too-many-pixels': `is too large: ${INCOMING_LIMITS.pixels / 1e6} million pixels a picture`,
  'too-many-pictures': `is too many pictures: ${INCOMING_LIMITS.pictures} at once`,
  'too-much-drawn': 'draws more things over and over than can be shown',
  'too-long': 'takes too long to be read',
  'nothing-in-it': 'has nothing in it',
  'no-sound': 'holds no sound that can be heard here (WAV, MP3, OGG, FLAC, M4A, or the sound of a clip)',
  'no-clip': 'holds pictures that this browser cannot show (MP4 or WebM)',
  'too-many-media-bytes': `is too much: ${megabytes(MEDIA_LIMITS.bytes)} a recording or clip`,
  'too-many-seconds': `is too long: ${LIMITS.soundSeconds / 60} minutes a recording or clip`,
  'no-reader': 'cannot be read now: the desk needs the server for that, once',
}

/** What could not be brought in, in a sentence; empty when everything was. */
export function outInWords(out: readonly NotIn[]): string {
  const [first, ...rest] = out
  if (!first) return ''
  const more = rest.length ? ` ${counted(rest.length, 'other file')} could not be brought in either.` : ''
  return `“${first.name}” ${WHY[first.why]}.${more}`
}
