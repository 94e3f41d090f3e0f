import * as exposure from '../../time/exposure.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { loopAfterInsert, loopAfterRemove, type LoopRange } from '../../time/loop.ts'
import type { ShotDocument, Take } from '../model.ts'
import { find, get, has, put, type Table } from '../table.ts'
import { refusal, type Handler, type Refusal } from './kinds.ts'

type Column = readonly exposure.Run[]

export const exposureWrite: Handler<'exposure.write'> = {
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!has(take.columns, op.layer)) return refusal('unknown-layer', op.layer)
    if (!isFrame(op.from) || op.runs.length === 0) return refusal('bad-value', 'frame')
    return (
      refuseRuns(document, op.layer, op.runs) ??
      (op.from + exposure.lengthOf(op.runs) > take.length ? refusal('outside-shot', `frame ${op.from + 1}`) : null)
    )
  },
  apply(document, op) {
    const take = get(document.takes, op.take)
    const column = exposure.overwrite(get(take.columns, op.layer), op.from, op.runs)
    return withTake(document, { ...take, columns: put(take.columns, op.layer, column) })
  },
  invert(before, op) {
    const column = get(get(before.takes, op.take).columns, op.layer)
    return [{ ...op, runs: exposure.slice(column, op.from, op.from + exposure.lengthOf(op.runs)) }]
  },
}

export const framesInsert: Handler<'frames.insert'> = {
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!isFrame(op.at) || op.at > take.length) return refusal('outside-shot', `frame ${op.at + 1}`)
    if (!isFrame(op.count) || op.count < 1) return refusal('bad-value', 'count')
    if (take.length + op.count > LONGEST_SHOT_FRAMES) return refusal('too-many', 'frames')
    for (const [layer, runs] of Object.entries(op.fill)) {
      if (!has(take.columns, layer)) return refusal('unknown-layer', layer)
      const fault = refuseRuns(document, layer, runs)
      if (fault) return fault
      if (exposure.lengthOf(runs) !== op.count) return refusal('bad-value', 'length of the filling')
    }
    return null
  },
  apply(document, op) {
    const take = get(document.takes, op.take)
    const columns = mapColumns(take.columns, (column, layer) =>
      exposure.insert(column, op.at, find(op.fill, layer) ?? exposure.heldAt(column, op.at, op.count)),
    )
    const loop = loopAfterInsert(take.loop, op.at, op.count)
    return withTake(document, { ...take, length: take.length + op.count, loop, columns })
  },
  invert(before, op) {
    return [{ kind: 'frames.remove', take: op.take, at: op.at, count: op.count }, loopAsIn(before, op.take)]
  },
}

export const framesRemove: Handler<'frames.remove'> = {
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (!isFrame(op.at) || !isFrame(op.count) || op.count < 1) return refusal('bad-value', 'count')
    if (op.at + op.count > take.length) return refusal('outside-shot', `frame ${op.at + 1}`)
    return op.count === take.length ? refusal('bad-value', 'count: a shot keeps at least one frame') : null
  },
  apply(document, op) {
    const take = get(document.takes, op.take)
    const columns = mapColumns(take.columns, column => exposure.remove(column, op.at, op.at + op.count))
    const loop = loopAfterRemove(take.loop, op.at, op.at + op.count)
    return withTake(document, { ...take, length: take.length - op.count, loop, columns })
  },
  invert(before, op) {
    const fill = mapColumns(get(before.takes, op.take).columns, column =>
      exposure.slice(column, op.at, op.at + op.count),
    )
    return [{ kind: 'frames.insert', take: op.take, at: op.at, count: op.count, fill }, loopAsIn(before, op.take)]
  },
}

export const loopSet: Handler<'loop.set'> = {
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    return op.loop && !fits(op.loop, take.length) ? refusal('outside-shot', 'loop') : null
  },
  apply(document, op) {
    return withTake(document, { ...get(document.takes, op.take), loop: op.loop })
  },
  invert(before, op) {
    return [loopAsIn(before, op.take)]
  },
}

function loopAsIn(before: ShotDocument, take: string) {
  return { kind: 'loop.set', take, loop: get(before.takes, take).loop } as const
}

const fits = (loop: LoopRange, length: number): boolean =>
  isFrame(loop.from) && isFrame(loop.to) && loop.from < loop.to && loop.to <= length

const isFrame = (n: number): boolean => Number.isInteger(n) && n >= 0

function refuseRuns(document: ShotDocument, layer: string, runs: Column): Refusal | null {
  for (const { drawing, frames } of runs) {
    if (!Number.isInteger(frames) || frames < 1) return refusal('bad-value', 'frames of a run')
    if (drawing === null) continue
    const known = find(document.drawings, drawing)
    if (!known) return refusal('unknown-drawing', drawing)
    if (known.layer !== layer) return refusal('wrong-layer', drawing)
  }
  return null
}

function withTake(document: ShotDocument, take: Take): ShotDocument {
  return { ...document, takes: put(document.takes, take.id, take) }
}

function mapColumns(columns: Table<Column>, change: (column: Column, layer: string) => Column): Table<Column> {
  return Object.fromEntries(Object.entries(columns).map(([layer, column]) => [layer, change(column, layer)]))
}
