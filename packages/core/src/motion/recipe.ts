import type { Point } from '../geometry/point.ts'

/** What a recipe is told of the shot it is laid on: the picture in paper pixels, frames a second, frames of a new drawing. */
export interface RecipeShot {
  readonly width: number
  readonly height: number
  readonly fps: number
  readonly exposure: number
}

/** A drawing that a plan asks for, at the start of its exposure. */
export interface PlannedDrawing {
  /** from 0, counted from the start of the plan */
  readonly frame: number
  readonly frames: number
  readonly role: 'key' | 'breakdown' | 'inbetween'
  /** what it is, where it has a name of its own */
  readonly name: string | null
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
  readonly charts: readonly PlannedChart[]
  readonly beats: readonly { readonly frame: number; readonly name: string }[]
  /** names of the points that `expect` gives places for */
  readonly marks: readonly string[]
  readonly snapped: readonly Snapped[]
}

/** What a drawing of a plan should measure. Places and lengths in paper pixels, y downwards; radians. */
export interface Expected {
  readonly marks: Readonly<Record<string, Point>>
  /** of the silhouette, square pixels */
  readonly area: number
  /** half-axes: along the stretch, and across it */
  readonly axes: readonly [along: number, across: number]
  readonly tiltRad: number
}

/** Where a construction is written to: thin lines to draw over. `part` says what each of them is of. */
export interface ConstructionSink {
  ellipse(part: string, at: Point, along: number, across: number, tiltRad: number): void
  /** a parabola from a point to another as a quadratic curve */
  bend(part: string, from: Point, control: Point, to: Point): void
  line(part: string, from: Point, to: Point): void
}

/** A number that a recipe does not take, and why. */
export interface NumbersRefusal<N> {
  readonly field: keyof N & string
  readonly why: string
  /** between what it may lie, where that is what is wrong */
  readonly bounds?: { readonly least: number; readonly most: number; readonly whole: boolean }
}

/** One kind of movement, worked out before it is drawn. Pure: the same numbers give the same plan. */
export interface Recipe<N extends object, P extends Plan<N> = Plan<N>> {
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

/** The nearest multiple of `step` to a value, ties upwards. */
export const nearestMultiple = (value: number, step: number): number => Math.floor(value / step + 1 / 2) * step

/** What became of a wished number. */
export const snap = (what: string, wished: number, taken: number): Snapped => ({
  what,
  wished,
  taken,
  by: wished === 0 ? 0 : taken / wished - 1,
})
