import { median } from '../median.ts'
import {
  boxesMeet,
  distance,
  grown,
  isEmptyBox,
  nearestOnPiece,
  unite,
  EMPTY_BOX,
  type Point,
} from '../geometry/point.ts'
import { widthAt } from '../geometry/nib.ts'
import { lengthOf, lineOutline, type PlacedStroke } from '../geometry/stroke.ts'
import { fillPolygon, type Window } from './polygon.ts'
import { LINE_ALPHA } from './silhouette.ts'
import { runsOf, type Run } from './wobble.ts'

/** A stroke of a drawing, and which element it is. */
export interface NamedStroke extends PlacedStroke {
  readonly element: string
}

/** The end of a line that stands open, so that paint would run out there. Paper pixels. */
export interface OpenEnd {
  readonly element: string
  readonly at: Point
  /** the place of another line that it could be joined to */
  readonly to: Point
  readonly gapPx: number
}

/** A short stroke far from all others. */
export interface Stray {
  readonly element: string
  readonly at: Point
}

/** The lines of a drawing in figures. */
export interface LineFacts {
  /** lines that are long enough to have a width */
  readonly count: number
  /** as wide as they are drawn: the median over their lengths, px; 0 where there are none */
  readonly widthPx: number
  readonly leaks: readonly OpenEnd[]
  readonly strays: readonly Stray[]
  /** the long ones as places along them, to be held against those of other drawings */
  readonly runs: readonly Run[]
}

/** Ends of lines nearer than this to another line leak, px; farther off they are meant to be ends. */
export const LEAK_PX = 12
/** What is closer than this to another line touches it, px. */
const TOUCHES_PX = 0.75
/** What a leak lets run out is at least so large on both sides, px². */
const LEAST_AREA = 150
/** A stroke shorter than so many of its widths may have slipped from the hand, when it lies so far from all others. */
const STRAY_WIDTHS = 3
const STRAY_PX = 30
const MOST_LEAKS = 12
/** Pixels on which it is tried whether paint would run out. */
const MOST_PIXELS = 400_000

/** Widths, leaks and strays of a drawing's lines. Shapes only keep strays company. */
export function lineFacts(strokes: readonly NamedStroke[]): LineFacts {
  const lines = strokes.filter(stroke => stroke.kind === 'line' && stroke.samples.length > 1)
  const long = lines.filter(line => lengthOf(line.samples) >= STRAY_WIDTHS * line.width)
  return {
    count: long.length,
    widthPx: usualWidth(long),
    leaks: leaksOf(long, lines),
    strays: straysOf(strokes),
    runs: runsOf(long.map(line => line.samples)),
  }
}

/** The width of a line as it is drawn: the mean over its samples. */
const meanWidth = ({ samples, width, nib }: PlacedStroke): number =>
  samples.reduce((sum, { pressure }) => sum + widthAt(pressure, width, nib.thinning), 0) / samples.length

/** The width that half of all the length of lines is no wider than. */
function usualWidth(lines: readonly PlacedStroke[]): number {
  const all = lines.map(line => ({ width: meanWidth(line), length: lengthOf(line.samples) }))
  all.sort((a, b) => a.width - b.width)
  const half = all.reduce((sum, { length }) => sum + length, 0) / 2
  let sum = 0
  for (const { width, length } of all) {
    sum += length
    if (sum >= half) return width
  }
  return 0
}

/** Ends of long lines that could be joined to another line, or to the other end of their own. */
function candidates(long: readonly NamedStroke[], lines: readonly NamedStroke[]): OpenEnd[] {
  return long.flatMap(line =>
    (['start', 'end'] as const).flatMap((side): OpenEnd[] => {
      const at = (side === 'start' ? line.samples[0] : line.samples[line.samples.length - 1]) as Point
      const around = grown({ left: at.x, top: at.y, right: at.x, bottom: at.y }, LEAK_PX + line.width)
      let best: OpenEnd | null = null
      for (const other of lines) {
        if (!boxesMeet(around, other.box)) continue
        const samples = other === line && side === 'end' ? [...other.samples].reverse() : other.samples
        let along = 0
        for (let i = 1; i < samples.length; i++) {
          const [a, b] = [samples[i - 1] as Point, samples[i] as Point]
          const before = along
          along += distance(a, b)
          // What begins right behind its own end is no other line.
          if (other === line && before <= 3 * LEAK_PX) continue
          const { point } = nearestOnPiece(at, a, b)
          const gapPx = distance(at, point) - (line.width + other.width) / 2
          if (!best || gapPx < best.gapPx) best = { element: line.element, at: { x: at.x, y: at.y }, to: point, gapPx }
        }
      }
      return best && best.gapPx > TOUCHES_PX && best.gapPx <= LEAK_PX ? [best] : []
    }),
  )
}

/** Ends at which paint would run out: closing the gap parts what lies on its two sides from each other, and both are of some size. */
function leaksOf(long: readonly NamedStroke[], lines: readonly NamedStroke[]): OpenEnd[] {
  const found = candidates(long, lines)
    .sort((a, b) => a.gapPx - b.gapPx)
    .slice(0, MOST_LEAKS)
  if (found.length === 0) return []
  const box = grown(lines.map(line => line.box).reduce(unite, EMPTY_BOX), 8)
  if (isEmptyBox(box)) return []
  const [w, h] = [box.right - box.left, box.bottom - box.top]
  const scale = Math.min(1, Math.sqrt(MOST_PIXELS / (w * h)))
  const window: Window = { left: box.left, top: box.top, scale }
  const [width, height] = [Math.ceil(w * scale) + 1, Math.ceil(h * scale) + 1]
  const alpha = new Uint8Array(width * height)
  for (const { samples, width: own, nib } of lines) {
    fillPolygon(alpha, width, height, lineOutline(samples, Math.max(own, 2 / scale), nib), window)
  }
  const seen = new Set<string>()
  return found.filter(leak => {
    // Two ends that face each other are one gap.
    const key = [leak.at, leak.to]
      .map(({ x, y }) => `${Math.round(x / 4)} ${Math.round(y / 4)}`)
      .sort()
      .join()
    if (seen.has(key) || !parts(leak, alpha, width, height, window)) return false
    seen.add(key)
    return true
  })
}

/** Whether closing a gap parts its two sides. */
function parts({ at, to }: OpenEnd, alpha: Uint8Array, width: number, height: number, window: Window): boolean {
  const length = distance(at, to)
  const [ux, uy] = [(to.x - at.x) / length, (to.y - at.y) / length]
  const closed = alpha.slice()
  const half = 1.5 / window.scale
  // A little longer than the gap, into both lines.
  const [ax, ay, bx, by] = [at.x - ux * half, at.y - uy * half, to.x + ux * half, to.y + uy * half]
  const bridge = Float32Array.of(
    ax - uy * half,
    ay + ux * half,
    bx - uy * half,
    by + ux * half,
    bx + uy * half,
    by - ux * half,
    ax + uy * half,
    ay - ux * half,
  )
  fillPolygon(closed, width, height, bridge, window)
  const middle = { x: (at.x + to.x) / 2, y: (at.y + to.y) / 2 }
  const seed = (side: 1 | -1): number | null => {
    for (const off of [half + 2, half + 4, length / 2 + 4, length]) {
      const x = Math.round((middle.x - side * uy * off - window.left) * window.scale)
      const y = Math.round((middle.y + side * ux * off - window.top) * window.scale)
      if (x < 0 || y < 0 || x >= width || y >= height) continue
      if ((closed[y * width + x] as number) < LINE_ALPHA) return y * width + x
    }
    return null
  }
  const [one, other] = [seed(1), seed(-1)]
  if (one === null || other === null) return false
  const least = LEAST_AREA * window.scale ** 2
  const reached = flood(closed, width, height, one)
  if (reached.cells[other] || reached.count < least) return false
  return flood(closed, width, height, other).count >= least
}

/** Everything that can be reached from a pixel without crossing a line, in four directions. */
function flood(alpha: Uint8Array, width: number, height: number, from: number): { cells: Uint8Array; count: number } {
  const cells = new Uint8Array(width * height)
  const stack = [from]
  let count = 0
  cells[from] = 1
  const visit = (i: number) => {
    if (cells[i] === 1 || (alpha[i] as number) >= LINE_ALPHA) return
    cells[i] = 1
    stack.push(i)
  }
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    count++
    const x = i % width
    if (x > 0) visit(i - 1)
    if (x < width - 1) visit(i + 1)
    if (i >= width) visit(i - width)
    if (i + width < cells.length) visit(i + width)
  }
  return { cells, count }
}

/** Short strokes with nothing near them. */
function straysOf(strokes: readonly NamedStroke[]): Stray[] {
  return strokes
    .filter(
      stroke =>
        stroke.kind === 'line' && stroke.samples.length > 0 && lengthOf(stroke.samples) < STRAY_WIDTHS * stroke.width,
    )
    .filter(stroke => {
      // Within what the others cover an eye or a spot has its place.
      const rest = strokes.filter(other => other !== stroke).map(other => other.box)
      return rest.length > 0 && !boxesMeet(stroke.box, grown(rest.reduce(unite, EMPTY_BOX), STRAY_PX))
    })
    .map(({ element, box }) => ({ element, at: { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 } }))
}

/** The usual one of some widths; 0 where there are none. */
export const medianWidth = (facts: readonly LineFacts[]): number =>
  median(
    facts.filter(one => one.count > 0).map(one => one.widthPx),
    0,
  )
