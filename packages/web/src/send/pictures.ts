import {
  carriedOn,
  columnOf,
  isBlank,
  isDelivered,
  laidOn,
  layersInOrder,
  type Drawing,
  type FilmClip,
  type Format,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import { drawingAt, type LoopRange } from '@unhurried/core/time'
import { coloursOf, type Colours } from '../paint/colours.ts'
import { layDown } from '../paint/laid.ts'
import type { Box, Matrix } from '@unhurried/core/geometry'
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

/**
 * A stretch of a take as pictures: neighbouring frames that show the same drawings in the same places are one. `under` tells, as a text, what lies under the drawings of a frame:
 * empty where nothing does.
 */
export function picturesOf(
  document: ShotDocument,
  take: Take,
  range: LoopRange,
  under: (frame: number) => string = () => '',
): Picture[] {
  const pictures: (Picture & { key: string })[] = []
  for (let frame = range.from; frame < range.to; frame++) {
    const drawings = drawingsAt(document, take, frame)
    const beneath = under(frame)
    const key = [beneath, ...drawings.map(({ id, layer }) => `${id} ${placeKey(document, take, layer, frame)}`)].join()
    const last = pictures[pictures.length - 1]
    if (last?.key === key) {
      pictures[pictures.length - 1] = { ...last, frames: last.frames + 1 }
      continue
    }
    const blank = beneath === '' && drawings.every(d => document.layers[d.layer]?.kind === 'background' || isBlank(d))
    pictures.push({ frame, frames: 1, blank, key })
  }
  return pictures.map(({ frame, frames, blank }) => ({ frame, frames, blank }))
}

/** The numbers of pictures of clips that lie under a frame, as a text; empty where none does. */
export const underKey = (numbers: readonly (number | null)[]): string =>
  numbers.every(number => number === null) ? '' : `${numbers.join()} |`

/** Where a layer lies on a frame as it is sent off, as a text. */
const placeKey = (document: ShotDocument, take: Take, layer: string, frame: number): string =>
  carriedOn(document, take, layer, frame, 'sent off')?.join(' ') ?? ''

/** Lays a picture of a clip where the clip lies; `base` leads from the paper to the brush. */
export function layClip(
  brush: Brush,
  base: Matrix,
  { matrix, widthPx, heightPx }: FilmClip,
  picture: CanvasImageSource,
): void {
  brush.setTransform(...base)
  brush.transform(...matrix)
  brush.imageSmoothingQuality = 'high'
  // Kept smaller than it is, it lies as large as it is.
  brush.drawImage(picture, 0, 0, widthPx, heightPx)
  brush.setTransform(1, 0, 0, 1, 0, 0)
}

/** A drawing, and where it lies in the picture: once as it was drawn (null), or once for each of the maps. */
export interface LaidDrawing {
  readonly drawing: Drawing
  readonly maps: readonly Matrix[] | null
}

/** What is sent off of a frame, and where it lies, lowest first. */
export const laidAt = (
  document: ShotDocument,
  take: Take,
  frame: number,
  book: Pick<StrokeBook, 'boxOf'>,
): LaidDrawing[] =>
  drawingsAt(document, take, frame).map(drawing => ({
    drawing,
    maps: laidOn(document, take, drawing.layer, frame, () => book.boxOf(drawing), 'sent off'),
  }))

/** Paints drawings where they lie in the picture; `base` leads from the paper to the brush. */
export function paintLaid(
  brush: Brush,
  base: Matrix,
  laid: readonly LaidDrawing[],
  colours: Colours,
  book: StrokeBook,
): void {
  for (const { drawing, maps } of laid) layDown(brush, base, maps, () => paintDrawing(brush, drawing, colours, book))
}

const wholeOf = ({ width, height }: Format): Box => ({ left: 0, top: 0, right: width, bottom: height })

/** How a frame is painted: at which size in pixels, with or without the paper, and what of the picture (its own pixels; all of it unless said). */
export interface Sent {
  readonly width: number
  readonly height: number
  readonly paper: boolean
  readonly part?: Box
}

/** Paints one frame as it is delivered; `under` paints what lies under the drawings. */
export function paintFrame(
  brush: Brush,
  document: ShotDocument,
  take: Take,
  frame: number,
  book: StrokeBook,
  size: Sent,
  under?: (brush: Brush, base: Matrix) => void,
): void {
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, size.width, size.height)
  if (size.paper) {
    brush.fillStyle = document.format.paper
    brush.fillRect(0, 0, size.width, size.height)
  }
  const { left, top, right, bottom } = size.part ?? wholeOf(document.format)
  const [across, down] = [size.width / (right - left), size.height / (bottom - top)]
  const base: Matrix = [across, 0, 0, down, -left * across, -top * down]
  under?.(brush, base)
  paintLaid(brush, base, laidAt(document, take, frame, book), coloursOf(document.swatches, false), book)
}
