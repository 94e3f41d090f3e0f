import type { Point } from '../geometry/point.ts'
import { areaInside, thinned } from '../geometry/thinned.ts'
import type { Grey } from './grey.ts'

/** Half of the full ink is the edge. */
const EDGE = 127.5
/** Outlines stay this near to the edge, px; what bounds less than so many square px is dust. */
const TOLERANCE_PX = 0.3
const DUST_PX = 5

/** Sides of a cell between four pixels. */
type Side = 'top' | 'right' | 'bottom' | 'left'

/**
 * How the edge goes through a cell, by which of its corners are inked (1 upper left, 2 upper right, 4 lower right, 8 lower left): from side to side with the ink on the right hand. Two
 * corners across from one another are told by the middle: `5` and `10` apart, `5+` and `10+` joined.
 */
const WAYS: Readonly<Record<string, readonly (readonly [Side, Side])[]>> = {
  1: [['top', 'left']],
  2: [['right', 'top']],
  3: [['right', 'left']],
  4: [['bottom', 'right']],
  5: [
    ['top', 'left'],
    ['bottom', 'right'],
  ],
  '5+': [
    ['top', 'right'],
    ['bottom', 'left'],
  ],
  6: [['bottom', 'top']],
  7: [['bottom', 'left']],
  8: [['left', 'bottom']],
  9: [['top', 'bottom']],
  10: [
    ['right', 'top'],
    ['left', 'bottom'],
  ],
  '10+': [
    ['left', 'top'],
    ['right', 'bottom'],
  ],
  11: [['right', 'bottom']],
  12: [['left', 'right']],
  13: [['top', 'right']],
  14: [['left', 'top']],
}

/**
 * The outlines of ink, outer ones clockwise as seen and those of holes the other way round, between pixels (marching squares; W. Lorensen and H. Cline, 1987) and thinned to where they bend. In pixels whose
 * first one has its middle at (0.5, 0.5). Dust is left out.
 */
export function inkOutlines({ width, height, data }: Grey): Point[][] {
  const at = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? 0 : (data[y * width + x] as number)
  const stride = width + 2
  /** a side of a cell has a number: twice that of the pixel it begins at, one more where it goes down */
  const sideOf = (x: number, y: number, side: Side): number => {
    if (side === 'top') return 2 * ((y + 1) * stride + x + 1)
    if (side === 'bottom') return 2 * ((y + 2) * stride + x + 1)
    return 2 * ((y + 1) * stride + x + 1 + (side === 'right' ? 1 : 0)) + 1
  }
  const next = new Map<number, number>()
  for (let y = -1; y < height; y++) {
    for (let x = -1; x < width; x++) {
      const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)]
      const corners = (a > EDGE ? 1 : 0) + (b > EDGE ? 2 : 0) + (c > EDGE ? 4 : 0) + (d > EDGE ? 8 : 0)
      if (corners === 0 || corners === 15) continue
      const isJoined = (corners === 5 || corners === 10) && (a + b + c + d) / 4 > EDGE
      for (const [from, to] of WAYS[isJoined ? `${corners}+` : corners] ?? []) {
        next.set(sideOf(x, y, from), sideOf(x, y, to))
      }
    }
  }
  /** where the edge crosses a side */
  const placeOf = (side: number): Point => {
    const pixel = side >> 1
    const [x, y] = [(pixel % stride) - 1, Math.floor(pixel / stride) - 1]
    const goesDown = side % 2 === 1
    const [from, to] = [at(x, y), goesDown ? at(x, y + 1) : at(x + 1, y)]
    const share = (EDGE - from) / (to - from)
    return { x: x + 0.5 + (goesDown ? 0 : share), y: y + 0.5 + (goesDown ? share : 0) }
  }
  const outlines: Point[][] = []
  for (const first of [...next.keys()]) {
    const outline: Point[] = []
    for (let side: number | undefined = first; side !== undefined && next.has(side);) {
      outline.push(placeOf(side))
      const to: number | undefined = next.get(side)
      next.delete(side)
      side = to
    }
    if (Math.abs(areaInside(outline)) >= DUST_PX) outlines.push(thinned(outline, TOLERANCE_PX))
  }
  return outlines
}
