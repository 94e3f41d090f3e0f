import { unite, type Box, type Point } from '../geometry/point.ts'
import type { Grey } from '../raster/grey.ts'
import { blobsOf } from './blobs.ts'

/** How the drawings of a sheet are told apart: it is one; they stand in rows; in rows of cells; or anywhere, each by itself. */
export const PARTINGS = ['whole', 'rows', 'cells', 'loose'] as const
export type Parting = (typeof PARTINGS)[number]

/** A line of ink no longer than this share of the sheet is a speck. */
const SPECK_SHARE = 0.012
/** What lies nearer to each other than this share of the sheet is one drawing. */
const NEAR_SHARE = 0.035
const MOST_PARTS = 120

const { max, min, round } = Math

/** Where rows of a sheet (or columns of a row) hold ink, as stretches; those nearer to each other than `near` are one. */
function stretches(inked: readonly boolean[], near: number): [from: number, to: number][] {
  const found: [number, number][] = []
  inked.forEach((is, i) => {
    const last = found[found.length - 1]
    if (!is) return
    if (last && i - last[1] <= near) last[1] = i
    else found.push([i, i])
  })
  return found
}

const meets = (a: Box, b: Box, near: number): boolean =>
  a.left - near <= b.right && b.left - near <= a.right && a.top - near <= b.bottom && b.top - near <= a.bottom

/** Boxes that lie near one another, as one; until none do. */
function joined(boxes: readonly Box[], near: number): Box[] {
  let now = [...boxes]
  for (let changed = true; changed;) {
    changed = false
    const next: Box[] = []
    for (const box of now) {
      const at = next.findIndex(other => meets(box, other, near))
      if (at < 0) next.push(box)
      else {
        next[at] = unite(next[at] as Box, box)
        changed = true
      }
    }
    now = next
  }
  return now
}

const middleOf = ({ left, top, right, bottom }: Box): Point => ({ x: (left + right) / 2, y: (top + bottom) / 2 })

/** Boxes as they are read: by rows from above, in a row from the left. A box belongs to a row when its middle lies beside those of it. */
export function asRead(boxes: readonly Box[]): Box[] {
  const rows: Box[][] = []
  for (const box of [...boxes].sort((a, b) => middleOf(a).y - middleOf(b).y)) {
    const row = rows[rows.length - 1]
    const over = row?.reduce((all, one) => unite(all, one))
    if (row && over && middleOf(box).y < over.bottom && middleOf(box).y > over.top) row.push(box)
    else rows.push([box])
  }
  return rows.flatMap(row => row.sort((a, b) => middleOf(a).x - middleOf(b).x))
}

/**
 * The drawings of a sheet as boxes, in the order they are read, by how they are told apart; specks are none. Rows are parted by blank stretches across all of the sheet, cells by
 * blank stretches down a row. None of a blank sheet; of very many the first 120.
 */
export function partsOf(ink: Grey, how: Parting): Box[] {
  const { width, height } = ink
  const [speck, near] = [max(2, SPECK_SHARE * max(width, height)), NEAR_SHARE * max(width, height)]
  const blobs = blobsOf(ink)
    .map(blob => blob.box)
    .filter(box => max(box.right - box.left, box.bottom - box.top) >= speck)
  if (blobs.length === 0) return []
  const all = blobs.reduce(unite)
  if (how === 'whole') return [all]
  if (how === 'loose') return asRead(joined(blobs, near)).slice(0, MOST_PARTS)
  const inked = (some: readonly Box[], from: 'left' | 'top', to: 'right' | 'bottom', length: number): boolean[] => {
    const lines = Array<boolean>(length).fill(false)
    for (const box of some) lines.fill(true, box[from], box[to] + 1)
    return lines
  }
  const rows = stretches(inked(blobs, 'top', 'bottom', height), near / 2)
  return rows
    .flatMap(([top, bottom]): Box[] => {
      const inRow = blobs.filter(box => box.bottom >= top && box.top <= bottom)
      if (how === 'rows') return [inRow.reduce(unite)]
      return stretches(inked(inRow, 'left', 'right', width), near).map(([left, right]) =>
        inRow.filter(box => box.right >= left && box.left <= right).reduce(unite),
      )
    })
    .slice(0, MOST_PARTS)
}

/** The ink in a box, with a blank margin round it; and where the upper left of it lies. What lies beyond the box, and beyond the picture, is blank. */
export function cutOut(
  { width, height, data }: Grey,
  box: Box,
  marginPx: number,
): { readonly grey: Grey; readonly at: Point } {
  const [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom].map(round) as [
    number,
    number,
    number,
    number,
  ]
  const at = { x: left - marginPx, y: top - marginPx }
  const [w, h] = [right + marginPx + 1 - at.x, bottom + marginPx + 1 - at.y]
  const out = new Uint8Array(w * h)
  for (let y = max(0, top); y <= min(bottom, height - 1); y++) {
    for (let x = max(0, left); x <= min(right, width - 1); x++) {
      out[(y - at.y) * w + x - at.x] = data[y * width + x] as number
    }
  }
  return { grey: { width: w, height: h, data: out }, at }
}
