import type { Format } from '@unhurried/core/document'
import {
  distance,
  isEmptyBox,
  lerp,
  map,
  pathLength,
  placeAlong,
  smoothPath,
  type Box,
  type Matrix,
  type Point,
} from '@unhurried/core/geometry'
import { cropTo, safeBox } from '@unhurried/core/work'
import { z } from 'zod'

/** Lines over the paper to draw by. They belong to the desk, not to the shot, and are never sent off. */
export interface PaperAids {
  readonly safe: boolean
  readonly thirds: boolean
  readonly rulers: boolean
  /** the box of everything drawn on the layer, with the room left above it */
  readonly room: boolean
  /** paper pixels between the lines of a grid */
  readonly grid: number | null
  /** height of the horizon and of the ground, paper pixels from the top */
  readonly horizon: number | null
  readonly ground: number | null
  /** ways to draw along: each through a start, a top and an end, in paper pixels */
  readonly arcs: readonly Arc[]
  /** a length that is told in metres: from foot to crown, say */
  readonly length: readonly [from: Point, to: Point] | null
  /** everything outside is covered: the whole picture, or what filling another shape leaves of it */
  readonly crop: Crop | null
}

export type Arc = readonly Point[]
export const MOST_ARCS = 6

/** Shapes a picture is cut to, by how many parts they are wide and high. */
export const CROPS = { frame: null, wide: [16, 9], square: [1, 1], portrait: [4, 5], tall: [9, 16] } as const
export type Crop = keyof typeof CROPS

export const NO_AIDS: PaperAids = {
  safe: false,
  thirds: false,
  rulers: false,
  room: false,
  grid: null,
  horizon: null,
  ground: null,
  arcs: [],
  length: null,
  crop: null,
}
export const GRID_PX = { least: 8, fresh: 80, most: 1000 }

export const CROP_NAMES = Object.keys(CROPS) as Crop[]
/** What a crop leaves of a picture, in paper pixels. */
export function cropBox(format: Pick<Format, 'width' | 'height'>, crop: Crop): Box {
  const shape = CROPS[crop]
  return shape
    ? cropTo(format, { width: shape[0], height: shape[1] })
    : { left: 0, top: 0, right: format.width, bottom: format.height }
}

/** A new arc: along the way of the drawings when it is known, else over the middle of the paper. */
export function freshArc({ width, height }: Pick<Format, 'width' | 'height'>, way: readonly Point[]): Arc {
  const [first, middle, last] = [way[0], way[Math.floor(way.length / 2)], way[way.length - 1]]
  if (first && middle && last && way.length > 2)
    return [first, middle, last].map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }))
  return [
    { x: Math.round(width * 0.2), y: Math.round(height * 0.75) },
    { x: Math.round(width * 0.5), y: Math.round(height * 0.3) },
    { x: Math.round(width * 0.8), y: Math.round(height * 0.75) },
  ]
}

const within = (least: number, most: number) => z.number().min(least).max(most).nullable().catch(null)
const Place = z.object({ x: z.number(), y: z.number() }).readonly()

/** Aids as they were kept from another evening; what cannot be read is off. */
export const Aids: z.ZodType<PaperAids> = z.preprocess(
  stored => stored ?? {},
  z
    .object({
      safe: z.boolean().catch(false),
      thirds: z.boolean().catch(false),
      rulers: z.boolean().catch(false),
      room: z.boolean().catch(false),
      grid: within(GRID_PX.least, GRID_PX.most),
      horizon: within(-1e5, 1e5),
      ground: within(-1e5, 1e5),
      arcs: z
        .array(z.array(Place).length(3).readonly().nullable().catch(null))
        .transform(arcs => arcs.filter(arc => arc !== null).slice(0, MOST_ARCS))
        .readonly()
        .catch([]),
      length: z.tuple([Place, Place]).readonly().nullable().catch(null),
      crop: z.enum(CROP_NAMES).nullable().catch(null),
    })
    .catch(NO_AIDS),
)

const [FAINT, GROUND, HORIZON] = ['rgba(116, 108, 94, 0.32)', '#a44d24', '#5b7f95']
const ARC = 'rgba(116, 108, 94, 0.8)'
const ARC_TICK_PX = 5
const RULER_STEP_PX = 20
const MOST_LINES = 400

/** Paints aids at a constant thickness on the screen. `everything` is the box of all that is drawn on the layer. */
export function paintAids(
  canvas: HTMLCanvasElement,
  matrix: Matrix,
  density: number,
  format: Format,
  aids: PaperAids,
  everything: Box,
): void {
  const brush = canvas.getContext('2d')
  if (!brush) return
  const { width, height } = format
  brush.setTransform(density, 0, 0, density, 0, 0)
  brush.globalAlpha = 1
  brush.lineWidth = 1
  const trace = (points: readonly Point[], close = false) => {
    brush.beginPath()
    points.forEach((p, i) => {
      const { x, y } = map(matrix, p)
      if (i === 0) brush.moveTo(x, y)
      else brush.lineTo(x, y)
    })
    if (close) brush.closePath()
    brush.stroke()
  }
  const upright = (x: number, from = 0, to = height) =>
    trace([
      { x, y: from },
      { x, y: to },
    ])
  const level = (y: number, from = 0, to = width) =>
    trace([
      { x: from, y },
      { x: to, y },
    ])
  const boxed = (box: Box) => trace(corners(box), true)
  const write = (words: string, at: Point, colour: string, dx = 0, dy = -5) => {
    const { x, y } = map(matrix, at)
    brush.font = '11px "Atkinson Hyperlegible", sans-serif'
    brush.fillStyle = colour
    brush.fillText(words, x + dx, y + dy)
  }

  brush.strokeStyle = FAINT
  if (aids.grid !== null && (width + height) / aids.grid < MOST_LINES) {
    for (let x = aids.grid; x < width; x += aids.grid) upright(x)
    for (let y = aids.grid; y < height; y += aids.grid) level(y)
  }
  if (aids.thirds) {
    for (const share of [1 / 3, 2 / 3]) {
      upright(width * share)
      level(height * share)
    }
  }
  if (aids.safe) {
    brush.setLineDash([6, 5])
    boxed(safeBox(width, height))
    brush.setLineDash([])
  }
  if (aids.rulers) {
    brush.strokeStyle = 'rgba(116, 108, 94, 0.7)'
    for (let x = 0, i = 0; x <= width; x += RULER_STEP_PX, i++) {
      upright(x, 0, i % 5 ? -6 : -12)
      if (i % 5 === 0) write(String(x), { x, y: -12 }, '#746c5e', 2, -2)
    }
    for (let y = 0, i = 0; y <= height; y += RULER_STEP_PX, i++) {
      level(y, 0, i % 5 ? -6 : -12)
      if (i % 5 === 0 && i > 0) write(String(y), { x: 0, y }, '#746c5e', 4, 4)
    }
  }
  if (aids.horizon !== null) {
    brush.strokeStyle = HORIZON
    brush.setLineDash([10, 4, 2, 4])
    level(aids.horizon)
    brush.setLineDash([])
    write(`horizon ${Math.round(aids.horizon)}`, { x: 0, y: aids.horizon }, HORIZON, 14)
  }
  if (aids.ground !== null) {
    brush.strokeStyle = GROUND
    level(aids.ground)
    write(`ground ${Math.round(aids.ground)}`, { x: 0, y: aids.ground }, GROUND, 14)
  }
  brush.strokeStyle = ARC
  brush.lineWidth = 1.2
  for (const arc of aids.arcs) {
    const path = smoothPath(arc)
    trace(path.points)
    for (const share of [0.25, 0.5, 0.75]) {
      const at = share * pathLength(path)
      const [before, after] = [map(matrix, placeAlong(path, at - 1)), map(matrix, placeAlong(path, at + 1))]
      crossTick(brush, before, after)
    }
  }
  if (aids.length) {
    const [from, to] = aids.length
    trace([from, to])
    const [a, b] = [map(matrix, from), map(matrix, to)]
    crossTick(brush, lerp(b, a, 2), b)
    crossTick(brush, a, lerp(a, b, 2))
    write(`${Math.round(distance(from, to))} px`, lerp(from, to, 0.5), '#746c5e', 8, 4)
  }
  brush.lineWidth = 1
  if (aids.room && !isEmptyBox(everything)) {
    brush.strokeStyle = '#3c6a55'
    brush.setLineDash([3, 4])
    boxed(everything)
    brush.setLineDash([])
    const words = `head room ${Math.round(everything.top)} px (${Math.round((everything.top / height) * 100)} %)`
    write(words, { x: everything.left, y: everything.top }, '#3c6a55')
  }
  if (aids.crop) {
    // Under everything written here, over everything drawn.
    brush.globalCompositeOperation = 'destination-over'
    coverOutside(
      brush,
      corners(cropBox(format, aids.crop)).map(p => map(matrix, p)),
    )
    brush.globalCompositeOperation = 'source-over'
  }
}

const corners = ({ left, top, right, bottom }: Box): Point[] => [
  { x: left, y: top },
  { x: right, y: top },
  { x: right, y: bottom },
  { x: left, y: bottom },
]

/** A short stroke across a way, half-way between two points of it. */
function crossTick(brush: CanvasRenderingContext2D, a: Point, b: Point): void {
  const length = distance(a, b) || 1
  const [nx, ny] = [((b.y - a.y) / length) * ARC_TICK_PX, (-(b.x - a.x) / length) * ARC_TICK_PX]
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2]
  brush.beginPath()
  brush.moveTo(x - nx, y - ny)
  brush.lineTo(x + nx, y + ny)
  brush.stroke()
}

/** Covers everything but a shape, given by its corners on the screen, with the colour of the desk. */
function coverOutside(brush: CanvasRenderingContext2D, hole: readonly Point[]): void {
  const { canvas } = brush
  brush.fillStyle = getComputedStyle(canvas).getPropertyValue('--desk') || '#e7e1d4'
  brush.beginPath()
  brush.rect(0, 0, canvas.width, canvas.height)
  hole.forEach((p, i) => (i === 0 ? brush.moveTo(p.x, p.y) : brush.lineTo(p.x, p.y)))
  brush.closePath()
  brush.fill('evenodd')
}
