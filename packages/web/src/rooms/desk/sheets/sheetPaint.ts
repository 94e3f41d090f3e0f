import { after, type Matrix } from '@unhurried/core/geometry'
import type { Sheet } from './sheetReading.ts'
import type { LaidPart } from './useSheets.ts'

const [PAPER, INK, NEIGHBOUR] = ['#fdfaf3', '#2f2c28', '#b0552a']

/** Where things are painted: a canvas of so many of its pixels to one of the screen. */
export interface Easel {
  readonly brush: CanvasRenderingContext2D
  readonly density: number
}

function through({ density: r }: Easel, [a, b, c, d, e, f]: Matrix): DOMMatrix2DInit {
  return { a: a * r, b: b * r, c: c * r, d: d * r, e: e * r, f: f * r }
}

/** A sheet through a map to the screen: its ink on white paper, or as it was photographed. */
export function paintSheet(easel: Easel, sheet: Sheet, view: Matrix, asTaken: boolean): void {
  const { brush } = easel
  brush.setTransform(through(easel, view))
  brush.imageSmoothingQuality = 'high'
  if (asTaken || !sheet.inked) return brush.drawImage(sheet.taken.seen, 0, 0)
  brush.fillStyle = PAPER
  brush.fillRect(0, 0, sheet.taken.widthPx, sheet.taken.heightPx)
  brush.drawImage(sheet.inked.ink, 0, 0)
}

/** A drawing in one colour, through a map to the screen. */
function paintPart(easel: Easel, part: LaidPart, map: Matrix, colour: string, alpha: number): void {
  const { brush } = easel
  const ink = part.sheet.inked?.ink
  if (!ink) return
  const { left, top, right, bottom } = part.box
  const [x, y] = [Math.max(0, left - 2), Math.max(0, top - 2)]
  const [w, h] = [Math.min(ink.width, right + 3) - x, Math.min(ink.height, bottom + 3) - y]
  if (w <= 0 || h <= 0) return
  const apart = new OffscreenCanvas(brush.canvas.width, brush.canvas.height)
  const own = apart.getContext('2d')
  if (!own) return
  own.setTransform(through(easel, map))
  own.imageSmoothingQuality = 'high'
  own.drawImage(ink, x, y, w, h, x, y, w, h)
  own.setTransform(1, 0, 0, 1, 0, 0)
  own.globalCompositeOperation = 'source-in'
  own.fillStyle = colour
  own.fillRect(0, 0, apart.width, apart.height)
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.globalAlpha = alpha
  brush.drawImage(apart, 0, 0)
  brush.globalAlpha = 1
}

/** A drawing over its neighbour at half strength. */
export function paintLaid(easel: Easel, drawing: LaidPart | null, neighbour: LaidPart | null, view: Matrix): void {
  const { brush } = easel
  brush.fillStyle = PAPER
  brush.fillRect(0, 0, brush.canvas.width, brush.canvas.height)
  if (neighbour) paintPart(easel, neighbour, after(neighbour.matrix, view), NEIGHBOUR, 0.5)
  if (drawing) paintPart(easel, drawing, after(drawing.matrix, view), INK, 0.75)
}

/** A drawing as it lies on the paper of the shot, in the colour it is inked in. `toPaper` leads from the first photograph to the paper, `view` from there to the screen. */
export function paintOnPaper(
  easel: Easel,
  part: LaidPart,
  toPaper: Matrix,
  { width, height, paper }: { readonly width: number; readonly height: number; readonly paper: string },
  view: Matrix,
  colour: string,
): void {
  const { brush } = easel
  brush.setTransform(through(easel, view))
  brush.fillStyle = paper
  brush.fillRect(0, 0, width, height)
  paintPart(easel, part, after(after(part.matrix, toPaper), view), colour, 1)
}
