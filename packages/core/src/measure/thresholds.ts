import type { ShotDocument } from '../document/model/model.ts'
import { find } from '../document/model/table.ts'
import { SHOWN_PX } from '../raster/flash/cells.ts'
import type { Operation } from '../document/operations/index.ts'

/** At which value a check begins to speak: as it comes, and between which values it can be set. */
export interface Threshold {
  /** the check it belongs to, by its name */
  readonly check: string
  readonly words: string
  /** the unit it is told in; a value is told times `times` */
  readonly unit: string
  readonly times: number
  readonly is: number
  readonly least: number
  readonly most: number
  /** why it is as it comes */
  readonly why: string
}

const share = { unit: '%', times: 100 } as const
const factor = { unit: '×', times: 1 } as const

/** All of them by the name they are kept under in a shot. */
export const THRESHOLDS = {
  shown: {
    ...{ check: 'flashes', words: 'shown so wide', unit: 'px', times: 1, is: SHOWN_PX, least: 40, most: 8192 },
    why: 'as the standard takes it; a sprite is shown smaller, a large screen is seen from nearer',
  },
  volume: {
    ...{ check: 'volume', words: 'off the first key by more than', ...share, is: 0.08, least: 0.01, most: 1 },
    why: 'less of a compact body nobody sees',
  },
  step: {
    ...{ check: 'volume', words: 'straight ahead: from one to the next, more than', ...share },
    ...{ is: 0.05, least: 0.005, most: 1 },
    why: 'straight ahead a body may drift by half as much again over the shot, but not jump',
  },
  solid: {
    ...{ check: 'volume', words: 'asked of what fills its hull by', ...share, is: 0.9, least: 0, most: 1 },
    why: 'limbs that spread and fold change the area of a figure; its values are only shown',
  },
  way: {
    ...{ check: 'way', words: 'off its tick by more than', ...share, is: 0.04, least: 0.002, most: 0.5 },
    why: 'of the whole way: by less than that a hand misses a tick, and no eye a movement',
  },
  arc: {
    ...{ check: 'arc', words: 'off the arc by more than', ...share, is: 0.25, least: 0.02, most: 3 },
    why: 'of its steps: a quarter of a step aside is seen as a wobble',
  },
  pop: {
    ...{ check: 'pace', words: 'jumps: times both steps beside it', ...factor, is: 2.5, least: 1.2, most: 10 },
    why: 'eases at their strongest make steps of twice the one before',
  },
  stall: {
    ...{ check: 'pace', words: 'stands: times both steps beside it', ...factor, is: 0.25, least: 0.01, most: 0.8 },
    why: 'a quarter of both neighbours is seen as a stop',
  },
  seam: {
    ...{ check: 'seam', words: 'step over the seam, times the usual', ...factor, is: 2.5, least: 1.2, most: 10 },
    why: 'as for a jump inside a move',
  },
  slip: {
    ...{ check: 'planted', words: 'slips by more than', unit: 'px', times: 1, is: 2, least: 0.2, most: 200 },
    why: 'a line’s width: what stands is seen to slide beyond it',
  },
  width: {
    ...{ check: 'lines', words: 'lines wider or thinner by more than', ...share, is: 0.15, least: 0.02, most: 2 },
    why: 'from drawing to drawing: beyond it the line is seen to breathe',
  },
  wobble: {
    ...{ check: 'lines', words: 'lines tremble: times the usual', ...factor, is: 2, least: 1.2, most: 20 },
    why: 'traced lines always tremble a little; one drawing that does twice as much is seen to shiver',
  },
  colour: {
    ...{ check: 'paint', words: 'a colour grows or shrinks, times', ...factor, is: 2, least: 1.1, most: 20 },
    why: 'against both drawings beside it: what turns away shrinks slowly',
  },
  size: {
    ...{ check: 'size', words: 'off the usual by more than', ...share, is: 0.06, least: 0.005, most: 1 },
    why: 'a head that grows by more is seen to grow',
  },
  model: {
    ...{ check: 'model', words: 'off the model by more than', ...share, is: 0.06, least: 0.005, most: 1 },
    why: 'as for sizes: a head that is larger by more is another head',
  },
  gap: {
    ...{ check: 'contact', words: 'apart by more than', unit: 'px', times: 1, is: 2, least: 0.2, most: 200 },
    why: 'a line’s width between what touches is seen',
  },
  alike: {
    ...{ check: 'poses', words: 'silhouettes alike by more than', ...share, is: 0.9, least: 0.3, most: 1 },
    why: 'what both cover of what either does; above it the poses are not told apart from afar',
  },
  near: {
    ...{ check: 'paint', words: 'colours nearer than', unit: 'ΔE', times: 1, is: 3, least: 0.5, most: 20 },
    why: '1 is just noticed side by side; below 3 it is one colour mixed twice',
  },
  ground: {
    ...{ check: 'ground', words: 'as its ground along more than', ...share, is: 0.3, least: 0.02, most: 1 },
    why: 'of the outline, with less than 10 of ΔE between them: a third of a shape that is lost is missed',
  },
  cut: {
    ...{ check: 'framed', words: 'outside the picture, more than', ...share, is: 0.02, least: 0.001, most: 1 },
    why: 'of a drawing: less is a line’s edge',
  },
} as const satisfies Record<string, Threshold>

export type ThresholdName = keyof typeof THRESHOLDS
export const THRESHOLD_NAMES = Object.keys(THRESHOLDS) as ThresholdName[]

/** A threshold in a shot: as somebody has set it there, or as it comes. */
export function thresholdOf(document: Pick<ShotDocument, 'thresholds'>, name: ThresholdName): number {
  const { is, least, most } = THRESHOLDS[name]
  return Math.min(most, Math.max(least, find(document.thresholds, name) ?? is))
}

/** The thresholds of a check, by name. */
export const thresholdsOf = (check: string): ThresholdName[] =>
  THRESHOLD_NAMES.filter(name => THRESHOLDS[name].check === check)

/** Sets a threshold of a shot, within its bounds; null, or the value it has anyway: as it comes. */
export function setThreshold(name: ThresholdName, value: number | null): Operation[] {
  const { is, least, most } = THRESHOLDS[name]
  const within = value === null ? null : Math.min(most, Math.max(least, value))
  return [{ kind: 'threshold.set', name, value: within === is ? null : within }]
}
