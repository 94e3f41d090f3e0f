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
  /** a pass that was left, seen in place of the one that is drawn now */
  readonly pass?: string | null
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
  const away = hiddenFor(document, seeing.pass ?? null)
  return layersInOrder(document).flatMap((layer): Seen[] => {
    const animated = layer.kind === 'drawn'
    if (away.has(layer.id)) return []
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

/**
 * The frame of a take at a step of a turn: takes begin together; a shorter one waits on its last frame, or goes round on
 * its own.
 */
export function frameOfStep(take: Take, step: number, each = false): number {
  const { from, to } = stretchOf(take)
  return each ? from + (step % (to - from)) : Math.min(to - 1, from + step)
}

/** Layers not seen where a pass is looked at: all passes that were left but this one, and the one in its place now. */
export function hiddenFor(document: ShotDocument, pass: string | null): Set<string> {
  const layers = Object.values(document.layers)
  const stacks = new Set(pass === null ? [] : layers.filter(l => l.id === pass || l.follows === pass).map(l => l.id))
  const replaced = new Set(layers.flatMap(layer => (stacks.has(layer.id) && layer.left ? [layer.left.for] : [])))
  // From pass to pass to the one that is drawn now.
  for (let more = true; more;) {
    more = false
    for (const id of [...replaced]) {
      const next = document.layers[id]?.left?.for
      if (next && !replaced.has(next)) more = Boolean(replaced.add(next))
    }
  }
  return new Set(
    layers
      .filter(layer => (layer.left !== null && !stacks.has(layer.id)) || replaced.has(layer.id))
      .map(layer => layer.id),
  )
}

/** The step to show when `due` steps have gone by: round and round, or there and back without standing still at the ends. */
export function stepOf(due: number, turn: number, thereAndBack: boolean): number {
  if (!thereAndBack || turn < 3) return due % turn
  const period = 2 * turn - 2
  const at = due % period
  return at < turn ? at : period - at
}
