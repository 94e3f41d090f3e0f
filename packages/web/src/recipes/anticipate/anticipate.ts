import type { Point } from '@unhurried/core/geometry'
import type { NumbersOf } from '@unhurried/core/motion'
import { bare, choice, count, EACH_DRAWING, frames, px, share, rounded, type RecipeDesk } from '../recipe.ts'

const round = rounded
/** Two ends are never one place. */
const apart = (from: Point, to: Point): Point => (to.x === from.x && to.y === from.y ? { x: to.x + 1, y: to.y } : to)
const whole = ({ x, y }: Point): Point => ({ x: round(x), y: round(y) })

export const anticipate: RecipeDesk<NumbersOf<'anticipate'>> = {
  words: 'move',
  says: 'back a little, the move itself, past its end, and settled',
  main: ['frames', 'back', 'past'],
  fields: {
    frames: frames('the move'),
    back: share('back first'),
    past: share('past its end'),
    exposure: EACH_DRAWING,
    ease: choice('slow', { both: 'at both ends', in: 'at its beginning', out: 'at its end', even: 'nowhere' }),
    backTime: share('time to go back'),
    decay: bare('settles faster', 0.05),
    swing: frames('a swing about the end'),
    parts: count('parts'),
    offset: frames('each later by'),
    radius: px('radius'),
    stretch: share('stretch'),
  },
  middle: 'head',
  handles: {
    start: {
      words: 'where it starts',
      goes: 'everywhere',
      at: ({ x, y }) => ({ x, y }),
      dragged: ({ toX, toY }, to) => apart({ x: toX, y: toY }, whole(to)),
    },
    end: {
      words: 'where it ends',
      goes: 'everywhere',
      at: ({ toX, toY }) => ({ x: toX, y: toY }),
      dragged: (start, to) => {
        const { x, y } = apart(start, whole(to))
        return { toX: x, toY: y }
      },
    },
    bow: {
      words: 'how far its way bows',
      goes: 'up and down',
      at: ({ x, y, toX, toY, bow }) => ({ x: (x + toX) / 2, y: (y + toY) / 2 - bow }),
      dragged: ({ y, toY }, to) => ({ bow: round((y + toY) / 2 - to.y) }),
    },
  },
}
