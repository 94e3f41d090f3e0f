import { distance, isEmptyBox, unite, EMPTY_BOX, type Point } from '../geometry/point.ts'
import { widthAt } from '../geometry/nib.ts'
import { lineOutline, shapeOutline, type PlacedStroke } from '../geometry/stroke.ts'
import { coverageOf, type Coverage } from './coverage.ts'
import { gapsOf, middleOf, type Bridge } from './gaps.ts'
import { limbShares } from './limbs.ts'
import { poseOf, type Pose } from './pose.ts'
import { momentsOf, type Moments } from './moments.ts'
import { fillPolygon, type Window } from './polygon.ts'
import { boxOfInk, paintInk, within, type Inked } from './inked.ts'
import { LINE_ALPHA, silhouette, type Mask } from './silhouette.ts'
import { solidityOf } from './solidity.ts'

/** Thinner lines are taken as this wide (in pixels of the mask), so that they hold the outside out; their tips too. */
const THINNEST_LINE = 2
/** Larger drawings are measured at a smaller scale: half a million pixels are enough for a tenth of a per cent of area. */
const LARGEST_MASK = 960 * 540

/** Outlines that stand open by no more than this, in paper pixels, or by the width of their line, count as closed. */
export const CLOSED_GAP_PX = 6
/** A gap is told when closing it would add more than this share to the area. */
const OPEN_ADDS = 0.08

/** What is told about a drawing besides its strokes. */
export interface Shaping {
  readonly closedGapPx?: number
  /** places in enclosed empty space that is not body: what can be reached from them without crossing a line is left out */
  readonly spaces?: readonly Point[]
  /** pictures on transparency that lie on it */
  readonly inks?: readonly Inked[]
  /** strokes of it that are limbs, by what they are labelled */
  readonly limbs?: ReadonlyMap<string, readonly PlacedStroke[]>
}

/** The silhouette of a drawing in figures; where its outline stands open, that place (then the area means little). */
export interface Shape extends Moments {
  readonly open: Point | null
  /** its outline wherever it lies and however large it is, to be held against others; where something is drawn */
  readonly pose?: Pose
  /** how much of its convex hull it fills, 0–1; where something is drawn */
  readonly solidity?: number
  /** where it lies, coarsely; where something is drawn */
  readonly coverage?: Coverage
  /** which share of its outline each limb makes, 0–1, by its label; where something is drawn */
  readonly limbs?: Readonly<Record<string, number>>
}

/**
 * Area, centre and axes of a drawing's silhouette in paper pixels: its strokes painted, and everything that the outside
 * cannot reach counted in. What lies off the paper is measured too. Nothing drawn gives an area of 0.
 */
export function shapeOf(strokes: readonly PlacedStroke[], how: Shaping = {}): Shape {
  const inks = how.inks ?? []
  const box = [...strokes.map(stroke => stroke.box), ...inks.map(boxOfInk)].reduce(unite, EMPTY_BOX)
  if (isEmptyBox(box)) return { area: 0, centroid: null, halfAxes: [0, 0], tiltRad: 0, open: null }
  const [w, h] = [box.right - box.left + 8, box.bottom - box.top + 8]
  const scale = Math.min(1, Math.sqrt(LARGEST_MASK / (w * h)))
  const window: Window = { left: Math.floor(box.left) - 4, top: Math.floor(box.top) - 4, scale }
  const width = Math.max(1, Math.ceil((w + 1) * scale))
  const height = Math.max(1, Math.ceil((h + 1) * scale))
  const alpha = new Uint8Array(width * height)
  const thinnest = THINNEST_LINE / scale
  const bridge = (into: Uint8Array, { from, to }: Bridge) =>
    fillPolygon(into, width, height, straight(from, to, thinnest), window)
  for (const stroke of strokes) paint(alpha, width, height, stroke, thinnest, window)
  const closedPx = how.closedGapPx ?? CLOSED_GAP_PX
  for (const ink of inks) paintInk(alpha, width, height, ink, window)
  const gaps = gapsOf(strokes, closedPx)
  for (const gap of gaps.closed) bridge(alpha, gap)
  const seeds = (how.spaces ?? []).map(({ x, y }) => ({
    x: Math.floor((x - window.left) * scale),
    y: Math.floor((y - window.top) * scale),
  }))
  // What a pencil leaves open in a picture has no ends that could be joined: it is closed by its width.
  const halfGap = inks.length > 0 ? Math.round((closedPx / 2) * scale) : 0
  const filled = (mask: Uint8Array): Mask =>
    halfGap > 0 ? closedSilhouette(mask, width, height, seeds, halfGap) : silhouette(mask, width, height, seeds)
  const body = filled(alpha)
  const moments = momentsOf(body)
  const open = gaps.open.find(gap => {
    const closed = alpha.slice()
    bridge(closed, gap)
    // What the bridge itself covers is not enclosed by it.
    const bridged = (gap.gapPx + thinnest) * thinnest * scale * scale
    const enclosed = momentsOf(filled(closed)).area - bridged - moments.area
    return enclosed > moments.area * OPEN_ADDS
  })
  const masked = (own: readonly PlacedStroke[]): Mask => {
    const limb = new Uint8Array(width * height)
    for (const stroke of own) paint(limb, width, height, stroke, thinnest, window)
    return silhouette(limb, width, height, seeds)
  }
  const coverage = coverageOf(body, window)
  const limbs = new Map([...(how.limbs ?? [])].map(([name, own]) => [name, masked(own)]))
  return {
    ...onPaper(moments, window),
    open: open ? middleOf(open) : null,
    pose: poseOf(body, moments),
    solidity: solidityOf(body, moments.area),
    ...(coverage && { coverage }),
    ...(limbs.size > 0 && { limbs: limbShares(body, limbs) }),
  }
}

/**
 * The silhouette of ink whose gaps are closed by half their width from either side: everything is made fatter by that, filled, and made leaner
 * again; the ink itself stays (closing, in the words of mathematical morphology: J. Serra, 1982).
 */
function closedSilhouette(alpha: Uint8Array, width: number, height: number, seeds: readonly Point[], by: number): Mask {
  const ink = alpha.map(value => (value >= LINE_ALPHA ? 1 : 0))
  const fat = within(ink, width, height, by, false)
  const full = silhouette(
    fat.map(value => 255 * value),
    width,
    height,
    seeds,
  ).inside
  const inside = within(full, width, height, by, true).map((value, i) => value | (ink[i] as number))
  return { width, height, inside }
}

function paint(
  alpha: Uint8Array,
  width: number,
  height: number,
  stroke: PlacedStroke,
  thinnest: number,
  window: Window,
): void {
  if (stroke.kind === 'shape') return fillPolygon(alpha, width, height, shapeOutline(stroke.samples), window)
  fillPolygon(alpha, width, height, lineOutline(stroke.samples, Math.max(stroke.width, thinnest), stroke.nib), window)
  const least = stroke.samples.reduce((p, s) => Math.min(p, s.pressure), 1)
  const thin = stroke.nib.ends === 'tapered' || widthAt(least, stroke.width, stroke.nib.thinning) < thinnest
  if (!thin) return
  // Piece by piece: the outline of a hair would be smoothed away from where the line runs.
  for (let i = 1; i < stroke.samples.length; i++) {
    const [a, b] = [stroke.samples[i - 1] as Point, stroke.samples[i] as Point]
    fillPolygon(alpha, width, height, straight(a, b, thinnest), window)
  }
}

/** A straight line of a width with square ends as a polygon. */
function straight(a: Point, b: Point, width: number): Float32Array {
  const length = distance(a, b)
  const half = width / 2
  const [ux, uy] = length === 0 ? [1, 0] : [(b.x - a.x) / length, (b.y - a.y) / length]
  const [nx, ny, ex, ey] = [-uy * half, ux * half, ux * half, uy * half]
  return Float32Array.of(
    a.x + nx - ex,
    a.y + ny - ey,
    b.x + nx + ex,
    b.y + ny + ey,
    b.x - nx + ex,
    b.y - ny + ey,
    a.x - nx - ex,
    a.y - ny - ey,
  )
}

function onPaper(m: Moments, { left, top, scale }: Window): Moments {
  return {
    area: m.area / (scale * scale),
    centroid: m.centroid && { x: left + m.centroid.x / scale, y: top + m.centroid.y / scale },
    halfAxes: [m.halfAxes[0] / scale, m.halfAxes[1] / scale],
    tiltRad: m.tiltRad,
  }
}
