import type { Element, ElementForms, Stroke } from '@unhurried/core/document'
import type { Colours } from './colours.ts'
import { paintInked, type Brush } from './nibs.ts'
import type { StrokeBook } from './strokes.ts'

/** How one kind of element is painted, in paper pixels. */
interface Painter<K extends keyof ElementForms> {
  /** as it was drawn */
  drawn(brush: Brush, element: ElementForms[K], colours: Colours, book: StrokeBook): void
  /** its lines alone, in the colour given */
  lines(brush: Brush, element: ElementForms[K], colour: string, book: StrokeBook): void
  /** its edge with the line of the brush, or nothing where lines beside it say enough */
  hollow(brush: Brush, element: ElementForms[K], book: StrokeBook, besideLines: boolean): void
}

function trace(brush: Brush, path: readonly { x: number; y: number }[], closed: boolean): void {
  brush.beginPath()
  path.forEach((at, i) => (i === 0 ? brush.moveTo(at.x, at.y) : brush.lineTo(at.x, at.y)))
  if (closed) brush.closePath()
  brush.stroke()
}

function fillInked(brush: Brush, stroke: Stroke, colour: string, book: StrokeBook): void {
  const ink = book.ink(stroke)
  if (ink) paintInked(brush, ink, colour)
}

/** Every kind has its painter; a missing one does not compile. */
const PAINTERS: { readonly [K in keyof ElementForms]: Painter<K> } = {
  line: {
    drawn: (brush, line, colours, book) => fillInked(brush, line, colours(line), book),
    lines: fillInked,
    hollow: (brush, line, book) => trace(brush, book.placed(line)?.samples ?? [], false),
  },
  shape: {
    drawn: (brush, shape, colours, book) => fillInked(brush, shape, colours(shape), book),
    lines: () => undefined,
    // Edges of paint under lines would only double them.
    hollow: (brush, shape, book, besideLines) =>
      besideLines ? undefined : trace(brush, book.placed(shape)?.samples ?? [], true),
  },
  picture: {
    drawn(brush, picture, _colours, book) {
      const bitmap = book.picture(picture)
      const placed = bitmap && book.placed(picture)
      if (!placed) return
      brush.save()
      brush.globalAlpha *= picture.opacity
      brush.transform(...placed.matrix)
      brush.drawImage(bitmap, 0, 0, picture.widthPx, picture.heightPx)
      brush.restore()
    },
    lines: () => undefined,
    hollow: (brush, picture, book) => trace(brush, book.placed(picture)?.edge ?? [], true),
  },
}

/** The painter of an element. */
export const painterOf = (element: Element): Painter<keyof ElementForms> => PAINTERS[element.kind]
