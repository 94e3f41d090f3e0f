import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import { count, EACH_DRAWING, placeHandle, px, rounded, type RecipeDesk } from '../recipe.ts'

/** So many wisps at a time can be told apart. */
const MOST = 60

export const wisps: RecipeDesk<NumbersOf<'wisps'>> = {
  words: 'wisps',
  says: 'steam, smoke or bubbles that rise for ever; the last drawing leads to the first',
  main: ['drawings', 'rise', 'exposure'],
  fields: {
    drawings: count('drawings'),
    rise: px('rise a drawing'),
    exposure: EACH_DRAWING,
    pitch: px('wisp to wisp'),
    thick: px('thick'),
    sway: px('sway'),
    seed: count('chance'),
  },
  handles: {
    mouth: placeHandle('where they rise'),
    top: {
      words: 'where they are gone',
      goes: 'up and down',
      at: ({ x, y, height }) => ({ x, y: y - height }),
      dragged: ({ y, pitch }, to) => ({ height: clamp(rounded(y - to.y), 4, Math.min(16_000, MOST * pitch)) }),
    },
  },
}
