import type { Sample } from './samples.ts'

/**
 * Steadies a pen while it draws: each sample is drawn towards the one before, by `amount` from 0 (as it comes) to 1.
 * Returns a function to be fed the raw samples in order; it holds no more than the last sample.
 */
export function steadyPen(amount: number): (raw: Sample) => Sample {
  const follow = 1 - 0.85 * Math.max(0, Math.min(1, amount))
  let last: Sample | null = null
  return raw => {
    const next: Sample = last
      ? {
          x: last.x + (raw.x - last.x) * follow,
          y: last.y + (raw.y - last.y) * follow,
          pressure: last.pressure + (raw.pressure - last.pressure) * follow,
        }
      : raw
    last = next
    return next
  }
}

/** A mouse moved at this speed (px per ms) presses half as hard as one that barely moves. */
const HALF_PRESSURE_SPEED = 1.6
const PRESSURE_FOLLOW = 0.25
const SLOW_PRESSURE = 0.72

/**
 * Pressure for a pointer that has none: slow is firm, fast is light, as a hand would do it, changing gradually, and
 * light where the stroke begins. Fed the distance in px and the time in ms since the last sample.
 */
export function simulatedPressure(): (distancePx: number, elapsedMs: number) => number {
  let pressure = 0.3
  return (distancePx, elapsedMs) => {
    const speed = distancePx / Math.max(1, elapsedMs)
    const wanted = SLOW_PRESSURE / (1 + speed / HALF_PRESSURE_SPEED)
    pressure += (wanted - pressure) * PRESSURE_FOLLOW
    return pressure
  }
}
