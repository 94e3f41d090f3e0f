import { EXPOSURE, oneOf, PLACE, real, refuseOutside, whole, type AllowedNumbers } from '../allowed.ts'
import type { NumbersRefusal, RecipeShot } from '../recipe.ts'

/** What is asked of a move with what comes before and after it. Places and lengths in paper pixels, times in frames. */
export interface AnticipateNumbers {
  /** from where to where its middle goes */
  readonly x: number
  readonly y: number
  readonly toX: number
  readonly toY: number
  /** how far the way bows up from the straight one, at its middle */
  readonly bow: number
  /** frames of the main move */
  readonly frames: number
  readonly exposure: number
  /** how far it goes back first: a share of the way */
  readonly back: number
  /** frames that takes: a share of those of the main move */
  readonly backTime: number
  /** where the main move is slow */
  readonly ease: 'even' | 'in' | 'out' | 'both'
  /** how far it goes past the end: a share of the way */
  readonly past: number
  /** how fast that dies down: the share left after a frame is e to the minus this */
  readonly decay: number
  /** frames of a swing about the end */
  readonly swing: number
  /** frames each part comes after the one before it */
  readonly parts: number
  readonly offset: number
  /** of the body that goes, and how much it is stretched at full speed */
  readonly radius: number
  readonly stretch: number
}

const ALLOWED: AllowedNumbers<AnticipateNumbers> = {
  x: PLACE,
  y: PLACE,
  toX: PLACE,
  toY: PLACE,
  bow: real(-8000, 8000),
  frames: whole(2, 500),
  exposure: EXPOSURE,
  back: real(0, 0.5),
  backTime: real(0.05, 1),
  ease: oneOf('even', 'in', 'out', 'both'),
  past: real(0, 0.5),
  decay: real(0.02, 1),
  swing: whole(4, 200),
  parts: whole(1, 4),
  offset: whole(0, 12),
  radius: real(1, 4000),
  stretch: real(0, 0.6),
}
/** A way of fewer pixels is no move. */
const LEAST_WAY_PX = 1

/** Numbers out of bounds, a way that leads nowhere, or a swing too quick to be drawn; null when they can be planned. */
export function refuseAnticipate(numbers: AnticipateNumbers): NumbersRefusal<AnticipateNumbers> | null {
  const outside = refuseOutside(numbers, ALLOWED)
  if (outside) return outside
  const { x, y, toX, toY, exposure, frames, swing } = numbers
  if (Math.hypot(toX - x, toY - y) < LEAST_WAY_PX)
    return { field: 'toX', why: 'must lie at least a pixel from where it starts' }
  if (frames < exposure) return { field: 'frames', why: 'must be at least those of a drawing' }
  if (swing < 4 * exposure) return { field: 'swing', why: `must be at least ${4 * exposure} frames: four drawings` }
  return null
}

/** A head that goes to the right over half a second, back a little first, past the end and back. */
export function anticipateDefaults({ width, height, fps, exposure }: RecipeShot): AnticipateNumbers {
  const frames = Math.max(2, Math.round((0.5 * fps) / exposure)) * exposure
  return {
    x: Math.round(width * 0.3),
    y: Math.round(height * 0.5),
    toX: Math.round(width * 0.7),
    toY: Math.round(height * 0.5),
    bow: Math.round(height * 0.06),
    frames,
    exposure,
    back: 0.15,
    backTime: 0.4,
    ease: 'both',
    past: 0.1,
    decay: Math.round((6 / fps) * 1000) / 1000,
    swing: Math.max(4 * exposure, Math.round(fps / 2 / exposure) * exposure),
    parts: 1,
    offset: exposure,
    radius: Math.max(1, Math.round(height * 0.09)),
    stretch: 0.25,
  }
}
