import { needPositive } from '../errors.ts'

/** How far a sound swings in every stretch of it, so that it can be drawn without being read again. */
export interface Peaks {
  /** seconds of a stretch */
  readonly stepS: number
  /** the deepest and the highest value of each, −127 … 127 for −1 … 1 */
  readonly low: Int8Array
  readonly high: Int8Array
}

/** Seconds of a stretch: four in a frame of film at 24. */
export const PEAK_STEP_S = 0.01

/** Stretches that are gathered while a sound comes in piece by piece. */
export interface PeakMaker {
  /** takes the next samples (−1 … 1) of one channel, or of all of them mixed */
  take(samples: Float32Array): void
  done(): Peaks
}

const within = (value: number): number => Math.max(-1, Math.min(1, value))

/** Makes peaks of samples that come `rate` a second. Throws a UsageError on a rate that is not above 0. */
export function peakMaker(rate: number): PeakMaker {
  needPositive(rate, 'rate')
  const low: number[] = []
  const high: number[] = []
  let [least, most, seen] = [Infinity, -Infinity, 0]
  const close = () => {
    low.push(Math.floor(within(least) * 127))
    high.push(Math.ceil(within(most) * 127))
    least = Infinity
    most = -Infinity
  }
  return {
    take(samples) {
      for (const value of samples) {
        // The first sample of a stretch closes the one before.
        if (seen > 0 && Math.floor(seen / (rate * PEAK_STEP_S)) > low.length) close()
        // What is not a number is silence.
        const safe = value === value ? value : 0
        least = Math.min(least, safe)
        most = Math.max(most, safe)
        seen++
      }
    },
    done() {
      if (least <= most) close()
      return { stepS: PEAK_STEP_S, low: Int8Array.from(low), high: Int8Array.from(high) }
    },
  }
}

/** The deepest and the highest value (−1 … 1) of a sound from one moment to another, in seconds; both 0 where it is silent or over. */
export function swing(peaks: Peaks, fromS: number, toS: number): readonly [low: number, high: number] {
  const first = Math.max(0, Math.floor(fromS / peaks.stepS + 1e-9))
  const end = Math.min(peaks.low.length, Math.max(first + 1, Math.ceil(toS / peaks.stepS - 1e-9)))
  let [low, high] = [0, 0]
  for (let i = first; i < end; i++) {
    low = Math.min(low, peaks.low[i] as number)
    high = Math.max(high, peaks.high[i] as number)
  }
  return [low / 127, high / 127]
}
