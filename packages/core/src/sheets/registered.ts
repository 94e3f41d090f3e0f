import { after, IDENTITY, inverse, map, translation, type Matrix } from '../geometry/matrix.ts'
import { boxOf, centreOf, distance, unite, type Box } from '../geometry/point.ts'
import { valueAt, type Grey } from '../raster/grey.ts'
import { alignedOn } from './align.ts'
import type { Corners } from './paper.ts'
import { cutOut } from './parts.ts'
import { crosses, pairedMarks, pegHoles, type SheetMark } from './pegs.ts'
import { fitPoints } from '../geometry/similarity.ts'

/** By what sheets are laid on one another: what is drawn on them; what is drawn in one region; peg holes; crosses; the paper's edges; or not at all. */
export const REGISTRATIONS = ['one another', 'a region', 'peg holes', 'crosses', 'edges', 'as they lie'] as const
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

/** Ink in a box laid on ink in another, each with what is near it: the map from the pixels of the one sheet to those of the other. */
function inkOnInk(
  [from, fromBox]: readonly [Grey, Box],
  [to, toBox]: readonly [Grey, Box],
  marginShare: number,
  finestPx?: number,
): { readonly matrix: Matrix; readonly alike: number } {
  const near = ({ left, top, right, bottom }: Box) => Math.round(marginShare * Math.max(right - left, bottom - top)) + 4
  const [there, here] = [cutOut(to, toBox, near(toBox)), cutOut(from, fromBox, near(fromBox))]
  const { matrix, alike } = alignedOn(there.grey, here.grey, finestPx)
  const moved = after(translation(-here.at.x, -here.at.y), matrix)
  return { matrix: after(moved, translation(there.at.x, there.at.y)), alike }
}

/** The box round another one, mapped. */
const boxThrough = ({ left, top, right, bottom }: Box, matrix: Matrix): Box =>
  boxOf(
    [
      { x: left, y: top },
      { x: right, y: top },
      { x: right, y: bottom },
      { x: left, y: bottom },
    ].map(p => map(matrix, p)),
  )

/** How often the region is looked for anew where it was found. */
const REGION_ROUNDS = 3
/** All but the last of them are rough: where the region lies is known to some pixels then. A finer look is a little less alike. */
const ROUGH_PX = 224
const WORSE = 0.1

/** Lays a drawing on the first one by what is drawn in a region of that: first as a whole, then by the region where it lies then. */
function byRegion(first: SheetDrawing, drawing: SheetDrawing, region: Box, middle: Registered): Registered {
  const whole = inkOnInk([drawing.ink, drawing.box], [first.ink, first.box], MARGIN_SHARE, ROUGH_PX)
  let matrix = whole.alike < LEAST_ALIKE ? middle.matrix : whole.matrix
  let alike = 0
  for (let round = 0; round < REGION_ROUNDS; round++) {
    const back = inverse(matrix)
    if (!back) break
    const finest = round < REGION_ROUNDS - 1 ? ROUGH_PX : undefined
    const found = inkOnInk([drawing.ink, boxThrough(region, back)], [first.ink, region], 0, finest)
    if (found.alike < alike - WORSE) break
    ;({ matrix, alike } = found)
  }
  return alike < LEAST_ALIKE ? { ...middle, alike } : { matrix, marks: null, alike, lost: false }
}

/** Lays a drawing on the first one. What cannot be laid so lies with its middle on the middle of the first. `region` is in pixels of the first photograph. */
export function registeredOn(
  first: SheetDrawing,
  drawing: SheetDrawing,
  how: Registration,
  region: Box | null = null,
): Registered {
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
    const { matrix, alike } = inkOnInk([drawing.ink, drawing.box], [first.ink, first.box], MARGIN_SHARE)
    return alike < LEAST_ALIKE ? { ...middle, alike } : { matrix, marks: null, alike, lost: false }
  }
  if (how === 'a region') return region ? byRegion(first, drawing, region, middle) : middle
  if (how === 'edges') {
    const fit = drawing.corners && first.corners && fitPoints(drawing.corners, first.corners)
    return fit ? { matrix: fit.matrix, marks: { count: 4, offPx: fit.offPx }, alike: null, lost: false } : middle
  }
  const fit = pairedMarks(drawing.marks, first.marks)
  return fit ? { matrix: fit.matrix, marks: { count: fit.count, offPx: fit.offPx }, alike: null, lost: false } : middle
}

/** The box round drawings as they are laid, pixels of the first photograph. */
export const boxRound = (drawings: readonly { readonly box: Box; readonly matrix: Matrix }[]): Box =>
  drawings.map(({ box, matrix }) => boxThrough(box, matrix)).reduce(unite)

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
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const [u, v] = [a * x + c * y + e, b * x + d * y + f]
      if (u >= 0 && v >= 0 && u <= ink.width - 1 && v <= ink.height - 1) data[i] = Math.round(valueAt(ink, u, v))
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
