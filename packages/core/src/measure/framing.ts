import { map, mappedBox, type Matrix } from '../geometry/matrix.ts'
import { cornersOf, EMPTY_BOX, unite, type Box, type Point } from '../geometry/point.ts'
import type { Coverage } from '../raster/coverage.ts'

/** The sides of a picture. */
export const SIDES = ['left', 'top', 'right', 'bottom'] as const
export type Side = (typeof SIDES)[number]

/** How a body lies to a part of the picture. */
export interface Framing {
  /** how much of it lies outside, 0–1 */
  readonly outside: number
  /** the side beyond which it reaches farthest, and how far, px; null where it reaches beyond none */
  readonly beyond: { readonly side: Side; readonly px: number } | null
}

/** A cell on the edge is looked at in so many parts a side. */
const PARTS = 4

const within = ({ left, top, right, bottom }: Box, { x, y }: Point): boolean =>
  x >= left && x < right && y >= top && y < bottom
/** Whether all of some places lie beyond one side of a box. */
const areBeyond = ({ left, top, right, bottom }: Box, all: readonly Point[]): boolean =>
  all.every(p => p.x < left) || all.every(p => p.x > right) || all.every(p => p.y < top) || all.every(p => p.y > bottom)

/** A cell of a body that holds some of it, cut to the box of the whole. */
interface Cell extends Box {
  readonly filled: number
}
const known = new WeakMap<Coverage, readonly Cell[]>()

function cellsOf(body: Coverage): readonly Cell[] {
  const before = known.get(body)
  if (before) return before
  const { left, top, cellPx, across, cells, box } = body
  const found: Cell[] = []
  for (let i = 0; i < cells.length; i++) {
    const filled = cells[i] as number
    if (filled === 0) continue
    const x = left + (i % across) * cellPx
    const y = top + Math.floor(i / across) * cellPx
    found.push({
      filled,
      left: Math.max(x, box.left),
      top: Math.max(y, box.top),
      right: Math.min(x + cellPx, box.right),
      bottom: Math.min(y + cellPx, box.bottom),
    })
  }
  known.set(body, found)
  return found
}

const isTurned = (through: Matrix): boolean => through[1] !== 0 || through[2] !== 0

/** The box around a body where it is seen: carried through a map from its own pixels to those of the picture; null: as it was drawn. */
export function boxSeen(body: Coverage, through: Matrix | null): Box {
  if (!through) return body.box
  // Of what is turned the cells tell more closely how far it reaches.
  const boxes: readonly Box[] = isTurned(through) ? cellsOf(body) : [body.box]
  return boxes.map(box => mappedBox(through, box)).reduce(unite, EMPTY_BOX)
}

/** How a body, carried through a map (null: as it was drawn), lies to a part of the picture, paper pixels. */
export function framingOf(body: Coverage, through: Matrix | null, part: Box): Framing {
  const seen = boxSeen(body, through)
  const px = {
    left: part.left - seen.left,
    top: part.top - seen.top,
    right: seen.right - part.right,
    bottom: seen.bottom - part.bottom,
  }
  const side = SIDES.reduce((most, one) => (px[one] > px[most] ? one : most))
  if (px[side] <= 0) return { outside: 0, beyond: null }
  const beyond = { side, px: px[side] }
  if (areBeyond(part, cornersOf(seen))) return { outside: 1, beyond }
  let [all, out] = [0, 0]
  for (const cell of cellsOf(body)) {
    all += cell.filled
    out +=
      cell.filled * (through && isTurned(through) ? turnedOut(cell, through, part) : straightOut(cell, through, part))
  }
  return { outside: out / all, beyond }
}

/** How much of a box lies outside another, 0–1. */
function straightOut(cell: Box, through: Matrix | null, part: Box): number {
  const box = through ? mappedBox(through, cell) : cell
  const across = Math.min(box.right, part.right) - Math.max(box.left, part.left)
  const down = Math.min(box.bottom, part.bottom) - Math.max(box.top, part.top)
  const size = (box.right - box.left) * (box.bottom - box.top)
  return across <= 0 || down <= 0 ? 1 : 1 - (across * down) / size
}

/** The same of one that is turned: of places evenly over it. */
function turnedOut(cell: Box, through: Matrix, part: Box): number {
  const around = cornersOf(cell).map(p => map(through, p))
  if (around.every(p => within(part, p))) return 0
  let count = 0
  for (let i = 0; i < PARTS * PARTS; i++) {
    const x = cell.left + ((cell.right - cell.left) * ((i % PARTS) + 0.5)) / PARTS
    const y = cell.top + ((cell.bottom - cell.top) * (Math.floor(i / PARTS) + 0.5)) / PARTS
    if (!within(part, map(through, { x, y }))) count++
  }
  return count / PARTS ** 2
}

/** The least way that brings a body wholly into a part of the picture, px; null where it is larger than that. */
export function wayInto(body: Coverage, through: Matrix | null, part: Box): Point | null {
  const seen = boxSeen(body, through)
  const along = (from: number, to: number, least: number, most: number): number | null => {
    if (to - from > most - least) return null
    return from < least ? Math.ceil(least - from) : Math.min(0, Math.floor(most - to))
  }
  const dx = along(seen.left, seen.right, part.left, part.right)
  const dy = along(seen.top, seen.bottom, part.top, part.bottom)
  return dx === null || dy === null ? null : { x: dx, y: dy }
}
