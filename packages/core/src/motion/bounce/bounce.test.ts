import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { RecipeShot } from '../recipe.ts'
import { bodyOn, bounce, type BouncePlan } from './bounce.ts'
import { halfHeightOf } from './body.ts'
import { type BounceNumbers } from './numbers.ts'
import { readBounce } from './spacing.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
/** Falls 400 px in 20 frames at 2 px a frame, a frame. */
const PLAIN: BounceNumbers = {
  ...bounce.defaults(SHOT),
  x: 100,
  y: 180,
  ground: 600,
  radius: 20,
  gravity: 2,
  restitution: 0.5,
  forward: 5,
  exposure: 2,
  squash: 0.3,
  stretch: 0.2,
}
const planned = (patch: Partial<BounceNumbers> = {}): BouncePlan => {
  const numbers = { ...PLAIN, ...patch }
  expect(bounce.refuse(numbers, SHOT)).toBeNull()
  return bounce.plan(numbers, SHOT)
}

const anyNumbers = fc.record({
  x: fc.integer({ min: -500, max: 1500 }),
  y: fc.integer({ min: -200, max: 500 }),
  ground: fc.integer({ min: 600, max: 900 }),
  radius: fc.integer({ min: 3, max: 90 }),
  gravity: fc.double({ min: 0.05, max: 20, noNaN: true }),
  restitution: fc.double({ min: 0, max: 0.95, noNaN: true }),
  forward: fc.integer({ min: -20, max: 20 }),
  exposure: fc.constantFrom(1, 2, 3, 4),
  bounces: fc.constantFrom(null, 0, 1, 3),
  squash: fc.double({ min: 0, max: 0.6, noNaN: true }),
  stretch: fc.double({ min: 0, max: 0.6, noNaN: true }),
  school: fc.constantFrom('flat' as const, 'round' as const),
  nudge: fc.constantFrom('gravity' as const, 'start' as const),
  contact: fc.constantFrom('squash' as const, 'touch' as const),
  roll: fc.constantFrom(0, 7, 24),
})

describe('a bounce by hand', () => {
  test('falls 400 px in 20 frames and bounces for 20, 10 and 4', () => {
    const plan = planned()
    // 2·0.5·20 = 20, 2·0.25·20 = 10, 2·0.125·20 = 5 → 6 on twos (ties up); 2.5 → 2, less than two exposures.
    expect(plan.arcs.map(({ start, end }) => [start, end])).toEqual([
      [0, 20],
      [20, 40],
      [40, 50],
      [50, 56],
    ])
    expect(plan.arcs.map(arc => arc.rise)).toEqual([400, 100, 25, 9])
    expect(plan.snapped.map(({ what, by }) => [what, by])).toEqual([
      ['gravity', 0],
      ['height of bounce 1', 0],
      ['height of bounce 2', 0],
      ['height of bounce 3', expect.closeTo(9 / 6.25 - 1, 12)],
    ])
    expect([plan.frames, plan.rests, plan.drawings.length]).toEqual([60, 58, 30])
    expect(plan.beats.map(beat => beat.frame)).toEqual([20, 40, 50, 56])
  })

  test('what gives way is gravity, once, or the start', () => {
    const heavy = planned({ gravity: 2.3 })
    // √(800/2.3) = 18.65 → 18: 800/18² = 2.469.
    expect([heavy.gravity, heavy.arcs[0]?.end, heavy.startY]).toEqual([expect.closeTo(800 / 324, 12), 18, 180])
    expect(heavy.snapped[0]?.by).toBeCloseTo(800 / 324 / 2.3 - 1, 12)
    const lower = planned({ gravity: 2.3, nudge: 'start' })
    expect([lower.gravity, lower.startY]).toEqual([2.3, expect.closeTo(580 - (2.3 * 324) / 2, 9)])
    expect(lower.snapped[0]).toMatchObject({
      what: 'height of the start',
      wished: 400,
      taken: expect.closeTo(372.6, 9),
    })
    // Heights are told against those of the start that was taken.
    expect(lower.snapped[1]).toMatchObject({ wished: expect.closeTo(372.6 / 4, 9) })
  })

  test('no arc is as long as the one before', () => {
    const plan = planned({ restitution: 0.95, exposure: 4, gravity: 12 })
    const spans = plan.arcs.map(arc => arc.span)
    expect(spans).toEqual([16, 12, 8])
  })

  test('squashed on the contact; or touching there, and squashed one exposure later', () => {
    const flat = bodyOn(planned(), 20)
    // s = 0.7 across the ground: half a height of 14 px, its area kept.
    expect([flat.along, flat.across, flat.centre]).toEqual([
      expect.closeTo(14, 9),
      expect.closeTo(20 / 0.7, 9),
      { x: 200, y: expect.closeTo(586, 9) },
    ])
    const plan = planned({ contact: 'touch' })
    const [touching, squashed] = [bodyOn(plan, 20), bodyOn(plan, 22)]
    expect(touching.along).toBeCloseTo(20 * 1.2, 9)
    expect(touching.centre.y).toBeCloseTo(600 - halfHeightOf(touching), 9)
    expect(squashed).toEqual({ ...flat, tiltRad: Math.PI / 2 })
    expect(plan.arcs[1]).toMatchObject({ start: 22, end: 42 })
    expect(plan.drawings.filter(d => d.role === 'key').map(d => d.name)).toEqual([
      'start',
      ...Array(4).fill(['touches', 'squashed']).flat(),
      'rests',
    ])
  })

  test('round: as if as deep as it is wide, 4/3·π·a·b² is kept', () => {
    const { along, across } = bodyOn(planned({ school: 'round' }), 20)
    expect(along * across ** 2).toBeCloseTo(20 ** 3, 9)
    expect(along).toBeCloseTo(14, 9)
  })

  test('rolls out with even deceleration and stops', () => {
    const plan = planned({ roll: 19 })
    const x = (frame: number) => bodyOn(plan, frame).centre.x
    expect([plan.rolls, plan.frames]).toEqual([20, 56 + 20 + 2])
    // From 380 at 5 px a frame over 20 frames: 50 px in all, 37.5 of them in the first half.
    expect([x(56), x(66), x(76)]).toEqual([380, expect.closeTo(417.5, 9), expect.closeTo(430, 9)])
  })

  test('the chart of a straight drop has the shares of the fall: 1/100, 4/100, …', () => {
    const [fall, up] = planned({ forward: 0 }).charts
    expect(fall?.shares.slice(0, 3)).toEqual([0.01, 0.04, 0.09].map(share => expect.closeTo(share, 12)))
    expect(up?.shares[4]).toBeCloseTo(0.5, 12)
    // Forwards, the arc is longer than it is high: 400 px high, 100 px wide.
    const steep = planned().charts[0]?.shares[4] as number
    let [half, whole] = [0, 0]
    for (let t = 0; t < 20; t += 1e-3) {
      whole += Math.hypot(5, 2 * t)
      if (t < 10) half += Math.hypot(5, 2 * t)
    }
    expect(steep).toBeCloseTo(half / whole, 4)
  })

  test('one drawing is one drawing: what is shown stands for its whole exposure', () => {
    const plan = planned()
    expect(bodyOn(plan, 21)).toEqual(bodyOn(plan, 20))
    expect(() => bodyOn(plan, 60)).toThrow('a bounce of 60 frames has no frame 60')
    expect(() => bounce.expect(plan, 30)).toThrow('a plan of 30 drawings has no drawing 30')
  })
})

describe('every bounce', () => {
  const all = (what: (plan: BouncePlan) => void) =>
    fc.assert(
      fc.property(anyNumbers, numbers => {
        if (bounce.refuse(numbers, SHOT)) return
        what(bounce.plan(numbers, SHOT))
      }),
    )

  test('has its contacts on exposures, and an exposure for every drawing', () => {
    all(plan => {
      const n = plan.numbers.exposure
      for (const { start, end } of plan.arcs) expect([start % n, end % n]).toEqual([0, 0])
      expect(plan.drawings.map(d => d.frame)).toEqual(Array.from({ length: plan.frames / n }, (_, i) => i * n))
      expect(plan.drawings.at(-1)).toMatchObject({ role: 'key', name: 'rests' })
    })
  })

  test('keeps its area or volume, and stays above the ground', () => {
    all(plan => {
      const { radius, ground, school } = plan.numbers
      const bodies = plan.drawings.map(({ frame }) => bodyOn(plan, frame))
      const kept = bodies.map(({ along, across }) =>
        school === 'flat' ? (along * across) / radius ** 2 : (along * across ** 2) / radius ** 3,
      )
      expect(Math.max(...kept.map(share => Math.abs(share - 1)))).toBeLessThan(1e-9)
      expect(Math.max(...bodies.map(body => body.centre.y + halfHeightOf(body)))).toBeLessThan(ground + 1e-6)
    })
  })

  test('falls under one gravity: second differences within a flight are g·n²', () => {
    all(plan => {
      const n = plan.numbers.exposure
      const y = (frame: number) => bodyOn(plan, frame).centre.y
      const off = plan.arcs.flatMap(({ start, end }) =>
        plan.drawings
          .filter(({ frame }) => frame > start && frame + 2 * n < end)
          .map(({ frame: f }) => Math.abs(y(f) - 2 * y(f + n) + y(f + 2 * n) - plan.gravity * n * n)),
      )
      expect(Math.max(0, ...off)).toBeLessThan(1e-6)
    })
  })

  test('has increasing shares in every chart', () => {
    all(plan => {
      const increase = plan.charts.every(({ from, to, shares }) => {
        const all = [0, ...shares, 1]
        return all.length === to - from + 1 && all.every((share, i) => i === 0 || share > (all[i - 1] as number))
      })
      expect(increase).toBe(true)
    })
  })

  test('is read back from its drawings: its gravity, nothing off, as many up as down', () => {
    const plan = planned({ exposure: 1, restitution: 0.7 })
    const read = readBounce(plan.drawings.map(({ frame }) => ({ frame, at: bodyOn(plan, frame).centre })))
    expect(read.length).toBeGreaterThan(3)
    read.slice(0, 3).forEach(arc => {
      expect(arc.gravity).toBeCloseTo(plan.gravity, 6)
      expect(arc.worst.offPx).toBeLessThan(1e-6)
    })
    expect([read[1]?.rising, read[1]?.falling]).toEqual([13, 13])
  })

  test('drawn with one drawing out of place, that one is named', () => {
    const plan = planned({ exposure: 1, stretch: 0 })
    const places = plan.drawings.map(({ frame }) => ({ frame, at: bodyOn(plan, frame).centre }))
    places[30] = { frame: 30, at: { x: (places[30]?.at.x as number) + 1, y: (places[30]?.at.y as number) - 12 } }
    const [, arc] = readBounce(places)
    expect(arc?.worst.index).toBe(30)
    expect(arc?.worst.offPx).toBeGreaterThan(8)
  })
})

describe('numbers that are no bounce', () => {
  test.each<[Partial<Record<keyof BounceNumbers, unknown>>, string]>([
    [{ radius: 0 }, 'radius'],
    [{ x: NaN }, 'x'],
    [{ gravity: Infinity }, 'gravity'],
    [{ restitution: 1 }, 'restitution'],
    [{ exposure: 1.5 }, 'exposure'],
    [{ bounces: -1 }, 'bounces'],
    [{ bounces: 61 }, 'bounces'],
    [{ squash: 0.7 }, 'squash'],
    [{ school: 'oval' }, 'school'],
    [{ y: 590 }, 'y'],
    [{ gravity: 0.001, y: -2000 }, 'gravity'],
  ])('%j is refused by name', (patch, field) => {
    expect(bounce.refuse({ ...PLAIN, ...patch } as BounceNumbers, SHOT)?.field).toBe(field)
  })

  test('until it rests always ends, within a bound', () => {
    const plan = planned({ restitution: 0.95, exposure: 1, gravity: 0.05, stretch: 0 })
    expect(plan.frames).toBeLessThan(126 * 2 * 20)
  })
})
