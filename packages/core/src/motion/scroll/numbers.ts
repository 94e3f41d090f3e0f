import { EXPOSURE, ON_OFF, oneOf, PLACE, real, refuseOutside, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a layer that passes. Lengths in paper pixels, times in frames. */
export interface ScrollNumbers {
  /** the left edge of the strip, and its lower one */
  readonly x: number
  readonly y: number
  readonly height: number
  /** px a frame to the right, and downwards, of what is as near as the ground */
  readonly speed: number
  readonly fall: number
  /** share of that speed: 0 far away, 1 the ground, 2 nearest */
  readonly share: number
  /** each place is kept for so many frames */
  readonly exposure: number
  /** places are rounded to whole pixels */
  readonly whole: boolean
  /** width after which the strip is laid down again; or it is as long as it is drawn */
  readonly closes: number | null
  /** frames it lasts where it does not close */
  readonly frames: number
  /** seconds in which a picture may go by before it is said to judder */
  readonly judder: '5' | '7'
}

const LONGEST_FRAMES = 2000
const ALLOWED: AllowedNumbers<ScrollNumbers> = {
  x: PLACE,
  y: PLACE,
  height: real(1, 8192),
  speed: real(-2000, 2000),
  fall: real(-2000, 2000),
  share: real(0, 2),
  exposure: EXPOSURE,
  whole: ON_OFF,
  closes: { kind: 'number', least: 64, most: 100_000, whole: false, open: 'no end' },
  frames: { kind: 'number', least: 1, most: LONGEST_FRAMES, whole: true },
  judder: oneOf('5', '7'),
}

/** Numbers out of bounds; null when they can be planned. */
export const refuseScroll = (numbers: ScrollNumbers): NumbersRefusal<ScrollNumbers> | null =>
  refuseOutside(numbers, ALLOWED)

/** Px a frame, to the right, at which the layer itself goes. */
export const passes = ({ speed, share }: Pick<ScrollNumbers, 'speed' | 'share'>): number => speed * share || 0

/** Frames after which the strip lies as it did; null where it does not close, or stands. */
export function closesAfter(numbers: Pick<ScrollNumbers, 'closes' | 'speed' | 'share' | 'fall'>): number | null {
  const speed = Math.abs(passes(numbers))
  return numbers.closes === null || speed === 0 || numbers.fall !== 0 ? null : numbers.closes / speed
}

/** Frames of a strip that closes in whole exposures, within a billionth; null of any other, and of one that takes too long. */
export function wholeRound(numbers: ScrollNumbers): number | null {
  const after = closesAfter(numbers)
  if (after === null || after > LONGEST_FRAMES) return null
  const frames = Math.round(after / numbers.exposure) * numbers.exposure
  return frames > 0 && Math.abs(after - frames) < 1e-9 * after ? frames : null
}

/** The ground under a figure that walks to the right on the spot, as fast as the one that walks there; else a picture in six seconds. */
export function scrollDefaults({ width, height, fps, exposure, passing }: RecipeShot): ScrollNumbers {
  const round = Math.max(1, Math.round((6 * fps) / exposure)) * exposure
  return {
    x: 0,
    y: height,
    height: Math.max(1, Math.round(height * 0.2)),
    speed: passing || -width / round,
    fall: 0,
    share: 1,
    exposure,
    whole: false,
    closes: Math.max(64, width),
    frames: round,
    judder: '5',
  }
}
