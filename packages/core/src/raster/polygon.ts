import { needWhole } from '../errors.ts'
import type { FlatPolygon } from '../geometry/stroke.ts'

/** Where the pixels of a mask lie on the paper: pixel (0, 0) starts at `left`, `top`; `scale` pixels to a paper pixel. */
export interface Window {
  readonly left: number
  readonly top: number
  readonly scale: number
}

interface Edge {
  readonly top: number
  readonly bottom: number
  readonly xAtTop: number
  readonly slope: number
  readonly winding: 1 | -1
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
  { left, top, scale }: Window,
): void {
  needWhole(width, 1, 'width')
  needWhole(height, 1, 'height')
  const edges = edgesOf(polygon, left, top, scale)
  const rows = new Map<number, Edge[]>()
  for (const edge of edges) {
    const first = Math.max(0, Math.ceil(edge.top - 0.5))
    if (first >= height || edge.bottom <= first + 0.5 - 1) continue
    const starting = rows.get(first)
    if (starting) starting.push(edge)
    else rows.set(first, [edge])
  }
  let active: Edge[] = []
  const lastRow = edges.reduce((most, edge) => Math.max(most, edge.bottom), -1)
  for (let y = Math.min(...rows.keys(), height); y < height && y + 0.5 < lastRow; y++) {
    const centre = y + 0.5
    active = active.filter(edge => edge.bottom > centre)
    for (const edge of rows.get(y) ?? []) if (edge.bottom > centre) active.push(edge)
    fillRow(alpha, y * width, width, active, centre)
  }
}

function edgesOf(polygon: FlatPolygon, left: number, top: number, scale: number): Edge[] {
  const edges: Edge[] = []
  const n = polygon.length / 2
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n
    const x0 = ((polygon[2 * i] as number) - left) * scale
    const y0 = ((polygon[2 * i + 1] as number) - top) * scale
    const x1 = ((polygon[2 * j] as number) - left) * scale
    const y1 = ((polygon[2 * j + 1] as number) - top) * scale
    if (y0 === y1) continue
    const slope = (x1 - x0) / (y1 - y0)
    edges.push(
      y0 < y1
        ? { top: y0, bottom: y1, xAtTop: x0, slope, winding: 1 }
        : { top: y1, bottom: y0, xAtTop: x1, slope, winding: -1 },
    )
  }
  return edges
}

function fillRow(alpha: Uint8Array, start: number, width: number, active: readonly Edge[], centre: number): void {
  const crossings = active
    .map(edge => ({ x: edge.xAtTop + (centre - edge.top) * edge.slope, winding: edge.winding }))
    .sort((a, b) => a.x - b.x)
  let winding = 0
  for (let i = 0; i < crossings.length - 1; i++) {
    const { x, winding: turn } = crossings[i] as (typeof crossings)[number]
    winding += turn
    if (winding === 0) continue
    const next = (crossings[i + 1] as (typeof crossings)[number]).x
    const from = Math.max(0, Math.ceil(x - 0.5))
    const to = Math.min(width, Math.ceil(next - 0.5))
    if (to > from) alpha.fill(255, start + from, start + to)
  }
}
