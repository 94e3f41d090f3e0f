import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { RecipeShot } from '../recipe.ts'
import type { SoftNumbers } from './numbers.ts'
import { archOutline, soft } from './soft.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<SoftNumbers> = {}) => {
  const numbers = { ...soft.defaults(SHOT), ...patch }
  expect(soft.refuse(numbers, SHOT)).toBeNull()
  return soft.plan(numbers, SHOT)
}

/** The area of a closed outline by the shoelace formula. */
const areaOf = (points: readonly { x: number; y: number }[]) =>
  Math.abs(
    points.reduce(
      (sum, p, i) => sum + p.x * points[(i + 1) % points.length]!.y - points[(i + 1) % points.length]!.x * p.y,
      0,
    ),
  ) / 2

describe('soft on soft', () => {
  test('rests, is squashed, gets long, recovers: a quarter of the cycle each', () => {
    const { pairs, numbers } = planned({ squash: 0.25, stretch: 0.2 })
    const high = (i: number) => pairs[i]!.low.high / numbers.lowHigh
    expect([high(0), high(3), high(6), high(9)]).toEqual([
      1,
      expect.closeTo(0.75, 9),
      expect.closeTo(1.2, 9),
      expect.closeTo(1, 9),
    ])
  })

  test('pushed up, it arches later by its lag, and an arch takes nothing of its area', () => {
    const { pairs } = planned({ lag: 1 })
    const arches = pairs.map(pair => pair.up.arch)
    const early = planned({ lag: 0 }).pairs.map(pair => pair.up.arch)
    // It is pushed most at the squash; a drawing later it arches most.
    expect([early.indexOf(Math.max(...early)), arches.indexOf(Math.max(...arches))]).toEqual([3, 4])
    const { up } = pairs[4]!
    expect(areaOf(archOutline(up))).toBeCloseTo(areaOf(archOutline({ ...up, arch: 0 })), 6)
    expect(archOutline(up)[0]!.y - up.centre.y).toBeCloseTo(up.arch * up.wide, 9)
  })

  test('left hanging, it parts, and is caught again', () => {
    const { pairs, told } = planned({ hangs: 2 })
    expect(pairs[6]!.apart).toBe(0)
    expect(pairs[8]!.apart).toBeGreaterThan(5)
    expect(pairs[9]!.apart).toBe(0)
    expect(told).toEqual([expect.stringMatching(/^they part by \d+ px at the top$/)])
    expect(soft.refuse({ ...soft.defaults(SHOT), hangs: 3 }, SHOT)?.field).toBe('hangs')
  })
})

test('whatever rides keeps its area, touches where it is carried, and never goes into what carries it', () => {
  fc.assert(
    fc.property(
      fc.record({
        lowWide: fc.integer({ min: 20, max: 200 }),
        lowHigh: fc.integer({ min: 20, max: 200 }),
        wide: fc.integer({ min: 20, max: 200 }),
        high: fc.integer({ min: 20, max: 200 }),
        drawings: fc.integer({ min: 8, max: 24 }),
        squash: fc.double({ min: 0.02, max: 0.5, noNaN: true }),
        stretch: fc.double({ min: 0, max: 0.5, noNaN: true }),
        arch: fc.double({ min: 0, max: 1, noNaN: true }),
        follows: fc.double({ min: 0, max: 0.5, noNaN: true }),
        lag: fc.nat(4),
        hangs: fc.nat(1),
      }),
      numbers => {
        const { pairs } = planned(numbers)
        for (const { low, up, apart } of pairs) {
          expect(low.wide * low.high).toBeCloseTo(numbers.lowWide * numbers.lowHigh, 6)
          expect(up.wide * up.high).toBeCloseTo(numbers.wide * numbers.high, 6)
          expect(apart).toBeGreaterThanOrEqual(0)
          // Beside the middle, where they could meet, the lower edge of the upper one lies above the upper edge of the lower one.
          for (const share of [0.05, 0.1, 0.2]) {
            const x = share * Math.min(up.wide, low.wide)
            const edge = up.centre.y + up.high * Math.sqrt(1 - (x / up.wide) ** 2) + (up.arch * x * x) / up.wide
            const under = low.centre.y - low.high * Math.sqrt(1 - (x / low.wide) ** 2)
            expect(edge).toBeLessThanOrEqual(under + 0.5)
          }
        }
      },
    ),
  )
})
