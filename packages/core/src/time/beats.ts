import { needPositive, needWhole } from '../errors.ts'
import { nearestFrame } from './frames.ts'

/**
 * Frames between beats at a tempo: 60·fps / bpm. Mostly no whole number. Throws a UsageError on a tempo or a rate that is
 * not above 0.
 */
export function framesPerBeat(bpm: number, fps: number): number {
  needPositive(bpm, 'tempo')
  needPositive(fps, 'fps')
  return (60 * fps) / bpm
}

/**
 * The frames (from 0) on which the beats of a tempo fall within `length` frames, the first on `first`. Every beat is
 * rounded on its own, so that no error adds up. Beats that would fall on the same frame as the one before are left out.
 * Throws a UsageError on a first frame that is no whole number from 0, and on a tempo or a rate that is not above 0.
 */
export function tempoBeats(bpm: number, fps: number, first: number, length: number): number[] {
  needWhole(first, 0, 'frame')
  const apart = framesPerBeat(bpm, fps)
  const frames: number[] = []
  for (let i = 0; first + i * apart < length - 0.5; i++) {
    const frame = nearestFrame(first + i * apart)
    if (frame !== frames[frames.length - 1]) frames.push(frame)
  }
  return frames
}

/**
 * A tapped rhythm: the moments of the taps as frames (from 0), the first tap on `first`. Throws a UsageError on a rate
 * that is not above 0.
 */
export function tappedBeats(tapsMs: readonly number[], fps: number, first: number): number[] {
  needPositive(fps, 'fps')
  const start = tapsMs[0] ?? 0
  return [...new Set(tapsMs.map(ms => first + nearestFrame(((ms - start) * fps) / 1000)))]
}

/** The tempo that taps amount to, beats a minute, from the time between the first and the last; null for fewer than two. */
export function tappedTempo(tapsMs: readonly number[]): number | null {
  const [first, last] = [tapsMs[0], tapsMs[tapsMs.length - 1]]
  if (first === undefined || last === undefined || last <= first) return null
  return (60_000 * (tapsMs.length - 1)) / (last - first)
}
