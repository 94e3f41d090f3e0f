/** A value at a time. */
export interface Timed {
  readonly t: number
  readonly y: number
}

/** The parabola y = a + b·t + c·t² that lies nearest to values (least squares), and how far off they are: the root of the mean square. */
export interface Parabola {
  readonly a: number
  readonly b: number
  readonly c: number
  readonly rms: number
}

/** Fits a parabola. Null with fewer than three different times. */
export function parabolaThrough(values: readonly Timed[]): Parabola | null {
  const n = values.length
  const mean = values.reduce((sum, { t }) => sum + t, 0) / Math.max(1, n)
  // About the middle of the times the sums stay small, and the odd ones nearly vanish.
  const u = values.map(({ t }) => t - mean)
  const sum = (of: (i: number) => number) => u.reduce((all, _, i) => all + of(i), 0)
  const p = (k: number) => sum(i => (u[i] as number) ** k)
  const q = (k: number) => sum(i => (u[i] as number) ** k * (values[i] as Timed).y)
  const [s0, s1, s2, s3, s4] = [n, p(1), p(2), p(3), p(4)]
  const det = s0 * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2)
  if (n < 3 || Math.abs(det) < 1e-9) return null
  const [r0, r1, r2] = [q(0), q(1), q(2)]
  const a = (r0 * (s2 * s4 - s3 * s3) - s1 * (r1 * s4 - s3 * r2) + s2 * (r1 * s3 - s2 * r2)) / det
  const b = (s0 * (r1 * s4 - s3 * r2) - r0 * (s1 * s4 - s2 * s3) + s2 * (s1 * r2 - r1 * s2)) / det
  const c = (s0 * (s2 * r2 - r1 * s3) - s1 * (s1 * r2 - r1 * s2) + r0 * (s1 * s3 - s2 * s2)) / det
  const off = sum(i => ((values[i] as Timed).y - (a + b * (u[i] as number) + c * (u[i] as number) ** 2)) ** 2)
  return { a: a - b * mean + c * mean * mean, b: b - 2 * c * mean, c, rms: Math.sqrt(off / n) }
}
