import { describe, expect, test } from '@jest/globals'
import { restingPath, type LayerPath } from '../../path/path.ts'
import { applyBatch, refuse, type Operation } from '../operations/index.ts'
import { richDocument } from '../tests/rich.ts'
import { carriedOn, laidOn, pathOf, placeOnLayer, placeSeen } from './carried.ts'
import { FIRST } from './fresh.ts'
import type { ShotDocument } from './model.ts'
import { get } from './table.ts'

const rich = richDocument()
const goes: LayerPath = { ...restingPath(64, 36), speed: { x: 2, y: 0 }, closes: 100 }
const edges = () => ({ left: 0, right: 100 })
const done = (ops: readonly Operation[], document: ShotDocument = rich): ShotDocument => {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const set = (layer: string, path: LayerPath | null): Operation => ({ kind: 'path.set', take: FIRST.take, layer, path })

describe('where a layer lies', () => {
  test('as its path says in that take; paint tied to it goes along; others lie still', () => {
    const now = done([set(FIRST.drawn, goes)])
    const take = get(now.takes, FIRST.take)
    expect(carriedOn(now, take, FIRST.drawn, 5)).toEqual([1, 0, 0, 1, 10, 0])
    expect(carriedOn(now, take, 'paint', 5)).toEqual([1, 0, 0, 1, 10, 0])
    expect(carriedOn(now, take, FIRST.background, 5)).toBeNull()
    expect(carriedOn(now, get(now.takes, 'snappy'), FIRST.drawn, 5)).toBeNull()
    expect(pathOf(now, take, 'paint')).toBe(pathOf(now, take, FIRST.drawn))
  })

  test('a strip is laid down as often as it reaches in; by its edges, which are asked for only then', () => {
    const now = done([set(FIRST.drawn, goes), set(FIRST.background, { ...goes, closes: null })])
    const take = get(now.takes, FIRST.take)
    expect(laidOn(now, take, FIRST.drawn, 10, edges)?.map(matrix => matrix[4])).toEqual([
      -80, 20, 120, 220, 320, 420, 520, 620,
    ])
    const unasked = () => {
      throw new Error('asked')
    }
    expect(laidOn(now, take, FIRST.background, 10, unasked)).toEqual([[1, 0, 0, 1, 20, 0]])
    expect(laidOn(rich, get(rich.takes, FIRST.take), FIRST.drawn, 10, unasked)).toBeNull()
  })

  test('what is for looking only is not sent off', () => {
    const now = done([set(FIRST.drawn, { ...goes, use: 'pin' })])
    const take = get(now.takes, FIRST.take)
    expect([carriedOn(now, take, FIRST.drawn, 5), carriedOn(now, take, FIRST.drawn, 5, 'sent off')]).toEqual([
      [1, 0, 0, 1, 10, 0],
      null,
    ])
    expect(laidOn(now, take, FIRST.drawn, 5, edges, 'sent off')).toBeNull()
  })

  test('places go to the picture and back', () => {
    const turned = { ...goes, keys: [{ ...goes.keys[0]!, turnRad: 0.4, y: 7 }] }
    const now = done([set(FIRST.drawn, turned)])
    const take = get(now.takes, FIRST.take)
    const seen = placeSeen(now, take, FIRST.drawn, 6, { x: 12, y: 30 })
    const back = placeOnLayer(now, take, FIRST.drawn, 6, seen)
    expect([back.x, back.y]).toEqual([expect.closeTo(12, 9), expect.closeTo(30, 9)])
    expect(placeSeen(now, take, FIRST.background, 6, { x: 1, y: 2 })).toEqual({ x: 1, y: 2 })
  })
})

describe('the path of a layer', () => {
  test('is refused for what it is not, by name', () => {
    const op = (patch: object) => refuse(rich, { ...set(FIRST.drawn, goes), ...patch } as Operation)
    expect(op({ take: 'gone' })).toEqual({ code: 'unknown-take', what: 'gone' })
    expect(op({ layer: 'gone' })).toEqual({ code: 'unknown-layer', what: 'gone' })
    expect(op({ path: { ...goes, on: 0 } })).toEqual({ code: 'bad-value', what: "frames of a place of a layer's path" })
    const late = { ...goes, keys: [{ ...goes.keys[0]!, frame: 25 }] }
    expect(op({ path: late })).toEqual({ code: 'outside-shot', what: "frame 26 of a layer's path" })
    expect(op({ path: null })).toBeNull()
  })

  test('is bounded over the whole shot, also by takes that bring theirs', () => {
    const many = (count: number): LayerPath => ({
      ...goes,
      keys: Array.from({ length: count }, (_, frame) => ({ ...goes.keys[0]!, frame })),
    })
    const long = done([{ kind: 'frames.insert', take: FIRST.take, at: 24, count: 1990, fill: {} }])
    const layers = Array.from({ length: 10 }, (_, i) => `l${i}`)
    const add = (id: string): Operation => ({
      kind: 'layer.add',
      layer: { ...get(rich.layers, FIRST.drawn), id, name: id },
    })
    const full = done([...layers.map(add), ...layers.map(id => set(id, many(1998)))], long)
    // Five on the rich one, twice: 19,990 are there, and ten more would fit.
    expect(refuse(full, set(FIRST.background, many(11)))).toMatchObject({ code: 'too-many' })
    expect(refuse(full, set(FIRST.background, many(10)))).toBeNull()
    expect(refuse(full, set('l0', many(1000)))).toBeNull()
    const take = { ...get(full.takes, FIRST.take), id: 'third' }
    expect(refuse(full, { kind: 'take.add', take })).toMatchObject({ code: 'too-many' })
    const stray = { ...get(rich.takes, 'snappy'), id: 'third', paths: { gone: goes } }
    expect(refuse(rich, { kind: 'take.add', take: stray })).toEqual({ code: 'unknown-layer', what: 'gone' })
  })

  test('goes with its layer, and comes back with it', () => {
    const layer = { ...get(rich.layers, FIRST.background), id: 'mist', name: 'mist' }
    const now = done([{ kind: 'layer.add', layer }, set('mist', goes)])
    const gone = applyBatch(now, [{ kind: 'layer.remove', id: 'mist' }])
    if (!gone.ok) throw new Error(gone.refusal.what)
    expect(Object.keys(get(gone.document.takes, FIRST.take).paths)).toEqual(['moth'])
    expect(done(gone.inverse, gone.document)).toEqual(now)
  })

  test('places taken out with their frames come back by undoing', () => {
    const cut = applyBatch(rich, [{ kind: 'frames.remove', take: FIRST.take, at: 4, count: 4 }])
    if (!cut.ok) throw new Error(cut.refusal.what)
    const frames = (document: ShotDocument) =>
      pathOf(document, get(document.takes, FIRST.take), 'moth')?.keys.map(key => key.frame)
    expect([frames(rich), frames(cut.document)]).toEqual([
      [2, 5, 6, 9, 24],
      [2, 4, 5, 20],
    ])
    expect(done(cut.inverse, cut.document)).toEqual(rich)
  })
})
