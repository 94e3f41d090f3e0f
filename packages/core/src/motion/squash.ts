import { needPositive } from '../errors.ts'

/** Half axes of a body squashed or stretched by a factor. */
export interface Axes {
  readonly along: number
  readonly across: number
}

/**
 * A flat shape of radius `r` stretched by `s` along its travel (below 1: squashed) with its *area* kept:
 * r·s along and r/s across. Throws when r or s is not above zero.
 */
export function stretchKeepingArea(r: number, s: number): Axes {
  needPositive(r, 'radius')
  needPositive(s, 'stretch')
  return { along: r * s, across: r / s }
}

/**
 * A round body of radius `r` stretched by `s` along its travel with its *volume* kept, as if it were as deep as it is
 * wide: r·s along, r/√s across (4/3·π·a·b² stays). Throws when r or s is not above zero.
 */
export function stretchKeepingVolume(r: number, s: number): Axes {
  needPositive(r, 'radius')
  needPositive(s, 'stretch')
  return { along: r * s, across: r / Math.sqrt(s) }
}
