import { after, IDENTITY, inverse, map, translation, type Matrix } from '../geometry/matrix.ts'
import { boxOf, centreOf, distance, unite, type Box } from '../geometry/point.ts'
import type { Grey } from '../raster/grey.ts'
import { alignedOn } from './align.ts'
import type { Corners } from './paper.ts'
import { cutOut } from './parts.ts'
import { crosses, pairedMarks, pegHoles, type SheetMark } from './pegs.ts'
import { fitPoints } from './similarity.ts'

/** By what sheets are laid on one another: what is drawn on them; peg holes; crosses; the paper's edges; or not at all. */
export const REGISTRATIONS = ['one another', 'peg holes', 'crosses', 'edges', 'as they lie'] as const
export type Registration = (typeof REGISTRATIONS)[number]

/** A drawing on a sheet. All in pixels of its photograph. */
export interface SheetDrawing {
  /** the ink of the sheet */
  readonly ink: Grey
  /** the marks on it by which it is registered, where it is by marks */
  readonly marks: readonly SheetMark[]
  readonly box: Box
  readonly corners: Corners | null
}

/** How a drawing is laid on the first one. */
export interface Registered {
  /** from pixels of its photograph to those of the first one's */
  readonly matrix: Matrix
  /** marks, or corners, that were brought together, and how far the worst is off, px; null where it is laid by other things */
  readonly marks: { readonly count: number; readonly offPx: number } | null
  /** how much of the ink lies on that of the first, 0–1; null where it is laid by other things */
  readonly alike: number | null
  /** it could not be laid so, and lies in the middle of the first */
  readonly lost: boolean
}

/** What is blank about a drawing when it is laid on another one, as a share of its box; so that it may be shifted. */
const MARGIN_SHARE = 0.12
/** Drawings with less in common do not lie on one another. */
const LEAST_ALIKE = 0.3

/** The marks of a sheet by which it is registered; none where it is by other things. */
export const marksOfSheet = (ink: Grey, how: Registration): SheetMark[] =>
  how === 'peg holes' ? pegHoles(ink) : how === 'crosses' ? crosses(ink) : []

/** Lays a drawing on the first one. What cannot be laid so lies with its middle on the middle of the first. */
export function registeredOn(first: SheetDrawing, drawing: SheetDrawing, how: Registration): Registered {
  const [a, b] = [centreOf(drawing.box), centreOf(first.box)]
  const middle: Registered = {
    matrix: translation(b.x - a.x, b.y - a.y),
    marks: null,
    alike: null,
    lost: how !== 'as they lie',
  }
  if (drawing === first) return { ...middle, matrix: IDENTITY, lost: false }
  if (how === 'as they lie') return middle
  if (how === 'one another') {
    const near = (box: Box) => Math.round(MARGIN_SHARE * Math.max(box.right - box.left, box.bottom - box.top)) + 4
    const [to, from] = [
      cutOut(first.ink, first.box, near(first.box)),
      cutOut(drawing.ink, drawing.box, near(drawing.box)),
    ]
    const { matrix, alike } = alignedOn(to.grey, from.grey)
    const whole = after(after(translation(-from.at.x, -from.at.y), matrix), translation(to.at.x, to.at.y))
    return alike < LEAST_ALIKE ? { ...middle, alike } : { matrix: whole, marks: null, alike, lost: false }
  }
  if (how === 'edges') {
    const fit = drawing.corners && first.corners && fitPoints(drawing.corners, first.corners)
    return fit ? { matrix: fit.matrix, marks: { count: 4, offPx: fit.offPx }, alike: null, lost: false } : middle
  }
  const fit = pairedMarks(drawing.marks, first.marks)
  return fit ? { matrix: fit.matrix, marks: { count: fit.count, offPx: fit.offPx }, alike: null, lost: false } : middle
}

/** The box round drawings as they are laid, pixels of the first photograph. */
export const boxRound = (drawings: readonly { readonly box: Box; readonly matrix: Matrix }[]): Box =>
  drawings
    .map(({ box: { left, top, right, bottom }, matrix }) =>
      boxOf(
        [
          { x: left, y: top },
          { x: right, y: top },
          { x: right, y: bottom },
          { x: left, y: bottom },
        ].map(p => map(matrix, p)),
      ),
    )
    .reduce(unite)

/**
 * How pixels of the first photograph lie on the paper of a shot: the corners of the sheet on those of the paper as nearly as they go without distortion, where they are known;
 * else what is drawn in its middle, with a margin (a share of the paper) round it.
 */
export function onPaper(
  paper: { readonly width: number; readonly height: number },
  { corners, box }: { readonly corners: Corners | null; readonly box: Box },
  marginShare = 0.1,
): Matrix {
  const { width, height } = paper
  if (corners) {
    const [tl, tr, , bl] = corners
    const [wide, high] = [distance(tl, tr), distance(tl, bl)]
    const scale = Math.min(width / wide, height / high)
    const [left, top] = [(width - scale * wide) / 2, (height - scale * high) / 2]
    const [right, bottom] = [left + scale * wide, top + scale * high]
    const fit = fitPoints(corners, [
      { x: left, y: top },
      { x: right, y: top },
      { x: right, y: bottom },
      { x: left, y: bottom },
    ])
    if (fit) return fit.matrix
  }
  const [w, h] = [Math.max(1, box.right - box.left), Math.max(1, box.bottom - box.top)]
  const scale = (1 - 2 * marginShare) * Math.min(width / w, height / h)
  const { x, y } = centreOf(box)
  return [scale, 0, 0, scale, width / 2 - scale * x, height / 2 - scale * y]
}

/** Ink as it lies through a map (pixels of the ink to pixels of the picture), on a picture of some size; blank where there is none. */
export function inkThrough(
  ink: Grey,
  matrix: Matrix,
  { width, height }: { readonly width: number; readonly height: number },
): Grey {
  const data = new Uint8Array(width * height)
  const back = inverse(matrix)
  if (!back) return { width, height, data }
  const [a, b, c, d, e, f] = back
  const { width: w, height: h, data: from } = ink
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const [u, v] = [a * x + c * y + e, b * x + d * y + f]
      const [left, top] = [Math.floor(u), Math.floor(v)]
      if (left < 0 || top < 0 || left >= w - 1 || top >= h - 1) continue
      const at = top * w + left
      const [fx, fy] = [u - left, v - top]
      const upper = (from[at] as number) * (1 - fx) + (from[at + 1] as number) * fx
      const lower = (from[at + w] as number) * (1 - fx) + (from[at + w + 1] as number) * fx
      data[i] = Math.round(upper * (1 - fy) + lower * fy)
    }
  }
  return { width, height, data }
}

/** Ink inside a sheet's corners less a rim (px), and none beyond: what lies on the table is no drawing. */
export function insideSheet(ink: Grey, corners: Corners, rimPx: number): Grey {
  const data = ink.data.slice()
  const edges = corners.map((a, i) => {
    const b = corners[(i + 1) % 4] as (typeof corners)[number]
    const long = distance(a, b)
    // Clockwise as seen, the sheet lies to the right of each edge.
    return { x: a.x, y: a.y, nx: -(b.y - a.y) / long, ny: (b.x - a.x) / long }
  })
  for (let y = 0, i = 0; y < ink.height; y++) {
    for (let x = 0; x < ink.width; x++, i++) {
      if (data[i] === 0) continue
      if (edges.some(edge => edge.nx * (x - edge.x) + edge.ny * (y - edge.y) < rimPx)) data[i] = 0
    }
  }
  return { ...ink, data }
}
