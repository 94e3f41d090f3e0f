import { UsageError } from '../errors.ts'

/** A drawing as black and white: one byte a pixel, 1 inside, row by row from the top left. */
export interface Mask {
  readonly width: number
  readonly height: number
  readonly inside: Uint8Array
}

/** Paint at least this opaque (0–255) counts as line; the soft edge of a line does not make a drawing bigger. */
export const LINE_ALPHA = 96

/**
 * The silhouette of a drawing from the alpha of its pixels (one byte each): everything that the outside, coming in from
 * the edges of the paper, cannot reach without crossing a line. An unfilled outline counts as its whole shape; a gap lets
 * the outside in. The outside moves in four directions, so a diagonal line of single pixels holds. From pixels named in
 * `spaces` it comes in too: enclosed empty space. Throws a UsageError when the bytes are not as many as the pixels.
 */
export function silhouette(
  alpha: Uint8Array | Uint8ClampedArray,
  width: number,
  height: number,
  spaces: readonly { readonly x: number; readonly y: number }[] = [],
): Mask {
  if (alpha.length !== width * height) {
    throw new UsageError(`${alpha.length} bytes are not a picture of ${width} × ${height}`)
  }
  const inside = new Uint8Array(width * height).fill(1)
  const isOpen = (i: number) => inside[i] === 1 && (alpha[i] as number) < LINE_ALPHA
  const stack: number[] = []
  for (let x = 0; x < width; x++) stack.push(x, (height - 1) * width + x)
  for (let y = 0; y < height; y++) stack.push(y * width, y * width + width - 1)
  for (const { x, y } of spaces) if (x >= 0 && x < width && y >= 0 && y < height) stack.push(y * width + x)
  // Run by run: where one is let in, all of its row is as far as it goes, and of the rows beside it each run that lies along it.
  for (let seed = stack.pop(); seed !== undefined; seed = stack.pop()) {
    if (!isOpen(seed)) continue
    const row = seed - (seed % width)
    let from = seed
    while (from > row && isOpen(from - 1)) from--
    let to = seed
    while (to + 1 < row + width && isOpen(to + 1)) to++
    inside.fill(0, from, to + 1)
    if (row > 0) runsAlong(from - width, to - width)
    if (row + width < inside.length) runsAlong(from + width, to + width)
  }
  return { width, height, inside }

  function runsAlong(from: number, to: number): void {
    let isIn = false
    for (let i = from; i <= to; i++) {
      const open = isOpen(i)
      if (open && !isIn) stack.push(i)
      isIn = open
    }
  }
}

/** Goes through a mask run by run, row by row from the top: `told` hears the row, and the columns from the first up to but not with the last. */
export function eachRun({ width, inside }: Mask, told: (y: number, from: number, to: number) => void): void {
  for (let i = inside.indexOf(1); i >= 0;) {
    const y = Math.floor(i / width)
    const row = y * width
    const gap = inside.indexOf(0, i)
    const end = gap < 0 || gap > row + width ? row + width : gap
    told(y, i - row, end - row)
    i = inside.indexOf(1, end)
  }
}
