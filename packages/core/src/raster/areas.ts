import { isEmptyBox, unite, EMPTY_BOX, type Box } from '../geometry/point.ts'
import { lineOutline, shapeOutline, type PlacedStroke } from '../geometry/stroke.ts'
import { fillPolygon, type Window } from './polygon.ts'

/** A stroke in its colour. */
export interface ColouredStroke extends PlacedStroke {
  /** id of the swatch */
  readonly swatch: string
}

/** What of a drawing is seen in each colour: px² by the id of the swatch; what lies on top is seen. */
export type Areas = Readonly<Record<string, number>>

/** Pixels on which areas are counted: enough for a hundredth of them. */
const MOST_PIXELS = 250_000
const OPAQUE = 128
/** More colours than these have no number of their own. */
const MOST_COLOURS = 254

/** Areas of the colours of a drawing, painted in the order of its strokes. */
export function areasOf(strokes: readonly ColouredStroke[]): Areas {
  const box = strokes.map(stroke => stroke.box).reduce(unite, EMPTY_BOX)
  if (isEmptyBox(box)) return {}
  const [w, h] = [Math.max(1, box.right - box.left), Math.max(1, box.bottom - box.top)]
  const scale = Math.min(1, Math.sqrt(MOST_PIXELS / (w * h)))
  const window: Window = { left: box.left, top: box.top, scale }
  const [width, height] = [Math.ceil(w * scale) + 1, Math.ceil(h * scale) + 1]
  const swatches = [...new Set(strokes.map(stroke => stroke.swatch))].slice(0, MOST_COLOURS)
  const numbers = new Map(swatches.map((swatch, i) => [swatch, i + 1]))
  const seen = new Uint8Array(width * height)
  const alpha = new Uint8Array(width * height)
  for (const stroke of strokes) {
    const number = numbers.get(stroke.swatch)
    if (number === undefined) continue
    const { kind, samples, nib, width: own } = stroke
    fillPolygon(alpha, width, height, kind === 'shape' ? shapeOutline(samples) : lineOutline(samples, own, nib), window)
    lay(seen, alpha, width, height, stroke.box, window, number)
  }
  const counts = new Float64Array(swatches.length + 1)
  for (let i = 0; i < seen.length; i++) {
    const number = seen[i] as number
    counts[number] = (counts[number] as number) + 1
  }
  return Object.fromEntries(swatches.map((swatch, i) => [swatch, (counts[i + 1] as number) / scale ** 2]))
}

/** Takes what was just painted over into the picture, and clears it for the next. */
function lay(
  seen: Uint8Array,
  alpha: Uint8Array,
  width: number,
  height: number,
  box: Box,
  { left, top, scale }: Window,
  number: number,
): void {
  const [x0, x1] = [
    Math.max(0, Math.floor((box.left - left) * scale) - 1),
    Math.min(width - 1, Math.ceil((box.right - left) * scale) + 1),
  ]
  const [y0, y1] = [
    Math.max(0, Math.floor((box.top - top) * scale) - 1),
    Math.min(height - 1, Math.ceil((box.bottom - top) * scale) + 1),
  ]
  for (let y = y0; y <= y1; y++) {
    for (let i = y * width + x0, end = y * width + x1; i <= end; i++) {
      if ((alpha[i] as number) >= OPAQUE) seen[i] = number
      alpha[i] = 0
    }
  }
}
