import { boxesMeet, boxOf, distance, insidePolygon, type Box, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** A closed outline; its last point is not its first again. */
export type Contour = readonly Point[]

/** Twice the area inside an outline; its sign tells which way round it runs. */
function signedArea(contour: Contour): number {
  return contour.reduce((sum, p, i) => {
    const q = contour[(i + 1) % contour.length] as Point
    return sum + p.x * q.y - q.x * p.y
  }, 0)
}

/**
 * Outlines as painted shapes, whatever lies inside an odd number of them painted: one closed path of samples for every separate piece of paint, holes cut in. A hole is reached
 * by a cut from its nearest point to the outline around it, gone along there and back, and runs the other way round, so
 * that the winding inside it is 0. What lies inside a hole is a piece of its own. In the order of the outer outlines.
 */
export function paintedPieces(contours: readonly Contour[]): Sample[][] {
  const all = contours.map((contour): Boxed => ({ contour, box: boxOf(contour) }))
  const depths = all.map(c => all.filter(o => liesIn(c, o)).length)
  return all.flatMap((outer, i): Sample[][] => {
    const depth = depths[i] as number
    if (depth % 2 === 1) return []
    const holes = all.filter((c, k) => depths[k] === depth + 1 && liesIn(c, outer)).map(hole => hole.contour)
    return [asSamples(withCorners(holes.reduce(cutIn, turned(outer.contour, 1))))]
  })
}

/** Whether one outline lies in another. Single corners may touch it: most of them decide. Most pairs are far apart. */
function liesIn(inner: Boxed, outer: Boxed): boolean {
  if (inner === outer || !boxesMeet(inner.box, outer.box)) return false
  return inner.contour.filter(p => insidePolygon(p, outer.contour)).length > inner.contour.length / 2
}

interface Boxed {
  readonly contour: Contour
  readonly box: Box
}

/** Points as samples of an even pressure. */
export const asSamples = (path: readonly Point[]): Sample[] => path.map(({ x, y }) => ({ x, y, pressure: 0.5 }))

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
