import { describe, expect, test } from '@jest/globals'
import { readClip } from '../../clip/index.ts'
import { FIRST } from '../model/fresh.ts'
import type { FilmClip, ShotDocument } from '../model/model.ts'
import { columnOf, currentTake } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { mediaUsed, refuse, type Operation } from '../operations/index.ts'
import { aClip } from '../tests/rich.ts'
import { counting, done } from '../tests/done.ts'
import { sampleDocument } from '../tests/sample.ts'
import {
  addClip,
  changeClip,
  clipsToSend,
  framesOfReading,
  noteAt,
  noteOnClip,
  takeItsTiming,
  tracingSetUp,
  untraced,
} from './clips.ts'

const MEDIA = 'ab'.repeat(32)
const start = sampleDocument()
const { width, height, fps } = start.format
const fresh = { id: 'c', name: 'walked', media: MEDIA, widthPx: width / 2, heightPx: height / 2, seconds: 2 }
const laid = done(start, addClip(start, fresh, 3))
const clip = get(laid.clips, 'c')

describe('a clip under the paper', () => {
  test('is laid whole, as large as the paper has room for it, with paper over it', () => {
    expect(clip).toEqual({ ...aClip('c'), ...fresh, from: 3, outS: 2, matrix: [2, 0, 0, 2, 0, 0], notes: [] })
    // Of another shape it lies in the middle.
    const high = addClip(start, { ...fresh, widthPx: 100, heightPx: 100 }, 0)[0] as { clip: FilmClip }
    expect(high.clip.matrix[0]).toBeCloseTo(height / 100, 9)
    expect(high.clip.matrix[4]).toBeCloseTo((width - height) / 2, 9)
    expect(mediaUsed(addClip(start, fresh, 0))).toEqual([MEDIA])
  })

  test('is changed within what there is of it, and not at all where nothing changes', () => {
    const after = (change: Parameters<typeof changeClip>[1]) => get(done(laid, changeClip(clip, change)).clips, 'c')
    expect(changeClip(clip, { wash: 0.5, from: 3 })).toEqual([])
    expect(after({ inS: 1, outS: 9 })).toMatchObject({ inS: 1, outS: 2 })
    expect(after({ inS: 5 })).toMatchObject({ inS: 1.99, outS: 2 })
    expect(after({ rate: 100, wash: 3 })).toMatchObject({ rate: 8, wash: 1 })
    expect(after({ source: 'the heron at the lock', shown: false })).toMatchObject({ shown: false })
  })

  test('what is one’s own has no other source, and only that may be sent off, where it is seen', () => {
    const change = (from: FilmClip, to: Parameters<typeof changeClip>[1]) =>
      done({ ...laid, clips: { c: from } }, changeClip(from, to))
    const sent = (document: Pick<ShotDocument, 'clips'>) => clipsToSend(document).map(one => one.id)
    expect(sent(laid)).toEqual([])
    const mine = change(clip, { mine: true })
    expect(sent(mine)).toEqual(['c'])
    const theirs = change(get(mine.clips, 'c'), { source: 'the heron at the lock' })
    expect(get(theirs.clips, 'c')).toMatchObject({ mine: false, source: 'the heron at the lock' })
    expect(sent(theirs)).toEqual([])
    expect(get(change(get(theirs.clips, 'c'), { mine: true }).clips, 'c')).toMatchObject({ mine: true, source: '' })
    expect(sent(change(get(mine.clips, 'c'), { shown: false }))).toEqual([])
    // However both came to be there: what has a source stays.
    expect(sent({ clips: { c: { ...clip, mine: true, source: 'a book' } } })).toEqual([])
  })

  test('pictures of it are noted, one note each, in the order of moments; an empty one takes the note off', () => {
    const noted = (from: FilmClip, s: number, text: string, id: string) =>
      get(done({ ...laid, clips: { c: from } }, noteOnClip(from, s, text, id)).clips, 'c')
    const one = noted(clip, 1.5, 'the heel turns', 'n1')
    const two = noted(one, 0.5, 'all still', 'n2')
    expect(two.notes.map(note => [note.s, note.text])).toEqual([
      [0.5, 'all still'],
      [1.5, 'the heel turns'],
    ])
    expect([noteAt(two, 1.5005), noteAt(two, 1.54), noteAt(two, 0)]).toEqual(['the heel turns', '', ''])
    const other = noted(two, 1.5, 'the heel rests', 'n3')
    expect(other.notes.map(note => note.text)).toEqual(['all still', 'the heel rests'])
    expect(noted(other, 0.5, '', 'n4').notes.map(note => note.text)).toEqual(['the heel rests'])
    const bad = (notes: FilmClip['notes']) => refuse(laid, { kind: 'clip.set', id: 'c', patch: { notes } })
    for (const [s, text] of [
      [-1, 'x'],
      [9, 'x'],
      [1, ''],
      [1, 'x'.repeat(501)],
    ] as const) {
      expect(bad([{ id: 'n', s, text }])).toMatchObject({ code: 'bad-value', what: 'notes of a clip' })
    }
    const [first, later] = [
      { id: 'n', s: 1, text: 'x' },
      { id: 'm', s: 0.5, text: 'y' },
    ]
    expect(bad([first, later])).toMatchObject({ code: 'bad-value' })
    expect(bad([later, { ...first, id: 'm' }])).toMatchObject({ code: 'bad-value' })
    expect(bad([later, first])).toBeNull()
  })

  test('numbers out of bounds are refused by name', () => {
    const wrong: [Partial<FilmClip>, string][] = [
      [{ name: '' }, 'name of a clip'],
      [{ media: 'x' }, 'film of a clip'],
      [{ widthPx: 0 }, 'size of a clip'],
      [{ heightPx: 1.5 }, 'size of a clip'],
      [{ seconds: 0 }, 'length of a clip'],
      [{ seconds: 601 }, 'length of a clip'],
      [{ from: -1 }, 'frame of a clip'],
      [{ outS: 0 }, 'part of a clip'],
      [{ outS: 4 }, 'part of a clip'],
      [{ rate: 0 }, 'rate of a clip'],
      [{ rate: 9 }, 'rate of a clip'],
      [{ matrix: [1, 0, 0, 1, NaN, 0] }, 'place of a clip'],
      [{ wash: 2 }, 'wash over a clip'],
      [{ shown: 1 as never }, 'clip'],
      [{ source: 'x'.repeat(201) }, 'source of a clip'],
    ]
    const said = wrong.map(([patch]) => refuse(start, { kind: 'clip.add', clip: { ...aClip('t'), ...patch } })?.what)
    expect(said).toEqual(wrong.map(([, what]) => what))
    expect(refuse(start, { kind: 'clip.add', clip: aClip('t') })).toBeNull()
  })

  test('tracing is set up in one step: a layer over all, a blank drawing for every so many frames, the clip seen', () => {
    const take = currentTake(laid)
    const hidden = done(laid, changeClip(clip, { shown: false }))
    const step = tracingSetUp(hidden, take, get(hidden.clips, 'c'), { id: 'traced', name: 'traced', on: 2 }, counting())
    if (!step.ok) throw new Error(step.code)
    const set = done(hidden, step.ops)
    const runs = columnOf(currentTake(set), 'traced')
    const length = Math.min(take.length, 3 + 2 * fps) - 3
    expect(runs.filter(run => run.drawing !== null)).toHaveLength(Math.ceil(length / 2))
    expect(runs[0]).toEqual({ drawing: null, frames: 3 })
    expect(get(set.clips, 'c').shown).toBe(true)
    expect(Object.values(set.layers).every(layer => layer.order <= get(set.layers, 'traced').order)).toBe(true)
    expect(untraced(set, currentTake(set), 'traced', clip).slice(0, 3)).toEqual([4, 6, 8])
    // What lies beside the clip is not asked for.
    expect(untraced(set, currentTake(set), 'traced', { ...clip, from: 7 })[0]).toBe(8)
    expect(tracingSetUp(laid, { ...take, length: 3 }, clip, { id: 'x', name: 'x', on: 1 }, counting())).toEqual({
      ok: false,
      code: 'nothing-left',
    })
  })

  test('its timing becomes a take: drawings begin where its pictures change, everything else stays', () => {
    const changes = [0, 9, 0, 0, 9, 9].map(most => ({ most, usual: 0.1 }))
    const reading = readClip(changes)
    expect(reading.starts).toEqual([0, 2, 5, 6])
    const times = Array.from({ length: 7 }, (_, i) => i / fps)
    const frames = framesOfReading(clip, fps, reading, times)
    expect(frames).toEqual([3, 5, 8, 9])
    // At twice the rate half as many frames pass.
    expect(framesOfReading({ ...clip, rate: 2 }, fps, reading, times)).toEqual([3, 4, 6])
    const take = currentTake(laid)
    const step = takeItsTiming(
      laid,
      take,
      FIRST.drawn,
      { frames, to: 12 },
      { id: 'as-filmed', name: 'as filmed' },
      counting(),
    )
    if (!step.ok) throw new Error(step.code)
    const timed = done(laid, step.ops)
    const column = columnOf(get(timed.takes, 'as-filmed'), FIRST.drawn)
    const starts: number[] = []
    column.reduce((at, run) => (run.drawing !== null && starts.push(at), at + run.frames), 0)
    // The drawing that is there on the first of them is held on from before; behind the last all is as it was.
    expect(starts.filter(frame => frame < 12)).toEqual([0, ...frames.slice(1)])
    expect(timed.current).toBe('as-filmed')
    expect(timed.takes[take.id]).toEqual(laid.takes[take.id])
    // Drawings that are more than the clip has are not shown in that take, and stay.
    const fewer = takeItsTiming(
      laid,
      take,
      FIRST.drawn,
      { frames: [0], to: take.length },
      { id: 'one', name: 'one' },
      counting(),
    )
    if (!fewer.ok) throw new Error(fewer.code)
    const held = done(laid, fewer.ops)
    expect(columnOf(get(held.takes, 'one'), FIRST.drawn)).toHaveLength(1)
    expect(Object.keys(held.drawings)).toEqual(Object.keys(laid.drawings))
    // A drawing that is shown again counts once.
    const again: Operation = {
      kind: 'exposure.write',
      take: take.id,
      layer: FIRST.drawn,
      from: 0,
      runs: ['a', 'b', 'a'].map(drawing => ({ drawing, frames: 4 })),
    }
    const repeated = done(laid, [again])
    const three = takeItsTiming(
      repeated,
      currentTake(repeated),
      FIRST.drawn,
      { frames: [0, 2, 4], to: 12 },
      { id: 'three', name: 'three' },
      counting(),
    )
    if (!three.ok) throw new Error(three.code)
    const shown = columnOf(get(done(repeated, three.ops).takes, 'three'), FIRST.drawn).slice(0, 3)
    expect(shown.map(run => run.drawing)).toEqual(['a', 'b', 'id0'])
    expect(
      takeItsTiming(laid, take, FIRST.drawn, { frames: [9], to: 9 }, { id: 'x', name: 'x' }, counting()),
    ).toMatchObject({
      code: 'nothing-left',
    })
  })
})
