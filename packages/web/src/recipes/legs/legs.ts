import { bodyWithinReach, type NumbersOf } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  choice,
  count,
  degrees,
  EACH_DRAWING,
  frames,
  groundHandle,
  onOff,
  px,
  share,
  rounded,
  type RecipeDesk,
} from '../recipe.ts'

export const legs: RecipeDesk<NumbersOf<'legs'>> = {
  words: 'other legs',
  says: 'a beetle, a crab, a stool, a worm: one to twenty-four legs, or none',
  main: ['legs', 'order', 'cycle'],
  fields: {
    legs: count('legs'),
    order: choice('they go', {
      wave: 'in a wave',
      pairs: 'pair by pair',
      tripod: 'by threes',
      gallop: 'at a gallop',
      together: 'all at once',
    }),
    cycle: frames('frames of a cycle'),
    exposure: EACH_DRAWING,
    by: choice('gets on by', { legs: 'legs', inch: 'stretching', rock: 'rocking' }),
    kind: choice('legs are', { hinged: 'hinged', stiff: 'stiff', sweeping: 'bent over the body' }),
    stride: px('stride'),
    leg: px('length of a leg'),
    length: px('length of the body'),
    thick: px('thickness of the body'),
    lift: px('lifts its feet by'),
    bob: px('goes up by'),
    duty: share('a foot stands'),
    rock: degrees('rocks by'),
    facing: choice('faces', { right: 'right', left: 'left' }),
    onSpot: onOff('on the spot'),
  },
  middle: 'middle',
  handles: {
    feet: groundHandle('where it goes'),
    high: {
      words: 'how high its body is',
      goes: 'up and down',
      at: ({ x, ground, high }) => ({ x, y: ground - high }),
      dragged: (numbers, to) => {
        const high = numbers.ground - to.y
        return { high: high === numbers.high ? high : bodyWithinReach(numbers, clamp(rounded(high), 0, 8000)) }
      },
    },
  },
}
