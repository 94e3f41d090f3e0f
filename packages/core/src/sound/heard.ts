import { needPositive } from '../errors.ts'

/** Which part of a recording is heard, from which frame on. */
export interface Laid {
  /** the frame (from 0) on which it begins */
  readonly from: number
  /** seconds of the recording left out at its beginning */
  readonly skip: number
  /** seconds of it that are heard */
  readonly use: number
}

/** A stretch of a recording, to be heard so many seconds after something begins. */
export interface Stretch {
  readonly afterS: number
  /** where in the recording, seconds, and how much of it */
  readonly offsetS: number
  readonly seconds: number
}

/** Shorter than this nothing is heard. */
const LEAST_S = 1e-4

/**
 * What of a laid recording is heard while frames `from` up to, but not with, `to` pass at `fps` frames a second; null for nothing.
 * `from` and `to` may lie between frames. Throws a UsageError on a rate that is not above 0.
 */
export function heardIn(laid: Laid, fps: number, from: number, to: number): Stretch | null {
  needPositive(fps, 'fps')
  const begins = (laid.from - from) / fps
  const offset = Math.max(0, -begins)
  const seconds = Math.min(laid.use - offset, (to - from) / fps - Math.max(0, begins))
  return seconds > LEAST_S ? { afterS: Math.max(0, begins), offsetS: laid.skip + offset, seconds } : null
}

/** The moments of a recording (seconds) at which a frame begins and ends where it is laid; null where it is not heard on it. */
export function momentsOf(laid: Laid, fps: number, frame: number): readonly [fromS: number, toS: number] | null {
  const heard = heardIn(laid, fps, frame, frame + 1)
  return heard && [heard.offsetS, heard.offsetS + heard.seconds]
}

/** The frame (from 0, whole) on which a moment of a laid recording is heard; null when it is trimmed off. Throws a UsageError on a rate that is not above 0. */
export function frameOfMoment(laid: Laid, fps: number, seconds: number): number | null {
  needPositive(fps, 'fps')
  if (seconds < laid.skip || seconds >= laid.skip + laid.use) return null
  // A moment lies on the frame that is shown then.
  return laid.from + Math.floor((seconds - laid.skip) * fps + 1e-6)
}

/** The frame behind the last on which a laid recording is heard. */
export const endsOn = (laid: Laid, fps: number): number => laid.from + Math.ceil(laid.use * fps - 1e-6)
