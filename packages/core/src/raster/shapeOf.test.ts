import { describe, expect, test } from '@jest/globals'
import { placeStroke, type Sample } from '../geometry/index.ts'
import { fillPolygon, shapeOf } from './index.ts'
import { limbShares } from './limbs.ts'
import { solidityOf } from './solidity.ts'

const ring = (n: number, r: number, share = 1): Sample[] =>
  Array.from({ length: n }, (_, i) => {
    const a = (i / (n - 1)) * share * 2 * Math.PI
    return { x: 500 + r * Math.cos(a), y: 400 + r * Math.sin(a), pressure: 0.5 }
  })

const paint = (points: number[], size = 6) => {
  const alpha = new Uint8Array(size * size)
  fillPolygon(alpha, size, size, Float32Array.from(points), { left: 0, top: 0, scale: 1 })
  return Array.from({ length: size }, (_, y) =>
    [...alpha.subarray(y * size, (y + 1) * size)].map(v => (v ? '#' : '.')).join(''),
  )
}

describe('filling a polygon', () => {
  test('a pixel is in when its centre is', () => {
    expect(paint([1, 1, 4, 1, 4, 3, 1, 3])).toEqual(['......', '.###..', '.###..', '......', '......', '......'])
    expect(paint([1.6, 1, 4.4, 1, 4.4, 2, 1.6, 2])[1]).toBe('..##..')
  })

  test('overlapping windings stay filled', () => {
    const twice = [0, 0, 5, 0, 5, 5, 0, 5, 0, 0, 3, 0, 3, 3, 0, 3]
    expect(paint(twice)[1]).toBe('#####.')
  })

  test('what lies outside is cut off, and nothing is painted for nothing', () => {
    expect(paint([-9, -9, 20, -9, 20, 2, -9, 2]).filter(row => row === '######')).toHaveLength(2)
    expect(paint([]).join('')).not.toContain('#')
    expect(paint([0, 20, 5, 20, 5, 25]).join('')).not.toContain('#')
  })
})

describe('the shape of a drawing', () => {
  test('a circle drawn as a line counts as its disc, to half a per cent', () => {
    const shape = shapeOf([placeStroke(ring(120, 150), 'line', 3, null, null)])
    expect(shape.area / (Math.PI * 151.5 ** 2)).toBeCloseTo(1, 2)
    expect(shape.centroid?.x).toBeCloseTo(500, 0)
    expect(shape.centroid?.y).toBeCloseTo(400, 0)
  })

  test('a disc fills its hull; a cross of five squares five sevenths of it, by hand; nothing is whole', () => {
    expect(shapeOf([placeStroke(ring(120, 150), 'line', 3, null, null)]).solidity).toBeGreaterThan(0.99)
    // Squares of 3: area 5 · 9 = 45, its hull the 9 × 9 without four corner triangles of 4.5: 63.
    const cross = Uint8Array.from({ length: 81 }, (_, i) => {
      const [x, y] = [Math.floor((i % 9) / 3), Math.floor(i / 27)]
      return x === 1 || y === 1 ? 1 : 0
    })
    expect(solidityOf({ width: 9, height: 9, inside: cross }, 45)).toBeCloseTo(45 / 63, 9)
    // Two rows with an empty one between them.
    expect(solidityOf({ width: 2, height: 4, inside: Uint8Array.of(0, 0, 1, 1, 0, 0, 1, 1) }, 4)).toBeCloseTo(4 / 6, 9)
    expect(solidityOf({ width: 3, height: 2, inside: new Uint8Array(6) }, 0)).toBe(1)
    expect(shapeOf([]).solidity).toBeUndefined()
  })

  test('a limb inside makes nothing of the outline; one that reaches out makes what of it is outside, by hand', () => {
    // A body of 60 × 60 with an arm of 20 × 20 at its right: the outline is 4 · 60 − 4 pixels and, with the arm, 20 at top and bottom more and none less.
    const square = (left: number, top: number, side: number): Sample[] =>
      [
        [0, 0],
        [side, 0],
        [side, side],
        [0, side],
        [0, 0],
      ].map(([x, y]) => ({ x: left + x!, y: top + y!, pressure: 1 }))
    const block = (left: number, top: number, side: number) =>
      placeStroke(square(left, top, side), 'shape', 1, null, null)
    const [body, arm, inner] = [block(100, 100, 60), block(160, 120, 20), block(120, 120, 20)]
    const limbs = new Map([
      ['near', [arm]],
      ['far', [inner]],
    ])
    const read = shapeOf([body, arm, inner], { limbs }).limbs
    expect(read?.['far']).toBe(0)
    // 20 above, 20 below and 18 between them at its end, of 276.
    expect(read?.['near']).toBeCloseTo(58 / 274, 1)
    expect(shapeOf([body, arm]).limbs).toBeUndefined()
    expect(
      limbShares(
        { width: 2, height: 1, inside: Uint8Array.of(0, 0) },
        new Map([['near', { width: 2, height: 1, inside: Uint8Array.of(0, 0) }]]),
      ),
    ).toEqual({ near: 0 })
  })

  test('each side of an outline counts: of three by three pixels all but the middle are one', () => {
    const mask = (isIn: (x: number, y: number) => boolean) => ({
      width: 5,
      height: 5,
      inside: Uint8Array.from({ length: 25 }, (_, i) => (isIn(i % 5, Math.floor(i / 5)) ? 1 : 0)),
    })
    const block = mask((x, y) => x > 0 && x < 4 && y > 0 && y < 4)
    for (const [px, py] of [
      [2, 1],
      [2, 3],
      [1, 2],
      [3, 2],
    ] as const) {
      expect(limbShares(block, new Map([['near', mask((x, y) => x === px && y === py)]]))).toEqual({ near: 1 / 8 })
    }
    expect(limbShares(block, new Map([['near', mask((x, y) => x === 2 && y === 2)]]))).toEqual({ near: 0 })
  })

  test('a ring with tapered tips holds the outside out where they meet', () => {
    const tapered = placeStroke(ring(120, 132.5), 'line', 3, null, null, {
      look: 'ink',
      ends: 'tapered',
      thinning: 0.62,
    })
    // Its outer edge is a circle of radius 134; before, the outside came in between the tips.
    expect(Math.abs(shapeOf([tapered]).area - 56_465)).toBeLessThan(300)
  })

  test('outlines open by up to six pixels, or their width, count as closed; wider gaps are told with their place', () => {
    const gap = (px: number, width = 3, how = {}) =>
      shapeOf([placeStroke(ring(400, 150, 1 - px / (2 * Math.PI * 150)), 'line', width, null, null)], how)
    const disc = Math.PI * 151.5 ** 2
    expect(gap(5).area / disc).toBeCloseTo(1, 2)
    expect(gap(5).open).toBeNull()
    expect(gap(11, 14).area).toBeGreaterThan(disc)
    expect(gap(9).area / disc).toBeLessThan(0.1)
    expect(gap(9).open?.x).toBeCloseTo(650, 0)
    expect(gap(9, 3, { closedGapPx: 10 }).open).toBeNull()
    expect(gap(5, 3, { closedGapPx: 2 }).open).not.toBeNull()
    expect(gap(60).open).not.toBeNull()
  })

  test('two lines side by side are no outline that stands open', () => {
    const row = (y: number) => Array.from({ length: 30 }, (_, i) => ({ x: 100 + 12 * i, y, pressure: 0.4 }))
    const lines = [row(200), row(280)].map(samples => placeStroke(samples, 'line', 4, null, null))
    expect(shapeOf(lines).open).toBeNull()
  })

  test('two lines whose ends nearly meet close one outline; a hair on it opens nothing', () => {
    const half = (from: number) => ring(400, 150).slice(from, from + 199)
    const halves = [half(0), half(199)].map(samples => placeStroke(samples, 'line', 3, null, null))
    expect(shapeOf(halves).area / (Math.PI * 151.5 ** 2)).toBeCloseTo(1, 1)
    const hair = [0, 8, 16].map(i => ({ x: 650 + i, y: 400 - i, pressure: 0.5 }))
    const whole = placeStroke(ring(120, 150), 'line', 3, null, null)
    expect(shapeOf([whole, placeStroke(hair, 'line', 2, null, null)]).open).toBeNull()
  })

  test('enclosed empty space that is marked is not body', () => {
    const body = placeStroke(ring(200, 150), 'line', 3, null, null)
    const hole = placeStroke(ring(120, 40), 'line', 3, null, null)
    const marked = shapeOf([body, hole], { spaces: [{ x: 500, y: 400 }] })
    expect(marked.area / (Math.PI * (151.5 ** 2 - 38.5 ** 2))).toBeCloseTo(1, 2)
    expect(shapeOf([body, hole]).area / (Math.PI * 151.5 ** 2)).toBeCloseTo(1, 2)
    expect(shapeOf([body], { spaces: [{ x: -9999, y: 0 }] }).area).toBeGreaterThan(70_000)
  })

  test('left open, only the line is there', () => {
    expect(shapeOf([placeStroke(ring(120, 150, 0.9), 'line', 3, null, null)]).area).toBeLessThan(6000)
  })

  test('a painted shape far off the paper and very large is measured too, at a smaller scale', () => {
    const big = placeStroke(ring(200, 4000), 'shape', 1, null, null)
    expect(shapeOf([big]).area / (Math.PI * 4000 ** 2)).toBeCloseTo(1, 2)
  })

  test('nothing drawn has no shape', () => {
    expect(shapeOf([])).toMatchObject({ area: 0, centroid: null })
  })
})
