import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  bare,
  degrees,
  EACH_DRAWING,
  frames,
  onOff,
  placeHandle,
  px,
  share,
  rounded,
  type RecipeDesk,
} from '../recipe.ts'

const half = (px: number): number => clamp(rounded(px), 2, 4000)

export const turn: RecipeDesk<NumbersOf<'turn'>> = {
  words: 'turn of a head',
  says: 'a head that turns with a nod: middle line, eye line, nose and ears',
  main: ['from', 'to', 'frames'],
  fields: {
    from: degrees('looks from'),
    to: degrees('looks to'),
    frames: frames('the turn'),
    exposure: EACH_DRAWING,
    dip: degrees('nods by'),
    favours: share('the middle lies at'),
    lead: frames('eyes come first by'),
    blinks: onOff('blinks on the way'),
    tiltFrom: degrees('tilt at first'),
    tiltTo: degrees('tilt at the end'),
    deep: px('half as deep as'),
    eyeHigh: bare('eyes over the middle', 0.05),
    eyeWide: bare('eyes to the sides', 0.05),
  },
  handles: {
    middle: placeHandle('its middle'),
    size: {
      words: 'how large it is',
      goes: 'everywhere',
      at: ({ x, y, wide, high }) => ({ x: x + wide, y: y - high }),
      dragged: ({ x, y }, to) => ({ wide: half(to.x - x), high: half(y - to.y) }),
    },
  },
}
