import { cycleEnd, periodOf, withCycles, type Cycle } from '../../time/cycle.ts'
import { fitTo, lengthOf, placed, plain, shareFrames, slice, type Run } from '../../time/exposure.ts'
import type { LoopRange } from '../../time/loop.ts'
import type { Following } from '../../time/segment.ts'
import { formOf, type LayerForm } from './layerForm.ts'
import { proposed, type Proposal } from './proposal.ts'
import { isAnimated, type ShotDocument, type Take } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { columnOf, cyclesOf } from '../model/selectors.ts'
import { get } from '../model/table.ts'

/*
 * How an edit of the sheet finds room. The shot keeps its length unless told otherwise: what becomes longer takes the free
 * frames behind it and pushes what follows, on its own layer only, as far as the next free frames; what becomes shorter
 * lets what follows move up, and leaves free frames there. Where that does not fit nothing is done, and it can be asked for
 * in another manner.
 */

/**
 * What to do where there is no room: 'free' keeps to free frames and refuses; 'longer' makes the shot longer by what is
 * missing; 'shorter' shortens the holds that follow; 'all' moves what follows on every layer and makes the shot longer by as
 * much; 'cover' covers what lies in the way.
 */
export const ROOMS = ['free', 'longer', 'shorter', 'all', 'cover'] as const
export type Room = (typeof ROOMS)[number]

/** Whether what follows an edit moves ('ripple') or stays where it is, and where its room comes from. A bare word is 'free'. */
export type Manner = Following | { readonly following: Following; readonly room: Room }

/** What follows a change: moves or stays; however the manner was given. */
export const followingOf = (manner: Manner): Following => (typeof manner === 'string' ? manner : manner.following)
/** Where room is taken from; free frames unless told. */
export const roomOf = (manner: Manner): Room => (typeof manner === 'string' ? 'free' : manner.room)
const stays = (manner: Manner): boolean => followingOf(manner) === 'stay'

/** Frames [from, to) of a layer are to show `stretch`; with `cycle`, they are to be that linked cycle in place of one there. */
export interface Change {
  readonly layer: string
  readonly from: number
  readonly to: number
  readonly stretch: readonly Run[]
  readonly cycle: Cycle | null
}

/** A part of a layer from left to right: one exposure, or a linked cycle. */
interface Piece {
  readonly frames: number
  readonly drawing: string | null
  readonly cycle: Cycle | null
}

/** A layer after a change. */
interface Pushed {
  readonly layer: string
  readonly form: LayerForm
  /** frames that lie past the end of the take */
  readonly over: number
  /** where a frame of before lies now */
  readonly moved: (frame: number) => number
}

/** The parts of a layer between two frames, neither of them inside a linked cycle. */
function piecesBetween(form: LayerForm, length: number, from: number, to: number): Piece[] {
  const out: Piece[] = []
  const free = (a: number, b: number) => {
    for (const run of slice(form.runs, a, b)) out.push({ ...run, cycle: null })
  }
  let at = from
  for (const cycle of form.cycles) {
    const end = Math.min(length, cycleEnd(cycle, length))
    if (cycle.from < from || cycle.from >= to || end <= cycle.from) continue
    free(at, cycle.from)
    out.push({ frames: end - cycle.from, drawing: null, cycle })
    at = end
  }
  free(at, to)
  return out
}

const framesOf = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + piece.frames, 0)
const isFree = (piece: Piece): boolean => piece.drawing === null && piece.cycle === null

/** What follows, with its free frames used up from the first on until `frames` of them are given. */
function givingRoom(pieces: readonly Piece[], frames: number): Piece[] {
  let left = frames
  return pieces.map(piece => {
    if (!isFree(piece)) return piece
    const given = Math.min(left, piece.frames)
    left -= given
    return { ...piece, frames: piece.frames - given }
  })
}

/** What follows, with `frames` more free ones where the next free ones are, or at its end. */
function takingRoom(pieces: readonly Piece[], frames: number): Piece[] {
  const next = pieces.findIndex(isFree)
  if (next >= 0) return pieces.map((piece, i) => (i === next ? { ...piece, frames: piece.frames + frames } : piece))
  return isEndless(pieces) ? [...pieces] : [...pieces, { frames, drawing: null, cycle: null }]
}

/** Whether the last part is a cycle that repeats to the end of the shot, however far off that is. */
const isEndless = (pieces: readonly Piece[]): boolean => pieces[pieces.length - 1]?.cycle?.to === null

/** What follows, its holds shortened in proportion by `frames` altogether; as it was when they cannot be. */
function withShorterHolds(pieces: readonly Piece[], frames: number): readonly Piece[] {
  const holds = pieces.filter(piece => piece.drawing !== null).map(piece => piece.frames)
  const left = holds.reduce((a, b) => a + b, 0) - frames
  if (frames <= 0 || left < holds.length) return pieces
  const shares = shareFrames(left, holds)
  return pieces.map(piece => (piece.drawing === null ? piece : { ...piece, frames: shares.shift() as number }))
}

function formOfPieces(pieces: readonly Piece[]): LayerForm {
  const cycles: Cycle[] = []
  let at = 0
  for (const { cycle, frames } of pieces) {
    const to = cycle?.to === null ? null : at + frames
    if (cycle && frames > 0) cycles.push(cycle.from === at && cycle.to === to ? cycle : { ...cycle, from: at, to })
    at += frames
  }
  const runs = plain(pieces.map(({ drawing, frames }) => ({ drawing, frames })))
  return { runs: withCycles(runs, cycles), cycles }
}

/** A layer of `length` frames after a change, with what follows moved or covered as asked for. */
function pushed(form: LayerForm, length: number, change: Change, manner: Manner): Pushed {
  const { layer, from, to, stretch, cycle } = change
  const put: Piece[] = cycle
    ? [{ frames: lengthOf(stretch), drawing: null, cycle }]
    : stretch.map(run => ({ ...run, cycle: null }))
  const head = piecesBetween(form, length, 0, from)
  // What stays where it is is covered by what is longer, and what is shorter is filled up to it.
  const end = stays(manner) ? Math.max(to, Math.min(length, from + framesOf(put))) : to
  const grown = stays(manner) ? 0 : framesOf(put) - (end - from)
  const behind = piecesBetween(form, length, end, length)
  const middle = stays(manner) && framesOf(put) < end - from ? heldFor(put, end - from) : put
  let tail: readonly Piece[] = grown >= 0 ? givingRoom(behind, grown) : takingRoom(behind, -grown)
  const whole = () => [...head, ...middle, ...tail]
  let over = framesPast(whole(), length)
  if (over > 0 && roomOf(manner) === 'shorter') {
    tail = withShorterHolds(tail, over)
    over = framesPast(whole(), length)
  }
  const pieces = ending(whole(), length + over)
  const moved = (frame: number): number => {
    if (frame <= from) return frame
    if (frame < end) return from + Math.round(((frame - from) * framesOf(middle)) / (end - from))
    return movedBehind(frame - end, behind, tail) + from + framesOf(middle)
  }
  return { layer, form: formOfPieces(pieces), over, moved }
}

/** Where a frame of what follows lies in it after its parts were given other lengths. */
function movedBehind(frame: number, before: readonly Piece[], after: readonly Piece[]): number {
  let [a, b] = [0, 0]
  for (const [i, piece] of before.entries()) {
    const frames = after[i]?.frames ?? 0
    if (frame < a + piece.frames) return b + Math.min(frame - a, frames)
    a += piece.frames
    b += frames
  }
  return b
}

/** What is put, its last part held until there are so many frames. */
function heldFor(put: readonly Piece[], frames: number): Piece[] {
  const last = put[put.length - 1] ?? { drawing: null, cycle: null, frames: 0 }
  return [...put.slice(0, -1), { ...last, frames: last.frames + frames - framesOf(put) }]
}

/** Frames past the end of a take of `length`. A cycle to the end gives way down to one turn, or what there was of it. */
function framesPast(pieces: readonly Piece[], length: number): number {
  return Math.max(0, framesOf(pieces) - spare(pieces) - length)
}

function spare(pieces: readonly Piece[]): number {
  const last = pieces[pieces.length - 1]
  return isEndless(pieces) && last?.cycle ? last.frames - Math.min(last.frames, periodOf(last.cycle)) : 0
}

/** The parts made to end on a frame: a cycle to the end is as long as that wants. */
function ending(pieces: readonly Piece[], length: number): readonly Piece[] {
  if (!isEndless(pieces)) return pieces
  const last = pieces[pieces.length - 1] as Piece
  return [...pieces.slice(0, -1), { ...last, frames: length - framesOf(pieces) + last.frames }]
}

/** What is said about an edit besides its changes. */
export interface Settling {
  /** drawings may go from the take: that is what was asked for */
  readonly losing?: boolean
  /** operations to be done before: drawings that the changes show */
  readonly first?: readonly Operation[]
}

/**
 * Operations that do the changes, one on each layer at most, and find room for them all at once. Refused when there is no
 * room in that manner, or when a drawing would no longer be shown in the take.
 */
export function settle(
  document: ShotDocument,
  take: Take,
  changes: readonly Change[],
  manner: Manner,
  { losing = false, first = [] }: Settling = {},
): Proposal {
  const room = roomOf(manner)
  const grown = (change: Change) => lengthOf(change.stretch) - (change.to - change.from)
  const by = stays(manner) ? 0 : Math.max(0, ...changes.map(grown))
  if (room === 'all' && by > 0) return movingAll(document, take, changes, by, first)
  const layers = changes.map(change => pushed(formOf(take, change.layer), take.length, change, manner))
  if (stays(manner) && changes.some(change => cutsCycle(take, change))) return { ok: false, code: 'crosses-cycle' }
  return settled(document, take, layers, room, losing, first)
}

/** Layers given their new form, when that is allowed. */
function settled(
  document: ShotDocument,
  take: Take,
  layers: readonly Pushed[],
  room: Room,
  losing: boolean,
  first: readonly Operation[],
): Proposal {
  const over = Math.max(0, ...layers.map(layer => layer.over))
  if (over > 0 && room !== 'longer' && room !== 'cover' && !take.open) return { ok: false, code: 'no-room', over }
  const lost = losing || room === 'cover' ? [] : layers.flatMap(layer => lostFrom(take, layer))
  if (lost.length > 0) return { ok: false, code: 'would-cover', drawings: lost }
  const forms = new Map(layers.map(layer => [layer.layer, layer.form]))
  const length = take.length + over
  const ops = [...first, ...rewrite(take, forms, length), ...loopMoved(document, take, layers, length)]
  return proposed([...ops, ...asItComes(document, take, ops)])
}

/** A layer given another form, of `over` frames more than the take has. Refused like any edit where that does not fit, or covers drawings. */
export const settleForm = (
  document: ShotDocument,
  take: Take,
  layer: string,
  form: LayerForm,
  room: Room,
): Proposal => {
  const over = Math.max(0, lengthOf(form.runs) - take.length)
  return settled(document, take, [{ layer, form, over, moved: frame => frame }], room, false, [])
}

/** Whether what is longer than its room would cover part of a linked cycle that lies behind it. */
function cutsCycle(take: Take, { layer, from, to, stretch, cycle }: Change): boolean {
  const end = from + lengthOf(stretch)
  return cyclesOf(take, layer).some(
    other => other.id !== cycle?.id && other.from < end && cycleEnd(other, take.length) > to,
  )
}

/** What follows moves by as much on every layer, so that all stays in step; the shot gets longer by it. */
function movingAll(
  document: ShotDocument,
  take: Take,
  changes: readonly Change[],
  by: number,
  first: readonly Operation[],
): Proposal {
  const at = Math.max(...changes.map(change => change.to))
  const insert: Operation = { kind: 'frames.insert', take: take.id, at, count: by, fill: {} }
  const result = applyBatch(document, [insert])
  if (!result.ok) return { ok: false, code: 'too-much' }
  const longer = get(result.document.takes, take.id)
  const into = changes.map(change => ({ ...change, to: change.to === at ? at + by : change.to }))
  const step = settle(result.document, { ...longer, open: false }, into, 'ripple')
  return step.ok ? proposed([...first, insert, ...step.ops]) : step
}

/** The drawings a layer showed and does not show any more. */
function lostFrom(take: Take, { layer, form }: Pushed): string[] {
  const shown = new Set(form.runs.map(run => run.drawing))
  for (const cycle of form.cycles) for (const run of cycle.pattern) shown.add(run.drawing)
  const before = new Set(columnOf(take, layer).map(run => run.drawing))
  return [...before].filter(drawing => drawing !== null && !shown.has(drawing)) as string[]
}

/** Operations that give layers other columns and cycles, and the take a length that is no shorter than it was. */
export function rewrite(take: Take, forms: ReadonlyMap<string, LayerForm>, length: number): Operation[] {
  const off: Operation[] = []
  const writes: Operation[] = []
  const on: Operation[] = []
  const fill: Record<string, Run[]> = {}
  const more = length - take.length
  for (const [layer, form] of forms) {
    const now = fitTo(columnOf(take, layer), length)
    const wanted = withCycles(fitTo(form.runs, length), form.cycles)
    const from = firstDifference(now, wanted)
    const relinked = relinking(take, layer, form.cycles, from)
    for (const cycle of relinked.off) off.push({ kind: 'cycle.remove', take: take.id, id: cycle.id })
    for (const cycle of relinked.on) on.push({ kind: 'cycle.add', take: take.id, cycle })
    const to = length - sameAtEnd(now, wanted, from)
    if (from < to) writes.push({ kind: 'exposure.write', take: take.id, layer, from, runs: slice(wanted, from, to) })
    fill[layer] = [{ drawing: null, frames: more }]
  }
  const insert: Operation[] =
    more > 0 ? [{ kind: 'frames.insert', take: take.id, at: take.length, count: more, fill }] : []
  return [...off, ...insert, ...writes, ...on]
}

/** Cycles to unlink before a column is written from `from` on, and to link again (changed or not) afterwards. */
function relinking(take: Take, layer: string, wanted: readonly Cycle[], from: number) {
  const same = (cycle: Cycle) => wanted.includes(cycle) && cycleEnd(cycle, take.length) <= from && cycle.to !== null
  const now = cyclesOf(take, layer)
  const unchanged = now.length === wanted.length && now.every(cycle => wanted.includes(cycle)) && from >= take.length
  if (unchanged) return { off: [], on: [] }
  return { off: now.filter(cycle => !same(cycle)), on: wanted.filter(cycle => !now.includes(cycle) || !same(cycle)) }
}

function firstDifference(a: readonly Run[], b: readonly Run[]): number {
  const [left, right] = [placed(a), placed(b)]
  for (const [i, run] of left.entries()) {
    const other = right[i]
    if (!other || other.drawing !== run.drawing) return run.start
    if (other.frames !== run.frames) return run.start + Math.min(run.frames, other.frames)
  }
  return lengthOf(a)
}

/** How many frames two columns of one length show alike at their ends, from frame `from` on. */
function sameAtEnd(a: readonly Run[], b: readonly Run[], from: number): number {
  const back = (runs: readonly Run[]) => [...runs].reverse()
  const length = lengthOf(a)
  return Math.min(length - from, firstDifference(back(a), back(b)))
}

/**
 * A loop goes with what it is made of. Over the whole take it stays over the whole take; where every animated layer that
 * shows something in it was changed, its ends go where what stood there went.
 */
function loopMoved(document: ShotDocument, take: Take, layers: readonly Pushed[], length: number): Operation[] {
  const { loop } = take
  const set = (next: LoopRange): Operation[] =>
    loop && (next.from !== loop.from || next.to !== loop.to) && next.from < next.to
      ? [{ kind: 'loop.set', take: take.id, loop: next }]
      : []
  if (!loop) return []
  if (loop.from === 0 && loop.to === take.length) return set({ from: 0, to: length })
  const changed = new Set(layers.map(layer => layer.layer))
  const acting = Object.values(document.layers).filter(
    layer =>
      isAnimated(layer) &&
      layer.follows === null &&
      slice(columnOf(take, layer.id), loop.from, loop.to).some(run => run.drawing !== null),
  )
  const leading = layers.find(layer => acting.some(other => other.id === layer.layer))
  if (!leading || !acting.every(layer => changed.has(layer.id))) return []
  return set({ from: Math.min(length - 1, leading.moved(loop.from)), to: Math.min(length, leading.moved(loop.to)) })
}

/** Operations that let an open take, after `ops`, end with its last drawing. */
export function asItComes(document: ShotDocument, take: Take, ops: readonly Operation[]): Operation[] {
  if (!take.open) return []
  const result = applyBatch(document, ops)
  if (!result.ok) return []
  const now = get(result.document.takes, take.id)
  const end = lastDrawnFrame(result.document, now)
  return end > 0 && end < now.length ? [{ kind: 'frames.remove', take: take.id, at: end, count: now.length - end }] : []
}

/** The frame behind the last drawing of a take's animation; 0 when nothing is shown. */
export function lastDrawnFrame(document: ShotDocument, take: Take): number {
  const ends = Object.values(document.layers)
    .filter(layer => isAnimated(layer) && layer.follows === null)
    .map(layer => {
      const endless = cyclesOf(take, layer.id).find(cycle => cycle.to === null)
      const runs = slice(columnOf(take, layer.id), 0, endless ? endless.from + periodOf(endless) : take.length)
      const shown = placed(runs).filter(run => run.drawing !== null)
      const last = shown[shown.length - 1]
      return last ? last.start + last.frames : 0
    })
  return Math.max(0, ...ends)
}
