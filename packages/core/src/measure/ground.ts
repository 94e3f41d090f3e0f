import { pathOf, placeOnLayer, placeSeen } from '../document/model/carried.ts'
import { guidePlan, guidesOf } from '../document/model/guides.ts'
import type { ShotDocument, Take } from '../document/model/model.ts'
import { layersInOrder } from '../document/model/selectors.ts'
import type { Point } from '../geometry/point.ts'
import { placeOn } from '../path/path.ts'

/** How far the ground under a layer has passed by a frame, px to the right, from where it was on frame 0. */
export type Passing = (frame: number) => number

/**
 * How the ground passes under a layer: as the lowest layer does whose path says that it is the ground; else by the guides of the
 * take that walk on the spot there, each by its own px a frame while it lasts, and on to the end where it loops.
 */
export function groundUnder(document: ShotDocument, take: Take, layer: string): Passing {
  for (const { id } of layersInOrder(document)) {
    const path = pathOf(document, take, id)
    if (path?.use === 'ground') return frame => placeOn(path, frame).x - placeOn(path, 0).x
  }
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

/**
 * Where a place on a drawing belongs on another one if it stands still on the ground: set down on frame `set`, looked at on frame
 * `now`, `round` frames more of a loop gone by since. Places in pixels of the drawings, frames from 0.
 */
export type Standing = (at: Point, set: number, now: number, round?: number) => Point

/** How what stands on a layer is carried along: by the ground that passes, and by the way of the layer itself. */
export function standingOn(document: ShotDocument, take: Take, layer: string): Standing {
  const ground = groundUnder(document, take, layer)
  return (at, set, now, round = 0) => {
    const seen = placeSeen(document, take, layer, set, at)
    const passed = ground(now + round) - ground(set)
    return placeOnLayer(document, take, layer, now, { x: seen.x + passed, y: seen.y })
  }
}
