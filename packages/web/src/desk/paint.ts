import { elementsInOrder, find, type Drawing, type ShotDocument } from '@unhurried/core/document'
import type { StrokeBook } from './strokes.ts'

export type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

const MISSING_COLOUR = '#2f2c28'

/** Paints a drawing in paper pixels, as it will be delivered: shapes, then lines, each in its swatch's colour. */
export function paintDrawing(
  brush: Brush,
  drawing: Drawing,
  swatches: ShotDocument['swatches'],
  book: StrokeBook,
): void {
  for (const element of elementsInOrder(drawing)) {
    const path = book.path(element)
    if (!path) continue
    brush.fillStyle = find(swatches, element.swatch)?.colour ?? MISSING_COLOUR
    brush.fill(path)
  }
}

/** Paints a drawing as a hollow outline: the middle of every line and the edge of every shape, thin, nothing filled. */
export function paintHollow(brush: Brush, drawing: Drawing, book: StrokeBook, colour: string, lineWidth: number): void {
  brush.strokeStyle = colour
  brush.lineWidth = lineWidth
  brush.lineJoin = 'round'
  brush.lineCap = 'round'
  for (const element of elementsInOrder(drawing)) {
    if (element.kind === 'shape' && hasLines(drawing)) continue
    const stroke = book.placed(element)
    if (!stroke) continue
    brush.beginPath()
    stroke.samples.forEach((s, i) => (i === 0 ? brush.moveTo(s.x, s.y) : brush.lineTo(s.x, s.y)))
    if (element.kind === 'shape') brush.closePath()
    brush.stroke()
  }
}

/** Edges of paint under lines would only double them. */
function hasLines(drawing: Drawing): boolean {
  return Object.values(drawing.elements).some(element => element.kind === 'line')
}
