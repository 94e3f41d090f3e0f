import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { joined, partedBy, placeStroke, smoothed, straightLine, type Sample } from './index.ts'

const line = (from: number, to: number) => straightLine({ x: from, y: 0 }, { x: to, y: 0 })

describe('lines changed later', () => {
  test('smoothing takes the tremble out and leaves the ends; worked by hand for one pass', () => {
    const zigzag = [0, 4, 0, 4, 0].map((y, i): Sample => ({ x: i, y, pressure: 0.5 }))
    expect(smoothed(zigzag, 1).map(s => s.y)).toEqual([0, 2, 2, 2, 0])
    expect(smoothed(line(0, 30))).toEqual(line(0, 30))
    expect(smoothed([zigzag[1] as Sample])).toEqual([zigzag[1]])
  })

  test('two lines are joined at their nearest ends, whichever way they were drawn', () => {
    const whole = [...line(0, 30), ...line(33, 60)].map(s => s.x)
    for (const [a, b] of [
      [line(0, 30), line(33, 60)],
      [line(30, 0), line(33, 60)],
      [line(0, 30), line(60, 33)],
      [line(60, 33), line(30, 0)],
    ] as const) {
      const xs = joined(a, b).map(s => s.x)
      expect(xs[0] === 0 ? xs : xs.reverse()).toEqual(whole)
    }
  })

  test('a loop parts a line without a gap, and every sample is in a part', () => {
    const box = (left: number, right: number) => [
      { x: left, y: -5 },
      { x: right, y: -5 },
      { x: right, y: 5 },
      { x: left, y: 5 },
    ]
    const stroke = placeStroke(line(0, 60), 'line', 4, null, null)
    expect(partedBy(box(16, 40), stroke)).toEqual({
      outside: [
        [0, 6],
        [14, 20],
      ],
      inside: [[6, 14]],
    })
    fc.assert(
      fc.property(fc.integer({ min: -10, max: 70 }), fc.integer({ min: 1, max: 60 }), (left, width) => {
        const { inside, outside } = partedBy(box(left, left + width), stroke)
        const parts = [...inside, ...outside].sort((a, b) => a[0] - b[0])
        expect(parts[0]?.[0]).toBe(0)
        expect(parts.at(-1)?.[1]).toBe(20)
        parts.slice(1).forEach(([from], i) => expect(from - (parts[i] as readonly number[])[1]!).toBeLessThanOrEqual(1))
      }),
    )
  })
})
