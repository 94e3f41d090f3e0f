import { needWhole } from '../errors.ts'
import type { FlatPolygon } from '../geometry/stroke.ts'

/** Where the pixels of a mask lie on the paper: pixel (0, 0) starts at `left`, `top`; `scale` pixels to a paper pixel. */
export interface Window {
  readonly left: number
  readonly top: number
  readonly scale: number
}

/** Edges of a polygon that are not level, one value each: from where to where they go down, where they are there, and which way they wind. */
interface Edges {
  readonly count: number
  /** their numbers, by the row in which they begin to count */
  readonly order: Uint32Array
  readonly first: Int32Array
  readonly bottom: Float64Array
  /** x where y is 0, and how much it grows with y */
  readonly x: Float64Array
  readonly slope: Float64Array
  readonly winding: Int8Array
}

/**
 * Paints polygons (flat x, y in paper pixels, closed from last to first, non-zero winding) into an alpha picture of one
 * byte a pixel: 255 where a pixel's centre is inside. Added to what is there already. Throws on a size that is no size.
 */
export function fillPolygon(
  alpha: Uint8Array,
  width: number,
  height: number,
  polygon: FlatPolygon,
  window: Window,
): void {
  needWhole(width, 1, 'width')
  needWhole(height, 1, 'height')
  const { count, order, first, bottom, x, slope, winding } = edgesOf(polygon, height, window)
  if (count === 0) return
  const active = new Uint32Array(count)
  const crossings = new Float64Array(count)
  const turns = new Int8Array(count)
  let [live, next] = [0, 0]
  for (let y = first[order[0] as number] as number; y < height && (live > 0 || next < count); y++) {
    const centre = y + 0.5
    while (next < count && (first[order[next] as number] as number) <= y) active[live++] = order[next++] as number
    // Those that have ended are left out, the others put in the order in which the row crosses them.
    let still = 0
    for (let k = 0; k < live; k++) {
      const edge = active[k] as number
      if ((bottom[edge] as number) <= centre) continue
      const at = (x[edge] as number) + centre * (slope[edge] as number)
      let i = still
      for (; i > 0 && (crossings[i - 1] as number) > at; i--) {
        crossings[i] = crossings[i - 1] as number
        turns[i] = turns[i - 1] as number
      }
      crossings[i] = at
      turns[i] = winding[edge] as number
      active[still++] = edge
    }
    live = still
    let wound = 0
    for (let i = 0; i < live - 1; i++) {
      wound += turns[i] as number
      if (wound === 0) continue
      const from = Math.max(0, Math.ceil((crossings[i] as number) - 0.5))
      const to = Math.min(width, Math.ceil((crossings[i + 1] as number) - 0.5))
      if (to > from) alpha.fill(255, y * width + from, y * width + to)
    }
  }
}

function edgesOf(polygon: FlatPolygon, height: number, { left, top, scale }: Window): Edges {
  const n = polygon.length / 2
  const [first, bottom] = [new Int32Array(n), new Float64Array(n)]
  const [x, slope, winding] = [new Float64Array(n), new Float64Array(n), new Int8Array(n)]
  let count = 0
  for (let i = 0; i < n; i++) {
    const j = i + 1 === n ? 0 : i + 1
    const x0 = ((polygon[2 * i] as number) - left) * scale
    const y0 = ((polygon[2 * i + 1] as number) - top) * scale
    const x1 = ((polygon[2 * j] as number) - left) * scale
    const y1 = ((polygon[2 * j + 1] as number) - top) * scale
    if (y0 === y1) continue
    // The first row whose middle it may cross, and whether it crosses any.
    const row = Math.max(0, Math.ceil(Math.min(y0, y1) - 0.5))
    const end = Math.max(y0, y1)
    if (row >= height || end <= row + 0.5) continue
    const dx = (x1 - x0) / (y1 - y0)
    first[count] = row
    bottom[count] = end
    slope[count] = dx
    x[count] = x0 - y0 * dx
    winding[count] = y0 < y1 ? 1 : -1
    count++
  }
  // Sorted as plain numbers: by row, then by number.
  const keys = new Float64Array(count)
  for (let k = 0; k < count; k++) keys[k] = (first[k] as number) * n + k
  keys.sort()
  const order = new Uint32Array(count)
  for (let k = 0; k < count; k++) order[k] = (keys[k] as number) % n
  return { count, order, first, bottom, x, slope, winding }
}
