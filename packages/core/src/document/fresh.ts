import { DOCUMENT_SCHEMA, type Format, type ShotDocument, type Swatch } from './model.ts'

/** The colours on a new shot's palette strip. */
const SWATCHES: readonly Swatch[] = [
  { id: 'graphite', name: 'graphite', colour: '#2f2c28' },
  { id: 'bark', name: 'bark', colour: '#8a5a3c' },
  { id: 'leaf', name: 'leaf', colour: '#7f9c5c' },
  { id: 'moss', name: 'moss', colour: '#64804a' },
  { id: 'straw', name: 'straw', colour: '#cdb968' },
  { id: 'pond', name: 'pond', colour: '#5b7f95' },
  { id: 'lily', name: 'lily pad', colour: '#cddbbb' },
  { id: 'mist', name: 'mist', colour: '#e6ece0' },
  { id: 'lamp', name: 'lamplight', colour: '#f3dfae' },
]

/** Ids that every new document starts with. */
export const FIRST = { take: 'take-1', drawn: 'layer-1', background: 'layer-bg' } as const

/** A new shot: one drawn layer over one background, one take of empty frames, a small palette. `frames` at least 1. */
export function freshDocument(format: Format, frames: number, layerName = 'figure'): ShotDocument {
  const empty = [{ drawing: null, frames }]
  return {
    schema: DOCUMENT_SCHEMA,
    format,
    layers: {
      [FIRST.background]: {
        id: FIRST.background,
        name: 'background',
        kind: 'background',
        order: 0,
        locked: false,
        follows: null,
      },
      [FIRST.drawn]: { id: FIRST.drawn, name: layerName, kind: 'drawn', order: 1, locked: false, follows: null },
    },
    drawings: {},
    charts: {},
    takes: {
      [FIRST.take]: {
        id: FIRST.take,
        name: 'first take',
        order: 0,
        length: frames,
        loop: null,
        columns: { [FIRST.background]: empty, [FIRST.drawn]: empty },
        cycles: {},
        pins: {},
      },
    },
    current: FIRST.take,
    swatches: Object.fromEntries(SWATCHES.map(swatch => [swatch.id, swatch])),
    marks: {},
    beats: {},
    notes: {},
    way: 'pose-to-pose',
  }
}
