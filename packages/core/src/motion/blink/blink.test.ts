import { describe, expect, test } from '@jest/globals'
import type { RecipeShot } from '../recipe.ts'
import { blink, lowerLid, upperLid } from './blink.ts'
import { leastHold, type BlinkNumbers } from './numbers.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<BlinkNumbers> = {}) => {
  const numbers = { ...blink.defaults(SHOT), exposure: 1, before: 10, after: 10, ...patch }
  expect(blink.refuse(numbers, SHOT)).toBeNull()
  return blink.plan(numbers, SHOT)
}
const shown = (plan: ReturnType<typeof planned>) =>
  plan.exposures.map(({ drawing, frames }) => [Math.round((plan.lids[drawing]?.first ?? -1) * 1000) / 1000, frames])

describe('a blink by hand', () => {
  test('lids go from open to where they meet', () => {
    expect([upperLid(0), upperLid(1), lowerLid(0), lowerLid(1)]).toEqual([1, -0.45, -0.6, -0.45])
    expect(upperLid(0.5)).toBeCloseTo(0.275, 12)
  })

  test('down slower than up: three drawings, shut for three frames, two drawings; evenly', () => {
    expect(shown(planned())).toEqual([
      [0, 10],
      [0.25, 1],
      [0.5, 1],
      [0.75, 1],
      [1, 3],
      [0.667, 1],
      [0.333, 1],
      [0, 10],
    ])
    expect(shown(planned({ slower: 'up' })).slice(1, 6)).toEqual([
      [0.333, 1],
      [0.667, 1],
      [1, 3],
      [0.75, 1],
      [0.5, 1],
    ])
  })

  test('a double costs no drawing more; its second one is held shorter', () => {
    const [once, double] = [planned(), planned({ pattern: 'double' })]
    expect(double.drawings).toHaveLength(once.drawings.length)
    expect(shown(double).filter(([shut]) => shut === 1)).toEqual([
      [1, 3],
      [1, 2],
    ])
    expect(double.told).toEqual(['7 drawings are shown 15 times'])
    expect(planned({ pattern: 'flutter' }).drawings).toHaveLength(once.drawings.length)
    const sleepy = planned({ pattern: 'sleepy' })
    expect([sleepy.drawings.length, sleepy.frames]).toEqual([once.drawings.length, 10 + 3 * 2 + 6 + 2 * 2 + 10])
  })

  test('the same drawings serve both ways where they are alike', () => {
    expect(planned({ slow: 3, quick: 3 }).drawings).toHaveLength(5)
    // Lashes that come after lie otherwise on the way up than on the way down.
    expect(planned({ slow: 3, quick: 3, lashes: true }).drawings.length).toBeGreaterThan(7)
  })

  test('lashes and a late eye come one drawing after, and are open again at the end', () => {
    const plan = planned({ late: true, lashes: true })
    const lids = plan.exposures.map(({ drawing }) => plan.lids[drawing]!)
    lids.slice(1).forEach((now, i) => {
      expect([now.second, now.lashes]).toEqual([lids[i]?.first, lids[i]?.first])
    })
    expect(lids.at(-1)).toEqual({ first: 0, second: 0, lashes: 0 })
  })

  test('the open eye is held for two fifths of a second at least', () => {
    expect([leastHold(24), leastHold(25), leastHold(12)]).toEqual([10, 10, 5])
    expect(blink.refuse({ ...blink.defaults(SHOT), before: 9 }, SHOT)).toEqual({
      field: 'before',
      why: 'must be at least 10 frames, so that the open eye is read',
    })
    expect(blink.refuse({ ...blink.defaults(SHOT), quick: 4 }, SHOT)?.field).toBe('quick')
  })

  test('both lids meet where they are shut, whatever the tilt', () => {
    const plan = planned({ tilt: 0.4, apart: 0 })
    const shut = plan.lids.findIndex(lids => lids.first === 1)
    const { 'upper lid': upper, 'lower lid': lower } = blink.expect(plan, shut).marks
    expect([upper!.x, upper!.y]).toEqual([expect.closeTo(lower!.x, 9), expect.closeTo(lower!.y, 9)])
  })
})
