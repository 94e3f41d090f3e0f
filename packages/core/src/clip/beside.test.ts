import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { APART_FRAMES, besideTiming } from './beside.ts'

const rising = fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { maxLength: 14 }).map(all => all.sort((a, b) => a - b))

describe('a timing beside another one', () => {
  test('by hand: one a frame later, one missing, one too many', () => {
    expect(besideTiming([0, 2, 4, 12, 20], [0, 3, 4, 20, 30])).toEqual({
      pairs: [
        { theirs: 0, own: 0, by: 0 },
        { theirs: 2, own: 3, by: 1 },
        { theirs: 4, own: 4, by: 0 },
        { theirs: 20, own: 20, by: 0 },
      ],
      onlyTheirs: [12],
      onlyOwn: [30],
    })
  })
  test('a whole sequence that begins a frame late stays paired, and nothing is paired with nothing', () => {
    const late = besideTiming([0, 2, 4, 6], [1, 3, 5, 7])
    expect(late.pairs.map(pair => pair.by)).toEqual([1, 1, 1, 1])
    expect(besideTiming([], [3])).toEqual({ pairs: [], onlyTheirs: [], onlyOwn: [3] })
    expect(besideTiming([3], [])).toEqual({ pairs: [], onlyTheirs: [3], onlyOwn: [] })
  })
  test('all of both are told once, in order, and pairs are never too far apart', () => {
    fc.assert(
      fc.property(rising, rising, (theirs, own) => {
        const { pairs, onlyTheirs, onlyOwn } = besideTiming(theirs, own)
        const sorted = (all: number[]) => [...all].sort((a, b) => a - b)
        expect(sorted([...pairs.map(pair => pair.theirs), ...onlyTheirs])).toEqual(theirs)
        expect(sorted([...pairs.map(pair => pair.own), ...onlyOwn])).toEqual(own)
        for (const [i, pair] of pairs.entries()) {
          expect(Math.abs(pair.by)).toBeLessThanOrEqual(APART_FRAMES)
          expect(pair.by).toBe(pair.own - pair.theirs)
          const next = pairs[i + 1]
          if (next) expect(next.own > pair.own && next.theirs > pair.theirs).toBe(true)
        }
      }),
    )
  })
  test('it is the same the other way round, and with itself all begin together', () => {
    fc.assert(
      fc.property(rising, rising, (theirs, own) => {
        const [there, back] = [besideTiming(theirs, own), besideTiming(own, theirs)]
        const far = ({ pairs, onlyTheirs, onlyOwn }: ReturnType<typeof besideTiming>) =>
          pairs.reduce((sum, pair) => sum + Math.abs(pair.by), 0) +
          ((onlyTheirs.length + onlyOwn.length) * APART_FRAMES) / 2
        expect(far(back)).toBe(far(there))
        expect(besideTiming(own, own).pairs.every(pair => pair.by === 0)).toBe(true)
        expect(besideTiming(own, own).pairs).toHaveLength(own.length)
      }),
    )
  })
})
