import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import { bare, count, placeHandle, px, rounded, type RecipeDesk } from '../recipe.ts'

export const boil: RecipeDesk<NumbersOf<'boil'>> = {
  words: 'boil',
  says: 'the same thing traced a few times and shown in an order that never repeats at once',
  main: ['tracings', 'hold', 'shiver'],
  fields: {
    tracings: count('tracings'),
    hold: bare('each held', 0.05, 's'),
    shiver: px('shivers by'),
    times: count('showings'),
    seed: count('chance'),
  },
  handles: {
    middle: placeHandle('its middle'),
    corner: {
      words: 'how large it is',
      goes: 'everywhere',
      at: ({ x, y, width, height }) => ({ x: x + width / 2, y: y + height / 2 }),
      dragged: ({ x, y }, to) => ({
        width: clamp(rounded(2 * (to.x - x)), 2, 8192),
        height: clamp(rounded(2 * (to.y - y)), 2, 8192),
      }),
    },
  },
}
