import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { RecipeShot } from '../recipe.ts'
import type { TurnNumbers } from './numbers.ts'
import { outlineOf, poseOn, turn, turned } from './turn.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<TurnNumbers> = {}) => {
  const numbers = { ...turn.defaults(SHOT), ...patch }
  expect(turn.refuse(numbers, SHOT)).toBeNull()
  return turn.plan(numbers, SHOT)
}
const angle = fc.double({ min: -3, max: 3, noNaN: true })

describe('a turn by hand', () => {
  test('yaw takes the front to the right, pitch takes it down, tilt turns what is right down', () => {
    const quarter = Math.PI / 2
    const front = [0, 0, 1] as const
    const near = (place: readonly number[]) => place.map(n => expect.closeTo(n, 12))
    expect(turned({ yaw: quarter, pitch: 0, tilt: 0 }, front)).toEqual(near([1, 0, 0]))
    expect(turned({ yaw: 0, pitch: quarter, tilt: 0 }, front)).toEqual(near([0, 1, 0]))
    expect(turned({ yaw: quarter, pitch: 0, tilt: quarter }, front)).toEqual(near([0, 1, 0]))
  })

  test('half-way it is where the breakdown is wanted, with the whole of its nod', () => {
    const plan = planned({ from: -0.8, to: 0.8, dip: 0.3, frames: 12, favours: 0.5 })
    expect(poseOn(plan, 6)).toEqual({ yaw: expect.closeTo(0, 12), pitch: expect.closeTo(0.3, 12), tilt: 0 })
    expect(poseOn(planned({ from: -0.8, to: 0.8, favours: 0.25, frames: 12 }), 6).yaw).toBeCloseTo(-0.4, 12)
    expect([poseOn(plan, 0).yaw, poseOn(plan, 12).yaw, poseOn(plan, 99).yaw]).toEqual([-0.8, 0.8, 0.8])
    expect(plan.drawings.map(one => one.role)).toEqual([
      'key',
      'inbetween',
      'inbetween',
      'breakdown',
      'inbetween',
      'inbetween',
      'key',
    ])
  })

  test('the nose is in the middle seen from before, and at the edge from the side', () => {
    const plan = planned({ x: 600, y: 300, wide: 100, high: 120, deep: 110, from: 0, to: Math.PI / 2, dip: 0 })
    const nose = (i: number) => turn.expect(plan, i).marks.nose!
    expect(nose(0).x).toBeCloseTo(600, 9)
    expect(nose(plan.drawings.length - 1).x).toBeCloseTo(600 + 110 * 1.18, 9)
    const { 'left ear': left, 'right ear': right } = turn.expect(plan, 0).marks
    expect([left!.x, right!.x]).toEqual([500, 700])
  })

  test('more than half round is told, and two frames are too few for a middle', () => {
    expect(planned({ from: -2, to: 2 }).told).toHaveLength(1)
    expect(turn.refuse({ ...turn.defaults(SHOT), frames: 3 }, SHOT)?.field).toBe('frames')
  })
})

test('the outline is round what is on the ball, and touches it', () => {
  fc.assert(
    fc.property(angle, angle, angle, (yaw, pitch, tilt) => {
      const ball = { ...turn.defaults(SHOT), wide: 90, high: 130, deep: 100 }
      const { along, across, tiltRad } = outlineOf(ball, { yaw, pitch, tilt })
      expect(along).toBeGreaterThanOrEqual(across)
      let most = 0
      for (let a = 0; a < 40; a++) {
        for (let b = 0; b < 40; b++) {
          const [u, v] = [(a / 40) * 2 * Math.PI, (b / 40) * Math.PI]
          const [x, y] = turned({ yaw, pitch, tilt }, [
            90 * Math.cos(u) * Math.sin(v),
            130 * Math.cos(v),
            100 * Math.sin(u) * Math.sin(v),
          ])
          const p = (x * Math.cos(tiltRad) + y * Math.sin(tiltRad)) / along
          const q = (-x * Math.sin(tiltRad) + y * Math.cos(tiltRad)) / across
          most = Math.max(most, p * p + q * q)
        }
      }
      expect(most).toBeLessThanOrEqual(1 + 1e-9)
      expect(most).toBeGreaterThan(0.97)
    }),
    { numRuns: 30 },
  )
})
