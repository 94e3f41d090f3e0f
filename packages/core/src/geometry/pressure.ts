/** How a hand's pressure becomes the pressure of a line. */
export interface PressureCurve {
  /** pressure of the device (0–1) that counts as none, and as all */
  readonly least: number
  readonly full: number
  /** 0–1: 0.5 is straight; below, a light hand already draws wide; above, only a firm one does */
  readonly firmness: number
}

export const STRAIGHT_PRESSURE: PressureCurve = { least: 0, full: 1, firmness: 0.5 }
/** `least` and `full` stay this far apart. */
export const LEAST_SPAN = 0.05

/** Exponent of a firmness: 1 at 0.5, ¼ at 0, 4 at 1. */
const exponentOf = (firmness: number) => 4 ** (2 * firmness - 1)

/** The pressure of the line (0–1) for a pressure of the device: ((p − least) / (full − least)) ^ 4^(2·firmness − 1). */
export function pressed({ least, full, firmness }: PressureCurve, pressure: number): number {
  const share = (pressure - least) / Math.max(LEAST_SPAN, full - least)
  return Math.max(0, Math.min(1, share)) ** exponentOf(firmness)
}

const LIGHT = 0.05
const FIRM = 0.95

/**
 * The curve that fits a hand: what it presses in 90 % of a scribble spans the whole range, and its usual pressure (the
 * median) gives half. Null when there is too little to tell from (under 20 samples, or all of one pressure).
 */
export function fitPressure(pressures: readonly number[]): PressureCurve | null {
  if (pressures.length < 20) return null
  const sorted = [...pressures].sort((a, b) => a - b)
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))] as number
  const [least, full] = [at(LIGHT), at(FIRM)]
  if (full - least < LEAST_SPAN) return null
  const usual = Math.max(0.02, Math.min(0.98, (at(0.5) - least) / (full - least)))
  const exponent = Math.log(0.5) / Math.log(usual)
  const firmness = Math.max(0, Math.min(1, (Math.log(exponent) / Math.log(4) + 1) / 2))
  return { least: rounded(least), full: rounded(full), firmness: rounded(firmness) }
}
const rounded = (n: number) => Math.round(n * 100) / 100

/** A stroke this fast (px a millisecond) is drawn with half the pressure when speed decides all of the width. */
const HALF_SPEED = 3

/** What is left of a pressure at a speed in px per ms, when speed decides `share` (0–1) of the width: fast is thin. */
export function slowed(pressure: number, speed: number, share: number): number {
  return pressure * (1 - share + share / (1 + speed / HALF_SPEED))
}
