import { z } from 'zod'

/** What can stand beside the paper: a side of a model sheet, what a layer shows, a clip. */
export const STAND_KINDS = ['model', 'layer', 'clip'] as const
export type StandKind = (typeof STAND_KINDS)[number]

/** Which picture of a clip stands there: the one that lies under the frame, the one of the same number, or of the same second. */
export const STEPS = ['laid', 'frame', 'second'] as const
export type Step = (typeof STEPS)[number]

export const MOST_STANDS = 4
export const STAND_PX = { least: 120, fresh: 280, most: 420 } as const
export const ZOOM = { least: 0.25, most: 16 } as const

const Px = z.number().min(-4000).max(4000)

/** A small window of its own beside the paper: what stands in it, and how it is seen. Places and sizes are screen pixels. */
export const Stand = z
  .object({
    key: z.string().min(1).max(40),
    of: z.enum(STAND_KINDS),
    /** the model sheet, layer or clip */
    id: z.string().min(1).max(40),
    /** the side of the model sheet that is seen; empty: its first */
    side: z.string().max(40).catch(''),
    x: Px,
    y: Px,
    width: z.number().min(STAND_PX.least).max(4000),
    height: z.number().min(STAND_PX.least).max(4000),
    zoom: z.number().min(ZOOM.least).max(ZOOM.most).catch(1),
    /** how far the picture is shifted in the window, px */
    panX: Px.catch(0),
    panY: Px.catch(0),
    turnDeg: z.number().min(-360).max(360).catch(0),
    mirrored: z.boolean().catch(false),
    /** a dark picture, brightened for looking: 0 as it is, 1 three times as bright */
    bright: z.number().min(0).max(1).catch(0),
    step: z.enum(STEPS).catch('laid'),
    /** frames that it is ahead */
    offset: z.number().int().min(-10_000).max(10_000).catch(0),
  })
  .readonly()
export type Stand = z.infer<typeof Stand>

/** How a picture lies in its window as it comes. */
export const PLAIN_VIEW = { zoom: 1, panX: 0, panY: 0, turnDeg: 0, mirrored: false, bright: 0 } as const

/** A model sheet laid over the paper: which side, and where its two points lie there (paper pixels). */
export const Over = z
  .object({
    model: z.string().max(40),
    side: z.string().max(40),
    low: z.object({ x: z.number(), y: z.number() }).readonly(),
    high: z.object({ x: z.number(), y: z.number() }).readonly(),
    /** how strongly it shows, 0–1 */
    strength: z.number().min(0).max(1).catch(0.4),
  })
  .readonly()
export type Over = z.infer<typeof Over>

/** In how many tones reference and paper are seen; null in their colours, 0 as greys. */
export const TONES = [null, 0, 3, 5] as const
export type Tones = (typeof TONES)[number]
