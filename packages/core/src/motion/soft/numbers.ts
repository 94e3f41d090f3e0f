import { EXPOSURE, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a soft body that rides on another. Places and half axes in paper pixels. */
export interface SoftNumbers {
  readonly x: number
  readonly ground: number
  /** half as wide and half as high as the lower one */
  readonly lowWide: number
  readonly lowHigh: number
  /** half as wide and half as high as the upper one */
  readonly wide: number
  readonly high: number
  readonly drawings: number
  readonly exposure: number
  /** how flat the lower one gets, and how long: shares of its height */
  readonly squash: number
  readonly stretch: number
  /** drawings that the shape of the upper one comes later */
  readonly lag: number
  /** how far it arches: a share of what keeps it from closing round the lower one */
  readonly arch: number
  /** drawings it is left hanging at the top, and how long it gets as it comes after */
  readonly hangs: number
  readonly follows: number
}

const HALF = real(2, 4000)
const ALLOWED: AllowedNumbers<SoftNumbers> = {
  x: PLACE,
  ground: PLACE,
  lowWide: HALF,
  lowHigh: HALF,
  wide: HALF,
  high: HALF,
  drawings: whole(8, 48),
  exposure: EXPOSURE,
  squash: real(0.02, 0.5),
  stretch: real(0, 0.5),
  lag: whole(0, 4),
  arch: real(0, 1),
  hangs: whole(0, 6),
  follows: real(0, 0.5),
}

/** Numbers out of bounds, or no time left to come after; null when they can be planned. */
export function refuseSoft(numbers: SoftNumbers): NumbersRefusal<SoftNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const most = Math.floor(numbers.drawings / 4) - 1
  if (numbers.hangs > most)
    return { field: 'hangs', why: `can be ${most} of ${numbers.drawings} drawings at most, so that it can come after` }
  return null
}

/** A jelly pebble on a jelly pebble: twelve drawings. */
export function softDefaults({ width, height, exposure }: RecipeShot): SoftNumbers {
  const unit = Math.max(10, Math.round(height * 0.12))
  return {
    x: Math.round(width / 2),
    ground: Math.round(height * 0.86),
    lowWide: Math.round(unit * 1.5),
    lowHigh: unit,
    wide: Math.round(unit * 1.15),
    high: Math.round(unit * 0.75),
    drawings: 12,
    exposure,
    squash: 0.25,
    stretch: 0.2,
    lag: 1,
    arch: 0.6,
    hangs: 1,
    follows: 0.18,
  }
}
