import type { Tick } from '../../chart/halves.ts'
import { wishTicks, type Wish } from '../../chart/wish.ts'
import { drawingAt, plain, slice, spread, type Run } from '../../time/exposure.ts'
import type { Chart, ChartTick, Drawing, Role, ShotDocument, Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { paintOff } from './paintSheets.ts'
import { chartBetween, columnOf, freeNumber, isBlank, type KeyPair } from '../model/selectors.ts'
import { find, get } from '../model/table.ts'
import { unchart } from './sheetEdits.ts'
import { touchesCycle } from './layerForm.ts'
import type { Proposal } from './proposal.ts'
import { settleAll, throughTheEnd } from './changes.ts'
import type { Room } from './room.ts'

/** How the drawings of a chart are put on the sheet: on so many frames each (the later key moves), or where there is room. */
export type Exposing = number | 'fit'

/** The role that a tick gives its drawing. */
export const roleOf = (tick: Tick): Role => (tick.depth === 0 ? 'breakdown' : 'inbetween')

/**
 * Puts a wish with `count` inbetweens on the chart between two keys, making the chart when there is none. Drawings that
 * were made for it keep their order; ticks without one stay to be made. Exposures are left alone.
 */
export function setChart(
  document: ShotDocument,
  take: Take,
  pair: KeyPair,
  wish: Wish,
  count: number,
  newId: () => string,
): Proposal {
  const between = drawingsBetween(document, take, pair)
  const adopted = adopt(between, count)
  if (!adopted) return { ok: false, code: 'more-are-drawn', drawn: between.filter(d => !isBlank(d)).length }
  const ticks = wishTicks(wish, count).map((tick, i) => ({ ...tick, drawing: adopted[i]?.id ?? null }))
  return { ok: true, ops: [...chartOps(document, pair, wish, ticks, newId), ...roleOps(document, ticks)] }
}

/**
 * Makes the drawings of a chart: numbered empty drawings for its ticks, exposed between the two keys. Drawings already
 * exposed between the keys are taken for the ticks in order, blank ones too many are removed. With a number for `on`,
 * every drawing and the first key get that many frames and the later key moves, with all behind it as asked for; with 'fit'
 * the keys stay where they are and the frames between are shared out evenly.
 */
export function makeDrawings(
  document: ShotDocument,
  take: Take,
  pair: KeyPair,
  wish: Wish,
  count: number,
  on: Exposing,
  newId: () => string,
  room: Room = 'free',
): Proposal {
  const between = drawingsBetween(document, take, pair)
  const gap = pair.toFrame - pair.fromFrame
  if (touchesCycle(take, pair.from.layer, pair.fromFrame, pair.toFrame)) return { ok: false, code: 'in-a-cycle' }
  if (on === 'fit' && gap < count + 1) return { ok: false, code: 'too-little-room', frames: gap, needed: count + 1 }
  const adopted = adopt(between, count)
  if (!adopted) return { ok: false, code: 'more-are-drawn', drawn: between.filter(d => !isBlank(d)).length }

  const holds = on === 'fit' ? spread(gap, count + 1) : Array.from({ length: count + 1 }, () => on)
  const layer = pair.from.layer
  const added: Drawing[] = []
  let frame = pair.fromFrame
  const ticks: ChartTick[] = wishTicks(wish, count).map((tick, i) => {
    frame += holds[i] as number
    const known = adopted[i]
    if (known) return { ...tick, drawing: known.id }
    const number = freeNumber(
      document,
      layer,
      frame,
      added.map(d => d.number),
    )
    const drawing: Drawing = { id: newId(), layer, number, role: roleOf(tick), elements: {}, marks: {} }
    added.push(drawing)
    return { ...tick, drawing: drawing.id }
  })
  const shown = [pair.from.id, ...ticks.map(tick => tick.drawing)]
  const runs: Run[] = shown.map((drawing, i) => ({ drawing, frames: holds[i] as number }))
  const surplus = between.filter(d => !adopted.includes(d))
  const first = added.map((drawing): Operation => ({ kind: 'drawing.add', drawing }))
  const change = throughTheEnd(take, {
    layer,
    from: pair.fromFrame,
    to: pair.toFrame,
    stretch: plain(runs),
    cycle: null,
  })
  const step = settleAll(document, take, [change], { following: 'ripple', room }, { losing: true, first })
  if (!step.ok) return step
  const rest = [...chartOps(document, pair, wish, ticks, newId), ...roleOps(document, ticks)]
  return { ok: true, ops: [...step.ops, ...rest, ...surplus.flatMap(d => removeIfUnused(document, take, d, pair))] }
}

/**
 * Puts a chart of a part (a mark) beside the chart of the two keys: its ticks are the same drawings at other fractions.
 * There are as many as drawings between the keys.
 */
export function setPartChart(
  document: ShotDocument,
  take: Take,
  pair: KeyPair,
  mark: string,
  wish: Wish,
  newId: () => string,
): Operation[] {
  const between = drawingsBetween(document, take, pair)
  const ticks = wishTicks(wish, between.length).map((tick, i) => ({ ...tick, drawing: between[i]?.id ?? null }))
  const known = chartBetween(document, pair.from.id, pair.to.id, mark)
  if (known) return [{ kind: 'chart.set', id: known.id, patch: { wish, ticks } }]
  const { from, to } = pair
  const chart: Chart = { id: newId(), layer: from.layer, from: from.id, to: to.id, part: mark, wish, ticks }
  return [{ kind: 'chart.add', chart }]
}

/** Drawings exposed between the two keys, in order, keys left out. */
export function drawingsBetween(document: ShotDocument, take: Take, pair: KeyPair): Drawing[] {
  const seen = new Set<string>()
  for (const run of slice(columnOf(take, pair.from.layer), pair.fromFrame, pair.toFrame)) {
    if (run.drawing !== null && get(document.drawings, run.drawing).role !== 'key') seen.add(run.drawing)
  }
  return [...seen].map(id => get(document.drawings, id))
}

/** The drawings to take for `count` ticks, blank ones dropped where there are too many; null when more are drawn on. */
function adopt(between: readonly Drawing[], count: number): Drawing[] | null {
  let tooMany = between.length - count
  const kept = between.filter(drawing => {
    if (tooMany <= 0 || !isBlank(drawing)) return true
    tooMany--
    return false
  })
  return tooMany > 0 ? null : kept
}

function chartOps(
  document: ShotDocument,
  pair: KeyPair,
  wish: Wish,
  ticks: readonly ChartTick[],
  newId: () => string,
): Operation[] {
  const known = chartBetween(document, pair.from.id, pair.to.id)
  if (known) return [{ kind: 'chart.set', id: known.id, patch: { wish, ticks } }]
  const chart: Chart = {
    id: newId(),
    layer: pair.from.layer,
    from: pair.from.id,
    to: pair.to.id,
    part: null,
    wish,
    ticks,
  }
  return [{ kind: 'chart.add', chart }]
}

function roleOps(document: ShotDocument, ticks: readonly ChartTick[]): Operation[] {
  return ticks.flatMap((tick): Operation[] => {
    const drawing = tick.drawing === null ? undefined : find(document.drawings, tick.drawing)
    const role = roleOf(tick)
    return drawing && drawing.role !== role ? [{ kind: 'drawing.set', id: drawing.id, patch: { role } }] : []
  })
}

/** A blank drawing that no longer has a tick goes, unless another place still shows it. */
function removeIfUnused(document: ShotDocument, take: Take, drawing: Drawing, pair: KeyPair): Operation[] {
  const own = chartBetween(document, pair.from.id, pair.to.id)
  const elsewhere = Object.values(document.takes).some(t => {
    const column = columnOf(t, drawing.layer)
    if (t.id !== take.id) return column.some(run => run.drawing === drawing.id)
    for (let frame = 0; frame < t.length; frame++) {
      const outside = frame < pair.fromFrame || frame >= pair.toFrame
      if (outside && drawingAt(column, frame) === drawing.id) return true
    }
    return false
  })
  const others = unchart(document, drawing.id).filter(op => op.kind !== 'chart.set' || op.id !== own?.id)
  return elsewhere ? [] : [...others, { kind: 'drawing.remove', id: drawing.id }, ...paintOff(document, drawing.id)]
}
