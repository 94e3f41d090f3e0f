import type { Box } from '../geometry/point.ts'
import type { Window } from './polygon.ts'
import { eachRun, type Mask } from './silhouette.ts'

/** Where a body lies, in coarse square cells, row by row: enough to tell how much of it lies in a part of the picture, wherever it is carried. Paper pixels. */
export interface Coverage {
  /** the top left corner of the first cell */
  readonly left: number
  readonly top: number
  readonly cellPx: number
  readonly across: number
  readonly down: number
  /** how much of each cell is body, 0–255 */
  readonly cells: Uint8Array
  /** just around all of it */
  readonly box: Box
}

/** Cells along the longer side: a share is known to a thousandth. */
const CELLS = 64

/** Where a mask's body lies; null where it has none. */
export function coverageOf(mask: Mask, { left, top, scale }: Window): Coverage | null {
  const { width, height } = mask
  const size = Math.max(1, Math.ceil(Math.max(width, height) / CELLS))
  const [across, down] = [Math.ceil(width / size), Math.ceil(height / size)]
  const counts = new Uint32Array(across * down)
  let [x0, x1, y0, y1] = [width, 0, height, 0]
  eachRun(mask, (y, from, to) => {
    x0 = Math.min(x0, from)
    x1 = Math.max(x1, to)
    y0 = Math.min(y0, y)
    y1 = y + 1
    const cells = Math.floor(y / size) * across
    for (let x = from; x < to;) {
      const cell = Math.floor(x / size)
      const until = Math.min(to, (cell + 1) * size)
      counts[cells + cell] = (counts[cells + cell] as number) + until - x
      x = until
    }
  })
  if (x1 === 0) return null
  const at = (from: number, px: number) => from + px / scale
  return {
    ...{ left, top, cellPx: size / scale, across, down },
    cells: Uint8Array.from(counts, count => Math.ceil((255 * count) / size ** 2)),
    box: { left: at(left, x0), top: at(top, y0), right: at(left, x1), bottom: at(top, y1) },
  }
}

/** What one body covers of the cells of another, and of so many around them: 0–255, row by row. */
export function cellsUnder(one: Coverage, other: Coverage, around = 0): Uint8Array {
  const [across, down] = [one.across + 2 * around, one.down + 2 * around]
  const found = new Uint8Array(across * down)
  const by = one.cellPx / other.cellPx
  const left = (one.left - other.left) / other.cellPx + (0.5 - around) * by
  const top = (one.top - other.top) / other.cellPx + (0.5 - around) * by
  for (let y = 0; y < down; y++) {
    const row = Math.floor(top + y * by)
    if (row < 0 || row >= other.down) continue
    for (let x = 0; x < across; x++) {
      const column = Math.floor(left + x * by)
      if (column >= 0 && column < other.across) {
        found[y * across + x] = other.cells[row * other.across + column] as number
      }
    }
  }
  return found
}

/** How much of what either of two bodies covers only one of them does, where they lie: 0 for the same, 1 where they do not meet. Known to about a hundredth. */
export function differenceOf(one: Coverage, other: Coverage): number {
  const under = cellsUnder(one, other)
  let [both, own, others] = [0, 0, 0]
  for (let i = 0; i < under.length; i++) {
    const filled = one.cells[i] as number
    own += filled
    both += Math.min(filled, under[i] as number)
  }
  for (let i = 0; i < other.cells.length; i++) others += other.cells[i] as number
  // All in pixels of the paper, as the cells of the two are not as large.
  const [size, otherSize] = [one.cellPx ** 2, other.cellPx ** 2]
  const all = own * size + others * otherSize
  return all === 0 ? 0 : 1 - (both * size) / (all - both * size)
}
