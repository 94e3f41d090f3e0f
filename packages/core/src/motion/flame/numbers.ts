import { EXPOSURE, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a flame. Places and lengths in paper pixels. */
export interface FlameNumbers {
  /** the middle of its foot */
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  /** how far its tip sways to either side */
  readonly sway: number
  /** waves along its height: whole ones and parts of one */
  readonly waves: number
  readonly drawings: number
  readonly exposure: number
  /** tips that break off in a cycle */
  readonly tips: number
}

const ALLOWED: AllowedNumbers<FlameNumbers> = {
  x: PLACE,
  y: PLACE,
  width: real(2, 8000),
  height: real(2, 8000),
  sway: real(0, 4000),
  waves: real(0.25, 4),
  drawings: whole(3, 24),
  exposure: EXPOSURE,
  tips: whole(0, 3),
}

/** Numbers out of bounds; null when they can be planned. */
export const refuseFlame = (numbers: FlameNumbers): NumbersRefusal<FlameNumbers> | null =>
  refuseOutside(numbers, ALLOWED)

/** A flame in the middle of the paper: eight drawings, one tip that breaks off. */
export function flameDefaults({ width, height, exposure }: RecipeShot): FlameNumbers {
  return {
    x: Math.round(width / 2),
    y: Math.round(height * 0.78),
    width: Math.max(2, Math.round(height * 0.2)),
    height: Math.max(2, Math.round(height * 0.5)),
    sway: Math.round(height * 0.06),
    waves: 1,
    drawings: 8,
    exposure,
    tips: 1,
  }
}
