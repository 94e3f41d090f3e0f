import type { Drawing } from '@unhurried/core/document'
import { grown, isEmptyBox, type Box } from '@unhurried/core/geometry'
import { silhouette } from '@unhurried/core/raster'
import { LRUCache } from 'lru-cache'
import { computed, type Ref } from 'vue'
import type { Colours } from './colours.ts'
import type { Brush } from './nibs.ts'
import { paintDrawing, paintHollow, paintLines } from './paint.ts'
import type { StrokeBook } from './strokes.ts'

/**
 * How a drawing is shown: as drawn, in its strokes' colours; or in one colour (#rrggbb) as a past drawing's soft wash or
 * the full lines over it, a future one's hollow outline, or a shape without anything inside.
 */
export type Look =
  | { readonly kind: 'drawn'; readonly colours: Colours }
  | { readonly kind: 'wash' | 'lines' | 'hollow' | 'silhouette'; readonly colour: string }

export const drawnIn = (colours: Colours): Look => ({ kind: 'drawn', colours })

/** A drawing painted once: the picture, and where its top left corner lies on the paper. */
interface Bitmap {
  readonly canvas: OffscreenCanvas
  readonly left: number
  readonly top: number
  /** picture pixels to a paper pixel */
  readonly scale: number
  readonly bytes: number
}

/** Memory for painted drawings: about 60 full HD pictures, far more cropped ones. */
const MOST_BYTES = 480 * 1024 * 1024
/** A picture larger than this is not kept; the drawing is painted directly, cut to the view. */
const LARGEST_PICTURE = 16_000_000
/** Washes are soft: a few pixels suffice. */
const WASH_PIXELS = 420_000

export const SILHOUETTE: Look = { kind: 'silhouette', colour: '#2f2c28' }

/** Where painted drawings are drawn from. */
export interface BitmapShelf {
  /** Draws a drawing onto a brush whose transform maps paper pixels to the screen at about `scale`. */
  draw(brush: Brush, drawing: Drawing, look: Look, scale: number): void
  /** whether it can be drawn now; asked for otherwise, and `painted` changes when it can */
  isReady(drawing: Drawing, look: Look, scale: number): boolean
  /** the box round what is on a drawing, in its own pixels; empty when nothing is, or it is not painted yet */
  boxOf(drawing: Drawing): Box
  readonly painted: Readonly<Ref<number>>
}

/** Painted drawings by look and scale, the least recently used forgotten first. Drawings never change; changed ones are others. */
export function bitmapShelf(book: StrokeBook): BitmapShelf {
  const shelf = new LRUCache<string, Bitmap>({ maxSize: MOST_BYTES, sizeCalculation: ({ bytes }) => bytes })
  const names = new WeakMap<Drawing | Colours, number>()
  let named = 0

  function nameOf(thing: Drawing | Colours): number {
    const name = names.get(thing) ?? ++named
    names.set(thing, name)
    return name
  }

  function get(drawing: Drawing, look: Look, scale: number): Bitmap | null {
    const paintedIn = look.kind === 'drawn' ? nameOf(look.colours) : look.colour
    const key = `${nameOf(drawing)} ${look.kind} ${paintedIn} ${look.kind === 'wash' ? 0 : scale.toFixed(4)}`
    const known = shelf.get(key)
    if (known) return known
    const fresh = paintBitmap(drawing, look, scale, book)
    // A drawing whose pictures are still being decoded is painted again when they are there.
    if (fresh && book.isWhole(drawing)) shelf.set(key, fresh)
    return fresh
  }

  return {
    isReady: () => true,
    boxOf: book.boxOf,
    painted: computed(book.decoded),
    draw(brush: Brush, drawing: Drawing, look: Look, scale: number): void {
      const bitmap = get(drawing, look, scale)
      if (bitmap) {
        const { canvas, left, top } = bitmap
        brush.drawImage(canvas, left, top, canvas.width / bitmap.scale, canvas.height / bitmap.scale)
      } else paintAs(brush, drawing, look, scale, book)
    },
  }
}

function paintAs(brush: Brush, drawing: Drawing, look: Look, scale: number, book: StrokeBook): void {
  if (look.kind === 'hollow') paintHollow(brush, drawing, book, look.colour, 1.5 / scale)
  else if (look.kind === 'lines') paintLines(brush, drawing, book, look.colour)
  else paintDrawing(brush, drawing, look.kind === 'drawn' ? look.colours : () => look.colour, book)
}

/** Paints a drawing as a picture of its own, cropped to what is drawn; null when that would be too large. */
export function paintBitmap(drawing: Drawing, look: Look, wanted: number, book: StrokeBook): Bitmap | null {
  const around = book.boxOf(drawing)
  if (isEmptyBox(around)) return { canvas: new OffscreenCanvas(1, 1), left: 0, top: 0, scale: 1, bytes: 4 }
  const box = grown(around, 3)
  const area = (box.right - box.left) * (box.bottom - box.top)
  const scale = look.kind === 'wash' ? Math.min(1, Math.sqrt(WASH_PIXELS / area)) : wanted
  const left = Math.floor(box.left * scale) / scale
  const top = Math.floor(box.top * scale) / scale
  const width = Math.ceil((box.right - left) * scale) + 1
  const height = Math.ceil((box.bottom - top) * scale) + 1
  if (width * height > LARGEST_PICTURE) return null
  const canvas = new OffscreenCanvas(width, height)
  const brush = canvas.getContext('2d', { willReadFrequently: look.kind === 'wash' || look.kind === 'silhouette' })
  if (!brush) throw new Error('This browser gives no canvas to draw on.')
  brush.setTransform(scale, 0, 0, scale, -left * scale, -top * scale)
  paintAs(brush, drawing, look, scale, book)
  if (look.kind === 'wash' || look.kind === 'silhouette') washOver(brush, width, height, look.colour)
  return { canvas, left, top, scale, bytes: width * height * 4 }
}

/** Turns what is painted into one flat colour over its whole silhouette, with the soft edge that the paint had. */
function washOver(brush: OffscreenCanvasRenderingContext2D, width: number, height: number, wanted: string): void {
  const picture = brush.getImageData(0, 0, width, height)
  const alpha = new Uint8Array(width * height)
  for (let i = 0; i < alpha.length; i++) alpha[i] = picture.data[4 * i + 3] as number
  const { inside } = silhouette(alpha, width, height)
  const colour = Number.parseInt(wanted.slice(1), 16)
  for (let i = 0; i < inside.length; i++) {
    const isWithin = inside[i] && inside[i - 1] && inside[i + 1] && inside[i - width] && inside[i + width]
    picture.data[4 * i] = colour >> 16
    picture.data[4 * i + 1] = (colour >> 8) & 255
    picture.data[4 * i + 2] = colour & 255
    picture.data[4 * i + 3] = isWithin ? 255 : (alpha[i] as number)
  }
  brush.putImageData(picture, 0, 0)
}
