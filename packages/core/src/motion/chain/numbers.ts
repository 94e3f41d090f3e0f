import {
  DEGREE,
  EXPOSURE,
  FOLLOWED,
  ON_OFF,
  oneOf,
  PLACE,
  real,
  refuseOutside,
  whole,
  type AllowedNumbers,
} from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a chain. Places and lengths in paper pixels, angles in radians, times in frames. */
export interface ChainNumbers {
  /** where its root is to begin with, or in the middle of its swing */
  readonly x: number
  readonly y: number
  readonly links: number
  /** length of a link */
  readonly link: number
  /** from straight down, to the right above 0 */
  readonly rest: number
  /** offset: as the root did before. spring: by weight and springs. hang: the tip is left behind, then comes after */
  readonly how: 'offset' | 'spring' | 'hang'
  /** swing: the root goes to and fro for ever. move: it goes once, and stops. mark: it goes where a mark or a point of another guide goes */
  readonly drive: 'swing' | 'move' | 'mark'
  /** that mark by its id, or a point of another guide */
  readonly follows: string | null
  /** how far the root goes to either side, or altogether */
  readonly across: number
  /** how far it rises twice a swing, or altogether */
  readonly up: number
  /** how far it turns */
  readonly turn: number
  /** frames of a swing, or of the way */
  readonly period: number
  /** frames after it stopped */
  readonly after: number
  readonly exposure: number
  readonly lag: number
  readonly growth: number
  readonly relative: boolean
  /** frames of a spring's own period */
  readonly own: number
  readonly damping: number
  readonly weight: number
  readonly air: number
  /** px a frame, a frame */
  readonly gravity: number
  /** drawings that the tip stays behind */
  readonly hangs: number
  /** how much longer it gets by that, at most */
  readonly stretch: number
}

const LENGTH = real(-4000, 4000)
const ALLOWED: AllowedNumbers<ChainNumbers> = {
  x: PLACE,
  y: PLACE,
  links: whole(1, 24),
  link: real(1, 2000),
  rest: real(-Math.PI, Math.PI),
  how: oneOf('offset', 'spring', 'hang'),
  drive: oneOf('swing', 'move', 'mark'),
  follows: FOLLOWED,
  across: LENGTH,
  up: LENGTH,
  turn: real(0, Math.PI),
  period: whole(2, 500),
  after: whole(0, 500),
  exposure: EXPOSURE,
  lag: real(0, 20),
  growth: real(0.5, 1.6),
  relative: ON_OFF,
  own: real(2, 500),
  damping: real(0.1, 1.2),
  weight: real(0, 3),
  air: real(0, 2),
  gravity: real(0, 1000),
  hangs: whole(0, 12),
  stretch: real(0, 0.6),
}

/** Numbers out of bounds, or a root that goes to and fro while the tip is to be left behind; null when they can be planned. */
export function refuseChain(numbers: ChainNumbers): NumbersRefusal<ChainNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  if (numbers.how === 'hang' && numbers.drive === 'swing') {
    return { field: 'how', why: 'leaves the tip behind only where the root goes once and stops' }
  }
  return null
}

/** A strap of five links under the middle of the paper, following a root that sways by offset. */
export function chainDefaults({ width, height, fps, exposure }: RecipeShot): ChainNumbers {
  return {
    x: Math.round(width * 0.5),
    y: Math.round(height * 0.3),
    links: 5,
    link: Math.max(2, Math.round(height * 0.09)),
    rest: 0,
    how: 'offset',
    drive: 'swing',
    follows: null,
    across: Math.round(width * 0.08),
    up: 0,
    turn: DEGREE * 20,
    period: Math.max(2, Math.round(fps / exposure) * exposure),
    after: Math.round(fps / exposure) * exposure,
    exposure,
    lag: Math.min(4, Math.max(1, Math.round(fps / 12))),
    growth: 1.1,
    relative: false,
    own: Math.max(2, Math.round(fps * 0.8)),
    damping: 0.35,
    weight: 0.6,
    air: 0.05,
    gravity: Math.round(((height * 5) / (fps * fps)) * 100) / 100,
    hangs: 2,
    stretch: 0.2,
  }
}
