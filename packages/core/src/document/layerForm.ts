import {
  cycleAfterInsert,
  cycleAfterRemove,
  cycleEnd,
  fitOf,
  patternFrame,
  periodOf,
  withCycle,
  type Cycle,
} from '../time/cycle.ts'
import { fitTo, lengthOf, placed, slice, type Run } from '../time/exposure.ts'
import { replaceStretch, type Following } from '../time/segment.ts'
import { isAnimated, type ShotDocument, type Take } from './model.ts'
import { applyBatch, type Operation } from './operations/index.ts'
import { columnOf } from './selectors.ts'

/** One layer of a take as it is edited: its column, and the linked cycles that lie in it. */
export interface LayerForm {
  readonly runs: readonly Run[]
  readonly cycles: readonly Cycle[]
}

/** Operations for an edit of the sheet, or why it cannot be done. */
export type Edited =
  | { readonly ok: true; readonly ops: readonly Operation[] }
  /** the frames belong partly to a linked cycle, or to more than one turn of it */
  | { readonly ok: false; readonly code: 'crosses-cycle' }
  | { readonly ok: false; readonly code: 'too-little-room'; readonly frames: number; readonly needed: number }
  | { readonly ok: false; readonly code: 'nothing-left' | 'past-a-key' | 'not-a-key' | 'too-much' }

export const edited = (ops: readonly Operation[]): Edited => ({ ok: true, ops })

export const cyclesOf = (take: Take, layer: string): Cycle[] =>
  Object.values(take.cycles)
    .filter(cycle => cycle.layer === layer)
    .sort((a, b) => a.from - b.from)

export const formOf = (take: Take, layer: string): LayerForm => ({
  runs: columnOf(take, layer),
  cycles: cyclesOf(take, layer),
})

/** The linked cycle that covers a frame of a layer, or null. */
export function cycleAt(take: Take, layer: string, frame: number): Cycle | null {
  return cyclesOf(take, layer).find(c => frame >= c.from && frame < cycleEnd(c, take.length)) ?? null
}

/** The frames around `frame` up to the linked cycles (or the ends of the shot) on either side. */
export function freeStretch(take: Take, layer: string, frame: number): { from: number; to: number } {
  const ends = cyclesOf(take, layer).map(c => ({ from: c.from, to: cycleEnd(c, take.length) }))
  return {
    from: Math.max(0, ...ends.filter(c => c.to <= frame).map(c => c.to)),
    to: Math.min(take.length, ...ends.filter(c => c.from > frame).map(c => c.from)),
  }
}

/** Whether frames [from, to) of a layer touch a linked cycle. */
export function touchesCycle(take: Take, layer: string, from: number, to: number): boolean {
  return cyclesOf(take, layer).some(c => c.from < to && cycleEnd(c, take.length) > from)
}

/** Whether no other drawn layer has anything exposed: then the shot's length follows this layer. */
function leadsLength(document: ShotDocument, take: Take, layer: string): boolean {
  return Object.values(document.layers).every(
    other => other.id === layer || !isAnimated(other) || columnOf(take, other.id).every(run => run.drawing === null),
  )
}

/**
 * Operations that make a layer become `form`. A longer column lengthens the shot (other layers hold their last picture); a
 * shorter one shortens it when this is the only animated layer, and leaves nothing at the end otherwise.
 */
export function rewriteLayer(document: ShotDocument, take: Take, layer: string, form: LayerForm): Operation[] {
  const length = lengthOf(form.runs)
  const next = Math.max(length, take.length)
  const now = fitTo(columnOf(take, layer), next)
  const shorter = length < take.length && length > 0 && leadsLength(document, take, layer)
  const end = shorter ? length : next
  const wanted = form.cycles.reduce<readonly Run[]>(
    (runs, cycle) => fitTo(withCycle(fitTo(runs, end), cycle), next),
    fitTo(form.runs, next),
  )
  const from = firstDifference(now, wanted)
  const relinked = relinking(take, layer, form.cycles, from)
  const ops: Operation[] = relinked.off.map(cycle => ({ kind: 'cycle.remove', take: take.id, id: cycle.id }))
  if (next > take.length) {
    const count = next - take.length
    const fill = { [layer]: [{ drawing: null, frames: count }] }
    ops.push({ kind: 'frames.insert', take: take.id, at: take.length, count, fill })
  }
  if (from < next) ops.push({ kind: 'exposure.write', take: take.id, layer, from, runs: slice(wanted, from, next) })
  if (shorter) ops.push({ kind: 'frames.remove', take: take.id, at: length, count: take.length - length })
  for (const cycle of relinked.on) ops.push({ kind: 'cycle.add', take: take.id, cycle })
  return ops
}

/** Cycles to unlink before a column is written from `from` on, and to link again (changed or not) afterwards. */
function relinking(take: Take, layer: string, wanted: readonly Cycle[], from: number) {
  const same = (cycle: Cycle) => wanted.includes(cycle) && cycleEnd(cycle, take.length) <= from && cycle.to !== null
  const now = cyclesOf(take, layer)
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

/** The layer with frames [from, to) replaced outside any cycle; cycles behind move along when what follows does. */
export function withStretch(
  form: LayerForm,
  from: number,
  to: number,
  stretch: readonly Run[],
  following: Following,
): LayerForm {
  const runs = replaceStretch(form.runs, from, to, stretch, following)
  const by = lengthOf(runs) - lengthOf(form.runs)
  const length = lengthOf(runs)
  const cycles = form.cycles.flatMap(cycle => {
    if (by > 0) return [cycleAfterInsert(cycle, to, by)]
    return by < 0 ? (cycleAfterRemove(cycle, to + by, to, length) ?? []) : [cycle]
  })
  return { runs, cycles }
}

/** The layer with one cycle's pattern changed. Whole turns stay as many when what follows may move. */
export function withPattern(
  form: LayerForm,
  cycle: Cycle,
  pattern: readonly Run[],
  following: Following,
): LayerForm | null {
  const period = lengthOf(pattern)
  if (period === 0) return null
  const length = lengthOf(form.runs)
  const end = cycleEnd(cycle, length)
  const fit = fitOf(periodOf(cycle), end - cycle.from)
  const isWhole = cycle.to !== null && fit.remainder === 0 && following === 'ripple'
  const to = isWhole ? cycle.from + fit.turns * period : cycle.to
  const next: Cycle = { ...cycle, pattern, offset: Math.min(cycle.offset, period - 1), to }
  const room: Run[] = [{ drawing: null, frames: (to ?? length) - cycle.from }]
  const others = { runs: form.runs, cycles: form.cycles.filter(c => c !== cycle) }
  const moved = isWhole ? withStretch(others, cycle.from, end, room, 'ripple') : others
  return { runs: withCycle(moved.runs, next), cycles: [...moved.cycles, next].sort((a, b) => a.from - b.from) }
}

/**
 * Changes frames [from, to) of a layer. Inside one turn of a linked cycle the pattern is changed instead, and so every
 * turn; frames that lie partly in a cycle are refused.
 */
export function editStretch(
  document: ShotDocument,
  take: Take,
  layer: string,
  from: number,
  to: number,
  change: (stretch: readonly Run[]) => readonly Run[],
  following: Following,
): Edited {
  const form = formOf(take, layer)
  if (!touchesCycle(take, layer, from, to)) {
    const next = withStretch(form, from, to, change(slice(form.runs, from, to)), following)
    if (lengthOf(next.runs) === 0) return { ok: false, code: 'nothing-left' }
    return edited(rewriteLayer(document, take, layer, next))
  }
  const cycle = cycleAt(take, layer, from)
  if (!cycle || to > cycleEnd(cycle, take.length)) return { ok: false, code: 'crosses-cycle' }
  const start = patternFrame(cycle, from)
  const end = start + to - from
  if (end > periodOf(cycle)) return { ok: false, code: 'crosses-cycle' }
  const stretch = change(slice(cycle.pattern, start, end))
  const pattern = replaceStretch(cycle.pattern, start, end, stretch, following)
  const next = withPattern(form, cycle, pattern, following)
  return next ? edited(rewriteLayer(document, take, layer, next)) : { ok: false, code: 'nothing-left' }
}

/** Edits one after the other, each on the document that the ones before lead to; all of them or the first refusal. */
export function inTurn(
  document: ShotDocument,
  take: string,
  edits: readonly ((document: ShotDocument, take: Take) => Edited)[],
): Edited {
  let now = document
  const ops: Operation[] = []
  for (const edit of edits) {
    const step = edit(now, now.takes[take] as Take)
    if (!step.ok) return step
    const result = applyBatch(now, step.ops)
    if (!result.ok) return { ok: false, code: 'too-much' }
    now = result.document
    ops.push(...step.ops)
  }
  return edited(ops)
}
