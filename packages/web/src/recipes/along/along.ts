import type { NumbersOf } from '@unhurried/core/motion'
import { EACH_DRAWING, followedField, placeHandle, px, type RecipeDesk } from '../recipe.ts'

export const along: RecipeDesk<NumbersOf<'along'>> = {
  words: 'followed way',
  says: 'the way of something that was seen, as it is or stronger',
  main: ['follows', 'times', 'exposure'],
  fields: {
    follows: followedField('of', () => true),
    times: { kind: 'number', words: 'every step', unit: '×', step: 0.1, places: 2 },
    exposure: EACH_DRAWING,
    radius: px('radius'),
  },
  middle: 'point',
  handles: { start: placeHandle('where it begins') },
}
