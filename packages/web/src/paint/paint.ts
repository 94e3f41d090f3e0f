import { elementsInOrder, type Drawing } from '@unhurried/core/document'
import type { Colours } from './colours.ts'
import { paintInked, type Brush } from './nibs.ts'
import type { StrokeBook } from './strokes.ts'

/** Paints a drawing in paper pixels: shapes, then lines, each with its nib and in its colour. */
export function paintDrawing(brush: Brush, drawing: Drawing, colours: Colours, book: StrokeBook): void {
  for (const element of elementsInOrder(drawing)) {
    const ink = book.ink(element)
    if (ink) paintInked(brush, ink, colours(element))
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

/** Paints the lines of a drawing alone, as they were drawn, all in one colour. */
export function paintLines(brush: Brush, drawing: Drawing, book: StrokeBook, colour: string): void {
  for (const element of elementsInOrder(drawing)) {
    const ink = element.kind === 'line' ? book.ink(element) : null
    if (ink) paintInked(brush, ink, colour)
  }
}

/** Edges of paint under lines would only double them. */
function hasLines(drawing: Drawing): boolean {
  return Object.values(drawing.elements).some(element => element.kind === 'line')
}
