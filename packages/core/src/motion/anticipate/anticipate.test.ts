import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { RecipeShot } from '../recipe.ts'
import { anticipate, settling, shareAt } from './anticipate.ts'
import type { AnticipateNumbers } from './numbers.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const PLAIN: Partial<AnticipateNumbers> = {
  x: 100,
  y: 300,
  toX: 500,
  toY: 300,
  bow: 0,
  frames: 12,
  exposure: 2,
  back: 0.15,
  backTime: 0.5,
  ease: 'both',
  past: 0.1,
  decay: 0.2,
  swing: 12,
}
const planned = (patch: Partial<AnticipateNumbers> = {}) => {
  const numbers = { ...anticipate.defaults(SHOT), ...PLAIN, ...patch }
  expect(anticipate.refuse(numbers, SHOT)).toBeNull()
  return anticipate.plan(numbers, SHOT)
}
const x = (plan: ReturnType<typeof planned>, frame: number) => 100 + 400 * shareAt(plan, frame)

describe('a move by hand', () => {
  test('60 px back over six frames, to 40 px past the end over twelve', () => {
    const plan = planned()
    expect([plan.wayPx, plan.backFrames, plan.moveFrames]).toEqual([expect.closeTo(400, 9), 6, 12])
    expect([0, 6, 18].map(frame => x(plan, frame))).toEqual([100, expect.closeTo(40, 9), expect.closeTo(540, 9)])
    // Half-way in time it is half-way from the back to past the end.
    expect(x(plan, 12)).toBeCloseTo(290, 9)
    expect(plan.beats.map(beat => beat.frame)).toEqual([6, 18])
  })

  test('settles as it is written, and begins to at rest', () => {
    const { numbers, ...plan } = planned()
    const [t, lambda, P] = [5, 0.2, 12]
    const exact =
      0.1 *
      Math.exp(-lambda * t) *
      (Math.cos((2 * Math.PI * t) / P) + ((lambda * P) / (2 * Math.PI)) * Math.sin((2 * Math.PI * t) / P))
    expect(settling(numbers, t)).toBeCloseTo(exact, 12)
    expect(shareAt({ numbers, ...plan }, 18 + 5)).toBeCloseTo(1 + exact, 12)
    expect((settling(numbers, 1e-5) - settling(numbers, 0)) / 1e-5).toBeCloseTo(0, 4)
  })

  test('ends where its swing is below a pixel, and is there', () => {
    const plan = planned()
    expect(x(plan, plan.frames - 1)).toBe(500)
    // 40·√(1 + (0.2·12/2π)²)·e^(−0.2t) < 1: t > 18.8, on twos 20.
    expect(plan.settleFrames).toBe(20)
    expect(planned({ past: 0 }).settleFrames).toBe(0)
  })

  test('back by a pixel and one drawing at least, or not at all', () => {
    const small = planned({ toX: 104, back: 0.01, backTime: 0.05 })
    expect([small.back, small.backFrames]).toEqual([expect.closeTo(1 / 4, 6), 2])
    const none = planned({ back: 0 })
    expect([none.backFrames, none.drawings[0]?.role]).toEqual([0, 'key'])
  })

  test('parts come one after the other, and none arrives with another', () => {
    const plan = planned({ parts: 3, offset: 2 })
    const at = (i: number) => anticipate.expect(plan, i).marks
    expect(plan.marks).toEqual(['head', 'torso', 'arm'])
    expect(at(7).torso!.x).toBeCloseTo(at(6).head!.x, 9)
    expect(at(8).arm!.x).toBeCloseTo(at(6).head!.x, 9)
    expect(at(plan.drawings.length - 1).arm!.x).toBe(500)
  })
})

test('whatever moves keeps its area, goes back against its way only at first, and is there at the end', () => {
  fc.assert(
    fc.property(
      fc.record({
        frames: fc.integer({ min: 2, max: 60 }),
        exposure: fc.constantFrom(1, 2, 3),
        back: fc.double({ min: 0, max: 0.4, noNaN: true }),
        past: fc.double({ min: 0, max: 0.4, noNaN: true }),
        bow: fc.integer({ min: -200, max: 200 }),
        ease: fc.constantFrom('even' as const, 'in' as const, 'out' as const, 'both' as const),
      }),
      numbers => {
        const wished = { ...anticipate.defaults(SHOT), ...PLAIN, swing: 24, ...numbers }
        if (anticipate.refuse(wished, SHOT)) return
        const plan = anticipate.plan(wished, SHOT)
        const areas = plan.drawings.map(
          (_, i) => anticipate.expect(plan, i).body!.area / (Math.PI * wished.radius ** 2),
        )
        expect(Math.max(...areas.map(share => Math.abs(share - 1)))).toBeLessThan(1e-9)
        const shares = plan.drawings.map(({ frame }) => shareAt(plan, frame))
        const turned = shares.indexOf(Math.min(...shares))
        const top = shares.indexOf(Math.max(...shares))
        expect(shares.slice(0, turned).every((share, i) => share >= shares[i + 1]!)).toBe(true)
        expect(shares.slice(turned, top).every((share, i) => share <= shares[turned + i + 1]!)).toBe(true)
        expect(shares.at(-1)).toBe(1)
      },
    ),
  )
})
