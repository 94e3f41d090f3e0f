import { isAnimated, type Drawing, type Layer, type ShotDocument, type Take } from '../model/model.ts'
import { newLayer } from '../model/fresh.ts'
import { doBatch, type Operation } from '../operations/index.ts'
import { followersOf } from './paintSheets.ts'
import { columnOf, layersInOrder, marksOf } from '../model/selectors.ts'
import { find, get } from '../model/table.ts'

/** How often a layer was begun afresh before: the old passes behind it, newest first. */
export function oldPasses(document: ShotDocument, layer: string): Layer[] {
  const older = Object.values(document.layers).find(other => other.left?.for === layer && other.follows === null)
  return older ? [older, ...oldPasses(document, older.id)] : []
}

/** An order just above a layer, below the next one. */
function orderAbove(document: ShotDocument, layer: Layer): number {
  const next = layersInOrder(document).find(other => other.order > layer.order)
  return next ? (layer.order + next.order) / 2 : layer.order + 1
}

/**
 * Begins a layer afresh: a layer of the same name with blank sheets under the same numbers and roles, the same timing in every
 * take, charts, linked cycles, paths, pins and marks. The old one stays beside it as a pass that was left, with the reason why; it
 * is locked and no longer sent off. Paint layers tied to it are left with it, and have blank ones in their place.
 */
export function newPass(document: ShotDocument, layer: string, why: string, newId: () => string): Operation[] {
  const old = get(document.layers, layer)
  const fresh = newId()
  const nth = oldPasses(document, layer).length + 1
  const marks = new Map(marksOf(document, layer).map(mark => [mark.id, newId()]))
  const sheets = Object.values(document.drawings).filter(drawing => drawing.layer === layer)
  const blank = new Map(sheets.map(drawing => [drawing.id, blankOf(drawing, fresh, newId(), marks)]))
  const idOf = (drawing: string) => (blank.get(drawing) as Drawing).id
  const left = (one: Layer, successor: string): Operation => ({
    kind: 'layer.set',
    id: one.id,
    patch: { left: { for: successor, why }, locked: true, name: `${one.name} · pass ${nth}` },
  })
  const paint = followersOf(document, layer).flatMap((one): Operation[] => {
    const id = newId()
    const above = { follows: fresh, counted: one.counted, volume: one.volume }
    return [{ kind: 'layer.add', layer: newLayer(id, one.name, orderAbove(document, one), above) }, left(one, id)]
  })
  return [
    left(old, fresh),
    { kind: 'layer.add', layer: { ...old, id: fresh, order: orderAbove(document, old), locked: false, left: null } },
    ...paint,
    ...marksOf(document, layer).map((mark): Operation => ({
      kind: 'mark.add',
      mark: { ...mark, id: marks.get(mark.id) as string, layer: fresh },
    })),
    ...[...blank.values()].map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
    ...Object.values(document.takes).flatMap(take => timingOps(take, layer, fresh, idOf, newId)),
    ...chartOps(document, layer, fresh, idOf, marks, newId),
  ]
}

/** Begins all layers afresh that carry the action; see `newPass`. */
export function newPassOfAll(document: ShotDocument, why: string, newId: () => string): Operation[] {
  let now = document
  const ops: Operation[] = []
  const lines = layersInOrder(document).filter(layer => isAnimated(layer) && layer.follows === null)
  for (const { id } of lines) {
    const step = newPass(now, id, why, newId)
    const result = doBatch(now, step)
    if (!result.ok) return []
    now = result.document
    ops.push(...step)
  }
  return ops
}

function blankOf(drawing: Drawing, layer: string, id: string, marks: ReadonlyMap<string, string>): Drawing {
  const places = Object.entries(drawing.marks).map(([mark, at]) => [marks.get(mark) as string, at])
  return { ...drawing, id, layer, elements: {}, marks: Object.fromEntries(places) as Drawing['marks'] }
}

function timingOps(
  take: Take,
  layer: string,
  fresh: string,
  idOf: (drawing: string) => string,
  newId: () => string,
): Operation[] {
  const shown = (runs: Take['columns'][string]) =>
    runs.map(run => ({ ...run, drawing: run.drawing === null ? null : idOf(run.drawing) }))
  const cycles = Object.values(take.cycles).filter(cycle => cycle.layer === layer)
  const column = columnOf(take, layer)
  const path = find(take.paths, layer)
  return [
    ...(path ? [{ kind: 'path.set', take: take.id, layer: fresh, path } as const] : []),
    { kind: 'exposure.write', take: take.id, layer: fresh, from: 0, runs: shown(column) },
    ...cycles.map((cycle): Operation => ({
      kind: 'cycle.add',
      take: take.id,
      cycle: { ...cycle, id: newId(), layer: fresh, pattern: shown(cycle.pattern) },
    })),
    ...Object.entries(take.pins).flatMap(([drawing, beat]): Operation[] => {
      const own = column.some(run => run.drawing === drawing)
      return own ? [{ kind: 'pin.set', take: take.id, drawing: idOf(drawing), beat }] : []
    }),
  ]
}

function chartOps(
  document: ShotDocument,
  layer: string,
  fresh: string,
  idOf: (drawing: string) => string,
  marks: ReadonlyMap<string, string>,
  newId: () => string,
): Operation[] {
  return Object.values(document.charts)
    .filter(chart => chart.layer === layer)
    .map((chart): Operation => ({
      kind: 'chart.add',
      chart: {
        ...chart,
        id: newId(),
        layer: fresh,
        from: idOf(chart.from),
        to: idOf(chart.to),
        part: chart.part === null ? null : (marks.get(chart.part) ?? null),
        ticks: chart.ticks.map(tick => ({ ...tick, drawing: tick.drawing === null ? null : idOf(tick.drawing) })),
      },
    }))
}

/**
 * A layer over (or under) another in its time: finished art over blocks. Blank sheets lie over every sheet of the layer,
 * under its numbers, are shown with them in every take, and are drawings to be drawn and counted. The blocks, unless they are
 * to be sent off too, become construction.
 */
export function layerOver(
  document: ShotDocument,
  blocks: string,
  name: string,
  where: 'above' | 'below',
  sendBlocks: boolean,
  newId: () => string,
): Operation[] {
  const line = get(document.layers, blocks)
  const id = newId()
  const under = layersInOrder(document)
    .reverse()
    .find(other => other.order < line.order)
  const below = under ? (line.order + under.order) / 2 : line.order - 1
  const order = where === 'above' ? orderAbove(document, line) : below
  const sheets = Object.values(document.drawings).filter(drawing => drawing.layer === blocks)
  return [
    { kind: 'layer.add', layer: newLayer(id, name, order, { follows: blocks, counted: true, volume: line.volume }) },
    ...sheets.map(({ number, role }): Operation => ({
      kind: 'drawing.add',
      drawing: { id: newId(), layer: id, number, role, elements: {}, marks: {} },
    })),
    ...(sendBlocks ? [] : [{ kind: 'layer.set', id: blocks, patch: { kind: 'guide' } } as const]),
  ]
}

/** The layer that is shown as an older pass of another, or null: for comparing. */
export const passOf = (document: ShotDocument, layer: string): string | null =>
  find(document.layers, layer)?.left?.for ?? null
