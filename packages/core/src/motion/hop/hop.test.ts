import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { halfHeightOf } from '../bounce/body.ts'
import { placeOn, type LayerPath } from '../../path/path.ts'
import type { RecipeShot } from '../recipe.ts'
import { flown, hop, hopOn } from './hop.ts'
import type { HopNumbers } from './numbers.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const PLAIN: Partial<HopNumbers> = {
  x: 200,
  ground: 600,
  height: 160,
  width: 120,
  rise: 200,
  drop: 200,
  forward: 320,
  gravity: 4,
  exposure: 2,
  crouchFrames: 6,
  pushFrames: 2,
  cushionFrames: 2,
  settleFrames: 6,
}
const planned = (patch: Partial<HopNumbers> = {}) => {
  const numbers = { ...hop.defaults(SHOT), ...PLAIN, ...patch }
  expect(hop.refuse(numbers, SHOT)).toBeNull()
  return hop.plan(numbers, SHOT)
}

describe('a hop by hand', () => {
  test('200 px up and down under 4 px/f² take 20 frames: ten up, ten down', () => {
    const plan = planned()
    expect([plan.leaves, plan.lands, plan.up, plan.gravity]).toEqual([8, 28, 10, 4])
    expect(hopOn(plan, 18).foot).toEqual({ x: 360, y: 400 })
    expect(plan.drawings.filter(one => one.name).map(({ frame, name }) => [frame, name])).toEqual([
      [0, 'stands'],
      [6, 'crouched'],
      [8, 'leaves'],
      [18, 'top'],
      [28, 'contact'],
      [30, 'pressed'],
      [36, 'rests'],
    ])
  })

  test('gravity gives way so that the contact is on an exposure; one for up and down', () => {
    const plan = planned({ gravity: 4.5, drop: 50 })
    // (√400 + √100)/√4.5 = 14.1 → 14; g = 30²/14².
    expect([plan.flight, plan.gravity]).toEqual([14, expect.closeTo(900 / 196, 12)])
    expect(plan.snapped[0]?.by).toBeCloseTo(900 / 196 / 4.5 - 1, 12)
    const contact = hopOn(plan, plan.lands)
    expect(contact.foot).toEqual({ x: 520, y: 450 })
    expect(planned({ gravity: 900 }).flight).toBe(8)
  })

  test('hanging, the clock stands at the top for so many drawings', () => {
    const plan = planned({ hang: 2 })
    expect(plan.lands).toBe(32)
    expect([18, 20, 22, 24].map(frame => flown(plan, frame))).toEqual([10, 10, 10, 12])
    expect(hopOn(plan, 20).foot).toEqual(hopOn(plan, 22).foot)
  })

  test('a fall without a drawing is told; so is a soft landing', () => {
    expect(planned({ drop: 0 }).told.join()).toContain('the fall has no drawing')
    expect(planned({ cushion: 0.1, crouch: 0.2 }).told).toEqual([
      'after the contact it is not pressed lower than it crouched',
    ])
    expect(planned().told).toEqual([])
  })

  test('the feet stand while it crouches and after the contact, and are planted there', () => {
    const plan = planned()
    const feet = plan.drawings.map((_, i) => hop.expect(plan, i).marks.foot!)
    expect(feet.slice(0, 5).map(({ x, y, planted }) => [x, y, planted])).toEqual(Array(5).fill([200, 600, true]))
    expect(feet.slice(14).map(({ x, y, planted }) => [x, y, planted])).toEqual(Array(5).fill([520, 600, true]))
    expect(feet.slice(5, 14).every(foot => !foot.planted)).toBe(true)
  })

  test('pinned, all of it stays on the ground and the way up is told on each', () => {
    const [free, pinned] = [planned(), planned({ pinned: true })]
    for (const { frame } of free.drawings) {
      const [a, b] = [hopOn(free, frame), hopOn(pinned, frame)]
      expect(b.centre.y - b.taken).toBeCloseTo(a.centre.y, 9)
      expect(b.foot.y).toBeCloseTo(600, 9)
    }
  })

  test('the pin takes it up as far as it was taken down, on every frame, and not at all where it is free', () => {
    const pinned = planned({ pinned: true, rise: 200, drop: 120 })
    const pin = pinned.path as LayerPath
    expect(planned().path).toBeUndefined()
    expect([pin.use, pin.on]).toEqual(['pin', 2])
    const free = planned({ rise: 200, drop: 120 })
    for (let frame = 0; frame < pinned.frames; frame++) {
      const at = pinned.drawings.filter(one => one.frame <= frame).at(-1)?.frame as number
      expect(hopOn(pinned, at).centre.y + placeOn(pin, frame).y).toBeCloseTo(hopOn(free, at).centre.y, 9)
    }
    // It stands on a place 80 px higher from then on; before it leaves there is one place only.
    expect(pin.keys.at(-1)).toMatchObject({ y: -80 })
    expect(pin.keys.filter(key => key.frame <= pinned.leaves)).toHaveLength(2)
  })

  test('landing on another foot, the weight goes over in the last third of the fall', () => {
    const plan = planned({ feet: 'changed', spread: 60, forward: 0 })
    const x = (frame: number) => hopOn(plan, frame).foot.x
    expect([x(20), x(24), x(28)]).toEqual([200, 200, 260])
    expect(x(26)).toBeGreaterThan(200)
  })
})

test('whatever hops keeps its area, and nothing of it goes into the ground', () => {
  fc.assert(
    fc.property(
      fc.record({
        rise: fc.integer({ min: 1, max: 900 }),
        drop: fc.integer({ min: 0, max: 900 }),
        forward: fc.integer({ min: -900, max: 900 }),
        gravity: fc.double({ min: 0.1, max: 60, noNaN: true }),
        exposure: fc.constantFrom(1, 2, 3, 4),
        hang: fc.nat(2),
        stretch: fc.double({ min: 0, max: 0.6, noNaN: true }),
        cushion: fc.double({ min: 0, max: 0.6, noNaN: true }),
      }),
      numbers => {
        const plan = planned(numbers)
        expect((plan.lands - plan.leaves) % plan.numbers.exposure).toBe(0)
        const bodies = plan.drawings.map(({ frame }) => hopOn(plan, frame))
        const shares = bodies.map(({ along, across }) => (along * across) / (80 * 60))
        expect(Math.max(...shares.map(share => Math.abs(share - 1)))).toBeLessThan(1e-9)
        bodies.forEach(body => expect(body.centre.y + halfHeightOf(body)).toBeCloseTo(body.foot.y, 6))
      },
    ),
  )
})
