import FFT from 'fft.js'
import { needPositive } from '../errors.ts'

/** Seconds between two readings of the flux. */
export const FLUX_STEP_S = 0.01
/** About how many seconds of sound a reading takes in. */
const WINDOW_S = 0.023
/** How much stronger quiet partials count: log(1 + γ·|X|). */
const GAMMA = 100
/** Onsets nearer to each other than this are one. */
const APART_S = 0.06

/** How much more there is at every moment than just before, over all pitches. */
export interface Flux {
  readonly stepS: number
  /** from 0; reading i stands for the moment i·stepS */
  readonly values: Float32Array
}

/**
 * The spectral flux of a sound: the sum over all pitches of what has grown since the reading before, of logarithms of magnitudes
 * (S. Dixon, Onset detection revisited, 2006; logarithms after A. Klapuri). `samples` are −1 … 1, `rate` of them a second. Throws
 * a UsageError on a rate that is not above 0.
 */
export function fluxOf(samples: Float32Array, rate: number): Flux {
  needPositive(rate, 'rate')
  const size = Math.max(64, 2 ** Math.round(Math.log2(rate * WINDOW_S)))
  const count = Math.floor(samples.length / (rate * FLUX_STEP_S)) + 1
  const transform = new FFT(size)
  const spectrum = transform.createComplexArray()
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const piece = new Float64Array(size)
  const before = new Float64Array(size / 2)
  const values = new Float32Array(count)
  // Where a recording is cut off, the cut would be heard as something that sets in.
  const last = Math.floor((samples.length - size / 2) / (rate * FLUX_STEP_S))
  for (let i = 0; i <= last; i++) {
    const from = Math.round(i * rate * FLUX_STEP_S) - size / 2
    for (let k = 0; k < size; k++) {
      const value = samples[from + k] ?? 0
      piece[k] = (value === value ? value : 0) * (window[k] as number)
    }
    transform.realTransform(spectrum, piece)
    let grown = 0
    for (let k = 1; k < size / 2; k++) {
      const magnitude = Math.hypot(spectrum[2 * k] as number, spectrum[2 * k + 1] as number) / (size / 4)
      const now = Math.log1p(GAMMA * magnitude)
      if (i > 0) grown += Math.max(0, now - (before[k] as number))
      before[k] = now
    }
    values[i] = grown / (size / 2)
  }
  return { stepS: FLUX_STEP_S, values }
}

/** Where something sets in: when, and how strongly beside the strongest of all (0–1). */
export interface Onset {
  readonly seconds: number
  readonly strength: number
}

/** Readings to either side among which an onset is the highest, and those its surroundings are taken from. */
const PEAK_REACH = 3
const AROUND_BACK = 10
const AROUND_AHEAD = 7
/** Below this nothing is heard, however much it grows. */
const LEAST_FLUX = 0.004

/**
 * Where a sound sets in, in the order of time: moments whose flux is the highest around, and rises above the median around them by a share of
 * the highest of all that `sensitivity` (0: only the strongest, 1: nearly all) sets.
 */
export function onsetsOf({ values, stepS }: Flux, sensitivity: number): Onset[] {
  const most = values.reduce((high, value) => Math.max(high, value), 0)
  if (most < LEAST_FLUX) return []
  const above = most * (0.5 - 0.46 * Math.max(0, Math.min(1, sensitivity)))
  const found: { at: number; value: number }[] = []
  for (let i = 0; i < values.length; i++) {
    const value = values[i] as number
    const near = values.subarray(Math.max(0, i - PEAK_REACH), i + PEAK_REACH + 1)
    if (near.some(other => other > value)) continue
    const around = values.slice(Math.max(0, i - AROUND_BACK), i + AROUND_AHEAD + 1).sort()
    const median = around[around.length >> 1] as number
    if (value < LEAST_FLUX || value < median + above) continue
    const last = found.at(-1)
    if (!last || (i - last.at) * stepS >= APART_S) found.push({ at: i, value })
    else if (value > last.value) found[found.length - 1] = { at: i, value }
  }
  return found.map(({ at, value }) => ({ seconds: at * stepS, strength: value / most }))
}

/** A tempo, and where its first beat lies. */
export interface Tempo {
  /** beats a minute */
  readonly bpm: number
  readonly firstS: number
  /** how much of what sets in lies on its beats, 0–1 */
  readonly clear: number
}

/** Flux that is less like itself a beat later has no tempo. */
const LEAST_LIKE = 0.2
const [SLOWEST_BPM, FASTEST_BPM, USUAL_BPM] = [50, 220, 120]

/**
 * The tempo of a sound: the lag at which its flux is most like itself, those near 120 a minute preferred by a bell curve of about an
 * octave (D. Ellis, Beat tracking by dynamic programming, 2007), refined by a parabola; the first beat is the phase on which most sets in.
 * Null where nothing comes again, and for less than four seconds.
 */
export function tempoOf({ values, stepS }: Flux): Tempo | null {
  if (values.length * stepS < 4) return null
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length
  const level = values.map(value => Math.max(0, value - mean))
  const power = level.reduce((sum, value) => sum + value * value, 0)
  if (power === 0) return null
  const like = (lag: number): number => {
    let sum = 0
    for (let i = lag; i < level.length; i++) sum += (level[i] as number) * (level[i - lag] as number)
    return sum / power / (1 - lag / level.length)
  }
  const lagOf = (bpm: number) => 60 / bpm / stepS
  const longest = Math.min(Math.ceil(lagOf(SLOWEST_BPM)), Math.floor(level.length / 2))
  const weighted = (lag: number) => like(lag) * Math.exp(-0.5 * Math.log2(lagOf(USUAL_BPM) / lag) ** 2)
  let [best, bestAt] = [0, 0]
  for (let lag = Math.floor(lagOf(FASTEST_BPM)); lag <= longest; lag++) {
    const now = weighted(lag)
    if (now > best) [best, bestAt] = [now, lag]
  }
  if (bestAt === 0 || like(bestAt) < LEAST_LIKE) return null
  // Many beats later the same lag is read more finely.
  const times = Math.max(1, Math.floor(level.length / 2 / bestAt))
  const around = Array.from({ length: 2 * times + 1 }, (_, i) => bestAt * times + i - times)
  const far = around.reduce((top, lag) => (like(lag) > like(top) ? lag : top), bestAt * times)
  const [a, b, c] = [like(far - 1), like(far), like(far + 1)]
  const bent = a - 2 * b + c
  const lag = (far + (bent < 0 ? (0.5 * (a - c)) / bent : 0)) / times
  const phase = bestPhase(level, lag)
  // By chance as much lies on the beats as there are readings beside them.
  if (phase.share < (2 * (2 * PEAK_REACH + 1)) / lag) return null
  return { bpm: 60 / (lag * stepS), firstS: phase.at * stepS, clear: phase.share }
}

/** The phase, in readings, on which a comb of a lag finds most, and the share of everything that lies within 3 readings of it. */
function bestPhase(level: Float32Array, lag: number): { at: number; share: number } {
  const along = (at: number, read: (i: number) => number): number => {
    let sum = 0
    for (let t = at; t < level.length; t += lag) sum += read(Math.round(t))
    return sum
  }
  const nearTo = (i: number): number =>
    level.subarray(Math.max(0, i - PEAK_REACH), i + PEAK_REACH + 1).reduce((sum, value) => sum + value, 0)
  let [most, best] = [-1, 0]
  for (let at = 0; at < lag; at++) {
    const found = along(at, i => level[i] ?? 0)
    if (found > most) [most, best] = [found, at]
  }
  const all = level.reduce((sum, value) => sum + value, 0)
  return { at: best, share: Math.min(1, along(best, nearTo) / all) }
}
