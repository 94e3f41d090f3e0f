import type { FlashGrid } from './cells.ts'

/** A block of a grid, and how many of its cells are of a set; in cells. */
export interface Block {
  readonly left: number
  readonly top: number
  readonly cells: number
}

/**
 * The block with the most cells of a set (1 in, 0 not), the first of several. By sums over all that lies above and left of each corner (summed-area table: F. C. Crow,
 * 1984): two passes over the grid, however large a block is.
 */
export function fullestBlock(set: Uint8Array, { across, down, blockAcross, blockDown }: FlashGrid): Block {
  const wide = across + 1
  const sums = new Int32Array(wide * (down + 1))
  for (let y = 0; y < down; y++) {
    let row = 0
    for (let x = 0; x < across; x++) {
      row += set[y * across + x] as number
      sums[(y + 1) * wide + x + 1] = (sums[y * wide + x + 1] as number) + row
    }
  }
  let best: Block = { left: 0, top: 0, cells: -1 }
  for (let top = 0; top + blockDown <= down; top++) {
    const [upper, lower] = [top * wide, (top + blockDown) * wide]
    for (let left = 0; left + blockAcross <= across; left++) {
      const right = left + blockAcross
      const cells =
        (sums[lower + right] as number) -
        (sums[lower + left] as number) -
        (sums[upper + right] as number) +
        (sums[upper + left] as number)
      if (cells > best.cells) best = { left, top, cells }
    }
  }
  return best
}
