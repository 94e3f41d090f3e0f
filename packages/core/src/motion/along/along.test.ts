import { describe, expect, test } from '@jest/globals'
import type { FramedPlace, RecipeShot } from '../recipe.ts'
import { along } from './along.ts'

const shot = (places: readonly FramedPlace[]): RecipeShot => ({
  width: 640,
  height: 360,
  fps: 24,
  exposure: 2,
  wayOf: followed => ({ places: followed === 'beak' ? places : [], period: null }),
})
/** To the right by 4 a frame for six frames, then back by 2. */
const WAY = [0, 4, 8, 12, 16, 20, 24, 22, 20, 18, 16].map((x, frame) => ({ frame, at: { x: 100 + x, y: 50 } }))
const planned = (change: object = {}, places: readonly FramedPlace[] = WAY) =>
  along.plan({ ...along.defaults(shot(places)), follows: 'beak', x: 10, y: 20, ...change }, shot(places))

describe('a way that is taken over', () => {
  test('has a drawing for every exposure, begins where it is put, and turns at a key', () => {
    const plan = planned()
    expect(plan.places.map(({ x, y }) => [x, y])).toEqual([0, 8, 16, 24, 20, 16].map(x => [10 + x, 20]))
    expect(plan.drawings.map(({ role, name }) => [role, name])).toEqual([
      ['key', 'begins'],
      ['inbetween', null],
      ['inbetween', null],
      ['key', 'turns'],
      ['inbetween', null],
      ['key', 'ends'],
    ])
    expect(plan.charts).toEqual([
      { from: 0, to: 3, shares: [expect.closeTo(1 / 3, 9), expect.closeTo(2 / 3, 9)] },
      { from: 3, to: 5, shares: [0.5] },
    ])
    expect([plan.frames, plan.told]).toEqual([12, ['32 px in 6 drawings']])
    expect(along.expect(plan, 3).marks).toEqual({ point: { x: 34, y: 20 } })
  })

  test('every step is so many times as far', () => {
    expect(planned({ times: 2.5 }).places.map(({ x }) => x)).toEqual([10, 30, 50, 70, 60, 50])
  })

  test('until it is seen it waits where it begins; where it is lost it stays', () => {
    const late = WAY.slice(4, 9).filter(place => place.frame !== 6)
    const { places, drawings, charts } = planned({}, late)
    expect(places.map(({ x }) => x)).toEqual([10, 10, 10, 14, 14])
    expect(drawings).toHaveLength(5)
    expect(charts).toEqual([])
  })

  test('nothing that is seen is told, and stands', () => {
    const plan = planned({ follows: null })
    expect([plan.places, plan.frames]).toEqual([[{ x: 10, y: 20 }], 2])
    expect(plan.told[0]).toContain('follows nothing')
    expect(along.refuse({ ...plan.numbers, times: 9 }, shot(WAY))?.field).toBe('times')
  })
})
