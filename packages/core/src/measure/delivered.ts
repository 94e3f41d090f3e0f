import type { Box } from '../geometry/point.ts'
import type { LoopRange } from '../time/loop.ts'
import {
  flashMeter,
  framesToJudge,
  type Cells,
  type EdgeReading,
  type FlashGrid,
  type FlashKind,
} from '../raster/index.ts'

/** A stretch of frames in which a film flashes, or nearly does. */
export interface FlashingSeen {
  readonly kind: FlashKind
  /** frames from 0: the first, and up to but not with the last */
  readonly from: number
  readonly to: number
  /** the most opposite changes within a second */
  readonly changes: number
  /** where, as shares of the picture's width and height, 0–1 */
  readonly within: Box
  /** how much of a block of ten degrees changes together, 0–1 */
  readonly share: number
}

/** What flashes in the frames as they are delivered. */
export interface Flashing {
  readonly flashing: readonly FlashingSeen[]
  /** by frame, the largest share of a block that becomes lighter, or darker, there: 0–1 */
  readonly shares: readonly number[]
}

/** What was measured on the frames as they are delivered. */
export interface Delivered extends Flashing {
  /** how a figure stands out from its ground where it does so least, by the id of its drawing. Where it has an outline in the picture */
  readonly edges: ReadonlyMap<string, EdgeSeen>
}

/** How a figure stands out on a frame (from 0); `at` as shares of the picture's width and height. */
export interface EdgeSeen extends EdgeReading {
  readonly frame: number
}

/**
 * What flashes in a film: a picture's number for every frame, and the light of each of these. What is gone round is gone round several times, as the eye does; what comes
 * before and behind it comes once. `fps`: frames a second.
 */
export function deliveredFrames(
  frames: readonly number[],
  pictures: readonly Cells[],
  grid: FlashGrid,
  fps: number,
  loop: LoopRange | null,
): Flashing {
  const meter = flashMeter(grid, fps)
  const seen = asGoneRound(frames.length, loop, fps)
  for (const [i, frame] of seen.entries()) {
    const number = frames[frame]
    const cells = number === undefined ? undefined : pictures[number]
    if (cells && number !== frames[seen[i - 1] ?? -1]) meter.add(cells, i)
  }
  const { flashing, shares } = meter.end(seen.length)
  const most = frames.map(() => 0)
  for (const [i, frame] of seen.entries()) most[frame] = Math.max(most[frame] ?? 0, shares[i] ?? 0)
  return {
    shares: most,
    flashing: flashing.map(({ kind, first, last, changes, block }): FlashingSeen => {
      const [from, to] = [seen[first] ?? 0, seen[last] ?? 0]
      // Where it goes on over the seam, it is the whole loop that flashes.
      const isOver = loop && (to < from || last - first >= loop.to - loop.from)
      return {
        kind,
        from: isOver ? loop.from : from,
        to: isOver ? loop.to : to + 1,
        changes,
        within: {
          left: block.left / grid.across,
          top: block.top / grid.down,
          right: (block.left + grid.blockAcross) / grid.across,
          bottom: (block.top + grid.blockDown) / grid.down,
        },
        share: block.cells / (4 * grid.enough),
      }
    }),
  }
}

/** The frames in the order in which they are seen. */
function asGoneRound(frames: number, loop: LoopRange | null, fps: number): number[] {
  const from = (start: number, end: number) => Array.from({ length: Math.max(0, end - start) }, (_, i) => start + i)
  if (!loop) return from(0, frames)
  const one = from(loop.from, loop.to)
  const round = Array.from({ length: framesToJudge(one.length, fps) }, (_, i) => one[i % one.length] as number)
  return [...from(0, loop.from), ...round, ...from(loop.to, frames)]
}
