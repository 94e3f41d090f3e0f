import { lab, rgb } from 'd3-color'
import { differenceOfLab, type LabColour } from '../colour/difference.ts'
import { median } from '../median.ts'
import type { Point } from '../geometry/point.ts'

/** How a figure stands out from what lies behind it, along its outline. */
export interface EdgeReading {
  /** pixels of the outline */
  readonly pixels: number
  /** share of them on which figure and ground are nearly one colour, 0–1 */
  readonly near: number
  /** how far they are apart: ΔE00, and by how much in lightness and in chroma, the median of the outline */
  readonly difference: number
  readonly lightness: number
  readonly chroma: number
  /** the middle of where they are nearly one colour, pixels; null where they are nowhere */
  readonly at: Point | null
}

/** Figure and ground are nearly one colour when they are less apart than this: ΔE00. */
export const NEAR_GROUND = 10
/** Pixels of a figure are its own from this opacity on; beside it lies ground where there is less than half. 0–255 */
const SOLID = 230
const HALF = 128

/**
 * Holds the outline of a figure against the ground under it: every pixel that is the figure's own and has one beside it that is not. `figure`: alone, on
 * nothing; `ground`: what lies behind it, opaque. Both as bytes of red, green, blue and opacity (not multiplied), row by row. Null where the figure has no outline in the
 * picture: its edge counts as none.
 */
export function edgeAgainst(
  figure: Uint8ClampedArray,
  ground: Uint8ClampedArray,
  width: number,
  height: number,
): EdgeReading | null {
  const opacity = (x: number, y: number) => figure[4 * (y * width + x) + 3] as number
  const pairs = new Map<number, { readonly difference: number; readonly lightness: number; readonly chroma: number }>()
  const all: { readonly difference: number; readonly lightness: number; readonly chroma: number }[] = []
  let [near, sx, sy] = [0, 0, 0]
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      if (opacity(x, y) < SOLID) continue
      if (!isLeft(x, y, -1, 0) && !isLeft(x, y, 1, 0) && !isLeft(x, y, 0, -1) && !isLeft(x, y, 0, 1)) continue
      const one = pairAt(4 * (y * width + x))
      all.push(one)
      if (one.difference < NEAR_GROUND) {
        near++
        sx += x + 0.5
        sy += y + 0.5
      }
    }
  }
  if (all.length === 0) return null
  const middle = (of: (one: (typeof all)[number]) => number) => median(all.map(of))
  return {
    pixels: all.length,
    near: near / all.length,
    difference: middle(one => one.difference),
    lightness: middle(one => one.lightness),
    chroma: middle(one => one.chroma),
    at: near > 0 ? { x: sx / near, y: sy / near } : null,
  }

  /** Whether the figure ends that way: its soft edge is two pixels wide at most. What goes on out of the picture does not end there. */
  function isLeft(x: number, y: number, dx: number, dy: number): boolean {
    if (opacity(x + dx, y + dy) >= SOLID) return false
    const [fx, fy] = [x + 2 * dx, y + 2 * dy]
    return fx >= 0 && fy >= 0 && fx < width && fy < height && opacity(fx, fy) < HALF
  }

  /** Drawings have few colours: each pair of them is worked out once. */
  function pairAt(i: number) {
    const key = colourKey(figure, i) * 65_536 + colourKey(ground, i)
    const known = pairs.get(key)
    if (known) return known
    const [own, behind] = [labAt(figure, i), labAt(ground, i)]
    const one = {
      difference: differenceOfLab(own, behind),
      lightness: Math.abs(own.l - behind.l),
      chroma: Math.abs(Math.hypot(own.a, own.b) - Math.hypot(behind.a, behind.b)),
    }
    pairs.set(key, one)
    return one
  }
}

/** A colour in sixteen bits: what differs by less is one. */
const colourKey = (rgba: Uint8ClampedArray, i: number): number =>
  (((rgba[i] as number) >> 3) << 11) | (((rgba[i + 1] as number) >> 2) << 5) | ((rgba[i + 2] as number) >> 3)

const labAt = (rgba: Uint8ClampedArray, i: number): LabColour =>
  lab(rgb(rgba[i] as number, rgba[i + 1] as number, rgba[i + 2] as number))
