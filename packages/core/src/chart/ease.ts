import { needWhole, UsageError } from '../errors.ts'

/** The charts a desk offers ready-made. A is the earlier key, B the later one. */
export const PRESETS = ['even', 'slow-out', 'slow-in', 'both', 'favour-a', 'favour-b'] as const
export type Preset = (typeof PRESETS)[number]

/**
 * How far along from A (0) to B (1) an action is at the share `u` of its time, for each preset.
 * slow-out and slow-in are quadratic (speed changes evenly), `both` is the smoothstep 3u² − 2u³. Favouring moves the
 * middle to a third, by the parabola through (0,0), (1/2, 1/3 or 2/3), (1,1).
 */
export function ease(preset: Preset, u: number): number {
  switch (preset) {
    case 'even':
      return u
    case 'slow-out':
      return u * u
    case 'slow-in':
      return 1 - (1 - u) * (1 - u)
    case 'both':
      return u * u * (3 - 2 * u)
    case 'favour-a':
      return u / 3 + (2 * u * u) / 3
    case 'favour-b':
      return (5 * u) / 3 - (2 * u * u) / 3
  }
}

/** Where `count` drawings between two keys should lie if nothing but the preset's curve counted: increasing, inside 0–1. */
export function wishes(preset: Preset, count: number): number[] {
  needWhole(count, 0, 'count')
  return Array.from({ length: count }, (_, i) => ease(preset, (i + 1) / (count + 1)))
}

/** Throws unless the numbers increase strictly and lie inside 0–1: what a chart between two keys can hold. */
export function needIncreasing(ts: readonly number[]): void {
  ts.forEach((t, i) => {
    if (!(t > (i === 0 ? 0 : (ts[i - 1] as number)) && t < 1)) {
      throw new UsageError(`chart positions must increase between 0 and 1; position ${i + 1} is ${t}`)
    }
  })
}
