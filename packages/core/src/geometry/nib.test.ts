import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  fitPressure,
  INK,
  lengthOf,
  lineOutline,
  mostStamps,
  NIB_LOOKS,
  placeStroke,
  pressed,
  slowed,
  stamper,
  STRAIGHT_PRESSURE,
  taperOf,
  widthAt,
  type FlatPolygon,
  type Nib,
  type Sample,
} from './index.ts'

const straight = (n: number, pressure = 0.5, step = 2): Sample[] =>
  Array.from({ length: n }, (_, i) => ({ x: i * step, y: 0, pressure }))
/** How thick an outline is at x: between its highest and lowest crossing. */
function thicknessAt(outline: FlatPolygon, x: number): number {
  const n = outline.length / 2
  const at = (i: number) => ({ x: outline[2 * (i % n)] as number, y: outline[2 * (i % n) + 1] as number })
  const ys: number[] = []
  for (let i = 0; i < n; i++) {
    const [p, q] = [at(i), at(i + 1)]
    if (p.x <= x !== q.x <= x) ys.push(p.y + ((x - p.x) / (q.x - p.x)) * (q.y - p.y))
  }
  return ys.length ? Math.max(...ys) - Math.min(...ys) : 0
}

describe('the nib of a line', () => {
  test('width by pressure, worked by hand', () => {
    expect(widthAt(0.5, 10, 0.62)).toBe(10)
    expect(widthAt(1, 10, 0.5)).toBe(15)
    expect(widthAt(0, 10, 0.5)).toBe(5)
    expect(widthAt(0.1, 10, 0)).toBe(10)
  })

  test('an outline is as wide as its nib says', () => {
    for (const pressure of [0.2, 0.5, 0.9]) {
      const outline = lineOutline(straight(60, pressure), 20, INK)
      expect(thicknessAt(outline, 60.3) / widthAt(pressure, 20, INK.thinning)).toBeCloseTo(1, 1)
    }
    const constant = lineOutline(straight(60, 0.1), 20, { ...INK, thinning: 0 })
    expect(thicknessAt(constant, 60.3)).toBeCloseTo(20, 0)
  })

  test('tapered ends run out to a point, blunt ones stop where the line does, round ones reach over', () => {
    const reach = (ends: Nib['ends']) => {
      const outline = lineOutline(straight(100), 20, { ...INK, ends })
      const left = outline.filter((_, i) => i % 2 === 0).reduce((a, b) => Math.min(a, b))
      return { thick: thicknessAt(outline, 5.3), left }
    }
    expect(reach('tapered').thick).toBeLessThan(8)
    expect(reach('blunt').thick).toBeGreaterThan(15)
    expect(reach('round').left).toBeLessThan(reach('blunt').left - 5)
    expect([taperOf('tapered', 4, 300), taperOf('tapered', 4, 30), taperOf('round', 4, 300)]).toEqual([20, 10, 0])
  })
})

describe('how a hand presses', () => {
  test('worked by hand', () => {
    expect(pressed(STRAIGHT_PRESSURE, 0.3)).toBeCloseTo(0.3, 12)
    // (0.5 − 0.2) / (0.8 − 0.2) = ½; a firm hand (exponent 4) makes 1/16 of it, a light one (¼) 0.84.
    expect(pressed({ least: 0.2, full: 0.8, firmness: 1 }, 0.5)).toBeCloseTo(1 / 16, 12)
    expect(pressed({ least: 0.2, full: 0.8, firmness: 0 }, 0.5)).toBeCloseTo(0.5 ** 0.25, 12)
    expect(slowed(0.8, 3, 1)).toBeCloseTo(0.4, 12)
    expect([slowed(0.8, 3, 0), slowed(0.8, 0, 1)]).toEqual([0.8, 0.8])
  })

  test('any curve rises from 0 to 1 and stays between', () => {
    const curve = fc.record({
      least: fc.double({ min: 0, max: 0.5, noNaN: true }),
      full: fc.double({ min: 0.55, max: 1, noNaN: true }),
      firmness: fc.double({ min: 0, max: 1, noNaN: true }),
    })
    const pressure = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(curve, pressure, pressure, (c, a, b) => {
        const [low, high] = [pressed(c, Math.min(a, b)), pressed(c, Math.max(a, b))]
        expect(low).toBeLessThanOrEqual(high)
        expect(low >= 0 && high <= 1).toBe(true)
      }),
    )
  })

  test('a curve fitted to a hand gives its usual pressure half the width', () => {
    // A light hand: from 10 to 50 %, mostly about 20 %.
    const hand = Array.from({ length: 200 }, (_, i) => 0.1 + 0.4 * (i / 199) ** 2)
    const curve = fitPressure(hand)
    if (!curve) throw new Error('nothing was fitted')
    const sorted = [...hand].sort((a, b) => a - b)
    expect(pressed(curve, sorted[100] as number)).toBeCloseTo(0.5, 1)
    expect(pressed(curve, 0.5)).toBe(1)
    expect(fitPressure(hand.slice(0, 10))).toBeNull()
    expect(fitPressure(hand.map(() => 0.4))).toBeNull()
  })
})

describe('touches of a brush', () => {
  const brush: Nib = { look: 'brush', ends: 'round', thinning: 0 }

  test('they lie evenly, an eighth of the width apart', () => {
    const stamps = stamper(50, brush)(straight(31, 0.5, 10))
    expect(stamps.slice(0, 3).map(s => s.x)).toEqual([0, 6, 12])
    expect(stamps).toHaveLength(51)
  })

  test('fed bit by bit they are the same as all at once', () => {
    const samples = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 200 }),
        y: fc.integer({ min: 0, max: 200 }),
        pressure: fc.constantFrom(0.1, 0.5, 1),
      }),
      { minLength: 1, maxLength: 30 },
    )
    fc.assert(
      fc.property(samples, fc.nat(30), (all, cut) => {
        const bits = stamper(12, { ...brush, thinning: 0.5 })
        const parted = [...bits(all.slice(0, cut)), ...bits(all)]
        expect(parted).toEqual(stamper(12, { ...brush, thinning: 0.5 })(all))
      }),
    )
  })
})

describe('what a stroke may cost', () => {
  const HUGE = [10_000, 0, 0, 10_000, 0, 0] as const
  const zigzag = (n: number): Sample[] =>
    Array.from({ length: n }, (_, i) => ({ x: i % 2 ? 90_000 : -90_000, y: i * 3, pressure: 0.9 }))

  test.each(NIB_LOOKS)('is bounded for %s, however thin under however large a map', look => {
    const nib: Nib = { ...INK, look }
    for (const width of [0.0001, 1, 600]) {
      for (const matrix of [HUGE, [0, 0, 0, 0, 0, 0], [1e-9, 0, 0, 1e4, 1e5, -1e5], null] as const) {
        const stroke = placeStroke(zigzag(2000), 'line', width, null, matrix, nib)
        const stamps = stamper(stroke.width, nib, lengthOf(stroke.samples))(stroke.samples)
        const widest = widthAt(1, stroke.width, nib.thinning)
        expect(stamps.length).toBeLessThanOrEqual(mostStamps(widest) + 1)
        expect(stamps.length * widest ** 2).toBeLessThan(1.1e10)
        expect(stroke.width).toBeGreaterThan(0)
        for (const side of Object.values(stroke.box)) expect(Math.abs(side)).toBeLessThan(103_000)
        expect(lineOutline(stroke.samples, stroke.width, nib).every(Number.isFinite)).toBe(true)
      }
    }
  })

  test('a long line is touched to its end, and an ordinary one as before', () => {
    const nib: Nib = { ...INK, look: 'brush' }
    const long = zigzag(400)
    const last = stamper(1, nib, lengthOf(long))(long).at(-1)
    expect(Math.abs((last?.y ?? 0) - (long.at(-1)?.y ?? 0))).toBeLessThan(6)
    const line = straight(300)
    expect(stamper(30, nib, lengthOf(line))(line)).toEqual(stamper(30, nib)(line))
    // Under way nobody knows how long it gets: it ends with the most touches.
    expect(stamper(1, nib)(long)).toHaveLength(40_000)
  })
})
