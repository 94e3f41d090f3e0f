import { describe, expect, test } from '@jest/globals'
import { areaInside } from '../geometry/thinned.ts'
import type { Grey } from './grey.ts'
import { inkOutlines } from './inkOutlines.ts'

const { hypot, max, min, PI, round } = Math
const picture = (width: number, height: number, ink: (x: number, y: number) => number): Grey => ({
  width,
  height,
  data: Uint8Array.from({ length: width * height }, (_, i) =>
    round(255 * ink((i % width) + 0.5, ((i / width) | 0) + 0.5)),
  ),
})
const soft = (far: number) => max(0, min(1, 0.5 - far))

describe('outlines of ink', () => {
  test('a round is bounded between pixels: its area, and every place of its edge, to a tenth', () => {
    const [one, ...more] = inkOutlines(picture(60, 50, (x, y) => soft(hypot(x - 30.3, y - 24.8) - 17)))
    expect(more).toEqual([])
    expect(areaInside(one!) / (PI * 17 ** 2)).toBeCloseTo(1, 1)
    for (const { x, y } of one!) expect(Math.abs(hypot(x - 30.3, y - 24.8) - 17)).toBeLessThan(0.15)
    // Thinned: a round of a hundred pixels needs far fewer points.
    expect(one!.length).toBeLessThan(50)
  })

  test('a ring has a hole, gone round the other way; ink at the edge of the picture is closed along it', () => {
    const ring = inkOutlines(picture(60, 60, (x, y) => soft(Math.abs(hypot(x - 30, y - 30) - 18) - 4)))
    expect(ring.map(outline => Math.sign(areaInside(outline))).sort()).toEqual([-1, 1])
    const half = inkOutlines(picture(20, 20, x => (x < 10 ? 1 : 0)))
    expect(half).toHaveLength(1)
    expect(areaInside(half[0]!)).toBeCloseTo(200, -1)
  })

  test('corners that touch are apart where their middle is faint, and one where it is strong; specks are dust', () => {
    const block = (x: number, y: number) => x < 6 === y < 6 && x > 1 && y > 1 && x < 11 && y < 11
    expect(inkOutlines(picture(12, 12, (x, y) => (block(x, y) ? 0.9 : 0)))).toHaveLength(2)
    expect(inkOutlines(picture(12, 12, (x, y) => (block(x, y) ? 1 : 0.4)))).toHaveLength(1)
    expect(inkOutlines(picture(12, 12, (x, y) => (x > 5 && x < 7 && y > 5 && y < 7 ? 1 : 0)))).toEqual([])
    expect(inkOutlines(picture(3, 3, () => 0))).toEqual([])
  })
})
