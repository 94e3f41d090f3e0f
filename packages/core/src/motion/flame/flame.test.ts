import { expect, test } from '@jest/globals'
import type { RecipeShot } from '../recipe.ts'
import { flame, spineOf, tipsOf } from './flame.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }
const numbers = { ...flame.defaults(SHOT), x: 600, y: 500, height: 300, sway: 40, waves: 1, drawings: 8 }

test('the foot stands, and a lobe is an eighth of a wave higher on the next of eight drawings', () => {
  const u = (drawing: number, i: number) => spineOf(numbers, drawing)[i]!
  for (let drawing = 0; drawing < 8; drawing++) expect(u(drawing, 0)).toEqual({ x: 600, y: 500 })
  // x = A·u²·sin 2π(u − i/8) at half the height, i = 2: 40/4·sin(2π/4).
  expect(u(2, 12)).toEqual({ x: expect.closeTo(600 + 10, 9), y: 350 })
  // At the tip on drawing 6: 40·sin(−2π·3/4) = 40.
  expect(u(6, 24).x).toBeCloseTo(640, 9)
})

test('the drawing after the last is the first, with all that came off', () => {
  const many = { ...numbers, tips: 3 }
  expect(spineOf(many, 8)).toEqual(spineOf(many, 0))
  for (const i of [0, 1, 5]) expect(tipsOf(many, i + 8)).toEqual(tipsOf(many, i))
})

test('tips rise and get smaller until they are gone', () => {
  const one = { ...numbers, tips: 1 }
  expect(tipsOf(one, 0)).toEqual([])
  const lives = [1, 2, 3, 4, 5, 6, 7].map(i => tipsOf(one, i)[0]!)
  lives.slice(1).forEach((tip, i) => {
    expect(tip.centre.y).toBeLessThan(lives[i]!.centre.y)
    expect(tip.across).toBeLessThan(lives[i]!.across)
  })
})
