import { distance, rotation, scaling, translation, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import type { Change } from './gathered.ts'

export type BoxHandle = 'move' | 'scale' | 'turn' | 'skew'

/** A handle of a box dragged on the paper. */
export interface BoxDrag {
  readonly handle: BoxHandle
  readonly from: Point
  readonly to: Point
  /** the corner that stays while the one across is pulled */
  readonly corner: Point
  /** 0 top, 1 right, 2 bottom, 3 left: the side that moves along itself */
  readonly side: number
  /** what a turn goes about */
  readonly about: Point
  /** width and height are scaled apart */
  readonly free: boolean
}

interface Moved {
  readonly change: Change
  /** the measure, to be read beside the pointer */
  readonly said: string
}

const LEAST_SCALE = 0.02
const degrees = (rad: number) => `${((rad * 180) / Math.PI).toFixed(1)}°`
const angleFrom = (centre: Point, p: Point) => Math.atan2(p.y - centre.y, p.x - centre.x)
/** The smaller way round from one direction to another. */
const turnBetween = (a: number, b: number) => Math.atan2(Math.sin(b - a), Math.cos(b - a))
const mapped = (by: Matrix, said: string): Moved => ({ change: { kind: 'map', by }, said })

/** What a drag of a handle does to everything in the box. */
export function movedBox(box: Box, drag: BoxDrag): Moved {
  const { handle, from, to, about } = drag
  if (handle === 'skew') return skewed(box, drag)
  if (handle === 'scale') return scaled(drag)
  if (handle === 'move') {
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    return mapped(translation(dx, dy), `${dx.toFixed(0)}, ${dy.toFixed(0)} px`)
  }
  const angle = turnBetween(angleFrom(about, from), angleFrom(about, to))
  return mapped(rotation(angle, about), degrees(angle))
}

/** Bends what is in the box about a root (its foot when there is none), so that its head follows the pointer. */
export function bentBox({ left, right, top, bottom }: Box, pivot: Point | null, from: Point, to: Point): Moved {
  const middle = (left + right) / 2
  const root = pivot ?? { x: middle, y: bottom }
  const angleRad = turnBetween(angleFrom(root, from), angleFrom(root, to))
  return { change: { kind: 'bend', root, tip: { x: middle, y: top }, angleRad }, said: `bent ${degrees(angleRad)}` }
}

function scaled({ from, to, corner, free }: BoxDrag): Moved {
  const share = (axis: 'x' | 'y') => {
    const span = from[axis] - corner[axis]
    const s = Math.abs(span) < 1 ? 1 : (to[axis] - corner[axis]) / span
    return Math.abs(s) < LEAST_SCALE ? LEAST_SCALE : s
  }
  const reach = (p: Point) => distance(corner, p)
  const even = Math.max(LEAST_SCALE, reach(to) / (reach(from) || 1))
  const [kx, ky] = free ? [share('x'), share('y')] : [even, even]
  return mapped(scaling(kx, ky, corner), `${(kx * 100).toFixed(0)} × ${(ky * 100).toFixed(0)} %`)
}

/** The side moves along itself, the side across stays. */
function skewed({ left, top, right, bottom }: Box, { from, to, side }: BoxDrag): Moved {
  if (side % 2 === 0) {
    const [fixed, span] = side === 0 ? [bottom, top - bottom] : [top, bottom - top]
    const k = (to.x - from.x) / (span || 1)
    return mapped([1, 0, k, 1, -k * fixed, 0], `skewed ${degrees(Math.atan(-k))}`)
  }
  const [fixed, span] = side === 1 ? [left, right - left] : [right, left - right]
  const k = (to.y - from.y) / (span || 1)
  return mapped([1, k, 0, 1, 0, -k * fixed], `skewed ${degrees(Math.atan(k))}`)
}
