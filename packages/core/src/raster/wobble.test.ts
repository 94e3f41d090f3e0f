import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { rotation, scaling, translation, type Matrix } from '../geometry/matrix.ts'
import type { Point } from '../geometry/point.ts'
import { runsOf, wobbleOf } from './wobble.ts'

/** A ring of places; its radius is told by the angle. */
const ring = (radius: (a: number) => number, about: Point = { x: 300, y: 200 }): Point[] =>
  Array.from({ length: 721 }, (_, i) => {
    const a = (i / 720) * 2 * Math.PI
    return { x: about.x + radius(a) * Math.cos(a), y: about.y + radius(a) * Math.sin(a) }
  })
const lines = (...all: Point[][]) => ({ runs: runsOf(all), through: null as Matrix | null })
/** Round a ring of 100 px, 628 px long, so many times: at 30 a wave is 21 px long. */
const shaky = (px: number, times = 30) => ring(a => 100 + px * Math.SQRT2 * Math.sin(times * a))
const still = ring(() => 100)
const px = (own: Point[], before: Point[], after: Point[]) => wobbleOf(runsOf([own]), lines(before), lines(after))!.px

describe('places along lines', () => {
  test('lie four px apart, and farther where there is very much', () => {
    const [run] = runsOf([
      [
        { x: 0, y: 0 },
        { x: 6, y: 0 },
        { x: 6, y: 8 },
      ],
    ])
    expect([...run!]).toEqual([0, 0, 4, 0, 6, 2, 6, 6])
    const long = [
      { x: 0, y: 0 },
      { x: 48_000, y: 0 },
    ]
    expect(runsOf([long])[0]!.length / 2).toBeLessThanOrEqual(6001)
    expect(runsOf([[], [{ x: 1, y: 2 }]]).map(one => [...one])).toEqual([[], [1, 2]])
  })
})

describe('a tremble against the drawings beside it', () => {
  test('is as large as it was drawn, and told of the drawing that trembles', () => {
    expect(px(shaky(2), still, still)).toBeGreaterThan(1.7)
    expect(px(shaky(2), still, still)).toBeLessThan(2.1)
    expect(px(still, still, still)).toBeLessThan(0.02)
    // One beside it trembles: it is not this one's.
    expect(px(still, shaky(2), still)).toBeLessThan(0.05)
    // Those beside it tremble to opposite sides: it lies between them.
    expect(px(still, shaky(2), shaky(-2))).toBeLessThan(0.2)
    // The same tremble on all is a shape.
    expect(px(shaky(2), shaky(2), shaky(2))).toBeLessThan(0.02)
  })

  test('what grows, travels or bulges slowly does not tremble', () => {
    expect(
      px(
        ring(() => 104),
        still,
        ring(() => 108),
      ),
    ).toBeLessThan(0.02)
    expect(
      px(
        ring(() => 104),
        still,
        still,
      ),
    ).toBeLessThan(0.02)
    expect(
      px(
        ring(() => 100, { x: 305, y: 198 }),
        still,
        still,
      ),
    ).toBeLessThan(0.1)
    expect(
      px(
        ring(a => 100 + 4 * Math.sin(2 * a)),
        still,
        still,
      ),
    ).toBeLessThan(0.15)
  })

  test('lines that are nowhere near, or run across, are no neighbours', () => {
    expect(wobbleOf(runsOf([still]), lines(ring(() => 130)), lines(still))).toBeNull()
    const spokes = Array.from({ length: 60 }, (_, i) => {
      const a = (i / 60) * 2 * Math.PI
      return [85, 115].map(r => ({ x: 300 + r * Math.cos(a), y: 200 + r * Math.sin(a) }))
    })
    expect(wobbleOf(runsOf([still]), lines(...spokes), lines(still))).toBeNull()
    const half = still.slice(0, 361)
    expect(wobbleOf(runsOf([still]), lines(half), lines(still))!.share).toBeCloseTo(0.46, 1)
    // A line that begins in the middle of nowhere is a leap, and no tremble.
    const two = lines(still.slice(0, 361), ring(() => 109).slice(360))
    expect(wobbleOf(runsOf([still]), two, two)!.px).toBeLessThan(0.1)
  })

  test('carried along, the neighbours may have moved and been squashed', () => {
    const squash = scaling(1.2, 0.8, { x: 300, y: 200 })
    const own = runsOf([still.map(p => ({ x: 300 + (p.x - 300) * 1.2 + 60, y: 200 + (p.y - 200) * 0.8 }))])
    const there: Matrix = [squash[0], squash[1], squash[2], squash[3], squash[4] + 60, squash[5]]
    expect(wobbleOf(own, { ...lines(still), through: there }, { ...lines(still), through: there })!.px).toBeLessThan(
      0.1,
    )
  })

  test('moving and turning everything changes nothing', () => {
    const angle = fc.double({ min: -3, max: 3, noNaN: true })
    const shift = fc.integer({ min: -800, max: 800 })
    const here = px(
      shaky(1.5),
      still,
      ring(() => 103),
    )
    fc.assert(
      fc.property(angle, shift, shift, (turn, dx, dy) => {
        const [r, t] = [rotation(turn, { x: 300, y: 200 }), translation(dx, dy)]
        const put = (all: Point[]) =>
          all.map(({ x, y }) => ({ x: r[0] * x + r[2] * y + r[4] + t[4], y: r[1] * x + r[3] * y + r[5] + t[5] }))
        expect(px(put(shaky(1.5)), put(still), put(ring(() => 103)))).toBeCloseTo(here, 1)
      }),
      { numRuns: 20 },
    )
  })
})
