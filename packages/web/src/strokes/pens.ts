import { INK, NIB_ENDS, NIB_LOOKS, type Nib } from '@unhurried/core/geometry'
import { z } from 'zod'

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
  mist: 'soft brush',
}

export const PENS_AS_THEY_CAME: Readonly<Record<Pen, PenSettings>> = {
  thumbnail: { width: 9, nib: { look: 'pencil', ends: 'round', thinning: 0.5 }, smoothing: 0.1, bySpeed: 0 },
  rough: { width: 4.5, nib: { look: 'pencil', ends: 'round', thinning: 0.6 }, smoothing: 0.2, bySpeed: 0 },
  line: { width: 5, nib: INK, smoothing: 0.35, bySpeed: 0 },
  'clean-up': { width: 3.5, nib: { look: 'ink', ends: 'tapered', thinning: 0.35 }, smoothing: 0.6, bySpeed: 0 },
  mist: { width: 60, nib: { look: 'brush', ends: 'round', thinning: 0.3 }, smoothing: 0.3, bySpeed: 0 },
}

export const WIDEST_PX = 160

const Share = z.number().min(0).max(1)

/** The pens as they were kept from another evening; what cannot be read of one is as it came. */
export const PensInCase = z.preprocess(
  stored => stored ?? {},
  z.object(
    Object.fromEntries(
      PENS.map(pen => {
        const came = PENS_AS_THEY_CAME[pen]
        const nib = z.object({
          look: z.enum(NIB_LOOKS).catch(came.nib.look),
          ends: z.enum(NIB_ENDS).catch(came.nib.ends),
          thinning: Share.catch(came.nib.thinning),
        })
        const settings = z.object({
          width: z.number().min(1).max(WIDEST_PX).catch(came.width),
          nib: z.preprocess(value => value ?? {}, nib).catch(came.nib),
          smoothing: Share.catch(came.smoothing),
          bySpeed: Share.catch(came.bySpeed),
        })
        return [pen, settings.catch(came)]
      }),
    ) as unknown as Record<Pen, z.ZodType<PenSettings>>,
  ),
)
