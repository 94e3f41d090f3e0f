import { Circle } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { roundFigure } from '../../strokes/figures.ts'
import { figureHand } from '../figure.ts'
import { PEN } from '../pen/pen.ts'
import { settingsOf, tool } from '../tool.ts'
import { Round } from './settings.ts'

export const round = tool({
  ...PEN,
  words: 'round',
  says: 'circle or ellipse (Shift: true circle, Alt: from the middle)',
  icon: Circle,
  key: '9',
  settings: Round,
  choices: defineAsyncComponent(() => import('./RoundBeside.vue')),
  hand(paper, settings) {
    return figureHand(paper, {
      of: drag => roundFigure(drag, settings),
      words: 'round',
      kind: settings.painted ? 'shape' : 'line',
      closed: true,
      done({ radius }) {
        const kept = settingsOf('round', Round)
        if (radius !== null) kept.value = { ...kept.value, radius: Math.max(1, Math.round(radius)) }
      },
    })
  },
})
