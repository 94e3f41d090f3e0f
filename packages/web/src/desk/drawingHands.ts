import type { Nib, Point, Sample } from '@unhurried/core/geometry'
import { nextTick } from 'vue'
import { useLetters } from '../stores/letters.ts'
import { NO_LINE } from '../words/refusals.ts'
import { strokesEdit } from './edits.ts'
import { roundFigure, straightFigure, type Figure } from './figureHand.ts'
import type { Hand, PaperPort } from './hand.ts'
import { inked, paintInked } from './nibs.ts'
import { livePainter, strokeUnderWay } from './pen.ts'
import { toPaper } from './view.ts'

function whereOn({ shot, desk }: PaperPort) {
  const { document, take } = shot
  if (!document || !take) return null
  return { document, take, layer: desk.layerId, frame: desk.frame, hold: desk.holdHere, drawing: desk.drawing }
}

/** Adds strokes as one step; answers with their ids, or null when they could not be. */
function addStrokes(
  paper: PaperPort,
  paths: readonly (readonly Sample[])[],
  kind: 'line' | 'shape',
  words: string,
  nib: Nib = paper.desk.pens[paper.desk.pen].nib,
): readonly string[] | null {
  const { shot, desk } = paper
  const where = whereOn(paper)
  if (!where) return null
  const { width } = desk.pens[desk.pen]
  const edit = strokesEdit(where, paths, { kind, swatch: desk.swatch, width, nib, label: desk.label })
  if (!edit) {
    shot.notice = NO_LINE
    return null
  }
  const label = `${words}${where.drawing ? ` on ${where.drawing.number}` : ' on a new drawing'}`
  if (shot.commit(label, edit.ops, { samples: edit.samples })) return null
  if (edit.frame !== null) desk.frame = edit.frame
  return edit.ids
}

const lookOf = ({ desk }: PaperPort, kind: 'line' | 'shape') => ({
  kind,
  width: desk.pens[desk.pen].width,
  nib: desk.pens[desk.pen].nib,
  colour: desk.colours({ swatch: desk.swatch, label: desk.label }),
})

/** Draws a line, or the edge of a painted shape. */
export function drawingHand(paper: PaperPort, kind: 'line' | 'shape'): Hand {
  const { desk } = paper
  const pen = desk.pens[desk.pen]
  const smoothing = kind === 'shape' ? desk.shapeSmoothing : pen.smoothing
  const stroke = strokeUnderWay(paper.matrix, { smoothing, bySpeed: pen.bySpeed, pressure: desk.pressure })
  const paint = livePainter(paper.matrix, paper.density, lookOf(paper, kind))
  return {
    move(raws) {
      stroke.add(raws)
      paint(paper.brush, stroke.samples)
    },
    finish() {
      const samples = stroke.finish()
      if (samples.length > (kind === 'shape' ? 2 : 0)) addStrokes(paper, [samples], kind, kind)
    },
  }
}

/** A round closes on itself: drawn-out ends would leave a gap. */
function nibOf({ desk }: PaperPort, which: 'straight' | 'round'): Nib {
  const { nib } = desk.pens[desk.pen]
  return which === 'round' ? { ...nib, ends: 'round' } : nib
}

/** Draws a straight line or a round. */
export function figureHand(paper: PaperPort, which: 'straight' | 'round'): Hand {
  const { desk } = paper
  const kind = which === 'round' && desk.round.painted ? 'shape' : 'line'
  let from: Point | null = null
  let figure: Figure | null = null
  return {
    move(raws, keys) {
      const last = raws.at(-1)
      if (!last) return
      const to = toPaper(paper.matrix, last)
      from ??= to
      const drag = { from, to, even: keys.shift, fromMiddle: keys.alt }
      figure = which === 'straight' ? straightFigure(drag) : roundFigure(drag, desk.round)
      const look = { ...lookOf(paper, kind), nib: nibOf(paper, which) }
      livePainter(paper.matrix, paper.density, look)(paper.brush, figure?.samples ?? [])
      paper.say(figure?.said ?? null)
    },
    finish() {
      if (!figure || figure.samples.length < 3) return
      const words = which === 'straight' ? 'straight line' : 'round'
      addStrokes(paper, [figure.samples], kind, words, nibOf(paper, which))
      if (figure.radius !== null) desk.round = { ...desk.round, radius: Math.max(1, Math.round(figure.radius)) }
    },
  }
}

/** Lays letters from a typeface where the pointer is let go; they are gathered then, to be moved and scaled on. */
export function letteringHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
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
      desk.tool = 'gather'
      // Where a drawing had to be begun, it comes up first.
      void nextTick(() => desk.gather(ids))
    },
  }
}
