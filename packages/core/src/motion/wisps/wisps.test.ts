import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { RecipeShot } from '../recipe.ts'
import type { WispNumbers } from './numbers.ts'
import { seenOf, wisps, wispsOn } from './wisps.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<WispNumbers> = {}) => {
  const numbers = { ...wisps.defaults(SHOT), pitch: 80, height: 560, ...patch }
  expect(wisps.refuse(numbers, SHOT)).toBeNull()
  return wisps.plan(numbers, SHOT)
}

describe('wisps', () => {
  test('rise by what closes: eight drawings of 19 px against 80 are 20 px', () => {
    const plan = planned({ rise: 19, drawings: 8 })
    expect([plan.passes, plan.rise, plan.snapped[0]]).toEqual([
      2,
      20,
      { what: 'rise from drawing to drawing', wished: 19, taken: 20, by: expect.closeTo(1 / 19, 9) },
    ])
    expect(planned({ rise: 0.1 }).passes).toBe(1)
  })

  test.each([
    [2, 8, 'rises'],
    [4, 8, 'flickers'],
    [12, 8, 'flickers'],
    [8, 8, 'stands'],
    [16, 8, 'stands'],
    [19, 20, 'stands'],
    [18, 20, 'sinks'],
    [5, 8, 'sinks'],
    [9, 8, 'rises'],
    [21, 20, 'stands'],
    [22, 20, 'rises'],
    [1, 12, 'rises'],
  ])('%i passing in %i drawings: %s', (passes, drawings, seen) => {
    expect(seenOf(passes, drawings)).toBe(seen)
  })

  test('what is misread is told', () => {
    expect(planned({ rise: 80 }).told[0]).toContain('seem to stand still')
    expect(planned({ rise: 20 }).told).toHaveLength(1)
  })

  test('the drawing after the last is the first, to the last bit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 24 }),
        fc.integer({ min: 1, max: 200 }),
        fc.nat(99),
        (drawings, rise, seed) => {
          const plan = planned({ drawings, rise, seed })
          expect(wispsOn(plan, drawings)).toEqual(wispsOn(plan, 0))
          expect(wispsOn(plan, drawings + 1)).toEqual(wispsOn(plan, 1))
        },
      ),
    )
  })

  test('each wisp goes up by the same way, thins, and is broken before it is gone', () => {
    const plan = planned({ rise: 20 })
    const feet = (drawing: number) => wispsOn(plan, drawing).map(({ spine }) => spine[0]!.y)
    const [a, b] = [feet(0), feet(1)]
    expect(a[0]! - b[1]! - (a[0]! - a[1]!)).toBeCloseTo(20, 9)
    const whole = wispsOn(plan, 0)
    const fullest = whole.map(({ halves }) => Math.max(...halves))
    expect(fullest.at(-1)!).toBeLessThan(fullest[0]! / 2)
    expect(whole[0]!.halves.includes(0)).toBe(false)
    expect(whole.at(-1)!.halves.includes(0)).toBe(true)
    expect(wispsOn(planned({ seed: 2 }), 0)).not.toEqual(wispsOn(planned({ seed: 3 }), 0))
  })
})
