import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance } from '../../geometry/point.ts'
import { footAt, jointBetween } from '../gait.ts'
import type { RecipeShot } from '../recipe.ts'
import { walkerOn } from './figure.ts'
import type { WalkNumbers } from './numbers.ts'
import { walk } from './walk.ts'
import { walkAs, WALKS, withinReach } from './ways.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const numbersWith = (patch: Partial<WalkNumbers> = {}): WalkNumbers => ({ ...walk.defaults(SHOT), ...patch })
const planned = (patch: Partial<WalkNumbers> = {}) => {
  const numbers = numbersWith(patch)
  expect(walk.refuse(numbers, SHOT)).toBeNull()
  return walk.plan(numbers, SHOT)
}
const hipUp = (numbers: WalkNumbers, frame: number) => numbers.ground - walkerOn(numbers, frame).hip.y

describe('a foot', () => {
  const gait = { stride: 100, duty: 0.6, lift: 20, ahead: 60 }

  test('goes back two strides a cycle while it stands, and comes down where it began', () => {
    expect(footAt(gait, 0)).toEqual({ ahead: 60, up: 0, stands: true, swung: 0 })
    expect(footAt(gait, 0.3).ahead).toBeCloseTo(0, 12)
    expect(footAt(gait, 0.6)).toMatchObject({ stands: false, ahead: expect.closeTo(-60, 9) })
    expect(footAt(gait, 1 - 1e-12).ahead).toBeCloseTo(60, 6)
    expect(footAt(gait, 0.8).up).toBeCloseTo(20, 9)
  })

  test('leaves and comes down at the speed of the ground', () => {
    const over = (share: number) => footAt(gait, share).ahead + 200 * share
    expect((over(0.6 + 1e-5) - over(0.6)) / 1e-5).toBeCloseTo(0, 2)
    expect((over(1 - 1e-5) - over(1 - 2e-5)) / 1e-5).toBeCloseTo(0, 2)
    // Half-way through its swing it is half-way over the ground.
    expect(over(0.8) - over(0.6)).toBeCloseTo(100, 9)
  })

  test('a knee lies where both bones end', () => {
    expect(jointBetween({ x: 0, y: 0 }, { x: 0, y: 8 }, 5, 5, 1)).toEqual({ x: 3, y: 4 })
    expect(jointBetween({ x: 0, y: 0 }, { x: 0, y: 8 }, 5, 5, -1)).toEqual({ x: -3, y: 4 })
  })
})

describe('a walk by hand', () => {
  test('positions: contact, down, passing, up, and the other side; two steps are the cycle', () => {
    const plan = planned({ step: 8 })
    expect(plan.drawings.map(one => one.name)).toEqual([
      'contact',
      'down',
      'passing',
      'up',
      'contact',
      'down',
      'passing',
      'up',
    ])
    expect([plan.frames, plan.loops]).toEqual([16, true])
    expect(planned({ step: 4, school: 'simple' }).drawings.map(one => one.name)).toEqual([
      'contact',
      'passing',
      'contact',
      'passing',
    ])
  })

  test('heights: simple is lowest at the contact, classical at the down, a run in the middle of its stance', () => {
    const low = (patch: Partial<WalkNumbers>) => {
      const numbers = numbersWith({ step: 8, bob: 10, hip: 190, ...patch })
      return [0, 2, 4, 6].map(frame => Math.round((hipUp(numbers, frame) - 190) * 100) / 100)
    }
    expect(low({ school: 'simple' })).toEqual([0, 5, 10, 5])
    expect(low({ school: 'classical' })).toEqual([5, 0, 5, 10])
    const run = numbersWith({ school: 'run', step: 8, duty: 0.25, bob: 10, hip: 180 })
    expect([hipUp(run, 2), hipUp(run, 6)]).toEqual([expect.closeTo(180, 9), expect.closeTo(190, 9)])
    // In the middle of its flight neither foot stands.
    expect([walkerOn(run, 6).near.stands, walkerOn(run, 6).far.stands]).toEqual([false, false])
  })

  test('on the spot the ground passes by a stride a step, and what stands goes with it exactly', () => {
    const plan = planned({ stride: 120, step: 8 })
    expect(plan.ground).toBe(-15)
    expect(planned({ facing: 'left', stride: 120, step: 8 }).ground).toBe(15)
    const balls = plan.drawings.map((_, i) => walk.expect(plan, i).marks['near ball']!)
    const standing = balls.filter(ball => ball.planted)
    expect(standing.length).toBeGreaterThan(3)
    standing.slice(1).forEach((ball, i) => {
      expect(ball.x - standing[i]!.x).toBeCloseTo(-15 * 2, 9)
      expect(ball.y).toBe(plan.numbers.ground)
    })
    expect(planned({ onSpot: false }).ground).toBe(0)
  })

  test('a flat foot is as far before the hip as behind it, or the hip is half-way at the contact', () => {
    const flat = { foot: 0, roll: 0, stride: 100, duty: 0.6 }
    const at = (patch: Partial<WalkNumbers>, frame: number) => {
      const walker = walkerOn(numbersWith({ ...flat, ...patch }), frame)
      return [walker.near.ball.x - walker.hip.x, walker.far.ball.x - walker.hip.x]
    }
    expect(at({ plant: 'even' }, 0)[0]).toBeCloseTo(60, 9)
    const [near, far] = at({ plant: 'midway' }, 0)
    expect([near, far]).toEqual([expect.closeTo(50, 9), expect.closeTo(-50, 9)])
  })

  test('knees bend the way it faces, and a hip so low that they would be in the ground is refused', () => {
    for (const facing of ['right', 'left'] as const) {
      for (const frame of [0, 2, 4, 6, 10, 12]) {
        const [hip, knee, ankle] = walkerOn(numbersWith({ facing, step: 8 }), frame).near.joints
        const side = (ankle!.x - hip!.x) * (knee!.y - hip!.y) - (ankle!.y - hip!.y) * (knee!.x - hip!.x)
        expect(Math.sign(side)).toBe(facing === 'right' ? -1 : 1)
      }
    }
    expect(walk.refuse(numbersWith({ leg: 200, hip: 79 }), SHOT)).toEqual({
      field: 'hip',
      why: 'must be at least 80 px over the ground, for legs of this length',
    })
    expect(withinReach(numbersWith({ leg: 200, hip: 120 }), 'hip', 3)).toBe(80)
  })

  test('a leg that would have to be longer than it is, is refused with what would fit', () => {
    const no = walk.refuse(numbersWith({ leg: 200, hip: 190, stride: 300 }), SHOT)
    expect(no?.field).toBe('stride')
    const fits = Number(/a stride up to (\d+) px/.exec(no?.why ?? '')?.[1])
    expect(walk.refuse(numbersWith({ leg: 200, hip: 190, stride: fits }), SHOT)).toBeNull()
    expect(walk.refuse(numbersWith({ leg: 200, hip: 190, stride: fits + 1.01 }), SHOT)).not.toBeNull()
  })

  test.each<[Partial<WalkNumbers>, string, string]>([
    [{ step: 7, exposure: 4 }, 'step', 'no whole drawings'],
    [{ step: 6, exposure: 2, school: 'classical' }, 'school', '8 drawings'],
    [{ duty: 0.45 }, 'duty', 'less is a run'],
    [{ school: 'run', duty: 0.49, step: 8 }, 'duty', 'in the air'],
    [{ school: 'run', duty: 0.2, step: 2 }, 'step', 'in the air'],
  ])('%j is refused by name', (patch, field, why) => {
    expect(walk.refuse(numbersWith(patch), SHOT)).toMatchObject({ field, why: expect.stringContaining(why) })
  })

  test('drawings of both sides that are nearly alike are one, where that is wanted; it is told by how much', () => {
    const small = { step: 4, school: 'simple' as const, lift: 2, armSwing: 0.1, stride: 20, roll: 0 }
    const apart = planned(small)
    expect(apart.told).toEqual([
      expect.stringMatching(/^drawings 2 and 4 differ by [\d.]+ px with the sides exchanged$/),
    ])
    const shared = planned({ ...small, alike: 30 })
    expect([apart.drawings.length, shared.exposures.map(one => one.drawing)]).toEqual([4, [0, 1, 0, 1]])
    const differ = Number(/by ([\d.]+)/.exec(apart.told[0] ?? '')?.[1])
    expect(planned({ ...small, alike: differ + 0.1 }).drawings).toHaveLength(3)
    expect(planned({ ...small, alike: differ - 0.1 }).drawings).toHaveLength(4)
  })

  test('a second step that is no whole drawings is told', () => {
    expect(planned({ step: 9, exposure: 2, school: 'classical' }).told).toEqual([
      expect.stringContaining('not the first with its sides exchanged'),
    ])
  })
})

test('the second step is the first with near and far exchanged, and the cycle closes', () => {
  const numbers = numbersWith({ step: 8, pack: 3 })
  for (let frame = 0; frame < 8; frame++) {
    const [a, b, c] = [frame, frame + 8, frame + 16].map(f => walkerOn(numbers, f))
    a!.near.joints.forEach((joint, i) => expect(distance(joint, b!.far.joints[i]!)).toBeLessThan(1e-9))
    a!.nearArm.joints.forEach((joint, i) => expect(distance(joint, b!.farArm.joints[i]!)).toBeLessThan(1e-9))
    a!.near.joints.forEach((joint, i) => expect(distance(joint, c!.near.joints[i]!)).toBeLessThan(1e-9))
    a!.pack.forEach((joint, i) => expect(distance(joint, c!.pack[i]!)).toBeLessThan(1e-9))
  }
})

test('whoever walks: no leg is longer than it is, no thigh or shank either, and no foot that stands slips', () => {
  fc.assert(
    fc.property(
      fc.record({
        stride: fc.integer({ min: 10, max: 400 }),
        hip: fc.integer({ min: 80, max: 220 }),
        step: fc.integer({ min: 2, max: 24 }),
        exposure: fc.constantFrom(1, 2, 3),
        duty: fc.double({ min: 0.15, max: 0.7, noNaN: true }),
        school: fc.constantFrom('simple' as const, 'classical' as const, 'run' as const),
        plant: fc.constantFrom('even' as const, 'midway' as const),
        facing: fc.constantFrom('left' as const, 'right' as const),
        lift: fc.integer({ min: 0, max: 120 }),
        roll: fc.double({ min: 0, max: 1.2, noNaN: true }),
        thigh: fc.double({ min: 0.4, max: 0.6, noNaN: true }),
      }),
      patch => {
        const numbers = numbersWith(patch)
        if (walk.refuse(numbers, SHOT)) return
        const plan = walk.plan(numbers, SHOT)
        let before: ReturnType<typeof walkerOn> | null = null
        for (const { frame } of plan.drawings) {
          const walker = walkerOn(numbers, frame)
          for (const leg of [walker.near, walker.far]) {
            const [hip, knee, ankle] = leg.joints
            expect(leg.reach).toBeLessThanOrEqual(numbers.leg + 1e-6)
            if (leg.reach >= Math.abs(1 - 2 * numbers.thigh) * numbers.leg) {
              expect(distance(hip!, knee!)).toBeCloseTo(numbers.thigh * numbers.leg, 6)
              expect(distance(knee!, ankle!)).toBeCloseTo((1 - numbers.thigh) * numbers.leg, 6)
            }
            expect(leg.ball.y).toBeLessThanOrEqual(numbers.ground)
          }
          if (before?.near.stands && walker.near.stands) {
            const moved = walker.near.ball.x - before.near.ball.x
            const went = plan.ground * numbers.exposure
            if (Math.abs(moved) < numbers.stride) expect(moved).toBeCloseTo(went, 9)
          }
          before = walker
        }
      },
    ),
  )
})

test('every way to walk is one that is taken, at any rate and exposure', () => {
  for (const fps of [12, 24, 30, 60]) {
    for (const exposure of [1, 2, 3]) {
      const shot = { ...SHOT, fps, exposure }
      for (const name of WALKS) {
        const numbers = walkAs(name, walk.defaults(shot), shot)
        expect([name, fps, exposure, walk.refuse(numbers, shot)]).toEqual([name, fps, exposure, null])
        expect(walkAs(name, numbers, shot)).toEqual(numbers)
      }
    }
  }
})
