import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance, type Point } from '../../geometry/point.ts'
import type { RecipeShot } from '../recipe.ts'
import { chain, type ChainPlan } from './chain.ts'
import { anglesByOffset, jointsOf } from './links.ts'
import type { ChainNumbers } from './numbers.ts'
import { atRest, closed, MOST_TURNS, oneFrameOn, ranOnce, ranRound, type Root, type Spring } from './spring.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const planned = (patch: Partial<ChainNumbers> = {}): ChainPlan => {
  const numbers = { ...chain.defaults(SHOT), ...patch }
  expect(chain.refuse(numbers, SHOT)).toBeNull()
  return chain.plan(numbers, SHOT)
}
const tipOf = (line: readonly Point[]) => line[line.length - 1] as Point

describe('links by offset', () => {
  const turn = (f: number) => f / 10
  const four = { links: 4, lag: 2, growth: 1.5, relative: false }

  test('each turns as the root did some frames before, times its growth', () => {
    expect(anglesByOffset(four, 0.1, turn, 10)).toEqual([
      0.1 + 1,
      expect.closeTo(0.1 + 0.8 * 1.5, 12),
      expect.closeTo(0.1 + 0.6 * 2.25, 12),
      expect.closeTo(0.1 + 0.4 * 3.375, 12),
    ])
  })

  test('relative turns add up, and no link turns by more than half a turn', () => {
    const angles = anglesByOffset({ ...four, relative: true }, 0, turn, 10)
    expect(angles).toEqual([1, expect.closeTo(2.2, 12), Math.PI, Math.PI])
    expect(anglesByOffset({ ...four, relative: true }, 0, f => -turn(f), 10)[3]).toBe(-Math.PI)
  })

  test('joints lie a link apart, down from the root at no angle', () => {
    expect(jointsOf({ x: 5, y: 7 }, 10, [0, Math.PI / 2])).toEqual([
      { x: 5, y: 7 },
      { x: 5, y: 17 },
      { x: expect.closeTo(15, 12), y: expect.closeTo(17, 12) },
    ])
  })

  test('a cycle by offset closes: the frame after the last is the first', () => {
    const { numbers } = planned()
    const turned = (f: number) => numbers.turn * Math.sin((2 * Math.PI * f) / numbers.period)
    const [first, again] = [0, numbers.period].map(f => anglesByOffset(numbers, 0, turned, f))
    again?.forEach((angle, i) => expect(angle).toBeCloseTo(first?.[i] as number, 9))
  })
})

describe('links by springs', () => {
  const still: Root = {
    at: () => ({ x: 0, y: 0 }),
    velocity: () => ({ x: 0, y: 0 }),
    acceleration: () => ({ x: 0, y: 0 }),
  }
  const one: Spring = { links: 1, linkPx: 100, restRad: 0, own: 24, damping: 0.2, weight: 0, air: 0, gravity: 0 }
  const swaying = (amplitude: number, period: number): Root => {
    const w = (2 * Math.PI) / period
    return {
      at: f => ({ x: amplitude * Math.sin(w * f), y: 0 }),
      velocity: f => ({ x: amplitude * w * Math.cos(w * f), y: 0 }),
      acceleration: f => ({ x: -amplitude * w * w * Math.sin(w * f), y: 0 }),
    }
  }

  test('let go of from aside it swings as a damped spring does', () => {
    const w = (2 * Math.PI) / 24
    const damped = w * Math.sqrt(1 - 0.2 ** 2)
    let state: readonly number[] = [0.3, 0]
    for (let f = 0; f < 40; f++) {
      const t = f
      const exact = 0.3 * Math.exp(-0.2 * w * t) * (Math.cos(damped * t) + ((0.2 * w) / damped) * Math.sin(damped * t))
      expect(state[0]).toBeCloseTo(exact, 6)
      state = oneFrameOn(one, still, state, f)
    }
  })

  test('carried to and fro it swings as far as a driven pendulum does', () => {
    const spring = { ...one, weight: 1, gravity: 2 }
    const period = 36
    const { angles, settled } = ranRound(spring, swaying(2, period), period)
    expect(settled).toBe(true)
    const [w, drive] = [(2 * Math.PI) / 24, (2 * Math.PI) / period]
    const natural = w * w + 2 / 100
    const exact = (2 * drive * drive) / 100 / Math.hypot(natural - drive * drive, 2 * 0.2 * w * drive)
    expect(Math.max(...angles.map(([angle]) => angle as number))).toBeCloseTo(exact, 3)
  })

  test('falling with its root it weighs nothing, and the air alone stops it', () => {
    const free: Root = { ...still, acceleration: () => ({ x: 0, y: 3 }) }
    const loose = { ...one, own: 1e9, damping: 0, weight: 1, gravity: 3 }
    expect(oneFrameOn(loose, free, [0.5, 0], 0)).toEqual([expect.closeTo(0.5, 9), expect.closeTo(0, 9)])
    const [, speed = 0] = oneFrameOn({ ...loose, air: 0.5 }, free, [0.5, 0.1], 0)
    expect(speed).toBeCloseTo(0.1 * Math.exp(-0.5), 6)
  })

  test('carried down through the air it streams up; carried to the right it trails to the left', () => {
    const windy = { ...one, own: 1e9, damping: 0, air: 0.2 }
    const carried = (x: number, y: number): Root => ({ ...still, velocity: () => ({ x, y }) })
    const [, rises = 0] = oneFrameOn(windy, carried(0, 10), [0.5, 0], 0)
    // θ̈ = c·v_y·sin θ/ℓ at first: 0.2·10·sin 0.5/100.
    expect(rises).toBeCloseTo((0.2 * 10 * Math.sin(0.5)) / 100, 2)
    expect(oneFrameOn(windy, carried(10, 0), [0, 0], 0)[1]).toBeLessThan(-0.01)
  })

  test('what is left over at the end of a turn is spread over it', () => {
    expect(
      closed([
        [0, 1],
        [1, 1],
        [2, 1],
        [0.3, 1],
      ]),
    ).toEqual([
      [0, 1],
      [expect.closeTo(0.9, 12), 1],
      [expect.closeTo(1.8, 12), 1],
    ])
  })

  test('does not depend on how it is played: on ones and on twos it is the same on the same frames', () => {
    const [ones, twos] = [1, 2].map(exposure => planned({ how: 'spring', exposure, period: 24 }))
    expect(twos?.lines).toEqual(ones?.lines.filter((_, i) => i % 2 === 0))
  })

  test('links keep their length, cycles close, and one that does not settle says so', () => {
    const plan = planned({ how: 'spring', across: 140, up: 30 })
    for (const line of plan.lines)
      for (let i = 1; i < line.length; i++)
        expect(distance(line[i - 1] as Point, line[i] as Point)).toBeCloseTo(plan.numbers.link, 9)
    expect(plan.told).toEqual([])
    const spring = { ...plan.numbers, linkPx: plan.numbers.link, restRad: 0 }
    const root = swaying(140, 24)
    const { angles } = ranRound(spring, root, 24)
    // One step more from the last frame leads to the first: what was left over was no more than a trace.
    expect(
      distance(tipOf(jointsOf(root.at(24), 60, angles[0] ?? [])), tipOf(jointsOf(root.at(0), 60, angles[0] ?? []))),
    ).toBeLessThan(1e-9)
    const wild = planned({
      how: 'spring',
      links: 24,
      link: 8,
      weight: 3,
      damping: 0.1,
      air: 0,
      across: 2000,
      period: 10,
    })
    expect(wild.told).toEqual([expect.stringContaining('does not settle')])
    expect(wild.lines.flat().every(({ x, y }) => Number.isFinite(x + y))).toBe(true)
    expect(MOST_TURNS).toBe(60)
  })

  test('what stops comes to rest, or is said not to have', () => {
    const spring = { ...one, links: 3 }
    expect(ranOnce(spring, still, 5)).toEqual({ angles: Array(5).fill([0, 0, 0]), settled: true })
    expect(atRest(spring)).toEqual([0, 0, 0, 0, 0, 0])
    const calm = planned({ how: 'spring', drive: 'move', across: 300, period: 12, after: 120, damping: 0.8 })
    expect(calm.told).toEqual([])
    const short = planned({ how: 'spring', drive: 'move', across: 300, period: 12, after: 2, damping: 0.1 })
    expect(short.told).toEqual([expect.stringMatching(/^at the end its tip still moves by \d+(\.\d)? px a drawing$/)])
    expect(short.beats.map(beat => beat.name)).toContain('root stops')
  })
})

describe('left hanging', () => {
  const plan = (patch: Partial<ChainNumbers> = {}) =>
    planned({ how: 'hang', drive: 'move', across: 60, up: 0, period: 12, hangs: 2, stretch: 0.2, ...patch })

  test('the tip stays where it was for so many drawings, then comes, and hangs below at the end', () => {
    const { lines, beats } = plan()
    const tips = lines.map(tipOf)
    expect(tips.slice(0, 3)).toEqual([tips[0], tips[0], tips[0]])
    expect(tips[3]?.x).toBeGreaterThan(tips[0]?.x as number)
    const [root, tip] = [lines.at(-1)?.[0] as Point, tips.at(-1) as Point]
    expect([tip.x, tip.y - root.y]).toEqual([expect.closeTo(root.x, 9), expect.closeTo(5 * 65, 9)])
    expect(beats.find(beat => beat.name === 'tip comes')?.frame).toBe(4)
  })

  test('it stretches by no more than it may, however far the root goes', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), fc.integer({ min: 0, max: 6 }), (across, hangs) => {
        const { lines, numbers } = plan({ across, hangs })
        const most = numbers.links * numbers.link * 1.2 + 1e-6
        expect(Math.max(...lines.map(line => distance(line[0] as Point, tipOf(line))))).toBeLessThanOrEqual(most)
      }),
    )
  })

  test('a root that goes to and fro leaves nothing hanging', () => {
    expect(chain.refuse({ ...chain.defaults(SHOT), how: 'hang' }, SHOT)?.field).toBe('how')
  })
})

test('a swing is a whole number of drawings, and says what it wished', () => {
  const plan = planned({ period: 25 })
  expect([plan.frames, plan.snapped]).toEqual([
    26,
    [{ what: 'frames of a swing', wished: 25, taken: 26, by: expect.closeTo(0.04, 9) }],
  ])
})
