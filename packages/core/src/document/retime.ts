import { placed, slice, type Run } from '../time/exposure.ts'
import {
  followedHolds,
  repeated,
  reversed,
  slid,
  stretched,
  thereAndBack,
  trimmed,
  type Following,
} from '../time/segment.ts'
import { edited, editStretch, formOf, inTurn, rewriteLayer, touchesCycle, type Edited } from './layerForm.ts'
import type { ShotDocument, Take } from './model.ts'
import type { Operation } from './operations/index.ts'
import { columnOf, exposures, firstFrameOf } from './selectors.ts'
import { find, get } from './table.ts'

/** Frames over layers, marked on the sheet: from–to with `to` not included. */
export interface Marked {
  readonly layers: readonly string[]
  readonly from: number
  readonly to: number
}

/** What can be done with a marked stretch of a column. */
export type Retiming =
  | { readonly kind: 'reverse' | 'there-and-back' }
  | { readonly kind: 'repeat'; readonly times: number }
  | { readonly kind: 'stretch'; readonly frames: number }

/** Retimes the marked frames of every marked layer; each moves, or does not move, what follows on it. */
export function retime(
  document: ShotDocument,
  take: Take,
  marked: Marked,
  what: Retiming,
  following: Following,
): Edited {
  const tooShort = what.kind === 'stretch' ? shortfall(take, marked, what.frames) : null
  if (tooShort) return tooShort
  return inTurn(
    document,
    take.id,
    marked.layers.map(
      layer => (doc, t) =>
        editStretch(doc, t, layer, marked.from, marked.to, stretch => retimed(stretch, what), following),
    ),
  )
}

function retimed(stretch: readonly Run[], what: Retiming): Run[] {
  switch (what.kind) {
    case 'reverse':
      return reversed(stretch)
    case 'there-and-back':
      return thereAndBack(stretch)
    case 'repeat':
      return repeated(stretch, what.times)
    case 'stretch':
      return stretched(stretch, what.frames)
  }
}

/** Every drawing needs at least one frame. */
function shortfall(take: Take, marked: Marked, frames: number): Edited | null {
  const needed = Math.max(...marked.layers.map(layer => slice(columnOf(take, layer), marked.from, marked.to).length), 1)
  return frames < needed ? { ok: false, code: 'too-little-room', frames, needed } : null
}

/** Slides the marked frames within their columns. */
export function slide(document: ShotDocument, take: Take, marked: Marked, by: number): Edited {
  if (marked.layers.some(layer => crosses(take, layer, marked, by))) return { ok: false, code: 'crosses-cycle' }
  return inTurn(
    document,
    take.id,
    marked.layers.map(layer => (doc, t) => {
      const form = formOf(t, layer)
      const runs = slid(form.runs, marked.from, marked.to, by)
      return edited(rewriteLayer(doc, t, layer, { ...form, runs }))
    }),
  )
}

function crosses(take: Take, layer: string, { from, to }: Marked, by: number): boolean {
  return touchesCycle(take, layer, Math.max(0, Math.min(from, from + by)), Math.min(take.length, Math.max(to, to + by)))
}

/** Lets the drawing at `frame` begin or end there. */
export function trim(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  side: 'start' | 'end',
  following: Following,
): Edited {
  const run = placed(columnOf(take, layer)).find(r => frame >= r.start && frame < r.start + r.frames)
  if (!run || run.drawing === null) return edited([])
  const stretch = (runs: readonly Run[]) => trimmed(runs, frame - run.start, side, following)
  return editStretch(document, take, layer, run.start, run.start + run.frames, stretch, following)
}

/** Takes the marked frames out of their layers only; what follows on these layers moves up. Or leaves nothing there. */
export function takeOut(document: ShotDocument, take: Take, marked: Marked, following: Following): Edited {
  const gap = [{ drawing: null, frames: marked.to - marked.from }]
  return inTurn(
    document,
    take.id,
    marked.layers.map(
      layer => (doc, t) =>
        editStretch(doc, t, layer, marked.from, marked.to, () => (following === 'ripple' ? [] : gap), following),
    ),
  )
}

/** Keeps only frames from–to of the shot, on every layer. */
export function keepOnly(take: Take, from: number, to: number): Operation[] {
  const ops: Operation[] = []
  if (to < take.length) ops.push({ kind: 'frames.remove', take: take.id, at: to, count: take.length - to })
  if (from > 0) ops.push({ kind: 'frames.remove', take: take.id, at: 0, count: from })
  return ops
}

/**
 * Moves a key of a layer so that it starts on `frame`; the drawings between it and the keys on either side follow: each
 * stretch keeps its order and its holds' proportions, every drawing at least one frame. 'stay': the key after it (and all
 * behind) stays where it is. 'ripple': everything behind moves along. Charts are left alone, for they are spacing, not
 * timing. Refused when there are fewer frames than drawings, when it would pass a key, or in a linked cycle.
 */
export function moveKey(
  document: ShotDocument,
  take: Take,
  drawing: string,
  frame: number,
  following: Following,
): Edited {
  const key = find(document.drawings, drawing)
  const start = key && firstFrameOf(take, key)
  if (!key || start === null || start === undefined) return { ok: false, code: 'not-a-key' }
  if (frame === start) return edited([])
  const column = columnOf(take, key.layer)
  const keys = exposures(take, key.layer).filter(
    run => run.drawing !== null && get(document.drawings, run.drawing).role === 'key',
  )
  const before = keys.filter(run => run.start < start && run.drawing !== drawing).pop()
  const after = keys.find(run => run.start > start && run.drawing !== drawing)
  const low = before?.start ?? 0
  const high = after?.start ?? take.length
  if (touchesCycle(take, key.layer, low, high)) return { ok: false, code: 'crosses-cycle' }
  if (frame < low || (following === 'stay' && frame >= high)) return { ok: false, code: 'past-a-key' }
  const lead = fitted(slice(column, low, start), frame - low)
  if (!lead.ok) return lead
  const tail = slice(column, start, high)
  if (following === 'ripple') {
    return editStretch(document, take, key.layer, low, high, () => [...lead.runs, ...tail], 'ripple')
  }
  const rest = fitted(tail, high - frame)
  if (!rest.ok) return rest
  return editStretch(document, take, key.layer, low, high, () => [...lead.runs, ...rest.runs], 'stay')
}

/** Runs made to last `frames` in proportion; without any, nothing is shown before the key. */
function fitted(runs: readonly Run[], frames: number): { ok: true; runs: Run[] } | Extract<Edited, { ok: false }> {
  if (runs.length === 0) return { ok: true, runs: frames === 0 ? [] : [{ drawing: null, frames }] }
  const onlyNothing = runs.length === 1 && runs[0]?.drawing === null
  if (onlyNothing) return { ok: true, runs: frames === 0 ? [] : [{ drawing: null, frames }] }
  if (frames < runs.length) return { ok: false, code: 'too-little-room', frames, needed: runs.length }
  const holds = followedHolds(
    frames,
    runs.map(run => run.frames),
  )
  return { ok: true, runs: runs.map((run, i) => ({ drawing: run.drawing, frames: holds[i] as number })) }
}

/** Moves a beat; keys pinned to it follow in every take, with their inbetweens. */
export function moveBeat(document: ShotDocument, beat: string, frame: number): Edited {
  const takes = Object.values(document.takes).filter(take => Object.values(take.pins).includes(beat))
  const ops: Operation[] = [{ kind: 'beat.set', id: beat, patch: { frame } }]
  for (const take of takes) {
    const pinned = Object.keys(take.pins).filter(drawing => take.pins[drawing] === beat)
    const step = inTurn(
      document,
      take.id,
      pinned.map(drawing => (doc, t) => moveKey(doc, t, drawing, frame, 'stay')),
    )
    if (!step.ok) return step
    ops.push(...step.ops)
  }
  return edited(ops)
}

/** A key pinned to a beat, and by how many frames it is off it (positive: behind the beat). */
export interface PinReading {
  readonly drawing: string
  readonly beat: string
  readonly offFrames: number
}

/** All pins of a take whose key is exposed. */
export function readPins(document: ShotDocument, take: Take): PinReading[] {
  return Object.entries(take.pins).flatMap(([drawing, beat]) => {
    const sheet = find(document.drawings, drawing)
    const start = sheet ? firstFrameOf(take, sheet) : null
    const accent = find(document.beats, beat)
    return start === null || !accent ? [] : [{ drawing, beat, offFrames: start - accent.frame }]
  })
}
