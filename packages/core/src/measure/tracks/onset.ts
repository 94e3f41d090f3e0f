import { trackSteps, type Track, type TrackStep } from './track.ts'

/** When a part sets out, turns and arrives. Frames from 0. */
export interface Onset {
  readonly id: string
  readonly name: string
  /** the frame on which its speed first passes a tenth of its highest; null for a part that does not move */
  readonly starts: number | null
  /** frames from which on it goes another way: by more than 60°, or from its slowest between two bursts */
  readonly turns: readonly number[]
  /** the frame on which it has arrived, and is slower than a tenth of its highest speed for good */
  readonly stops: number | null
  /** its highest speed, px a frame */
  readonly fastest: number
}

/** A part whose highest speed is less, px a frame, does not move. */
const LEAST_SPEED = 0.5
/** The share of the highest speed at which a part counts as moving. */
const MOVING_SHARE = 0.1
/** Another way: by more than so much, radians; or slower than this share of the bursts before and after. */
const TURN_RAD = Math.PI / 3
const LULL_SHARE = 0.4

/** When a part sets out, turns and arrives, read from its steps. */
export function onsetOf(track: Track): Onset {
  const { id, name } = track
  const steps = trackSteps(track)
  const fastest = Math.max(0, ...steps.map(step => step.pxPerFrame))
  const moving = fastest < LEAST_SPEED ? [] : steps.filter(step => step.pxPerFrame >= MOVING_SHARE * fastest)
  const [first, last] = [moving[0], moving[moving.length - 1]]
  if (!first || !last) return { id, name, starts: null, turns: [], stops: null, fastest }
  return { id, name, starts: first.frame, turns: turnsOf(moving), stops: last.frame, fastest }
}

function turnsOf(steps: readonly TrackStep[]): number[] {
  return steps.flatMap((step, i) => {
    const before = steps[i - 1]
    if (!before) return []
    if (angleBetween(before, step) > TURN_RAD) return [step.frame]
    const isLowest = steps.length > i + 1 && step.pxPerFrame < before.pxPerFrame
    if (!isLowest || step.pxPerFrame > (steps[i + 1] as TrackStep).pxPerFrame) return []
    const [fast, later] = [burst(steps, i, -1), burst(steps, i, 1)]
    return step.pxPerFrame < LULL_SHARE * Math.min(fast, later) ? [step.frame] : []
  })
}

/** The highest speed on one side of a step before it gets slower again than there. */
function burst(steps: readonly TrackStep[], from: number, by: 1 | -1): number {
  const low = (steps[from] as TrackStep).pxPerFrame
  let most = 0
  for (let i = from + by; i >= 0 && i < steps.length; i += by) {
    const { pxPerFrame } = steps[i] as TrackStep
    if (pxPerFrame < low) break
    most = Math.max(most, pxPerFrame)
  }
  return most
}

const angleBetween = (a: TrackStep, b: TrackStep): number => {
  const [ax, ay, bx, by] = [a.to.x - a.from.x, a.to.y - a.from.y, b.to.x - b.from.x, b.to.y - b.from.y]
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by))
}

/** All parts in the order in which they set out; those that arrive first come first of equal ones, and those that do not move last. */
export const onsetTable = (tracks: readonly Track[]): Onset[] =>
  tracks
    .map(onsetOf)
    .sort((a, b) => (a.starts ?? Infinity) - (b.starts ?? Infinity) || (a.stops ?? Infinity) - (b.stops ?? Infinity))
