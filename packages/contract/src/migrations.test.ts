import { describe, expect, test } from '@jest/globals'
import { applyBatch, DOCUMENT_SCHEMA, FIRST, freshDocument, type Take } from '@unhurried/core/document'
import { Batch, migrateDocument, migrateOperations, ShotDocument } from './index.ts'

/** A shot as the first schema stored it: no locks, marks, cycles, takes to choose from; charts with a bare preset. */
const FIRST_SCHEMA = {
  schema: 1,
  format: { width: 640, height: 360, fps: 24, paper: '#fdfaf3' },
  layers: { 'layer-1': { id: 'layer-1', name: 'figure', kind: 'drawn', order: 1 } },
  drawings: {
    a: { id: 'a', layer: 'layer-1', number: 1, role: 'key', elements: {} },
    b: { id: 'b', layer: 'layer-1', number: 5, role: 'key', elements: {} },
  },
  charts: {
    c: {
      id: 'c',
      layer: 'layer-1',
      from: 'a',
      to: 'b',
      preset: 'favour-a',
      ticks: [{ at: { num: 1, den: 3 }, left: -1, right: -2, ratio: '1/3', depth: 0, drawing: null }],
    },
  },
  takes: {
    'take-1': {
      id: 'take-1',
      name: 'first take',
      length: 8,
      loop: null,
      columns: {
        'layer-1': [
          { drawing: 'a', frames: 4 },
          { drawing: 'b', frames: 4 },
        ],
      },
    },
  },
  swatches: { graphite: { id: 'graphite', name: 'graphite', colour: '#2f2c28' } },
}

/** Operations as desks of the first schema sent them. */
const FIRST_OPERATIONS = [
  { kind: 'layer.add', layer: { id: 'bag', name: 'satchel', kind: 'drawn', order: 2 } },
  { kind: 'drawing.add', drawing: { id: 's', layer: 'bag', number: 1, role: 'key', elements: {} } },
  { kind: 'chart.remove', id: 'c' },
  { kind: 'chart.add', chart: { ...FIRST_SCHEMA.charts.c, preset: 'even', ticks: [] } },
  { kind: 'chart.set', id: 'c', patch: { preset: 'slow-in' } },
  { kind: 'chart.set', id: 'c', patch: { ticks: [] } },
]

/** What layers of the first schemas get. */
const FIFTH = { follows: null, counted: false, volume: 'flat', left: null }

const element = {
  id: 'e',
  kind: 'line',
  z: 1,
  samples: 's',
  part: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
}

describe('documents and operations of earlier schemas', () => {
  const document = migrateDocument(FIRST_SCHEMA)

  test('a document of the first schema becomes a valid one of the present, with nothing lost', () => {
    expect(ShotDocument.parse(document)).toEqual(document)
    expect([document.schema, document.current, document.way]).toEqual([DOCUMENT_SCHEMA, 'take-1', 'pose-to-pose'])
    expect(document.layers['layer-1']).toEqual({ ...FIRST_SCHEMA.layers['layer-1'], locked: false, ...FIFTH })
    expect(document.takes['take-1']?.columns).toEqual(FIRST_SCHEMA.takes['take-1'].columns)
    expect(document.charts.c).toMatchObject({
      part: null,
      wish: { ease: 'favour-a', strength: 0.5, thirds: true, points: [] },
      ticks: FIRST_SCHEMA.charts.c.ticks,
    })
    expect(document.charts.c).not.toHaveProperty('preset')
  })

  test('its journal can be replayed on it', () => {
    const ops = migrateOperations(FIRST_OPERATIONS, 1)
    expect(Batch.parse({ id: 'b', label: 'old', ops })).toEqual({ id: 'b', label: 'old', ops })
    const result = applyBatch(document, ops)
    if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
    expect(result.document.charts.c?.wish.ease).toBe('slow-in')
    expect(result.document.drawings.s?.marks).toEqual({})
  })

  test('strokes of the second schema were drawn with a round ink nib, and are not labelled', () => {
    const { nib, label, ...before } = element
    const op = { kind: 'elements.add', drawing: 'a', elements: [before] }
    expect(migrateOperations([op], 2)).toEqual([{ ...op, elements: [element] }])
    const drawing = { id: 'd', layer: 'layer-1', number: 1, role: 'key', elements: { e: before }, marks: {} }
    const [added] = migrateOperations([{ kind: 'drawing.add', drawing }], 2)
    expect(added).toEqual({ kind: 'drawing.add', drawing: { ...drawing, elements: { e: element } } })
    expect([nib.look, label]).toEqual(['ink', null])
    expect(Batch.safeParse({ id: 'b', label: 'x', ops: [op] }).success).toBe(false)
  })

  test('layers of the third schema followed none, and its marks were not planted', () => {
    const layer = { id: 'bag', name: 'satchel', kind: 'drawn', order: 2, locked: false }
    const drawing = { id: 'd', layer: 'bag', number: 1, role: 'key', elements: {}, marks: { clasp: { x: 1, y: 2 } } }
    const stored = { ...freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4), schema: 3 }
    const third = { ...stored, layers: { bag: layer }, drawings: { d: drawing } }
    const now = migrateDocument(third as { schema: number })
    const clasp = { x: 1, y: 2, planted: false }
    expect([now.schema, now.layers.bag, now.drawings.d?.marks]).toEqual([
      DOCUMENT_SCHEMA,
      { ...layer, ...FIFTH },
      { clasp },
    ])
    const ops = [
      { kind: 'layer.add', layer },
      { kind: 'drawing.add', drawing },
      { kind: 'marks.place', drawing: 'd', places: { clasp: { x: 1, y: 2 }, buckle: null } },
    ]
    expect(migrateOperations(ops, 3)).toEqual([
      { kind: 'layer.add', layer: { ...layer, ...FIFTH } },
      { kind: 'drawing.add', drawing: { ...drawing, marks: { clasp } } },
      { kind: 'marks.place', drawing: 'd', places: { clasp, buckle: null } },
    ])
  })

  test('layers of the fourth schema were flat, takes of one length, marks points; new drawings got the usual exposure', () => {
    const layer = { id: 'bag', name: 'satchel', kind: 'drawn', order: 2, locked: false, follows: null }
    const mark = { id: 'clasp', layer: 'bag', name: 'clasp', order: 1 }
    const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const take = Object.fromEntries(Object.entries(fresh.takes[FIRST.take] ?? {}).filter(([key]) => key !== 'open'))
    const shot = Object.fromEntries(Object.entries(fresh).filter(([key]) => key !== 'exposure'))
    const fourth = { ...shot, schema: 4, layers: { bag: layer }, marks: { clasp: mark }, takes: { [FIRST.take]: take } }
    const now = migrateDocument({ ...fourth, swatches: { reed: { id: 'reed', name: 'reed', colour: '#b9b394' } } } as {
      schema: number
    })
    expect(now.swatches.reed?.order).toBe(0)
    expect([now.layers.bag, now.marks.clasp, now.takes[FIRST.take]?.open, now.exposure]).toEqual([
      { ...layer, ...FIFTH },
      { ...mark, kind: 'point' },
      false,
      1,
    ])
    const ops = [
      { kind: 'layer.add', layer },
      { kind: 'mark.add', mark },
      { kind: 'take.add', take },
    ]
    expect(migrateOperations(ops, 4)).toEqual([
      { kind: 'layer.add', layer: { ...layer, ...FIFTH } },
      { kind: 'mark.add', mark: { ...mark, kind: 'point' } },
      { kind: 'take.add', take: { ...take, open: false, paths: {} } },
    ])
  })

  test('guides of the sixth schema were neither dimmed nor locked, and nothing was known of what they laid', () => {
    const guide = { id: 'g', recipe: 'bounce', numbers: {}, take: FIRST.take, layer: FIRST.drawn, from: 3, shown: true }
    const shot = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const now = migrateDocument({ ...shot, schema: 6, guides: { g: guide } } as unknown as { schema: number })
    const seventh = { ...guide, dimmed: false, locked: false, laid: { drawings: [], beats: [] } }
    expect([now.schema, now.guides.g]).toEqual([DOCUMENT_SCHEMA, seventh])
    expect(migrateOperations([{ kind: 'guide.add', guide }], 6)).toEqual([{ kind: 'guide.add', guide: seventh }])
  })

  test('no layer of the seventh schema moved as a whole', () => {
    const shot = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const { paths: _, ...take } = shot.takes[FIRST.take] as Take
    const now = migrateDocument({ ...shot, schema: 7, takes: { [FIRST.take]: take } } as unknown as { schema: number })
    expect([now.schema, now.takes[FIRST.take]]).toEqual([DOCUMENT_SCHEMA, { ...take, paths: {} }])
    expect(migrateOperations([{ kind: 'take.add', take }], 7)).toEqual([
      { kind: 'take.add', take: { ...take, paths: {} } },
    ])
  })

  test('the way of a layer of the eighth schema was spaced by a preset of some strength, and never by halves', () => {
    const shot = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const at = { frame: 2, x: 3, y: 4, turnRad: 0 }
    const rest = { speed: { x: 1, y: 0 }, pivot: { x: 0, y: 0 }, whole: false, on: 2, closes: null, use: 'moves' }
    const eighth = { ...rest, keys: [{ ...at, ease: 'slow-in', strength: 0.3 }] }
    const wish = { ease: 'slow-in', strength: 0.3, thirds: false, points: [] }
    const ninth = { ...rest, keys: [{ ...at, wish, halves: false }] }
    const take = { ...(shot.takes[FIRST.take] as Take), paths: { [FIRST.drawn]: eighth } }
    const now = migrateDocument({ ...shot, schema: 8, takes: { [FIRST.take]: take } } as unknown as { schema: number })
    expect(ShotDocument.parse(now)).toEqual(now)
    expect(now.takes[FIRST.take]?.paths).toEqual({ [FIRST.drawn]: ninth })
    const set = { kind: 'path.set', take: FIRST.take, layer: FIRST.drawn }
    const ops = [
      { kind: 'take.add', take },
      { ...set, path: eighth },
      { ...set, path: null },
    ]
    expect(migrateOperations(ops, 8)).toEqual([
      { kind: 'take.add', take: { ...take, paths: { [FIRST.drawn]: ninth } } },
      { ...set, path: ninth },
      { ...set, path: null },
    ])
  })

  test('sounds say whose they are, points are followed, and a shot is one’s own until it says otherwise', () => {
    const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const { points: _points, study: _study, ...rest } = fresh
    const sound = { id: 's', name: 'voice', mine: true }
    const old = migrateDocument({ ...rest, sounds: { s: sound }, schema: 9 } as unknown as { schema: number })
    expect(old).toMatchObject({ schema: DOCUMENT_SCHEMA, points: {}, study: '', sounds: { s: { source: '' } } })
    expect(migrateOperations([{ kind: 'sound.add', sound }], 9)).toEqual([
      { kind: 'sound.add', sound: { ...sound, source: '' } },
    ])
  })

  test('a shot is cut to no other shape until it says so', () => {
    const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const { cuts: _cuts, ...rest } = fresh
    expect(migrateDocument({ ...rest, schema: 12 } as unknown as { schema: number })).toEqual(fresh)
    const op = { kind: 'shot.set', patch: { way: 'mixed' } }
    expect(migrateOperations([op], 12)).toEqual([op])
  })

  test('pictures are seen whole, and are no placeholders, until they say otherwise; strokes are left as they are', () => {
    const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    const [picture, line] = [
      { id: 'p', kind: 'picture', opacity: 1 },
      { id: 'l', kind: 'line', width: 3 },
    ]
    const drawing = { id: 'd', elements: { p: picture, l: line }, marks: {} }
    const { ceiling: _ceiling, accepted: _accepted, ...rest } = fresh
    const clip = { id: 'c', name: 'reeds' }
    const tenth = { ...rest, drawings: { d: drawing }, clips: { c: clip }, schema: 10 } as unknown as { schema: number }
    const whole = { ...picture, cut: null, placeholder: false }
    expect(migrateDocument(tenth)).toMatchObject({
      ceiling: null,
      accepted: {},
      clips: { c: { ...clip, mine: false, notes: [] } },
    })
    expect(migrateOperations([{ kind: 'clip.add', clip }], 10)).toEqual([
      { kind: 'clip.add', clip: { ...clip, mine: false, notes: [] } },
    ])
    expect(migrateDocument(tenth).drawings.d?.elements).toEqual({ p: whole, l: line })
    expect(
      migrateOperations(
        [
          { kind: 'drawing.add', drawing },
          { kind: 'elements.add', drawing: 'd', elements: [picture, line] },
        ],
        10,
      ),
    ).toEqual([
      { kind: 'drawing.add', drawing: { ...drawing, elements: { p: whole, l: line } } },
      { kind: 'elements.add', drawing: 'd', elements: [whole, line] },
    ])
  })

  test('what is of the present schema is left as it is; what is from the future is not read', () => {
    const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 4)
    expect(migrateDocument(fresh)).toBe(fresh)
    const op = { kind: 'loop.set', take: FIRST.take, loop: null }
    expect(migrateOperations([op], DOCUMENT_SCHEMA)).toEqual([op])
    for (const schema of [0, 1.5, DOCUMENT_SCHEMA + 1, NaN]) {
      expect(() => migrateOperations([op], schema)).toThrow(`schema ${schema}`)
    }
  })
})

describe('what may come in around the drawings', () => {
  const refusedAt = (op: unknown) =>
    Batch.safeParse({ id: 'b1', label: 'x', ops: [op] }).error?.issues[0]?.path.join('.')
  const pattern = [{ drawing: 'a', frames: 2 }]

  test.each([
    ['a mark nowhere', { kind: 'marks.place', drawing: 'd', places: { m: { x: NaN, y: 0 } } }, 'ops.0.places.m.x'],
    ['a beat between frames', { kind: 'beat.add', beat: { id: 'b', name: 'x', frame: 1.5 } }, 'ops.0.beat.frame'],
    ['a note of nothing', { kind: 'note.add', note: { id: 'n', from: 0, to: 2, text: ' ' } }, 'ops.0.note.text'],
    ['a note without end', { kind: 'note.set', id: 'n', patch: { text: 'x'.repeat(501) } }, 'ops.0.patch.text'],
    ['a shape twice', { kind: 'shot.set', patch: { cuts: ['tall', 'tall'] } }, 'ops.0.patch.cuts'],
    ['a shape that is none', { kind: 'shot.set', patch: { cuts: ['oval'] } }, 'ops.0.patch.cuts.0'],
    ['an unknown way of working', { kind: 'shot.set', patch: { way: 'sideways' } }, 'ops.0.patch.way'],
    [
      'a cycle with a negative offset',
      { kind: 'cycle.add', take: 't', cycle: { id: 'y', layer: 'l', from: 0, to: null, offset: -1, pattern } },
      'ops.0.cycle.offset',
    ],
    ['a colour by name', { kind: 'swatch.set', id: 's', patch: { colour: 'red' } }, 'ops.0.patch.colour'],
    ['a kind of layer that is none', { kind: 'layer.set', id: 'l', patch: { kind: 'camera' } }, 'ops.0.patch.kind'],
    [
      'a wish stronger than strong',
      { kind: 'chart.set', id: 'c', patch: { wish: { ease: 'even', strength: 2, thirds: false, points: [] } } },
      'ops.0.patch.wish.strength',
    ],
  ])('%s is refused, and the field named', (_what, op, field) => {
    expect(refusedAt(op)).toBe(field)
  })
})
