import { STRAIGHT_PRESSURE, type PressureCurve } from '@unhurried/core/geometry'
import type { Following } from '@unhurried/core/time'
import { TAKES, type Takes } from '../desk/edits.ts'
import { KEEPS, type RoundSettings } from '../desk/figureHand.ts'
import { penFrom, PENS, PENS_AS_THEY_CAME, type Pen, type PenSettings } from '../desk/pens.ts'

export const TOOLS = [
  'line',
  'shape',
  'rub-out',
  'trim',
  'gather',
  'mark',
  'trace',
  'straight',
  'round',
  'push',
  'letters',
] as const
export type Tool = (typeof TOOLS)[number]

/** Tools with a tip of their own width; lines have that of their pen. */
const TIPPED = ['rub-out', 'trim', 'push'] as const
export type Tipped = (typeof TIPPED)[number]
export const isTipped = (tool: Tool): tool is Tipped => (TIPPED as readonly Tool[]).includes(tool)
/** Tools that draw with the pen. */
export const drawsLines = (tool: Tool): boolean => tool === 'line' || tool === 'straight' || tool === 'round'

/** How strokes are gathered: with a loop or a box, whole or cut where it crosses them. */
export interface Gathering {
  readonly by: 'loop' | 'box'
  readonly parts: boolean
}

/** How wide the exposure sheet is: an edge of the desk, a narrow strip, or the whole room. */
export const SHEET_SHAPES = ['edge', 'room', 'strip'] as const
export type SheetShape = (typeof SHEET_SHAPES)[number]

/** The light table: how many drawings show through on either side, and how. */
export interface LightTable {
  on: boolean
  before: number
  after: number
  wrap: boolean
  /** 0–1, for the nearest drawing; those behind it get weaker */
  strength: number
  /** only keys show through */
  keysOnly: boolean
  /** the number of each drawing that shows through is written beside it */
  numbers: boolean
  /** colours of past washes and future outlines (#rrggbb); their shapes tell them apart whatever these are */
  past: string
  future: string
}

export const TINTS = { past: '#a3927a', future: '#5b7f95' }

const KEPT = 'desk settings'

/** What the desk is set to on this machine, from one evening to the next. */
export interface Settings {
  tool: Tool
  swatch: string
  tips: Record<Tipped, number>
  gathering: Gathering
  takes: Takes
  round: RoundSettings
  pen: Pen
  pens: Readonly<Record<Pen, PenSettings>>
  shapeSmoothing: number
  pressure: PressureCurve
  exposure: number
  lightTable: LightTable
  following: Following
  sheetShape: SheetShape
}

const FRESH: Settings = {
  tool: 'line',
  swatch: 'graphite',
  tips: { 'rub-out': 14, trim: 14, push: 90 },
  gathering: { by: 'loop', parts: false },
  takes: 'all',
  round: { keeps: 'free', radius: 60, painted: false },
  pen: 'line',
  pens: PENS_AS_THEY_CAME,
  shapeSmoothing: 0.35,
  pressure: STRAIGHT_PRESSURE,
  exposure: 2,
  lightTable: { on: true, before: 2, after: 2, wrap: false, strength: 0.55, keysOnly: false, numbers: false, ...TINTS },
  following: 'ripple',
  sheetShape: 'edge',
}

function roundFrom(stored: Partial<RoundSettings> | undefined): RoundSettings {
  const radius = stored?.radius
  return {
    keeps: KEEPS.find(k => k === stored?.keeps) ?? FRESH.round.keeps,
    radius: typeof radius === 'number' && radius >= 1 && radius <= 4000 ? radius : FRESH.round.radius,
    painted: stored?.painted === true,
  }
}

function tintsFrom(stored: Partial<LightTable> | undefined): typeof TINTS {
  const colour = (given: unknown, fresh: string) =>
    typeof given === 'string' && /^#[0-9a-f]{6}$/i.test(given) ? given : fresh
  return { past: colour(stored?.past, TINTS.past), future: colour(stored?.future, TINTS.future) }
}

/** Settings of the last evening; anything unreadable gives the fresh ones. */
export function readSettings(): Settings {
  try {
    const stored = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Settings>
    return {
      ...FRESH,
      ...stored,
      tool: TOOLS.find(t => t === stored.tool) ?? FRESH.tool,
      following: stored.following === 'stay' ? 'stay' : 'ripple',
      sheetShape: SHEET_SHAPES.find(s => s === stored.sheetShape) ?? FRESH.sheetShape,
      tips: { ...FRESH.tips, ...stored.tips },
      gathering: { ...FRESH.gathering, ...stored.gathering },
      takes: TAKES.find(t => t === stored.takes) ?? FRESH.takes,
      round: roundFrom(stored.round),
      pen: PENS.find(p => p === stored.pen) ?? FRESH.pen,
      pens: Object.fromEntries(PENS.map(p => [p, penFrom(p, stored.pens?.[p])])) as Record<Pen, PenSettings>,
      pressure: { ...FRESH.pressure, ...stored.pressure },
      lightTable: { ...FRESH.lightTable, ...stored.lightTable, ...tintsFrom(stored.lightTable) },
    }
  } catch {
    return structuredClone(FRESH)
  }
}

export function keepSettings(settings: Settings): void {
  localStorage.setItem(KEPT, JSON.stringify(settings))
}
