import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import { bare, count, EACH_DRAWING, placeHandle, px, rounded, type RecipeDesk } from '../recipe.ts'

export const flame: RecipeDesk<NumbersOf<'flame'>> = {
  words: 'flame',
  says: 'a foot that stands, lobes that travel up, tips that break off',
  main: ['drawings', 'sway', 'exposure'],
  fields: {
    drawings: count('drawings'),
    sway: px('sway'),
    exposure: EACH_DRAWING,
    waves: bare('waves', 0.25),
    width: px('width'),
    tips: count('tips that come off'),
  },
  handles: {
    foot: placeHandle('its foot'),
    tip: {
      words: 'its tip',
      goes: 'up and down',
      at: ({ x, y, height }) => ({ x, y: y - height }),
      dragged: ({ y }, to) => ({ height: clamp(rounded(y - to.y), 2, 8000) }),
    },
  },
}
