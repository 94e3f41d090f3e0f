import type { BounceNumbers } from '@unhurried/core/motion'
import { rounded, type RecipeDesk } from '../recipe.ts'

const round = rounded

export const bounce: RecipeDesk<BounceNumbers> = {
  words: 'bounce',
  says: 'a thing dropped that bounces until it lies, contacts on exposed frames',
  main: ['restitution', 'forward', 'exposure'],
  fields: {
    restitution: { kind: 'number', words: 'gives back', unit: '%', step: 5, times: 100 },
    forward: { kind: 'number', words: 'forward', unit: 'px/frame', step: 0.5 },
    exposure: { kind: 'number', words: 'each drawing', unit: 'frames', step: 1 },
    bounces: { kind: 'number', words: 'bounces', unit: '', step: 1, open: 'until it rests' },
    squash: { kind: 'number', words: 'squash', unit: '%', step: 5, times: 100 },
    stretch: { kind: 'number', words: 'stretch', unit: '%', step: 5, times: 100 },
    school: {
      kind: 'choice',
      words: 'keeps its',
      options: [
        ['flat', 'area'],
        ['round', 'volume'],
      ],
    },
    contact: {
      kind: 'choice',
      words: 'at a contact',
      options: [
        ['squash', 'squashed at once'],
        ['touch', 'touches first'],
      ],
    },
    radius: { kind: 'number', words: 'radius', unit: 'px', step: 1 },
    gravity: { kind: 'number', words: 'gravity', unit: 'px/f²', step: 0.1 },
    nudge: {
      kind: 'choice',
      words: 'gives way',
      options: [
        ['gravity', 'gravity'],
        ['start', 'the start'],
      ],
    },
    roll: { kind: 'number', words: 'rolls out', unit: 'frames', step: 1 },
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
