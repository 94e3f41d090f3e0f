import { CUT_NAMES, type Format } from '@unhurried/core/document'
import {
  cornersOf,
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
import { cutBox, safeBox } from '@unhurried/core/work'
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
  /** parts of a grid of proportions across the paper, and across what stands beside it */
  readonly cells: number | null
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

/** What is left of the picture: all of it (its frame), or a shape it is cut to. */
export const CROP_NAMES = ['frame', ...CUT_NAMES] as const
export type Crop = (typeof CROP_NAMES)[number]

export const NO_AIDS: PaperAids = {
  safe: false,
  thirds: false,
  rulers: false,
  room: false,
  grid: null,
  cells: null,
  horizon: null,
  ground: null,
  arcs: [],
  length: null,
  crop: null,
}
export const CELLS = { least: 2, fresh: 4, most: 24 } as const
export const GRID_PX = { least: 8, fresh: 80, most: 1000 }

/** What a crop leaves of a picture, in paper pixels. */
export const cropBox = (format: Pick<Format, 'width' | 'height'>, crop: Crop): Box =>
  crop === 'frame' ? { left: 0, top: 0, right: format.width, bottom: format.height } : cutBox(format, crop)

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
      cells: z.number().int().min(CELLS.least).max(CELLS.most).nullable().catch(null),
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
const [RULER, WORDS, ROOM] = ['rgba(116, 108, 94, 0.7)', '#746c5e', '#3c6a55']
const [ARC_WIDTH_PX, ARC_TICK_PX] = [1.2, 5]
const RULER_STEP_PX = 20
const MOST_LINES = 400

/** A brush that draws over the paper at a constant thickness on the screen. */
function aidBrush(brush: CanvasRenderingContext2D, matrix: Matrix, { width, height }: Format) {
  const onScreen = (p: Point): Point => map(matrix, p)
  const trace = (points: readonly Point[], close = false): void => {
    brush.beginPath()
    points.forEach((p, i) => {
      const { x, y } = onScreen(p)
      if (i === 0) brush.moveTo(x, y)
      else brush.lineTo(x, y)
    })
    if (close) brush.closePath()
    brush.stroke()
  }
  return {
    brush,
    onScreen,
    trace,
    upright(x: number, from = 0, to = height): void {
      trace([
        { x, y: from },
        { x, y: to },
      ])
    },
    level(y: number, from = 0, to = width): void {
      trace([
        { x: from, y },
        { x: to, y },
      ])
    },
    boxed: (box: Box): void => trace(cornersOf(box), true),
    dashed(pattern: number[], draw: () => void): void {
      brush.setLineDash(pattern)
      draw()
      brush.setLineDash([])
    },
    write(words: string, at: Point, colour: string, dx = 0, dy = -5): void {
      const { x, y } = onScreen(at)
      brush.font = '11px "Atkinson Hyperlegible", sans-serif'
      brush.fillStyle = colour
      brush.fillText(words, x + dx, y + dy)
    },
  }
}
type AidBrush = ReturnType<typeof aidBrush>

/** What there is to be painted of aids. */
interface AidsOn {
  readonly aids: PaperAids
  readonly format: Format
  /** the box of all that is drawn on the layer */
  readonly everything: Box
}

/** The painter of every aid; those written first lie under the others. */
const PAINTERS: Record<keyof PaperAids, (on: AidBrush, what: AidsOn) => void> = {
  grid({ upright, level }, { aids: { grid }, format: { width, height } }) {
    if (grid === null || (width + height) / grid >= MOST_LINES) return
    for (let x = grid; x < width; x += grid) upright(x)
    for (let y = grid; y < height; y += grid) level(y)
  },
  cells({ brush, upright, level }, { aids: { cells }, format: { width, height } }) {
    if (cells === null) return
    brush.strokeStyle = HORIZON
    const side = width / cells
    for (let i = 1; i < cells; i++) upright(i * side)
    for (let y = side; y < height - 1e-6; y += side) level(y)
  },
  thirds({ upright, level }, { aids, format }) {
    for (const share of aids.thirds ? [1 / 3, 2 / 3] : []) {
      upright(format.width * share)
      level(format.height * share)
    }
  },
  safe({ dashed, boxed }, { aids, format }) {
    if (aids.safe) dashed([6, 5], () => boxed(safeBox(format.width, format.height)))
  },
  rulers({ brush, upright, level, write }, { aids, format: { width, height } }) {
    if (!aids.rulers) return
    brush.strokeStyle = RULER
    for (let x = 0, i = 0; x <= width; x += RULER_STEP_PX, i++) {
      upright(x, 0, i % 5 ? -6 : -12)
      if (i % 5 === 0) write(String(x), { x, y: -12 }, WORDS, 2, -2)
    }
    for (let y = 0, i = 0; y <= height; y += RULER_STEP_PX, i++) {
      level(y, 0, i % 5 ? -6 : -12)
      if (i % 5 === 0 && i > 0) write(String(y), { x: 0, y }, WORDS, 4, 4)
    }
  },
  horizon({ brush, dashed, level, write }, { aids: { horizon } }) {
    if (horizon === null) return
    brush.strokeStyle = HORIZON
    dashed([10, 4, 2, 4], () => level(horizon))
    write(`horizon ${Math.round(horizon)}`, { x: 0, y: horizon }, HORIZON, 14)
  },
  ground({ brush, level, write }, { aids: { ground } }) {
    if (ground === null) return
    brush.strokeStyle = GROUND
    level(ground)
    write(`ground ${Math.round(ground)}`, { x: 0, y: ground }, GROUND, 14)
  },
  arcs({ brush, trace, onScreen }, { aids: { arcs } }) {
    brush.lineWidth = ARC_WIDTH_PX
    for (const arc of arcs) {
      const path = smoothPath(arc)
      trace(path.points)
      for (const share of [0.25, 0.5, 0.75]) {
        const at = share * pathLength(path)
        crossTick(brush, onScreen(placeAlong(path, at - 1)), onScreen(placeAlong(path, at + 1)))
      }
    }
  },
  length({ brush, trace, onScreen, write }, { aids: { length } }) {
    if (!length) return
    const [from, to] = length
    brush.lineWidth = ARC_WIDTH_PX
    trace([from, to])
    const [a, b] = [onScreen(from), onScreen(to)]
    crossTick(brush, lerp(b, a, 2), b)
    crossTick(brush, a, lerp(a, b, 2))
    write(`${Math.round(distance(from, to))} px`, lerp(from, to, 0.5), WORDS, 8, 4)
  },
  room({ brush, dashed, boxed, write }, { aids, format, everything }) {
    if (!aids.room || isEmptyBox(everything)) return
    brush.strokeStyle = ROOM
    dashed([3, 4], () => boxed(everything))
    const { left: x, top: y } = everything
    write(`head room ${Math.round(y)} px (${Math.round((y / format.height) * 100)} %)`, { x, y }, ROOM)
  },
  crop({ brush, onScreen }, { aids, format }) {
    if (!aids.crop) return
    // Under everything written here, over everything drawn.
    brush.globalCompositeOperation = 'destination-over'
    coverOutside(brush, cornersOf(cropBox(format, aids.crop)).map(onScreen))
    brush.globalCompositeOperation = 'source-over'
  },
}
/** The colour that an aid is begun with. */
const COLOURS: Partial<Record<keyof PaperAids, string>> = { arcs: ARC, length: ARC }

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
  brush.setTransform(density, 0, 0, density, 0, 0)
  brush.globalAlpha = 1
  const on = aidBrush(brush, matrix, format)
  for (const [name, paint] of Object.entries(PAINTERS)) {
    brush.lineWidth = 1
    brush.strokeStyle = COLOURS[name as keyof PaperAids] ?? FAINT
    paint(on, { aids, format, everything })
  }
}

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
