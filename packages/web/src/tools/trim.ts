import { Scissors } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { paintTrack } from '../paint/pen.ts'
import { trimmed } from '../strokes/edits.ts'
import type { Hand, PaperPort } from './hand.ts'
import { tool } from './tool.ts'
import { commitCuts, rubStyle, Rubbing, tracked } from './tracked.ts'

export const trim = tool({
  words: 'trim',
  says: 'trim parts of strokes',
  icon: Scissors,
  key: '4',
  settings: Rubbing,
  tip: 'own',
  panel: defineAsyncComponent(() => import('./RubbingPanel.vue')),
  through: true,
  hand: trimmingHand,
})

/** Rubs out only what it passes over. */
function trimmingHand(paper: PaperPort, { width, takes }: Rubbing): Hand {
  const { shot, kit } = paper
  const { track, move } = tracked(paper, now =>
    paintTrack(paper.brush, paper.matrix, paper.density, now, rubStyle(width)),
  )
  return {
    move,
    finish() {
      commitCuts(
        paper,
        'trim',
        kit.changed.map(drawing => trimmed(drawing, shot.book, track, width / 2, takes)),
      )
    },
  }
}
