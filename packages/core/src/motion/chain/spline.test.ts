import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance, type Point } from '../../geometry/point.ts'
import { followedPoint, guidePoint } from '../allowed.ts'
import type { RecipeShot, Way } from '../recipe.ts'
import { chain } from './chain.ts'
import { rootThrough } from './spline.ts'

const at = (frame: number, x: number, y = 0) => ({ frame, at: { x, y } })

describe('a root through places', () => {
  test('by hand: 0, 1, 0 over two spans of one frame bends by −6 in the middle and not at the ends', () => {
    const root = rootThrough({ places: [at(0, 0), at(1, 1), at(2, 0)], period: null })
    // Natural: (h₀+h₁)·2·s₁ = 6·((0−1)−(1−0)) = −12, s₁ = −3.
    expect([0, 1, 2].map(f => root.acceleration(f).x)).toEqual([0, -3, 0])
    expect(root.at(0.5).x).toBeCloseTo(0.5 + ((0.125 - 0.5) * -3) / 6, 12)
    expect(root.velocity(1).x).toBeCloseTo(0, 12)
  })

  test('goes through all of them, evenly where they lie evenly, and stands before and after', () => {
    const places = [at(0, 0, 5), at(2, 10, 5), at(6, 30, 5), at(8, 40, 5)]
    const root = rootThrough({ places, period: null })
    for (const { frame, at: place } of places) expect(root.at(frame)).toEqual({ x: expect.closeTo(place.x, 9), y: 5 })
    expect([root.at(4).x, root.velocity(5).x]).toEqual([expect.closeTo(20, 9), expect.closeTo(5, 9)])
    expect([root.at(-3), root.at(99), root.velocity(99)]).toEqual([
      { x: 0, y: 5 },
      { x: 40, y: 5 },
      { x: 0, y: 0 },
    ])
  })

  test('speed and acceleration are those of the way: differences agree', () => {
    const root = rootThrough({ places: [at(0, 0), at(3, 40), at(5, -20), at(9, 10)], period: null })
    for (const f of [1, 3.5, 6, 8]) {
      const h = 1e-4
      expect((root.at(f + h).x - root.at(f - h).x) / (2 * h)).toBeCloseTo(root.velocity(f).x, 5)
      expect((root.velocity(f + h).x - root.velocity(f - h).x) / (2 * h)).toBeCloseTo(root.acceleration(f).x, 5)
    }
  })
})

describe('a chain on a mark', () => {
  const places = [at(0, 100, 200), at(4, 160, 200), at(8, 300, 220)]
  const shot: RecipeShot = {
    width: 1280,
    height: 720,
    fps: 24,
    exposure: 2,
    wayOf: id => ({ places: id === 'clasp' ? places : [], period: null }),
  }
  const numbers = { ...chain.defaults(shot), drive: 'mark' as const, follows: 'clasp', after: 12 }

  test('hangs where the mark is on every drawing, and goes on after it has stopped', () => {
    for (const how of ['offset', 'spring', 'hang'] as const) {
      const plan = chain.plan({ ...numbers, how }, shot)
      expect([plan.frames, plan.loops]).toEqual([20, false])
      const roots = plan.lines.map(line => line[0]!)
      for (const { frame, at: place } of places) {
        expect(roots[frame / 2]).toEqual({ x: expect.closeTo(place.x, 9), y: expect.closeTo(place.y, 9) })
      }
      expect(roots.at(-1)).toEqual({ x: 300, y: 220 })
    }
  })

  test('by offset it leans back against its way, most where its root is fastest', () => {
    const { lines } = chain.plan({ ...numbers, how: 'offset', lag: 0, rest: 0, turn: 0.5 }, shot)
    const leans = lines.map(line => (line.at(-1) as Point).x - (line[0] as Point).x)
    // It goes to the right until frame 8, fastest just before that, and stands then.
    expect(leans.slice(0, 4).every(px => px < 0)).toBe(true)
    expect(leans[3]).toBeLessThan(leans[0] as number)
    expect(leans[9]).toBeCloseTo(0, 9)
  })

  test('one whose mark is placed nowhere stands, and says so', () => {
    for (const follows of [null, 'gone']) {
      const plan = chain.plan({ ...numbers, follows }, shot)
      expect(plan.told[0]).toContain('no place on two drawings yet')
      expect(new Set(plan.lines.map(line => JSON.stringify(line[0]))).size).toBe(1)
    }
    expect(chain.refuse({ ...numbers, follows: 3 as never }, shot)?.field).toBe('follows')
  })
})

describe('a way that goes round', () => {
  const round = (n: number, period: number): Way => ({
    places: Array.from({ length: n }, (_, i) => {
      const turn = (2 * Math.PI * i) / n
      return at((i * period) / n, 30 * Math.cos(turn), 12 * Math.sin(turn))
    }),
    period,
  })

  test('four knots of a sine: the slope at zero is 3/2 of that of the chord', () => {
    // Knots 0, 1, 0, −1 a step of 1 apart: 4M₁ + M₀ + M₂ = −12 at the top, M₀ = 0: M₁ = −3, and the slope at 0 is 1 − h·M₁/6 = 1.5.
    const root = rootThrough({ places: [at(0, 0), at(1, 1), at(2, 0), at(3, -1)], period: 4 })
    expect(root.velocity(0).x).toBeCloseTo(1.5, 12)
    expect(root.acceleration(1).x).toBeCloseTo(-3, 12)
    expect(root.at(0.5).x).toBeCloseTo(0.6875, 12)
  })

  test('it goes through its places, and is the same a turn later with speed and acceleration, before its first place as well', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 12 }), fc.integer({ min: -30, max: 60 }), (n, frame) => {
        const way = round(n, 2 * n)
        const root = rootThrough(way)
        for (const { frame: f, at: place } of way.places) {
          expect(root.at(f).x).toBeCloseTo(place.x, 9)
          expect(root.at(f).y).toBeCloseTo(place.y, 9)
        }
        for (const read of [root.at, root.velocity, root.acceleration]) {
          const [now, later] = [read(frame), read(frame + 2 * n)]
          expect(later.x).toBeCloseTo(now.x, 9)
          expect(later.y).toBeCloseTo(now.y, 9)
        }
        // No corner at the seam.
        const [before, behind] = [root.velocity(-1e-7), root.velocity(1e-7)]
        expect(before.x).toBeCloseTo(behind.x, 3)
      }),
      { seed: 7 },
    )
  })

  test('a chain on it goes round with it: by offset and by springs, closing exactly; left hanging it goes once', () => {
    const way = round(8, 16)
    const shot: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2, wayOf: () => way }
    const numbers = { ...chain.defaults(shot), drive: 'mark' as const, follows: 'walk:hip', damping: 0.8 }
    for (const how of ['offset', 'spring'] as const) {
      const plan = chain.plan({ ...numbers, how }, shot)
      expect([plan.frames, plan.loops, plan.drawings.length]).toEqual([16, true, 8])
      expect(plan.told).toEqual([])
      expect(plan.drawings.filter(drawing => drawing.name === 'extreme').length).toBe(2)
      plan.lines.forEach((line, i) => {
        expect(distance(line[0] as Point, way.places[i]?.at as Point)).toBeLessThan(1e-9)
        for (let k = 1; k < line.length; k++)
          expect(distance(line[k - 1] as Point, line[k] as Point)).toBeCloseTo(numbers.link, 9)
      })
    }
    expect(chain.plan({ ...numbers, how: 'hang' }, shot).loops).toBe(false)
    // The spring’s answer is the same from whichever place of the turn it begins.
    const turned: RecipeShot = {
      ...shot,
      wayOf: () => ({
        ...way,
        places: way.places.map(({ frame }, i) => ({ frame, at: way.places[(i + 3) % 8]?.at as Point })),
      }),
    }
    const [a, b] = [shot, turned].map(each => chain.plan({ ...numbers, how: 'spring' }, each))
    const tip = (plan: typeof a, i: number) => plan?.lines[i % 8]?.at(-1) as Point
    for (let i = 0; i < 8; i++) expect(distance(tip(b, i), tip(a, i + 3))).toBeLessThan(0.2)
  })

  test('a turn that drawings do not fill is told, and gone once', () => {
    const shot: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2, wayOf: () => round(5, 15) }
    const plan = chain.plan({ ...chain.defaults(shot), drive: 'mark', follows: 'walk:hip' }, shot)
    expect(plan.loops).toBe(false)
    expect(plan.told).toContain(
      'what it follows comes round in 15 frames, which drawings of 2 do not fill: it goes once',
    )
  })

  test('points of guides are named by guide and point', () => {
    expect(guidePoint(followedPoint({ guide: 'g-1', point: 'near ball' }))).toEqual({
      guide: 'g-1',
      point: 'near ball',
    })
    for (const value of ['nose', 'a:', ':b', 'a:b:c', 3, null, `${'a'.repeat(41)}:b`])
      expect(guidePoint(value)).toBeNull()
    const shot: RecipeShot = { width: 640, height: 360, fps: 24, exposure: 2 }
    const refused = (follows: string) => chain.refuse({ ...chain.defaults(shot), follows }, shot)?.why
    expect(refused('walk:near ball')).toBeUndefined()
    expect(refused('walk:')).toBe('must be a mark, a point of a guide, or none')
  })
})
