import { PaintBucket } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { paintedPieces, type Point } from '@unhurried/core/geometry'
import type { Region } from '@unhurried/core/raster'
import { toPaper } from '../../paint/view.ts'
import { counted } from '@unhurried/core/time'
import type { Hand, Hover, PaperPort } from '../hand.ts'
import { addStrokes } from '../strokes.ts'
import { tool } from '../tool.ts'
import { regionAt } from './regions.ts'
import { paintRegion } from './showing.ts'
import { Filling } from './settings.ts'

export const fill = tool({
  words: 'fill',
  says: 'fill what lines bound, under them to their middle',
  icon: PaintBucket,
  key: 'shift+c',
  settings: Filling,
  tip: null,
  beside: ({ gapPx }: Filling) => `gaps ${gapPx} px`,
  panel: defineAsyncComponent(() => import('./FillPanel.vue')),
  hand: fillingHand,
  hover: hovering,
})

/** Asks for one place at a time; of those that come meanwhile only the last. */
function asking(paper: PaperPort, gapPx: number, got: (region: Region | null, at: Point) => void) {
  let next: Point | null = null
  let busy = false
  async function ask(): Promise<void> {
    if (busy) return
    busy = true
    while (next) {
      const at = next
      next = null
      const region = await regionAt(paper, at, gapPx)
      got(region, at)
    }
    busy = false
  }
  return (at: Point | null) => {
    next = at
    return ask()
  }
}

/** What would be painted is shown while the hand is over it, and where it would leak. */
function hovering(paper: PaperPort, { gapPx }: Filling): Hover {
  let over = true
  const ask = asking(paper, gapPx, region => {
    if (over) paper.show(region && (brush => paintRegion(paper, brush, region)))
  })
  return {
    at(place) {
      over = place !== null
      if (over) void ask(place)
      else paper.show(null)
    },
  }
}

/** The region under the pointer when it lets go; without a pointer that hovers, pressing shows it first. */
function fillingHand(paper: PaperPort, { gapPx }: Filling): Hand {
  let at: Point | null = null
  const ask = asking(paper, gapPx, region => {
    if (at) paper.show(region && (brush => paintRegion(paper, brush, region)))
  })
  return {
    move(raws) {
      const last = raws[raws.length - 1]
      if (!last) return
      at = toPaper(paper.matrix, last)
      void ask(at)
    },
    finish() {
      const place = at
      at = null
      if (place) void paint(paper, place, gapPx)
    },
  }
}

async function paint(paper: PaperPort, at: Point, gapPx: number): Promise<void> {
  const { shot, desk } = paper
  const { drawing, frame, layerId } = desk
  const region = await regionAt(paper, at, gapPx)
  // Meanwhile another drawing may have come up.
  if (!region || desk.drawing !== drawing || desk.frame !== frame || desk.layerId !== layerId) return
  if (region.leak) {
    shot.notice = `It leaks out through a gap of ${counted(region.leak.gapPx, 'pixel')}: close the line there, or let gaps of up to ${region.leak.gapPx} px count as closed.`
    return
  }
  addStrokes(paper, paintedPieces(region.outlines), 'shape', 'fill')
}
