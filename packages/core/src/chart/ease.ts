import { needWhole, UsageError } from '../errors.ts'

/** The charts a desk offers ready-made. A is the earlier key, B the later one. */
export const PRESETS = ['even', 'slow-out', 'slow-in', 'both', 'favour-a', 'favour-b'] as const
export type Preset = (typeof PRESETS)[number]

/** Strength at which a preset has its usual amount: quadratic eases, a favoured breakdown on a third. */
export const USUAL_STRENGTH = 0.5

/**
 * How far along from A (0) to B (1) an action is at the share `u` of its time, for each preset at a strength of 0 (even)
 * to 1. Eases are powers with the exponent 1 + 2·strength: at the usual strength u², 1 − (1 − u)² and their symmetric
 * join. Favouring moves the middle by a third of the strength towards a key (1/2 ± 1/3·strength; usual: 1/3 or 2/3) along
 * the parabola through (0,0), the middle and (1,1). Throws on a strength outside 0–1.
 */
export function ease(preset: Preset, u: number, strength = USUAL_STRENGTH): number {
  needStrength(strength)
  const power = 1 + 2 * strength
  switch (preset) {
    case 'even':
      return u
    case 'slow-out':
      return u ** power
    case 'slow-in':
      return 1 - (1 - u) ** power
    case 'both':
      return u < 0.5 ? (2 * u) ** power / 2 : 1 - (2 - 2 * u) ** power / 2
    case 'favour-a':
      return throughMiddle(u, 1 / 2 - strength / 3)
    case 'favour-b':
      return throughMiddle(u, 1 / 2 + strength / 3)
  }
}

/** The parabola through (0,0), (1/2, middle), (1,1). It increases over 0–1 while the middle lies within 1/4–3/4. */
function throughMiddle(u: number, middle: number): number {
  const m = Math.min(0.74, Math.max(0.26, middle))
  return (4 * m - 1) * u + (2 - 4 * m) * u * u
}

function needStrength(strength: number): void {
  if (!(strength >= 0 && strength <= 1)) throw new UsageError(`strength must lie between 0 and 1, not ${strength}`)
}

/**
 * Where `count` drawings between two keys should lie if nothing but the preset's curve counted: increasing, inside 0–1.
 * Throws a UsageError on a count that is no whole number from 0, and on a strength outside 0–1.
 */
export function wishes(preset: Preset, count: number, strength = USUAL_STRENGTH): number[] {
  needWhole(count, 0, 'count')
  return Array.from({ length: count }, (_, i) => ease(preset, (i + 1) / (count + 1), strength))
}

/** Throws unless the numbers increase strictly and lie inside 0–1: what a chart between two keys can hold. */
export function needIncreasing(ts: readonly number[]): void {
  ts.forEach((t, i) => {
    if (!(t > (i === 0 ? 0 : (ts[i - 1] as number)) && t < 1)) {
      throw new UsageError(`chart positions must increase between 0 and 1; position ${i + 1} is ${t}`)
    }
  })
}
