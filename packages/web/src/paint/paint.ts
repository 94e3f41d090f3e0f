import { elementsInOrder, type Drawing } from '@unhurried/core/document'
import type { Colours } from './colours.ts'
import { painterOf } from './elements.ts'
import type { Brush } from './nibs.ts'
import type { StrokeBook } from './strokes.ts'

/** Paints a drawing in paper pixels: pictures, shapes, then lines, each with its nib and in its colour. */
export function paintDrawing(brush: Brush, drawing: Drawing, colours: Colours, book: StrokeBook): void {
  for (const element of elementsInOrder(drawing)) painterOf(element).drawn(brush, element, colours, book)
}

/** Paints a drawing as a hollow outline: the middle of every line and the edge of every shape, thin, nothing filled. */
export function paintHollow(brush: Brush, drawing: Drawing, book: StrokeBook, colour: string, lineWidth: number): void {
  brush.strokeStyle = colour
  brush.lineWidth = lineWidth
  brush.lineJoin = 'round'
  brush.lineCap = 'round'
  const hasLines = Object.values(drawing.elements).some(element => element.kind === 'line')
  for (const element of elementsInOrder(drawing)) painterOf(element).hollow(brush, element, book, hasLines)
}

/** Paints the lines of a drawing alone, as they were drawn, all in one colour. */
export function paintLines(brush: Brush, drawing: Drawing, book: StrokeBook, colour: string): void {
  for (const element of elementsInOrder(drawing)) painterOf(element).lines(brush, element, colour, book)
}
