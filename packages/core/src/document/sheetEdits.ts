import {
  drawingAt,
  exposeOnRippling,
  fitTo,
  lengthOf,
  placed,
  plain,
  remove,
  runAt,
  slice,
  type PlacedRun,
  type Run,
} from '../time/exposure.ts'
import type { Drawing, Role, ShotDocument, Take } from './model.ts'
import type { Operation } from './operations/index.ts'
import { columnOf, freeNumber } from './selectors.ts'
import { find, get } from './table.ts'

/** Operations for an edit of the sheet, and the frame the desk should stand on afterwards (from 0). */
export interface SheetEdit {
  readonly ops: readonly Operation[]
  readonly frame: number
}

type Ids = () => string

/** Whether no other drawn layer has anything exposed: then the shot's length follows this layer. */
function leadsLength(document: ShotDocument, take: Take, layer: string): boolean {
  return Object.values(document.layers).every(
    other =>
      other.id === layer || other.kind === 'background' || columnOf(take, other.id).every(run => run.drawing === null),
  )
}

/**
 * Operations that make a layer's column become `runs`. A longer column lengthens the shot (other layers hold their last
 * picture); a shorter one shortens it when this is the only animated layer, and leaves nothing at the end otherwise.
 */
export function rewriteColumn(document: ShotDocument, take: Take, layer: string, runs: readonly Run[]): Operation[] {
  const length = lengthOf(runs)
  const next = Math.max(length, take.length)
  const now = fitTo(columnOf(take, layer), next)
  const wanted = fitTo(runs, next)
  const ops: Operation[] = []
  if (next > take.length) {
    const count = next - take.length
    const fill = { [layer]: [{ drawing: null, frames: count }] }
    ops.push({ kind: 'frames.insert', take: take.id, at: take.length, count, fill })
  }
  const from = firstDifference(now, wanted)
  if (from < next) ops.push({ kind: 'exposure.write', take: take.id, layer, from, runs: slice(wanted, from, next) })
  if (length < take.length && length > 0 && leadsLength(document, take, layer)) {
    ops.push({ kind: 'frames.remove', take: take.id, at: length, count: take.length - length })
  }
  return ops
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

/** Every drawing that starts in frames [from, to) of a layer on `n` frames; what follows moves. */
export function exposeSelection(
  document: ShotDocument,
  take: Take,
  layer: string,
  from: number,
  to: number,
  n: number,
): Operation[] {
  return rewriteColumn(document, take, layer, exposeOnRippling(columnOf(take, layer), from, to, n).runs)
}

/** Holds the drawing that covers `frame` for `frames` frames (at least 1); what follows moves. */
export function holdDrawing(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  frames: number,
): Operation[] {
  const held = runAt(columnOf(take, layer), frame)
  if (!held) return []
  const runs = placed(columnOf(take, layer)).map(run =>
    run.start === held.start ? { drawing: run.drawing, frames: Math.max(1, frames) } : run,
  )
  return rewriteColumn(document, take, layer, plain(runs))
}

/**
 * Where a drawing put in at `frame` goes, and the operations that make room. On an empty frame: there, for up to `hold`
 * frames. Inside a hold: from that frame to the end of the hold. On a frame where a drawing starts: right after it, in
 * free frames when there are any, else in `hold` new ones.
 */
function makeRoom(
  take: Take,
  layer: string,
  frame: number,
  hold: number,
): { ops: Operation[]; at: number; frames: number } {
  const column = columnOf(take, layer)
  const run = runAt(column, frame) as PlacedRun
  if (run.drawing === null) return { ops: [], at: frame, frames: Math.min(hold, run.start + run.frames - frame) }
  if (frame > run.start) return { ops: [], at: frame, frames: run.start + run.frames - frame }
  const at = run.start + run.frames
  const next = runAt(column, at)
  if (next && next.drawing === null) return { ops: [], at, frames: Math.min(hold, next.frames) }
  const fill = { [layer]: [{ drawing: null, frames: hold }] }
  return { ops: [{ kind: 'frames.insert', take: take.id, at, count: hold, fill }], at, frames: hold }
}

/** Puts a new drawing on the sheet at `frame` (see `makeRoom`), empty or as a copy of `source`. */
export function putNewDrawing(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  hold: number,
  source: Drawing | null,
  role: Role,
  newId: Ids,
): SheetEdit & { readonly drawing: string } {
  const room = makeRoom(take, layer, frame, hold)
  const drawing: Drawing = {
    id: newId(),
    layer,
    number: freeNumber(document, layer, room.at),
    role,
    elements: source ? copiedElements(source, newId) : {},
  }
  const runs = [{ drawing: drawing.id, frames: room.frames }]
  return {
    ops: [
      ...room.ops,
      { kind: 'drawing.add', drawing },
      { kind: 'exposure.write', take: take.id, layer, from: room.at, runs },
    ],
    frame: room.at,
    drawing: drawing.id,
  }
}

/** The elements of a drawing under new ids; stored samples are shared, not copied. */
export function copiedElements(source: Drawing, newId: Ids): Drawing['elements'] {
  return Object.fromEntries(
    Object.values(source.elements).map(element => {
      const id = newId()
      return [id, { ...element, id }]
    }),
  )
}

/** Exposes a drawing that exists once more at `frame` (see `makeRoom`): change it, and every exposure of it changes. */
export function shareDrawing(take: Take, drawing: Drawing, frame: number, hold: number): SheetEdit {
  const room = makeRoom(take, drawing.layer, frame, hold)
  const runs = [{ drawing: drawing.id, frames: room.frames }]
  return {
    ops: [...room.ops, { kind: 'exposure.write', take: take.id, layer: drawing.layer, from: room.at, runs }],
    frame: room.at,
  }
}

/** Takes a drawing's lines off and keeps the sheet and its exposures. */
export function clearDrawing(drawing: Drawing): Operation[] {
  const ids = Object.keys(drawing.elements)
  return ids.length ? [{ kind: 'elements.remove', drawing: drawing.id, ids }] : []
}

/**
 * Removes the exposure that covers `frame` on a layer: what follows moves up. A drawing that is then exposed nowhere, in
 * no take, is removed from the shot together with its place on a chart.
 */
export function removeExposure(document: ShotDocument, take: Take, layer: string, frame: number): SheetEdit {
  const column = columnOf(take, layer)
  const run = runAt(column, frame)
  if (!run || (run.drawing === null && run.frames === take.length)) return { ops: [], frame }
  const left = remove(column, run.start, run.start + run.frames)
  const wanted = left.length ? left : [{ drawing: null, frames: take.length }]
  const ops = rewriteColumn(document, take, layer, wanted)
  const lostId = run.drawing
  if (lostId !== null && !isExposedElsewhere(document, take, layer, wanted, lostId)) {
    ops.push(...unchart(document, lostId), { kind: 'drawing.remove', id: lostId })
  }
  return { ops, frame: Math.max(0, Math.min(run.start, lengthOf(wanted) - 1)) }
}

function isExposedElsewhere(
  document: ShotDocument,
  take: Take,
  layer: string,
  column: readonly Run[],
  drawing: string,
): boolean {
  const shows = (runs: readonly Run[]) => runs.some(run => run.drawing === drawing)
  return shows(column) || Object.values(document.takes).some(t => t.id !== take.id && shows(columnOf(t, layer)))
}

/** Operations that take a drawing off every chart: its ticks stay to be drawn again, charts it is a key of go. */
export function unchart(document: ShotDocument, drawing: string): Operation[] {
  return Object.values(document.charts).flatMap((chart): Operation[] => {
    if (chart.from === drawing || chart.to === drawing) return [{ kind: 'chart.remove', id: chart.id }]
    if (!chart.ticks.some(tick => tick.drawing === drawing)) return []
    const ticks = chart.ticks.map(tick => (tick.drawing === drawing ? { ...tick, drawing: null } : tick))
    return [{ kind: 'chart.set', id: chart.id, patch: { ticks } }]
  })
}

/** The frame on which the drawing before (−1) or after (+1) the one at `frame` starts; null at the ends. */
export function frameOfNeighbour(take: Take, layer: string, frame: number, direction: -1 | 1): number | null {
  const runs = placed(columnOf(take, layer)).filter(run => run.drawing !== null)
  if (direction > 0) return runs.find(run => run.start > frame)?.start ?? null
  const before = runs.filter(run => run.start + run.frames <= frame)
  return before[before.length - 1]?.start ?? null
}

/** The drawing that a copy or a share at `frame` takes after: the one exposed there, else the nearest before. */
export function sourceAt(document: ShotDocument, take: Take, layer: string, frame: number): Drawing | null {
  const column = columnOf(take, layer)
  const here = drawingAt(column, frame)
  if (here !== null) return get(document.drawings, here)
  const before = frameOfNeighbour(take, layer, frame, -1)
  const id = before === null ? null : drawingAt(column, before)
  return id === null ? null : (find(document.drawings, id) ?? null)
}
