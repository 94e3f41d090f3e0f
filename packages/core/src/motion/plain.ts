import type { PlannedDrawing } from './recipe.ts'

/** What most plans have nothing of. */
export const PLAIN_PLAN = {
  loops: false,
  charts: [],
  beats: [],
  marks: [],
  snapped: [],
  told: [],
  ground: 0,
} as const

/** Drawings shown for `n` frames each; those with a name of their own, by their place, are keys, or breakdowns where their name is one of those. */
export const namedDrawings = (
  count: number,
  n: number,
  names: ReadonlyMap<number, string>,
  breakdowns: readonly string[] = [],
): PlannedDrawing[] =>
  Array.from({ length: count }, (_, i) => {
    const name = names.get(i) ?? null
    const role = name === null ? 'inbetween' : breakdowns.includes(name) ? 'breakdown' : 'key'
    return { frame: i * n, role, name }
  })

/** The share of a way at the share `u` (0–1) of its time when it starts and ends softly: half a cosine. Clamped. */
export const softly = (u: number): number => (1 - Math.cos(Math.PI * Math.min(1, Math.max(0, u)))) / 2

/** A multiple of `step` nearest to a value and not below `least`, itself one. */
export const wholeSteps = (value: number, step: number, least = step): number =>
  Math.max(least, Math.floor(value / step + 1 / 2) * step)

/** Numbers from 0 up to, but not with, 1, the same for the same seed (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A number in words with at most one decimal. */
export const told1 = (value: number): string => String(Math.round(value * 10) / 10)
