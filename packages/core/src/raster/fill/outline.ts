import type { Point } from '../../geometry/point.ts'
import { areaInside, thinned } from '../../geometry/thinned.ts'
import { indexOf, type Regions } from './regions.ts'

/** Corners of the pixel grid come this near to the outline that is kept, in pixels of the picture. */
const TOLERANCE_PX = 0.6
/** Where the grid runs straight for so many pixels on both sides, its corner is one of the outline; else it is a step of a slope. */
const STRAIGHT_PX = 3
/** Smaller islands, in pixels of the picture, are dust: they are painted over. */
const DUST_PX = 6

/**
 * The outlines of a region in paper pixels, outer ones and those of holes (what is inside an odd number of them is in the
 * region). They run through the middles of pixel edges and are thinned to where they bend. Empty for a label there is not.
 */
export function outlinesOf({ picture, labels, stride, border }: Regions, region: number): Point[][] {
  const { height, scale } = picture
  const isIn = (x: number, y: number) => labels[indexOf(stride, x, y)] === region
  const seen = new Uint8Array(labels.length)
  const outlines: Point[][] = []
  const from = (i: number) => {
    // Every outline goes along the left side of some pixel.
    if (labels[i] !== region || labels[i - 1] === region || seen[i] === 1) return
    const [x, y] = [(i % stride) - 1, Math.floor(i / stride) - 1]
    const outline = follow(isIn, (px, py) => (seen[indexOf(stride, px, py)] = 1), x, y)
    if (Math.abs(areaInside(outline)) < DUST_PX) return
    outlines.push(thinned(outline, TOLERANCE_PX).map(p => ({ x: p.x / scale, y: p.y / scale })))
  }
  for (let y = 0; y < height; y++) from(indexOf(stride, 0, y))
  // Regions meet on lines and near them, and nowhere else: the pixel on the right of a border may begin one.
  for (const pixels of border) {
    for (const i of pixels) {
      from(i)
      from(i + 1)
    }
  }
  return outlines
}

/** Directions along the grid: right, down, left, up. */
const STEPS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const

/** Goes round the region along the sides of its pixels, the region on the right hand, from the left side of a pixel upwards. */
function follow(
  isIn: (x: number, y: number) => boolean,
  mark: (x: number, y: number) => void,
  startX: number,
  startY: number,
): Point[] {
  /** straight pieces: where each begins, its way, and how long it is */
  const pieces: { x: number; y: number; way: number; px: number }[] = []
  let [x, y, way] = [startX, startY + 1, 3]
  do {
    const [dx, dy] = STEPS[way] as (typeof STEPS)[number]
    if (way === 3) mark(x, y - 1)
    const last = pieces[pieces.length - 1]
    if (last?.way === way) last.px++
    else pieces.push({ x, y, way, px: 1 })
    x += dx
    y += dy
    // The two pixels ahead: of the region on the right hand, else turn right; none of it on the left, else turn left.
    const [ahead, left] = [pixelAhead(x, y, way, 1), pixelAhead(x, y, way, -1)]
    if (!isIn(ahead[0], ahead[1])) way = (way + 1) % 4
    else if (isIn(left[0], left[1])) way = (way + 3) % 4
  } while (x !== startX || y !== startY + 1 || way !== 3)
  // It began in the middle of a straight piece, or at the end of one.
  const [first, last] = [pieces[0], pieces[pieces.length - 1]]
  if (first && last && first !== last && first.way === last.way) {
    last.px += first.px
    pieces.shift()
  }
  return pieces.flatMap((piece, i): Point[] => {
    const before = pieces[(i + pieces.length - 1) % pieces.length] as typeof piece
    const [dx, dy] = STEPS[piece.way] as (typeof STEPS)[number]
    const isCorner = before.way !== piece.way && Math.min(before.px, piece.px) >= STRAIGHT_PX
    const middles = Array.from({ length: piece.px }, (_, k) => ({
      x: piece.x + dx * (k + 1 / 2),
      y: piece.y + dy * (k + 1 / 2),
    }))
    return isCorner ? [{ x: piece.x, y: piece.y }, ...middles] : middles
  })
}

/** The pixel ahead of a corner of the grid on the right (1) or left (-1) of the way. */
function pixelAhead(x: number, y: number, way: number, side: 1 | -1): [number, number] {
  const [dx, dy] = STEPS[way] as (typeof STEPS)[number]
  // The right hand of (dx, dy), y downwards, is (−dy, dx).
  const [rx, ry] = [-dy * side, dx * side]
  return [Math.floor(x + (dx + rx) / 2), Math.floor(y + (dy + ry) / 2)]
}
