import { scaleOf, type Matrix } from '../geometry/matrix.ts'
import { distance, type Point } from '../geometry/point.ts'
import type { Grey } from '../raster/grey.ts'
import { blobsOf, type Blob } from './blobs.ts'
import { fitPoints } from '../geometry/similarity.ts'

/** Whole holes are at least this share of their box, crosses no more; and no side of either is longer than that of the sheet. */
const HOLE_FILL = 0.6
const CROSS_FILL = 0.5
const [LEAST_SIDE, MOST_SIDE] = [0.008, 0.09]
/** They lie within this share of the sheet from its edge. */
const EDGE_SHARE = 0.2
const MOST_SLIM = 6
/** Of marks on two sheets, those that fit within this share of their spacing are the same. */
const SAME_SHARE = 0.04

const { abs, max, min } = Math

/** A mark of registration: its middle, and how far it reaches from there, pixels. */
export interface SheetMark extends Point {
  readonly reach: number
}

const markOf = (blob: Blob): SheetMark => {
  const [w, h] = sides(blob)
  return { ...blob.middle, reach: Math.hypot(w, h) / 2 }
}

const sides = ({ box }: Blob) => [box.right - box.left + 1, box.bottom - box.top + 1] as const
const fill = (blob: Blob) => blob.area / (sides(blob)[0] * sides(blob)[1])

/** Whether something is as large as marks of a sheet are, and lies near an edge of it. */
function isAtEdge(blob: Blob, { width, height }: Grey): boolean {
  const long = max(width, height)
  const [w, h] = sides(blob)
  if (min(w, h) < LEAST_SIDE * long || max(w, h) > MOST_SIDE * long) return false
  const { x, y } = blob.middle
  return min(y, height - y) < EDGE_SHARE * height || min(x, width - x) < EDGE_SHARE * width
}

/**
 * Peg holes: dark and full, round or long, two to four in a row along the edge that has most of them; their middles from left to right, or from above, pixels of
 * the sheet. Fewer than two where there are none.
 */
export function pegHoles(ink: Grey): SheetMark[] {
  const holes = blobsOf(ink).filter(blob => {
    const [w, h] = sides(blob)
    return isAtEdge(blob, ink) && fill(blob) >= HOLE_FILL && max(w / h, h / w) <= MOST_SLIM
  })
  const rows = [
    holes.filter(hole => hole.middle.y < EDGE_SHARE * ink.height),
    holes.filter(hole => hole.middle.y > (1 - EDGE_SHARE) * ink.height),
    holes.filter(hole => hole.middle.x < EDGE_SHARE * ink.width),
    holes.filter(hole => hole.middle.x > (1 - EDGE_SHARE) * ink.width),
  ]
    .map(row => row.map(markOf))
    .filter(row => row.length >= 2)
  const best = rows.reduce<SheetMark[]>((most, row) => (inRow(row).length > inRow(most).length ? row : most), [])
  return inRow(best).slice(0, 4)
}

/** Of some points those that lie in one row with most others, along it. */
function inRow(points: readonly SheetMark[]): SheetMark[] {
  let best: SheetMark[] = []
  points.forEach((a, i) =>
    points.slice(i + 1).forEach(b => {
      const long = distance(a, b)
      const [nx, ny] = [-(b.y - a.y) / long, (b.x - a.x) / long]
      const beside = points.filter(p => abs(nx * (p.x - a.x) + ny * (p.y - a.y)) < 0.03 * long)
      const reach = (row: readonly Point[]) =>
        row.length ? distance(row[0] as Point, row[row.length - 1] as Point) : 0
      const row = beside.sort((p, q) => p.x - q.x + (p.y - q.y))
      if (row.length > best.length || (row.length === best.length && reach(row) > reach(best))) best = row
    }),
  )
  return best
}

/** Registration crosses: slim, as high as wide, inked along their middle; as they are read. */
export function crosses(ink: Grey): SheetMark[] {
  return blobsOf(ink)
    .filter(blob => {
      const [w, h] = sides(blob)
      return isAtEdge(blob, ink) && fill(blob) <= CROSS_FILL && max(w / h, h / w) < 1.35 && hasArms(blob, ink)
    })
    .map(markOf)
    .sort((a, b) => a.y - b.y || a.x - b.x)
    .slice(0, 8)
}

/** Whether a blob is inked from side to side and from top to bottom about its middle. */
function hasArms({ box, middle, label, labels }: Blob, { width }: Grey): boolean {
  const near = max(2, (box.right - box.left) * 0.16)
  const spans = (along: number, of: (at: number, by: number) => number) => {
    let inked = 0
    for (let at = 0; at < along; at++) {
      let is = false
      for (let by = -near; by <= near && !is; by++) is = labels[of(at, Math.round(by))] === label
      if (is) inked++
    }
    return inked / along
  }
  const [cx, cy] = [Math.round(middle.x), Math.round(middle.y)]
  return (
    spans(box.right - box.left + 1, (at, by) => (cy + by) * width + box.left + at) > 0.9 &&
    spans(box.bottom - box.top + 1, (at, by) => (box.top + at) * width + cx + by) > 0.9
  )
}

/** Ink without marks of registration: they are no part of the drawing. */
export function withoutMarks({ width, height, data }: Grey, marks: readonly SheetMark[]): Grey {
  const out = data.slice()
  for (const { x, y, reach } of marks) {
    const far = reach * 1.15 + 2
    for (let v = max(0, Math.ceil(y - far)); v <= min(height - 1, y + far); v++) {
      for (let u = max(0, Math.ceil(x - far)); u <= min(width - 1, x + far); u++) {
        if (distance({ x: u, y: v }, { x, y }) <= far) out[v * width + u] = 0
      }
    }
  }
  return { width, height, data: out }
}

/**
 * The shift, turn and scale that bring marks of one sheet onto those of another, found among all ways to pair them in order: a mark may be hidden or a blot be taken for one.
 * And how many are paired, and how far the worst of them is off, px. Null where fewer than two fit.
 */
export function pairedMarks(
  from: readonly Point[],
  to: readonly Point[],
): { readonly matrix: Matrix; readonly offPx: number; readonly count: number } | null {
  let best: { matrix: Matrix; offPx: number; count: number } | null = null
  for (let count = min(from.length, to.length); count >= 2 && !best; count--) {
    for (const a of choices(from, count)) {
      for (const b of choices(to, count)) {
        const fit = fitPoints(a, b)
        if (!fit) continue
        const spacing = distance(b[0] as Point, b[count - 1] as Point)
        const scale = scaleOf(fit.matrix)
        // Two of two always fit: then the sheet must be about as large, and as straight, as the other.
        if (scale < 0.7 || scale > 1.4 || abs(Math.atan2(fit.matrix[1], fit.matrix[0])) > 0.6) continue
        if (fit.offPx <= SAME_SHARE * spacing && fit.offPx < (best?.offPx ?? Infinity)) best = { ...fit, count }
      }
    }
  }
  return best
}

function choices(points: readonly Point[], count: number): Point[][] {
  if (count === 0) return [[]]
  if (points.length < count) return []
  const [first, ...rest] = points as [Point, ...Point[]]
  return [...choices(rest, count - 1).map(some => [first, ...some]), ...choices(rest, count)]
}
