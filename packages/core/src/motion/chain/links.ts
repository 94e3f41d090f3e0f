import type { Point } from '../../geometry/point.ts'

/** The joints of a chain of links of one length (px) from its root on, by their angles from straight down (radians, to the right above 0). */
export function jointsOf(root: Point, lengthPx: number, anglesRad: readonly number[]): Point[] {
  const joints = [root]
  for (const angle of anglesRad) {
    const { x, y } = joints[joints.length - 1] as Point
    joints.push({ x: x + lengthPx * Math.sin(angle), y: y + lengthPx * Math.cos(angle) })
  }
  return joints
}

/** What is asked of a chain that follows by offset. */
export interface Offset {
  readonly links: number
  /** frames that each link comes after the one before it */
  readonly lag: number
  /** how much more each turns than the one before it */
  readonly growth: number
  /** turns add up along the chain; else each link has a turn of its own in the world */
  readonly relative: boolean
}

/**
 * Angles of the links on a frame when each does what the root did some frames before: link i turns from its rest by
 * `turn(frame − i·lag) · growthⁱ`, link 0 being the root's own. Radians; no link turns by more than half a turn.
 */
export function anglesByOffset(
  { links, lag, growth, relative }: Offset,
  restRad: number,
  turn: (frame: number) => number,
  frame: number,
): number[] {
  let sum = 0
  return Array.from({ length: links }, (_, i) => {
    const own = turn(frame - i * lag) * growth ** i
    sum += own
    return restRad + Math.max(-Math.PI, Math.min(Math.PI, relative ? sum : own))
  })
}
