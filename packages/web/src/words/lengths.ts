import { fallFrames } from '@unhurried/core/motion'
import type { LengthReading } from '@unhurried/core/time'
import { counted, secondsLabel } from '@unhurried/core/time'

/** What is wrong with a length as it was typed, wherever that is. */
const WRONG: Record<Extract<LengthReading, { ok: false }>['code'], string> = {
  empty: 'Type a length, e.g. 36 or 1.5 s.',
  'not-a-length': 'Frames (36), seconds (1.5 s), milliseconds (200 ms), or seconds and frames (1:12).',
  'too-short': 'At least one frame.',
  'too-long': 'That is longer than a shot can be: 20,000 frames.',
  'past-sixty': 'Seconds and minutes go up to 59 here.',
  'fraction-of-a-frame': 'Frames come whole. For seconds write s behind the number.',
}

export const lengthFault = (code: Extract<LengthReading, { ok: false }>['code']): string => WRONG[code]

/** What a typed length becomes: whole frames, the seconds they last, and what was wished where that was rounded. */
export function lengthInWords(reading: LengthReading, fps: number): string {
  if (!reading.ok) return WRONG[reading.code]
  const words = `${counted(reading.frames, 'frame')}, ${secondsLabel(reading.frames, fps)}`
  return reading.exact ? words : `${reading.wished.toFixed(1)} frames: becomes ${words}`
}

/** How large a metre is on the paper, and how long a fall takes. */
export const scaleInWords = (pxPerMetre: number, fps: number): string =>
  `1 m is ${Math.round(pxPerMetre)} px; falling it takes ${fallFrames(1, fps).toFixed(1)} frames`

/** Pixels to a tenth. */
export const pxInWords = (px: number): string => String(Math.round(px * 10) / 10)
