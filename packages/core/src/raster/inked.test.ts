import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { boxOfInk, isOnTransparency, within, type Inked } from './inked.ts'
import { shapeOf } from './shapeOf.ts'
import type { Grey } from './grey.ts'

/** A picture that is inked where it is said. */
const picture = (width: number, height: number, inked: (x: number, y: number) => boolean): Grey => ({
  width,
  height,
  data: Uint8Array.from({ length: width * height }, (_, i) => (inked(i % width, Math.floor(i / width)) ? 255 : 0)),
})
/** A ring of pencil, its middle at (100, 80), open on the right by so many pixels. */
const ring = (r: number, thick: number, gap: number) =>
  picture(200, 160, (x, y) => {
    const [dx, dy] = [x + 0.5 - 100, y + 0.5 - 80]
    return Math.abs(Math.hypot(dx, dy) - r) <= thick / 2 && !(dx > 0 && Math.abs(dy) < gap / 2)
  })
const PLAIN = [1, 0, 0, 1, 0, 0] as const
const shaped = (ink: Inked, closedGapPx = 6) => shapeOf([], { inks: [ink], closedGapPx })

describe('pictures on transparency are measured by what is inked', () => {
  test('a closed ring of pencil counts as its whole disc, and its middle is the middle', () => {
    const shape = shaped({ alpha: ring(50, 4, 0), matrix: PLAIN, cut: null })
    // π · 52² = 8495
    expect(Math.abs(shape.area / 8495 - 1)).toBeLessThan(0.01)
    expect(shape.centroid?.x).toBeCloseTo(100, 0)
    expect(shape.centroid?.y).toBeCloseTo(80, 0)
  })
  test('a gap no wider than counts as closed is closed; a wider one lets the outside in', () => {
    expect(Math.abs(shaped({ alpha: ring(50, 4, 5), matrix: PLAIN, cut: null }).area / 8495 - 1)).toBeLessThan(0.02)
    // What is left is the ring alone: 2π · 50 · 4 = 1257.
    expect(shaped({ alpha: ring(50, 4, 14), matrix: PLAIN, cut: null }).area).toBeLessThan(1600)
    expect(Math.abs(shaped({ alpha: ring(50, 4, 14), matrix: PLAIN, cut: null }, 16).area / 8495 - 1)).toBeLessThan(
      0.03,
    )
  })
  test('moved, turned and twice as large it has four times the area, and its middle goes along', () => {
    const turned = [0, 2, -2, 0, 400, 30] as const
    const shape = shaped({ alpha: ring(50, 4, 0), matrix: turned, cut: null })
    expect(Math.abs(shape.area / (4 * 8495) - 1)).toBeLessThan(0.01)
    expect(shape.centroid?.x).toBeCloseTo(400 - 2 * 80, 0)
    expect(shape.centroid?.y).toBeCloseTo(30 + 2 * 100, 0)
  })
  test('a picture with nothing on it, and one that is painted all over, are no silhouettes', () => {
    expect(isOnTransparency(picture(20, 20, () => false))).toBe(false)
    expect(isOnTransparency(picture(20, 20, () => true))).toBe(false)
    expect(isOnTransparency(ring(50, 4, 0))).toBe(true)
    expect(shapeOf([], { inks: [{ alpha: picture(20, 20, () => false), matrix: PLAIN, cut: null }] }).area).toBe(0)
  })
  test('what is cut off is not measured', () => {
    const alpha = picture(40, 20, () => true)
    const cut = { left: 10, top: 5, right: 30, bottom: 15 }
    expect(boxOfInk({ alpha, matrix: PLAIN, cut })).toEqual(cut)
    expect(shapeOf([], { inks: [{ alpha, matrix: PLAIN, cut }] }).area).toBeCloseTo(200, 0)
    expect(shapeOf([], { inks: [{ alpha, matrix: PLAIN, cut: null }] }).area).toBeCloseTo(800, 0)
  })
  test('the box is that of the ink, in paper pixels', () => {
    const alpha = picture(30, 20, (x, y) => x >= 4 && x < 10 && y >= 2 && y < 8)
    expect(boxOfInk({ alpha, matrix: [2, 0, 0, 2, 5, 5], cut: null })).toEqual({
      left: 13,
      top: 9,
      right: 25,
      bottom: 21,
    })
  })
})

describe('fatter and leaner', () => {
  const W = 17
  const H = 11
  const mask = fc
    .array(fc.constantFrom(0, 1), { minLength: W * H, maxLength: W * H })
    .map(cells => Uint8Array.from(cells))
  const slow = (cells: Uint8Array, by: number, all: boolean) =>
    cells.map((_, i) => {
      const around: number[] = []
      for (let dy = -by; dy <= by; dy++) {
        for (let dx = -by; dx <= by; dx++) {
          const [x, y] = [(i % W) + dx, Math.floor(i / W) + dy]
          around.push(x >= 0 && y >= 0 && x < W && y < H ? cells[y * W + x]! : 0)
        }
      }
      return (all ? around.every(Boolean) : around.some(Boolean)) ? 1 : 0
    })
  test('are what looking at each neighbour says', () => {
    fc.assert(
      fc.property(mask, fc.integer({ min: 0, max: 4 }), fc.boolean(), (cells, by, all) =>
        expect(within(cells, W, H, by, all)).toEqual(slow(cells, by, all)),
      ),
    )
  })
})
