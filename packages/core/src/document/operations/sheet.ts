import { cycleAfterInsert, cycleAfterRemove, cycleEnd, withCycles, type Cycle } from '../../time/cycle.ts'
import * as exposure from '../../time/exposure.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { loopAfterInsert, loopAfterRemove, type LoopRange } from '../../time/loop.ts'
import { pathAfterInsert, pathAfterRemove } from '../../path/path.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { find, get, has, type Table } from '../model/table.ts'
import { runsOf, type Bench } from './bench.ts'
import { isFrame, PLAIN, type Facts, type Handler, type Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import { isTied, refuseTied } from './tied.ts'

type Column = readonly exposure.Run[]

/** What writes exposures. */
export const SHEET: Facts = { ...PLAIN, movesTies: true, grows: true }

export const exposureWrite: Handler<'exposure.write'> = {
  facts: SHEET,
  refuse(document, op, bench) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!has(take.columns, op.layer)) return refusal('unknown-layer', op.layer)
    if (!isFrame(op.from) || op.runs.length === 0) return refusal('bad-value', 'frame')
    const end = op.from + exposure.lengthOf(op.runs)
    return (
      bench.spend(get(take.columns, op.layer).length) ??
      refuseTied(document, op.layer) ??
      refuseRuns(document, op.layer, op.runs) ??
      (end > take.length ? refusal('outside-shot', `frame ${op.from + 1}`) : refuseLinked(take, op.layer, op.from, end))
    )
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    const column = exposure.overwrite(get(take.columns, op.layer), op.from, op.runs)
    return withTake(document, take, { columns: bench.put(take.columns, op.layer, column) }, bench)
  },
  invert(before, op) {
    const column = get(get(before.takes, op.take).columns, op.layer)
    return [{ ...op, runs: exposure.slice(column, op.from, op.from + exposure.lengthOf(op.runs)) }]
  },
}

export const framesInsert: Handler<'frames.insert'> = {
  facts: SHEET,
  refuse(document, op, bench) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!isFrame(op.at) || op.at > take.length) return refusal('outside-shot', `frame ${op.at + 1}`)
    if (!isFrame(op.count) || op.count < 1) return refusal('bad-value', 'count')
    if (take.length + op.count > LONGEST_SHOT_FRAMES) return refusal('too-many', 'frames')
    for (const [layer, runs] of Object.entries(op.fill)) {
      if (!has(take.columns, layer)) return refusal('unknown-layer', layer)
      // What a tied layer shows follows from its line, whatever is said.
      if (isTied(document, layer)) continue
      const fault = refuseRuns(document, layer, runs)
      if (fault) return fault
      if (exposure.lengthOf(runs) !== op.count) return refusal('bad-value', 'length of the filling')
    }
    return bench.spend(runsOf(document))
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    const columns = mapColumns(document, take, (column, layer) =>
      exposure.insert(column, op.at, find(op.fill, layer) ?? exposure.heldAt(column, op.at, op.count)),
    )
    const loop = loopAfterInsert(take.loop, op.at, op.count)
    const cycles = mapTable(take.cycles, cycle => cycleAfterInsert(cycle, op.at, op.count))
    const paths = mapTable(take.paths, path => pathAfterInsert(path, op.at, op.count))
    const patch = { length: take.length + op.count, loop, columns: showing(columns, cycles), cycles, paths }
    return withTake(document, take, patch, bench)
  },
  invert(before, op) {
    return [{ kind: 'frames.remove', take: op.take, at: op.at, count: op.count }, loopAsIn(before, op.take)]
  },
}

export const framesRemove: Handler<'frames.remove'> = {
  facts: { ...SHEET, grows: false },
  refuse(document, op, bench) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!isFrame(op.at) || !isFrame(op.count) || op.count < 1) return refusal('bad-value', 'count')
    if (op.at + op.count > take.length) return refusal('outside-shot', `frame ${op.at + 1}`)
    if (op.count === take.length) return refusal('bad-value', 'count: a shot keeps at least one frame')
    return bench.spend(runsOf(document))
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    const columns = mapColumns(document, take, column => exposure.remove(column, op.at, op.at + op.count))
    const loop = loopAfterRemove(take.loop, op.at, op.at + op.count)
    const length = take.length - op.count
    const cycles = mapTable(take.cycles, cycle => cycleAfterRemove(cycle, op.at, op.at + op.count, length))
    const paths = mapTable(take.paths, path => pathAfterRemove(path, op.at, op.at + op.count))
    return withTake(document, take, { length, loop, columns: showing(columns, cycles), cycles, paths }, bench)
  },
  invert(before, op) {
    const { columns } = get(before.takes, op.take)
    const own = Object.entries(columns).filter(([layer]) => !isTied(before, layer))
    const fill = Object.fromEntries(
      own.map(([layer, column]) => [layer, exposure.slice(column, op.at, op.at + op.count)]),
    )
    return [
      { kind: 'frames.insert', take: op.take, at: op.at, count: op.count, fill },
      loopAsIn(before, op.take),
      ...cyclesAsIn(before, op),
      ...pathsAsIn(before, op),
    ]
  },
}

export const loopSet: Handler<'loop.set'> = {
  facts: PLAIN,
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    return op.loop && !loopFits(op.loop, take.length) ? refusal('outside-shot', 'loop') : null
  },
  apply: (document, op, bench) => withTake(document, get(document.takes, op.take), { loop: op.loop }, bench),
  invert(before, op) {
    return [loopAsIn(before, op.take)]
  },
}

function loopAsIn(before: ShotDocument, take: string) {
  return { kind: 'loop.set', take, loop: get(before.takes, take).loop } as const
}

/** Cycles that taking frames out cuts short or ends, as they were: what putting the frames back does not restore. */
function cyclesAsIn(before: ShotDocument, op: { take: string; at: number; count: number }): Operation[] {
  const { cycles, length } = get(before.takes, op.take)
  return Object.values(cycles).flatMap((cycle): Operation[] => {
    const cut = cycleAfterRemove(cycle, op.at, op.at + op.count, length - op.count)
    if (!cut) return [{ kind: 'cycle.add', take: op.take, cycle }]
    const back = cycleAfterInsert(cut, op.at, op.count)
    if (back.from === cycle.from && back.to === cycle.to) return []
    return [{ kind: 'cycle.set', take: op.take, id: cycle.id, patch: { from: cycle.from, to: cycle.to } }]
  })
}

/** Paths that taking frames out robs of places, as they were. */
function pathsAsIn(before: ShotDocument, op: { take: string; at: number; count: number }): Operation[] {
  return Object.entries(get(before.takes, op.take).paths).flatMap(([layer, path]): Operation[] => {
    const back = pathAfterInsert(pathAfterRemove(path, op.at, op.at + op.count), op.at, op.count)
    const isBack = path.keys.every((key, i) => key.frame === back.keys[i]?.frame)
    return isBack ? [] : [{ kind: 'path.set', take: op.take, layer, path }]
  })
}

/** Frames of a linked cycle follow from its pattern and cannot be written one by one. */
function refuseLinked(take: Take, layer: string, from: number, to: number): Refusal | null {
  const cycle = Object.values(take.cycles).find(
    c => c.layer === layer && c.from < to && cycleEnd(c, take.length) > from,
  )
  return cycle ? refusal('linked', cycle.id) : null
}

/** Whether a loop (frames from 0, `to` left out) lies in a take of so many frames; none always fits. */
export const loopFits = (loop: LoopRange, length: number): boolean =>
  isFrame(loop.from) && isFrame(loop.to) && loop.from < loop.to && loop.to <= length

/** Runs must last, and show drawings of their own layer. */
export function refuseRuns(document: ShotDocument, layer: string, runs: Column): Refusal | null {
  for (const { drawing, frames } of runs) {
    if (!Number.isInteger(frames) || frames < 1) return refusal('bad-value', 'frames of a run')
    if (drawing === null) continue
    const known = find(document.drawings, drawing)
    if (!known) return refusal('unknown-drawing', drawing)
    if (known.layer !== layer) return refusal('wrong-layer', drawing)
  }
  return null
}

/** The document with a changed take. */
export function withTake(document: ShotDocument, take: Take, patch: Partial<Take>, bench: Bench): ShotDocument {
  bench.forgetUse()
  return bench.set(document, { takes: bench.put(document.takes, take.id, bench.set(take, patch)) })
}

/** Columns with the frames of linked cycles made to show their patterns. */
function showing(columns: Table<Column>, cycles: Table<Cycle>): Table<Column> {
  const byLayer = new Map<string, Cycle[]>()
  for (const cycle of Object.values(cycles)) byLayer.set(cycle.layer, [...(byLayer.get(cycle.layer) ?? []), cycle])
  const shown = [...byLayer].map(([layer, own]): [string, Column] => {
    const column = get(columns, layer)
    const now = withCycles(column, own)
    // What shows the same is left as the value it is, so that nobody takes it for changed.
    return [layer, exposure.sameRuns(column, now) ? column : now]
  })
  return { ...columns, ...Object.fromEntries(shown) }
}

/** The columns of a take, changed; those of tied layers follow from them later. */
function mapColumns(
  document: ShotDocument,
  take: Take,
  change: (column: Column, layer: string) => Column,
): Table<Column> {
  return Object.fromEntries(
    Object.entries(take.columns).map(([layer, column]) => [
      layer,
      isTied(document, layer) ? column : change(column, layer),
    ]),
  )
}

/** A table with every thing changed; what becomes null is left out. */
function mapTable<T>(table: Table<T>, change: (thing: T) => T | null): Table<T> {
  const out: Record<string, T> = {}
  for (const [id, thing] of Object.entries(table)) {
    const next = change(thing)
    if (next !== null) out[id] = next
  }
  return out
}
