import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import { count, EACH_DRAWING, groundHandle, share, rounded, type RecipeDesk } from '../recipe.ts'

const half = (px: number): number => clamp(rounded(px), 2, 4000)

export const soft: RecipeDesk<NumbersOf<'soft'>> = {
  words: 'soft on soft',
  says: 'a soft body that rides on another: it arches, hangs, and comes after',
  main: ['drawings', 'squash', 'exposure'],
  fields: {
    drawings: count('drawings'),
    squash: share('squash'),
    exposure: EACH_DRAWING,
    stretch: share('stretch'),
    lag: count('drawings later'),
    arch: share('arches'),
    hangs: count('drawings left hanging'),
    follows: share('long as it comes'),
  },
  handles: {
    place: groundHandle('where they stand'),
    lower: {
      words: 'how large the lower one is',
      goes: 'everywhere',
      at: ({ x, ground, lowWide, lowHigh }) => ({ x: x + lowWide, y: ground - lowHigh }),
      dragged: ({ x, ground }, to) => ({ lowWide: half(to.x - x), lowHigh: half(ground - to.y) }),
    },
    upper: {
      words: 'how large the upper one is',
      goes: 'everywhere',
      at: ({ x, ground, lowHigh, wide, high }) => ({ x: x + wide, y: ground - 2 * lowHigh - high }),
      dragged: ({ x, ground, lowHigh }, to) => ({ wide: half(to.x - x), high: half(ground - 2 * lowHigh - to.y) }),
    },
  },
}
