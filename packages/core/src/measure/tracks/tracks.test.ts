import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { currentTake, FIRST } from '../../document/index.ts'
import { richDocument } from '../../document/tests/rich.ts'
import { offArcs } from './arcs.ts'
import { dragOf } from './drag.ts'
import { tracksOfMarks } from './ofMarks.ts'
import { onsetOf, onsetTable } from './onset.ts'
import { glideAlike, speedsAlike } from './smooth.ts'
import { arriveTogether } from './together.ts'
import { heldPlaces, trackSteps, type Track } from './track.ts'
import { isHardStop, stopOf } from './weight.ts'

/** A part by its places to the right on frames from 0 on, or by places. */
const along = (xs: readonly number[], name = 'nose', y: (x: number, i: number) => number = () => 0): Track => ({
  id: name,
  name,
  places: xs.map((x, i) => ({ frame: i, at: { x, y: y(x, i) } })),
})

describe('how a part goes', () => {
  test('on twos a place is held two frames; a long hold before a step counts as long as is usual', () => {
    const track = along([0, 0, 10, 10, 30, 30, 30, 30, 30, 30, 50, 50])
    expect(heldPlaces(track).map(place => [place.frame, place.held])).toEqual([
      [0, 2],
      [2, 2],
      [4, 6],
      [10, 2],
    ])
    expect(trackSteps(track).map(step => [step.frame, step.pxPerFrame])).toEqual([
      [2, 5],
      [4, 10],
      [10, 10],
    ])
    expect(trackSteps(along([3]))).toEqual([])
  })

  test('it sets out, turns and arrives where its speed passes a tenth of its highest', () => {
    // Steps 0.5 1 4 10 6 −6 −8 −0.5: a tenth of the highest is 1.
    const track = along([0, 0.5, 1.5, 5.5, 15.5, 21.5, 15.5, 7.5, 7])
    expect(onsetOf(track)).toEqual({ id: 'nose', name: 'nose', starts: 2, turns: [6], stops: 7, fastest: 10 })
    expect(onsetOf(along([5, 5, 5.2, 5.1]))).toMatchObject({ starts: null, turns: [], stops: null })
  })

  test('slower between two bursts is a turn as well', () => {
    // Steps 4 8 8 2 8 6: the 2 is under 0.4 of 8.
    expect(onsetOf(along([0, 4, 12, 20, 22, 30, 36])).turns).toEqual([4])
    expect(onsetOf(along([0, 4, 12, 20, 25, 33, 39])).turns).toEqual([])
  })

  test('parts stand in the order in which they set out', () => {
    const table = onsetTable([
      along([0, 0, 0, 9, 18], 'tail'),
      along([0, 9, 18, 18, 18], 'nose'),
      along([1, 1], 'post'),
    ])
    expect(table.map(({ name, starts, stops }) => [name, starts, stops])).toEqual([
      ['nose', 1, 2],
      ['tail', 3, 4],
      ['post', null, null],
    ])
  })

  test('moved and enlarged as a whole, it sets out and arrives on the same frames', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 3, maxLength: 20 }),
        fc.integer({ min: -500, max: 500 }),
        fc.integer({ min: 2, max: 9 }),
        (steps, by, times) => {
          const xs = steps.reduce<number[]>((all, step) => [...all, (all[all.length - 1] as number) + step], [0])
          const [a, b] = [onsetOf(along(xs)), onsetOf(along(xs.map(x => by + times * x)))]
          expect([b.starts, b.turns, b.stops]).toEqual([a.starts, a.turns, a.stops])
        },
      ),
      { seed: 7 },
    )
  })
})

describe('marks of drawings', () => {
  test('go where their drawings are exposed; those on fewer than two drawings are left out', () => {
    const rich = richDocument()
    const take = currentTake(rich)
    const tracks = tracksOfMarks(rich, take, FIRST.drawn)
    const placed = Object.values(rich.marks).filter(
      mark => mark.layer === FIRST.drawn && Object.values(rich.drawings).filter(one => one.marks[mark.id]).length > 1,
    )
    expect(tracks.map(({ id }) => id)).toEqual(placed.map(({ id }) => id))
    for (const { places } of tracks) {
      expect(places.every((place, i) => i === 0 || place.frame > places[i - 1]!.frame)).toBe(true)
    }
  })
})

describe('several parts', () => {
  const stopping = (frame: number, name: string) =>
    onsetOf(along([...Array.from({ length: frame + 1 }, (_, i) => 8 * i), 8 * frame, 8 * frame], name))

  test('three of four that arrive within a frame arrive together, and are staggered from what leads', () => {
    const onsets = [stopping(6, 'hip'), stopping(7, 'head'), stopping(2, 'heel'), stopping(6, 'hand')]
    expect(arriveTogether(onsets)).toEqual({ frame: 6, parts: ['hip', 'head', 'hand'], of: 4, later: [0, 1, 2] })
    expect(arriveTogether([...onsets, stopping(3, 'tail')])).toBeNull()
    expect(arriveTogether(onsets.slice(0, 2))).toBeNull()
  })

  test('a part that does the same three frames later drags by three; one that does nothing alike cannot be told', () => {
    const { sin } = Math
    const body = along(
      Array.from({ length: 24 }, (_, i) => 40 * sin(i / 3)),
      'body',
    )
    const tail = along(
      Array.from({ length: 24 }, (_, i) => 70 * sin((i - 3) / 3)),
      'tail',
      x => 5 + x / 9,
    )
    expect(dragOf(body, tail)).toMatchObject({ told: true, lagFrames: 3 })
    expect(dragOf(tail, body)).toMatchObject({ told: true, lagFrames: -3 })
    expect(dragOf(body, body)).toMatchObject({ told: true, lagFrames: 0 })
    expect(dragOf(body, along([1, 1, 1, 1, 1, 1, 1, 1, 1, 1]))).toEqual({ told: false })
    expect(dragOf(body, along([0, 4, 9]))).toEqual({ told: false })
  })

  test('on an arc nothing lies off it; a place that is pushed by 4 px between steps of 10 is off by two fifths', () => {
    const line = along([0, 10, 20, 30, 40], 'nose', (_, i) => (i === 2 ? 4 : 0))
    expect(offArcs(line)).toEqual([{ frame: 2, px: 4, share: expect.closeTo(4 / Math.hypot(10, 4), 6) }])
    const arc = along([0, 10, 20, 30, 40], 'nose', x => (x * (40 - x)) / 40)
    expect(offArcs(arc)[0]?.share).toBeLessThan(0.07)
    expect(offArcs(along([0, 10]))).toEqual([])
  })

  test('parts that all glide alike are told; one that moves by itself is enough for not', () => {
    const ease = [0, 1, 4, 10, 20, 30, 36, 39, 40]
    const body = along(ease, 'body', x => x / 3)
    const hand = along(
      ease.map(x => 2 * x + 5),
      'hand',
    )
    const ear = along([0, 9, 12, 13, 14, 20, 30, 33, 40], 'ear')
    expect(speedsAlike(body, hand)).toBeCloseTo(1, 6)
    expect(glideAlike([body, hand])).toBe(true)
    expect(glideAlike([body, hand, ear])).toBe(false)
    expect(glideAlike([body])).toBe(false)
  })

  test('a stop from 20 px a frame with nothing after it has no weight; one that sinks on by 6 px has', () => {
    const hard = stopOf(along([0, 20, 40, 60, 60, 60, 60]))
    expect(hard).toEqual({ frame: 3, from: 20, gives: 0, frames: 0 })
    expect(isHardStop(hard!)).toBe(true)
    const soft = stopOf(along([0, 20, 40, 60, 64, 66, 66, 66]))
    expect(soft).toEqual({ frame: 3, from: 20, gives: 6, frames: 2 })
    expect(isHardStop(soft!)).toBe(false)
    expect(stopOf(along([0, 20, 40, 60]))).toBeNull()
    expect(stopOf(along([5, 5, 5]))).toBeNull()
  })
})
