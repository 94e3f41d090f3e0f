import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { paintLeft, paintParted } from './paintCut.ts'
import type { Point } from './point.ts'
import type { Sample } from './samples.ts'

const path = (...xy: (readonly [number, number])[]): Sample[] => xy.map(([x, y]) => ({ x, y, pressure: 0.5 }))
const square = path([0, 0], [100, 0], [100, 100], [0, 100])

/** Area by the shoelace formula; cuts to holes are gone along there and back, and count nothing. */
const areaOf = (pieces: readonly (readonly Point[])[]) =>
  pieces.reduce((sum, piece) => {
    const twice = piece.reduce((s, p, i) => {
      const q = piece[(i + 1) % piece.length] as Point
      return s + p.x * q.y - q.x * p.y
    }, 0)
    return sum + Math.abs(twice) / 2
  }, 0)

describe('paint that is rubbed off in part', () => {
  test('is parted where the tip passes right through', () => {
    const left = paintLeft(
      square,
      [
        { x: 50, y: -20 },
        { x: 50, y: 120 },
      ],
      10,
    )
    expect(left).toHaveLength(2)
    expect(areaOf(left ?? [])).toBeCloseTo(8000, 0)
  })

  test('gets a hole where it is tapped inside', () => {
    const left = paintLeft(square, [{ x: 50, y: 50 }], 20)
    expect(left).toHaveLength(1)
    // A round tip is a many-sided polygon: a little less than π · 20².
    expect(areaOf(left ?? []) / (10_000 - Math.PI * 400)).toBeCloseTo(1, 2)
  })

  test('is gone when all is passed over, and left alone when the tip stays away', () => {
    expect(paintLeft(square, [{ x: 50, y: 50 }], 100)).toEqual([])
    expect(paintLeft(square, [{ x: 200, y: 50 }], 20)).toBeNull()
    expect(paintLeft(square, [{ x: 118, y: 118 }], 20)).toBeNull()
    expect([paintLeft(square, [], 5), paintLeft(square.slice(0, 2), [{ x: 0, y: 0 }], 5)]).toEqual([null, null])
  })

  test('parted by a loop, its pieces add up to what it was', () => {
    const corner = fc.tuple(fc.integer({ min: -50, max: 150 }), fc.integer({ min: -50, max: 150 }))
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 8 }), loop => {
        const { inside, outside } = paintParted(square, path(...loop))
        expect(areaOf(inside) + areaOf(outside)).toBeCloseTo(10_000, 0)
      }),
      { seed: 21 },
    )
    const { inside, outside } = paintParted(square, path([-10, -10], [50, -10], [50, 110], [-10, 110]))
    expect([areaOf(inside), areaOf(outside)]).toEqual([5000, 5000])
  })
})
