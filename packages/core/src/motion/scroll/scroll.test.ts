import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { placeOn, seamPx } from '../../path/path.ts'
import type { RecipeShot } from '../recipe.ts'
import { closesAfter, wholeRound, type ScrollNumbers } from './numbers.ts'
import { closing, roundedSteps, scroll } from './scroll.ts'

const shot: RecipeShot = { width: 640, height: 360, fps: 24, exposure: 2 }
const numbers = (patch: Partial<ScrollNumbers> = {}): ScrollNumbers => ({ ...scroll.defaults(shot), ...patch })
const planned = (patch: Partial<ScrollNumbers> = {}) => scroll.plan(numbers(patch), shot)

describe('a layer that passes', () => {
  test('goes at its share of the speed, on and on, stepping with the exposures', () => {
    const { path } = planned({ speed: -13.5, share: 0.5, exposure: 2 })
    // 6.75 px a frame, kept for two frames each.
    expect([0, 1, 2, 3, 4, 100].map(frame => placeOn(path, frame).x)).toEqual([0, 0, -13.5, -13.5, -27, -675])
    expect(placeOn(planned({ speed: 4, fall: 2, share: 2 }).path, 10)).toMatchObject({ x: 80, y: 40 })
  })

  test('is the ground where it is as near as that, and moves only where it is farther off or nearer', () => {
    expect([0.5, 1, 2].map(share => planned({ share }).path.use)).toEqual(['moves', 'ground', 'moves'])
  })

  test('passes under what walks on the spot just as fast; without that a picture in six seconds', () => {
    expect(scroll.defaults({ ...shot, passing: -13.5 }).speed).toBe(-13.5)
    // 144 frames.
    expect(scroll.defaults(shot).speed).toBeCloseTo(-640 / 144, 12)
    expect(planned().loops).toBe(true)
  })

  test('a strip that closes in whole steps is as long as that, and does not jump', () => {
    const plan = planned({ speed: -16, closes: 640, exposure: 2 })
    expect([plan.frames, plan.loops, plan.told]).toEqual([
      40,
      true,
      ['the picture goes by in 1.7 s, under 5 s: it may judder at 24 frames a second'],
    ])
    expect(seamPx(plan.path, { from: 0, to: plan.frames })).toBeCloseTo(0, 9)
    // On threes 40 frames are no whole step.
    expect(planned({ speed: -16, exposure: 3, frames: 48 })).toMatchObject({ frames: 48, loops: false })
  })

  test('one that does not says so, lasts as long as told, and the nearest speed that does is offered', () => {
    const odd = numbers({ speed: -13.5, closes: 640, exposure: 2, frames: 50 })
    const plan = scroll.plan(odd, shot)
    expect([plan.frames, plan.loops]).toEqual([50, false])
    expect(plan.told[0]).toBe('the strip closes after 47.4 frames, which is no whole step: a loop of it jumps')
    const near = closing(odd)
    // 48 frames: 13.33 px.
    expect(near.speed).toBeCloseTo(-640 / 48, 12)
    expect(scroll.plan(near, shot)).toMatchObject({ frames: 48, loops: true })
  })

  test('brought to close, it does, at any share, speed and exposure', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 64, max: 3000 }),
        (speed, share, exposure, closes) => {
          const wished = numbers({ speed: -speed, share, exposure, closes })
          fc.pre((closesAfter(wished) as number) < 1900)
          const near = closing(wished)
          const round = wholeRound(near) as number
          expect(round % exposure).toBe(0)
          expect(Math.abs(round - (closesAfter(wished) as number))).toBeLessThanOrEqual(
            Math.max(exposure, exposure / 2) + 1e-9,
          )
          expect(seamPx(scroll.plan(near, shot).path, { from: 0, to: round })).toBeLessThan(1e-6)
        },
      ),
      { seed: 4 },
    )
  })

  test('what stands, what falls, and what does not close has no round; and is left as it is', () => {
    for (const patch of [{ speed: 0 }, { share: 0 }, { fall: 1 }, { closes: null }] as const) {
      expect(closesAfter(numbers(patch))).toBeNull()
      expect(closing(numbers(patch))).toEqual(numbers(patch))
    }
    expect(wholeRound(numbers({ speed: 0.01 }))).toBeNull()
  })

  test('whole pixels are told by the steps they make, never by another speed', () => {
    expect(roundedSteps(13.5, 1)).toEqual([13, 14])
    expect(roundedSteps(-13.5, 2)).toEqual([])
    const plan = planned({ speed: -13.25, whole: true, exposure: 1, closes: null, judder: '5' })
    expect(plan.told[0]).toBe('in whole pixels its steps are 13 and 14 px; the speed stays 13.25 px a frame')
    expect(placeOn(plan.path, 400).x).toBe(-5300)
    expect(planned({ speed: -13.25, whole: false, closes: null }).told.some(one => one.startsWith('in whole'))).toBe(
      false,
    )
  })

  test('a picture that goes by too quickly is told, by the limit that was chosen', () => {
    // 640 px in 6 s at 24: 4.44 px a frame.
    const six = { speed: -640 / 144, closes: null }
    expect(planned({ ...six, judder: '5' }).told).toEqual([])
    expect(planned({ ...six, judder: '7' }).told).toEqual([
      'the picture goes by in 6 s, under 7 s: it may judder at 24 frames a second',
    ])
  })
})
