import type { Nib, Point } from '@unhurried/core/geometry'
import { livePainter } from '../paint/pen.ts'
import { toPaper } from '../paint/view.ts'
import type { Drag, Figure } from '../strokes/figures.ts'
import type { Hand, PaperPort } from './hand.ts'
import { addStrokes, lookOf } from './strokes.ts'

interface FigureTool {
  /** the figure of a drag; null while it is too small to be one */
  of(drag: Drag): Figure | null
  /** what it is called in the history */
  readonly words: string
  readonly kind: 'line' | 'shape'
  /** a figure that closes on itself: drawn-out ends would leave a gap */
  readonly closed: boolean
  done?(figure: Figure): void
}

/** Draws a figure from where the pointer comes down to where it is. */
export function figureHand(paper: PaperPort, tool: FigureTool): Hand {
  const own = paper.kit.pens[paper.kit.pen].nib
  const nib: Nib = tool.closed ? { ...own, ends: 'round' } : own
  let from: Point | null = null
  let figure: Figure | null = null
  return {
    move(raws, keys) {
      const last = raws.at(-1)
      if (!last) return
      const to = toPaper(paper.matrix, last)
      from ??= to
      figure = tool.of({ from, to, even: keys.shift, fromMiddle: keys.alt })
      const look = { ...lookOf(paper, tool.kind), nib }
      livePainter(paper.matrix, paper.density, look)(paper.brush, figure?.samples ?? [])
      paper.say(figure?.said ?? null)
    },
    finish() {
      if (!figure || figure.samples.length < 3) return
      addStrokes(paper, [figure.samples], tool.kind, tool.words, nib)
      tool.done?.(figure)
    },
  }
}
