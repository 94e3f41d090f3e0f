import { needPositive } from '../errors.ts'

/** How a clip lies on the frames of a shot. */
export interface ClipLaid {
  /** the frame of the shot (from 0) under which its first used moment lies */
  readonly from: number
  /** the stretch of it that is used, seconds */
  readonly inS: number
  readonly outS: number
  /** seconds of the clip that pass in a second of the shot */
  readonly rate: number
}

/** The moment of a clip under a frame of the shot, seconds; null before it begins and after it ends. Throws a UsageError on a rate that is not above 0. */
export function momentUnder({ from, inS, outS, rate }: ClipLaid, fps: number, frame: number): number | null {
  needPositive(fps, 'fps')
  needPositive(rate, 'rate of a clip')
  const at = inS + ((frame - from) / fps) * rate
  return frame < from || at >= outS - 1e-6 ? null : at
}

/** Some forms keep moments in whole thousandths of a second: what begins within one of them has begun. */
const ROUNDED_S = 0.001

/** The picture of a clip that is seen at a moment: the last that has begun by then. `times` are their beginnings in seconds, rising. */
export function pictureAt(times: readonly number[], seconds: number): number | null {
  let [low, high] = [0, times.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((times[middle] as number) <= seconds + ROUNDED_S) low = middle + 1
    else high = middle
  }
  return low > 0 ? low - 1 : times.length > 0 ? 0 : null
}

/** The frame of the shot (from 0, nearest) on which a moment of a clip lies; null for one that is not used. Throws a UsageError on a rate that is not above 0. */
export function frameOver({ from, inS, outS, rate }: ClipLaid, fps: number, seconds: number): number | null {
  needPositive(fps, 'fps')
  needPositive(rate, 'rate of a clip')
  if (seconds < inS - 1e-6 || seconds >= outS - 1e-6) return null
  return from + Math.round(((seconds - inS) / rate) * fps)
}
