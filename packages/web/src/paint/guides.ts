import { distance, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { writeNames, type WrittenName } from './labels.ts'

/** A place where the chart wants a drawing's middle. */
export interface GuideMark {
  readonly at: Point
  readonly present: boolean
}

/** What is written beside a drawing that shows through. */
export interface GhostNumber {
  /** the top of the drawing, in paper pixels */
  readonly at: Point
  readonly words: string
  readonly side: 'past' | 'future'
  /** it shows through from the other side of the loop */
  readonly wraps: boolean
}

/** A named mark: where it lies on a drawing, or where it belongs on the present one. */
export interface MarkSign {
  readonly at: Point
  readonly name: string
  readonly kind: 'placed' | 'before' | 'after' | 'cross' | 'proposed'
  /** the mark that is being placed */
  readonly chosen: boolean
}

/** Where a planted mark was set down, and where it lies on the present drawing. */
export interface GroundSign {
  readonly anchor: Point
  /** null: not placed yet */
  readonly at: Point | null
  readonly slips: boolean
}

/** Marks over the drawing, never part of it. */
export interface Guides {
  readonly numbers: readonly GhostNumber[]
  readonly signs: readonly MarkSign[]
  /** other names over the paper, where they lie on the screen */
  readonly parts: readonly WrittenName[]
  readonly grounds: readonly GroundSign[]
  /** from the drawing that is most off to its place, while it is the present one */
  readonly correction: { readonly from: Point; readonly to: Point } | null
  /** the way from key to key, fine enough to be drawn as dots */
  readonly way: readonly Point[]
  readonly marks: readonly GuideMark[]
  /** what is found on the present drawing, by its number in the list */
  readonly found: readonly { readonly at: Point; readonly words: string }[]
  /** where the outline of the present drawing stands open */
  readonly open: Point | null
  /** where the present drawing's middle really lies */
  readonly middle: Point | null
}

const GREEN = '#3c6a55'
const RUST = '#a44d24'
const ARM_PX = 6
const RING_PX = 15

/** Paints guides at a constant size on the screen, however near the paper is. */
export function paintGuides(canvas: HTMLCanvasElement, matrix: Matrix, density: number, guides: Guides): void {
  const brush = canvas.getContext('2d')
  if (!brush) return
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, canvas.width, canvas.height)
  brush.setTransform(density, 0, 0, density, 0, 0)
  const onScreen = (p: Point) => map(matrix, p)

  brush.strokeStyle = GREEN
  brush.globalAlpha = 0.75
  brush.lineWidth = 1.1
  brush.setLineDash([1.5, 4])
  brush.beginPath()
  guides.way.map(onScreen).forEach((p, i) => (i === 0 ? brush.moveTo(p.x, p.y) : brush.lineTo(p.x, p.y)))
  brush.stroke()
  brush.setLineDash([])

  for (const mark of guides.marks) {
    const { x, y } = onScreen(mark.at)
    brush.globalAlpha = mark.present ? 1 : 0.7
    brush.lineWidth = mark.present ? 2.2 : 1.1
    brush.beginPath()
    brush.moveTo(x - ARM_PX, y)
    brush.lineTo(x + ARM_PX, y)
    brush.moveTo(x, y - ARM_PX)
    brush.lineTo(x, y + ARM_PX)
    brush.stroke()
  }
  if (guides.middle) {
    const { x, y } = onScreen(guides.middle)
    brush.globalAlpha = 1
    brush.fillStyle = RUST
    brush.beginPath()
    brush.arc(x, y, 3, 0, 2 * Math.PI)
    brush.fill()
  }
  if (guides.open) paintOpen(brush, onScreen(guides.open))
  for (const number of guides.numbers) paintNumber(brush, number, onScreen(number.at))
  for (const ground of guides.grounds) paintGround(brush, ground, onScreen)
  for (const { at, words } of guides.found) paintRing(brush, words, onScreen(at))
  for (const sign of guides.signs) paintSign(brush, sign, onScreen(sign.at))
  paintNames(brush, guides, onScreen)
  if (guides.correction) paintArrow(brush, onScreen(guides.correction.from), onScreen(guides.correction.to))
  brush.globalAlpha = 1
}

/** A ring round a place, and its number in the list. */
function paintRing(brush: CanvasRenderingContext2D, words: string, { x, y }: Point): void {
  brush.globalAlpha = 1
  brush.lineWidth = 1.8
  brush.strokeStyle = RUST
  brush.beginPath()
  brush.arc(x, y, RING_PX, 0, 2 * Math.PI)
  brush.stroke()
  writeNames(brush, [{ name: words, at: { x: x + RING_PX, y: y - RING_PX }, colour: RUST }])
}

/** Two short bars that do not meet, and the words: here the outside gets in. */
function paintOpen(brush: CanvasRenderingContext2D, { x, y }: Point): void {
  brush.globalAlpha = 1
  brush.strokeStyle = RUST
  brush.fillStyle = RUST
  brush.lineWidth = 1.6
  brush.beginPath()
  brush.arc(x, y, 10, 0.35 * Math.PI, 0.8 * Math.PI)
  brush.moveTo(x + 10 * Math.cos(1.35 * Math.PI), y + 10 * Math.sin(1.35 * Math.PI))
  brush.arc(x, y, 10, 1.35 * Math.PI, 1.8 * Math.PI)
  brush.stroke()
  brush.font = '12px "Atkinson Hyperlegible", sans-serif'
  brush.fillText('outline open here', x + 14, y + 4)
}

/** The number of a drawing that shows through: past ones on a wash, future ones framed. */
function paintNumber(brush: CanvasRenderingContext2D, { words, side }: GhostNumber, { x, y }: Point): void {
  brush.globalAlpha = 1
  brush.font = '700 12px "Atkinson Hyperlegible", sans-serif'
  brush.textAlign = 'center'
  const half = brush.measureText(words).width / 2 + 5
  brush.fillStyle = side === 'past' ? '#e9e1d2' : '#fdfaf3'
  brush.strokeStyle = side === 'past' ? PAST : FUTURE
  brush.lineWidth = 1.2
  brush.beginPath()
  brush.roundRect(x - half, y - 24, 2 * half, 17, 5)
  brush.fill()
  if (side === 'future') brush.stroke()
  brush.fillStyle = side === 'past' ? PAST : FUTURE
  brush.fillText(words, x, y - 11)
  brush.textAlign = 'start'
}

const [PAST, FUTURE, SIGN_PX, GROUND_PX] = ['#7d6e58', '#46687c', 5, 11]

/** Placed: a filled ring. Before: a half-filled one, after: a hollow one, so that they differ without hue. Cross: where it belongs. Proposed: a broken ring. */
function paintSign(brush: CanvasRenderingContext2D, { kind, chosen }: MarkSign, { x, y }: Point): void {
  const colour = { placed: RUST, before: PAST, after: FUTURE, cross: GREEN, proposed: RUST }[kind]
  brush.globalAlpha = kind === 'placed' || kind === 'cross' ? 1 : 0.85
  brush.strokeStyle = colour
  brush.fillStyle = colour
  brush.lineWidth = chosen ? 2.2 : 1.3
  brush.beginPath()
  if (kind === 'cross') {
    brush.moveTo(x - SIGN_PX, y - SIGN_PX)
    brush.lineTo(x + SIGN_PX, y + SIGN_PX)
    brush.moveTo(x + SIGN_PX, y - SIGN_PX)
    brush.lineTo(x - SIGN_PX, y + SIGN_PX)
    brush.stroke()
  } else {
    const r = kind === 'placed' ? SIGN_PX : kind === 'proposed' ? 2 * SIGN_PX : 3.5
    if (kind === 'proposed') brush.setLineDash([4, 3])
    brush.arc(x, y, r, 0, 2 * Math.PI)
    brush.stroke()
    brush.setLineDash([])
    brush.beginPath()
    if (kind === 'placed' || kind === 'proposed') brush.arc(x, y, 1.6, 0, 2 * Math.PI)
    if (kind === 'before') brush.arc(x, y, r, Math.PI / 2, 1.5 * Math.PI)
    brush.fill()
  }
}

/** The names of marks that are placed or belong somewhere, and those of parts. */
function paintNames(
  brush: CanvasRenderingContext2D,
  { signs, parts }: Pick<Guides, 'signs' | 'parts'>,
  onScreen: (p: Point) => Point,
): void {
  brush.globalAlpha = 1
  const named = signs.filter(({ kind }) => kind === 'placed' || kind === 'cross')
  const marks = named.map(({ name, kind, at }) => ({
    name,
    at: onScreen(at),
    colour: kind === 'placed' ? RUST : GREEN,
  }))
  writeNames(brush, [...marks, ...parts])
}

/** A piece of ground under the place where a mark was set down; a mark that slips is tied to it by a line. */
function paintGround(
  brush: CanvasRenderingContext2D,
  { anchor, at, slips }: GroundSign,
  onScreen: (p: Point) => Point,
): void {
  const { x, y } = onScreen(anchor)
  brush.globalAlpha = 1
  brush.strokeStyle = slips ? RUST : GREEN
  brush.lineWidth = 1.4
  brush.setLineDash(at ? [] : [3, 2])
  brush.beginPath()
  brush.moveTo(x - GROUND_PX, y + SIGN_PX)
  brush.lineTo(x + GROUND_PX, y + SIGN_PX)
  for (let i = -2; i <= 1; i++) {
    brush.moveTo(x + i * 5 + 5, y + SIGN_PX)
    brush.lineTo(x + i * 5 + 1, y + SIGN_PX + 5)
  }
  brush.stroke()
  brush.setLineDash([])
  if (!at || !slips) return
  const place = onScreen(at)
  brush.lineWidth = 2
  brush.beginPath()
  brush.moveTo(x, y)
  brush.lineTo(place.x, place.y)
  brush.stroke()
}

function paintArrow(brush: CanvasRenderingContext2D, a: Point, b: Point): void {
  const length = distance(a, b)
  if (length < 6) return
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  brush.globalAlpha = 0.9
  brush.strokeStyle = RUST
  brush.lineWidth = 1.6
  brush.beginPath()
  brush.moveTo(a.x, a.y)
  brush.lineTo(b.x, b.y)
  brush.moveTo(b.x - 6 * ux - 4 * uy, b.y - 6 * uy + 4 * ux)
  brush.lineTo(b.x, b.y)
  brush.lineTo(b.x - 6 * ux + 4 * uy, b.y - 6 * uy - 4 * ux)
  brush.stroke()
}
