import { EXPOSURE, oneOf, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a bounce. Places are of the body's centre, in paper pixels, y downwards. */
export interface BounceNumbers {
  readonly x: number
  readonly y: number
  /** height of the ground: its y */
  readonly ground: number
  readonly radius: number
  /** pixels a frame, a frame */
  readonly gravity: number
  /** share of the speed that a contact gives back, 0–0.95: acorn 0.35, jelly 0.5, wood 0.6, rubber 0.8 */
  readonly restitution: number
  /** pixels a frame, to the right; negative to the left */
  readonly forward: number
  /** frames a drawing is shown */
  readonly exposure: number
  /** arcs after the first contact, or null: until it rests */
  readonly bounces: number | null
  /** 0–0.6: how flat the first contact presses the body */
  readonly squash: number
  /** 0–0.6: how long the body is at the speed of the first contact */
  readonly stretch: number
  /** flat: the area is kept; round: the volume, as if it were as deep as it is wide */
  readonly school: 'flat' | 'round'
  /** what gives way, so that contacts fall on exposures */
  readonly nudge: 'gravity' | 'start'
  /** squash: flat on the contact itself. touch: touching and stretched there, and flat one exposure later */
  readonly contact: 'squash' | 'touch'
  /** frames in which it rolls out after the last contact, slowing evenly; 0: it lies still */
  readonly roll: number
}

/** A fall of so many frames is longer than anything that is drawn. */
export const LONGEST_FALL = 1000

const ALLOWED: AllowedNumbers<BounceNumbers> = {
  x: PLACE,
  y: PLACE,
  ground: PLACE,
  radius: real(1, 4000),
  gravity: real(0.001, 1000),
  restitution: real(0, 0.95),
  forward: real(-1000, 1000),
  exposure: EXPOSURE,
  bounces: whole(0, 60, 'until it rests'),
  squash: real(0, 0.6),
  stretch: real(0, 0.6),
  school: oneOf('flat', 'round'),
  nudge: oneOf('gravity', 'start'),
  contact: oneOf('squash', 'touch'),
  roll: whole(0, 500),
}

/** The body's first fall: from where its centre starts to where it lies on the ground. */
export const fallOf = ({ y, ground, radius }: BounceNumbers): number => ground - radius - y

/** Numbers out of bounds, a start under the ground, or a fall that lasts too long; null when they can be planned. */
export function refuseBounce(numbers: BounceNumbers): NumbersRefusal<BounceNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const fall = fallOf(numbers)
  if (fall < 1) return { field: 'y', why: 'must be above the ground by more than the radius' }
  const frames = Math.sqrt((2 * fall) / numbers.gravity)
  if (frames > LONGEST_FALL) {
    return {
      field: 'gravity',
      why: `lets it fall for ${Math.round(frames)} frames; at most ${LONGEST_FALL} are planned`,
    }
  }
  return null
}

/** Frames that the first fall takes as it comes, in seconds: long enough to be read. */
const USUAL_FALL_S = 0.5

/** An acorn dropped at the left third of the paper that lands after half a second and comes to rest towards the right. */
export function bounceDefaults({ width, height, fps, exposure }: RecipeShot): BounceNumbers {
  const radius = Math.max(2, Math.round(height / 18))
  const ground = Math.round(height * 0.85)
  const y = Math.round(height * 0.2)
  const t = Math.max(exposure, Math.round((USUAL_FALL_S * fps) / exposure) * exposure)
  return {
    x: Math.round(width * 0.2),
    y,
    ground,
    radius,
    gravity: (2 * (ground - radius - y)) / (t * t),
    restitution: 0.6,
    forward: Math.round(((width * 0.5) / (2.5 * fps)) * 10) / 10,
    exposure,
    bounces: null,
    squash: 0.3,
    stretch: 0.25,
    school: 'flat',
    nudge: 'gravity',
    contact: 'squash',
    roll: 0,
  }
}
