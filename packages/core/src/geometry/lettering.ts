import { distance, insidePolygon, type Point } from './point.ts'
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

/** A closed outline; its last point is not its first again. */
export type Contour = readonly Point[]

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

/** Twice the area inside an outline; its sign tells which way round it runs. */
function signedArea(contour: Contour): number {
  return contour.reduce((sum, p, i) => {
    const q = contour[(i + 1) % contour.length] as Point
    return sum + p.x * q.y - q.x * p.y
  }, 0)
}

/**
 * Letters as painted shapes: one closed path of samples for every separate piece of paint, holes cut in. A hole is reached
 * by a cut from its nearest point to the outline around it, gone along there and back, and runs the other way round, so
 * that the winding inside it is 0. What lies inside a hole is a piece of its own. In the order of the outer outlines.
 */
export function paintedLetters(contours: readonly Contour[]): Sample[][] {
  const depths = contours.map(c => contours.filter(o => o !== c && insidePolygon(c[0] as Point, o)).length)
  return contours.flatMap((outer, i): Sample[][] => {
    const depth = depths[i] as number
    if (depth % 2 === 1) return []
    const holes = contours.filter((c, k) => depths[k] === depth + 1 && insidePolygon(c[0] as Point, outer))
    return [asSamples(withCorners(holes.reduce(cutIn, turned(outer, 1))))]
  })
}

/** Letters as lines round their outlines: closed, one for each. */
export function outlinedLetters(contours: readonly Contour[]): Sample[][] {
  return contours.map(contour => asSamples([...contour, contour[0] as Point]))
}

const asSamples = (path: readonly Point[]): Sample[] => path.map(({ x, y }) => ({ x, y, pressure: 0.5 }))

/** The outline run round in the way of `sign`. */
const turned = (contour: Contour, sign: 1 | -1): Contour =>
  Math.sign(signedArea(contour)) === sign ? contour : [...contour].reverse()

/** An outline with a hole cut in, at the nearest two of their points. */
function cutIn(outline: Contour, hole: Contour): Contour {
  const inner = turned(hole, -1)
  let best = { at: 0, from: 0, apart: Infinity }
  outline.forEach((p, at) =>
    inner.forEach((q, from) => {
      const apart = distance(p, q)
      if (apart < best.apart) best = { at, from, apart }
    }),
  )
  const round = [...inner.slice(best.from), ...inner.slice(0, best.from), inner[best.from] as Point]
  return [...outline.slice(0, best.at + 1), ...round, ...outline.slice(best.at)]
}

/** From this turn on, a bend of an outline is a corner: 20 degrees. */
const CORNER_COS = Math.cos((20 * Math.PI) / 180)

/** Corners twice: painted edges are rounded between their points, and stay sharp where two lie on each other. */
function withCorners(path: Contour): Point[] {
  const n = path.length
  return path.flatMap((p, i) => {
    const [a, b] = [path[(i + n - 1) % n] as Point, path[(i + 1) % n] as Point]
    const [inX, inY, outX, outY] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y]
    const lengths = Math.hypot(inX, inY) * Math.hypot(outX, outY)
    const isCorner = lengths === 0 || (inX * outX + inY * outY) / lengths < CORNER_COS
    return isCorner ? [p, p] : [p]
  })
}
