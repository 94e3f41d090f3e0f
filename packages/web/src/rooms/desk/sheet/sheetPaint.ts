import { isBlank, type Layer, type Role } from '@unhurried/core/document'
import type { ColumnInSight, SeenCycle, SeenRun } from './sheetSight.ts'
import type { SheetDrag } from './useSheetHand.ts'

/** Where a column of the sheet lies, in pixels from the left of all columns. */
export interface ColumnPlace {
  readonly left: number
  readonly width: number
}

/** A column as it is to be painted. */
export interface PaintedColumn extends ColumnPlace, ColumnInSight {
  readonly layer: Layer
  /** hidden on the desk: its exposures are faint */
  readonly unseen: boolean
  /** what is being dragged on it */
  readonly drag: SheetDrag | null
}

/** The colours and the typeface of the sheet, read from the theme. */
export interface SheetInks {
  readonly ink: string
  readonly soft: string
  readonly hold: string
  readonly repeatedHold: string
  readonly repeated: string
  readonly shared: string
  readonly cycle: string
  readonly face: string
}

/** Middle of a drawing's number, below the top of its first row, in pixels. */
const NUMBER_Y = 11
const RING = { height: 18, least: 21 }

/** The inks of the theme that is on where `element` stands. */
export function inksOf(element: Element): SheetInks {
  const style = getComputedStyle(element)
  const colour = (name: string) => style.getPropertyValue(name).trim()
  return {
    ink: colour('--ink'),
    soft: colour('--soft'),
    hold: colour('--hold'),
    repeatedHold: colour('--rule'),
    repeated: colour('--soft'),
    shared: colour('--green'),
    cycle: colour('--past'),
    face: style.fontFamily,
  }
}

/** The role a number is written in: drawings of a background, and sheets under a line drawing, are only counted. */
const roleOf = (layer: Layer, run: SeenRun): Role =>
  layer.kind === 'background' || layer.follows ? 'inbetween' : (run.sheet?.role ?? 'inbetween')

function inkOf(layer: Layer, run: SeenRun, inks: SheetInks): string {
  if (run.repeated) return inks.repeated
  return layer.kind !== 'drawn' || layer.follows || layer.locked || (run.sheet && isBlank(run.sheet))
    ? inks.soft
    : inks.ink
}

const widths = new Map<string, number>()

/** Width of a number in pixels: hundreds are written at once, and measuring each takes as long as writing it. */
function widthOf(pen: CanvasRenderingContext2D, text: string): number {
  const key = `${pen.font} ${text}`
  const known = widths.get(key)
  if (known !== undefined) return known
  const { width } = pen.measureText(text)
  if (widths.size > 5000) widths.clear()
  widths.set(key, width)
  return width
}

/** A number by the paper convention: a key is ringed, a breakdown underlined. */
function paintNumber(
  pen: CanvasRenderingContext2D,
  text: string,
  role: Role,
  x: number,
  y: number,
  wantsWidth: boolean,
): number {
  pen.fillText(text, x, y + 0.5)
  if (role === 'inbetween' && !wantsWidth) return 0
  const half = widthOf(pen, text) / 2
  if (role === 'key') {
    const width = Math.max(RING.least, half * 2 + 9)
    pen.lineWidth = 1.3
    pen.beginPath()
    pen.roundRect(x - width / 2, y - RING.height / 2, width, RING.height, RING.height / 2)
    pen.stroke()
    return width / 2
  }
  if (role === 'breakdown') pen.fillRect(x - half - 1, y + 7, half * 2 + 2, 2)
  return half
}

function paintRun(
  pen: CanvasRenderingContext2D,
  column: PaintedColumn,
  run: SeenRun,
  rowPx: number,
  top: number,
  inks: SheetInks,
): void {
  const { drag, layer } = column
  const frames = drag?.kind === 'hold' && drag.start === run.start ? drag.frames : run.frames
  const x = Math.round(column.left + column.width / 2)
  const y = run.start * rowPx - top
  if (frames > 1) {
    pen.fillStyle = run.repeated ? inks.repeatedHold : inks.hold
    pen.fillRect(x, y + 22, 1, frames * rowPx - 25)
  }
  pen.fillStyle = pen.strokeStyle = inkOf(layer, run, inks)
  const half = paintNumber(pen, String(run.sheet?.number ?? ''), roleOf(layer, run), x + 0.5, y + NUMBER_Y, run.shared)
  if (run.shared) {
    pen.fillStyle = inks.shared
    pen.fillText('=', x + half + 8, y + NUMBER_Y + 0.5)
  }
}

/** A bracket along what a linked cycle covers, dotted where its turns begin. */
function paintCycle(
  pen: CanvasRenderingContext2D,
  left: number,
  { from, to, turns }: SeenCycle,
  rowPx: number,
  top: number,
  inks: SheetInks,
): void {
  const [a, b] = [from * rowPx + 2 - top, to * rowPx - 2 - top]
  pen.strokeStyle = inks.cycle
  pen.lineWidth = 1.4
  pen.setLineDash([])
  pen.beginPath()
  pen.moveTo(left + 9, a)
  pen.arcTo(left + 4, a, left + 4, a + 5, 5)
  pen.arcTo(left + 4, b, left + 9, b, 5)
  pen.lineTo(left + 9, b)
  pen.stroke()
  pen.setLineDash([1.5, 1.5])
  pen.beginPath()
  for (const turn of turns) {
    pen.moveTo(left + 3, turn * rowPx - top)
    pen.lineTo(left + 10, turn * rowPx - top)
  }
  pen.stroke()
  pen.setLineDash([])
}

/** A lozenge at the right of a column: here the layer as a whole has a place of its own. */
function paintPlace(pen: CanvasRenderingContext2D, right: number, y: number): void {
  pen.fillStyle = PLACE_COLOUR
  pen.beginPath()
  pen.moveTo(right - 7, y)
  pen.lineTo(right - 3.5, y - 4.5)
  pen.lineTo(right, y)
  pen.lineTo(right - 3.5, y + 4.5)
  pen.fill()
}
const PLACE_COLOUR = '#8a5a86'

/** A bracket at the right of a column, along what a guide covers: dotted, as what is only worked out. */
function paintGuide(
  pen: CanvasRenderingContext2D,
  right: number,
  [from, to]: readonly [number, number],
  rowPx: number,
  top: number,
  inks: SheetInks,
): void {
  const [a, b] = [from * rowPx + 3 - top, to * rowPx - 3 - top]
  pen.strokeStyle = inks.shared
  pen.lineWidth = 1.2
  pen.setLineDash([2, 2.5])
  pen.beginPath()
  pen.moveTo(right - 8, a)
  pen.lineTo(right - 3.5, a)
  pen.lineTo(right - 3.5, b)
  pen.lineTo(right - 8, b)
  pen.stroke()
  pen.setLineDash([])
}

/**
 * Writes columns of the exposure sheet. `pen` is in pixels of the page with its origin at the left of all columns and at
 * `top` pixels below the first frame; rows are `rowPx` high. Hundreds of exposures come into sight with every turn of the
 * wheel: written on a canvas they take a few milliseconds.
 */
export function paintColumns(
  pen: CanvasRenderingContext2D,
  columns: readonly PaintedColumn[],
  rowPx: number,
  top: number,
  inks: SheetInks,
): void {
  pen.font = `12.5px ${inks.face}`
  pen.textAlign = 'center'
  pen.textBaseline = 'middle'
  for (const column of columns) {
    pen.globalAlpha = column.unseen ? 0.45 : 1
    for (const cycle of column.cycles) paintCycle(pen, column.left, cycle, rowPx, top, inks)
    const right = column.left + column.width
    for (const guide of column.guides) paintGuide(pen, right, guide, rowPx, top, inks)
    for (const frame of column.places) paintPlace(pen, right, (frame + 0.5) * rowPx - top)
    for (const run of column.runs) paintRun(pen, column, run, rowPx, top, inks)
  }
  pen.globalAlpha = 1
}

/** How near to the end of a hold, in pixels, the pointer takes hold of it. */
const GRIP_PX = 5

/** The exposure whose end lies at `y` pixels below the first frame. */
export function endAt(runs: readonly SeenRun[], y: number, rowPx: number): SeenRun | null {
  return runs.find(run => Math.abs((run.start + run.frames) * rowPx - y) < GRIP_PX) ?? null
}

/** The key whose ring is at `x` pixels from the middle of the column and `y` pixels below the first frame. */
export function keyAt(layer: Layer, runs: readonly SeenRun[], x: number, y: number, rowPx: number): SeenRun | null {
  if (Math.abs(x) > RING.least / 2 + 3) return null
  const run = runs.find(r => Math.abs(r.start * rowPx + NUMBER_Y - y) <= RING.height / 2)
  return run && roleOf(layer, run) === 'key' ? run : null
}
