import { distance, lerp, nearestOnPiece, grown, boxesMeet, type Point } from '../geometry/point.ts'
import { lengthOf, type PlacedStroke } from '../geometry/stroke.ts'

/** The end of a line from which the outside might come in, and the nearest place it could be joined to. */
interface LooseEnd {
  readonly at: Point
  readonly nearest: Point
  readonly gapPx: number
  /** length of the line it ends, in pixels */
  readonly linePx: number
}

/** A straight piece that closes a gap in an outline. */
export interface Bridge {
  readonly from: Point
  readonly to: Point
  readonly gapPx: number
}

/** An outline may stand open by a share of the line that ends there and still be meant as an outline. */
const OPEN_SHARE = 1 / 4
/** So many of the places where an outline may be open are tried. */
const MOST_OPEN = 4

/**
 * Where the ends of lines do not meet anything. `closed`: gaps of up to `closedPx`, or the line's own width, that count as
 * closed. `open`: wider ones, the narrowest first, that may let the outside into what is meant as a body.
 */
export function gapsOf(strokes: readonly PlacedStroke[], closedPx: number): { closed: Bridge[]; open: Bridge[] } {
  const closed: Bridge[] = []
  const loose: (LooseEnd & { stroke: PlacedStroke })[] = []
  for (const stroke of strokes) {
    if (stroke.kind !== 'line' || stroke.samples.length < 2) continue
    const reach = Math.max(closedPx, stroke.width)
    const linePx = lengthOf(stroke.samples)
    for (const side of ['start', 'end'] as const) {
      const at = endOf(stroke, side)
      const nearest = nearestBody(strokes, stroke, side, reach, linePx)
      const gapPx = nearest ? distance(at, nearest) : Infinity
      if (nearest && gapPx <= reach) closed.push({ from: at, to: nearest, gapPx })
      else loose.push({ at, nearest: at, gapPx, linePx, stroke })
    }
  }
  const open = loose.flatMap((end, i) =>
    loose.slice(i + 1).flatMap((other): Bridge[] => {
      const gapPx = distance(end.at, other.at)
      const line = end.stroke === other.stroke ? end.linePx : end.linePx + other.linePx
      return gapPx <= line * OPEN_SHARE ? [{ from: end.at, to: other.at, gapPx }] : []
    }),
  )
  return { closed, open: open.sort((a, b) => a.gapPx - b.gapPx).slice(0, MOST_OPEN) }
}

const endOf = ({ samples }: PlacedStroke, side: 'start' | 'end'): Point =>
  (side === 'start' ? samples[0] : samples[samples.length - 1]) as Point

/** The place of any stroke nearest to the end of a line, within reach; of the line itself only what lies farther off along it. */
function nearestBody(
  strokes: readonly PlacedStroke[],
  own: PlacedStroke,
  side: 'start' | 'end',
  reach: number,
  linePx: number,
): Point | null {
  const at = endOf(own, side)
  const around = grown({ left: at.x, top: at.y, right: at.x, bottom: at.y }, reach)
  let best: { point: Point; off: number } | null = null
  for (const stroke of strokes) {
    if (!boxesMeet(around, stroke.box)) continue
    const samples = stroke === own && side === 'end' ? [...stroke.samples].reverse() : stroke.samples
    let along = 0
    for (let i = 1; i < samples.length; i++) {
      const [a, b] = [samples[i - 1] as Point, samples[i] as Point]
      along += distance(a, b)
      // What lies right behind its own end is no other line.
      if (stroke === own && (along <= 3 * reach || along < linePx / 3)) continue
      const near = nearestOnPiece(at, a, b)
      const off = distance(near.point, at)
      if (off <= reach && (!best || off < best.off)) best = { point: near.point, off }
    }
  }
  return best?.point ?? null
}

/** The middle of a gap. */
export const middleOf = ({ from, to }: Bridge): Point => lerp(from, to, 1 / 2)
