import { describe, expect, test } from '@jest/globals'
import { momentsOf, silhouette } from './index.ts'

/** Alpha of a picture drawn with # for line. */
function alphaOf(rows: string[]): { alpha: Uint8Array; width: number; height: number } {
  const alpha = Uint8Array.from(rows.join(''), c => (c === '#' ? 255 : 0))
  return { alpha, width: (rows[0] as string).length, height: rows.length }
}

function areaOf(rows: string[]): number {
  const { alpha, width, height } = alphaOf(rows)
  return momentsOf(silhouette(alpha, width, height)).area
}

/** A filled or outlined ellipse, by the distance from its centre in units of its axes. */
function ellipse(size: number, rx: number, ry: number, tilt: number): Uint8Array {
  const alpha = new Uint8Array(size * size)
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      const [dx, dy] = [x + 0.5 - size / 2, y + 0.5 - size / 2]
      const u = (dx * Math.cos(tilt) + dy * Math.sin(tilt)) / rx
      const v = (-dx * Math.sin(tilt) + dy * Math.cos(tilt)) / ry
      const r = Math.hypot(u, v)
      if (r <= 1 && r > 0.85) alpha[y * size + x] = 255
    }
  }
  return alpha
}

describe('silhouette', () => {
  test('an unfilled outline counts as its whole shape', () => {
    expect(areaOf(['.....', '.###.', '.#.#.', '.###.', '.....'])).toBe(9)
  })

  test('a diagonal line of single pixels holds', () => {
    expect(areaOf(['.....', '..#..', '.#.#.', '..#..', '.....'])).toBe(5)
  })

  test('a gap lets the outside in, and the line alone is left', () => {
    expect(areaOf(['.....', '.#.#.', '.#.#.', '.###.', '.....'])).toBe(7)
  })

  test('nothing has no area, everything has it all', () => {
    expect(areaOf(['...', '...'])).toBe(0)
    expect(areaOf(['###', '###'])).toBe(6)
  })

  test('bytes that are no such picture are refused', () => {
    expect(() => silhouette(new Uint8Array(5), 2, 2)).toThrow('5 bytes are not a picture of 2 × 2')
  })
})

describe('moments', () => {
  test('an ellipse drawn as an outline: area π·a·b, centre, axes and tilt', () => {
    const m = momentsOf(silhouette(ellipse(200, 80, 40, 0.5), 200, 200))
    expect(m.area / (Math.PI * 80 * 40)).toBeCloseTo(1, 2)
    expect(m.centroid).toEqual({ x: expect.closeTo(100, 1), y: expect.closeTo(100, 1) })
    expect(m.halfAxes[0]).toBeCloseTo(80, 0)
    expect(m.halfAxes[1]).toBeCloseTo(40, 0)
    expect(m.tiltRad).toBeCloseTo(0.5, 2)
  })

  test('nothing has no centre', () => {
    expect(momentsOf({ width: 2, height: 1, inside: new Uint8Array(2) })).toEqual({
      area: 0,
      centroid: null,
      halfAxes: [0, 0],
      tiltRad: 0,
    })
  })
})
