import { DEGREE, EXPOSURE, oneOf, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a pendulum. Places and lengths in paper pixels, angles in radians, times in frames. */
export interface PendulumNumbers {
  /** where it hangs */
  readonly x: number
  readonly y: number
  /** from there to the middle of what swings */
  readonly length: number
  /** how far it swings to either side */
  readonly swing: number
  /** what says how long a swing takes: its frames, or its length under gravity */
  readonly by: 'frames' | 'length'
  readonly period: number
  /** px a frame, a frame */
  readonly gravity: number
  /** share of its swing that it loses in one: 0 never stops */
  readonly decay: number
  /** of what swings */
  readonly radius: number
  readonly exposure: number
  /** of what hangs on it */
  readonly links: number
  readonly link: number
  readonly lag: number
  readonly growth: number
}

const ALLOWED: AllowedNumbers<PendulumNumbers> = {
  x: PLACE,
  y: PLACE,
  length: real(1, 8000),
  swing: real(0.01, Math.PI / 2),
  by: oneOf('frames', 'length'),
  period: whole(4, 1000),
  gravity: real(0.001, 1000),
  decay: real(0, 0.9),
  radius: real(1, 4000),
  exposure: EXPOSURE,
  links: whole(0, 12),
  link: real(1, 2000),
  lag: real(0, 20),
  growth: real(0.5, 1.6),
}
/** A swing of more frames is longer than anything that is drawn. */
const LONGEST = 1000

/** Frames of a small swing of a length (px) under gravity (px a frame, a frame): 2π√(ℓ/g). */
export const periodOfLength = (lengthPx: number, gravity: number): number => 2 * Math.PI * Math.sqrt(lengthPx / gravity)

/** Numbers out of bounds, or a length that swings too slowly; null when they can be planned. */
export function refusePendulum(numbers: PendulumNumbers): NumbersRefusal<PendulumNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const frames = periodOfLength(numbers.length, numbers.gravity)
  if (numbers.by === 'length' && frames > LONGEST) {
    return { field: 'gravity', why: `lets a swing take ${Math.round(frames)} frames; at most ${LONGEST} are planned` }
  }
  return null
}

/** A lantern hung at the upper middle that swings for ever, a swing in a second and a half. */
export function pendulumDefaults({ width, height, fps, exposure }: RecipeShot): PendulumNumbers {
  const length = Math.max(2, Math.round(height * 0.45))
  const period = Math.max(1, Math.round((1.5 * fps) / (4 * exposure))) * 4 * exposure
  return {
    x: Math.round(width / 2),
    y: Math.round(height * 0.12),
    length,
    swing: DEGREE * 30,
    by: 'frames',
    period,
    gravity: Math.round(((4 * Math.PI ** 2 * length) / period ** 2) * 1000) / 1000 || 0.001,
    decay: 0,
    radius: Math.max(1, Math.round(height * 0.07)),
    exposure,
    links: 3,
    link: Math.max(1, Math.round(height * 0.05)),
    lag: exposure,
    growth: 1.1,
  }
}
