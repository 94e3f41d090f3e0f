import { describe, expect, test } from '@jest/globals'
import { LIMITS, type Drawing, type ShotDocument } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { layersInOrder, marksOf } from '../model/selectors.ts'
import { richDocument } from '../tests/rich.ts'
import { addBeats, pinKey, removeBeat, renameBeat } from './beats.ts'
import { addLayer, addPaint, moveLayer } from './layers.ts'
import { addMark, orderMarks, plantMark, removeMark } from './marks.ts'
import { addNote, changeNote } from './notes.ts'
import { broughtLine } from './bringIn.ts'
import { addSwatch, swatchesFor } from './swatches.ts'

const rich = richDocument()
const done = (ops: readonly Operation[], on = rich): ShotDocument => {
  const result = applyBatch(on, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const order = (document: ShotDocument) => layersInOrder(document).map(layer => layer.id)

describe('small acts', () => {
  test('layers: on top, paint right under its line, by one place up and down, and nowhere past the ends', () => {
    const before = order(rich)
    expect(order(done(addLayer(rich, 'top', 'top'))).at(-1)).toBe('top')
    const line = rich.layers['layer-1'] as ShotDocument['layers'][string]
    const painted = order(done(addPaint(rich, line, 'under', 'under')))
    expect(painted[painted.indexOf('layer-1') - 1]).toBe('under')
    for (const id of before) {
      for (const by of [1, -1] as const) {
        const at = before.indexOf(id)
        const after = order(done(moveLayer(rich, id, by)))
        const there = Math.max(0, Math.min(before.length - 1, at + by))
        expect([id, by, after.indexOf(id)]).toEqual([id, by, there])
        expect([...after].sort()).toEqual([...before].sort())
      }
    }
    // Layers of one order lie by id, and part when one is moved.
    const level = done(before.map((id): Operation => ({ kind: 'layer.set', id, patch: { order: 1 } })))
    const [first] = order(level)
    expect(order(done(moveLayer(level, first as string, 1), level)).indexOf(first as string)).toBeGreaterThan(0)
  })

  test('a mark goes with its places and charts; planting changes only what is otherwise', () => {
    const chart = { ...rich.charts['ac'], id: 'ac-nose', part: 'nose' } as ShotDocument['charts'][string]
    const charted = done([{ kind: 'chart.add', chart }])
    const gone = done(removeMark(charted, 'nose'), charted)
    expect([gone.marks['nose'], gone.drawings['a']?.marks, gone.charts['ac-nose']]).toEqual([undefined, {}, undefined])
    const drawings = Object.values(rich.drawings) as Drawing[]
    expect(plantMark(drawings, 'nose', true)).toEqual([])
    expect(done(plantMark(drawings, 'nose', false)).drawings['a']?.marks['nose']?.planted).toBe(false)
    expect(done(addMark(rich, 'layer-1', 'heel', 'heel', 'point')).marks['heel']?.order).toBe(3)
    expect(done(addMark(rich, 'moth', 'wing', 'wing', 'point')).marks['wing']?.order).toBe(1)
    // In another order: what is not named stays behind, in its own.
    const three = done(addMark(rich, 'layer-1', 'heel', 'heel', 'point'))
    const names = (document: typeof rich) => marksOf(document, 'layer-1').map(mark => mark.id)
    expect(names(three)).toEqual(['nose', 'tail', 'heel'])
    expect(names(done(orderMarks(three, 'layer-1', ['heel', 'nobody']), three))).toEqual(['heel', 'nose', 'tail'])
    expect(orderMarks(done(orderMarks(three, 'layer-1', []), three), 'layer-1', ['nose', 'tail', 'heel'])).toEqual([])
  })

  test('beats fall where none is, and free their keys when they go', () => {
    let n = 0
    const ops = addBeats(rich, [0, 4, 8], 'tap', () => `t${n++}`)
    expect(Object.values(done(ops).beats).map(beat => [beat.name, beat.frame])).toEqual([
      ['step', 4],
      ['clap', 9],
      ['tap 1', 0],
      ['tap 2', 8],
    ])
    const twice = done(pinKey('snappy', 'a', 'step'))
    const gone = done(removeBeat(twice, 'step'), twice)
    expect([gone.beats['step'], ...Object.values(gone.takes).map(take => take.pins)]).toEqual([undefined, {}, {}])
    const step = rich.beats['step'] as ShotDocument['beats'][string]
    expect(renameBeat(step, 'step')).toEqual([])
    expect(done(renameBeat(step, 'lands')).beats['step']?.name).toBe('lands')
  })

  test('a note ends behind where it begins, whichever end was moved', () => {
    const note = rich.notes['hops'] as ShotDocument['notes'][string]
    expect(done(changeNote(note, { from: 12 })).notes['hops']).toMatchObject({ from: 12, to: 13 })
    expect(done([{ kind: 'note.set', id: 'hops', patch: { from: 4 } }]).notes['hops']?.to).toBe(8)
    expect(changeNote({ ...note, from: 5 }, { to: 3 })).toEqual([
      { kind: 'note.set', id: 'hops', patch: { to: 3, from: 2 } },
    ])
    expect(done(addNote({ id: 'n', from: 3, to: 1, text: 'x' })).notes['n']?.to).toBe(4)
  })

  test('a new colour lies at the end of the strip', () => {
    const orders = Object.values(rich.swatches).map(swatch => swatch.order)
    expect(done(addSwatch(rich, 'fresh', '#112233')).swatches['fresh']?.order).toBeGreaterThan(Math.max(...orders))
  })

  test('colours find their place on the strip, or get one; what is more than may come takes the nearest', () => {
    let n = 0
    const known = Object.values(rich.swatches)[0] as ShotDocument['swatches'][string]
    const wished = ['#100000', known.colour, '#100000', '#00f000', '#120000', '#00e800']
    const { ops, swatchOf } = swatchesFor(rich, wished, 2, () => `fresh${++n}`)
    const after = done(ops)
    expect(ops.map(op => op.kind)).toEqual(['swatch.add', 'swatch.add'])
    expect(Object.fromEntries(swatchOf)).toEqual({
      [known.colour]: known.id,
      '#100000': 'fresh1',
      '#00f000': 'fresh2',
      '#120000': 'fresh1',
      '#00e800': 'fresh2',
    })
    const orders = Object.values(rich.swatches).map(swatch => swatch.order)
    expect(after.swatches['fresh1']?.order).toBeGreaterThan(Math.max(...orders))
    expect(after.swatches['fresh2']?.order).toBeGreaterThan(after.swatches['fresh1']?.order as number)
    expect(new Set(Object.values(after.swatches).map(swatch => swatch.name)).size).toBe(
      known ? Object.keys(after.swatches).length : 0,
    )
  })

  test('a line that comes in is as wide everywhere, within what a line may be', () => {
    const wide = (px: number) => broughtLine('l', 's', 'graphite', 3, px)
    expect(wide(4)).toMatchObject({ kind: 'line', width: 4, z: 3, nib: { thinning: 0, ends: 'round' } })
    expect([wide(0).width, wide(1e9).width]).toEqual([0.25, LIMITS.lineWidthPx])
  })
})
