import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { GlyphStep } from './lettering.ts'
import { insidePolygon, type Point } from './point.ts'
import { lengthOf } from './stroke.ts'
import { areaInside } from './thinned.ts'
import { linesOf, paintedBy } from './vectorPieces.ts'

const M = (x: number, y: number): GlyphStep => ({ type: 'M', x, y })
const L = (x: number, y: number): GlyphStep => ({ type: 'L', x, y })
const Z: GlyphStep = { type: 'Z' }
const square = (x: number, y: number, side: number, round = 1): GlyphStep[] => {
  const corners: [number, number][] = [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ]
  const [[sx, sy], ...rest] = (round > 0 ? corners : corners.reverse()) as [[number, number], ...[number, number][]]
  return [M(sx, sy), ...rest.map(([a, b]) => L(a, b)), Z]
}
const area = (pieces: readonly (readonly Point[])[]) =>
  pieces.reduce((sum, piece) => sum + Math.abs(areaInside(piece)), 0)

describe('what a path paints', () => {
  test('a round within another: a hole by odd numbers, and by winding only the other way round', () => {
    const within = (way: 1 | -1) => [...square(0, 0, 10), ...square(2, 2, 4, way)]
    expect(area(paintedBy(square(0, 0, 10), 'nonzero'))).toBeCloseTo(100, 6)
    expect(area(paintedBy(within(1), 'evenodd'))).toBeCloseTo(84, 6)
    expect(area(paintedBy(within(1), 'nonzero'))).toBeCloseTo(100, 6)
    expect(area(paintedBy(within(-1), 'nonzero'))).toBeCloseTo(84, 6)
  })

  test('two that cross are one piece by winding, and by odd numbers all but what they share', () => {
    const crossing = [...square(0, 0, 10), ...square(5, 5, 10)]
    const one = paintedBy(crossing, 'nonzero')
    expect([one.length, area(one)]).toEqual([1, expect.closeTo(175, 6)])
    expect(area(paintedBy(crossing, 'evenodd'))).toBeCloseTo(150, 6)
  })

  test('a five-pointed star is painted in its middle by winding only', () => {
    const star = Array.from({ length: 5 }, (_, i) => ((2 * i * 2 * Math.PI) / 5) as number)
    const steps: GlyphStep[] = [...star.map((a, i) => (i ? L : M)(100 + 50 * Math.sin(a), 100 - 50 * Math.cos(a))), Z]
    const isPainted = (way: 'nonzero' | 'evenodd') =>
      paintedBy(steps, way).some(piece => insidePolygon({ x: 100, y: 100 }, piece))
    expect([isPainted('nonzero'), isPainted('evenodd')]).toEqual([true, false])
  })

  test('a path that is not closed is painted as if it were; a line, a point and what is off any paper are not', () => {
    expect(area(paintedBy(square(0, 0, 10).slice(0, 4), 'nonzero'))).toBeCloseTo(100, 6)
    for (const steps of [[M(0, 0), L(5, 5)], [M(0, 0), Z], [L(3, 3)], [], square(0, 0, 1e9), square(NaN, 0, 3)])
      expect(paintedBy(steps, 'nonzero')).toEqual([])
  })

  test('any squares are painted as much as they cover', () => {
    const box = fc.record({
      x: fc.integer({ min: 0, max: 12 }),
      y: fc.integer({ min: 0, max: 12 }),
      side: fc.integer({ min: 1, max: 6 }),
    })
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 4 }), boxes => {
        const steps = boxes.flatMap(({ x, y, side }) => square(x, y, side))
        let [all, odd] = [0, 0]
        for (let i = 0; i < 18; i++)
          for (let k = 0; k < 18; k++) {
            const over = boxes.filter(b => i >= b.x && i < b.x + b.side && k >= b.y && k < b.y + b.side).length
            all += Number(over > 0)
            odd += over % 2
          }
        expect(area(paintedBy(steps, 'nonzero'))).toBeCloseTo(all, 1)
        expect(area(paintedBy(steps, 'evenodd'))).toBeCloseTo(odd, 1)
      }),
      { numRuns: 200 },
    )
  })
})

describe('the lines of a path', () => {
  test('closed ones end where they began, and go on from there; open ones do not', () => {
    const [round, on] = linesOf([...square(0, 0, 8), L(-3, 0)])
    expect(lengthOf(round!)).toBeCloseTo(32, 6)
    expect([round![0], round!.at(-1)]).toEqual([round![0], round![0]])
    expect(on!.map(({ x, y }) => [x, y])).toEqual([
      [0, 0],
      [-3, 0],
    ])
    expect(lengthOf(linesOf(square(0, 0, 8).slice(0, 4))[0]!)).toBeCloseTo(24, 6)
  })

  test('points lie close enough for a nib, with an even pressure', () => {
    const [line] = linesOf([M(0, 0), L(10, 0)])
    expect(line!.map(s => [s.x, s.pressure])).toEqual([0, 10 / 3, 20 / 3, 10].map(x => [expect.closeTo(x, 9), 0.5]))
  })

  test('a curve is followed within a hundredth of a pixel of what it is', () => {
    // A quarter of a circle of radius 100, as four numbers draw it (0.5523).
    const k = 55.23
    const steps: GlyphStep[] = [M(100, 0), { type: 'C', x1: 100, y1: k, x2: k, y2: 100, x: 0, y: 100 }]
    for (const { x, y } of linesOf(steps)[0]!) expect(Math.abs(Math.hypot(x, y) - 100)).toBeLessThan(0.06)
    expect(lengthOf(linesOf(steps)[0]!)).toBeCloseTo((100 * Math.PI) / 2, 0)
  })

  test('points, and what is off any paper, are no lines', () => {
    for (const steps of [
      [M(1, 1), Z],
      [M(1, 1), L(1, 1)],
      [M(0, 0), L(1e9, 0)],
      [M(0, 0), L(Infinity, 0)],
    ])
      expect(linesOf(steps)).toEqual([])
  })
})
