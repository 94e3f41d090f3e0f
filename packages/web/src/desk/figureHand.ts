import { ellipseLine, snappedTo, straightLine, type Point, type Sample } from '@unhurried/core/geometry'
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

interface Drag {
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

function freeRound({ from, to, even, fromMiddle }: Drag): Figure | null {
  let [w, h] = [to.x - from.x, to.y - from.y]
  if (even) {
    const side = Math.max(Math.abs(w), Math.abs(h))
    ;[w, h] = [side * (Math.sign(w) || 1), side * (Math.sign(h) || 1)]
  }
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
  const pulled = Math.hypot(end.x - from.x, end.y - from.y)
  if (pulled < LEAST_PX) return null
  const kept = keeps === 'area' ? stretchKeepingArea : stretchKeepingVolume
  const { along, across } = kept(radius, pulled / radius)
  const turnRad = Math.atan2(end.y - from.y, end.x - from.x)
  const said = `${factor(along / radius)} along, ${factor(across / radius)} across · ${keeps} kept`
  return { samples: ellipseLine({ centre: from, along, across, turnRad }), said, radius }
}
