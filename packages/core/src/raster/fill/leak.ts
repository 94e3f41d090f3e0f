import type { Point } from '../../geometry/point.ts'
import { STEP } from './distance.ts'
import { indexOf, type Regions } from './regions.ts'

/** The narrowest place through which a region runs out to the edge of the paper. */
export interface Leak {
  /** paper pixels */
  readonly at: Point
  /** how wide it stands open, paper pixels */
  readonly gapPx: number
}

/** A region is a room with a gap, and not simply open, while its gap is narrower than this share of what it opens from. */
const GAP_SHARE = 0.6

/**
 * Where a region that reaches the edge of the paper leaks, seen from a place in it: the narrowest place on the widest way
 * out (water rising from the place spills there first). Null where it does not reach the edge, or stands simply open.
 */
export function leakFrom(
  { picture, stride, labels, atEdge }: Regions,
  distance: Uint16Array,
  from: Point,
): Leak | null {
  const { width, height, scale } = picture
  const start = indexOf(stride, Math.floor(from.x * scale), Math.floor(from.y * scale))
  const region = labels[start] as number
  if (!atEdge.has(region) || distance[start] === 0) return null
  const far = (i: number) => distance[i] as number
  const placeOf = (i: number) => ({ x: (i % stride) - 1, y: Math.floor(i / stride) - 1 })
  /** Whether what is nearest to a pixel is the edge of the paper, and not a line. */
  const isAtEdge = (i: number) => {
    const { x, y } = placeOf(i)
    return far(i) >= STEP * (1 + Math.min(x, y, width - 1 - x, height - 1 - y))
  }
  const seen = new Uint8Array(labels.length)
  const waiting: number[][] = []
  let top = 0
  const reach = (i: number) => {
    if (seen[i] === 1 || labels[i] !== region || distance[i] === 0) return
    seen[i] = 1
    ;(waiting[far(i)] ??= []).push(i)
    if (far(i) > top) top = far(i)
  }
  reach(start)
  // First up to the widest place near by; from there on the lowest level is what it spills over.
  let [widest, level, spill] = [0, Infinity, -1]
  while (top > 0) {
    const i = waiting[top]?.pop()
    if (i === undefined) {
      top--
      continue
    }
    const d = far(i)
    if (d >= widest && level === Infinity) widest = d
    else if (d < level) [level, spill] = [d, i]
    if (isAtEdge(i)) break
    for (const step of [-1, 1, -stride, stride]) reach(i + step)
  }
  if (top === 0 || spill < 0 || level > widest * GAP_SHARE) return null
  const { x, y } = placeOf(spill)
  const gapPx = Math.max(1, Math.round(((2 * level) / STEP - 1) / scale))
  return { at: { x: (x + 1 / 2) / scale, y: (y + 1 / 2) / scale }, gapPx }
}
