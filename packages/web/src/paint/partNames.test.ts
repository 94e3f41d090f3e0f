import { expect, test } from '@jest/globals'
import { planWith, RECIPE_NAMES, RECIPES } from '@unhurried/core/motion'
import { partsOf } from './partNames.ts'

const SHOT = { width: 1280, height: 720, fps: 24, exposure: 2 }

test.each(RECIPE_NAMES)('%s: every part of its construction has one name and a place, on every drawing', recipe => {
  const plan = planWith(recipe, RECIPES[recipe].defaults(SHOT), SHOT)
  for (const { frame } of plan.drawings) {
    const parts = partsOf({ guide: { recipe }, plan, frame })
    expect(parts.length).toBeGreaterThan(0)
    expect(new Set(parts.map(part => part.name)).size).toBe(parts.length)
    for (const { name, at } of parts) {
      expect(name).toMatch(/^[a-z][a-z ]*( \d+)?$/)
      expect(Number.isFinite(at.x) && Number.isFinite(at.y)).toBe(true)
    }
  }
})

test('near and far limbs are told apart by their names', () => {
  const plan = planWith('walk', RECIPES.walk.defaults(SHOT), SHOT)
  const names = partsOf({ guide: { recipe: 'walk' }, plan, frame: 0 }).map(part => part.name)
  expect(names).toEqual(expect.arrayContaining(['near leg', 'far leg', 'near arm', 'far arm', 'head', 'body']))
})

test('of what is written several times the first place has the name', () => {
  const numbers = RECIPES.hop.defaults(SHOT)
  const parts = partsOf({ guide: { recipe: 'hop' }, plan: planWith('hop', numbers, SHOT), frame: 0 })
  // The ground it leaves from, not that it lands on.
  expect(parts.find(part => part.name === 'ground')?.at).toEqual({ x: numbers.x, y: numbers.ground })
})
