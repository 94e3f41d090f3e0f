import { EXPOSURE, ON_OFF, oneOf, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a hop or a jump. Places and lengths in paper pixels, times in frames. */
export interface HopNumbers {
  /** where the feet stand, and the height of the ground there */
  readonly x: number
  readonly ground: number
  /** of the figure, standing, and how wide it is */
  readonly height: number
  readonly width: number
  /** how far the feet rise from the ground, and how far they come down to the other one */
  readonly rise: number
  readonly drop: number
  /** how far it gets, to the right; negative to the left */
  readonly forward: number
  /** px a frame, a frame */
  readonly gravity: number
  readonly exposure: number
  /** how deep it crouches, a share of its height, and how many frames down and up again */
  readonly crouch: number
  readonly crouchFrames: number
  readonly pushFrames: number
  /** drawings more at the top */
  readonly hang: number
  /** how long it is at the speed of leaving the ground */
  readonly stretch: number
  /** how deep it is pressed after the contact, a share of its height, and for how many frames down and up again */
  readonly cushion: number
  readonly cushionFrames: number
  readonly settleFrames: number
  /** the foot it lands on is another one than the one it left with, so far ahead */
  readonly feet: 'same' | 'changed'
  readonly spread: number
  /** drawn on the spot: the way up and down is added for looking only */
  readonly pinned: boolean
}

const FRAMES = whole(1, 200)
const ALLOWED: AllowedNumbers<HopNumbers> = {
  x: PLACE,
  ground: PLACE,
  height: real(2, 8000),
  width: real(2, 8000),
  rise: real(1, 20_000),
  drop: real(0, 20_000),
  forward: real(-20_000, 20_000),
  gravity: real(0.001, 1000),
  exposure: EXPOSURE,
  crouch: real(0, 0.5),
  crouchFrames: FRAMES,
  pushFrames: FRAMES,
  hang: whole(0, 2),
  stretch: real(0, 0.6),
  cushion: real(0, 0.6),
  cushionFrames: FRAMES,
  settleFrames: FRAMES,
  feet: oneOf('same', 'changed'),
  spread: real(0, 4000),
  pinned: ON_OFF,
}
const LONGEST_FLIGHT = 1000

/** Frames from leaving the ground until it is reached again, as they come: (√(2H) + √(2D))/√g. */
export const flightFrames = ({ rise, drop, gravity }: Pick<HopNumbers, 'rise' | 'drop' | 'gravity'>): number =>
  (Math.sqrt(2 * rise) + Math.sqrt(2 * drop)) / Math.sqrt(gravity)

/** Numbers out of bounds, or a flight that lasts too long; null when they can be planned. */
export function refuseHop(numbers: HopNumbers): NumbersRefusal<HopNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const frames = flightFrames(numbers)
  if (frames > LONGEST_FLIGHT) {
    return {
      field: 'gravity',
      why: `lets it fly for ${Math.round(frames)} frames; at most ${LONGEST_FLIGHT} are planned`,
    }
  }
  return null
}

/** A figure a quarter as high as the paper that hops to the right, half a second in the air. */
export function hopDefaults({ width, height, fps, exposure }: RecipeShot): HopNumbers {
  const rise = Math.max(1, Math.round(height * 0.3))
  const flight = Math.max(4, Math.round((0.5 * fps) / exposure)) * exposure
  const quick = Math.max(1, Math.round(fps / 8 / exposure)) * exposure
  return {
    x: Math.round(width * 0.25),
    ground: Math.round(height * 0.85),
    height: Math.max(2, Math.round(height * 0.25)),
    width: Math.max(2, Math.round(height * 0.18)),
    rise,
    drop: rise,
    forward: Math.round(width * 0.45),
    gravity: Math.round(((8 * rise) / flight ** 2) * 1000) / 1000 || 0.001,
    exposure,
    crouch: 0.25,
    crouchFrames: 2 * quick,
    pushFrames: exposure,
    hang: 0,
    stretch: 0.3,
    cushion: 0.35,
    cushionFrames: exposure,
    settleFrames: 2 * quick,
    feet: 'same',
    spread: 0,
    pinned: false,
  }
}
