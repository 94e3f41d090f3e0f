import { EXPOSURE, ON_OFF, oneOf, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a blink. Places and lengths in paper pixels, angles in radians, times in frames. */
export interface BlinkNumbers {
  /** the middle of the eye, or between the two */
  readonly x: number
  readonly y: number
  /** half as wide, and half as high, as the eye */
  readonly wide: number
  readonly high: number
  readonly tilt: number
  /** from eye to eye; 0: one eye */
  readonly apart: number
  /** the second eye comes one drawing later */
  readonly late: boolean
  /** frames it is open before, so that one knows who it is */
  readonly before: number
  /** frames it is open after */
  readonly after: number
  /** down: fewer drawings up than down. up: fewer down than up */
  readonly slower: 'down' | 'up'
  /** drawings on the slower way, and on the quicker one */
  readonly slow: number
  readonly quick: number
  /** frames it is shut */
  readonly shut: number
  /** how often it blinks: once; twice, the second held shorter; several times without a rest; once, held longer */
  readonly pattern: 'once' | 'double' | 'flutter' | 'sleepy'
  readonly exposure: number
  /** the lashes come one drawing after the lid */
  readonly lashes: boolean
}

const ALLOWED: AllowedNumbers<BlinkNumbers> = {
  x: PLACE,
  y: PLACE,
  wide: real(1, 4000),
  high: real(1, 4000),
  tilt: real(-Math.PI / 2, Math.PI / 2),
  apart: real(0, 8000),
  late: ON_OFF,
  before: whole(1, 1000),
  after: whole(1, 1000),
  slower: oneOf('down', 'up'),
  slow: whole(1, 8),
  quick: whole(0, 8),
  shut: whole(1, 200),
  pattern: oneOf('once', 'double', 'flutter', 'sleepy'),
  exposure: EXPOSURE,
  lashes: ON_OFF,
}
/** A pose is read in no less: seconds. */
const LEAST_HOLD_S = 0.4

/** Frames that a pose is held so that it can be read, at a rate: rounded up. */
export const leastHold = (fps: number): number => Math.ceil(LEAST_HOLD_S * fps - 1e-9)

/** Numbers out of bounds, a hold too short to be read, or more drawings on the quicker way; null when they can be planned. */
export function refuseBlink(numbers: BlinkNumbers, { fps }: RecipeShot): NumbersRefusal<BlinkNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const least = leastHold(fps)
  if (numbers.before < least)
    return { field: 'before', why: `must be at least ${least} frames, so that the open eye is read` }
  if (numbers.quick > numbers.slow) return { field: 'quick', why: 'has no more drawings than the slower way' }
  return null
}

/** Two eyes in the middle of the paper that blink once, down slower than up. */
export function blinkDefaults({ width, height, fps, exposure }: RecipeShot): BlinkNumbers {
  const high = Math.max(2, Math.round(height * 0.12))
  return {
    x: Math.round(width / 2),
    y: Math.round(height * 0.45),
    wide: Math.round(high * 0.9),
    high,
    tilt: 0,
    apart: Math.round(high * 2.6),
    late: false,
    before: leastHold(fps),
    after: leastHold(fps),
    slower: 'down',
    slow: 3,
    quick: 2,
    shut: 3,
    pattern: 'once',
    exposure: Math.max(1, Math.round(exposure / 2)),
    lashes: false,
  }
}
