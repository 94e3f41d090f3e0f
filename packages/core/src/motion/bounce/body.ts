import type { Point } from '../../geometry/point.ts'
import { stretchKeepingArea, stretchKeepingVolume } from '../squash.ts'
import type { BounceNumbers } from './numbers.ts'

/** A body squashed or stretched: half-axes in pixels, the first turned by `tiltRad` from the horizontal. */
export interface Body {
  readonly centre: Point
  readonly along: number
  readonly across: number
  readonly tiltRad: number
}

type Shaped = Omit<Body, 'centre'>

/** Half the height of a turned ellipse: √(a² sin² + b² cos²). */
export const halfHeightOf = ({ along, across, tiltRad }: Shaped): number =>
  Math.hypot(along * Math.sin(tiltRad), across * Math.cos(tiltRad))

/** So often is the interval halved in which the greatest stretch lies: to the last bit. */
const HALVINGS = 60

/**
 * A body stretched by `s` along a direction, its area or volume kept by its school. With `room`, pixels from its centre to
 * the ground, only as far as it stays above.
 */
export function bodyOf(
  { radius, school }: Pick<BounceNumbers, 'radius' | 'school'>,
  s: number,
  tiltRad: number,
  room = Infinity,
): Shaped {
  const stretched = school === 'flat' ? stretchKeepingArea : stretchKeepingVolume
  const shaped = (by: number): Shaped => ({ ...stretched(radius, by), tiltRad })
  const wished = shaped(s)
  if (halfHeightOf(wished) <= room) return wished
  // The height is convex in the stretch and fits at 1: there is one place from which on it is too high.
  let [fits, not] = [1, s]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (fits + not) / 2
    if (halfHeightOf(shaped(middle)) <= room) fits = middle
    else not = middle
  }
  return shaped(fits)
}
