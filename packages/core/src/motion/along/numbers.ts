import { EXPOSURE, FOLLOWED, PLACE, real, refuseOutside, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a way that is taken over from something: a point followed through a clip, a mark, a point of another guide. */
export interface AlongNumbers {
  readonly follows: string | null
  /** where it begins, paper pixels */
  readonly x: number
  readonly y: number
  /** how many times as far it goes with every step; 1 is as it was seen */
  readonly times: number
  readonly exposure: number
  /** of the ring round the place of a drawing, px */
  readonly radius: number
}

const ALLOWED: AllowedNumbers<AlongNumbers> = {
  follows: FOLLOWED,
  x: PLACE,
  y: PLACE,
  times: real(0.1, 5),
  exposure: EXPOSURE,
  radius: real(1, 4000),
}

/** Numbers out of bounds; null when they can be planned. */
export const refuseAlong = (numbers: AlongNumbers): NumbersRefusal<AlongNumbers> | null =>
  refuseOutside(numbers, ALLOWED)

/** Begins in the middle, as it was seen, and follows nothing yet. */
export const alongDefaults = ({ width, height, exposure }: RecipeShot): AlongNumbers => ({
  follows: null,
  x: Math.round(width / 2),
  y: Math.round(height / 2),
  times: 1,
  exposure,
  radius: Math.max(1, Math.round(height * 0.025)),
})
