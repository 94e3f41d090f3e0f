import { distance, type Point } from '../geometry/point.ts'
import type { LoopRange } from '../time/loop.ts'

/** An exposure, and where what is followed lies on its drawing; null where that is not known. */
export interface FollowedStep {
  readonly drawing: string
  /** frame it starts on, from 0 */
  readonly start: number
  readonly at: Point | null
}

/** How far something moves from one exposure to the next. */
export interface Moved {
  readonly from: string
  readonly to: string
  /** frames from the start of the one to the start of the other */
  readonly frames: number
  /** paper pixels altogether, and a frame; null where one of the places is not known */
  readonly px: number | null
  readonly pxPerFrame: number | null
}

/**
 * How far something moves over exposures in the order of time; with a loop that all of them lie in, from the last to the first too.
 * Holds of one drawing are one step.
 */
export function movedSteps(exposures: readonly FollowedStep[], loop: LoopRange | null): Moved[] {
  const steps = exposures.filter((step, i) => i === 0 || step.drawing !== exposures[i - 1]?.drawing)
  const pairs = steps.slice(1).map((step, i) => [steps[i] as FollowedStep, step] as const)
  const [first, last] = [steps[0], steps[steps.length - 1]]
  if (loop && first && last && first !== last && first.drawing !== last.drawing) {
    pairs.push([last, { ...first, start: first.start + loop.to - loop.from }])
  }
  return pairs.map(([a, b]): Moved => {
    const frames = b.start - a.start
    const px = a.at && b.at ? distance(a.at, b.at) : null
    return { from: a.drawing, to: b.drawing, frames, px, pxPerFrame: px === null ? null : px / frames }
  })
}
