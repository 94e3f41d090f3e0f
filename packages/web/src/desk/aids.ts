import type { Format } from '@unhurried/core/document'
import { isEmptyBox, map, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import { safeBox } from '@unhurried/core/work'

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
}

export const NO_AIDS: PaperAids = {
  safe: false,
  thirds: false,
  rulers: false,
  room: false,
  grid: null,
  horizon: null,
  ground: null,
}
export const GRID_PX = { least: 8, fresh: 80, most: 1000 }

/** Aids kept from another evening; what cannot be read is off. */
export function aidsFrom(stored: unknown): PaperAids {
  const given = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>
  const number = (value: unknown, least: number, most: number) =>
    typeof value === 'number' && value >= least && value <= most ? value : null
  return {
    safe: given.safe === true,
    thirds: given.thirds === true,
    rulers: given.rulers === true,
    room: given.room === true,
    grid: number(given.grid, GRID_PX.least, GRID_PX.most),
    horizon: number(given.horizon, -1e5, 1e5),
    ground: number(given.ground, -1e5, 1e5),
  }
}

const [FAINT, GROUND, HORIZON] = ['rgba(116, 108, 94, 0.32)', '#a44d24', '#5b7f95']
const RULER_STEP_PX = 20
const MOST_LINES = 400

/** Paints aids at a constant thickness on the screen. `everything` is the box of all that is drawn on the layer. */
export function paintAids(
  canvas: HTMLCanvasElement,
  matrix: Matrix,
  density: number,
  { width, height }: Format,
  aids: PaperAids,
  everything: Box,
): void {
  const brush = canvas.getContext('2d')
  if (!brush) return
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
  const boxed = (box: Box) =>
    trace(
      [
        { x: box.left, y: box.top },
        { x: box.right, y: box.top },
        { x: box.right, y: box.bottom },
        { x: box.left, y: box.bottom },
      ],
      true,
    )
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
  if (aids.room && !isEmptyBox(everything)) {
    brush.strokeStyle = '#3c6a55'
    brush.setLineDash([3, 4])
    boxed(everything)
    brush.setLineDash([])
    const words = `head room ${Math.round(everything.top)} px (${Math.round((everything.top / height) * 100)} %)`
    write(words, { x: everything.left, y: everything.top }, '#3c6a55')
  }
}
