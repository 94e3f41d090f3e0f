import { color, rgb } from 'd3-color'

/**
 * A colour as it is written in pictures (names, #rrggbb, rgb(), hsl(), all with an opacity) as #rrggbb: what is see-through is mixed with the colour it lies on by its share. Null
 * where nothing of it is seen, or it is no colour.
 */
export function plainColour(text: string, share: number, on: string): string | null {
  const written = color(text.trim())
  if (!written) return null
  const above = written.rgb()
  const seen = Math.max(0, Math.min(1, share)) * above.opacity
  if (!(seen > 0)) return null
  const below = rgb(on)
  const mixed = (a: number, b: number) => a * seen + b * (1 - seen)
  return rgb(mixed(above.r, below.r), mixed(above.g, below.g), mixed(above.b, below.b)).clamp().formatHex()
}

/** How far two colours (#rrggbb) lie apart: the distance in red, green and blue, 0–441. */
export function coloursApart(a: string, b: string): number {
  const [p, q] = [rgb(a), rgb(b)]
  return Math.hypot(p.r - q.r, p.g - q.g, p.b - q.b)
}
