import { closing, type NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import { bare, choice, EACH_DRAWING, frames, onOff, placeHandle, px, rounded, type RecipeDesk } from '../recipe.ts'

export const scroll: RecipeDesk<NumbersOf<'scroll'>> = {
  words: 'scroll',
  says: 'a layer that passes: drawn once, and the layer goes',
  main: ['speed', 'share', 'closes'],
  fields: {
    speed: { kind: 'number', words: 'px a frame', unit: 'px', step: 0.5, places: 2 },
    share: bare('share of it', 0.1, 'times'),
    closes: { kind: 'number', words: 'closes after', unit: 'px', step: 10, open: 'no end' },
    exposure: { ...EACH_DRAWING, words: 'each place' },
    whole: onOff('whole pixels'),
    fall: { kind: 'number', words: 'px down a frame', unit: 'px', step: 0.5, places: 2 },
    height: px('height'),
    frames: frames('lasts, if it does not close'),
    judder: choice('may judder under', { '5': '5 s a picture', '7': '7 s a picture' }),
  },
  handles: {
    corner: placeHandle('its left end, below'),
    right: {
      words: 'where it closes',
      goes: 'to the sides',
      at: ({ x, y, height, closes }) => ({ x: x + (closes ?? 0), y: y - height }),
      dragged: ({ x, closes }, to) => (closes === null ? {} : { closes: clamp(rounded(to.x - x), 64, 100_000) }),
    },
  },
  ways: { 'strip that closes in whole steps': closing },
}
