import { INK, type Nib } from '@unhurried/core/geometry'

/** The pens of the desk, by the stage they are for. Each keeps the settings it was last given. */
export const PENS = ['thumbnail', 'rough', 'line', 'clean-up', 'mist'] as const
export type Pen = (typeof PENS)[number]

export interface PenSettings {
  /** paper pixels at half of the full pressure */
  readonly width: number
  readonly nib: Nib
  /** 0–1: how much the line lags behind the hand to be steadier */
  readonly smoothing: number
  /** 0–1: how much of the pressure speed takes away */
  readonly bySpeed: number
}

export const PEN_WORDS: Record<Pen, string> = {
  thumbnail: 'thumbnail',
  rough: 'rough',
  line: 'line',
  'clean-up': 'clean-up',
  mist: 'mist',
}

export const PENS_AS_THEY_CAME: Readonly<Record<Pen, PenSettings>> = {
  thumbnail: { width: 9, nib: { look: 'pencil', ends: 'round', thinning: 0.5 }, smoothing: 0.1, bySpeed: 0 },
  rough: { width: 4.5, nib: { look: 'pencil', ends: 'round', thinning: 0.6 }, smoothing: 0.2, bySpeed: 0 },
  line: { width: 5, nib: INK, smoothing: 0.35, bySpeed: 0 },
  'clean-up': { width: 3.5, nib: { look: 'ink', ends: 'tapered', thinning: 0.35 }, smoothing: 0.6, bySpeed: 0 },
  mist: { width: 60, nib: { look: 'brush', ends: 'round', thinning: 0.3 }, smoothing: 0.3, bySpeed: 0 },
}

/** Settings kept from another evening; what cannot be read is as it came. */
export function penFrom(pen: Pen, stored: Partial<PenSettings> | undefined): PenSettings {
  const fresh = PENS_AS_THEY_CAME[pen]
  const share = (value: unknown, otherwise: number) =>
    typeof value === 'number' && value >= 0 && value <= 1 ? value : otherwise
  const width = stored?.width
  return {
    width: typeof width === 'number' && width >= 1 && width <= WIDEST_PX ? width : fresh.width,
    smoothing: share(stored?.smoothing, fresh.smoothing),
    bySpeed: share(stored?.bySpeed, fresh.bySpeed),
    nib: { ...fresh.nib, ...stored?.nib, thinning: share(stored?.nib?.thinning, fresh.nib.thinning) },
  }
}

export const WIDEST_PX = 160
