import { median } from '../median.ts'
import { counted } from '../time/counted.ts'
import type { Change } from './change.ts'

/** Where a clip changes its picture. */
export interface ClipReading {
  /** how much each frame differs from the one before; the first differs from nothing (0) */
  readonly changes: readonly number[]
  /** a frame that differs by more begins a new drawing */
  readonly threshold: number
  /** frames (from 0) on which a new drawing begins, the first always */
  readonly starts: readonly number[]
}

/** Less than this is never a new drawing, brightness steps. */
const LEAST = 0.6
/** What is no new drawing differs by no more than so many times the noise. */
const NOISY = 3
/** Changes must be so many times what is none for the two to be told apart. */
const APART = 3

/** Two kinds that some numbers fall into: their middles, and where between them nothing lies; on a logarithmic scale. */
interface Split {
  readonly at: number
  readonly low: number
  readonly high: number
}

/**
 * The two kinds that differ most against how much each varies (N. Otsu, 1979), and between their middles the widest gap: the kinds are of very different
 * numbers, which draws the bare split to one side. Null for fewer than two different numbers.
 */
function splitOf(values: readonly number[]): Split | null {
  const logs = values.map(value => Math.log(Math.max(0.02, value))).sort((a, b) => a - b)
  const all = logs.reduce((sum, value) => sum + value, 0)
  let [most, low, high, below] = [0, 0, 0, 0]
  for (let i = 1; i < logs.length; i++) {
    below += logs[i - 1] as number
    const [under, over] = [below / i, (all - below) / (logs.length - i)]
    const between = i * (logs.length - i) * (over - under) ** 2
    if (between > most) [most, low, high] = [between, under, over]
  }
  if (most === 0) return null
  let [widest, at] = [0, (low + high) / 2]
  for (let i = 1; i < logs.length; i++) {
    const [a, b] = [Math.max(low, logs[i - 1] as number), Math.min(high, logs[i] as number)]
    if (b - a > widest) [widest, at] = [b - a, (a + b) / 2]
  }
  return { at: Math.exp(at), low: Math.exp(low), high: Math.exp(high) }
}

/**
 * The amount of change from which on a frame is a new drawing, found from the changes themselves: between the two kinds they fall into, when the lesser kind is no more
 * than noise. Else all are of one kind: new drawings when they stand out from the noise, and no drawing at all when they do not.
 */
export function thresholdOf(changes: readonly Change[]): number {
  const values = changes.map(change => Math.max(0, change.most))
  if (values.length === 0) return LEAST
  const noise = median(changes.map(change => change.usual))
  const least = Math.max(LEAST, 0.75 * noise)
  const split = splitOf(values)
  const isNoise = split !== null && split.low <= NOISY * noise + LEAST
  if (split && isNoise && split.high >= APART * split.low && split.high > least) return Math.max(least, split.at)
  return median(values) > 2 * least ? least : Math.max(least, 1.5 * Math.max(...values))
}

/** Reads where a clip changes, by the threshold given or found. `changes[i]` is what frame i + 1 differs by from frame i. */
export function readClip(changes: readonly Change[], threshold = thresholdOf(changes)): ClipReading {
  const amounts = [0, ...changes.map(change => Math.max(0, change.most))]
  const starts = amounts.flatMap((amount, frame) => (frame === 0 || amount > threshold ? [frame] : []))
  return { changes: amounts, threshold, starts }
}

/** A reading in which a frame begins a drawing, or goes on with the one before: the hand knows better. The first always begins one. */
export function corrected(reading: ClipReading, frame: number): ClipReading {
  if (frame <= 0 || frame >= reading.changes.length) return reading
  const isStart = reading.starts.includes(frame)
  const starts = isStart
    ? reading.starts.filter(start => start !== frame)
    : [...reading.starts, frame].sort((a, b) => a - b)
  return { ...reading, starts }
}

/** How long each drawing of a clip is held, in its frames. */
export const holdsOf = ({ starts, changes }: ClipReading): number[] =>
  starts.map((start, i) => (starts[i + 1] ?? changes.length) - start)

/** From so many frames on an exposure is a hold: a quarter of a second at 24. */
const HOLD_FRAMES = 6
const ON = ['', 'ones', 'twos', 'threes', 'fours', 'fives']

/** The exposures of a clip in words: how many drawings, on what, how many holds. */
export function readingInWords(reading: ClipReading): string {
  const holds = holdsOf(reading)
  const of = (frames: number) => holds.filter(one => one === frames).length
  const kinds = [1, 2, 3, 4, 5].filter(frames => of(frames) > 0).sort((a, b) => of(b) - of(a))
  const long = holds.filter(one => one >= HOLD_FRAMES)
  const parts = kinds.map(frames => `${of(frames)} on ${ON[frames] as string}`)
  if (long.length)
    parts.push(`${counted(long.length, 'hold')} (${long.slice(0, 6).join(', ')}${long.length > 6 ? ' …' : ''} frames)`)
  return `${counted(holds.length, 'drawing')} in ${counted(reading.changes.length, 'frame')}: ${parts.join(', ')}`
}
