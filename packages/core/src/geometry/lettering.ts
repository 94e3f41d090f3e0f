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

/** The closed outlines of letters, curves cut into short straight pieces. Outlines without an area are left out. */
export function contoursOf(steps: readonly GlyphStep[]): Contour[] {
  const contours: Point[][] = []
  let open: Point[] = []
  const close = () => {
    const [first, last] = [open[0], open[open.length - 1]]
    if (first && last && open.length > 1 && distance(first, last) < 1e-6) open.pop()
    if (open.length > 2) contours.push(open)
    open = []
  }
  for (const step of steps) {
    switch (step.type) {
      case 'Z':
        close()
        break
      case 'M':
        close()
        open = [{ x: step.x, y: step.y }]
        break
      case 'L':
        open.push({ x: step.x, y: step.y })
        break
      default:
        pushCurve(open, controlsOf(step))
    }
  }
  close()
  return contours
}

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
