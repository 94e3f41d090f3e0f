import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance } from '../../geometry/point.ts'
import type { RecipeShot } from '../recipe.ts'
import { creatureOn, legs, phaseOf } from './legs.ts'
import type { LegsNumbers } from './numbers.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<LegsNumbers> = {}) => {
  const numbers = { ...legs.defaults(SHOT), ...patch }
  expect(legs.refuse(numbers, SHOT)).toBeNull()
  return legs.plan(numbers, SHOT)
}
const phases = (count: number, order: LegsNumbers['order']) =>
  Array.from({ length: count }, (_, i) => Math.round(phaseOf({ legs: count, order }, i) * 100) / 100)

describe('who goes when', () => {
  test('tripod: front and hind of a side with the middle of the other', () => {
    expect(phases(6, 'tripod')).toEqual([0, 0.5, 0.5, 0, 0, 0.5])
  })
  test('a wave runs from the hindmost to the front, one side half a cycle after the other', () => {
    expect(phases(6, 'wave')).toEqual([0.33, 0.83, 0.67, 0.17, 0, 0.5])
    expect(phases(4, 'pairs')).toEqual([0.5, 0.5, 0, 0])
    expect(phases(3, 'together')).toEqual([0, 0, 0])
  })
})

test('what stands goes back exactly as fast as the ground passes; so does what inches', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 24 }),
      fc.constantFrom('wave' as const, 'pairs' as const, 'tripod' as const, 'gallop' as const, 'together' as const),
      fc.constantFrom('stiff' as const, 'hinged' as const, 'sweeping' as const),
      (count, order, kind) => {
        const numbers = { ...legs.defaults(SHOT), legs: count, order, kind, stride: 30, high: 80, leg: 158 }
        expect(legs.refuse(numbers, SHOT)).toBeNull()
        const plan = legs.plan(numbers, SHOT)
        const creatures = plan.drawings.map(({ frame }) => creatureOn(plan, frame))
        creatures.slice(1).forEach((now, i) => {
          now.legs.forEach((leg, k) => {
            const before = creatures[i]!.legs[k]!
            if (!leg.stands || !before.stands || Math.abs(leg.foot.x - before.foot.x) > 30) return
            expect(leg.foot.x - before.foot.x).toBeCloseTo(plan.ground * 2, 9)
          })
        })
        expect(creatures.flatMap(one => one.legs).every(leg => leg.reach <= numbers.leg + 1e-6)).toBe(true)
      },
    ),
  )
  const plan = planned({ by: 'inch', stride: 40 })
  const [a, b] = [0, 2].map(frame => creatureOn(plan, frame))
  // While its front goes, its end stands on the ground, which passes.
  const ends = [a!, b!].map(({ centre, along }) => centre.x - along)
  expect(ends[1]! - ends[0]!).toBeCloseTo(plan.ground * 2, 9)
})

test('an inching body keeps its area and closes', () => {
  const plan = planned({ by: 'inch' })
  const all = [...plan.drawings.map(({ frame }) => frame), plan.frames].map(frame => creatureOn(plan, frame))
  for (const { along, across, centre } of all) {
    expect(along * across).toBeCloseTo((plan.numbers.length * plan.numbers.thick) / 4, 6)
    expect(centre.y + across).toBeCloseTo(plan.numbers.ground, 9)
  }
  expect(all.at(-1)!.centre.x).toBeCloseTo(all[0]!.centre.x, 9)
})

test('a rocking body stands on its edge', () => {
  const plan = planned({ by: 'rock', rock: 0.3, length: 200, thick: 80 })
  const { centre, tiltRad } = creatureOn(plan, 3)
  expect(tiltRad).toBeCloseTo(0.3 * Math.sin((2 * Math.PI * 3) / plan.cycle), 9)
  const edge = {
    x: centre.x + 100 * Math.cos(tiltRad) - 40 * Math.sin(tiltRad),
    y: centre.y + 100 * Math.sin(tiltRad) + 40 * Math.cos(tiltRad),
  }
  expect([edge.x, edge.y]).toEqual([expect.closeTo(plan.numbers.x + 100, 9), expect.closeTo(plan.numbers.ground, 9)])
  expect(plan.ground).toBe(0)
})

test('stiff legs carry the body as high as the steepest is long, and a stride too long is refused', () => {
  const plan = planned({ kind: 'stiff', legs: 1, leg: 100, stride: 60, duty: 0.5, order: 'together' })
  const {
    legs: [leg],
  } = creatureOn(plan, 0)
  const [top] = leg!.joints
  expect(distance(leg!.foot, top!)).toBeCloseTo(100, 9)
  expect(leg!.foot.y).toBeCloseTo(plan.numbers.ground, 9)
  expect(legs.refuse({ ...legs.defaults(SHOT), kind: 'stiff', leg: 50, stride: 100 }, SHOT)?.field).toBe('stride')
  const no = legs.refuse({ ...legs.defaults(SHOT), high: 150, stride: 200 }, SHOT)
  expect(no).toMatchObject({ field: 'stride', why: expect.stringContaining('would fit') })
})
