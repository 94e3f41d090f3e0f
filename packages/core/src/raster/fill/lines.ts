import { lineOutline, type PlacedStroke } from '../../geometry/stroke.ts'
import { fillPolygon, type Window } from '../polygon.ts'

/** Larger paper is filled at a smaller scale. */
const MOST_PIXELS = 1920 * 1080

/** The lines of a drawing on the whole paper: 255 where a pixel is line. `scale` pixels to a paper pixel. */
export interface LinePicture {
  readonly width: number
  readonly height: number
  readonly scale: number
  readonly line: Uint8Array
}

/** A hair is taken as this wide, in pixels of the picture, so that it bounds. */
const THINNEST = 1.5

/**
 * The lines among strokes, painted in black on a paper of so many pixels; painted shapes bound nothing. Papers larger than
 * 1080p are taken at a smaller scale.
 */
export function linePicture(
  strokes: readonly PlacedStroke[],
  paper: { readonly width: number; readonly height: number },
): LinePicture {
  const scale = Math.min(1, Math.sqrt(MOST_PIXELS / (paper.width * paper.height)))
  const [width, height] = [Math.ceil(paper.width * scale), Math.ceil(paper.height * scale)]
  const line = new Uint8Array(width * height)
  const window: Window = { left: 0, top: 0, scale }
  for (const { kind, samples, width: px, nib } of strokes) {
    if (kind === 'line')
      fillPolygon(line, width, height, lineOutline(samples, Math.max(px, THINNEST / scale), nib), window)
  }
  return { width, height, scale, line }
}
