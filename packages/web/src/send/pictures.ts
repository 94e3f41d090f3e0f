import {
  carriedOn,
  columnOf,
  isBlank,
  isDelivered,
  laidOn,
  layersInOrder,
  type Drawing,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import { drawingAt, type LoopRange } from '@unhurried/core/time'
import { coloursOf } from '../paint/colours.ts'
import { layDown } from '../paint/laid.ts'
import type { Matrix } from '@unhurried/core/geometry'
import type { Brush } from '../paint/nibs.ts'
import { paintDrawing } from '../paint/paint.ts'
import type { StrokeBook } from '../paint/strokes.ts'

/** One picture of the film: the frame it starts on and how many frames it stays. */
export interface Picture {
  readonly frame: number
  readonly frames: number
  /** nothing animated is to be seen */
  readonly blank: boolean
}

/** What is sent off of a frame, lowest first: references and guides stay on the desk. */
function drawingsAt(document: ShotDocument, take: Take, frame: number): Drawing[] {
  return layersInOrder(document).flatMap(layer => {
    if (!isDelivered(layer)) return []
    const id = drawingAt(columnOf(take, layer.id), frame)
    const drawing = id === null ? undefined : document.drawings[id]
    return drawing ? [drawing] : []
  })
}

/** A stretch of a take as pictures: neighbouring frames that show the same drawings in the same places are one. */
export function picturesOf(document: ShotDocument, take: Take, range: LoopRange): Picture[] {
  const pictures: (Picture & { key: string })[] = []
  for (let frame = range.from; frame < range.to; frame++) {
    const drawings = drawingsAt(document, take, frame)
    const key = drawings.map(({ id, layer }) => `${id} ${placeKey(document, take, layer, frame)}`).join()
    const last = pictures[pictures.length - 1]
    if (last?.key === key) {
      pictures[pictures.length - 1] = { ...last, frames: last.frames + 1 }
      continue
    }
    const blank = drawings.every(d => document.layers[d.layer]?.kind === 'background' || isBlank(d))
    pictures.push({ frame, frames: 1, blank, key })
  }
  return pictures.map(({ frame, frames, blank }) => ({ frame, frames, blank }))
}

/** Where a layer lies on a frame as it is sent off, as a text. */
const placeKey = (document: ShotDocument, take: Take, layer: string, frame: number): string =>
  carriedOn(document, take, layer, frame, 'sent off')?.join(' ') ?? ''

/** Paints one frame as it is delivered, at a size, with or without the paper. */
export function paintFrame(
  brush: Brush,
  document: ShotDocument,
  take: Take,
  frame: number,
  book: StrokeBook,
  size: { width: number; height: number; paper: boolean },
): void {
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, size.width, size.height)
  if (size.paper) {
    brush.fillStyle = document.format.paper
    brush.fillRect(0, 0, size.width, size.height)
  }
  const base: Matrix = [size.width / document.format.width, 0, 0, size.height / document.format.height, 0, 0]
  const colours = coloursOf(document.swatches, false)
  for (const drawing of drawingsAt(document, take, frame)) {
    const maps = laidOn(document, take, drawing.layer, frame, () => book.boxOf(drawing), 'sent off')
    layDown(brush, base, maps, () => paintDrawing(brush, drawing, colours, book))
  }
}
