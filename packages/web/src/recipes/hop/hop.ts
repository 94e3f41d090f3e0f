import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  choice,
  count,
  EACH_DRAWING,
  frames,
  groundHandle,
  onOff,
  px,
  share,
  rounded,
  type RecipeDesk,
  GRAVITY,
} from '../recipe.ts'

const round = rounded

export const hop: RecipeDesk<NumbersOf<'hop'>> = {
  words: 'hop',
  says: 'crouched, leaving, over the top, in contact, pressed and settled',
  main: ['gravity', 'crouch', 'exposure'],
  fields: {
    gravity: GRAVITY,
    crouch: share('crouches by'),
    exposure: EACH_DRAWING,
    height: px('its height'),
    width: px('its width'),
    stretch: share('stretch'),
    hang: count('drawings more at the top'),
    crouchFrames: frames('to crouch'),
    pushFrames: frames('to leave'),
    cushion: share('pressed by'),
    cushionFrames: frames('to be pressed'),
    settleFrames: frames('to settle'),
    feet: choice('lands on', { same: 'the same foot', changed: 'the other foot' }),
    spread: px('feet apart'),
    pinned: onOff('drawn on the spot'),
  },
  middle: 'centre',
  handles: {
    feet: groundHandle('where it stands'),
    top: {
      words: 'how high it gets',
      goes: 'up and down',
      at: ({ x, forward, ground, rise }) => ({ x: x + forward / 2, y: ground - rise }),
      // The ground it lands on stays where it is.
      dragged: ({ ground, rise, drop }, to) => {
        const next = clamp(round(ground - to.y), 1, 20_000)
        return { rise: next, drop: clamp(drop + next - rise, 0, 20_000) }
      },
    },
    landing: {
      words: 'where it lands',
      goes: 'everywhere',
      at: ({ x, forward, ground, rise, drop }) => ({ x: x + forward, y: ground - rise + drop }),
      dragged: ({ x, ground, rise }, to) => ({
        forward: round(to.x - x),
        drop: clamp(round(to.y - ground + rise), 0, 20_000),
      }),
    },
  },
}
