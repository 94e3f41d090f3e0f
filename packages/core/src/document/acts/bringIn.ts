import { translation, type Matrix } from '../../geometry/matrix.ts'
import { INK } from '../../geometry/nib.ts'
import {
  LIMITS,
  type Drawing,
  type Layer,
  type Picture,
  type Role,
  type ShotDocument,
  type Stroke,
  type Take,
} from '../model/model.ts'
import { newLayer } from '../model/fresh.ts'
import { freeNumber, layersInOrder, topZ } from '../model/selectors.ts'
import { lengthOf, type Run } from '../../time/exposure.ts'
import type { Operation } from '../operations/index.ts'
import { inTurn, settleAll, stretchChange } from './changes.ts'
import { proposed, type Proposal } from './proposal.ts'
import type { Manner } from './room.ts'

/** A picture that was brought in: its bytes are stored under its id. */
export interface BroughtIn {
  readonly id: string
  /** its size as it is kept */
  readonly widthPx: number
  readonly heightPx: number
  /** its size as it came, which is how large it lies; more pixels than are kept */
  readonly was: { readonly widthPx: number; readonly heightPx: number }
  /** frames it is to be shown, where it says so itself; null for as many as others */
  readonly frames: number | null
}

/** A drawing that was brought in as painted shapes: their samples are stored under the ids they name. */
export interface BroughtShapes {
  readonly elements: readonly Stroke[]
  readonly frames: number | null
}

/** A painted shape as it comes: all of some stored samples, in a colour. */
export const broughtShape = (id: string, samples: string, swatch: string, z: number): Stroke => ({
  id,
  kind: 'shape',
  z,
  samples,
  part: null,
  matrix: null,
  swatch,
  width: 1,
  nib: INK,
  label: null,
})

/** A line as it comes: all of some stored samples, as wide everywhere (px). */
export const broughtLine = (id: string, samples: string, swatch: string, z: number, widthPx: number): Stroke => ({
  ...broughtShape(id, samples, swatch, z),
  kind: 'line',
  width: Math.max(LEAST_LINE_PX, Math.min(LIMITS.lineWidthPx, widthPx)),
  nib: { look: 'ink', ends: 'round', thinning: 0 },
})
/** A finer line would not be seen. */
const LEAST_LINE_PX = 0.25

/**
 * Frames for times of one picture after the other (thousandths of a second): each ends on the frame nearest to its end, so that the
 * whole is as long as it was; one frame at least, as many as an exposure may have at most.
 */
export function framesOfTimes(timesMs: readonly number[], fps: number): number[] {
  let [elapsedMs, begins] = [0, 0]
  return timesMs.map(ms => {
    elapsedMs += ms
    const ends = Math.round((elapsedMs * fps) / 1000)
    const frames = Math.max(1, Math.min(LIMITS.exposure, ends - begins))
    begins += frames
    return frames
  })
}

/** How a picture lies on the paper: in its middle, as large as it came, or as much smaller as it takes to lie on it whole. */
export function fittedOn(
  { widthPx, heightPx, was }: Pick<BroughtIn, 'widthPx' | 'heightPx' | 'was'>,
  paper: { readonly width: number; readonly height: number },
): Matrix {
  const scale = Math.min(1, paper.width / was.widthPx, paper.height / was.heightPx)
  const [x, y] = [(paper.width - was.widthPx * scale) / 2, (paper.height - was.heightPx * scale) / 2]
  const [across, down] = [(scale * was.widthPx) / widthPx, (scale * was.heightPx) / heightPx]
  // What is laid pixel on pixel stays sharp.
  return across === 1 && down === 1 ? translation(Math.round(x), Math.round(y)) : [across, 0, 0, down, x, y]
}

/** Pictures as elements of a drawing, over the pictures that lie there, the first lowest. */
function elementsOf(
  document: ShotDocument,
  there: Drawing | null,
  all: readonly BroughtIn[],
  newId: () => string,
): Picture[] {
  const above = there ? topZ(there) : 0
  return all.map((one, i) => ({
    id: newId(),
    kind: 'picture',
    picture: one.id,
    widthPx: one.widthPx,
    heightPx: one.heightPx,
    opacity: 1,
    cut: null,
    placeholder: false,
    z: above + i,
    matrix: fittedOn(one, document.format),
  }))
}

/** Pictures laid on a drawing, one over the other. */
export function picturesOn(
  document: ShotDocument,
  drawing: Drawing,
  all: readonly BroughtIn[],
  newId: () => string,
): { ops: Operation[]; elements: Picture[] } {
  const elements = elementsOf(document, drawing, all, newId)
  return { ops: [{ kind: 'elements.add', drawing: drawing.id, elements }], elements }
}

/** Where pictures go on the sheet, and how long each is shown unless it says so itself. */
export interface PicturesFrom {
  readonly layer: string
  /** from 0 */
  readonly frame: number
  readonly holdFrames: number
  readonly role: Role
  /** places of the pictures in the order they are shown, each as often as it is named; one after the other unless told */
  readonly order?: readonly number[]
}

/** Pictures as drawings of their own, one after the other from a frame on; what lies there is treated as the manner says. */
export function picturesInTurn(
  document: ShotDocument,
  take: Take,
  { layer, frame, holdFrames, role, order }: PicturesFrom,
  all: readonly (BroughtIn | BroughtShapes)[],
  manner: Manner,
  newId: () => string,
): Proposal {
  const taken: number[] = []
  const first: Operation[] = []
  let at = frame
  const drawn = new Map<number, string>()
  const runs = (order ?? all.map((_, i) => i)).flatMap((place): Run[] => {
    const one = all[place]
    if (!one) return []
    const frames = one.frames ?? holdFrames
    const known = drawn.get(place)
    if (known === undefined) {
      const number = freeNumber(document, layer, at, taken)
      taken.push(number)
      const laid = 'elements' in one ? one.elements : elementsOf(document, null, [one], newId)
      const elements = Object.fromEntries(laid.map(element => [element.id, element]))
      const drawing: Drawing = { id: newId(), layer, number, role, elements, marks: {} }
      first.push({ kind: 'drawing.add', drawing })
      drawn.set(place, drawing.id)
    }
    at += frames
    return [{ drawing: drawn.get(place) as string, frames }]
  })
  const to = Math.min(take.length, frame + lengthOf(runs))
  const change = stretchChange(take, layer, frame, to, () => runs, manner)
  const step = settleAll(document, take, [change], manner, { first })
  return step.ok ? { ...step, frame } : step
}

/** A layer that is made for pictures. */
export interface LayerFor {
  readonly id: string
  readonly name: string
  /** drawn: over all others. background, reference: under everything that is drawn, over what lies under it already */
  readonly kind: 'drawn' | 'background' | 'reference'
}

/** Pictures on a layer of their own: a single one that is no drawing from the first frame to the last, else one after the other from a frame on. */
export function picturesOnLayer(
  document: ShotDocument,
  take: Take,
  { id, name, kind }: LayerFor,
  from: Omit<PicturesFrom, 'layer'>,
  all: readonly (BroughtIn | BroughtShapes)[],
  manner: Manner,
  newId: () => string,
): Proposal {
  const layer = newLayer(id, name, kind === 'drawn' ? overAll(document) : underDrawn(document), {
    kind,
    volume: kind === 'drawn' ? 'flat' : 'off',
  })
  const isStill = kind !== 'drawn' && all.length === 1
  const where = isStill ? { ...from, frame: 0, holdFrames: take.length } : from
  const step = inTurn(document, take.id, [
    () => proposed([{ kind: 'layer.add', layer }]),
    (now, here) => picturesInTurn(now, here, { ...where, layer: id }, all, manner, newId),
  ])
  return step.ok ? { ...step, frame: from.frame } : step
}

const overAll = (document: ShotDocument): number => (layersInOrder(document).at(-1)?.order ?? 0) + 1

/** Between the lowest layer that is drawn on and what lies under it. */
function underDrawn(document: ShotDocument): number {
  const layers = layersInOrder(document)
  const at = layers.findIndex(layer => layer.kind === 'drawn')
  if (at < 0) return overAll(document)
  const over = (layers[at] as Layer).order
  const under = layers[at - 1]?.order ?? over - 2
  return (under + over) / 2
}
