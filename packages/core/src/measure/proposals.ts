import { map, rotation, type Matrix } from '../geometry/matrix.ts'
import { distance, lerp, type Point } from '../geometry/point.ts'

/** A drawing beside the one that is marked: where the mark lies on it, and places along its ink. Paper pixels. */
export interface MarkedBeside {
  readonly at: Point
  readonly ink: readonly Point[]
  /** how its body has moved to the drawing that is marked, squashed and stretched: the mark and its surroundings may have gone along; null or left out, it stayed */
  readonly carried?: Matrix | null
}

/** A line as places no farther apart than so many px: a straight one has two of its own, and is as much ink as a wavy one. */
export function inkAlong(line: readonly Point[], apartPx: number): Point[] {
  const [first] = line
  if (!first) return []
  return line.slice(1).reduce<Point[]>(
    (ink, to, i) => {
      const from = line[i] as Point
      const steps = Math.max(1, Math.ceil(distance(from, to) / apartPx))
      for (let k = 1; k <= steps; k++) ink.push(lerp(from, to, k / steps))
      return ink
    },
    [{ x: first.x, y: first.y }],
  )
}

/** Where the mark would be, if it had gone along with the body. */
const carriedPlace = ({ at, carried }: MarkedBeside): Point => (carried ? map(carried, at) : at)

/** Where a mark most likely lies on a drawing. */
export interface ProposedPlace {
  readonly at: Point
  /** whether the shape around it is found again there; else it only lies between its neighbours */
  readonly isFound: boolean
}

/** Cells from the middle of what is looked at to its edge, and turns that are tried, degrees. */
const CELLS = 16
const TURNS_DEG = [0, -12, 12, -24, 24] as const
/** Fewer places of ink around a mark are no shape; more are thinned out. */
const FEWEST = 8
const MOST = 80
/** On the mean, the shape may lie off by this share of its reach and is still found again. */
const FOUND_SHARE = 0.05
/** And the ink there by this share from the shape. */
const MUTUAL_SHARE = 0.08
/** So much of its reach away from where it is expected counts as much as all of it off the ink. */
const STRAYS = 6

/** How far every cell of a square lies from the nearest ink, in cells (two passes, steps of 1 and √2: G. Borgefors, 1986); far off it is cut. */
function distances(ink: readonly Point[], centre: Point, cell: number, half: number): Float32Array {
  const side = 2 * half + 1
  const field = new Float32Array(side * side).fill(half)
  const cells = cellsAbout(ink, centre, cell, half)
  for (let i = 0; i < cells.length; i += 2) {
    const [cx, cy] = [cells[i] as number, cells[i + 1] as number]
    if (cx >= 0 && cy >= 0 && cx < side && cy < side) field[cy * side + cx] = 0
  }
  const near = (i: number, dx: number, dy: number, x: number, y: number) => {
    const [nx, ny] = [x + dx, y + dy]
    if (nx < 0 || ny < 0 || nx >= side || ny >= side) return
    const from = (field[ny * side + nx] as number) + (dx !== 0 && dy !== 0 ? Math.SQRT2 : 1)
    if (from < (field[i] as number)) field[i] = from
  }
  const STEPS = [
    [-1, 0],
    [-1, -1],
    [0, -1],
    [1, -1],
  ] as const
  for (let i = 0; i < field.length; i++) {
    for (const [dx, dy] of STEPS) near(i, dx, dy, i % side, Math.floor(i / side))
  }
  for (let i = field.length - 1; i >= 0; i--) {
    for (const [dx, dy] of STEPS) near(i, -dx, -dy, i % side, Math.floor(i / side))
  }
  return field
}

/** Places of ink about a mark, from it, thinned out. */
function shapeAbout({ at, ink }: MarkedBeside, reach: number): Point[] {
  const about = ink.filter(p => distance(p, at) <= reach).map(({ x, y }) => ({ x: x - at.x, y: y - at.y }))
  const every = Math.max(1, Math.ceil(about.length / MOST))
  return about.filter((_, i) => i % every === 0)
}

/** The shape about a mark as it is, and as it would be squashed and stretched with its body; what is too little is none. */
function shapesAbout(beside: MarkedBeside, reach: number): Point[][] {
  const { carried } = beside
  const along = carried && { at: map(carried, beside.at), ink: beside.ink.map(p => map(carried, p)) }
  return [beside, ...(along ? [along] : [])].map(one => shapeAbout(one, reach)).filter(shape => shape.length >= FEWEST)
}

/** The eight cells about one. */
const ABOUT = [-1, 0, 1].flatMap(x => [-1, 0, 1].map(y => [x, y] as const))

/** A shape laid on a drawing, and how far off its ink lies. */
interface Laid {
  readonly at: Point
  readonly off: number
  readonly score: number
  readonly shape: readonly Point[]
  readonly turn: number
}

/** How far the places of a shape lie from the nearest ink on the mean, in cells. */
function offOf(field: Float32Array, cells: Int32Array, dx: number, dy: number, half: number): number {
  const side = 2 * half + 1
  let sum = 0
  for (let i = 0; i < cells.length; i += 2) {
    const cx = (cells[i] as number) + dx
    const cy = (cells[i + 1] as number) + dy
    sum += cx < 0 || cy < 0 || cx >= side || cy >= side ? half : (field[cy * side + cx] as number)
  }
  return (2 * sum) / cells.length
}

/** The cells in which places lie, of a square about a middle, as x and y in turn. */
function cellsAbout(places: readonly Point[], centre: Point, cell: number, half: number): Int32Array {
  const cells = new Int32Array(2 * places.length)
  places.forEach(({ x, y }, i) => {
    cells[2 * i] = Math.round((x - centre.x) / cell) + half
    cells[2 * i + 1] = Math.round((y - centre.y) / cell) + half
  })
  return cells
}

const HERE: Point = { x: 0, y: 0 }
const turned = (shape: readonly Point[], deg: number): Point[] => {
  const by = rotation((deg * Math.PI) / 180, HERE)
  return shape.map(p => map(by, p))
}

/** Whether the ink of the drawing there lies near the shape as well: a scribble has something near everything. */
function isMutual({ at, shape, turn }: Laid, ink: readonly Point[], cell: number): boolean {
  const field = distances(turned(shape, turn), HERE, cell, CELLS)
  const near = ink.filter(p => distance(p, at) < 0.8 * CELLS * cell)
  return near.length > 0 && offOf(field, cellsAbout(near, at, cell, CELLS), 0, 0, CELLS) <= MUTUAL_SHARE * CELLS
}

/**
 * Where a mark lies on a drawing, proposed from those beside it: the shape of the ink around it on a neighbour is laid on the drawing about where
 * the mark would lie between both (`share` of the way from the one before to the one behind), shifted and turned a little, to where its ink lies nearest to that of the drawing.
 * `reach` is how far about the mark is looked, px. Null with no neighbour.
 */
export function proposePlace(
  beside: { readonly before: MarkedBeside | null; readonly after: MarkedBeside | null; readonly share: number },
  ink: readonly Point[],
  reach: number,
): ProposedPlace | null {
  const { before, after, share } = beside
  const [from, to] = [before && carriedPlace(before), after && carriedPlace(after)]
  const expected = from && to ? lerp(from, to, share) : (from ?? to)
  if (!expected) return null
  const cell = reach / CELLS
  const half = 2 * CELLS
  const field = distances(ink, expected, cell, half)
  let best: Laid | null = null
  for (const shape of [before, after].flatMap(neighbour => (neighbour ? shapesAbout(neighbour, reach) : []))) {
    for (const turn of TURNS_DEG) {
      const cells = cellsAbout(turned(shape, turn), HERE, cell, half)
      const lay = (dx: number, dy: number) => {
        const off = offOf(field, cells, dx, dy, half)
        const score = off + Math.hypot(dx, dy) / STRAYS + Math.abs(turn) / 48
        return { at: { x: expected.x + dx * cell, y: expected.y + dy * cell }, off, score, shape, turn, dx, dy }
      }
      // Roughly first, every other cell, and then about the best of those.
      let rough = lay(0, 0)
      for (let dy = -CELLS; dy <= CELLS; dy += 2) {
        for (let dx = -CELLS; dx <= CELLS; dx += 2) {
          const one = lay(dx, dy)
          if (one.score < rough.score) rough = one
        }
      }
      const { dx, dy } = rough
      for (const [x, y] of ABOUT) {
        const one = lay(dx + x, dy + y)
        if (one.score < rough.score) rough = one
      }
      if (!best || rough.score < best.score) best = rough
    }
  }
  const isFound = best !== null && best.off <= FOUND_SHARE * CELLS && isMutual(best, ink, cell)
  return best && isFound ? { at: best.at, isFound } : { at: expected, isFound: false }
}
