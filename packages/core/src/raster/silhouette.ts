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
  const stack: number[] = []
  const visit = (i: number) => {
    if (inside[i] === 1 && (alpha[i] as number) < LINE_ALPHA) {
      inside[i] = 0
      stack.push(i)
    }
  }
  for (let x = 0; x < width; x++) {
    visit(x)
    visit((height - 1) * width + x)
  }
  for (let y = 0; y < height; y++) {
    visit(y * width)
    visit(y * width + width - 1)
  }
  for (const { x, y } of spaces) if (x >= 0 && x < width && y >= 0 && y < height) visit(y * width + x)
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    const x = i % width
    if (x > 0) visit(i - 1)
    if (x < width - 1) visit(i + 1)
    if (i >= width) visit(i - width)
    if (i + width < inside.length) visit(i + width)
  }
  return { width, height, inside }
}
