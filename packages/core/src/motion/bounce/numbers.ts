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

type NumericField = {
  [F in keyof BounceNumbers]: BounceNumbers[F] extends number ? F : never
}[keyof BounceNumbers]

const PLACE = { least: -20_000, most: 20_000, whole: false }
const BOUNDS: Readonly<
  Record<NumericField, { readonly least: number; readonly most: number; readonly whole: boolean }>
> = {
  x: PLACE,
  y: PLACE,
  ground: PLACE,
  radius: { least: 1, most: 4000, whole: false },
  gravity: { least: 0.001, most: 1000, whole: false },
  restitution: { least: 0, most: 0.95, whole: false },
  forward: { least: -1000, most: 1000, whole: false },
  exposure: { least: 1, most: 24, whole: true },
  squash: { least: 0, most: 0.6, whole: false },
  stretch: { least: 0, most: 0.6, whole: false },
  roll: { least: 0, most: 500, whole: true },
}
const CHOICES = { school: ['flat', 'round'], nudge: ['gravity', 'start'], contact: ['squash', 'touch'] } as const
const MOST_BOUNCES = 60

/** The body's first fall: from where its centre starts to where it lies on the ground. */
export const fallOf = ({ y, ground, radius }: BounceNumbers): number => ground - radius - y

/** Numbers out of bounds, a start under the ground, or a fall that lasts too long; null when they can be planned. */
export function refuseBounce(numbers: BounceNumbers): NumbersRefusal<BounceNumbers> | null {
  for (const field of Object.keys(BOUNDS) as NumericField[]) {
    const { least, most, whole } = BOUNDS[field]
    const value: unknown = numbers[field]
    const fits = typeof value === 'number' && value >= least && value <= most && (!whole || Number.isInteger(value))
    if (!fits) {
      const why = `must be ${whole ? 'a whole number' : 'a number'} from ${least} to ${most}`
      return { field, why, bounds: BOUNDS[field] }
    }
  }
  for (const field of Object.keys(CHOICES) as (keyof typeof CHOICES)[]) {
    const known: readonly string[] = CHOICES[field]
    if (!known.includes(numbers[field])) return { field, why: `must be ${known.join(' or ')}` }
  }
  const { bounces } = numbers
  if (bounces !== null && !(Number.isInteger(bounces) && bounces >= 0 && bounces <= MOST_BOUNCES)) {
    return { field: 'bounces', why: `must be a whole number from 0 to ${MOST_BOUNCES}, or until it rests` }
  }
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
