import { columnOf, find, layersInOrder, type Drawing, type ShotDocument, type Take } from '@unhurried/core/document'
import { placed, type LoopRange } from '@unhurried/core/time'
import type { Only } from '../stores/flip.ts'

/** What is looked at: which drawings count, and which layers are seen. */
export interface Seeing {
  readonly only: Only
  /** one layer alone, or all */
  readonly layer: string | null
  readonly silhouettes: boolean
  readonly hidden: ReadonlySet<string>
}

/** A drawing to paint, and whether it belongs to the animation. */
export interface Seen {
  readonly drawing: Drawing
  readonly animated: boolean
}

/**
 * What is seen of a frame, lowest first. With keys (and breakdowns) only, the last of them is held until the next.
 * Silhouettes are of the animation alone.
 */
export function seenAt(document: ShotDocument, take: Take, frame: number, seeing: Seeing): Seen[] {
  return layersInOrder(document).flatMap((layer): Seen[] => {
    const animated = layer.kind === 'drawn'
    if (seeing.layer !== null && layer.id !== seeing.layer) return []
    if (seeing.hidden.has(layer.id) || (seeing.silhouettes && !animated)) return []
    const drawing = shownAt(document, take, layer.id, frame, animated ? seeing.only : 'all')
    return drawing ? [{ drawing, animated }] : []
  })
}

function shownAt(document: ShotDocument, take: Take, layer: string, frame: number, only: Only): Drawing | null {
  let shown: Drawing | null = null
  for (const run of placed(columnOf(take, layer))) {
    if (run.start > frame) break
    const drawing = run.drawing === null ? null : (find(document.drawings, run.drawing) ?? null)
    if (only === 'all' || drawing === null) shown = drawing
    else if (drawing.role === 'key' || (only === 'breakdowns' && drawing.role === 'breakdown')) shown = drawing
  }
  return shown
}

/** The stretch of a take that is played: its loop, or all of it. */
export const stretchOf = (take: Take): LoopRange => take.loop ?? { from: 0, to: take.length }

/** Frames of one turn when takes are played together: as long as the longest. */
export function turnOf(takes: readonly Take[]): number {
  return Math.max(1, ...takes.map(take => stretchOf(take).to - stretchOf(take).from))
}

/** The frame of a take at a step of a turn: takes begin together, a shorter one waits on its last frame. */
export function frameOfStep(take: Take, step: number): number {
  const { from, to } = stretchOf(take)
  return Math.min(to - 1, from + step)
}

/** The step to show when `due` steps have gone by: round and round, or there and back without standing still at the ends. */
export function stepOf(due: number, turn: number, thereAndBack: boolean): number {
  if (!thereAndBack || turn < 3) return due % turn
  const period = 2 * turn - 2
  const at = due % period
  return at < turn ? at : period - at
}
