import { guidePlan, guidesOf } from '../document/model/guides.ts'
import type { ShotDocument, Take } from '../document/model/model.ts'

/** How far the ground under a layer has passed by a frame, px to the right, from where it was on frame 0. */
export type Passing = (frame: number) => number

/**
 * How the ground passes under a layer, by the guides of the take that walk on the spot there: each by its own px a frame while
 * it lasts, and on to the end where it loops.
 */
export function groundUnder(document: ShotDocument, take: Take, layer: string): Passing {
  const passing = guidesOf(document, take.id)
    .filter(guide => guide.layer === layer)
    .map(guide => ({ from: guide.from, plan: guidePlan(document, guide) }))
    .filter(({ plan }) => plan.ground !== 0)
  return frame =>
    passing.reduce((sum, { from, plan }) => {
      const under = Math.max(0, frame - from)
      return sum + plan.ground * (plan.loops ? under : Math.min(under, plan.frames))
    }, 0)
}
