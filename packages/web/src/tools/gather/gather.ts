import { kindOf, type Drawing } from '@unhurried/core/document'
import { distance, type Point } from '@unhurried/core/geometry'
import { Lasso } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { paintTrack } from '../../paint/pen.ts'
import { cutByLoop, touchedBy } from '../../strokes/edits.ts'
import type { Hand, Modifiers, PaperPort } from '../hand.ts'
import { tool } from '../tool.ts'
import { commitCuts, tracked } from '../tracked.ts'
import { Gathering } from './settings.ts'

const LOOP_COLOUR = '#3c6a55'

export const gather = tool({
  words: 'gather',
  says: 'gather strokes to move them',
  icon: Lasso,
  key: '5',
  settings: Gathering,
  tip: null,
  beside: ({ by }) => by,
  panel: defineAsyncComponent(() => import('./GatherPanel.vue')),
  through: true,
  hand: gatheringHand,
})

const boxAs = (a: Point, b: Point): Point[] => [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }]

/** Gathers strokes with a loop, a box or a tap; with Shift added to what is gathered, with Alt taken from it. */
function gatheringHand(paper: PaperPort, { by, parts }: Gathering): Hand {
  const { shot, kit } = paper
  let keys: Modifiers = { shift: false, alt: false }
  const loopOf = (track: readonly Point[]) =>
    by === 'box' && track[0] ? boxAs(track[0], track.at(-1) as Point) : track
  const style = { colour: LOOP_COLOUR, width: paper.px(1.4), dash: [paper.px(5), paper.px(4)], close: true }
  const { track, move } = tracked(paper, now =>
    paintTrack(paper.brush, paper.matrix, paper.density, loopOf(now), style),
  )

  function gatheredBy(drawing: Drawing, isTap: boolean): string[] {
    if (isTap) return touchedBy(drawing, shot.book, track.slice(0, 1), paper.px(5)).slice(-1)
    const loop = loopOf(track)
    return Object.values(drawing.elements)
      .filter(element => {
        const placed = shot.book.placed(element)
        return placed && kindOf(element).gathered(placed, loop)
      })
      .map(element => element.id)
  }

  return {
    move(raws, now) {
      keys = now
      move(raws)
    },
    finish() {
      const first = track[0]
      if (!first) return
      const isTap = track.every(p => distance(first, p) < paper.px(4))
      let ids: string[]
      if (parts && !isTap && !keys.alt) {
        const cuts = kit.changed.map(drawing => cutByLoop(drawing, shot.book, loopOf(track)))
        if (!commitCuts(paper, 'cut', cuts)) return
        ids = cuts.flatMap(cut => cut.inside)
      } else ids = kit.changed.flatMap(drawing => gatheredBy(drawing, isTap))
      const before = keys.shift || keys.alt ? kit.gathered : new Set<string>()
      const taken = new Set(ids)
      kit.gather(keys.alt ? [...before].filter(id => !taken.has(id)) : [...before, ...ids])
    },
  }
}
