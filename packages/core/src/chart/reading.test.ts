import { describe, expect, test } from '@jest/globals'
import { presetWish } from './wish.ts'
import { amountsTo, chartInWords, readGap } from './index.ts'

const EVEN = [0.25, 0.5, 0.75]
const SLOW_OUT = [1 / 16, 1 / 4, 9 / 16]

describe('a chart read back in words', () => {
  const said = (measured: readonly number[], planned: readonly number[] = EVEN) =>
    chartInWords(presetWish('even'), planned, measured)

  test.each([
    ['nothing drawn', [], ''],
    ['on its ticks', EVEN, 'as planned'],
    ['within a fiftieth of them', [0.269, 0.5, 0.75], 'as planned'],
    ['one past the last key', [0.5, 1.03, 0.9], 'past the key and back'],
    ['one barely past it', [0.25, 0.5, 1.01], 'no even spacing: look at each drawing'],
    ['one behind the first key', [-0.03, 0.5, 0.75], 'back behind the first key'],
    ['here and there', [0.1, 0.2, 0.95], 'no even spacing: look at each drawing'],
  ])('%s', (_what, measured, words) => {
    expect(said(measured, EVEN.slice(0, Math.max(1, measured.length)))).toBe(words)
  })

  test('a chart drawn from its other end is told', () => {
    const planned = SLOW_OUT
    const mirrored = [...planned].reverse().map(t => 1 - t)
    expect(chartInWords(presetWish('slow-out'), planned, mirrored)).toBe('slow in, not slow out')
    const favoured = [0.2, 0.34, 0.7]
    expect(
      chartInWords(
        presetWish('favour-a'),
        favoured,
        [...favoured].reverse().map(t => 1 - t),
      ),
    ).toBe('favouring the last key, not favouring the first key')
    const both = [0.1, 0.52, 0.86]
    expect(
      chartInWords(
        presetWish('both'),
        both,
        [...both].reverse().map(t => 1 - t),
      ),
    ).toBe('slow out and in, seen in a mirror')
  })

  test('the same ease is as strong as planned, or a little or much stronger or weaker', () => {
    const eased = (power: number) => [0.25, 0.5, 0.75].map(t => t ** power)
    const wish = presetWish('slow-out')
    const planned = eased(1.6)
    const words = [1.1, 1.35, 1.72, 1.95, 2.6].map(power => chartInWords(wish, planned, eased(power)))
    expect(words).toEqual([
      'slow out, a little weaker than planned',
      'slow out, a little weaker than planned',
      'slow out, about as strong as planned',
      'slow out, a little stronger than planned',
      'slow out, much stronger than planned',
    ])
  })

  test('what was put by hand is named by what it amounts to', () => {
    const hand = { ...presetWish('even'), ease: 'hand', points: SLOW_OUT } as const
    expect(chartInWords(hand, SLOW_OUT, EVEN)).toBe('even, not slow out')
    expect(amountsTo([])).toBeNull()
    expect(amountsTo(EVEN)).toMatchObject({ preset: 'even', strength: 0 })
  })
})

describe('a gap that does not part evenly', () => {
  test('the nearer frame comes first, the earlier of two alike', () => {
    expect(readGap(0, 4, 0, 2)).toMatchObject({ wished: 4 / 3, nearest: [1, 2] })
    expect(readGap(0, 5, 0, 2)).toMatchObject({ wished: 5 / 3, nearest: [2, 1] })
    expect(readGap(31, 36).nearest).toEqual([33, 34])
  })

  test('no frame of a key is offered', () => {
    expect(readGap(0, 2, 0, 3).nearest).toEqual([1])
    expect(readGap(0, 2, 2, 3).nearest).toEqual([1])
  })

  test('at most four moves or the next whole round of them, within the room, a frame for every drawing', () => {
    expect(readGap(31, 36).moves).toEqual([
      { key: 'to', frame: 35, at: 33 },
      { key: 'to', frame: 37, at: 34 },
      { key: 'from', frame: 30, at: 33 },
      { key: 'from', frame: 32, at: 34 },
    ])
    expect(readGap(31, 36, 0, 1, { earliest: 31, latest: 36 }).moves.map(move => move.frame)).toEqual([35, 32])
    expect(readGap(1, 4, 0, 1, { earliest: 1 }).moves.map(({ key, frame }) => `${key} ${frame}`)).toEqual([
      'to 3',
      'to 5',
      'from 2',
    ])
    // Three drawings need four frames: keys nearer than that are not offered.
    expect(readGap(10, 13, 1, 3).moves.every(({ key, frame }) => (key === 'to' ? frame - 10 : 13 - frame) > 3)).toBe(
      true,
    )
    expect(readGap(10, 15, 1, 3).moves.length).toBeGreaterThan(0)
  })
})
