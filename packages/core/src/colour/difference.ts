import { lab } from 'd3-color'

const DEGREES = 180 / Math.PI
/** 25⁷: where chroma begins to matter less. */
const BEND = 25 ** 7

/** A colour as lightness, a and b. */
export interface LabColour {
  readonly l: number
  readonly a: number
  readonly b: number
}

const hueDeg = (a: number, b: number): number => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) * DEGREES + 360) % 360)
const cos = (deg: number): number => Math.cos(deg / DEGREES)
const sin = (deg: number): number => Math.sin(deg / DEGREES)

/** How far two hues lie apart, going the shorter way round, in degrees; 0 where one of the colours has none. */
function turnDeg(from: number, to: number, hasNone: boolean): number {
  if (hasNone) return 0
  const turn = to - from
  return turn > 180 ? turn - 360 : turn < -180 ? turn + 360 : turn
}

function meanHueDeg(one: number, other: number, hasNone: boolean): number {
  if (hasNone) return one + other
  if (Math.abs(one - other) <= 180) return (one + other) / 2
  return one + other < 360 ? (one + other + 360) / 2 : (one + other - 360) / 2
}

/**
 * How differently two colours are seen: ΔE00, 1 is just noticed side by side. CIE 142-2001; as written out and tested by G. Sharma, W. Wu and E. N. Dalal,
 * “The CIEDE2000 color-difference formula”, Color Research and Application 30 (2005).
 */
export function differenceOfLab(one: LabColour, other: LabColour): number {
  const meanC = (Math.hypot(one.a, one.b) + Math.hypot(other.a, other.b)) / 2
  const g = 0.5 * (1 - Math.sqrt(meanC ** 7 / (meanC ** 7 + BEND)))
  const [a1, a2] = [(1 + g) * one.a, (1 + g) * other.a]
  const [c1, c2] = [Math.hypot(a1, one.b), Math.hypot(a2, other.b)]
  const [h1, h2] = [hueDeg(a1, one.b), hueDeg(a2, other.b)]
  const hasNone = c1 * c2 === 0
  const [dL, dC] = [other.l - one.l, c2 - c1]
  const dH = 2 * Math.sqrt(c1 * c2) * sin(turnDeg(h1, h2, hasNone) / 2)
  const [L, C, H] = [(one.l + other.l) / 2, (c1 + c2) / 2, meanHueDeg(h1, h2, hasNone)]
  const t = 1 - 0.17 * cos(H - 30) + 0.24 * cos(2 * H) + 0.32 * cos(3 * H + 6) - 0.2 * cos(4 * H - 63)
  const sL = 1 + (0.015 * (L - 50) ** 2) / Math.sqrt(20 + (L - 50) ** 2)
  const [sC, sH] = [1 + 0.045 * C, 1 + 0.015 * C * t]
  const rC = 2 * Math.sqrt(C ** 7 / (C ** 7 + BEND))
  const rT = -sin(60 * Math.exp(-(((H - 275) / 25) ** 2))) * rC
  return Math.sqrt((dL / sL) ** 2 + (dC / sC) ** 2 + (dH / sH) ** 2 + rT * (dC / sC) * (dH / sH))
}

/** The same of two colours as #rrggbb. */
export function colourDifference(one: string, other: string): number {
  const [p, q] = [lab(one), lab(other)]
  return differenceOfLab({ l: p.l, a: p.a, b: p.b }, { l: q.l, a: q.a, b: q.b })
}
