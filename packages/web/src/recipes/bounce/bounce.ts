import type { BounceNumbers } from '@unhurried/core/motion'
import { bare, choice, EACH_DRAWING, frames, GRAVITY, px, rounded, share, type RecipeDesk } from '../recipe.ts'

const round = rounded

export const bounce: RecipeDesk<BounceNumbers> = {
  words: 'bounce',
  says: 'a thing dropped that bounces until it lies, contacts on exposed frames',
  main: ['restitution', 'forward', 'exposure'],
  fields: {
    restitution: share('gives back'),
    forward: bare('forward', 0.5, 'px/frame'),
    exposure: EACH_DRAWING,
    bounces: { kind: 'number', words: 'bounces', unit: '', step: 1, open: 'until it rests' },
    squash: share('squash'),
    stretch: share('stretch'),
    school: choice('keeps its', { flat: 'area', round: 'volume' }),
    contact: choice('at a contact', { squash: 'squashed at once', touch: 'touches first' }),
    radius: px('radius'),
    gravity: GRAVITY,
    nudge: choice('gives way', { gravity: 'gravity', start: 'the start' }),
    roll: frames('rolls out'),
  },
  middle: 'centre',
  handles: {
    start: {
      words: 'where it starts',
      goes: 'everywhere',
      at: ({ x, y }) => ({ x, y }),
      // Above the ground it stays, whatever the hand does.
      dragged: ({ ground, radius }, to) => ({ x: round(to.x), y: Math.min(round(to.y), ground - radius - 1) }),
    },
    ground: {
      words: 'the ground',
      goes: 'up and down',
      at: ({ x, ground }) => ({ x, y: ground }),
      dragged: ({ y, radius }, to) => ({ ground: Math.max(round(to.y), y + radius + 1) }),
    },
  },
}
