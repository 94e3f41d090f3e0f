import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance } from '../../geometry/point.ts'
import type { RecipeShot } from '../recipe.ts'
import { boil, boilOrder } from './boil.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }

test('none follows itself, also from the last to the first; each as often as any other or once more', () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 5 }), fc.integer({ min: 0, max: 60 }), fc.nat(9999), (count, more, seed) => {
      const order = boilOrder(count, count + more, seed)
      expect(order).toHaveLength(count + more)
      order.forEach((one, i) => expect(one).not.toBe(order[(i + 1) % order.length]))
      const often = Array.from({ length: count }, (_, i) => order.filter(one => one === i).length)
      expect(Math.max(...often) - Math.min(...often)).toBeLessThanOrEqual(1)
      expect(boilOrder(count, count + more, seed)).toEqual(order)
    }),
  )
})

test('held for whole frames, which is told: 0.2 s at 24 are 5 frames', () => {
  const plan = boil.plan({ ...boil.defaults(SHOT), times: 6 }, SHOT)
  expect([plan.frames, plan.exposures[0]?.frames]).toEqual([30, 5])
  expect(plan.snapped).toEqual([{ what: 'hold in seconds', wished: 0.2, taken: 5 / 24, by: expect.closeTo(1 / 24, 9) }])
})

test('a line lies no farther aside than it may', () => {
  const plan = boil.plan({ ...boil.defaults(SHOT), shiver: 6, tracings: 5 }, SHOT)
  const [first, ...others] = plan.outlines
  for (const other of others) {
    const far = other.map((p, i) => distance(p, first![i]!))
    expect(Math.max(...far)).toBeLessThanOrEqual(6)
    expect(Math.max(...far)).toBeGreaterThan(1)
  }
  expect(boil.refuse({ ...plan.numbers, times: 4 }, SHOT)?.field).toBe('times')
})
