import { distance } from '@unhurried/core/geometry'
import type { NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  bare,
  choice,
  count,
  degrees,
  EACH_DRAWING,
  followedField,
  frames,
  onOff,
  placeHandle,
  px,
  share,
  rounded,
  type RecipeDesk,
  GRAVITY,
} from '../recipe.ts'

const TENTH = 10
const THOUSANDTH = 1000
/** half a turn, in whole thousandths */
const MOST_RAD = 3.141

/** What only one way of following goes by. */
const BY: Record<NumbersOf<'chain'>['how'], readonly string[]> = {
  offset: ['turn', 'lag', 'growth', 'relative'],
  spring: ['own', 'damping', 'weight', 'air', 'gravity'],
  hang: ['hangs', 'stretch'],
}

export const chain: RecipeDesk<NumbersOf<'chain'>> = {
  words: 'chain',
  says: 'a tail, strap, scarf or lock of hair that follows what it hangs on',
  main: ['how', 'drive', 'period'],
  fields: {
    how: choice('follows', { offset: 'some frames later', spring: 'by springs', hang: 'left hanging' }),
    drive: choice('its root', { swing: 'goes to and fro', move: 'goes once', mark: 'follows something' }),
    follows: followedField('that is', ({ drive }) => drive === 'mark'),
    period: frames('frames of that'),
    turn: degrees('it turns by'),
    up: px('it rises by'),
    after: frames('afterwards'),
    exposure: EACH_DRAWING,
    links: count('links'),
    link: px('each is long'),
    rest: degrees('at rest'),
    lag: frames('each later by', 0.5),
    growth: bare('each turns more', 0.05, 'times'),
    relative: onOff('turns add up'),
    own: frames('a spring’s swing'),
    damping: bare('damping', 0.05),
    weight: bare('weight', 0.1),
    air: bare('air', 0.01),
    gravity: GRAVITY,
    hangs: count('drawings left behind'),
    stretch: share('stretches by'),
  },
  idle: ({ how, drive, follows }) => [
    ...Object.entries(BY).flatMap(([way, fields]) => (way === how ? [] : fields)),
    ...(drive === 'swing' ? ['after'] : []),
    ...(drive === 'mark' ? ['period', 'up'] : ['follows']),
    // It hangs where what it follows is: its own place is no longer asked.
    ...(drive === 'mark' && follows !== null ? ['root', 'tip', 'across'] : []),
  ],
  handles: {
    root: placeHandle('its root'),
    tip: {
      words: 'its tip at rest',
      goes: 'everywhere',
      at: ({ x, y, links, link, rest }) => ({
        x: x + links * link * Math.sin(rest),
        y: y + links * link * Math.cos(rest),
      }),
      dragged: ({ x, y, links }, to) => ({
        link: clamp(rounded((distance({ x, y }, to) / links) * TENTH) / TENTH, 1, 2000),
        rest: clamp(rounded(Math.atan2(to.x - x, to.y - y) * THOUSANDTH) / THOUSANDTH, -MOST_RAD, MOST_RAD),
      }),
    },
    across: {
      words: 'how far its root goes',
      goes: 'to the sides',
      at: ({ x, y, across }) => ({ x: x + across, y }),
      dragged: ({ x }, to) => ({ across: clamp(rounded(to.x - x), -4000, 4000) }),
    },
  },
}
