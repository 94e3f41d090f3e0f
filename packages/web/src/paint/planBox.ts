import { EMPTY_BOX, grown, IDENTITY, map, unite, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import { figureOf, type ConstructionSink, type Plan, type RecipeName } from '@unhurried/core/motion'
import { matrixOn } from '@unhurried/core/path'

/** The box round everything that a plan shows on any of its drawings where its layer lies then, in paper pixels. */
export function planBox(recipe: RecipeName, plan: Plan<unknown>): Box {
  let box = EMPTY_BOX
  let lies: Matrix = IDENTITY
  const round = (at: Point, by = 0): void => {
    const p = map(lies, at)
    box = unite(box, grown({ left: p.x, top: p.y, right: p.x, bottom: p.y }, by))
  }
  const sink: ConstructionSink = {
    ellipse: (_, at, along, across) => round(at, Math.max(along, across)),
    bend: (_, from, control, to) => [from, control, to].forEach(p => round(p)),
    line: (_, from, to) => [from, to].forEach(p => round(p)),
    path: (_, points) => points.forEach(p => round(p)),
    arrow: () => undefined,
  }
  const { path } = plan
  for (const { frame } of plan.drawings) {
    // A strip that is laid down again and again is seen as long as it is.
    if (path && path.closes === null) lies = matrixOn(path, frame)
    figureOf(recipe, plan, frame, sink)
  }
  return box
}
