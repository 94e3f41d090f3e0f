import { isEmptyBox, unite, EMPTY_BOX } from '../geometry/point.ts'
import { lineOutline, shapeOutline, type PlacedStroke } from '../geometry/stroke.ts'
import { momentsOf, type Moments } from './moments.ts'
import { fillPolygon, type Window } from './polygon.ts'
import { silhouette } from './silhouette.ts'

/** Thinner lines are taken as this wide (in pixels of the mask), so that they hold the outside out. */
const THINNEST_LINE = 2
/** Larger drawings are measured at a smaller scale: enough pixels for a tenth of a per cent of area. */
const LARGEST_MASK = 1920 * 1080

/**
 * Area, centre and axes of a drawing's silhouette in paper pixels: its strokes painted, and everything that the outside
 * cannot reach counted in. What lies off the paper is measured too. Nothing drawn gives an area of 0.
 */
export function shapeOf(strokes: readonly PlacedStroke[]): Moments {
  const box = strokes.reduce((all, stroke) => unite(all, stroke.box), EMPTY_BOX)
  if (isEmptyBox(box)) return { area: 0, centroid: null, halfAxes: [0, 0], tiltRad: 0 }
  const [w, h] = [box.right - box.left + 8, box.bottom - box.top + 8]
  const scale = Math.min(1, Math.sqrt(LARGEST_MASK / (w * h)))
  const window: Window = { left: Math.floor(box.left) - 4, top: Math.floor(box.top) - 4, scale }
  const width = Math.max(1, Math.ceil((w + 1) * scale))
  const height = Math.max(1, Math.ceil((h + 1) * scale))
  const alpha = new Uint8Array(width * height)
  for (const stroke of strokes) {
    const outline =
      stroke.kind === 'shape'
        ? shapeOutline(stroke.samples)
        : lineOutline(stroke.samples, Math.max(stroke.width, THINNEST_LINE / scale), stroke.nib)
    fillPolygon(alpha, width, height, outline, window)
  }
  return onPaper(momentsOf(silhouette(alpha, width, height)), window)
}

function onPaper(m: Moments, { left, top, scale }: Window): Moments {
  return {
    area: m.area / (scale * scale),
    centroid: m.centroid && { x: left + m.centroid.x / scale, y: top + m.centroid.y / scale },
    halfAxes: [m.halfAxes[0] / scale, m.halfAxes[1] / scale],
    tiltRad: m.tiltRad,
  }
}
