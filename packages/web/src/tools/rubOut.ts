import { Eraser } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { paintTrack } from '../paint/pen.ts'
import { rubbedBy } from '../strokes/edits.ts'
import type { Hand, PaperPort } from './hand.ts'
import { tool } from './tool.ts'
import { rubStyle, Rubbing, tracked } from './tracked.ts'

/** The part of the track that is looked at again with every move. */
const RECENT = 6
const TRAIL = 12

export const rubOut = tool({
  words: 'rub out',
  says: 'rub out whole strokes',
  icon: Eraser,
  key: '3',
  settings: Rubbing,
  tip: 'own',
  panel: defineAsyncComponent(() => import('./RubbingPanel.vue')),
  through: true,
  hand: rubbingHand,
})

/** Rubs whole strokes out, in every drawing that changes go through. */
function rubbingHand(paper: PaperPort, { width, takes }: Rubbing): Hand {
  const { shot, desk, kit } = paper
  const { track, move } = tracked(paper, now => {
    paintTrack(paper.brush, paper.matrix, paper.density, now.slice(-TRAIL), rubStyle(width))
    const here = desk.drawing
    const touched = here ? rubbedBy(here, shot.book, now.slice(-RECENT), width / 2, takes) : []
    const lifted = paper.lifted()
    if (touched.some(id => !lifted.has(id))) paper.lift(new Set([...lifted, ...touched]))
  })
  return {
    move,
    finish() {
      const ops = kit.changed.flatMap(drawing => {
        const ids = rubbedBy(drawing, shot.book, track, width / 2, takes)
        return ids.length ? [{ kind: 'elements.remove' as const, drawing: drawing.id, ids }] : []
      })
      if (ops.length) shot.commit(`rub out ${kit.changedWords}`, ops)
    },
  }
}
