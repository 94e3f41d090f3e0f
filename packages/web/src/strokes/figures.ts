import {
  distance,
  ellipseLine,
  rectangleLine,
  snappedTo,
  straightLine,
  type Point,
  type Sample,
} from '@unhurried/core/geometry'
import { stretchKeepingArea, stretchKeepingVolume } from '@unhurried/core/motion'

/** How a round is pulled: freely, or as a body that keeps its area or its volume while it is squashed and stretched. */
export const KEEPS = ['free', 'area', 'volume'] as const
export type Keeps = (typeof KEEPS)[number]

export interface RoundSettings {
  readonly keeps: Keeps
  /** of the body at rest, in paper pixels */
  readonly radius: number
  /** a painted shape instead of a line */
  readonly painted: boolean
}

/** What a drag would draw by now, and its measure in words. */
export interface Figure {
  readonly samples: readonly Sample[]
  readonly said: string
  /** radius of a circle of the same area, when it is a round */
  readonly radius: number | null
}

export interface Drag {
  readonly from: Point
  readonly to: Point
  /** Shift: even directions, true circles. Alt: from the middle. */
  readonly even: boolean
  readonly fromMiddle: boolean
}

const STEP_RAD = Math.PI / 12
const LEAST_PX = 0.5
const degrees = (rad: number) => Math.round((((rad * 180) / Math.PI) % 360) * 10) / 10
const factor = (n: number) => `× ${n.toFixed(2)}`

export function straightFigure({ from, to, even, fromMiddle }: Drag): Figure {
  const end = even ? snappedTo(from, to, STEP_RAD) : to
  const start = fromMiddle ? { x: 2 * from.x - end.x, y: 2 * from.y - end.y } : from
  const [dx, dy] = [end.x - start.x, end.y - start.y]
  // As seen: rising to the right is a positive angle.
  const said = `${Math.hypot(dx, dy).toFixed(0)} px · ${degrees(Math.atan2(-dy, dx))}°`
  return { samples: straightLine(start, end), said, radius: null }
}

/** Null while the drag is too small to be a round. */
export function roundFigure(drag: Drag, round: RoundSettings): Figure | null {
  return round.keeps === 'free' ? freeRound(drag) : keptRound(drag, round)
}

/** How far a drag reaches in width and height; evenly, as far in both. */
function reachOf({ from, to, even }: Drag): [number, number] {
  const [w, h] = [to.x - from.x, to.y - from.y]
  if (!even) return [w, h]
  const side = Math.max(Math.abs(w), Math.abs(h))
  return [side * (Math.sign(w) || 1), side * (Math.sign(h) || 1)]
}

/** A rectangle; null while the drag is too small to be one. */
export function boxFigure(drag: Drag): Figure | null {
  const [w, h] = reachOf(drag)
  const { from, fromMiddle, even } = drag
  const [a, b] = [fromMiddle ? { x: from.x - w, y: from.y - h } : from, { x: from.x + w, y: from.y + h }]
  const [width, height] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)]
  if (Math.min(width, height) < LEAST_PX) return null
  const said = even ? `square, ${width.toFixed(0)} px` : `${width.toFixed(0)} × ${height.toFixed(0)} px`
  return { samples: rectangleLine(a, b), said, radius: null }
}

function freeRound(drag: Drag): Figure | null {
  const { from, even, fromMiddle } = drag
  const [w, h] = reachOf(drag)
  const [along, across] = fromMiddle ? [Math.abs(w), Math.abs(h)] : [Math.abs(w) / 2, Math.abs(h) / 2]
  if (Math.min(along, across) < LEAST_PX) return null
  const centre = fromMiddle ? from : { x: from.x + w / 2, y: from.y + h / 2 }
  const said = even
    ? `circle, radius ${along.toFixed(0)} px`
    : `${(2 * along).toFixed(0)} × ${(2 * across).toFixed(0)} px`
  const radius = Math.sqrt(along * across)
  return { samples: ellipseLine({ centre, along, across, turnRad: 0 }), said, radius }
}

/** Pressed at its middle and pulled: the way of the pull is the way of the stretch. */
function keptRound({ from, to, even }: Drag, { keeps, radius }: RoundSettings): Figure | null {
  const end = even ? snappedTo(from, to, STEP_RAD) : to
  const pulled = distance(from, end)
  if (pulled < LEAST_PX) return null
  const kept = keeps === 'area' ? stretchKeepingArea : stretchKeepingVolume
  const { along, across } = kept(radius, pulled / radius)
  const turnRad = Math.atan2(end.y - from.y, end.x - from.x)
  const said = `${factor(along / radius)} along, ${factor(across / radius)} across · ${keeps} kept`
  return { samples: ellipseLine({ centre: from, along, across, turnRad }), said, radius }
}
