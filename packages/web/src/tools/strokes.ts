import type { Nib, Sample } from '@unhurried/core/geometry'
import { livePainter, strokeUnderWay } from '../paint/pen.ts'
import { strokesEdit } from '../strokes/edits.ts'
import { NO_LINE } from '../words/refusals.ts'
import type { Hand, PaperPort } from './hand.ts'

function whereOn({ shot, desk }: PaperPort) {
  const { document, take } = shot
  if (!document || !take) return null
  return {
    document,
    take,
    layer: desk.layerId,
    frame: desk.frame,
    hold: desk.holdHere,
    drawing: desk.drawing,
    role: desk.roleOfNew(),
  }
}

/** Adds strokes as one step; answers with their ids, or null when they could not be. */
export function addStrokes(
  paper: PaperPort,
  paths: readonly (readonly Sample[])[],
  kind: 'line' | 'shape',
  words: string,
  nib: Nib = paper.kit.pens[paper.kit.pen].nib,
): readonly string[] | null {
  const { shot, desk, kit } = paper
  const where = whereOn(paper)
  if (!where) return null
  const { width } = kit.pens[kit.pen]
  const edit = strokesEdit(where, paths, { kind, swatch: kit.swatch, width, nib, label: kit.label })
  if (!edit) {
    shot.notice = NO_LINE
    return null
  }
  const label = `${words}${where.drawing ? ` on ${where.drawing.number}` : ' on a new drawing'}`
  if (shot.commit(label, edit.ops, { samples: edit.samples })) return null
  if (edit.frame !== null) desk.frame = edit.frame
  return edit.ids
}

/** How a stroke drawn now looks. */
export const lookOf = ({ kit, sight }: PaperPort, kind: 'line' | 'shape') => ({
  kind,
  width: kit.pens[kit.pen].width,
  nib: kit.pens[kit.pen].nib,
  colour: sight.colours({ swatch: kit.swatch, label: kit.label }),
})

/** Draws a line, or the edge of a painted shape, as steady as `smoothing` (0–1) makes it. */
export function drawingHand(paper: PaperPort, kind: 'line' | 'shape', smoothing: number): Hand {
  const { kit } = paper
  const pen = kit.pens[kit.pen]
  const stroke = strokeUnderWay(paper.matrix, { smoothing, bySpeed: pen.bySpeed, pressure: kit.pressure })
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
