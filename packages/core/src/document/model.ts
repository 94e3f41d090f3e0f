import type { Preset } from '../chart/ease.ts'
import type { Tick } from '../chart/halves.ts'
import type { Matrix } from '../geometry/matrix.ts'
import type { Run } from '../time/exposure.ts'
import type { LoopRange } from '../time/loop.ts'
import type { Table } from './table.ts'

/** The version of the stored form below. Older stored documents are brought up to it when they are read. */
export const DOCUMENT_SCHEMA = 1

/** The sheet the film is drawn on. */
export interface Format {
  /** size of the picture in pixels */
  readonly width: number
  readonly height: number
  /** delivery rate, whole frames a second */
  readonly fps: number
  /** paper colour, #rrggbb */
  readonly paper: string
}

/** A column of the exposure sheet. A background is exposed like a drawn layer but never counted as animation. */
export interface Layer {
  readonly id: string
  readonly name: string
  readonly kind: 'drawn' | 'background'
  /** layers are painted from the lowest order up */
  readonly order: number
}

/** Key: tells the story. Breakdown: decides how two keys are connected. Inbetween: the rest. */
export const ROLES = ['key', 'breakdown', 'inbetween'] as const
export type Role = (typeof ROLES)[number]

/** One pen stroke: which stored samples, what part of them, moved how, and in which colour and width. */
export interface Element {
  readonly id: string
  /** a line with thickness, or a painted shape bounded by the path */
  readonly kind: 'line' | 'shape'
  /** painted from the lowest up; shapes always lie under lines */
  readonly z: number
  /** id of the stored samples; several elements may share them */
  readonly samples: string
  /** inclusive range of samples used, or null for all */
  readonly part: readonly [number, number] | null
  readonly matrix: Matrix | null
  readonly swatch: string
  /** pixels at full pressure, before the matrix */
  readonly width: number
}

/** One sheet on one layer. */
export interface Drawing {
  readonly id: string
  readonly layer: string
  /** the number written on the sheet; not the frame and not the order of drawing */
  readonly number: number
  readonly role: Role
  readonly elements: Table<Element>
}

/** A tick of a chart together with the drawing made for it, once there is one. */
export interface ChartTick extends Tick {
  readonly drawing: string | null
}

/** The spacing plan between two keys of a layer. */
export interface Chart {
  readonly id: string
  readonly layer: string
  /** the two keys: ids of drawings */
  readonly from: string
  readonly to: string
  readonly preset: Preset
  readonly ticks: readonly ChartTick[]
}

/** One timing of the drawings: an exposure sheet with a column for every layer. */
export interface Take {
  readonly id: string
  readonly name: string
  /** frames */
  readonly length: number
  readonly loop: LoopRange | null
  /** every layer has a column that covers exactly `length` frames */
  readonly columns: Table<readonly Run[]>
}

/** A labelled colour. */
export interface Swatch {
  readonly id: string
  readonly name: string
  /** #rrggbb */
  readonly colour: string
}

/** Everything about one shot: a plain value, replaced as a whole, never changed in place. */
export interface ShotDocument {
  readonly schema: typeof DOCUMENT_SCHEMA
  readonly format: Format
  readonly layers: Table<Layer>
  readonly drawings: Table<Drawing>
  readonly charts: Table<Chart>
  readonly takes: Table<Take>
  readonly swatches: Table<Swatch>
}

/** Bounds of what a document may hold; operations that would pass them are refused. */
export const LIMITS = {
  layers: 40,
  drawings: 6000,
  elementsPerDrawing: 5000,
  charts: 2000,
  sizePx: 8192,
  fps: 120,
  lineWidthPx: 600,
} as const
