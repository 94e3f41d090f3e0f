import { presetWish, type Preset } from '@unhurried/core/chart'
import { DOCUMENT_SCHEMA, openedForm, usualOn, type Operation, type ShotDocument } from '@unhurried/core/document'

/*
 * Stored documents and operations of earlier schemas, brought up to the present one. Every step is pure, knows only its
 * two neighbours and treats a stored value as what it is: plain JSON.
 */
type Json = Record<string, unknown>
type JsonTable = Record<string, Json>

interface Step {
  readonly document: (stored: Json) => Json
  readonly operation: (stored: Json) => Json
}

const mapped = (table: unknown, change: (thing: Json) => Json | null): Record<string, Json | null> =>
  Object.fromEntries(Object.entries(table as JsonTable).map(([id, thing]) => [id, change(thing)]))

const layer2 = (layer: Json): Json => ({ locked: false, ...layer })
const drawing2 = (drawing: Json): Json => ({ marks: {}, ...drawing })
const chart2 = (chart: Json): Json => ({ part: null, ...wish2(chart) })
const take2 = (take: Json): Json => ({ order: 0, cycles: {}, pins: {}, ...take })

function wish2({ preset, ...rest }: Json): Json {
  return preset === undefined ? rest : { ...rest, wish: presetWish(preset as Preset) }
}

const element3 = (element: Json): Json => ({
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
  ...element,
})
const drawing3 = (drawing: Json): Json => ({ ...drawing, elements: mapped(drawing.elements, element3) })

const layer4 = (layer: Json): Json => ({ follows: null, ...layer })
const place4 = (place: Json): Json => ({ planted: false, ...place })
const drawing4 = (drawing: Json): Json => ({ ...drawing, marks: mapped(drawing.marks, place4) })

const layer5 = (layer: Json): Json => ({ counted: false, volume: 'flat', left: null, ...layer })
const mark5 = (mark: Json): Json => ({ kind: 'point', ...mark })
const swatch5 = (swatch: Json): Json => ({ order: 0, ...swatch })
const take5 = (take: Json): Json => ({ open: false, ...take })

/** Drawings hold pictures beside strokes from then on, and shots guides. */
const step5: Step = { document: stored => ({ guides: {}, ...stored, schema: 6 }), operation: op => op }

const guide7 = (guide: Json): Json => ({ dimmed: false, locked: false, laid: { drawings: [], beats: [] }, ...guide })
/** Guides know what was laid by them, and can be dimmed and locked; a shot may know how large a metre is. */
const step6: Step = {
  document: stored => ({ scale: null, ...stored, schema: 7, guides: mapped(stored.guides, guide7) }),
  operation: op => (op.kind === 'guide.add' ? { ...op, guide: guide7(op.guide as Json) } : op),
}

const take8 = (take: Json): Json => ({ paths: {}, ...take })
/** Layers can move as a whole from then on. */
const step7: Step = {
  document: stored => ({ ...stored, schema: 8, takes: mapped(stored.takes, take8) }),
  operation: op => (op.kind === 'take.add' ? { ...op, take: take8(op.take as Json) } : op),
}

const key9 = ({ ease, strength, ...key }: Json): Json => ({
  ...key,
  wish: presetWish(ease as Preset, strength as number),
  halves: false,
})
const path9 = (path: Json): Json => ({ ...path, keys: (path.keys as Json[]).map(key9) })
const take9 = (take: Json): Json => ({ ...take, paths: mapped(take.paths, path9) })
/** The way of a layer can be spaced by everything a chart can be wished to be; shots have sounds, spoken words and clips. */
const step8: Step = {
  document: stored => ({ sounds: {}, words: {}, clips: {}, ...stored, schema: 9, takes: mapped(stored.takes, take9) }),
  operation(op) {
    if (op.kind === 'take.add') return { ...op, take: take9(op.take as Json) }
    return op.kind === 'path.set' && op.path ? { ...op, path: path9(op.path as Json) } : op
  },
}

const sound10 = (sound: Json): Json => ({ source: '', ...sound })
/** Points are followed through clips; whose a sound is, and that a shot is a study, can be said. */
const step9: Step = {
  document: stored => ({ points: {}, study: '', ...stored, schema: 10, sounds: mapped(stored.sounds, sound10) }),
  operation: op => (op.kind === 'sound.add' ? { ...op, sound: sound10(op.sound as Json) } : op),
}

const element11 = (element: Json): Json =>
  element.kind === 'picture' ? { cut: null, placeholder: false, ...element } : element
const clip11 = (clip: Json): Json => ({ mine: false, notes: [], ...clip })
const drawing11 = (drawing: Json): Json => ({ ...drawing, elements: mapped(drawing.elements, element11) })
/** Pictures can be cut, and stand for something that is still to be drawn; a shot may have a ceiling for its steps; clips have notes, and say whether they are one's own; findings can be meant so. */
const step10: Step = {
  document: stored => ({
    ceiling: null,
    accepted: {},
    ...stored,
    schema: 11,
    drawings: mapped(stored.drawings, drawing11),
    clips: mapped(stored.clips, clip11),
  }),
  operation(op) {
    if (op.kind === 'clip.add') return { ...op, clip: clip11(op.clip as Json) }
    if (op.kind === 'drawing.add') return { ...op, drawing: drawing11(op.drawing as Json) }
    return op.kind === 'elements.add' ? { ...op, elements: (op.elements as Json[]).map(element11) } : op
  },
}

/** Something can be said of stretches, remarked on frames, looked at by somebody; checks can begin to speak at other values. */
const step11: Step = {
  document: stored => ({ sayings: {}, remarks: {}, looked: {}, thresholds: {}, ...stored, schema: 12 }),
  operation: op => op,
}

/** A shot may be shown in other shapes too. */
const step12: Step = {
  document: stored => ({ cuts: [], ...stored, schema: 13 }),
  operation: op => op,
}

/** Steps by the schema they start from. */
const STEPS: Readonly<Record<number, Step>> = {
  1: {
    document: stored => ({
      ...stored,
      schema: 2,
      layers: mapped(stored.layers, layer2),
      drawings: mapped(stored.drawings, drawing2),
      charts: mapped(stored.charts, chart2),
      takes: mapped(stored.takes, take2),
      current: Object.keys(stored.takes as Json)[0],
      marks: {},
      beats: {},
      notes: {},
      way: 'pose-to-pose',
    }),
    operation(op) {
      switch (op.kind) {
        case 'layer.add':
          return { ...op, layer: layer2(op.layer as Json) }
        case 'drawing.add':
          return { ...op, drawing: drawing2(op.drawing as Json) }
        case 'chart.add':
          return { ...op, chart: chart2(op.chart as Json) }
        case 'chart.set':
          return { ...op, patch: wish2(op.patch as Json) }
        default:
          return op
      }
    },
  },
  2: {
    document: stored => ({ ...stored, schema: 3, drawings: mapped(stored.drawings, drawing3) }),
    operation(op) {
      switch (op.kind) {
        case 'drawing.add':
          return { ...op, drawing: drawing3(op.drawing as Json) }
        case 'elements.add':
          return { ...op, elements: (op.elements as Json[]).map(element3) }
        default:
          return op
      }
    },
  },
  3: {
    document: stored => ({
      ...stored,
      schema: 4,
      layers: mapped(stored.layers, layer4),
      drawings: mapped(stored.drawings, drawing4),
    }),
    operation(op) {
      switch (op.kind) {
        case 'layer.add':
          return { ...op, layer: layer4(op.layer as Json) }
        case 'drawing.add':
          return { ...op, drawing: drawing4(op.drawing as Json) }
        case 'marks.place':
          return { ...op, places: mapped(op.places, place => place && place4(place)) }
        default:
          return op
      }
    },
  },
  4: {
    document: stored => ({
      ...stored,
      schema: 5,
      layers: mapped(stored.layers, layer5),
      takes: mapped(stored.takes, take5),
      marks: mapped(stored.marks, mark5),
      swatches: mapped(stored.swatches, swatch5),
      exposure: usualOn((stored.format as { fps: number }).fps),
    }),
    operation(op) {
      switch (op.kind) {
        case 'layer.add':
          return { ...op, layer: layer5(op.layer as Json) }
        case 'mark.add':
          return { ...op, mark: mark5(op.mark as Json) }
        case 'swatch.add':
          return { ...op, swatch: swatch5(op.swatch as Json) }
        case 'take.add':
          return { ...op, take: take5(op.take as Json) }
        default:
          return op
      }
    },
  },
  5: step5,
  6: step6,
  7: step7,
  8: step8,
  9: step9,
  10: step10,
  11: step11,
  12: step12,
}

function climb(value: Json, schema: number, which: keyof Step): Json {
  if (!Number.isInteger(schema) || schema < 1 || schema > DOCUMENT_SCHEMA) {
    throw new RangeError(`this was stored with schema ${schema}; up to ${DOCUMENT_SCHEMA} can be read`)
  }
  let now = value
  for (let at = schema; at < DOCUMENT_SCHEMA; at++) now = (STEPS[at] as Step)[which](now)
  return now
}

/** A stored document of any schema so far as one of the present, whole again. Throws a RangeError on a document from the future. */
export function migrateDocument(stored: { schema: number }): ShotDocument {
  return openedForm(climb(stored as unknown as Json, stored.schema, 'document') as unknown as ShotDocument)
}

/** Operations stored with an earlier schema as ones of the present. Throws a RangeError on operations from the future. */
export function migrateOperations(stored: readonly object[], schema: number): Operation[] {
  return stored.map(op => climb(op as Json, schema, 'operation') as unknown as Operation)
}
