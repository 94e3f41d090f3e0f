import { shareOf, type Ratio } from '../chart/halves.ts'
import { knottedPath, placeAlong } from '../geometry/curve.ts'
import type { Point } from '../geometry/point.ts'
import type { Drawing, Mark, ShotDocument, Take } from '../document/model/model.ts'
import { followedMark } from '../document/model/followed.ts'
import { parentDrawing, plannedPlace } from '../document/model/queue.ts'
import { chartBetween, exposures, marksOf } from '../document/model/selectors.ts'

/** A place of one mark on a drawing that exists, in the order of time. */
export interface MarkedPlace {
  readonly drawing: string
  readonly at: Point
}

/**
 * Where a mark belongs on the next drawing: at the ratio of the arc between its two parents, along the smooth path through
 * all drawings on which the mark is placed, and not only on the straight line between the two. `way` are these places in
 * the order of time. Past the second parent (overshoot) the path goes straight on. Null while a parent has no place.
 */
export function crossOf(way: readonly MarkedPlace[], left: string, right: string, ratio: Ratio): Point | null {
  const from = way.findIndex(place => place.drawing === left)
  const to = way.findIndex(place => place.drawing === right)
  if (from < 0 || to < 0) return null
  const share = shareOf(ratio)
  // What comes after the later parent has no say in how a movement swings past it.
  const seen = share > 1 ? way.slice(0, to + 1) : way
  const { path, knots } = knottedPath(seen.map(place => place.at))
  const [a, b] = [knots[from] as number, knots[to] as number]
  return placeAlong(path, a + (b - a) * share)
}

/** Where a mark belongs on a drawing, in pixels of its layer. */
export interface Cross {
  readonly mark: Mark
  readonly at: Point
}

/**
 * Where the marks of its layer belong on a drawing that has a place on a chart: by its place there, or on the chart of the mark
 * itself, and the path of the mark through all other drawings. Marks without places on both parents are left out.
 */
export function crossesOn(document: ShotDocument, take: Take, drawing: Drawing): Cross[] {
  const place = plannedPlace(document, take, drawing)
  if (!place) return []
  const shown = exposures(take, drawing.layer)
  const first = shown.filter((run, i) => shown.findIndex(other => other.drawing === run.drawing) === i)
  const others = first.filter(run => run.drawing !== drawing.id)
  const points = marksOf(document, drawing.layer).filter(mark => mark.kind === 'point')
  return points.flatMap((mark): Cross[] => {
    const chart = chartBetween(document, place.chart.from, place.chart.to, mark.id) ?? place.chart
    const tick = chart.ticks.find(one => one.drawing === drawing.id)
    if (!tick) return []
    const way = followedMark(document, others, mark.id).flatMap(({ drawing: id, at }): MarkedPlace[] =>
      at ? [{ drawing: id, at }] : [],
    )
    const [left, right] = [tick.left, tick.right].map(parent => parentDrawing(document, chart, parent)?.id ?? '')
    const at = crossOf(way, left as string, right as string, tick.ratio)
    return at ? [{ mark, at }] : []
  })
}
