import { describe, expect, test } from '@jest/globals'
import { FIRST, freshDocument } from '@unhurried/core/document'
import {
  Batch,
  migrateDocument,
  packStrokes,
  PostBatches,
  ShotDocument,
  unpackStrokes,
  AssetText,
  SET_ASIDE_KIND,
  readSetAside,
} from './index.ts'

const element = {
  id: 'e1',
  kind: 'line',
  z: 1,
  samples: 's1',
  part: null,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
}
const batch = (op: unknown) => ({ id: 'b1', label: 'pen stroke', ops: [op] })
const add = (patch: object) => batch({ kind: 'elements.add', drawing: 'd1', elements: [{ ...element, ...patch }] })
const firstProblem = (value: unknown) => Batch.safeParse(value).error?.issues[0]?.path.join('.')

describe('what may come in', () => {
  test('a stroke is accepted as it is made', () => {
    expect(Batch.parse(add({}))).toEqual(add({}))
  })

  test.each([
    ['a kind that is none', batch({ kind: 'drop.table' }), 'ops.0.kind'],
    ['a field too many', add({ colour: 'red' }), 'ops.0.elements.0'],
    ['a width of infinity', add({ width: Infinity }), 'ops.0.elements.0.width'],
    ['a matrix of five', add({ matrix: [1, 0, 0, 1, 0] }), 'ops.0.elements.0.matrix'],
    ['an id that every object inherits', add({ id: '__proto__' }), 'ops.0.elements.0.id'],
    ['no operations', { id: 'b', label: 'x', ops: [] }, 'ops'],
    ['a frame below the first', batch({ kind: 'frames.remove', take: 't', at: -1, count: 1 }), 'ops.0.at'],
    [
      'a run of half a frame',
      batch({ kind: 'exposure.write', take: 't', layer: 'l', from: 0, runs: [{ drawing: null, frames: 0.5 }] }),
      'ops.0.runs.0.frames',
    ],
  ])('%s is refused, and the field named', (_what, value, field) => {
    expect(firstProblem(value)).toBe(field)
  })

  test('samples that are no base64, and more batches than one request may hold, are refused', () => {
    const post = (patch: object) => PostBatches.safeParse({ since: 0, batches: [], samples: {}, ...patch }).success
    expect(post({})).toBe(true)
    // Each is looked at on its own: one that is none does not make the request unfit.
    expect(post({ samples: { s1: 'not base64!' } })).toBe(true)
    for (const text of ['', 'AAAA', 'AAA=', 'AA=='])
      expect([text, AssetText.safeParse(text).success]).toEqual([text, true])
    for (const text of [
      'A',
      'AA',
      'AAAAA',
      'AA=A',
      '====',
      'not base64!',
      'A'.repeat(6_000_004),
      `${'A'.repeat(4_000_000)}!AAA`,
    ]) {
      expect([text.slice(0, 20), AssetText.safeParse(text).success]).toEqual([text.slice(0, 20), false])
    }
    expect(post({ batches: new Array(51).fill(add({})) })).toBe(false)
    expect(post({ since: 2 ** 31 - 1 })).toBe(true)
    expect(post({ since: 2 ** 31 })).toBe(false)
  })

  test('something set aside is read back from its file, of an earlier schema too, and what is wrong is named', () => {
    const file = {
      kind: SET_ASIDE_KIND,
      schema: 3,
      label: 'line on 9',
      code: 'unknown-drawing',
      what: 'gone',
      at: new Date(0).toISOString(),
      ops: [{ kind: 'marks.place', drawing: 'd', places: { tip: { x: 1, y: 2 } } }],
      samples: { s1: 'AAAA' },
    }
    const read = (patch: object) => readSetAside(JSON.stringify({ ...file, ...patch }), 'new')
    expect(read({})).toMatchObject({
      ok: true,
      batch: { id: 'new', label: 'line on 9', ops: [{ places: { tip: { x: 1, y: 2, planted: false } } }] },
    })
    for (const [patch, words] of [
      [{ kind: 'other' }, /^kind: /],
      [{ schema: 99 }, /schema 99/],
      [{ samples: { s1: 'no!' } }, /^samples\.s1: must be base64/],
      [{ ops: [{ kind: 'shot.burn' }] }, /^ops\.0\.kind: /],
    ] as const)
      expect(read(patch)).toEqual({ ok: false, words: expect.stringMatching(words) })
    expect(readSetAside('{', 'new')).toEqual({ ok: false, words: 'this is no file of this kind' })
  })
})

describe('stored documents', () => {
  const document = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 24)

  test('a fresh one is a valid one, and one from the future is not read', () => {
    expect(ShotDocument.parse(document)).toEqual(document)
    expect(migrateDocument(document)).toBe(document)
    expect(() => migrateDocument({ schema: 99 })).toThrow('schema 99')
    expect(Object.keys(document.takes[FIRST.take]?.columns ?? {})).toEqual(Object.keys(document.layers))
  })
})

describe('packed strokes', () => {
  test('come apart as they were put together', () => {
    const strokes = new Map([
      ['a', Uint8Array.from([1, 2, 3])],
      ['long-id_7', new Uint8Array(70_000).fill(9)],
    ])
    expect(unpackStrokes(packStrokes(strokes))).toEqual(strokes)
    expect(unpackStrokes(new Uint8Array())).toEqual(new Map())
  })

  test('cut short they are refused', () => {
    const packed = packStrokes([['a', Uint8Array.from([1, 2, 3])]])
    expect(() => unpackStrokes(packed.subarray(0, packed.length - 1))).toThrow('cut short')
  })
})
