import { inverse, map, type Matrix } from '../geometry/matrix.ts'
import { boxOf, type Box } from '../geometry/point.ts'
import { valueAt, type Grey } from './grey.ts'
import type { Window } from './polygon.ts'
import { LINE_ALPHA } from './silhouette.ts'

/** A picture that is measured: how opaque it is (0–255), and where it lies, from its pixels to those of the paper. */
export interface Inked {
  readonly alpha: Grey
  readonly matrix: Matrix
  /** what of it is seen, in its pixels; null: all */
  readonly cut: Box | null
}

/** Of a drawing on transparency at least this share is see-through; a photograph or a painted background is no silhouette. */
const CLEAR_SHARE = 0.02

/** Whether a picture is a drawing on transparency, so that its silhouette means something: some of it is inked, and some of it clear. */
export function isOnTransparency({ data }: Grey): boolean {
  let inked = 0
  for (const alpha of data) if (alpha >= LINE_ALPHA) inked++
  return inked > 0 && inked <= data.length * (1 - CLEAR_SHARE)
}

/** The box round what is inked, and seen, of a picture, in paper pixels; crossed sides where nothing is. */
export function boxOfInk({ alpha: { width, height, data }, matrix, cut }: Inked): Box {
  const seen = cut ?? { left: 0, top: 0, right: width, bottom: height }
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if ((data[i] as number) < LINE_ALPHA || x + 1 <= seen.left || x >= seen.right) continue
      if (y + 1 <= seen.top || y >= seen.bottom) continue
      if (x < left) left = x
      if (x + 1 > right) right = x + 1
      if (y < top) top = y
      if (y + 1 > bottom) bottom = y + 1
    }
  }
  if (right < left) return boxOf([])
  const corners = [left, right].flatMap(x => [top, bottom].map(y => ({ x, y })))
  return boxOf(corners.map(corner => map(matrix, corner)))
}

/** Paints the ink of a picture into a mask (0–255 a pixel), where a window onto the paper has it; what is there already stays. */
export function paintInk(
  into: Uint8Array,
  width: number,
  height: number,
  { alpha, matrix, cut }: Inked,
  { left, top, scale }: Window,
): void {
  const back = inverse(matrix)
  if (!back) return
  const [a, b, c, d, e, f] = back
  const seen = cut ?? { left: 0, top: 0, right: alpha.width, bottom: alpha.height }
  for (let row = 0, i = 0; row < height; row++) {
    const y = top + (row + 0.5) / scale
    for (let column = 0; column < width; column++, i++) {
      const x = left + (column + 0.5) / scale
      const [u, v] = [a * x + c * y + e, b * x + d * y + f]
      if (u < seen.left || v < seen.top || u > seen.right || v > seen.bottom) continue
      // The middle of the first pixel lies half a pixel inside.
      const value = valueAt(alpha, u - 0.5, v - 0.5)
      if (value > (into[i] as number)) into[i] = value
    }
  }
}

/** Whether anything within `by` pixels (a square) of each pixel is set, or with `all` everything: dilation and erosion, along rows and then columns. */
export function within(mask: Uint8Array, width: number, height: number, by: number, all: boolean): Uint8Array {
  const rows = run(mask, width, height, by, all, 1, width)
  return run(rows, height, width, by, all, width, 1)
}

/** One of the two ways: `count` pixels `step` apart in each of `lines` lines that begin `next` apart. Beyond the edge counts as not set. */
function run(
  from: Uint8Array,
  count: number,
  lines: number,
  by: number,
  all: boolean,
  step: number,
  next: number,
): Uint8Array {
  const to = new Uint8Array(from.length)
  const wanted = all ? 2 * by + 1 : 1
  for (let line = 0; line < lines; line++) {
    const first = line * next
    let set = 0
    for (let i = 0; i < Math.min(by, count); i++) set += from[first + i * step] as number
    for (let i = 0; i < count; i++) {
      if (i + by < count) set += from[first + (i + by) * step] as number
      if (i - by - 1 >= 0) set -= from[first + (i - by - 1) * step] as number
      to[first + i * step] = set >= wanted ? 1 : 0
    }
  }
  return to
}
