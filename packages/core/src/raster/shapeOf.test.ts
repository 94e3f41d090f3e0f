import { describe, expect, test } from '@jest/globals'
import { placeStroke, type Sample } from '../geometry/index.ts'
import { fillPolygon, shapeOf } from './index.ts'

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
