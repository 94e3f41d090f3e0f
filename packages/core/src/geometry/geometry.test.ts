import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  after,
  boxOf,
  gathers,
  IDENTITY,
  insidePolygon,
  inverse,
  lineOutline,
  locate,
  map,
  measurePath,
  packSamples,
  partsLeft,
  pathLength,
  placeStroke,
  pointAlong,
  reflection,
  rotation,
  scaleOf,
  scaling,
  simulatedPressure,
  smoothPath,
  steadyPen,
  touches,
  translation,
  unpackSamples,
  unpackSamplesSafe,
  type Matrix,
  type Sample,
} from './index.ts'

const coordinate = fc.double({ min: -5000, max: 5000, noNaN: true })
const point = fc.record({ x: coordinate, y: coordinate })
const sample: fc.Arbitrary<Sample> = fc.record({
  x: coordinate,
  y: coordinate,
  pressure: fc.double({ min: 0, max: 1, noNaN: true }),
})
const straight = (n: number): Sample[] => Array.from({ length: n }, (_, i) => ({ x: i * 10, y: 0, pressure: 0.5 }))

describe('stored samples', () => {
  test('come back to within a sixteenth of a pixel, and packing them again gives the same bytes', () => {
    fc.assert(
      fc.property(fc.array(sample, { minLength: 1, maxLength: 40 }), samples => {
        const bytes = packSamples(samples)
        const back = unpackSamples(bytes)
        expect(back).toHaveLength(samples.length)
        back.forEach((s, i) => {
          expect(Math.abs(s.x - (samples[i] as Sample).x)).toBeLessThanOrEqual(1 / 16)
          expect(Math.abs(s.y - (samples[i] as Sample).y)).toBeLessThanOrEqual(1 / 16)
          expect(Math.abs(s.pressure - (samples[i] as Sample).pressure)).toBeLessThanOrEqual(1 / 510)
        })
        expect(packSamples(back)).toEqual(bytes)
      }),
    )
  })

  test('a second of drawing takes a few hundred bytes', () => {
    const second = Array.from({ length: 120 }, (_, i) => ({
      x: 300 + i * 2.3,
      y: 200 + 40 * Math.sin(i / 9),
      pressure: 0.6,
    }))
    expect(packSamples(second).length).toBeLessThan(450)
  })

  test.each([
    ['nothing', [], 'empty'],
    ['another version', [9, 1, 0, 0, 0], 'unknown-version'],
    ['no samples', [1, 0], 'bad-count'],
    ['a count too large', [1, 255, 255, 255, 127], 'bad-count'],
    ['a missing byte', [1, 2, 0, 0, 9, 0, 0], 'cut-short'],
    ['bytes too many', [1, 1, 0, 0, 9, 7], 'trailing-bytes'],
    ['a place off any paper', [1, 1, 255, 255, 255, 127, 0, 9], 'off-the-paper'],
  ])('%s is refused', (_what, bytes, fault) => {
    expect(unpackSamplesSafe(Uint8Array.from(bytes))).toEqual({ ok: false, fault })
  })

  test('any bytes are answered, never thrown at', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 60 }), bytes => void unpackSamplesSafe(bytes)))
  })
})

describe('maps', () => {
  const angle = fc.double({ min: -7, max: 7, noNaN: true })
  const matrix = fc
    .tuple(angle, point, fc.double({ min: 0.2, max: 5, noNaN: true }), point)
    .map(([a, c, s, d]): Matrix => after(after(rotation(a, c), scaling(s, s * 1.5, c)), translation(d.x, d.y)))

  test('the inverse undoes a map', () => {
    fc.assert(
      fc.property(matrix, point, (m, p) => {
        const back = map(inverse(m) as Matrix, map(m, p))
        expect(back.x).toBeCloseTo(p.x, 4)
        expect(back.y).toBeCloseTo(p.y, 4)
      }),
    )
  })

  test('mirroring across a line keeps the line, turns everything else over, and done twice does nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: -4, max: 4, noNaN: true }), fc.integer({ min: -500, max: 500 }), (angle, n) => {
        const about = { x: n, y: 2 * n }
        const over = reflection(angle, about)
        const on = { x: about.x + 70 * Math.cos(angle), y: about.y + 70 * Math.sin(angle) }
        const same = map(over, on)
        expect([same.x, same.y]).toEqual([expect.closeTo(on.x, 6), expect.closeTo(on.y, 6)])
        const twice = map(over, map(over, { x: 3, y: 4 }))
        expect([twice.x, twice.y]).toEqual([expect.closeTo(3, 6), expect.closeTo(4, 6)])
        expect(over[0] * over[3] - over[1] * over[2]).toBeCloseTo(-1)
      }),
    )
    // Across the falling diagonal through the origin, x and y change places.
    const swapped = map(reflection(Math.PI / 4, { x: 0, y: 0 }), { x: 10, y: 2 })
    expect([swapped.x, swapped.y]).toEqual([expect.closeTo(2), expect.closeTo(10)])
  })

  test('a quarter turn goes clockwise as seen: right becomes down', () => {
    const turned = map(rotation(Math.PI / 2, { x: 0, y: 0 }), { x: 1, y: 0 })
    expect([turned.x, turned.y]).toEqual([expect.closeTo(0), expect.closeTo(1)])
  })

  test('a map that flattens cannot be undone; scale is measured by area', () => {
    expect(inverse([1, 1, 1, 1, 0, 0])).toBeNull()
    expect(scaleOf(scaling(4, 9, { x: 3, y: 3 }))).toBeCloseTo(6)
    expect(map(IDENTITY, { x: 2, y: 3 })).toEqual({ x: 2, y: 3 })
  })
})

describe('paths', () => {
  test('three points give exactly the parabola', () => {
    // y = x²/100 through x = −100, 0, 100; chord lengths are equal on both sides.
    const path = smoothPath([
      { x: -100, y: 100 },
      { x: 0, y: 0 },
      { x: 100, y: 100 },
    ])
    for (const p of path.points) expect(p.y).toBeCloseTo((p.x * p.x) / 100, 6)
  })

  test('an arc through five points is followed to a thousandth', () => {
    const on = (a: number) => ({ x: 100 * Math.cos(a), y: 100 * Math.sin(a) })
    const path = smoothPath([0, 0.4, 0.8, 1.2, 1.6].map(on))
    expect(pathLength(path)).toBeCloseTo(160, 0)
    for (const p of path.points) expect(Math.hypot(p.x, p.y)).toBeCloseTo(100, 0)
  })

  test('a place on a path is found again by its share of the arc', () => {
    const path = smoothPath([
      { x: 0, y: 0 },
      { x: 60, y: -80 },
      { x: 160, y: -20 },
    ])
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), share => {
        const found = locate(path, pointAlong(path, share))
        expect(found.share).toBeCloseTo(share, 3)
        expect(found.offPx).toBeLessThan(1e-6)
      }),
    )
  })

  test('off the path is measured, and a path of one point has no length', () => {
    expect(
      locate(
        measurePath([
          { x: 0, y: 0 },
          { x: 10, y: 0 },
        ]),
        { x: 5, y: 3 },
      ),
    ).toEqual({ share: 0.5, offPx: 3 })
    expect(locate(measurePath([{ x: 0, y: 0 }]), { x: 3, y: 4 })).toEqual({ share: 0, offPx: 5 })
    expect(() => measurePath([])).toThrow('at least one point')
  })
})

describe('strokes', () => {
  const line = placeStroke(straight(11), 'line', 4, null, null)

  test('a line is outlined about as wide as it was drawn', () => {
    const outline = lineOutline(
      straight(21).map(s => ({ ...s, pressure: 1 })),
      20,
    )
    const ys = [...outline].filter((_, i) => i % 2 === 1)
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(14)
    expect(Math.max(...ys) - Math.min(...ys)).toBeLessThan(34)
  })

  test('rubbing out the middle leaves the two ends', () => {
    expect(
      partsLeft(
        line,
        [
          { x: 50, y: -20 },
          { x: 50, y: 20 },
        ],
        12,
      ),
    ).toEqual([
      [0, 3],
      [7, 10],
    ])
    expect(partsLeft(line, [{ x: 50, y: 90 }], 12)).toEqual([[0, 10]])
    expect(
      partsLeft(
        line,
        [
          { x: -5, y: 0 },
          { x: 105, y: 0 },
        ],
        12,
      ),
    ).toEqual([])
  })

  test('a tip touches a line near it and a shape anywhere inside', () => {
    expect(touches(line, [{ x: 55, y: 5 }], 4)).toBe(true)
    expect(touches(line, [{ x: 55, y: 9 }], 4)).toBe(false)
    const corners = [0, 0, 100, 0, 100, 100, 0, 100]
    const square = Array.from({ length: 4 }, (_, i) => ({
      x: corners[2 * i] as number,
      y: corners[2 * i + 1] as number,
      pressure: 1,
    }))
    expect(touches(placeStroke(square, 'shape', 1, null, null), [{ x: 50, y: 50 }], 1)).toBe(true)
  })

  test('a fast hand does not jump over a line, nor between two samples of one', () => {
    const across = [
      { x: 55, y: -80 },
      { x: 55, y: 80 },
    ]
    expect(touches(line, across, 1)).toBe(true)
    expect(partsLeft(line, across, 1)).toEqual([
      [0, 5],
      [6, 10],
    ])
  })

  test('a part of the samples and a map are resolved', () => {
    const placed = placeStroke(straight(11), 'line', 4, [2, 4], scaling(2, 2, { x: 0, y: 0 }))
    expect(placed.samples.map(s => s.x)).toEqual([40, 60, 80])
    expect(placed.width).toBe(8)
    // At full pressure the line is 8 · 1.62 = 12.96 px wide.
    expect(placed.box.left).toBeCloseTo(40 - 6.48, 9)
    expect(placed.box.bottom).toBeCloseTo(6.48, 9)
  })

  test('a loop gathers what lies mostly inside it', () => {
    const loop = [
      { x: -5, y: -5 },
      { x: 70, y: -5 },
      { x: 70, y: 5 },
      { x: -5, y: 5 },
    ]
    expect(gathers(loop, line)).toBe(true)
    expect(
      gathers(
        loop.map(p => ({ x: p.x - 40, y: p.y })),
        line,
      ),
    ).toBe(false)
    expect(insidePolygon({ x: 0, y: 0 }, loop)).toBe(true)
    expect(boxOf([])).toEqual({ left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity })
  })

  test('a steadied pen follows without overshooting, an unsteadied one is left alone', () => {
    const wild = [0, 100, 0, 100].map(x => ({ x, y: 0, pressure: 0.5 }))
    const calm = wild.map(steadyPen(1))
    expect(Math.max(...calm.map(s => s.x))).toBeLessThan(50)
    expect(wild.map(steadyPen(0))).toEqual(wild)
  })

  test('a mouse presses harder when it is slow', () => {
    const [slow, fast] = [simulatedPressure(), simulatedPressure()]
    let firm = 0
    let light = 0
    for (let i = 0; i < 30; i++) [firm, light] = [slow(1, 16), fast(120, 16)]
    expect(firm).toBeGreaterThan(0.6)
    expect(light).toBeLessThan(0.2)
  })
})
