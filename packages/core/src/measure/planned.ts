import { distance, type Point } from '../geometry/point.ts'
import type { Guide } from '../document/model/model.ts'
import { shownOn, type ExpectedBody, type Plan } from '../motion/recipe.ts'
import type { Moments } from '../raster/moments.ts'

/** A drawing held against what a guide plans for it. Lengths in paper pixels, radians. */
export interface PlannedReading {
  /** drawn area over the planned one */
  readonly areaShare: number
  /** how many times longer than a circle of its area it is: along the long axis, as planned and as drawn */
  readonly stretch: { readonly planned: number; readonly drawn: number }
  /** by how much the long axis is turned from the planned one, (−π/2, π/2]; null where either is nearly round */
  readonly turnedRad: number | null
  /** how far the middle lies from where it is planned; null where the plan has no place for it */
  readonly off: { readonly px: number; readonly from: Point; readonly to: Point } | null
}

/** Below this stretch the direction of the long axis says nothing. */
const NEARLY_ROUND = 1.04

/** Stretch of an ellipse: its long half axis over the radius of the circle of its area, √(a/b). */
export const stretchOf = ([a, b]: readonly [number, number]): number => Math.sqrt(Math.max(a, b) / Math.min(a, b))

/** A turn as the smallest there is between two axes, which have no front: (−π/2, π/2]. */
function axisTurn(rad: number): number {
  const turn = rad - Math.PI * Math.round(rad / Math.PI)
  return turn <= -Math.PI / 2 ? turn + Math.PI : turn
}

/**
 * Holds a silhouette against what a drawing is planned to measure. `middle` is the plan's mark for the middle of the body.
 * Null when nothing is drawn.
 */
export function heldAgainst(planned: ExpectedBody, drawn: Moments, middle: Point | null): PlannedReading | null {
  if (!(drawn.area > 0) || !drawn.centroid || !(drawn.halfAxes[1] > 0)) return null
  const stretch = { planned: stretchOf(planned.axes), drawn: stretchOf(drawn.halfAxes) }
  const [along, across] = planned.axes
  // The tilt of a plan is that of its stretch, which may be a squash.
  const longRad = along >= across ? planned.tiltRad : planned.tiltRad + Math.PI / 2
  const round = Math.min(stretch.planned, stretch.drawn) < NEARLY_ROUND
  return {
    areaShare: drawn.area / planned.area,
    stretch,
    turnedRad: round ? null : axisTurn(drawn.tiltRad - longRad),
    off: middle && { px: distance(middle, drawn.centroid), from: drawn.centroid, to: middle },
  }
}

/**
 * Which drawing of a plan one on the sheet is: the one it was laid for, wherever it is exposed, or else what the plan shows on that frame of the take. Null where it shows
 * nothing.
 */
export function nthPlanned(guide: Guide, plan: Plan<unknown>, drawing: string, frame: number): number | null {
  const laid = guide.laid.drawings.indexOf(drawing)
  if (laid >= 0 && laid < plan.drawings.length) return laid
  const since = frame - guide.from
  const within = plan.loops && since >= 0 ? since % plan.frames : since
  return within >= 0 && within < plan.frames ? shownOn(plan, within) : null
}
