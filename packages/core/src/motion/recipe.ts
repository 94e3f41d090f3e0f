import { UsageError } from '../errors.ts'
import type { Point } from '../geometry/point.ts'
import type { LayerPath } from '../path/path.ts'

/** What a recipe is told of the shot it is laid on: the picture in paper pixels, frames a second, frames of a new drawing. */
export interface RecipeShot {
  readonly width: number
  readonly height: number
  readonly fps: number
  readonly exposure: number
  /** paper pixels of a metre; null where nobody has said */
  readonly scale?: number | null
  /** px a frame, to the right, by which the ground passes under what walks on the spot; none where nothing does */
  readonly passing?: number
  /** where something goes that a number follows: a mark, or a point of another guide */
  readonly wayOf?: (followed: string) => Way
}

/** Where something that is followed goes. */
export interface Way {
  /** in the order of frames, counted from where the guide begins; none where it is nowhere yet */
  readonly places: readonly FramedPlace[]
  /** frames after which it goes the same way again, its places those of one turn; null where it goes once */
  readonly period: number | null
}

/** Where something is on a frame. */
export interface FramedPlace {
  readonly frame: number
  readonly at: Point
}

/** Metres a second, a second. */
const G = 9.81

/** Gravity as on earth, px a frame, a frame: g = 9.81·s/fps², at s paper pixels a metre. */
export const earthGravity = (pxPerMetre: number, fps: number): number => (G * pxPerMetre) / (fps * fps)

/** Frames that a fall of so many metres from rest takes at a rate: √(2h/g). A metre takes 10.8 frames at 24. */
export const fallFrames = (metres: number, fps: number): number => Math.sqrt((2 * metres) / G) * fps

/** A drawing that a plan asks for. */
export interface PlannedDrawing {
  /** the first frame it is shown on, from 0, counted from the start of the plan */
  readonly frame: number
  readonly role: 'key' | 'breakdown' | 'inbetween'
  /** what it is, where it has a name of its own */
  readonly name: string | null
}

/** How long a drawing is shown; one drawing may be shown several times. */
export interface PlannedExposure {
  /** its place in the plan's drawings */
  readonly drawing: number
  readonly frames: number
}

/** Spacing that a plan asks for between two of its keys. */
export interface PlannedChart {
  /** the two keys: their places in the plan's drawings */
  readonly from: number
  readonly to: number
  /** for every drawing between them its share of the way, 0–1, increasing */
  readonly shares: readonly number[]
}

/** A number that was wished, and the one that was taken so that drawings fall on exposures. */
export interface Snapped {
  readonly what: string
  readonly wished: number
  readonly taken: number
  /** taken over wished, less one */
  readonly by: number
}

/** A movement worked out: a function of whole frames, the same whenever it is asked. */
export interface Plan<N> {
  readonly numbers: N
  /** frames it covers, from 0 */
  readonly frames: number
  readonly drawings: readonly PlannedDrawing[]
  /** one after the other over all its frames */
  readonly exposures: readonly PlannedExposure[]
  /** whether it begins again after its last frame as if it had not ended */
  readonly loops: boolean
  readonly charts: readonly PlannedChart[]
  readonly beats: readonly { readonly frame: number; readonly name: string }[]
  /** names of the points that `expect` gives places for */
  readonly marks: readonly string[]
  readonly snapped: readonly Snapped[]
  /** what else is worth knowing before it is drawn, in a sentence each */
  readonly told: readonly string[]
  /** pixels a frame by which the ground passes under what stands on it, to the right; a planted place moves along with it */
  readonly ground: number
  /** how its layer moves as a whole, frames counted from its start; null or left out where it lies where it is drawn */
  readonly path?: LayerPath | null
  /** all it asks for is that its layer moves: a drawing is made only where nothing is shown */
  readonly onlyMoves?: boolean
}

/** A place that a mark has on a drawing. */
export interface PlannedPlace extends Point {
  /** it rests on the ground there */
  readonly planted?: true
}

/** What the silhouette of a drawing should measure. Lengths in paper pixels; radians. */
export interface ExpectedBody {
  /** of the silhouette, square pixels */
  readonly area: number
  /** half-axes: along the stretch, and across it */
  readonly axes: readonly [along: number, across: number]
  readonly tiltRad: number
}

/** What a drawing of a plan should measure. Places in paper pixels, y downwards. */
export interface Expected {
  readonly marks: Readonly<Record<string, PlannedPlace>>
  /** null where a plan has lines only */
  readonly body: ExpectedBody | null
}

/** How a path of a construction is told apart: what is nearer to the viewer, what is behind the body, what is only an aid. */
export type PathLook = 'plain' | 'near' | 'far' | 'aid'

/** Where a construction is written to: thin lines to draw over. `part` says what each of them is of. */
export interface ConstructionSink {
  ellipse(part: string, at: Point, along: number, across: number, tiltRad: number): void
  /** a parabola from a point to another as a quadratic curve */
  bend(part: string, from: Point, control: Point, to: Point): void
  line(part: string, from: Point, to: Point): void
  /** straight pieces from point to point */
  path(part: string, points: readonly Point[], look?: PathLook): void
  /** which way something goes or trails */
  arrow(part: string, from: Point, to: Point): void
}

/** Between what a number may lie. */
export interface NumberBounds {
  readonly least: number
  readonly most: number
  readonly whole: boolean
}

/** A number that a recipe does not take, and why. */
export interface NumbersRefusal<N> {
  readonly field: keyof N & string
  readonly why: string
  /** between what it may lie, where that is what is wrong */
  readonly bounds?: NumberBounds
}

/** Numbers of a recipe in paper pixels: places to the right, places downwards, and lengths; what is px a frame, or a frame a frame, is a length. */
export interface Measures<N> {
  readonly across: readonly (keyof N & string)[]
  readonly down: readonly (keyof N & string)[]
  readonly lengths: readonly (keyof N & string)[]
}

/** One kind of movement, worked out before it is drawn. Pure: the same numbers give the same plan. */
export interface Recipe<N extends object, P extends Plan<N> = Plan<N>> {
  /** parts of its construction that are shown, faintly, for all other drawings too */
  readonly through: readonly string[]
  /** which of its numbers are measured on the paper */
  readonly measures: Measures<N>
  /** starting values that look right on this paper, at this rate */
  defaults(shot: RecipeShot): N
  /** the only place that says no; total, never throws on numbers */
  refuse(numbers: N, shot: RecipeShot): NumbersRefusal<N> | null
  /** only after `refuse` said null */
  plan(numbers: N, shot: RecipeShot): P
  /** the construction of the drawing shown on a frame of the plan; throws a UsageError on a frame outside it */
  figure(plan: P, frame: number, sink: ConstructionSink): void
  /** what the drawing at a place in the plan's drawings should measure; throws a UsageError on a place that is none */
  expect(plan: P, drawing: number): Expected
}

/** Drawings shown for `n` frames each, one after the other. */
export const oneByOne = (count: number, n: number): PlannedExposure[] =>
  Array.from({ length: count }, (_, drawing) => ({ drawing, frames: n }))

/** The place of the drawing that a frame of a plan shows. Throws a UsageError on a frame outside the plan. */
export function shownOn(plan: Plan<unknown>, frame: number): number {
  let until = 0
  if (Number.isInteger(frame) && frame >= 0) {
    for (const { drawing, frames } of plan.exposures) {
      until += frames
      if (frame < until) return drawing
    }
  }
  throw new UsageError(`a plan of ${plan.frames} frames has no frame ${frame}`)
}

/** A drawing of a plan by its place. Throws a UsageError where there is none. */
export function drawingOf(plan: Plan<unknown>, drawing: number): PlannedDrawing {
  const planned = plan.drawings[drawing]
  if (!planned) throw new UsageError(`a plan of ${plan.drawings.length} drawings has no drawing ${drawing}`)
  return planned
}

/** The nearest multiple of `step` to a value, ties upwards. */
export const nearestMultiple = (value: number, step: number): number => Math.floor(value / step + 1 / 2) * step

/** What became of a wished number. */
export const snap = (what: string, wished: number, taken: number): Snapped => ({
  what,
  wished,
  taken,
  by: wished === 0 ? 0 : taken / wished - 1,
})
