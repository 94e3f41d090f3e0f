import { describe, expect, test } from '@jest/globals'
import { distance } from '../../geometry/point.ts'
import type { RecipeShot } from '../recipe.ts'
import { periodOfLength, type PendulumNumbers } from './numbers.ts'
import { angleOn, pendulum } from './pendulum.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<PendulumNumbers> = {}) => {
  const numbers = { ...pendulum.defaults(SHOT), ...patch }
  expect(pendulum.refuse(numbers, SHOT)).toBeNull()
  return pendulum.plan(numbers, SHOT)
}

describe('a pendulum by hand', () => {
  test('both ends and the bottom are drawn: a swing is a multiple of four drawings', () => {
    const plan = planned({ period: 37, swing: 0.5 })
    expect([plan.frames, plan.loops, plan.snapped[0]]).toMatchObject([40, true, { wished: 37, taken: 40 }])
    expect([0, 10, 20, 30, 40].map(frame => angleOn(plan, frame))).toEqual([
      0.5,
      expect.closeTo(0, 12),
      -0.5,
      expect.closeTo(0, 12),
      0.5,
    ])
    expect(plan.drawings.filter(one => one.name).map(({ frame, role, name }) => [frame, role, name])).toEqual([
      [0, 'key', 'end'],
      [10, 'breakdown', 'bottom'],
      [20, 'key', 'end'],
      [30, 'breakdown', 'bottom'],
    ])
  })

  test('by its length under gravity: a metre takes two seconds', () => {
    // 1 m at 100 px: g = 9.81·100/24² px/f². 2π√(1/9.81) = 2.006 s, 48.1 frames.
    const gravity = (9.81 * 100) / 24 ** 2
    expect(periodOfLength(100, gravity) / 24).toBeCloseTo(2.006, 3)
    expect(planned({ by: 'length', length: 100, gravity }).period).toBe(48)
    expect(pendulum.refuse({ ...pendulum.defaults(SHOT), by: 'length', gravity: 0.001 }, SHOT)?.field).toBe('gravity')
    expect(pendulum.refuse({ ...pendulum.defaults(SHOT), by: 'frames', gravity: 0.001 }, SHOT)).toBeNull()
  })

  test('the spacing from end to end is that of a cosine', () => {
    const [chart] = planned({ period: 16 }).charts
    expect(chart).toMatchObject({ from: 0, to: 4 })
    expect(chart?.shares).toEqual([1, 2, 3].map(k => expect.closeTo((1 - Math.cos((Math.PI * k) / 4)) / 2, 12)))
  })

  test('what swings keeps its distance and its area, and what hangs on it comes after', () => {
    const plan = planned({ lag: 2, growth: 1, links: 2 })
    for (const i of plan.drawings.keys()) {
      const { marks, body } = pendulum.expect(plan, i)
      expect(distance(plan.numbers, marks.bob!)).toBeCloseTo(plan.numbers.length, 9)
      expect(body?.area).toBeCloseTo(Math.PI * plan.numbers.radius ** 2, 9)
    }
    // Straight down at the bottom, the first link still hangs as the rod did two frames before.
    const bottom = plan.drawings.findIndex(one => one.name === 'bottom')
    const { bob, tip } = pendulum.expect(plan, bottom).marks
    expect(tip!.x - bob!.x).toBeGreaterThan(10)
  })

  test('dying down it ends, hanging straight', () => {
    const plan = planned({ decay: 0.6, links: 0 })
    expect(plan.loops).toBe(false)
    const last = pendulum.expect(plan, plan.drawings.length - 1).marks.bob!
    expect(last).toEqual({ x: plan.numbers.x, y: plan.numbers.y + plan.numbers.length })
    expect(plan.drawings.at(-1)?.name).toBe('rests')
    // The swing before it was nearer than a pixel to the bottom, and the one a whole swing earlier was not.
    expect(plan.numbers.swing * 0.4 ** ((plan.frames - 2) / plan.period) * plan.numbers.length).toBeLessThan(1)
    expect(plan.told).toEqual([])
    expect(planned({ decay: 0.01, period: 8 }).told).toEqual([expect.stringContaining('still swings')])
  })
})
