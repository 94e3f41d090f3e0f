import { describe, expect, test } from '@jest/globals'
import { presetTicks, presetWish } from '../../chart/wish.ts'
import { FIRST, newLayer } from '../model/fresh.ts'
import { LIMITS, type Drawing, type Take } from '../model/model.ts'
import { get } from '../model/table.ts'
import { aRemark, richDocument } from '../tests/rich.ts'
import { sampleDrawing, sampleElement, samplePicture } from '../tests/sample.ts'
import { applyBatch, refuse, type Operation } from './index.ts'

const rich = richDocument()
const L = FIRST.drawn
const T = FIRST.take
const take = get(rich.takes, T) as Take

/** Why an operation is refused on the rich shot: its code and what it names; null when it is taken. */
const why = (op: object): readonly [string, string] | null => {
  const no = refuse(rich, op as Operation)
  return no && [no.code, no.what]
}
/** Operations with what is said to each. */
type Cases = readonly (readonly [Operation | object, readonly [string, string] | null])[]
const holds = (cases: Cases) => expect(cases.map(([op]) => why(op))).toEqual(cases.map(([, says]) => says))

describe('what is refused, and what is said', () => {
  test('what is said, remarked, looked at and set', () => {
    const say = (patch: object) => ({
      kind: 'saying.add',
      saying: { id: 'new', kind: 'follows', layer: L, about: ['nose', 'tail'], from: 0, to: 4, ...patch },
    })
    const remark = (patch: object) => ({ kind: 'remark.add', remark: { ...aRemark('new'), ...patch } })
    const looked = (patch: object) => ({ kind: 'looked.set', by: 'newt', drawings: { a: '1' }, ...patch })
    const line = (n: number) => Array.from({ length: n }, () => ({ x: 0, y: 0 }))
    const answer = { by: 'newt', name: 'Newt', text: 'yes' }
    holds([
      [say({}), null],
      [say({ about: ['nose'] }), ['bad-value', 'what it is said of']],
      [say({ about: ['nose', 'nose'] }), ['bad-value', 'what it is said of']],
      [say({ kind: 'still', about: [] }), null],
      [say({ kind: 'goes', about: [] }), ['bad-value', 'what it is said of']],
      [say({ kind: 'still', about: ['a', 'b'] }), ['bad-value', 'what it is said of']],
      [say({ kind: 'toString' }), ['bad-value', 'what is said']],
      [say({ to: 0 }), ['bad-value', 'frames of what is said']],
      [say({ from: 0.5 }), ['bad-value', 'frames of what is said']],
      [remark({}), null],
      [remark({ by: '-' }), ['bad-value', 'who remarks it']],
      [remark({ name: '' }), ['bad-value', 'who remarks it']],
      [remark({ frame: -1 }), ['bad-value', 'frame of a remark']],
      [remark({ at: { x: 1e6, y: 0 } }), ['bad-value', 'place of a remark']],
      [remark({ text: '', sketch: [] }), ['bad-value', 'text of a remark']],
      [remark({ text: '', sketch: [line(1)] }), null],
      [remark({ text: 'x'.repeat(501) }), ['bad-value', 'text of a remark']],
      [remark({ sketch: [[]] }), ['bad-value', 'line of a sketch']],
      [remark({ sketch: [line(LIMITS.pointsPerLine + 1)] }), ['bad-value', 'line of a sketch']],
      [remark({ sketch: Array.from({ length: 61 }, () => line(1)) }), ['too-many', 'lines of a sketch']],
      [remark({ answers: [answer] }), null],
      [remark({ answers: [{ ...answer, text: '' }] }), ['bad-value', 'answer']],
      [remark({ answers: Array(51).fill(answer) }), ['too-many', 'answers']],
      [looked({}), null],
      [looked({ by: 'a b' }), ['bad-value', 'who looked at what']],
      [looked({ drawings: { 'a b': '1' } }), ['bad-value', 'who looked at what']],
      [looked({ drawings: { a: '' } }), ['bad-value', 'fingerprint of a drawing']],
      [{ kind: 'threshold.set', name: 'volume', value: Number.NaN }, ['bad-value', 'value of a threshold']],
      [{ kind: 'threshold.set', name: 'a b', value: 1 }, ['bad-value', 'threshold']],
      [{ kind: 'threshold.set', name: 'anything', value: null }, null],
    ])
    const full = (patch: object) => ({ ...rich, ...patch }) as typeof rich
    const many = (n: number, of: unknown) => Object.fromEntries(Array.from({ length: n }, (_, i) => [`x${i}`, of]))
    const lookers = full({ looked: many(LIMITS.lookers, { a: '1' }) })
    expect(refuse(lookers, looked({}) as Operation)).toEqual({ code: 'too-many', what: 'accounts that looked' })
    expect(refuse(lookers, looked({ by: 'x3' }) as Operation)).toBeNull()
    const eyes = full({ looked: { newt: many(LIMITS.drawings, '1') } })
    expect(refuse(eyes, looked({}) as Operation)).toEqual({ code: 'too-many', what: 'drawings looked at' })
    expect(refuse(eyes, looked({ drawings: { x1: null, a: '1' } }) as Operation)).toBeNull()
    const set = full({ thresholds: many(LIMITS.thresholds, 1) })
    const more = (name: string) => refuse(set, { kind: 'threshold.set', name, value: 2 })
    expect([more('new')?.code, more('x1')]).toEqual(['too-many', null])
  })

  test('the format and the shot', () => {
    const format = (patch: object) => ({ kind: 'format.set', patch })
    const shot = (patch: object) => ({ kind: 'shot.set', patch })
    holds([
      [format({ width: 1, height: 8192, fps: 120, paper: '#000000' }), null],
      [format({ width: 0 }), ['bad-value', 'width']],
      [format({ width: 8193 }), ['bad-value', 'width']],
      [format({ width: 1.5 }), ['bad-value', 'width']],
      [format({ height: 0 }), ['bad-value', 'height']],
      [format({ fps: 0 }), ['bad-value', 'fps']],
      [format({ fps: 121 }), ['bad-value', 'fps']],
      [format({ fps: 23.9 }), ['bad-value', 'fps']],
      [format({ paper: '#FFF' }), ['bad-value', 'paper']],
      [format({ paper: 'x#fdfaf3' }), ['bad-value', 'paper']],
      [shot({ cuts: [] }), null],
      [shot({ cuts: ['tall', 'wide'] }), null],
      [shot({ cuts: ['tall', 'tall'] }), ['bad-value', 'shapes it is cut to']],
      [shot({ cuts: ['oval'] }), ['bad-value', 'shapes it is cut to']],
      [shot({ exposure: 1 }), null],
      [shot({ exposure: 200 }), null],
      [shot({ exposure: 0 }), ['bad-value', 'exposure']],
      [shot({ exposure: 201 }), ['bad-value', 'exposure']],
      [shot({ exposure: 1.5 }), ['bad-value', 'exposure']],
      [shot({ scale: LIMITS.scale }), null],
      [shot({ scale: null }), null],
      [shot({ scale: 0 }), ['bad-value', 'scale']],
      [shot({ scale: LIMITS.scale + 1 }), ['bad-value', 'scale']],
      [shot({ way: 'backwards' }), ['bad-value', 'way of working']],
      [shot({ current: 'snappy' }), null],
      [shot({ current: 'gone' }), ['unknown-take', 'gone']],
    ])
  })

  test('layers', () => {
    const add = (id: string, patch: object = {}) => ({ kind: 'layer.add', layer: { ...newLayer(id, id, 4), ...patch } })
    const set = (id: string, patch: object) => ({ kind: 'layer.set', id, patch })
    const remove = (id: string) => ({ kind: 'layer.remove', id })
    holds([
      [add('bag'), null],
      [add('moth'), ['id-taken', 'moth']],
      [add('bag', { name: '' }), ['bad-value', 'layer']],
      [add('bag', { order: NaN }), ['bad-value', 'layer']],
      [add('bag', { kind: 'camera' }), ['bad-value', 'kind of layer']],
      [add('bag', { volume: 'deep' }), ['bad-value', 'volume of a layer']],
      [add('bag', { left: { for: 'bag', why: '' } }), ['bad-value', 'why a pass was left']],
      [add('bag', { left: { for: L, why: 'x'.repeat(LIMITS.reasonLength) } }), null],
      [
        add('bag', { left: { for: L, why: 'x'.repeat(LIMITS.reasonLength + 1) } }),
        ['bad-value', 'why a pass was left'],
      ],
      [add('bag', { follows: 'gone' }), ['unknown-layer', 'gone']],
      [add('bag', { follows: L }), null],
      [add('bag', { follows: 'paint' }), ['tied', 'paint']],
      [set('gone', {}), ['unknown-layer', 'gone']],
      [set('moth', { name: 'two moths' }), null],
      [set('moth', { follows: 'moth' }), ['tied', 'moth']],
      [set(L, { follows: FIRST.background }), ['still-followed', L]],
      [set('moth', { follows: L }), ['linked', 'flutter']],
      [set('paint', { follows: null }), null],
      [remove('gone'), ['unknown-layer', 'gone']],
      [remove(L), ['still-followed', L]],
      [remove('moth'), ['layer-not-empty', 'moth']],
      [remove(FIRST.background), null],
    ])
  })

  test('drawings and what lies on them', () => {
    const bare = { ...sampleDrawing('g', 40), layer: L, elements: {}, marks: {} }
    const add = (patch: Partial<Drawing>) => ({ kind: 'drawing.add', drawing: { ...bare, ...patch } })
    const set = (id: string, patch: object) => ({ kind: 'drawing.set', id, patch })
    const remove = (id: string) => ({ kind: 'drawing.remove', id })
    const lay = (...elements: object[]) => ({ kind: 'elements.add', drawing: 'a', elements })
    const line = (patch: object = {}) => ({ ...sampleElement('z1'), ...patch })
    const change = (id: string, patch: object, drawing = 'a') => ({
      kind: 'elements.set',
      drawing,
      changes: [{ id, patch }],
    })
    const off = (drawing: string, ...ids: string[]) => ({ kind: 'elements.remove', drawing, ids })
    holds([
      [add({}), null],
      [add({ id: 'a' }), ['id-taken', 'a']],
      [add({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [add({ number: 1 }), ['number-taken', '1']],
      [add({ number: 0 }), ['bad-value', 'number']],
      [add({ number: 2.5 }), ['bad-value', 'number']],
      [add({ elements: { other: sampleElement('z1') } }), ['bad-value', 'element other']],
      [add({ marks: { gone: { x: 0, y: 0, planted: false } } }), ['unknown-mark', 'gone']],
      [add({ layer: 'moth', marks: { nose: { x: 0, y: 0, planted: false } } }), ['wrong-layer', 'nose']],
      [add({ marks: { nose: { x: NaN, y: 0, planted: false } } }), ['bad-value', 'place of a mark']],
      [add({ marks: { nose: { x: 0, y: Infinity, planted: false } } }), ['bad-value', 'place of a mark']],
      [set('gone', {}), ['unknown-drawing', 'gone']],
      [set('a', { role: 'extreme' }), ['bad-value', 'role']],
      [set('a', { number: 9 }), ['number-taken', '9']],
      [set('a', { number: 1 }), null],
      [set('a', { number: 77 }), null],
      [remove('gone'), ['unknown-drawing', 'gone']],
      [remove('a'), ['still-exposed', 'a']],
      [remove('m'), ['still-exposed', 'm']],
      [remove('e'), ['still-pinned', 'e']],
      [remove('d'), ['still-charted', 'd']],
      [remove('f'), null],
      // What is under a line drawing is shown by it, and keeps nothing.
      [remove('pa'), null],
      [lay(line()), null],
      [lay(line(), line()), ['bad-value', 'the same element twice']],
      [lay(sampleElement('a1')), ['id-taken', 'a1']],
      [lay(line({ z: Infinity })), ['bad-value', 'z']],
      [lay(line({ matrix: [1, 0, 0, 1, 0, 0] })), null],
      [lay(line({ matrix: [1, 0, 0, 1, NaN, 0] })), ['bad-value', 'matrix']],
      [lay(line({ matrix: [NaN, NaN, NaN, NaN, NaN, NaN] })), ['bad-value', 'matrix']],
      [lay(line({ swatch: 'gone' })), ['unknown-swatch', 'gone']],
      [lay(line({ width: 0 })), ['bad-value', 'width']],
      [lay(line({ width: LIMITS.lineWidthPx })), null],
      [lay(line({ width: LIMITS.lineWidthPx + 1 })), ['bad-value', 'width']],
      [lay(line({ nib: { look: 'ink', ends: 'round', thinning: 1.1 } })), ['bad-value', 'nib']],
      [lay(line({ nib: { look: 'ink', ends: 'round', thinning: -0.1 } })), ['bad-value', 'nib']],
      [lay(line({ nib: { look: 'ink', ends: 'round', thinning: 1 } })), null],
      [lay(line({ part: [0, 0] })), null],
      [lay(line({ part: [-1, 3] })), ['bad-value', 'part']],
      [lay(line({ part: [3, 2] })), ['bad-value', 'part']],
      [lay({ ...samplePicture('z2'), opacity: 1.2 }), ['bad-value', 'opacity']],
      [lay({ ...samplePicture('z2'), opacity: -0.1 }), ['bad-value', 'opacity']],
      [change('a1', { width: 9 }), null],
      [change('a1', { opacity: 0.5 }), ['bad-value', 'opacity of a line']],
      [change('a1', { width: -1 }), ['bad-value', 'width']],
      [change('gone', { width: 9 }), ['unknown-element', 'gone']],
      [change('a1', { width: 9 }, 'gone'), ['unknown-drawing', 'gone']],
      [off('a', 'a1'), null],
      [off('a', 'a1', 'a1'), ['bad-value', 'the same element twice']],
      [off('a', 'a1', 'gone'), ['unknown-element', 'gone']],
      [off('gone', 'a1'), ['unknown-drawing', 'gone']],
    ])
  })

  test('marks, beats, pins, notes and colours', () => {
    const mark = { id: 'heel', layer: L, name: 'heel', order: 1, kind: 'point' }
    const addMark = (patch: object) => ({ kind: 'mark.add', mark: { ...mark, ...patch } })
    const place = (drawing: string, places: object) => ({ kind: 'marks.place', drawing, places })
    const beat = (patch: object) => ({ kind: 'beat.add', beat: { id: 'lands', name: 'lands', frame: 3, ...patch } })
    const pin = (patch: object) => ({ kind: 'pin.set', take: T, drawing: 'a', beat: 'step', ...patch })
    const note = (patch: object) => ({ kind: 'note.add', note: { id: 'n', from: 2, to: 4, text: 'lands', ...patch } })
    const swatch = (patch: object) => ({
      kind: 'swatch.add',
      swatch: { id: 'dusk', name: 'dusk', colour: '#e9e1d2', order: 0, ...patch },
    })
    const at = { x: 1, y: 2, planted: false }
    holds([
      [addMark({}), null],
      [addMark({ id: 'nose' }), ['id-taken', 'nose']],
      [addMark({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [addMark({ kind: 'line' }), ['bad-value', 'kind of mark']],
      [addMark({ name: '' }), ['bad-value', 'mark']],
      [addMark({ order: NaN }), ['bad-value', 'mark']],
      [{ kind: 'mark.set', id: 'gone', patch: {} }, ['unknown-mark', 'gone']],
      [{ kind: 'mark.set', id: 'nose', patch: { name: '' } }, ['bad-value', 'mark']],
      [{ kind: 'mark.remove', id: 'nose' }, ['still-placed', 'nose']],
      [{ kind: 'mark.remove', id: 'tail' }, null],
      [{ kind: 'mark.remove', id: 'gone' }, ['unknown-mark', 'gone']],
      [place('gone', {}), ['unknown-drawing', 'gone']],
      [place('a', { nose: at, tail: null }), null],
      [place('a', { gone: at }), ['unknown-mark', 'gone']],
      [place('m', { nose: at }), ['wrong-layer', 'nose']],
      [beat({}), null],
      [beat({ name: '' }), ['bad-value', 'name of a beat']],
      [beat({ frame: -1 }), ['bad-value', 'frame of a beat']],
      [beat({ frame: 19_999 }), null],
      [beat({ frame: 20_000 }), ['bad-value', 'frame of a beat']],
      [{ kind: 'beat.remove', id: 'step' }, ['still-pinned', 'step']],
      [{ kind: 'beat.remove', id: 'clap' }, null],
      [pin({}), null],
      [pin({ beat: null }), null],
      [pin({ take: 'gone' }), ['unknown-take', 'gone']],
      [pin({ drawing: 'gone' }), ['unknown-drawing', 'gone']],
      [pin({ beat: 'gone' }), ['unknown-beat', 'gone']],
      [note({}), null],
      [note({ to: 2 }), ['bad-value', 'frames of a note']],
      [note({ from: -1 }), ['bad-value', 'frames of a note']],
      [note({ to: 4.5 }), ['bad-value', 'frames of a note']],
      [note({ to: 20_000 }), null],
      [note({ to: 20_001 }), ['bad-value', 'frames of a note']],
      [note({ text: '' }), ['bad-value', 'text of a note']],
      [note({ text: 'x'.repeat(LIMITS.noteLength) }), null],
      [note({ text: 'x'.repeat(LIMITS.noteLength + 1) }), ['bad-value', 'text of a note']],
      [swatch({}), null],
      [swatch({ name: '' }), ['bad-value', 'swatch']],
      [swatch({ colour: '#E9E1D2' }), ['bad-value', 'swatch']],
      [swatch({ order: Infinity }), ['bad-value', 'swatch']],
      [{ kind: 'swatch.remove', id: 'graphite' }, ['still-used', 'graphite']],
      [{ kind: 'swatch.remove', id: 'reed' }, null],
    ])
  })

  test('charts: their keys, their ticks and what they are made from', () => {
    const ticks = presetTicks('even', 3).map(tick => ({ ...tick, drawing: null }))
    const own = { id: 'new', layer: L, from: 'a', to: 'd', part: null, wish: presetWish('even'), ticks }
    const add = (patch: object) => ({ kind: 'chart.add', chart: { ...own, ...patch } })
    const withTick = (i: number, patch: object) =>
      add({ ticks: ticks.map((tick, k) => (k === i ? { ...tick, ...patch } : tick)) })
    holds([
      [add({}), null],
      [add({ id: 'ac' }), ['id-taken', 'ac']],
      [add({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [add({ from: 'gone' }), ['unknown-drawing', 'gone']],
      [add({ to: 'm' }), ['wrong-layer', 'm']],
      [add({ to: 'a' }), ['bad-value', 'the same drawing twice in a chart']],
      [withTick(1, { drawing: 'b' }), null],
      [withTick(1, { drawing: 'a' }), ['bad-value', 'the same drawing twice in a chart']],
      [withTick(1, { drawing: 'gone' }), ['unknown-drawing', 'gone']],
      [add({ part: 'nose' }), null],
      [add({ part: 'gone' }), ['unknown-mark', 'gone']],
      [add({ layer: 'moth', from: 'm', to: 'n', part: 'nose' }), ['wrong-layer', 'nose']],
      [add({ wish: { ...presetWish('even'), strength: 2 } }), ['bad-value', 'wish']],
      [add({ ticks: Array.from({ length: 12 }, () => ticks[0]) }), ['too-many', 'inbetweens']],
      // A tick lies where its parents and its ratio put it, and is drawn after them.
      [withTick(0, { at: { num: 1, den: 3 } }), ['bad-value', 'tick 1']],
      [withTick(0, { left: 2 }), ['bad-value', 'parents of tick 1']],
      [withTick(1, { right: 9 }), ['bad-value', 'parents of tick 2']],
      [add({ ticks: [ticks[1], ticks[0], ticks[2]] }), expect.anything() as never],
      [add({ ticks: presetTicks('slow-in', 3).map(tick => ({ ...tick, drawing: null })) }), null],
      [{ kind: 'chart.set', id: 'gone', patch: {} }, ['unknown-chart', 'gone']],
      [{ kind: 'chart.remove', id: 'cd' }, null],
    ])
  })

  test('the sheet: exposures, frames and the loop', () => {
    const write = (patch: object) => ({
      kind: 'exposure.write',
      take: T,
      layer: L,
      from: 2,
      runs: [{ drawing: 'a', frames: 3 }],
      ...patch,
    })
    const insert = (patch: object) => ({ kind: 'frames.insert', take: T, at: 3, count: 2, fill: {}, ...patch })
    const remove = (patch: object) => ({ kind: 'frames.remove', take: T, at: 3, count: 2, ...patch })
    const loop = (range: object | null, id: string = T) => ({ kind: 'loop.set', take: id, loop: range })
    const two = [{ drawing: 'a', frames: 2 }]
    holds([
      [write({}), null],
      [write({ take: 'gone' }), ['unknown-take', 'gone']],
      [write({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [write({ from: -1 }), ['bad-value', 'frame']],
      [write({ runs: [] }), ['bad-value', 'frame']],
      [write({ layer: 'paint' }), ['tied', L]],
      [write({ runs: [{ drawing: 'gone', frames: 1 }] }), ['unknown-drawing', 'gone']],
      [write({ runs: [{ drawing: 'm', frames: 1 }] }), ['wrong-layer', 'm']],
      [write({ runs: [{ drawing: 'a', frames: 0 }] }), ['bad-value', 'frames of a run']],
      [write({ runs: [{ drawing: 'a', frames: 1.5 }] }), ['bad-value', 'frames of a run']],
      [write({ from: 21 }), null],
      [write({ from: 22 }), ['outside-shot', 'frame 23']],
      [write({ layer: 'moth', from: 0, runs: [{ drawing: 'm', frames: 2 }] }), null],
      [write({ layer: 'moth', from: 0, runs: [{ drawing: 'm', frames: 3 }] }), ['linked', 'flutter']],
      [write({ layer: 'moth', from: 20, runs: [{ drawing: 'm', frames: 1 }] }), null],
      [write({ layer: 'moth', from: 19, runs: [{ drawing: 'm', frames: 1 }] }), ['linked', 'flutter']],
      [insert({}), null],
      [insert({ at: 24 }), null],
      [insert({ at: 25 }), ['outside-shot', 'frame 26']],
      [insert({ take: 'gone' }), ['unknown-take', 'gone']],
      [insert({ count: 0 }), ['bad-value', 'count']],
      [insert({ count: 19_976 }), null],
      [insert({ count: 19_977 }), ['too-many', 'frames']],
      [insert({ fill: { [L]: two } }), null],
      [insert({ fill: { gone: two } }), ['unknown-layer', 'gone']],
      [insert({ fill: { [L]: [{ drawing: 'a', frames: 1 }] } }), ['bad-value', 'length of the filling']],
      [insert({ fill: { [L]: [{ drawing: 'm', frames: 2 }] } }), ['wrong-layer', 'm']],
      [insert({ fill: { paint: [{ drawing: 'm', frames: 1 }] } }), null],
      [remove({}), null],
      [remove({ take: 'gone' }), ['unknown-take', 'gone']],
      [remove({ count: 0 }), ['bad-value', 'count']],
      [remove({ at: 22 }), null],
      [remove({ at: 23 }), ['outside-shot', 'frame 24']],
      [remove({ at: 0, count: 24 }), ['bad-value', 'count: a shot keeps at least one frame']],
      [loop(null), null],
      [loop({ from: 0, to: 24 }), null],
      [loop({ from: 0, to: 25 }), ['outside-shot', 'loop']],
      [loop({ from: 4, to: 4 }), ['outside-shot', 'loop']],
      [loop({ from: -1, to: 4 }), ['outside-shot', 'loop']],
      [loop({ from: 0, to: 4 }, 'gone'), ['unknown-take', 'gone']],
    ])
  })

  test('linked cycles: where they lie, what they show, and which is in their way', () => {
    const own = { id: 'new', layer: L, from: 12, to: 20, offset: 0, pattern: [{ drawing: 'a', frames: 2 }] }
    const add = (patch: object, id: string = T) => ({ kind: 'cycle.add', take: id, cycle: { ...own, ...patch } })
    const set = (patch: object, id = 'flutter') => ({ kind: 'cycle.set', take: T, id, patch })
    const moth = { layer: 'moth', pattern: [{ drawing: 'm', frames: 1 }] }
    holds([
      [add({}), null],
      [add({}, 'gone'), ['unknown-take', 'gone']],
      [add({ id: 'flutter' }), ['id-taken', 'flutter']],
      [add({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [add({ layer: 'paint', pattern: [{ drawing: 'pa', frames: 1 }] }), ['tied', L]],
      [add({ to: null }), null],
      [add({ to: 24 }), null],
      [add({ to: 25 }), ['outside-shot', 'linked cycle']],
      [add({ to: 12 }), ['outside-shot', 'linked cycle']],
      [add({ from: -1 }), ['outside-shot', 'linked cycle']],
      [add({ offset: 1 }), null],
      [add({ offset: 2 }), ['bad-value', 'pattern of a cycle']],
      [add({ offset: -1 }), ['bad-value', 'offset of a cycle']],
      [add({ pattern: [] }), ['bad-value', 'pattern of a cycle']],
      [add({ pattern: [{ drawing: 'm', frames: 1 }] }), ['wrong-layer', 'm']],
      [add({ ...moth, from: 20, to: 22 }), null],
      [add({ ...moth, from: 19, to: 22 }), ['linked', 'flutter']],
      [add({ ...moth, from: 0, to: 2 }), null],
      [add({ ...moth, from: 0, to: 3 }), ['linked', 'flutter']],
      [set({ from: 0, to: null }), null],
      [set({ offset: 3 }), ['bad-value', 'pattern of a cycle']],
      [set({}, 'gone'), ['unknown-cycle', 'gone']],
      [{ kind: 'cycle.set', take: 'gone', id: 'flutter', patch: {} }, ['unknown-take', 'gone']],
      [{ kind: 'cycle.remove', take: 'gone', id: 'flutter' }, ['unknown-take', 'gone']],
      [{ kind: 'cycle.remove', take: T, id: 'gone' }, ['unknown-cycle', 'gone']],
      [{ kind: 'cycle.remove', take: T, id: 'flutter' }, null],
    ])
  })

  test('takes: whole, in plain form, and pointing at what is there', () => {
    const add = (patch: object) => ({ kind: 'take.add', take: { ...take, id: 'third', name: 'third', ...patch } })
    const columns = (patch: object) => add({ columns: { ...take.columns, ...patch } })
    const { paint: _, ...untied } = take.columns
    const { [L]: __, ...without } = take.columns
    const flutter = get(take.cycles, 'flutter')
    holds([
      [add({}), null],
      [add({ id: 'snappy' }), ['id-taken', 'snappy']],
      [add({ name: '' }), ['bad-value', 'take']],
      [add({ order: NaN }), ['bad-value', 'take']],
      [add({ loop: { from: 0, to: 30 } }), ['outside-shot', 'loop']],
      [add({ loop: null }), null],
      // What a tied layer shows follows.
      [add({ columns: untied }), null],
      [add({ columns: without }), ['unknown-layer', L]],
      [columns({ gone: [] }), ['unknown-layer', 'gone']],
      [columns({ [L]: [{ drawing: null, frames: 23 }] }), ['bad-value', 'column']],
      [
        columns({
          [L]: [
            { drawing: null, frames: 20 },
            { drawing: null, frames: 4 },
          ],
        }),
        ['bad-value', 'column'],
      ],
      [columns({ [L]: [{ drawing: 'gone', frames: 24 }] }), ['unknown-drawing', 'gone']],
      [columns({ moth: [{ drawing: null, frames: 24 }] }), ['bad-value', 'linked cycle flutter']],
      [add({ cycles: { other: flutter } }), ['bad-value', 'linked cycle other']],
      [add({ cycles: { flutter: { ...flutter, layer: 'gone' } } }), ['unknown-layer', 'gone']],
      [add({ pins: { gone: 'step' } }), ['unknown-drawing', 'gone']],
      [add({ pins: { a: 'gone' } }), ['unknown-beat', 'gone']],
      [add({ pins: { a: 'clap' } }), null],
      [{ kind: 'take.set', id: 'gone', patch: {} }, ['unknown-take', 'gone']],
      [{ kind: 'take.set', id: T, patch: { name: '' } }, ['bad-value', 'take']],
      [{ kind: 'take.set', id: T, patch: { order: Infinity } }, ['bad-value', 'take']],
      [{ kind: 'take.set', id: T, patch: { name: 'quick', order: 3 } }, null],
      [{ kind: 'take.remove', id: 'gone' }, ['unknown-take', 'gone']],
      [{ kind: 'take.remove', id: T }, ['current-take', T]],
      [{ kind: 'take.remove', id: 'snappy' }, null],
    ])
    const guided = applyBatch(rich, [{ kind: 'shot.set', patch: { current: 'snappy' } }])
    expect(guided.ok && refuse(guided.document, { kind: 'take.remove', id: T })).toEqual({
      code: 'still-guided',
      what: T,
    })
  })

  test('guides', () => {
    const own = get(rich.guides, 'dropped')
    const add = (patch: object) => ({ kind: 'guide.add', guide: { ...own, id: 'new', ...patch } })
    const laid = (drawings: number, beats: number) => ({
      laid: { drawings: Array<string>(drawings).fill('a'), beats: Array<string>(beats).fill('step') },
    })
    holds([
      [add({}), null],
      [add({ id: 'dropped' }), ['id-taken', 'dropped']],
      [add({ take: 'gone' }), ['unknown-take', 'gone']],
      [add({ layer: 'gone' }), ['unknown-layer', 'gone']],
      [add({ from: 19_999 }), null],
      [add({ from: 20_000 }), ['bad-value', 'frame of a guide']],
      [add({ from: -1 }), ['bad-value', 'frame of a guide']],
      [add({ recipe: 'leap' }), ['bad-value', 'recipe of a guide']],
      [add(laid(LIMITS.drawings, LIMITS.beats)), null],
      [add(laid(LIMITS.drawings + 1, 0)), ['bad-value', 'laid by a guide']],
      [add(laid(0, LIMITS.beats + 1)), ['bad-value', 'laid by a guide']],
      [{ kind: 'guide.set', id: 'gone', patch: {} }, ['unknown-guide', 'gone']],
      [{ kind: 'guide.set', id: 'dropped', patch: { shown: false } }, null],
      [{ kind: 'guide.remove', id: 'dropped' }, null],
    ])
  })

  test('ids of new things are of the form desks make, whatever brings them', () => {
    const strange = ['', '-a', '_a', 'a b', 'x'.repeat(41), '__proto__']
    for (const id of strange) {
      const no = ['bad-value', `id ${id.slice(0, 40)}`]
      expect(why({ kind: 'beat.add', beat: { id, name: 'lands', frame: 0 } })).toEqual(no)
      expect(why({ kind: 'elements.add', drawing: 'a', elements: [{ ...sampleElement('z'), id }] })).toEqual(no)
      expect(why({ kind: 'elements.add', drawing: 'a', elements: [{ ...sampleElement('z'), samples: id }] })).toEqual(
        no,
      )
      expect(why({ kind: 'marks.place', drawing: 'a', places: { [id]: null } })).toEqual(no)
    }
    expect(why({ kind: 'beat.add', beat: { id: 'x'.repeat(40), name: 'lands', frame: 0 } })).toBeNull()
  })
})
