import { distance, type Point } from '../../geometry/point.ts'

/** A drawn flight from contact to contact, held against a ballistic one. */
export interface DrawnArc {
  /** places in what was given: the contacts it lies between (the first and last drawing where it starts or ends in the air) */
  readonly from: number
  readonly to: number
  /** pixels a frame, a frame */
  readonly gravity: number
  /** the drawing farthest off the parabola, and by how many pixels */
  readonly worst: { readonly index: number; readonly offPx: number }
  /** free drawings before and after the top */
  readonly rising: number
  readonly falling: number
}

/** A parabola has three numbers: with fewer free drawings anything fits. */
const LEAST_FREE = 4

/**
 * Reads drawn bounces: the centres of drawings with the frame each is first shown on, in the order of time, are parted at
 * the lowest places (contacts, where what is squashed lies off the path) and every flight is fitted by least squares with
 * x even and y even and quadratic in time. Flights of fewer than four free drawings are left out.
 */
export function readBounce(places: readonly { readonly frame: number; readonly at: Point }[]): DrawnArc[] {
  const y = (i: number) => places[i]?.at.y as number
  const contacts = places.flatMap((_, i) =>
    i > 0 && i < places.length - 1 && y(i) >= y(i - 1) && y(i) > y(i + 1) ? [i] : [],
  )
  const ends = [-1, ...contacts, places.length]
  return ends.slice(1).flatMap((to, k): DrawnArc[] => {
    const from = ends[k] as number
    const free = places.slice(from + 1, to)
    if (free.length < LEAST_FREE) return []
    const t = free.map(({ frame }) => frame)
    const height = fitted(
      t,
      free.map(({ at }) => at.y),
      2,
    )
    const along = fitted(
      t,
      free.map(({ at }) => at.x),
      1,
    )
    const off = free.map(({ at }, i) => distance(at, { x: along.values[i] as number, y: height.values[i] as number }))
    const worst = off.reduce((most, px, i) => (px > (off[most] as number) ? i : most), 0)
    const top = height.extremum
    return [
      {
        from: Math.max(0, from),
        to: Math.min(places.length - 1, to),
        gravity: 2 * height.quadratic,
        worst: { index: from + 1 + worst, offPx: off[worst] as number },
        rising: t.filter(frame => frame < top - 1e-6).length,
        falling: t.filter(frame => frame > top + 1e-6).length,
      },
    ]
  })
}

/** Least squares by a polynomial of degree 1 or 2, through orthogonal polynomials about the mean of t (Forsythe 1957). */
function fitted(t: readonly number[], v: readonly number[], degree: 1 | 2) {
  const mean = (list: readonly number[]) => list.reduce((sum, n) => sum + n, 0) / list.length
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, n, i) => sum + n * (b[i] as number), 0)
  const centre = mean(t)
  const p1 = t.map(n => n - centre)
  const square = dot(p1, p1)
  const skew =
    dot(
      p1.map(n => n * n),
      p1,
    ) / square
  const p2 = p1.map(n => n * n - skew * n - square / t.length)
  const level = mean(v)
  const slope = dot(v, p1) / square
  const quadratic = degree === 2 ? dot(v, p2) / dot(p2, p2) : 0
  return {
    values: t.map((_, i) => level + slope * (p1[i] as number) + quadratic * (p2[i] as number)),
    quadratic,
    extremum: centre + (skew * quadratic - slope) / (2 * quadratic),
  }
}
