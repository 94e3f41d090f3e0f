import { cycleEnd, patternFrame, periodOf } from '../../time/cycle.ts'
import { slice, type Run } from '../../time/exposure.ts'
import { followedHolds, repeated, reversed, slid, stretched, thereAndBack, trimmed } from '../../time/segment.ts'
import { inTurn, patternChange, settleAll, stretchChange, throughTheEnd } from './changes.ts'
import { exposureAt, touchesCycle } from './layerForm.ts'
import { proposed, type NotDone, type Proposal } from './proposal.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { followingOf, type Manner, type Room } from './room.ts'
import { columnOf, cycleAt, exposures, firstFrameOf } from '../model/selectors.ts'
import { find, get } from '../model/table.ts'

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
export function retime(document: ShotDocument, take: Take, marked: Marked, what: Retiming, manner: Manner): Proposal {
  const tooShort = what.kind === 'stretch' ? shortfall(take, marked, what.frames) : null
  if (tooShort) return tooShort
  const changes = marked.layers.map(layer => {
    const looped = isTurn(take, layer, marked)
    return stretchChange(take, layer, marked.from, marked.to, stretch => retimed(stretch, what, looped), manner)
  })
  return settleAll(document, take, changes, manner)
}

/** Whether the marked frames are gone round: the loop of the take, or one turn of a linked cycle. */
function isTurn(take: Take, layer: string, { from, to }: Marked): boolean {
  if (take.loop?.from === from && take.loop.to === to) return true
  const cycle = cycleAt(take, layer, from)
  return cycle !== null && to - from === periodOf(cycle) && patternFrame(cycle, from) === 0
}

function retimed(stretch: readonly Run[], what: Retiming, looped: boolean): Run[] {
  switch (what.kind) {
    case 'reverse':
      return reversed(stretch)
    case 'there-and-back':
      return thereAndBack(stretch, looped)
    case 'repeat':
      return repeated(stretch, what.times)
    case 'stretch':
      return stretched(stretch, what.frames)
  }
}

/** Every drawing needs at least one frame. */
function shortfall(take: Take, marked: Marked, frames: number): Proposal | null {
  const needed = Math.max(...marked.layers.map(layer => slice(columnOf(take, layer), marked.from, marked.to).length), 1)
  return frames < needed ? { ok: false, code: 'too-little-room', frames, needed } : null
}

/** Slides the marked frames within their columns. What lies in their way is covered, if that is asked for. */
export function slide(document: ShotDocument, take: Take, marked: Marked, by: number, room: Room = 'free'): Proposal {
  if (marked.layers.some(layer => crosses(take, layer, marked, by))) return { ok: false, code: 'crosses-cycle' }
  const from = Math.max(0, Math.min(marked.from, marked.from + by))
  const to = Math.min(take.length, Math.max(marked.to, marked.to + by))
  const changes = marked.layers.map(layer => {
    const runs = slid(columnOf(take, layer), marked.from, marked.to, by)
    return { layer, from, to, stretch: slice(runs, from, to), cycle: null }
  })
  return settleAll(document, take, changes, { following: 'stay', room })
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
  manner: Manner,
): Proposal {
  const run = exposureAt(take, layer, frame)
  if (!run || run.drawing === null) return proposed([])
  const stretch = (runs: readonly Run[]) => trimmed(runs, frame - run.start, side, followingOf(manner))
  const { cycle, at, start, frames } = run
  const change = cycle
    ? patternChange(take, cycle, at, at + frames, stretch, manner)
    : stretchChange(take, layer, start, start + frames, stretch, manner)
  return settleAll(document, take, [change], manner)
}

/** Takes the marked frames out of their layers only; what follows on these layers moves up. Or leaves nothing there. */
export function takeOut(document: ShotDocument, take: Take, marked: Marked, manner: Manner): Proposal {
  const gap = followingOf(manner) === 'ripple' ? [] : [{ drawing: null, frames: marked.to - marked.from }]
  const changes = marked.layers.map(layer => stretchChange(take, layer, marked.from, marked.to, () => gap, manner))
  return settleAll(document, take, changes, manner, { losing: true })
}

/** Keeps only frames from–to of the shot, on every layer. */
export function keepOnly(take: Take, from: number, to: number): Operation[] {
  const ops: Operation[] = []
  if (to < take.length) ops.push({ kind: 'frames.remove', take: take.id, at: to, count: take.length - to })
  return from > 0 ? [...ops, ...framesOut(take, 0, from, Math.min(take.length, to))] : ops
}

/**
 * Takes `count` frames out on every layer, of a take of `length` frames. A linked cycle whose beginning goes begins as far
 * into its pattern as was cut, so that every frame that stays shows what it showed.
 */
export function framesOut(take: Take, at: number, count: number, length = take.length): Operation[] {
  const end = at + count
  const cut = Object.values(take.cycles).filter(
    cycle => cycle.from >= at && cycle.from < end && Math.min(length, cycleEnd(cycle, length)) > end,
  )
  const offsets = cut.map((cycle): Operation => ({
    kind: 'cycle.set',
    take: take.id,
    id: cycle.id,
    patch: { offset: (cycle.offset + end - cycle.from) % periodOf(cycle) },
  }))
  return [{ kind: 'frames.remove', take: take.id, at, count }, ...offsets]
}

/**
 * Moves a key of a layer so that it starts on `frame`; the drawings between it and the keys on either side follow: each
 * stretch keeps its order and its holds' proportions, every drawing at least one frame. 'stay': the key after it (and all
 * behind) stays where it is. 'ripple': everything behind moves along; what the shot ends on is held for less or longer.
 * Charts are left alone, for they are spacing, not timing. Refused when there are fewer frames than drawings, when it would
 * pass a key, or in a linked cycle.
 */
export function moveKey(document: ShotDocument, take: Take, drawing: string, frame: number, manner: Manner): Proposal {
  const key = find(document.drawings, drawing)
  const start = key && firstFrameOf(take, key)
  if (!key || start === null || start === undefined) return { ok: false, code: 'not-a-key' }
  if (frame === start) return proposed([])
  const column = columnOf(take, key.layer)
  const keys = exposures(take, key.layer).filter(
    run => run.drawing !== null && get(document.drawings, run.drawing).role === 'key',
  )
  const before = keys.filter(run => run.start < start && run.drawing !== drawing).pop()
  const after = keys.find(run => run.start > start && run.drawing !== drawing)
  const low = before?.start ?? 0
  const high = after?.start ?? take.length
  const following = followingOf(manner)
  if (touchesCycle(take, key.layer, low, high)) return { ok: false, code: 'crosses-cycle' }
  if (frame < low || (following === 'stay' && frame >= high)) return { ok: false, code: 'past-a-key' }
  const lead = fitted(slice(column, low, start), frame - low)
  if (!lead.ok) return lead
  const tail = slice(column, start, high)
  const moved = (to: number, stretch: readonly Run[]) => ({ layer: key.layer, from: low, to, stretch, cycle: null })
  if (following === 'ripple') return settleAll(document, take, [throughTheEnd(take, moved(start, lead.runs))], manner)
  const rest = fitted(tail, high - frame)
  return rest.ok ? settleAll(document, take, [moved(high, [...lead.runs, ...rest.runs])], manner) : rest
}

/** Runs made to last `frames` in proportion; without any, nothing is shown before the key. */
function fitted(runs: readonly Run[], frames: number): { ok: true; runs: Run[] } | NotDone {
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
export function moveBeat(document: ShotDocument, beat: string, frame: number): Proposal {
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
  return proposed(ops)
}

/** A key pinned to a beat, and by how many frames it is off it (positive: behind the beat). */
export interface PinReading {
  readonly drawing: string
  readonly beat: string
  readonly offFrames: number
}

/** All pins of a take whose key is exposed; those of passes that were left are not asked for. */
export function readPins(document: ShotDocument, take: Take): PinReading[] {
  return Object.entries(take.pins).flatMap(([drawing, beat]) => {
    const sheet = find(document.drawings, drawing)
    if (sheet && find(document.layers, sheet.layer)?.left) return []
    const start = sheet ? firstFrameOf(take, sheet) : null
    const accent = find(document.beats, beat)
    return start === null || !accent ? [] : [{ drawing, beat, offFrames: start - accent.frame }]
  })
}
