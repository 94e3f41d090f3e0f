import { needPositive, needWhole } from '../errors.ts'

/**
 * How long `frames` last, in seconds, at `fps` frames a second. Throws a UsageError on a rate that is not above 0.
 */
export function secondsOf(frames: number, fps: number): number {
  needPositive(fps, 'fps')
  return frames / fps
}

/** What a wished-for duration becomes on a film: whole frames, and whether the wish was whole already. */
export interface WholeFrames {
  /** nearest whole number of frames, at least 1 */
  frames: number
  /** the wish in frames before rounding, e.g. 4.8 */
  wished: number
  /** true when nothing had to be rounded */
  exact: boolean
  /** how long the whole frames really last, in seconds */
  seconds: number
}

/** A wish within this many frames of a whole one counts as whole: decimals typed by hand carry no more meaning. */
const WHOLE_TOLERANCE_FRAMES = 1e-6

/** The frame nearest to a place in time that is counted in frames; halves go up, as typed by hand or worked out. */
export const nearestFrame = (wished: number): number => Math.floor(wished + 0.5 + WHOLE_TOLERANCE_FRAMES)

/**
 * The whole number of frames nearest to a wished duration in seconds; halves go up. 0.2 s at 24 fps is 4.8 frames: 5,
 * which last 0.2083 s. Never less than one frame. Throws when `seconds` or `fps` is not above zero.
 */
export function wholeFrames(seconds: number, fps: number): WholeFrames {
  needPositive(seconds, 'seconds')
  needPositive(fps, 'fps')
  const wished = seconds * fps
  const frames = Math.max(1, nearestFrame(wished))
  return { frames, wished, exact: Math.abs(wished - frames) <= WHOLE_TOLERANCE_FRAMES, seconds: frames / fps }
}

/**
 * The frame due at a moment of playback: `floor(elapsedMs * fps / 1000)`, counted from 0. Asked afresh at every tick, so a
 * late tick drops frames and never slows the film down. Throws a UsageError on a rate that is not above 0.
 */
export function frameAt(elapsedMs: number, fps: number): number {
  needPositive(fps, 'fps')
  return Math.max(0, Math.floor((elapsedMs * fps) / 1000 + 1e-9))
}

/**
 * Timecode h:mm:ss:ff of a frame counted from 0. Whole frame rates only. Throws a UsageError on a frame under 0 and on a
 * rate under 1.
 */
export function timecode(frame: number, fps: number): string {
  needWhole(frame, 0, 'frame')
  needWhole(fps, 1, 'fps')
  const two = (n: number) => String(n).padStart(2, '0')
  const seconds = Math.floor(frame / fps)
  return `${Math.floor(seconds / 3600)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}:${two(frame % fps)}`
}

/** Seconds as people read them beside frames: two decimals, "1.00 s". */
export function secondsLabel(frames: number, fps: number): string {
  return `${secondsOf(frames, fps).toFixed(2)} s`
}
