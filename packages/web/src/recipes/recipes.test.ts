import { describe, expect, test } from '@jest/globals'
import { RECIPE_NAMES, RECIPES, refuseNumbers, type RecipeShot } from '@unhurried/core/motion'
import fc from 'fast-check'
import { refusedNumber } from './recipe.ts'
import { deskOf } from './table.ts'

const SHOT: RecipeShot = { width: 1280, height: 720, fps: 24, exposure: 2 }

describe.each(RECIPE_NAMES)('%s at the desk', recipe => {
  const desk = deskOf({ recipe })
  const defaults = { ...RECIPES[recipe].defaults(SHOT) } as Record<string, number | string | boolean | null>

  test('has three main numbers, and a field or a handle for every number', () => {
    expect(desk.main).toHaveLength(3)
    expect(desk.main.every(name => desk.fields[name])).toBe(true)
    const handled = Object.values(desk.handles).flatMap(handle => Object.keys(handle.dragged(defaults, { x: 1, y: 1 })))
    const asked = [...Object.keys(desk.fields), ...handled]
    expect(Object.keys(defaults).filter(name => !asked.includes(name))).toEqual([])
    expect(asked.filter(name => !(name in defaults))).toEqual([])
  })

  test('handles lie where their numbers are, and wherever they are dragged over the paper the recipe takes it', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 1280 }), y: fc.integer({ min: 0, max: 720 }) })
    fc.assert(
      fc.property(place, place, (first, second) => {
        let numbers = defaults
        for (const [i, handle] of Object.values(desk.handles).entries()) {
          numbers = { ...numbers, ...(handle.dragged(numbers, i % 2 ? second : first) as typeof numbers) }
          expect(refuseNumbers(recipe, numbers, SHOT)).toBeNull()
          const at = handle.at(numbers)
          expect({ ...numbers, ...handle.dragged(numbers, at) }).toEqual(numbers)
        }
      }),
      { seed: 1964876623, numRuns: 200 },
    )
  })
})

test('what a chain does not go by as it is, is not asked for; all of it is asked for some way', () => {
  const { idle, fields, handles } = deskOf({ recipe: 'chain' })
  const defaults = { ...RECIPES.chain.defaults(SHOT) }
  const idleWhen = (patch: Partial<typeof defaults>) => idle?.({ ...defaults, ...patch } as never) ?? []
  const ways = (['offset', 'spring', 'hang'] as const).flatMap(how =>
    (['swing', 'move', 'mark'] as const).map(drive =>
      idleWhen({ how, drive, follows: drive === 'mark' ? 'hip' : null }),
    ),
  )
  for (const names of ways) expect(names.filter(name => !(name in fields) && !(name in handles))).toEqual([])
  expect(
    [...Object.keys(fields), ...Object.keys(handles)].filter(name => ways.every(way => way.includes(name))),
  ).toEqual([])
  expect(idleWhen({ how: 'spring' })).toEqual(expect.arrayContaining(['lag', 'hangs', 'follows']))
  expect(idleWhen({ drive: 'mark' })).not.toContain('root')
  expect(idleWhen({ drive: 'mark', follows: 'walk:hip' })).toEqual(expect.arrayContaining(['root', 'tip', 'period']))
})

test('what is refused is told in the words and the unit it was asked for in', () => {
  const desk = deskOf({ recipe: 'bounce' })
  const refused = (more: object) => {
    const no = refuseNumbers('bounce', { ...RECIPES.bounce.defaults(SHOT), ...more }, SHOT)
    return no && refusedNumber(desk, no)
  }
  expect(refused({ restitution: 4 })).toBe('gives back: numbers from 0 to 95 %')
  expect(refused({ exposure: 0 })).toBe('each drawing: whole numbers from 1 to 24')
  expect(refused({ bounces: 61 })).toBe('bounces must be a whole number from 0 to 60, or until it rests')
  expect(refused({ y: 700 })).toBe('y must be above the ground by more than the radius')
})
