import { RectangleHorizontal } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { boxFigure } from '../../strokes/figures.ts'
import { figureHand } from '../figure.ts'
import { PEN } from '../pen/pen.ts'
import { tool } from '../tool.ts'
import { Box } from './settings.ts'

export const box = tool({
  ...PEN,
  words: 'box',
  says: 'rectangle (Shift: square, Alt: from the middle)',
  icon: RectangleHorizontal,
  key: 'shift+v',
  settings: Box,
  choices: defineAsyncComponent(() => import('./BoxBeside.vue')),
  hand: (paper, { painted }) =>
    figureHand(paper, { of: boxFigure, words: 'rectangle', kind: painted ? 'shape' : 'line', closed: true }),
})
