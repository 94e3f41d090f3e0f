import { DEGREE, EXPOSURE, ON_OFF, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of the turn of a head. Places and half axes in paper pixels, angles in radians, times in frames. */
export interface TurnNumbers {
  readonly x: number
  readonly y: number
  /** half axes of the ball: across, up, and from back to front */
  readonly wide: number
  readonly high: number
  readonly deep: number
  /** where it looks at the beginning and at the end: 0 is towards us, to the right above 0 */
  readonly from: number
  readonly to: number
  /** how far it nods on the way: down above 0 */
  readonly dip: number
  readonly tiltFrom: number
  readonly tiltTo: number
  readonly frames: number
  readonly exposure: number
  /** where the drawing in the middle lies: a half is half-way, less favours the beginning */
  readonly favours: number
  /** frames that the eyes come before the head */
  readonly lead: number
  /** the eyes are shut in the middle */
  readonly blinks: boolean
  /** how high the eyes are over the middle, and how far to the sides: shares of the half axes */
  readonly eyeHigh: number
  readonly eyeWide: number
}

const ANGLE = real(-Math.PI, Math.PI)
const HALF = real(2, 4000)
const ALLOWED: AllowedNumbers<TurnNumbers> = {
  x: PLACE,
  y: PLACE,
  wide: HALF,
  high: HALF,
  deep: HALF,
  from: ANGLE,
  to: ANGLE,
  dip: real(-1, 1),
  tiltFrom: real(-1.2, 1.2),
  tiltTo: real(-1.2, 1.2),
  frames: whole(2, 500),
  exposure: EXPOSURE,
  favours: real(0.15, 0.85),
  lead: whole(0, 12),
  blinks: ON_OFF,
  eyeHigh: real(-0.8, 0.8),
  eyeWide: real(0.05, 0.9),
}

/** Numbers out of bounds, or fewer frames than two drawings; null when they can be planned. */
export function refuseTurn(numbers: TurnNumbers): NumbersRefusal<TurnNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  if (numbers.frames < 2 * numbers.exposure) {
    return {
      field: 'frames',
      why: `must be at least ${2 * numbers.exposure}, so that there is a drawing in the middle`,
    }
  }
  return null
}

/** A head that looks from the left to the right with a small nod, over half a second. */
export function turnDefaults({ width, height, fps, exposure }: RecipeShot): TurnNumbers {
  const high = Math.max(10, Math.round(height * 0.22))
  return {
    x: Math.round(width / 2),
    y: Math.round(height * 0.5),
    wide: Math.round(high * 0.85),
    high,
    deep: Math.round(high * 0.9),
    from: DEGREE * -45,
    to: DEGREE * 45,
    dip: DEGREE * 15,
    tiltFrom: 0,
    tiltTo: 0,
    frames: Math.max(2, Math.round((0.5 * fps) / exposure)) * exposure,
    exposure,
    favours: 0.5,
    lead: Math.min(3, Math.max(1, Math.round(fps / 12))),
    blinks: false,
    eyeHigh: 0.12,
    eyeWide: 0.4,
  }
}
