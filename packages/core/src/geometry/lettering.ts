import { asSamples, type Contour } from './contours.ts'
import { distance, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** One step of a letter's outline, as fonts give them: y downwards, in paper pixels. */
export type GlyphStep =
  | { readonly type: 'M' | 'L'; readonly x: number; readonly y: number }
  | { readonly type: 'Q'; readonly x1: number; readonly y1: number; readonly x: number; readonly y: number }
  | {
      readonly type: 'C'
      readonly x1: number
      readonly y1: number
      readonly x2: number
      readonly y2: number
      readonly x: number
      readonly y: number
    }
  | { readonly type: 'Z' }

/** Curves are cut into pieces of about this length, in pixels. */
const PIECE_PX = 2
const MOST_PIECES = 48

/** A path as it is drawn in one go; `closed` where it was said to end where it began. Its last point is not its first again. */
export interface DrawnPath {
  readonly points: readonly Point[]
  readonly closed: boolean
}

/** The paths of steps, curves cut into short straight pieces. */
export function pathsOf(steps: readonly GlyphStep[]): DrawnPath[] {
  const paths: DrawnPath[] = []
  let open: Point[] = []
  let began: Point | null = null
  const end = (closed: boolean) => {
    const [first, last] = [open[0], open[open.length - 1]]
    const meets = first !== undefined && last !== undefined && open.length > 1 && distance(first, last) < 1e-6
    if (meets) open.pop()
    if (open.length > 1 || (open.length === 1 && closed)) paths.push({ points: open, closed: closed || meets })
    open = []
  }
  for (const step of steps) {
    // What goes on behind a closed path begins where that began.
    if (step.type !== 'M' && step.type !== 'Z' && open.length === 0 && began) open = [began]
    switch (step.type) {
      case 'Z':
        end(true)
        break
      case 'M':
        end(false)
        began = { x: step.x, y: step.y }
        open = [began]
        break
      case 'L':
        open.push({ x: step.x, y: step.y })
        break
      default:
        pushCurve(open, controlsOf(step))
    }
  }
  end(false)
  return paths
}

/** The closed outlines of letters, curves cut into short straight pieces. Outlines without an area are left out. */
export const contoursOf = (steps: readonly GlyphStep[]): Contour[] =>
  pathsOf(steps).flatMap(({ points }) => (points.length > 2 ? [points] : []))

/** The control points of a curve behind its start; a quadratic one has one, a cubic one two, and both their end. */
function controlsOf(step: Extract<GlyphStep, { type: 'Q' | 'C' }>): Point[] {
  const first = { x: step.x1, y: step.y1 }
  const end = { x: step.x, y: step.y }
  return step.type === 'C' ? [first, { x: step.x2, y: step.y2 }, end] : [first, end]
}

/** Points along a Bézier curve of any degree, by de Casteljau. */
function pushCurve(path: Point[], controls: readonly Point[]): void {
  const start = path[path.length - 1]
  if (!start) return
  const all = [start, ...controls]
  const length = controls.reduce((sum, p, i) => sum + distance(all[i] as Point, p), 0)
  const pieces = Math.max(2, Math.min(MOST_PIECES, Math.ceil(length / PIECE_PX)))
  for (let i = 1; i <= pieces; i++) {
    const t = i / pieces
    let level: readonly Point[] = all
    while (level.length > 1) {
      level = level.slice(1).map((b, k) => {
        const a = level[k] as Point
        return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }
      })
    }
    path.push(level[0] as Point)
  }
}

/** Letters as lines round their outlines: closed, one for each. */
export function outlinedLetters(contours: readonly Contour[]): Sample[][] {
  return contours.map(contour => asSamples([...contour, contour[0] as Point]))
}
