import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  choice,
  count,
  degrees,
  EACH_DRAWING,
  frames,
  onOff,
  placeHandle,
  px,
  rounded,
  type RecipeDesk,
} from '../recipe.ts'

export const blink: RecipeDesk<NumbersOf<'blink'>> = {
  words: 'blink',
  says: 'lids that close round the ball of the eye, and open; drawings are shared',
  main: ['pattern', 'slower', 'exposure'],
  fields: {
    pattern: choice('it blinks', { once: 'once', double: 'twice', flutter: 'fluttering', sleepy: 'slowly' }),
    slower: choice('slower', { down: 'down than up', up: 'up than down' }),
    exposure: EACH_DRAWING,
    slow: count('drawings that way'),
    quick: count('drawings back'),
    shut: frames('shut'),
    before: frames('open before'),
    after: frames('open after'),
    lashes: onOff('lashes come later'),
    apart: px('from eye to eye'),
    late: onOff('one eye later'),
    tilt: degrees('tilt'),
  },
  handles: {
    eyes: placeHandle('between the eyes'),
    size: {
      words: 'how large an eye is',
      goes: 'everywhere',
      at: ({ x, y, apart, wide, high }) => ({ x: x + apart / 2 + wide, y: y - high }),
      dragged: ({ x, y, apart }, to) => ({
        wide: clamp(rounded(to.x - x - apart / 2), 1, 4000),
        high: clamp(rounded(y - to.y), 1, 4000),
      }),
    },
  },
}
