import { PLACE, real, refuseOutside, SEED, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a boil. Places and lengths in paper pixels. */
export interface BoilNumbers {
  /** the middle of what shivers */
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly tracings: number
  /** seconds each is held */
  readonly hold: number
  /** how often one is shown */
  readonly times: number
  /** how far a line may lie beside the first one */
  readonly shiver: number
  readonly seed: number
}

const ALLOWED: AllowedNumbers<BoilNumbers> = {
  x: PLACE,
  y: PLACE,
  width: real(2, 8192),
  height: real(2, 8192),
  tracings: whole(3, 5),
  hold: real(0.03, 2),
  times: whole(3, 240),
  shiver: real(0, 200),
  seed: SEED,
}

/** Numbers out of bounds, or fewer showings than tracings; null when they can be planned. */
export function refuseBoil(numbers: BoilNumbers): NumbersRefusal<BoilNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  if (numbers.times < numbers.tracings) return { field: 'times', why: 'must be at least the number of tracings' }
  return null
}

/** A word in the middle of the paper that shivers: three tracings, a fifth of a second each. */
export function boilDefaults({ width, height }: RecipeShot): BoilNumbers {
  return {
    x: Math.round(width / 2),
    y: Math.round(height / 2),
    width: Math.max(2, Math.round(width * 0.5)),
    height: Math.max(2, Math.round(height * 0.3)),
    tracings: 3,
    hold: 0.2,
    times: 12,
    shiver: Math.max(1, Math.round(height * 0.012)),
    seed: 1,
  }
}
