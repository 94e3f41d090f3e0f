import { STRAIGHT_PRESSURE } from '@unhurried/core/geometry'
import { CLOSED_GAP_PX } from '@unhurried/core/raster'
import { z } from 'zod'
import { kept } from '../local/kept.ts'
import { PENS, PensInCase } from '../strokes/pens.ts'

/** How wide the exposure sheet is: an edge of the desk, a narrow strip, or the whole room. */
export const SHEET_SHAPES = ['edge', 'room', 'strip'] as const
export type SheetShape = (typeof SHEET_SHAPES)[number]

export const TINTS = { past: '#a3927a', future: '#5b7f95' }
const Colour = z.string().regex(/^#[0-9a-f]{6}$/i)
const Share = z.number().min(0).max(1)
const Lamps = z.number().int().min(0).max(5)

/** The light table: how many drawings show through on either side, and how. */
const LightTable = z.object({
  on: z.boolean().catch(true),
  before: Lamps.catch(2),
  after: Lamps.catch(2),
  wrap: z.boolean().catch(false),
  /** 0–1, for the nearest drawing; those behind it get weaker */
  strength: Share.catch(0.55),
  /** only keys show through */
  keysOnly: z.boolean().catch(false),
  /** the number of each drawing that shows through is written beside it */
  numbers: z.boolean().catch(false),
  /** past drawings show all their lines over their wash; else the wash alone */
  lines: z.boolean().catch(true),
  /** colours of past washes and future outlines (#rrggbb); their shapes tell them apart whatever these are */
  past: Colour.catch(TINTS.past),
  future: Colour.catch(TINTS.future),
})
export type LightTable = z.infer<typeof LightTable>

/** How much darker the paper may be looked at, so that a white sheet does not glare; drawings stay as they are. */
export const DIMS = [0, 0.3, 0.55] as const

/** Usual widths of the loop beside the paper, in screen pixels. */
export const BESIDE_PX = { thumbnail: 132, phone: 236 } as const

/** What the desk is set to, from one evening to the next. Whatever cannot be read is as it came. */
const Settings = z.object({
  tool: z.string().catch('line'),
  toolSettings: z.record(z.string(), z.unknown()).readonly().catch({}),
  swatch: z.string().catch('graphite'),
  pen: z.enum(PENS).catch('line'),
  pens: PensInCase,
  pressure: z.object({ least: Share, full: Share, firmness: Share }).readonly().catch(STRAIGHT_PRESSURE),
  lightTable: z.preprocess(value => value ?? {}, LightTable),
  following: z.enum(['ripple', 'stay']).catch('ripple'),
  sheetShape: z.enum(SHEET_SHAPES).catch('edge'),
  /** whether sound is heard, and keeps its pitch at other viewing speeds */
  sound: z.object({ on: z.boolean(), keepPitch: z.boolean() }).catch({ on: true, keepPitch: true }),
  closedGapPx: z.number().min(0).max(60).catch(CLOSED_GAP_PX),
  dim: z.literal(DIMS).catch(0),
  /** the loop running beside the paper, and how wide it is in screen pixels */
  beside: z
    .object({ on: z.boolean(), width: z.number().min(60).max(3000) })
    .readonly()
    .catch({ on: false, width: BESIDE_PX.phone }),
})
export type Settings = z.infer<typeof Settings>

/** What tools were set to before each had settings of its own. */
function fromBefore(stored: unknown): unknown {
  if (typeof stored !== 'object' || stored === null || 'toolSettings' in stored) return stored
  const { tips, takes, gathering, round, shapeSmoothing } = stored as Record<
    string,
    Record<string, unknown> | undefined
  >
  return {
    ...stored,
    toolSettings: {
      'rub-out': { width: tips?.['rub-out'], takes },
      trim: { width: tips?.trim, takes },
      push: { width: tips?.push },
      gather: { ...gathering },
      round: { ...round },
      shape: { smoothing: shapeSmoothing },
    },
  }
}

const own = kept('desk settings')
export const readSettings = (): Settings => Settings.parse(fromBefore(own.read()) ?? {})
/** Keeps some of it; the rest stays as it was kept. */
export const keepSettings = (some: Partial<Settings>): void => own.write({ ...readSettings(), ...some })
