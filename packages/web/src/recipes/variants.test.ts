import { describe, expect, test } from '@jest/globals'
import {
  applyBatch,
  FIRST,
  freshDocument,
  freshGuide,
  get,
  recipeShot,
  type GuideNumber,
} from '@unhurried/core/document'
import { RECIPE_NAMES, refuseNumbers, type RecipeName } from '@unhurried/core/motion'
import { variantsOf } from './variants.ts'

const shot = freshDocument({ width: 1280, height: 720, fps: 24, paper: '#fdfaf3' }, 48)
function guideOf(recipe: RecipeName, numbers: Readonly<Record<string, GuideNumber>> = {}) {
  const done = applyBatch(shot, freshGuide(shot, recipe, { take: FIRST.take, layer: FIRST.drawn, from: 0 }, 'g'))
  if (!done.ok) throw new Error(done.refusal.what)
  const guide = get(done.document.guides, 'g')
  return { ...guide, numbers: { ...guide.numbers, ...numbers } }
}

describe('a movement beside others', () => {
  test('its main number less and more, and another exposure', () => {
    const variants = variantsOf(shot, guideOf('bounce', { restitution: 0.5, exposure: 2 }))
    expect(variants.map(({ words, numbers }) => [words, numbers.restitution, numbers.exposure])).toEqual([
      ['35%', 0.35, 2],
      ['70%', 0.7, 2],
      ['on ones', 0.5, 1],
    ])
  })

  test('what the recipe does not take is left out', () => {
    const variants = variantsOf(shot, guideOf('bounce', { restitution: 0.9, exposure: 1 }))
    expect(variants.map(variant => variant.words)).toEqual(['65%', 'on twos'])
  })

  test.each(RECIPE_NAMES)('%s has one at least, and all can be taken', recipe => {
    const variants = variantsOf(shot, guideOf(recipe))
    expect(variants.length).toBeGreaterThan(0)
    for (const { numbers } of variants) expect(refuseNumbers(recipe, numbers, recipeShot(shot))).toBeNull()
  })
})
