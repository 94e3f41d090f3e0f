import { describe, expect, test } from '@jest/globals'
import type { RecipeShot } from '../recipe.ts'
import { chain } from './chain.ts'
import { rootThrough } from './spline.ts'

const at = (frame: number, x: number, y = 0) => ({ frame, at: { x, y } })

describe('a root through places', () => {
  test('by hand: 0, 1, 0 over two spans of one frame bends by −6 in the middle and not at the ends', () => {
    const root = rootThrough([at(0, 0), at(1, 1), at(2, 0)])
    // Natural: (h₀+h₁)·2·s₁ = 6·((0−1)−(1−0)) = −12, s₁ = −3.
    expect([0, 1, 2].map(f => root.acceleration(f).x)).toEqual([0, -3, 0])
    expect(root.at(0.5).x).toBeCloseTo(0.5 + ((0.125 - 0.5) * -3) / 6, 12)
    expect(root.velocity(1).x).toBeCloseTo(0, 12)
  })

  test('goes through all of them, evenly where they lie evenly, and stands before and after', () => {
    const places = [at(0, 0, 5), at(2, 10, 5), at(6, 30, 5), at(8, 40, 5)]
    const root = rootThrough(places)
    for (const { frame, at: place } of places) expect(root.at(frame)).toEqual({ x: expect.closeTo(place.x, 9), y: 5 })
    expect([root.at(4).x, root.velocity(5).x]).toEqual([expect.closeTo(20, 9), expect.closeTo(5, 9)])
    expect([root.at(-3), root.at(99), root.velocity(99)]).toEqual([
      { x: 0, y: 5 },
      { x: 40, y: 5 },
      { x: 0, y: 0 },
    ])
  })

  test('speed and acceleration are those of the way: differences agree', () => {
    const root = rootThrough([at(0, 0), at(3, 40), at(5, -20), at(9, 10)])
    for (const f of [1, 3.5, 6, 8]) {
      const h = 1e-4
      expect((root.at(f + h).x - root.at(f - h).x) / (2 * h)).toBeCloseTo(root.velocity(f).x, 5)
      expect((root.velocity(f + h).x - root.velocity(f - h).x) / (2 * h)).toBeCloseTo(root.acceleration(f).x, 5)
    }
  })
})

describe('a chain on a mark', () => {
  const places = [at(0, 100, 200), at(4, 160, 200), at(8, 300, 220)]
  const shot: RecipeShot = {
    width: 1280,
    height: 720,
    fps: 24,
    exposure: 2,
    wayOf: id => (id === 'clasp' ? places : []),
  }
  const numbers = { ...chain.defaults(shot), drive: 'mark' as const, follows: 'clasp', after: 12 }

  test('hangs where the mark is on every drawing, and goes on after it has stopped', () => {
    for (const how of ['offset', 'spring', 'hang'] as const) {
      const plan = chain.plan({ ...numbers, how }, shot)
      expect([plan.frames, plan.loops]).toEqual([20, false])
      const roots = plan.lines.map(line => line[0]!)
      for (const { frame, at: place } of places) {
        expect(roots[frame / 2]).toEqual({ x: expect.closeTo(place.x, 9), y: expect.closeTo(place.y, 9) })
      }
      expect(roots.at(-1)).toEqual({ x: 300, y: 220 })
    }
  })

  test('one whose mark is placed nowhere stands, and says so', () => {
    for (const follows of [null, 'gone']) {
      const plan = chain.plan({ ...numbers, follows }, shot)
      expect(plan.told[0]).toContain('not placed on two drawings yet')
      expect(new Set(plan.lines.map(line => JSON.stringify(line[0]))).size).toBe(1)
    }
    expect(chain.refuse({ ...numbers, follows: 3 as never }, shot)?.field).toBe('follows')
  })
})
