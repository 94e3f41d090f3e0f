import { distance, nearestOnPiece, type Point } from './point.ts'

/** A closed outline with only the points that are needed to stay within a tolerance, px (Douglas and Peucker 1973). Throws nothing; of none there are none. */
export function thinned(outline: readonly Point[], tolerancePx: number): Point[] {
  const [first] = outline
  if (!first) return []
  const { x, y } = first
  const off = outline.map(p => (p.x - x) ** 2 + (p.y - y) ** 2)
  const far = off.indexOf(off.reduce((most, square) => Math.max(most, square)))
  const keep = new Uint8Array(outline.length)
  keep[0] = keep[far] = 1
  const stack: [number, number][] = [
    [0, far],
    [far, outline.length],
  ]
  for (let piece = stack.pop(); piece; piece = stack.pop()) {
    const [from, to] = piece
    const [a, b] = [outline[from] as Point, outline[to % outline.length] as Point]
    let [worst, most] = [-1, tolerancePx]
    for (let i = from + 1; i < to; i++) {
      const p = outline[i] as Point
      const away = distance(p, nearestOnPiece(p, a, b).point)
      if (away > most) [worst, most] = [i, away]
    }
    if (worst < 0) continue
    keep[worst] = 1
    stack.push([from, worst], [worst, to])
  }
  return outline.filter((_, i) => keep[i] === 1)
}

/** The area inside a closed outline, square px: above 0 where it is gone round clockwise as seen. */
export const areaInside = (outline: readonly Point[]): number =>
  outline.reduce((sum, p, i) => {
    const q = outline[(i + 1) % outline.length] as Point
    return sum + (p.x * q.y - q.x * p.y) / 2
  }, 0)
