import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  bare,
  choice,
  count,
  degrees,
  EACH_DRAWING,
  frames,
  placeHandle,
  px,
  share,
  rounded,
  type RecipeDesk,
  GRAVITY,
} from '../recipe.ts'

export const pendulum: RecipeDesk<NumbersOf<'pendulum'>> = {
  words: 'pendulum',
  says: 'a thing that hangs and swings, with what hangs on it',
  main: ['swing', 'period', 'exposure'],
  fields: {
    swing: degrees('to either side'),
    period: frames('to and fro in'),
    exposure: EACH_DRAWING,
    by: choice('a swing takes', { frames: 'those frames', length: 'as its length asks' }),
    gravity: GRAVITY,
    decay: share('loses each swing'),
    radius: px('radius'),
    links: count('links on it'),
    link: px('length of a link'),
    lag: frames('each later by', 0.5),
    growth: bare('each turns more', 0.05, 'times'),
  },
  middle: 'bob',
  handles: {
    pivot: placeHandle('where it hangs'),
    bob: {
      words: 'what swings',
      goes: 'up and down',
      at: ({ x, y, length }) => ({ x, y: y + length }),
      dragged: ({ y }, to) => ({ length: clamp(rounded(to.y - y), 1, 8000) }),
    },
  },
}
