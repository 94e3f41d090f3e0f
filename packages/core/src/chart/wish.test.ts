import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  amountsTo,
  chartInWords,
  curveFromTrack,
  ease,
  evenness,
  fractionLabel,
  isUsableWish,
  largestError,
  PRESETS,
  presetWish,
  readGap,
  steps,
  valueOf,
  wishedPositions,
  wishTicks,
  withoutTick,
  withTickAdded,
  withTickAt,
  type Tick,
  type Wish,
} from './index.ts'

const written = (ticks: readonly Tick[]) => ticks.map(tick => fractionLabel(tick.at)).join(' ')
const wish = (ease: Wish['ease'], more: Partial<Wish> = {}): Wish => ({
  ease,
  strength: 0.5,
  thirds: false,
  points: [],
  ...more,
})

describe('what is wished', () => {
  test('strength makes an ease from even to strong', () => {
    expect(written(wishTicks(wish('slow-in', { strength: 0 }), 3))).toBe('1/4 1/2 3/4')
    expect(written(wishTicks(wish('slow-in'), 3))).toBe('1/2 3/4 7/8')
    expect(written(wishTicks(wish('slow-in', { strength: 1 }), 3))).toBe('1/2 3/4 7/8')
    expect(written(wishTicks(wish('slow-out', { strength: 1 }), 3))).toBe('1/8 1/4 1/2')
    expect(written(wishTicks(wish('favour-a', { strength: 0.75 }), 1))).toBe('1/2')
    fc.assert(
      fc.property(fc.constantFrom(...PRESETS), fc.double({ min: 0, max: 1, noNaN: true }), (preset, strength) => {
        const at = [0, 0.2, 0.4, 0.6, 0.8, 1].map(u => ease(preset, u, strength))
        expect([at[0], at[5]]).toEqual([0, expect.closeTo(1, 12)])
        at.slice(1).forEach((t, i) => expect(t).toBeGreaterThan(at[i] as number))
      }),
    )
    expect(() => ease('even', 0.5, 2)).toThrow('strength must lie between 0 and 1')
  })

  test('for one to eleven inbetweens every wish has a chart, and its largest error is told', () => {
    for (let n = 1; n <= 11; n++) {
      for (const preset of PRESETS) {
        const asked = presetWish(preset)
        const ticks = wishTicks(asked, n)
        expect(ticks).toHaveLength(n)
        expect(largestError(ticks, wishedPositions(asked, n))).toBeLessThanOrEqual(n <= 2 ? 0.28 : 0.18)
      }
    }
  })

  test('an overshoot passes the key by an eighth or a quarter and comes back, settling by a half', () => {
    expect(written(wishTicks(wish('overshoot', { strength: 0.2 }), 1))).toBe('9/8')
    expect(written(wishTicks(wish('overshoot'), 3))).toBe('1/4 1/2 5/4')
    const five = wishTicks(wish('overshoot', { strength: 0.2 }), 5)
    expect(written(five)).toBe('1/4 1/2 3/4 9/8 17/16')
    expect(five[4]).toMatchObject({ left: 3, right: -2, ratio: '1/2' })
    expect(steps(five).at(-1)).toBeCloseTo(-1 / 16, 12)
  })

  test('a curve drawn by hand never falls, and where it stands still the ticks stay apart', () => {
    const points = curveFromTrack([
      { x: 0.1, y: 0.4 },
      { x: 0.5, y: 0.3 },
      { x: 0.9, y: 1.2 },
    ])
    points.slice(1).forEach((p, i) => expect(p).toBeGreaterThanOrEqual(points[i] as number))
    expect([points[0], points.at(-1)]).toEqual([0, 1])
    // One that ends early goes on to the end in a straight line, one that begins late comes from the beginning in one.
    const early = curveFromTrack(
      [
        { x: 0, y: 0 },
        { x: 0.25, y: 0.6 },
        { x: 0.5, y: 0.8 },
      ],
      9,
    )
    expect(early.slice(4)).toEqual([0.8, 0.85, 0.9, 0.95, 1].map(y => expect.closeTo(y)))
    const late = curveFromTrack(
      [
        { x: 0.5, y: 0.2 },
        { x: 1, y: 1 },
      ],
      5,
    )
    expect(late).toEqual([0, 0.1, 0.2, 0.6, 1].map(y => expect.closeTo(y)))
    expect(written(wishTicks(wish('curve', { points: [0, 0, 1] }), 1))).toBe('1/2')
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 20 }), raw => {
        const curve = wish('curve', { points: [...raw].sort((a, b) => a - b) })
        const asked = wishedPositions(curve, 7)
        asked.forEach((t, i) => expect(t > (asked[i - 1] ?? 0) && t < 1).toBe(true))
        expect(wishTicks(curve, 7)).toHaveLength(7)
      }),
    )
  })

  test('unfit points are refused by name', () => {
    expect(() => wishTicks(wish('curve', { points: [0.5, 0.2] }), 2)).toThrow('do not fall')
    expect([
      isUsableWish(wish('curve')),
      isUsableWish(wish('hand', { points: [0.5, 0.5] })),
      isUsableWish(wish('even', { strength: 3 })),
      isUsableWish(wish('hand', { points: [0.2, 0.5] })),
    ]).toEqual([false, false, false, true])
  })
})

describe('ticks put by hand', () => {
  const even = wishTicks(wish('even'), 3)

  test('a dragged tick goes to the nearest halves, and the others stay where they are when they can', () => {
    const halves = wishTicks(wish('slow-in'), 3)
    expect(written(wishTicks(withTickAt(halves, 2, 0.3, false), 3))).toBe('1/4 1/2 3/4')
    // 7/8 is no half of anything while 3/4 is not drawn.
    expect(written(wishTicks(withTickAt(even, 2, 0.86, false), 3))).toBe('1/4 1/2 3/4')
    expect(written(wishTicks(withTickAt(even, 0, 0.13, false), 3))).toBe('1/4 1/2 3/4')
    const five = wishTicks(wish('even'), 7)
    expect(wishTicks(withTickAt(five, 0, 0.12, false), 7)).toHaveLength(7)
  })

  test('one tick of an overshoot is dragged and the others stay, the overshoot and the one that settles it included', () => {
    const seven = wishTicks(wish('overshoot'), 7)
    expect(written(seven)).toBe('1/8 1/4 3/8 1/2 3/4 5/4 9/8')
    expect(written(wishTicks(withTickAt(seven, 2, 0.31, false), 7))).toBe('1/8 1/4 3/8 1/2 3/4 5/4 9/8')
    expect(written(wishTicks(withTickAt(seven, 4, 0.97, false), 7))).toBe('1/8 1/4 3/8 1/2 3/4 5/4 9/8')
    const three = wishTicks(wish('overshoot', { strength: 0.2 }), 3)
    expect(written(wishTicks(withTickAt(three, 0, 0.7, false), 3))).toBe('1/2 3/4 9/8')
    // Dragged itself it goes to the other place past the key, and nothing else moves.
    expect(written(wishTicks(withTickAt(three, 2, 1.3, false), 3))).toBe('1/4 1/2 5/4')
    expect(written(wishTicks(withTickAt(seven, 5, 1.05, false), 7))).toBe('1/8 1/4 3/8 1/2 3/4 9/8 17/16')
    const more = withTickAdded(three, 0.75, false)
    expect(more && written(wishTicks(more, 4))).toBe('1/4 1/2 3/4 9/8')
    expect(written(wishTicks(withoutTick(three, 0, false), 2))).toBe('1/2 9/8')
    expect(isUsableWish(wish('hand', { points: [0.5, 1, 1, 1] }))).toBe(false)
  })

  test('a tick is added and taken off; a full chart takes no more', () => {
    const more = withTickAdded(even, 0.875, false)
    expect(more && written(wishTicks(more, 4))).toBe('1/4 1/2 3/4 7/8')
    expect(written(wishTicks(withoutTick(even, 0, false), 2))).toBe('1/2 3/4')
    expect(withTickAdded(wishTicks(wish('even'), 11), 0.5, false)).toBeNull()
  })
})

describe('gaps that do not divide evenly', () => {
  test('between 31 and 36 the half falls on 33½: 33 or 34, or a key moved by one', () => {
    expect(readGap(31, 36)).toEqual({
      wished: 33.5,
      exact: false,
      nearest: [33, 34],
      moves: [
        { key: 'to', frame: 35, at: 33 },
        { key: 'to', frame: 37, at: 34 },
        { key: 'from', frame: 30, at: 33 },
        { key: 'from', frame: 32, at: 34 },
      ],
    })
    expect(readGap(48, 52)).toEqual({ wished: 50, exact: true, nearest: [50], moves: [] })
  })

  test('moves keep to the room there is', () => {
    const { moves } = readGap(31, 36, 0, 1, { earliest: 31, latest: 36 })
    expect(moves.map(move => move.frame)).toEqual([35, 32])
    // Four inbetweens need five frames: no shorter gap is offered.
    expect(readGap(0, 6, 1, 4).moves.every(({ key, frame }) => (key === 'to' ? frame : 6 - frame) > 4)).toBe(true)
  })

  test('every choice offered is a whole frame between the keys, and every move makes it exact', () => {
    fc.assert(
      fc.property(fc.nat(100), fc.integer({ min: 3, max: 40 }), fc.integer({ min: 1, max: 6 }), (from, gap, count) => {
        for (let i = 0; i < count; i++) {
          const reading = readGap(from, from + gap, i, count)
          for (const frame of reading.nearest) {
            expect(Number.isInteger(frame)).toBe(true)
            expect(Math.abs(frame - reading.wished)).toBeLessThanOrEqual(1)
          }
          for (const { key, frame, at } of reading.moves) {
            const [a, b] = key === 'from' ? [frame, from + gap] : [from, frame]
            expect(readGap(a, b, i, count)).toMatchObject({ exact: true, wished: at })
            // Every drawing gets a frame of its own.
            expect(b - a).toBeGreaterThan(count)
          }
        }
      }),
    )
  })
})

describe('evenness', () => {
  test('halves give 1, 3 and 7 evenly, a third 2, 5 and 11 as well; else the nearest numbers are told', () => {
    const even = (by: 'byHalves' | 'byThirds') => [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].filter(n => evenness(n)[by])
    expect(even('byHalves')).toEqual([1, 3, 7])
    expect(even('byThirds')).toEqual([1, 2, 3, 5, 7, 11])
    expect([2, 5, 8, 3].map(n => evenness(n).nearest)).toEqual([[1, 3], [3, 7], [7], []])
  })
})

describe('a chart in words', () => {
  const values = (asked: Wish, n: number) => wishTicks(asked, n).map(tick => valueOf(tick.at))

  test('what is drawn is held against what was planned', () => {
    const planned = values(presetWish('slow-in'), 3)
    expect(chartInWords(presetWish('slow-in'), planned, planned)).toBe('as planned')
    expect(chartInWords(presetWish('slow-in'), planned, [0.25, 0.5, 0.75])).toBe('even, not slow in')
    expect(chartInWords(presetWish('slow-in'), planned, [0.53, 0.81, 0.93])).toBe(
      'slow in, a little stronger than planned',
    )
    expect(chartInWords(presetWish('slow-in'), planned, [0.35, 0.63, 0.84])).toBe(
      'slow in, a little weaker than planned',
    )
    expect(chartInWords(presetWish('even'), [0.25, 0.5, 0.75], [0.05, 0.1, 0.9])).toBe(
      'no even spacing: look at each drawing',
    )
    expect(chartInWords(presetWish('even'), [], [])).toBe('')
  })

  test('a chart drawn the other way round is recognised for what it is', () => {
    const back = (asked: Wish, n: number) =>
      chartInWords(
        asked,
        values(asked, n),
        values(asked, n)
          .reverse()
          .map(t => 1 - t),
      )
    for (const n of [3, 4, 5, 7, 11]) {
      expect(back(presetWish('slow-out'), n)).toBe('slow in, not slow out')
      expect(back(presetWish('slow-in'), n)).toBe('slow out, not slow in')
      expect(back(presetWish('favour-a'), n)).toBe('favouring the last key, not favouring the first key')
      expect(back(presetWish('favour-b'), n)).toBe('favouring the first key, not favouring the last key')
    }
    expect(back(presetWish('both'), 7)).toBe('as planned')
    expect(back(presetWish('both'), 8)).toBe('slow out and in, seen in a mirror')
    expect(chartInWords(presetWish('even'), [0.25, 0.5, 0.75], [-0.2, 0.4, 0.75])).toBe('back behind the first key')
  })

  test('shares made by a preset are read as that preset, and their strength within a fortieth', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('slow-in', 'slow-out', 'both'),
        fc.double({ min: 0.3, max: 0.95, noNaN: true }),
        fc.integer({ min: 4, max: 9 }),
        (preset, strength, n) => {
          const shares = Array.from({ length: n }, (_, i) => ease(preset, (i + 1) / (n + 1), strength))
          const read = amountsTo(shares)
          expect(read?.preset).toBe(preset)
          expect(Math.abs((read?.strength ?? 9) - strength)).toBeLessThanOrEqual(1 / 40)
        },
      ),
    )
  })
})
