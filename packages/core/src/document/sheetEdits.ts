import { cycleEnd, patternFrame, periodOf } from '../time/cycle.ts'
import { drawingAt, lengthOf, placed, plain, runAt, slice, type PlacedRun, type Run } from '../time/exposure.ts'
import { onN, replaceStretch, type Following } from '../time/segment.ts'
import {
  cycleAt,
  edited,
  editStretch,
  formOf,
  freeStretch,
  rewriteLayer,
  withPattern,
  type Edited,
} from './layerForm.ts'
import type { Drawing, Role, ShotDocument, Take } from './model.ts'
import { applyBatch, type Operation } from './operations/index.ts'
import { paintOff, sheetFor, sheetsUnderCopy, timedBy } from './paintSheets.ts'
import { columnOf, exposedDrawing, freeNumber } from './selectors.ts'
import { find, get, has } from './table.ts'

/** Operations for an edit of the sheet, and the frame the desk should stand on afterwards (from 0). */
export interface SheetEdit {
  readonly ops: readonly Operation[]
  readonly frame: number
}

type Ids = () => string

/** Operations of an edit that cannot be refused where it is used; none when it is. */
const opsOf = (step: Edited): readonly Operation[] => (step.ok ? step.ops : [])

/** Whole drawings that start in [from, to) of a layer: the stretch from the first one's start to the last one's end. */
function wholeDrawings(take: Take, layer: string, from: number, to: number): { from: number; to: number } | null {
  const runs = placed(columnOf(take, layer)).filter(run => run.start >= from && run.start < to && run.drawing !== null)
  const [first, last] = [runs[0], runs[runs.length - 1]]
  return first && last ? { from: first.start, to: last.start + last.frames } : null
}

/** Every drawing that starts in frames [from, to) of a layer on `n` frames. */
export function exposeSelection(
  document: ShotDocument,
  take: Take,
  layer: string,
  from: number,
  to: number,
  n: number,
  following: Following = 'ripple',
): Edited {
  const whole = wholeDrawings(take, layer, from, to)
  if (!whole) return edited([])
  const end = following === 'ripple' ? whole.to : Math.max(Math.min(to, take.length), whole.to)
  return editStretch(document, take, layer, whole.from, end, stretch => onN(stretch, n), following)
}

/** The exposure that covers a frame: in a linked cycle the one of its pattern, where the frame's turn shows it. */
export function exposureAt(take: Take, layer: string, frame: number): PlacedRun | null {
  const cycle = cycleAt(take, layer, frame)
  if (!cycle) {
    const free = freeStretch(take, layer, frame)
    const run = runAt(slice(columnOf(take, layer), free.from, free.to), frame - free.from)
    return run && { ...run, start: free.from + run.start }
  }
  const at = patternFrame(cycle, frame)
  const run = runAt(cycle.pattern, at)
  return run && { ...run, start: frame - at + run.start }
}

/** Holds the drawing that covers `frame` for `frames` frames (at least 1). */
export function holdDrawing(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  frames: number,
  following: Following = 'ripple',
): Edited {
  const held = exposureAt(take, layer, frame)
  if (!held) return edited([])
  const wanted = Math.max(1, frames)
  if (following === 'ripple') return holdRippling(document, take, layer, frame, held, wanted)
  // Without moving what follows, a longer hold covers it and a shorter one leaves nothing behind.
  const end = held.start + Math.max(held.frames, wanted)
  const to = Math.min(end, take.length)
  const next = [
    { drawing: held.drawing, frames: Math.min(wanted, to - held.start) },
    ...(wanted < held.frames ? [{ drawing: null, frames: held.frames - wanted }] : []),
  ]
  return editStretch(document, take, layer, held.start, to, () => next, 'stay')
}

function holdRippling(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  held: PlacedRun,
  frames: number,
): Edited {
  const cycle = cycleAt(take, layer, frame)
  if (!cycle) {
    const to = held.start + held.frames
    return editStretch(document, take, layer, held.start, to, () => [{ drawing: held.drawing, frames }], 'ripple')
  }
  const start = patternFrame(cycle, frame) - (frame - held.start)
  const run = [{ drawing: held.drawing, frames }]
  const pattern = replaceStretch(cycle.pattern, start, start + held.frames, run, 'ripple')
  const next = withPattern(formOf(take, layer), cycle, pattern, 'ripple')
  return next ? edited(rewriteLayer(document, take, layer, next)) : { ok: false, code: 'nothing-left' }
}

/**
 * Where a drawing put in at `frame` goes. On an empty frame: there, for up to `hold` frames. Inside a hold: from that
 * frame to the end of the hold. On a frame where a drawing starts: right after it, in free frames when there are any,
 * else in `hold` new ones. `covers` is the stretch it takes the place of; empty when frames are put in.
 */
function roomFor(runs: readonly Run[], frame: number, hold: number): { at: number; frames: number; covers: number } {
  const run = runAt(runs, frame) as PlacedRun
  const end = run.start + run.frames
  if (run.drawing === null) {
    const frames = Math.min(hold, end - frame)
    return { at: frame, frames, covers: frames }
  }
  if (frame > run.start) return { at: frame, frames: end - frame, covers: end - frame }
  const next = runAt(runs, end)
  if (next && next.drawing === null) {
    const frames = Math.min(hold, next.frames)
    return { at: end, frames, covers: frames }
  }
  return { at: end, frames: hold, covers: 0 }
}

/** Exposes a drawing at `frame` (see `roomFor`); in a linked cycle, in its pattern and so in every turn. */
function expose(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  hold: number,
  drawing: string,
): { ops: readonly Operation[]; frame: number } {
  const cycle = cycleAt(take, layer, frame)
  const form = formOf(take, layer)
  if (cycle) {
    const at = patternFrame(cycle, frame)
    const room = roomFor(cycle.pattern, at, hold)
    const next = withPattern(form, cycle, placedIn(cycle.pattern, room, drawing), 'ripple')
    // The same turn as before, in a pattern that may have become longer.
    const turn = Math.floor((frame - cycle.from + cycle.offset) / periodOf(cycle))
    const grown = periodOf(cycle) + room.frames - room.covers
    const there = cycle.from + turn * grown - cycle.offset + room.at
    const end = cycleEnd(cycle, take.length) + (cycle.to === null ? 0 : turn * (room.frames - room.covers))
    const inside = there >= cycle.from && there < end ? there : frame
    return { ops: next ? rewriteLayer(document, take, layer, next) : [], frame: inside }
  }
  const free = freeStretch(take, layer, frame)
  const room = roomFor(slice(form.runs, free.from, free.to), frame - free.from, hold)
  const runs = [{ drawing, frames: room.frames }]
  const at = free.from + room.at
  if (room.covers > 0) return { ops: [{ kind: 'exposure.write', take: take.id, layer, from: at, runs }], frame: at }
  // New frames are put in on every layer, so that what was in step stays in step.
  const fill = { [layer]: runs }
  const ops: Operation[] = [{ kind: 'frames.insert', take: take.id, at, count: room.frames, fill }]
  return { ops, frame: at }
}

function placedIn(runs: readonly Run[], room: { at: number; frames: number; covers: number }, drawing: string): Run[] {
  const length = lengthOf(runs)
  const run = { drawing, frames: room.frames }
  return plain([...slice(runs, 0, room.at), run, ...slice(runs, room.at + room.covers, length)])
}

/**
 * Puts a new drawing on the sheet at `frame` (see `roomFor`), empty or as a copy of `source`; paint that lies under the
 * source is copied along. On a layer tied to another it is the sheet under the line drawing that is exposed there: null
 * where no line is drawn, or the sheet is there already.
 */
export function putNewDrawing(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  hold: number,
  source: Drawing | null,
  role: Role,
  newId: Ids,
): (SheetEdit & { readonly drawing: string }) | null {
  const line = timedBy(document, layer)
  if (line !== layer) {
    const over = exposedDrawing(document, take, line, frame)
    if (!over || drawingAt(columnOf(take, layer), frame) !== null) return null
    const sheet = sheetFor(over, layer, source ? copiedElements(source, newId) : {}, newId)
    return { ops: [{ kind: 'drawing.add', drawing: sheet }], frame, drawing: sheet.id }
  }
  const id = newId()
  const put = expose(document, take, layer, frame, hold, id)
  const drawing: Drawing = {
    id,
    layer,
    number: freeNumber(document, layer, put.frame),
    role,
    elements: source ? copiedElements(source, newId) : {},
    marks: source?.layer === layer ? source.marks : {},
  }
  const paint = source ? copiesUnder(document, source, drawing, newId) : []
  return { ops: [{ kind: 'drawing.add', drawing }, ...paint, ...put.ops], frame: put.frame, drawing: id }
}

const copiesUnder = (document: ShotDocument, source: Drawing, copy: Drawing, newId: Ids): Operation[] =>
  sheetsUnderCopy(document, source, copy, sheet => copiedElements(sheet, newId), newId)

/**
 * Gives the exposure at `frame` (on a tied layer: of the line drawing there) a copy of its drawing for its own: other places
 * where the drawing was shown keep it. Null when nothing is exposed there. In a linked cycle the copy takes the drawing's
 * place in the pattern.
 */
export function ownCopy(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  newId: Ids,
): (SheetEdit & { readonly drawing: string }) | null {
  const timed = timedBy(document, layer)
  const run = exposureAt(take, timed, frame)
  const source = run?.drawing ? get(document.drawings, run.drawing) : null
  if (!run || !source) return null
  const id = newId()
  const number = freeNumber(document, timed, run.start)
  const drawing: Drawing = { ...source, id, number, elements: copiedElements(source, newId) }
  const shown = [{ drawing: id, frames: run.frames }]
  const step = editStretch(document, take, timed, run.start, run.start + run.frames, () => shown, 'stay')
  const paint = copiesUnder(document, source, drawing, newId)
  return { ops: [{ kind: 'drawing.add', drawing }, ...paint, ...opsOf(step)], frame, drawing: id }
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

/** Exposes a drawing that exists once more at `frame`: change it, and every exposure of it changes. */
export function shareDrawing(
  document: ShotDocument,
  take: Take,
  drawing: Drawing,
  frame: number,
  hold: number,
): SheetEdit {
  return expose(document, take, drawing.layer, frame, hold, drawing.id)
}

/** Takes a drawing's lines off and keeps the sheet and its exposures. */
export function clearDrawing(drawing: Drawing): Operation[] {
  const ids = Object.keys(drawing.elements)
  return ids.length ? [{ kind: 'elements.remove', drawing: drawing.id, ids }] : []
}

/**
 * Removes the exposure that covers `frame` on a layer: what follows moves up. A drawing that is then exposed nowhere, in
 * no take, is removed from the shot together with its place on a chart. On a tied layer only the sheet under the line
 * drawing goes: its place stays empty wherever that is shown.
 */
export function removeExposure(document: ShotDocument, take: Take, layer: string, frame: number): SheetEdit {
  if (timedBy(document, layer) !== layer) {
    const sheet = drawingAt(columnOf(take, layer), frame)
    return { ops: sheet === null ? [] : [{ kind: 'drawing.remove', id: sheet }], frame }
  }
  const run = exposureAt(take, layer, frame)
  if (!run || (run.drawing === null && run.frames === take.length)) return { ops: [], frame }
  const to = Math.min(run.start + run.frames, take.length)
  const all = run.start <= 0 && to === take.length
  const step = all
    ? editStretch(document, take, layer, 0, to, () => [{ drawing: null, frames: to }], 'ripple')
    : editStretch(document, take, layer, Math.max(0, run.start), to, () => [], 'ripple')
  const ops = [...opsOf(step)]
  if (run.drawing !== null) ops.push(...removeIfUnexposed(document, ops, run.drawing))
  const length = lengthAfter(document, take, ops)
  return { ops, frame: Math.max(0, Math.min(run.start, length - 1)) }
}

function lengthAfter(document: ShotDocument, take: Take, ops: readonly Operation[]): number {
  const result = applyBatch(document, ops)
  return result.ok ? get(result.document.takes, take.id).length : take.length
}

/** Operations that remove a drawing, and paint that lies under it, when, after `ops`, no take shows it any more. */
function removeIfUnexposed(document: ShotDocument, ops: readonly Operation[], drawing: string): Operation[] {
  const result = applyBatch(document, ops)
  if (!result.ok || isExposed(result.document, drawing)) return []
  const pins = Object.values(document.takes)
    .filter(take => has(take.pins, drawing))
    .map((take): Operation => ({ kind: 'pin.set', take: take.id, drawing, beat: null }))
  return [
    ...unchart(document, drawing),
    ...pins,
    { kind: 'drawing.remove', id: drawing },
    ...paintOff(document, drawing),
  ]
}

function isExposed(document: ShotDocument, drawing: string): boolean {
  const shows = (runs: readonly Run[]) => runs.some(run => run.drawing === drawing)
  return Object.values(document.takes).some(
    take => Object.values(take.columns).some(shows) || Object.values(take.cycles).some(c => shows(c.pattern)),
  )
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
