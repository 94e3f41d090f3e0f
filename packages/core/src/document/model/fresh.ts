import { DOCUMENT_SCHEMA, type Format, type Layer, type ShotDocument, type Swatch } from './model.ts'

/** The colours on a new shot's palette strip. */
const SWATCHES = [
  { id: 'graphite', name: 'graphite', colour: '#2f2c28' },
  { id: 'bark', name: 'bark', colour: '#8a5a3c' },
  { id: 'leaf', name: 'leaf', colour: '#7f9c5c' },
  { id: 'moss', name: 'moss', colour: '#64804a' },
  { id: 'straw', name: 'straw', colour: '#cdb968' },
  { id: 'pond', name: 'pond', colour: '#5b7f95' },
  { id: 'lily', name: 'lily pad', colour: '#cddbbb' },
  { id: 'mist', name: 'pale green', colour: '#e6ece0' },
  { id: 'lamp', name: 'lamplight', colour: '#f3dfae' },
]

/** Ids that every new document starts with. */
export const FIRST = { take: 'take-1', drawn: 'layer-1', background: 'layer-bg' } as const

/** A layer with a timing of its own and nothing set about it yet. */
export function newLayer(id: string, name: string, order: number, more: Partial<Layer> = {}): Layer {
  return {
    id,
    name,
    kind: 'drawn',
    order,
    locked: false,
    follows: null,
    counted: false,
    volume: 'flat',
    left: null,
    ...more,
  }
}

/** The frames a new drawing gets unless told otherwise: ones up to 15 frames a second, else twos. */
export const usualOn = (fps: number): number => (fps <= 15 ? 1 : 2)

/** A new shot: one drawn layer over one background, one take of empty frames, a small palette. `frames` at least 1. */
export function freshDocument(format: Format, frames: number, layerName = 'figure'): ShotDocument {
  const empty = [{ drawing: null, frames }]
  return {
    schema: DOCUMENT_SCHEMA,
    format,
    layers: {
      [FIRST.background]: newLayer(FIRST.background, 'background', 0, { kind: 'background' }),
      [FIRST.drawn]: newLayer(FIRST.drawn, layerName, 1),
    },
    drawings: {},
    charts: {},
    takes: {
      [FIRST.take]: {
        id: FIRST.take,
        name: 'first take',
        order: 0,
        length: frames,
        open: false,
        loop: null,
        columns: { [FIRST.background]: empty, [FIRST.drawn]: empty },
        cycles: {},
        paths: {},
        pins: {},
      },
    },
    current: FIRST.take,
    swatches: Object.fromEntries(SWATCHES.map((swatch, order): [string, Swatch] => [swatch.id, { ...swatch, order }])),
    marks: {},
    beats: {},
    notes: {},
    accepted: {},
    sayings: {},
    remarks: {},
    looked: {},
    thresholds: {},
    guides: {},
    sounds: {},
    words: {},
    clips: {},
    points: {},
    way: 'pose-to-pose',
    exposure: usualOn(format.fps),
    scale: null,
    ceiling: null,
    study: '',
    cuts: [],
  }
}
