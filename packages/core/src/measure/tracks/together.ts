import type { Onset } from './onset.ts'

/** Parts that arrive as one, and by how many frames each could come later. */
export interface Together {
  /** the frame around which they arrive */
  readonly frame: number
  /** ids of the parts, in the order of those given */
  readonly parts: readonly string[]
  /** of how many parts that move */
  readonly of: number
  /** frames by which each of them could arrive later, in the same order: what leads stays, each next one is a frame later, at most three */
  readonly later: readonly number[]
}

const FEWEST = 3
const WITHIN_FRAMES = 1
const SHARE = 0.75
const MOST_LATER = 3

/**
 * Whether most parts arrive on the same frame: at least three, and three in four of those that move, within a frame of one another; else null. `onsets` go from what
 * leads to what hangs on it: in that order they are staggered.
 */
export function arriveTogether(onsets: readonly Onset[]): Together | null {
  const moving = onsets.filter(onset => onset.stops !== null)
  if (moving.length < FEWEST) return null
  const groups = moving.map(({ stops }) => ({
    frame: stops as number,
    parts: moving.filter(other => Math.abs((other.stops as number) - (stops as number)) <= WITHIN_FRAMES),
  }))
  const { frame, parts } = groups.reduce((best, group) => (group.parts.length > best.parts.length ? group : best))
  if (parts.length < FEWEST || parts.length < SHARE * moving.length) return null
  return {
    frame,
    parts: parts.map(part => part.id),
    of: moving.length,
    later: parts.map((_, i) => Math.min(MOST_LATER, i)),
  }
}
