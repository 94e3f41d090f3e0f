import { EXPOSURE, PLACE, real, refuseOutside, SEED, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of rising wisps. Places and lengths in paper pixels. */
export interface WispNumbers {
  /** the mouth they rise from */
  readonly x: number
  readonly y: number
  /** from wisp to wisp */
  readonly pitch: number
  /** how far they rise from drawing to drawing */
  readonly rise: number
  /** drawings of the cycle */
  readonly drawings: number
  readonly exposure: number
  /** how high they get before they are gone */
  readonly height: number
  /** how thick they are at the mouth */
  readonly thick: number
  /** how far they sway to either side at the top */
  readonly sway: number
  readonly seed: number
}

const ALLOWED: AllowedNumbers<WispNumbers> = {
  x: PLACE,
  y: PLACE,
  pitch: real(2, 4000),
  rise: real(0.1, 4000),
  drawings: whole(3, 48),
  exposure: EXPOSURE,
  height: real(4, 16_000),
  thick: real(1, 2000),
  sway: real(0, 4000),
  seed: SEED,
}
/** More wisps at a time are no wisps any more. */
const MOST_AT_ONCE = 60

/** Numbers out of bounds, or more wisps at once than can be told apart; null when they can be planned. */
export function refuseWisps(numbers: WispNumbers): NumbersRefusal<WispNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const most = numbers.height / MOST_AT_ONCE
  if (numbers.pitch < most)
    return { field: 'pitch', why: `must be at least ${Math.ceil(most)}, for wisps of this height` }
  return null
}

/** Seven wisps over a warm stone: eight drawings, each rising a quarter of the way to the next. */
export function wispDefaults({ width, height, exposure }: RecipeShot): WispNumbers {
  const pitch = Math.max(2, Math.round(height * 0.11))
  return {
    x: Math.round(width / 2),
    y: Math.round(height * 0.85),
    pitch,
    rise: pitch / 4,
    drawings: 8,
    exposure: exposure + 1,
    height: pitch * 7,
    thick: Math.max(1, Math.round(pitch * 0.3)),
    sway: Math.round(pitch * 0.5),
    seed: 1,
  }
}
