import type { Element, ElementForms, Picture, Stroke } from '@unhurried/core/document'
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

/** How strong a picture shows through: a past one over its wash, a future one without. */
const THROUGH = { past: 0.6, future: 0.4 } as const

function layPicture(brush: Brush, picture: Picture, book: StrokeBook, strength: number): void {
  const bitmap = book.picture(picture)
  const placed = bitmap && book.placed(picture)
  if (!placed) return
  brush.save()
  brush.globalAlpha *= strength
  brush.transform(...placed.matrix)
  const { cut, widthPx, heightPx } = picture
  if (cut) {
    const [w, h] = [cut.right - cut.left, cut.bottom - cut.top]
    const [across, down] = [bitmap.width / widthPx, bitmap.height / heightPx]
    brush.drawImage(bitmap, cut.left * across, cut.top * down, w * across, h * down, cut.left, cut.top, w, h)
  } else brush.drawImage(bitmap, 0, 0, widthPx, heightPx)
  brush.restore()
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
    drawn: (brush, picture, _colours, book) => layPicture(brush, picture, book, picture.opacity),
    lines: (brush, picture, _colour, book) => layPicture(brush, picture, book, picture.opacity * THROUGH.past),
    hollow: (brush, picture, book) => layPicture(brush, picture, book, picture.opacity * THROUGH.future),
  },
}

/** The painter of an element. */
export const painterOf = (element: Element): Painter<keyof ElementForms> => PAINTERS[element.kind]
