import { cycleEnd, periodOf, withCycle, type Cycle } from '../../time/cycle.ts'
import { lengthOf, plain, sameRuns, slice } from '../../time/exposure.ts'
import { LIMITS, type ShotDocument, type Take } from '../model/model.ts'
import { find, get, has, type Table } from '../model/table.ts'
import type { Bench } from './bench.ts'
import { isFrame, PLAIN, valuesBefore, type Handler, type Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import { refusePaths } from './paths.ts'
import { loopFits, refuseRuns, SHEET, withTake } from './sheet.ts'
import { isTied, refuseTied } from './tied.ts'

export const cycleAdd: Handler<'cycle.add'> = {
  ids: op => [op.cycle.id],
  facts: SHEET,
  refuse(document, op, bench) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    if (has(take.cycles, op.cycle.id)) return refusal('id-taken', op.cycle.id)
    if (bench.size(take.cycles) >= LIMITS.cycles) return refusal('too-many', 'linked cycles')
    return refuseCycle(document, take, op.cycle) ?? spendOn(take, op.cycle, bench)
  },
  apply: (document, op, bench) => linked(document, get(document.takes, op.take), op.cycle, bench),
  invert(before, op) {
    const take = get(before.takes, op.take)
    return [{ kind: 'cycle.remove', take: op.take, id: op.cycle.id }, ...framesWritten(take, op.cycle)]
  },
}

export const cycleSet: Handler<'cycle.set'> = {
  facts: SHEET,
  refuse(document, op, bench) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    const cycle = find(take.cycles, op.id)
    if (!cycle) return refusal('unknown-cycle', op.id)
    const next = { ...cycle, ...op.patch }
    return refuseCycle(document, take, next) ?? spendOn(take, next, bench)
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    return linked(document, take, { ...get(take.cycles, op.id), ...op.patch }, bench)
  },
  /** The stretch it covers now gets its frames back; those it covered before follow from the pattern. */
  invert(before, op) {
    const take = get(before.takes, op.take)
    const cycle = get(take.cycles, op.id)
    return [
      { kind: 'cycle.remove', take: op.take, id: op.id },
      ...framesWritten(take, { ...cycle, ...op.patch }),
      { kind: 'cycle.add', take: op.take, cycle },
    ]
  },
}

export const cycleRemove: Handler<'cycle.remove'> = {
  facts: { ...SHEET, grows: false },
  refuse(document, op) {
    const take = find(document.takes, op.take)
    if (!take) return refusal('unknown-take', op.take)
    return has(take.cycles, op.id) ? null : refusal('unknown-cycle', op.id)
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    return withTake(document, take, { cycles: bench.without(take.cycles, [op.id]) }, bench)
  },
  invert: (before, op) => [{ kind: 'cycle.add', take: op.take, cycle: get(get(before.takes, op.take).cycles, op.id) }],
}

/** The document with a cycle added or changed: its frames show its pattern. No other cycle touches them. */
function linked(document: ShotDocument, take: Take, cycle: Cycle, bench: Bench): ShotDocument {
  const column = get(take.columns, cycle.layer)
  const shown = withCycle(column, cycle)
  const cycles = bench.put(take.cycles, cycle.id, cycle)
  // What shows the same is left as the value it is, so that nobody takes it for changed.
  const columns = sameRuns(column, shown) ? take.columns : bench.put(take.columns, cycle.layer, shown)
  return withTake(document, take, { columns, cycles }, bench)
}

/** Writing a pattern out goes through its runs turn by turn, and through the column. */
function spendOn(take: Take, cycle: Cycle, bench: Bench): Refusal | null {
  const turns = (cycleEnd(cycle, take.length) - cycle.from) / periodOf(cycle)
  return bench.spend(bench.size(take.cycles) + get(take.columns, cycle.layer).length + turns * cycle.pattern.length)
}

/** Writes back what a take shows on the frames of a cycle. */
function framesWritten(take: Take, cycle: Cycle): Operation[] {
  const column = get(take.columns, cycle.layer)
  const runs = slice(column, cycle.from, cycleEnd(cycle, take.length))
  return [{ kind: 'exposure.write', take: take.id, layer: cycle.layer, from: cycle.from, runs }]
}

function refuseCycle(document: ShotDocument, take: Take, cycle: Cycle): Refusal | null {
  if (!has(take.columns, cycle.layer)) return refusal('unknown-layer', cycle.layer)
  const end = cycleEnd(cycle, take.length)
  if (!isFrame(cycle.from) || !isFrame(end) || end <= cycle.from || end > take.length) {
    return refusal('outside-shot', 'linked cycle')
  }
  if (!isFrame(cycle.offset)) return refusal('bad-value', 'offset of a cycle')
  const fault = refuseTied(document, cycle.layer) ?? refuseRuns(document, cycle.layer, cycle.pattern)
  if (fault) return fault
  if (cycle.pattern.length === 0 || cycle.offset >= periodOf(cycle)) return refusal('bad-value', 'pattern of a cycle')
  const other = Object.values(take.cycles).find(
    c => c.id !== cycle.id && c.layer === cycle.layer && c.from < end && cycleEnd(c, take.length) > cycle.from,
  )
  return other ? refusal('linked', other.id) : null
}

export const takeAdd: Handler<'take.add'> = {
  ids: ({ take }) => [
    take.id,
    ...[take.columns, take.cycles, take.pins, take.paths].flatMap(table => Object.keys(table)),
  ],
  facts: SHEET,
  refuse(document, { take }, bench) {
    if (has(document.takes, take.id)) return refusal('id-taken', take.id)
    if (bench.size(document.takes) >= LIMITS.takes) return refusal('too-many', 'takes')
    if (take.name === '' || !Number.isFinite(take.order)) return refusal('bad-value', 'take')
    if (take.loop && !loopFits(take.loop, take.length)) return refusal('outside-shot', 'loop')
    return refuseColumns(document, take) ?? refuseLinks(document, take) ?? refusePaths(document, take)
  },
  apply(document, { take }, bench) {
    const columns = Object.keys(document.layers).map(layer => [layer, find(take.columns, layer) ?? []] as const)
    return withTake(document, { ...take, columns: Object.fromEntries(columns) }, {}, bench)
  },
  invert: (_before, { take }) => [{ kind: 'take.remove', id: take.id }],
}

/** Every layer with a timing of its own needs a column over the whole take, in plain form. */
function refuseColumns(document: ShotDocument, take: Take): Refusal | null {
  const layers = Object.keys(document.layers)
  const stray = Object.keys(take.columns).find(layer => !has(document.layers, layer))
  if (stray !== undefined) return refusal('unknown-layer', stray)
  for (const layer of layers) {
    if (isTied(document, layer)) continue
    const column = find(take.columns, layer)
    if (!column) return refusal('unknown-layer', layer)
    const fault = refuseRuns(document, layer, column)
    if (fault) return fault
    if (lengthOf(column) !== take.length || !sameRuns(plain(column), column)) return refusal('bad-value', 'column')
  }
  return null
}

function refuseLinks(document: ShotDocument, take: Take): Refusal | null {
  for (const [id, cycle] of Object.entries(take.cycles)) {
    if (cycle.id !== id) return refusal('bad-value', `linked cycle ${id}`)
    const fault = refuseCycle(document, take, cycle)
    if (fault) return fault
    const column = get(take.columns, cycle.layer)
    if (!sameRuns(withCycle(column, cycle), column)) return refusal('bad-value', `linked cycle ${id}`)
  }
  for (const [drawing, beat] of Object.entries(take.pins)) {
    if (!has(document.drawings, drawing)) return refusal('unknown-drawing', drawing)
    if (!has(document.beats, beat)) return refusal('unknown-beat', beat)
  }
  return null
}

export const takeSet: Handler<'take.set'> = {
  facts: PLAIN,
  refuse(document, { id, patch }) {
    const take = find(document.takes, id)
    if (!take) return refusal('unknown-take', id)
    const { name, order } = { ...take, ...patch }
    return name !== '' && Number.isFinite(order) ? null : refusal('bad-value', 'take')
  },
  apply: (document, { id, patch }, bench) => withTake(document, get(document.takes, id), patch, bench),
  invert: (before, { id, patch }) => [{ kind: 'take.set', id, patch: valuesBefore(get(before.takes, id), patch) }],
}

export const takeRemove: Handler<'take.remove'> = {
  facts: PLAIN,
  refuse(document, { id }) {
    if (!has(document.takes, id)) return refusal('unknown-take', id)
    if (document.current === id) return refusal('current-take', id)
    return Object.values(document.guides).some(guide => guide.take === id) ? refusal('still-guided', id) : null
  },
  apply(document, { id }, bench) {
    bench.forgetUse()
    return bench.set(document, { takes: bench.without(document.takes, [id]) })
  },
  invert: (before, { id }) => [{ kind: 'take.add', take: get(before.takes, id) }],
}

/** Whether every linked cycle of every take shows its pattern: an invariant, for tests. */
export function cyclesHold(takes: Table<Take>): boolean {
  return Object.values(takes).every(take =>
    Object.values(take.cycles).every(cycle => {
      const column = get(take.columns, cycle.layer)
      return sameRuns(withCycle(column, cycle), column)
    }),
  )
}
