import type { FollowedStep } from '../document/model/followed.ts'
import { distance } from '../geometry/point.ts'
import type { LoopRange } from '../time/loop.ts'

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

/**
 * Of several things that could be followed over the same exposures, the one to be told of: known on most drawings; of equal ones the
 * first that moves at all. Undefined of none.
 */
export function mostTelling<W extends { readonly steps: readonly FollowedStep[] }>(
  ways: readonly W[],
  loop: LoopRange | null,
): W | undefined {
  const told = ways.map(way => ({
    way,
    known: way.steps.filter(step => step.at).length,
    moves: movedSteps(way.steps, loop).some(step => (step.px ?? 0) > 0),
  }))
  const known = Math.max(0, ...told.map(one => one.known))
  const best = told.filter(one => one.known === known)
  return (best.find(one => one.moves) ?? best[0])?.way
}
