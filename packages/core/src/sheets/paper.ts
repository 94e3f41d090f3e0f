import { distance, lerp, type Point } from '../geometry/point.ts'
import { median } from '../median.ts'
import { valueAt, type Grey } from '../raster/grey.ts'
import { blobsOf } from './blobs.ts'
import { smaller } from './smaller.ts'

/** The corners of a sheet of paper in pixels of its photograph, clockwise from upper left. */
export type Corners = readonly [Point, Point, Point, Point]

/** A straight line: the points p with n·p = far, n of length 1. */
interface Line {
  readonly nx: number
  readonly ny: number
  readonly far: number
}

const SMALL_PX = 240
const [LEAST_SHARE, MOST_SHARE] = [0.15, 0.985]
const SAMPLES = 48
/** Places on a side that lie farther off than this many times the usual are left out of it. */
const TRIM = 2.5

const { abs, atan2, cos, max, min, sin, sqrt } = Math

/** The brightness that parts two kinds best (N. Otsu, 1979). */
export function partedAt(data: Uint8Array): number {
  const counts = new Float64Array(256)
  for (const value of data) counts[value] = (counts[value] as number) + 1
  const all = counts.reduce((sum, n, value) => sum + n * value, 0)
  let [most, at, below, sum] = [-1, 128, 0, 0]
  for (let value = 0; value < 255; value++) {
    below += counts[value] as number
    sum += (counts[value] as number) * value
    const above = data.length - below
    if (below === 0 || above === 0) continue
    const between = below * above * (sum / below - (all - sum) / above) ** 2
    if (between > most) [most, at] = [between, value]
  }
  return at
}

/** The line through points, by least squares across it; far-off points are left out, twice. Null for fewer than four. */
function lineThrough(points: readonly Point[]): Line | null {
  let left = points
  let line: Line | null = null
  for (let turn = 0; turn < 3; turn++) {
    if (left.length < 4) return null
    const n = left.length
    const [mx, my] = [left.reduce((s, p) => s + p.x, 0) / n, left.reduce((s, p) => s + p.y, 0) / n]
    let [xx, xy, yy] = [0, 0, 0]
    for (const { x, y } of left) {
      xx += (x - mx) ** 2
      xy += (x - mx) * (y - my)
      yy += (y - my) ** 2
    }
    // The direction across is that of the lesser spread.
    const along = 0.5 * atan2(2 * xy, xx - yy)
    const [nx, ny] = [-sin(along), cos(along)]
    const now: Line = { nx, ny, far: nx * mx + ny * my }
    line = now
    const off = left.map(p => abs(nx * p.x + ny * p.y - now.far))
    const usual = median(off)
    left = left.filter((_, i) => (off[i] as number) <= max(0.3, TRIM * usual))
  }
  return line
}

function crossing(a: Line, b: Line): Point | null {
  const room = a.nx * b.ny - a.ny * b.nx
  if (abs(room) < 0.2) return null
  return { x: (a.far * b.ny - b.far * a.ny) / room, y: (a.nx * b.far - b.nx * a.far) / room }
}

/** The place near one where a photograph gets darker most steeply along a direction, between pixels. */
function steepest(photo: Grey, at: Point, outward: Point, reach: number): Point | null {
  const values = Array.from({ length: 2 * reach + 3 }, (_, i) => {
    const by = i - reach - 1
    return valueAt(photo, at.x + outward.x * by, at.y + outward.y * by)
  })
  const falls = values.slice(1, -1).map((_, i) => (values[i] as number) - (values[i + 2] as number))
  const most = max(...falls)
  const k = falls.indexOf(most)
  if (most < 12 || k === 0 || k === falls.length - 1) return null
  const [a, b] = [falls[k - 1] as number, falls[k + 1] as number]
  const bend = a - 2 * most + b
  const by = k - reach + (bend < -1e-6 ? (a - b) / (2 * bend) : 0)
  return { x: at.x + outward.x * by, y: at.y + outward.y * by }
}

/**
 * The corners of a bright sheet on a darker ground, between pixels; null where none is seen whole: where the sheet fills the photograph, or there is none. Each side is a
 * straight line through the places where it gets dark most steeply.
 */
export function paperOf(photo: Grey): Corners | null {
  const { grey, by } = smaller(photo, SMALL_PX)
  const border = partedAt(grey.data)
  const bright = { ...grey, data: grey.data.map(value => (value > border ? 255 : 0)) }
  const largest = blobsOf(bright).reduce(
    (best, blob) => (blob.area > (best?.area ?? 0) ? blob : best),
    undefined as ReturnType<typeof blobsOf>[number] | undefined,
  )
  const share = largest ? largest.area / grey.data.length : 0
  if (!largest || share < LEAST_SHARE || share > MOST_SHARE) return null
  const rough = extremes(bright, largest.label, largest.labels)
  const sides = rough.map((from, i): Line | null => {
    const to = rough[(i + 1) % 4] as Point
    const long = distance(from, to)
    if (long < 8) return null
    const outward = { x: (to.y - from.y) / long, y: -(to.x - from.x) / long }
    const reach = Math.ceil(4 * by)
    const found = Array.from({ length: SAMPLES }, (_, k) => {
      const at = lerp(from, to, 0.06 + (0.88 * k) / (SAMPLES - 1))
      return steepest(photo, { x: (at.x + 0.5) * by - 0.5, y: (at.y + 0.5) * by - 0.5 }, outward, reach)
    })
    return lineThrough(found.flatMap(p => p ?? []))
  })
  const [top, right, bottom, left] = sides
  if (!top || !right || !bottom || !left) return null
  const corners = [crossing(left, top), crossing(top, right), crossing(right, bottom), crossing(bottom, left)]
  if (corners.some(p => p === null)) return null
  const [a, b, c, d] = corners as [Point, Point, Point, Point]
  return min(distance(a, b), distance(b, c), distance(c, d), distance(d, a)) > sqrt(photo.data.length) / 8
    ? [a, b, c, d]
    : null
}

/** The four corners of a blob: its pixels farthest to each corner of the picture. */
function extremes({ width, height }: Grey, label: number, labels: Int32Array): [Point, Point, Point, Point] {
  const corners: [Point, Point, Point, Point] = [
    { x: 0, y: 0 },
    { x: width - 1, y: 0 },
    { x: width - 1, y: height - 1 },
    { x: 0, y: height - 1 },
  ]
  const best = corners.map(() => ({ far: Infinity, at: { x: 0, y: 0 } }))
  for (let i = 0; i < labels.length; i++) {
    if (labels[i] !== label) continue
    const [x, y] = [i % width, (i / width) | 0]
    corners.forEach((corner, k) => {
      const far = abs(corner.x - x) + abs(corner.y - y)
      if (far < (best[k] as { far: number }).far) best[k] = { far, at: { x, y } }
    })
  }
  return best.map(one => one.at) as unknown as [Point, Point, Point, Point]
}
