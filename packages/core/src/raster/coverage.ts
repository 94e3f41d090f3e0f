import type { Box } from '../geometry/point.ts'
import type { Window } from './polygon.ts'
import type { Mask } from './silhouette.ts'

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
export function coverageOf({ width, height, inside }: Mask, { left, top, scale }: Window): Coverage | null {
  const size = Math.max(1, Math.ceil(Math.max(width, height) / CELLS))
  const [across, down] = [Math.ceil(width / size), Math.ceil(height / size)]
  const counts = new Uint32Array(across * down)
  let [x0, x1, y0, y1] = [width, 0, height, 0]
  // Run by run, as the moments are summed.
  for (let i = inside.indexOf(1); i >= 0;) {
    const y = Math.floor(i / width)
    const row = y * width
    const gap = inside.indexOf(0, i)
    const end = gap < 0 || gap > row + width ? row + width : gap
    const [from, to] = [i - row, end - row]
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
    i = inside.indexOf(1, end)
  }
  if (x1 === 0) return null
  const at = (from: number, px: number) => from + px / scale
  return {
    ...{ left, top, cellPx: size / scale, across, down },
    cells: Uint8Array.from(counts, count => Math.ceil((255 * count) / size ** 2)),
    box: { left: at(left, x0), top: at(top, y0), right: at(left, x1), bottom: at(top, y1) },
  }
}

/** How much of what either of two bodies covers only one of them does, where they lie: 0 for the same, 1 where they do not meet. Known to about a hundredth. */
export function differenceOf(one: Coverage, other: Coverage): number {
  let [both, all] = [0, 0]
  const size = one.cellPx ** 2
  for (let i = 0; i < one.cells.length; i++) {
    const filled = one.cells[i] as number
    if (filled === 0) continue
    all += filled * size
    const x = one.left + ((i % one.across) + 0.5) * one.cellPx
    const y = one.top + (Math.floor(i / one.across) + 0.5) * one.cellPx
    both += Math.min(filled, filledAt(other, x, y)) * size
  }
  for (const filled of other.cells) all += filled * other.cellPx ** 2
  return all === 0 ? 0 : 1 - both / (all - both)
}

/** How much of the cell at a place is body, 0–255. */
export function filledAt({ left, top, cellPx, across, down, cells }: Coverage, x: number, y: number): number {
  const [column, row] = [Math.floor((x - left) / cellPx), Math.floor((y - top) / cellPx)]
  return column >= 0 && column < across && row >= 0 && row < down ? (cells[row * across + column] as number) : 0
}
