import type { Matrix, Point } from '@unhurried/core/geometry'
import type { useDesk } from '../stores/desk.ts'
import type { useKit } from '../stores/kit.ts'
import type { useSight } from '../stores/sight.ts'
import type { useShot } from '../stores/shot.ts'
import type { RawSample } from '../paint/pen.ts'

/** The paper under a hand. */
export interface PaperPort {
  readonly shot: ReturnType<typeof useShot>
  readonly desk: ReturnType<typeof useDesk>
  readonly kit: ReturnType<typeof useKit>
  readonly sight: ReturnType<typeof useSight>
  /** paper to screen */
  readonly matrix: Matrix
  readonly density: number
  readonly brush: CanvasRenderingContext2D
  /** screen pixels as paper pixels */
  px(screen: number): number
  /** strokes not painted with the drawing while the hand has them */
  lift(ids: ReadonlySet<string>): void
  lifted(): ReadonlySet<string>
  /** a measure to be read beside the pointer */
  say(words: string | null): void
  /** what is shown over the paper instead of what was, until the hand lets go; null: nothing */
  show(paint: ((brush: CanvasRenderingContext2D) => void) | null): void
}

export interface Modifiers {
  readonly shift: boolean
  readonly alt: boolean
}

/** What a tool does from pressing to letting go. Nothing is changed before `finish`; dropping a hand leaves no trace. */
export interface Hand {
  move(raws: readonly RawSample[], keys: Modifiers): void
  finish(): void
}

/** What a tool shows while the pointer is over the paper and nothing is pressed. */
export interface Hover {
  /** paper pixels; null: it went away */
  at(place: Point | null): void
}
