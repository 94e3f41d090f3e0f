import type { Point } from '@unhurried/core/geometry'
import { Type } from 'lucide-vue-next'
import { defineAsyncComponent, nextTick } from 'vue'
import { inked, paintInked } from '../../paint/nibs.ts'
import { toPaper } from '../../paint/view.ts'
import { useLetters } from '../../stores/letters.ts'
import type { Hand, PaperPort } from '../hand.ts'
import { addStrokes, lookOf } from '../strokes.ts'
import { AS_IT_IS, tool } from '../tool.ts'

export const letters = tool({
  words: 'letters',
  says: 'letters from a typeface, as strokes',
  icon: Type,
  key: ';',
  settings: AS_IT_IS,
  tip: null,
  beside: () => `${Math.round(useLetters().settings.sizePx)} px`,
  panel: defineAsyncComponent(() => import('./LettersPanel.vue')),
  panelWidth: 360,
  // The typeface is fetched when letters are taken up, so that it is there when the pen comes down.
  taken: () => void useLetters().shape(),
  hand: letteringHand,
})

/** Lays letters from a typeface where the pointer is let go; they are gathered then, to be moved and scaled on. */
function letteringHand(paper: PaperPort): Hand {
  const { shot, kit } = paper
  const letters = useLetters()
  const { shaped, settings } = letters
  const kind = settings.outlined ? 'line' : 'shape'
  const { width, nib, colour } = lookOf(paper, kind)
  const inks = (shaped?.paths ?? []).map(path => inked(path, kind, width, nib))
  let at: Point | null = null
  return {
    move(raws) {
      const last = raws.at(-1)
      if (!last) return
      at = toPaper(paper.matrix, last)
      const { brush, density: d, matrix: m } = paper
      brush.setTransform(1, 0, 0, 1, 0, 0)
      brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
      brush.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
      brush.transform(1, 0, 0, 1, at.x, at.y)
      for (const ink of inks) paintInked(brush, ink, colour)
    },
    finish() {
      const place = at
      if (!shaped || letters.broken) shot.notice = 'The typeface is still on its way. Try again in a moment.'
      else if (shaped.paths.length === 0)
        shot.notice = 'There are no letters in the hand: write some in the settings of the tool.'
      if (!place || !shaped?.paths.length) return
      const paths = shaped.paths.map(path => path.map(s => ({ ...s, x: s.x + place.x, y: s.y + place.y })))
      const ids = addStrokes(paper, paths, kind, 'letters')
      if (!ids) return
      kit.tool = 'gather'
      // Where a drawing had to be begun, it comes up first.
      void nextTick(() => kit.gather(ids))
    },
  }
}
