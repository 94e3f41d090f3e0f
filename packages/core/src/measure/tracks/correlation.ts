import type { Point } from '../../geometry/point.ts'

/**
 * How alike pairs of vectors are, less their means: the sum of their products over the roots of the sums of their squares, −1 to 1. Null for fewer pairs than `fewest`, and where one of both never
 * changes. Of numbers, their vectors lie along one axis.
 */
export function correlation(pairs: readonly (readonly [Point, Point])[], fewest: number): number | null {
  if (pairs.length < fewest) return null
  const mean = (of: (pair: readonly [Point, Point]) => number) => pairs.reduce((s, p) => s + of(p), 0) / pairs.length
  const [ax, ay, bx, by] = [mean(([a]) => a.x), mean(([a]) => a.y), mean(([, b]) => b.x), mean(([, b]) => b.y)]
  let [cross, aa, bb] = [0, 0, 0]
  for (const [a, b] of pairs) {
    cross += (a.x - ax) * (b.x - bx) + (a.y - ay) * (b.y - by)
    aa += (a.x - ax) ** 2 + (a.y - ay) ** 2
    bb += (b.x - bx) ** 2 + (b.y - by) ** 2
  }
  return aa > 1e-9 && bb > 1e-9 ? cross / Math.sqrt(aa * bb) : null
}
