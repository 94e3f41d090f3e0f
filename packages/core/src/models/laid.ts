import type { Matrix } from '../geometry/matrix.ts'
import { distance, type Point } from '../geometry/point.ts'
import type { ModelView } from './model.ts'

/** A height of a model on something that its two points lie on: a line across, through the place at that share of the way. */
export function heightLine(
  low: Point,
  high: Point,
  share: number,
  halfPx: number,
): readonly [from: Point, to: Point] | null {
  const all = distance(low, high)
  if (!(all > 0)) return null
  const [x, y] = [low.x + share * (high.x - low.x), low.y + share * (high.y - low.y)]
  const [dx, dy] = [(-(high.y - low.y) / all) * halfPx, ((high.x - low.x) / all) * halfPx]
  return [
    { x: x - dx, y: y - dy },
    { x: x + dx, y: y + dy },
  ]
}

/** How high a place lies on a side of a model: 0 at its low point, 1 at its high one. */
export function shareOf({ low, high }: Pick<ModelView, 'low' | 'high'>, { x, y }: Point): number {
  const [dx, dy] = [high.x - low.x, high.y - low.y]
  return ((x - low.x) * dx + (y - low.y) * dy) / (dx * dx + dy * dy)
}

/** A matrix that shows a box of so many pixels in a room, as large as it goes, in its middle. */
export function fitted(
  widthPx: number,
  heightPx: number,
  room: { readonly width: number; readonly height: number },
): Matrix {
  const scale = Math.min(room.width / widthPx, room.height / heightPx)
  return [scale, 0, 0, scale, (room.width - widthPx * scale) / 2, (room.height - heightPx * scale) / 2]
}
