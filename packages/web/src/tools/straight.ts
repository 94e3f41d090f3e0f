import { Slash } from 'lucide-vue-next'
import { straightFigure } from '../strokes/figures.ts'
import { figureHand } from './figure.ts'
import { PEN } from './pen/pen.ts'
import { AS_IT_IS, tool } from './tool.ts'

export const straight = tool({
  ...PEN,
  words: 'straight',
  says: 'straight line (Shift: even directions, Alt: from the middle)',
  icon: Slash,
  key: '8',
  settings: AS_IT_IS,
  hand: paper => figureHand(paper, { of: straightFigure, words: 'straight line', kind: 'line', closed: false }),
})
