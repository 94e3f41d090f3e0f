import { hcl, rgb } from 'd3-color'

/** How far colours are shifted together: lightness and chroma in their own units (CIE L*C*h, 0–100 and more), hue in degrees. */
export interface ColourShift {
  readonly lightness: number
  readonly chroma: number
  readonly hueDeg: number
}
export const UNSHIFTED: ColourShift = { lightness: 0, chroma: 0, hueDeg: 0 }
/** How far at most, either way. */
export const SHIFT_LIMITS = { lightness: 60, chroma: 60, hueDeg: 180 } as const

/** Colours weaker than this take part in a shift of chroma only by their share: what is nearly grey stays so. */
const FULL_CHROMA = 10

/**
 * A colour (#rrggbb) that much lighter, stronger and further round, in CIE L*C*h(ab) about D50 as d3-color has it. A grey has no hue and stays
 * grey; what no screen can show becomes the nearest within each of red, green and blue.
 */
export function shifted(colour: string, { lightness, chroma, hueDeg }: ColourShift): string {
  const { h, c, l } = hcl(colour)
  const [hue, strong] = [Number.isNaN(h) ? 0 : h, Number.isNaN(c) ? 0 : c]
  const stronger = Math.max(0, strong + chroma * Math.min(1, strong / FULL_CHROMA))
  return rgb(hcl(hue + hueDeg, stronger, Math.max(0, Math.min(100, l + lightness))))
    .clamp()
    .formatHex()
}

/** How light a colour is seen, CIE L*, 0–100. */
export const lightnessOf = (colour: string): number => hcl(colour).l
