import { distance, insidePolygon, type Point } from './point.ts'
import type { Sample } from './samples.ts'
import type { PlacedStroke } from './stroke.ts'

/**
 * A line with its tremble taken out: every sample but the ends moves to the mean of itself and its neighbours, weighted
 * 1 : 2 : 1, as often as told. Pressure is smoothed alike. The number of samples stays.
 */
export function smoothed(samples: readonly Sample[], times = 4): Sample[] {
  let now = [...samples]
  for (let k = 0; k < times; k++) {
    now = now.map((s, i) => {
      const [a, b] = [now[i - 1], now[i + 1]]
      if (!a || !b) return s
      const mean = (of: (s: Sample) => number) => (of(a) + 2 * of(s) + of(b)) / 4
      return { x: mean(p => p.x), y: mean(p => p.y), pressure: mean(p => p.pressure) }
    })
  }
  return now
}

/** Two lines as one: joined where their ends lie nearest to each other, either of them turned round when need be. */
export function joined(one: readonly Sample[], other: readonly Sample[]): Sample[] {
  const back = (samples: readonly Sample[]) => [...samples].reverse()
  const gap = (a: readonly Sample[], b: readonly Sample[]) => distance(a[a.length - 1] as Sample, b[0] as Sample)
  const ways = [
    [one, other],
    [one, back(other)],
    [back(one), other],
    [back(one), back(other)],
  ] as const
  const [first, second] = ways.reduce((best, way) => (gap(way[0], way[1]) < gap(best[0], best[1]) ? way : best))
  return [...first, ...second]
}

/** Inclusive ranges of samples of a line. */
export type Range = readonly [from: number, to: number]

/**
 * A line parted by a loop drawn over it: the ranges inside and the ranges outside. Neighbouring ranges share a sample, so
 * that no gap opens where the line is cut. A range of one sample only joins the range before it.
 */
export function partedBy(loop: readonly Point[], stroke: PlacedStroke): { inside: Range[]; outside: Range[] } {
  const { samples } = stroke
  const within = samples.map(s => insidePolygon(s, loop))
  const parts = { inside: [] as Range[], outside: [] as Range[] }
  let start = 0
  for (let i = 1; i <= samples.length; i++) {
    if (i < samples.length && within[i] === within[start]) continue
    const end = Math.min(i, samples.length - 1)
    if (end > start || samples.length === 1) parts[within[start] ? 'inside' : 'outside'].push([start, end])
    start = i
  }
  return parts
}
