import { EMPTY_BOX, grown, unite, type Box, type Point } from '@unhurried/core/geometry'
import { figureOf, type ConstructionSink, type Plan, type RecipeName } from '@unhurried/core/motion'

/** The box round everything that a plan shows on any of its drawings, in paper pixels. */
export function planBox(recipe: RecipeName, plan: Plan<unknown>): Box {
  let box = EMPTY_BOX
  const round = (p: Point, by = 0): void => {
    box = unite(box, grown({ left: p.x, top: p.y, right: p.x, bottom: p.y }, by))
  }
  const sink: ConstructionSink = {
    ellipse: (_, at, along, across) => round(at, Math.max(along, across)),
    bend: (_, from, control, to) => [from, control, to].forEach(p => round(p)),
    line: (_, from, to) => [from, to].forEach(p => round(p)),
    path: (_, points) => points.forEach(p => round(p)),
    arrow: () => undefined,
  }
  for (const { frame } of plan.drawings) figureOf(recipe, plan, frame, sink)
  return box
}
