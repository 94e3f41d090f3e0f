import { cycleEnd, patternFrame, periodOf } from '../../time/cycle.ts'
import { drawingAt, lengthOf, placed, plain, runAt, slice, type PlacedRun, type Run } from '../../time/exposure.ts'
import { onN } from '../../time/segment.ts'
import { patternChange, settleAll, stretchChange, type LayerChange } from './changes.ts'
import { exposureAt, freeStretch, touchesCycle, type Exposure } from './layerForm.ts'
import { proposed, type Proposal } from './proposal.ts'
import type { Drawing, Role, ShotDocument, Take } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { paintOff, sheetFor, sheetsUnderCopy } from './paintSheets.ts'
import { followingOf, roomOf, type Manner } from './room.ts'
import { columnOf, cycleAt, exposedDrawing, exposures, freeNumber, timedBy } from '../model/selectors.ts'
import { find, get, has } from '../model/table.ts'

/** A new exposure: the drawing it shows, and the frame it starts on. */
interface Put {
  readonly frame: number
  readonly drawing: string
}

type Ids = () => string

/** Whole drawings that start in [from, to) of a layer: the stretch from the first one's start to the last one's end. */
function wholeDrawings(take: Take, layer: string, from: number, to: number): { from: number; to: number } | null {
  const runs = placed(columnOf(take, layer)).filter(run => run.start >= from && run.start < to && run.drawing !== null)
  const [first, last] = [runs[0], runs[runs.length - 1]]
  return first && last ? { from: first.start, to: last.start + last.frames } : null
}

/** Every drawing that starts in frames [from, to) of the layers on `n` frames. All of a linked cycle where more than a turn is marked. */
export function exposeSelection(
  document: ShotDocument,
  take: Take,
  layers: readonly string[],
  from: number,
  to: number,
  n: number,
  manner: Manner = 'ripple',
): Proposal {
  const onThem = (stretch: readonly Run[]) => onN(stretch, n)
  const changes = layers.map((layer): LayerChange => {
    const whole = wholeDrawings(take, layer, from, to)
    if (!whole) return null
    const cycle = cycleAt(take, layer, whole.from)
    if (cycle && whole.to - whole.from > periodOf(cycle)) {
      return patternChange(take, cycle, 0, periodOf(cycle), onThem, manner)
    }
    const end = followingOf(manner) === 'ripple' ? whole.to : Math.max(Math.min(to, take.length), whole.to)
    return stretchChange(take, layer, whole.from, end, onThem, manner)
  })
  return settleAll(document, take, changes, manner)
}

/** Holds the drawing that covers `frame` for `frames` frames (at least 1). Held for less where what follows stays, it leaves nothing behind. */
export function holdDrawing(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  frames: number,
  manner: Manner = 'ripple',
): Proposal {
  const held = exposureAt(take, layer, frame)
  const wanted = Math.max(1, frames)
  if (!held || wanted === held.frames) return proposed([])
  const left = followingOf(manner) === 'stay' ? held.frames - wanted : 0
  const next = [{ drawing: held.drawing, frames: wanted }, ...(left > 0 ? [{ drawing: null, frames: left }] : [])]
  return settleAll(document, take, [exposureChange(take, layer, held, next, manner)], manner)
}

/** An exposure replaced: where it stands in its column, or in the pattern of its cycle. */
function exposureChange(
  take: Take,
  layer: string,
  { cycle, at, start, frames }: Exposure,
  next: readonly Run[],
  manner: Manner,
): LayerChange {
  return cycle
    ? patternChange(take, cycle, at, at + frames, () => next, manner)
    : { layer, from: start, to: start + frames, stretch: next, cycle: null }
}

/**
 * Fills the empty frames behind drawings by holding them: for every drawing that starts in [from, to) of a layer, up to the
 * next drawing, or the end of the shot.
 */
export function holdToNext(
  document: ShotDocument,
  take: Take,
  layers: readonly string[],
  from: number,
  to: number,
): Proposal {
  const changes = layers.map((layer): LayerChange => {
    const whole = wholeDrawings(take, layer, from, to)
    if (!whole || touchesCycle(take, layer, whole.from, whole.to)) return null
    const room = freeStretch(take, layer, whole.from)
    const next = placed(columnOf(take, layer)).find(run => run.start >= whole.to && run.drawing !== null)
    const end = Math.max(whole.to, Math.min(room.to, next?.start ?? take.length))
    const stretch = heldThrough(slice(columnOf(take, layer), whole.from, end))
    return { layer, from: whole.from, to: end, stretch, cycle: null }
  })
  return settleAll(document, take, changes, 'stay')
}

/** A stretch that begins with a drawing, with the empty frames in it given to the drawings before them. */
function heldThrough(stretch: readonly Run[]): Run[] {
  let last: string | null = null
  return plain(
    stretch.map(run => {
      last = run.drawing ?? last
      return { drawing: last, frames: run.frames }
    }),
  )
}

/** Holds the last drawing that starts on or before `frame` up to that frame, or (`to` the take's length) to the end. */
export function holdUpTo(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  to: number,
  manner: Manner = 'stay',
): Proposal {
  const shown = exposures(take, layer).filter(run => run.start <= frame)
  const last = shown[shown.length - 1]
  if (!last) return proposed([])
  if (touchesCycle(take, layer, last.start, last.start + last.frames)) return { ok: false, code: 'crosses-cycle' }
  const wanted = to - last.start
  if (wanted <= last.frames) return proposed([])
  const stretch = [{ drawing: last.drawing, frames: wanted }]
  const change = { layer, from: last.start, to: last.start + last.frames, stretch, cycle: null }
  return settleAll(document, take, [change], { following: 'stay', room: roomOf(manner) })
}

/**
 * Where a drawing put in at `frame` goes. On an empty frame: there, for up to `hold` frames, with the drawing before it held
 * up to it unless `blank` frames are wanted. Inside a hold: from that frame to the end of the hold. On a frame where a
 * drawing starts: right after it, in free frames when there are any, else in `hold` new ones. `from` to `to` is the stretch
 * it takes the place of together with what is held before it; `at` the frame it starts on.
 */
function roomFor(runs: readonly Run[], frame: number, hold: number, drawing: string, blank: boolean) {
  const run = runAt(runs, frame) as PlacedRun
  const end = run.start + run.frames
  if (run.drawing === null) {
    const frames = Math.min(hold, end - frame)
    const before = blank || frame === run.start ? null : drawingAt(runs, run.start - 1)
    const held = before === null ? [] : [{ drawing: before, frames: frame - run.start }]
    const stretch = [...held, { drawing, frames }]
    return { at: frame, from: before === null ? frame : run.start, to: frame + frames, stretch }
  }
  if (frame > run.start) return { at: frame, from: frame, to: end, stretch: [{ drawing, frames: end - frame }] }
  const next = runAt(runs, end)
  const frames = next?.drawing === null ? Math.min(hold, next.frames) : hold
  return { at: end, from: end, to: next?.drawing === null ? end + frames : end, stretch: [{ drawing, frames }] }
}

/** Exposes a drawing at `frame` (see `roomFor`); in a linked cycle, in its pattern and so in every turn. */
function expose(
  take: Take,
  layer: string,
  frame: number,
  hold: number,
  drawing: string,
  manner: Manner,
  blank: boolean,
) {
  const cycle = cycleAt(take, layer, frame)
  if (!cycle) {
    const free = freeStretch(take, layer, frame)
    const room = roomFor(slice(columnOf(take, layer), free.from, free.to), frame - free.from, hold, drawing, blank)
    const [from, to] = [free.from + room.from, free.from + room.to]
    return { change: { layer, from, to, stretch: room.stretch, cycle: null }, at: free.from + room.at }
  }
  const at = patternFrame(cycle, frame)
  const room = roomFor(cycle.pattern, at, hold, drawing, blank)
  // In a pattern what follows always moves: a turn has no free frames behind it.
  const ripple: Manner = { following: 'ripple', room: roomOf(manner) }
  const change = patternChange(take, cycle, room.from, room.to, () => room.stretch, ripple)
  // The same turn as before, in a pattern that may have become longer.
  const turn = Math.floor((frame - cycle.from + cycle.offset) / periodOf(cycle))
  const more = lengthOf(room.stretch) - (room.to - room.from)
  const there = cycle.from + turn * (periodOf(cycle) + more) - cycle.offset + room.at
  const end = cycleEnd(cycle, take.length) + (cycle.to === null ? 0 : turn * more)
  return { change, at: there >= cycle.from && there < end ? there : frame }
}

/** What is asked of a new exposure besides its place. */
export interface Putting {
  readonly manner?: Manner
  /** empty frames before it are left empty, and not filled by holding what is before them */
  readonly blank?: boolean
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
  { manner = 'ripple', blank = false }: Putting = {},
): Proposal<Put> | null {
  const line = timedBy(document, layer)
  if (line !== layer) {
    const over = exposedDrawing(document, take, line, frame)
    if (!over || drawingAt(columnOf(take, layer), frame) !== null) return null
    const sheet = sheetFor(over, layer, source ? copiedElements(source, newId) : {}, newId)
    return { ok: true, ops: [{ kind: 'drawing.add', drawing: sheet }], frame, drawing: sheet.id }
  }
  const id = newId()
  const put = expose(take, layer, frame, hold, id, manner, blank)
  const drawing: Drawing = {
    id,
    layer,
    number: freeNumber(document, layer, put.at),
    role,
    elements: source ? copiedElements(source, newId) : {},
    marks: source?.layer === layer ? source.marks : {},
  }
  const paint = source ? copiesUnder(document, source, drawing, newId) : []
  const first: Operation[] = [{ kind: 'drawing.add', drawing }, ...paint]
  const step = settleAll(document, take, [put.change], manner, { first })
  return step.ok ? { ...step, frame: put.at, drawing: id } : step
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
): Proposal<Put> | null {
  const timed = timedBy(document, layer)
  const run = exposureAt(take, timed, frame)
  const source = run?.drawing ? get(document.drawings, run.drawing) : null
  if (!run || !source) return null
  const id = newId()
  const number = freeNumber(document, timed, Math.max(0, run.start))
  const drawing: Drawing = { ...source, id, number, elements: copiedElements(source, newId) }
  const shown = [{ drawing: id, frames: run.frames }]
  const first: Operation[] = [{ kind: 'drawing.add', drawing }, ...copiesUnder(document, source, drawing, newId)]
  const change = exposureChange(take, timed, run, shown, 'stay')
  const step = settleAll(document, take, [change], 'stay', { losing: true, first })
  return step.ok ? { ...step, frame, drawing: id } : step
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
  { manner = 'ripple', blank = false }: Putting = {},
): Proposal {
  const put = expose(take, drawing.layer, frame, hold, drawing.id, manner, blank)
  const step = settleAll(document, take, [put.change], manner)
  return step.ok ? { ...step, frame: put.at } : step
}

/** Takes a drawing's lines and marks off and keeps the sheet and its exposures. */
export function clearDrawing(drawing: Drawing): Operation[] {
  const [ids, marks] = [Object.keys(drawing.elements), Object.keys(drawing.marks)]
  const ops: Operation[] = []
  if (ids.length) ops.push({ kind: 'elements.remove', drawing: drawing.id, ids })
  const places = Object.fromEntries(marks.map(mark => [mark, null]))
  if (marks.length) ops.push({ kind: 'marks.place', drawing: drawing.id, places })
  return ops
}

/**
 * Removes the exposure that covers `frame` on a layer: what follows moves up. A drawing that is then exposed nowhere, in
 * no take, is removed from the shot together with its place on a chart. On a tied layer only the sheet under the line
 * drawing goes: its place stays empty wherever that is shown.
 */
export function removeExposure(document: ShotDocument, take: Take, layer: string, frame: number): Proposal {
  if (timedBy(document, layer) !== layer) {
    const sheet = drawingAt(columnOf(take, layer), frame)
    return { ok: true, ops: sheet === null ? [] : [{ kind: 'drawing.remove', id: sheet }], frame }
  }
  const run = exposureAt(take, layer, frame)
  if (!run || (run.drawing === null && run.frames === take.length)) return { ok: true, ops: [], frame }
  const step = settleAll(document, take, [exposureChange(take, layer, run, [], 'ripple')], 'ripple', { losing: true })
  if (!step.ok) return step
  const ops = [...step.ops]
  if (run.drawing !== null) ops.push(...removeIfUnexposed(document, ops, run.drawing))
  return { ok: true, ops, frame: Math.max(0, Math.min(run.start, take.length - 1)) }
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
