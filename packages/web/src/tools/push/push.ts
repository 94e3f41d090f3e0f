import { strokesOn } from '@unhurried/core/document'
import { pushed, type Point, type Sample } from '@unhurried/core/geometry'
import { Waves } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { inked, paintInked } from '../../paint/nibs.ts'
import { paintTrack } from '../../paint/pen.ts'
import { toPaper } from '../../paint/view.ts'
import { reshapeEdit } from '../../strokes/edits.ts'
import type { Hand, PaperPort } from '../hand.ts'
import { tool } from '../tool.ts'
import { Pushing } from './settings.ts'

export const push = tool({
  words: 'push',
  says: 'push lines along, their weight kept',
  icon: Waves,
  key: '`',
  settings: Pushing,
  tip: 'own',
  panel: defineAsyncComponent(() => import('./PushPanel.vue')),
  hand: pushingHand,
})

/** Pushes lines along under a round tip; their weight stays. Pushes only what is gathered, when something is. */
function pushingHand(paper: PaperPort, { width }: Pushing): Hand {
  const { shot, desk, kit, sight } = paper
  const radius = width / 2
  const now = new Map<string, readonly Sample[]>()
  const { drawing } = desk
  const strokes = new Map((drawing ? strokesOn(drawing) : []).map(stroke => [stroke.id, stroke]))
  for (const element of strokes.values()) {
    const placed = shot.book.placed(element)
    if (placed && (kit.gathered.size === 0 || kit.gathered.has(element.id))) now.set(element.id, placed.samples)
  }
  const moved = new Set<string>()
  let last: Point | null = null

  function paint(at: Point): void {
    const { brush, matrix: m, density: d } = paper
    paintTrack(brush, m, d, [at, at], { colour: 'rgba(60, 106, 85, 0.14)', width: radius * 2, dash: [], close: false })
    brush.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
    for (const id of moved) {
      const element = strokes.get(id)
      const placed = element && shot.book.placed(element)
      if (!element || !placed) continue
      const ink = inked(now.get(id) ?? [], placed.kind, placed.width, placed.nib)
      paintInked(brush, ink, sight.colours(element))
    }
  }
  return {
    move(raws) {
      for (const raw of raws) {
        const at = toPaper(paper.matrix, raw)
        const by = { x: at.x - (last?.x ?? at.x), y: at.y - (last?.y ?? at.y) }
        for (const [id, samples] of last ? now : []) {
          const next = pushed(samples, last as Point, by, radius)
          if (next === samples) continue
          now.set(id, next)
          moved.add(id)
        }
        last = at
      }
      if (moved.size > paper.lifted().size) paper.lift(new Set(moved))
      if (last) paint(last)
    },
    finish() {
      if (!drawing || moved.size === 0) return
      const edit = reshapeEdit(drawing, shot.book, moved, (samples, id) => now.get(id) ?? samples)
      shot.commit(`push on ${drawing.number}`, edit.ops, { samples: edit.samples })
      if (kit.gathered.size) kit.gather([...kit.gathered].map(id => edit.renamed.get(id) ?? id))
    },
  }
}
