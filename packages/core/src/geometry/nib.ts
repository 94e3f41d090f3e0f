/** What a line is drawn with: a crisp ink line, a textured pencil that builds up, or a brush with soft edges. */
export const NIB_LOOKS = ['ink', 'pencil', 'brush'] as const
export type NibLook = (typeof NIB_LOOKS)[number]

/** How a line begins and ends: as round as it is wide there, drawn out to a point, or cut off. */
export const NIB_ENDS = ['round', 'tapered', 'blunt'] as const
export type NibEnds = (typeof NIB_ENDS)[number]

/** The nib of a line. A painted shape has one too, and does not use it. */
export interface Nib {
  readonly look: NibLook
  readonly ends: NibEnds
  /** 0–1: how much of the width pressure decides; 0 is a constant line */
  readonly thinning: number
}

/** A round ink nib: a feather touch gives about a quarter of the full width. */
export const INK: Nib = { look: 'ink', ends: 'round', thinning: 0.62 }

/**
 * Width of a line in pixels where it is drawn with `pressure` (0–1). `width` is that of a line drawn with half of the
 * full pressure: width · (1 + thinning · (2 · pressure − 1)).
 */
export function widthAt(pressure: number, width: number, thinning: number): number {
  return width * (1 + thinning * (2 * pressure - 1))
}

/** A tapered end is drawn out over this many widths, at most over a third of the line. */
const TAPER_WIDTHS = 5
const TAPER_SHARE = 1 / 3

/** Pixels over which the ends of a line of `length` px are drawn out. */
export function taperOf(ends: NibEnds, width: number, length: number): number {
  return ends === 'tapered' ? Math.min(width * TAPER_WIDTHS, length * TAPER_SHARE) : 0
}
