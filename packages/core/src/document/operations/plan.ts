import { between, KEY_A, KEY_B, MOST_TICKS, valueOf, type Fraction, type Tick } from '../../chart/halves.ts'
import { isUsableWish } from '../../chart/wish.ts'
import { lengthOf } from '../../time/exposure.ts'
import {
  CUT_NAMES,
  LAYER_KINDS,
  LIMITS,
  VOLUMES,
  WAYS,
  type Chart,
  type Format,
  type Layer,
  type ShotDocument,
  type Take,
} from '../model/model.ts'
import { find, get, has, type Table } from '../model/table.ts'
import type { Bench } from './bench.ts'
import { family } from './family.ts'
import { PLAIN, valuesBefore, type Handler, type Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import { COLOUR } from './swatches.ts'
import { pathsOf } from './paths.ts'
import { columnsOfOwn, refuseTie } from './tied.ts'

export const formatSet: Handler<'format.set'> = {
  facts: PLAIN,
  refuse(document, { patch }) {
    return refuseFormat({ ...document.format, ...patch })
  },
  apply: (document, { patch }, bench) => bench.set(document, { format: { ...document.format, ...patch } }),
  invert: (before, { patch }) => [{ kind: 'format.set', patch: valuesBefore(before.format, patch) }],
}

export const shotSet: Handler<'shot.set'> = {
  facts: PLAIN,
  refuse(document, { patch }) {
    if (patch.way !== undefined && !WAYS.includes(patch.way)) return refusal('bad-value', 'way of working')
    const on = patch.exposure ?? 1
    if (!Number.isInteger(on) || on < 1 || on > LIMITS.exposure) return refusal('bad-value', 'exposure')
    if ((patch.study ?? '').length > LIMITS.sourceLength) return refusal('bad-value', 'source of a study')
    const cuts = patch.cuts ?? []
    if (new Set(cuts).size < cuts.length || !cuts.every(cut => CUT_NAMES.includes(cut))) {
      return refusal('bad-value', 'shapes it is cut to')
    }
    const scale = patch.scale ?? 1
    if (!(scale > 0 && scale <= LIMITS.scale)) return refusal('bad-value', 'scale')
    const ceiling = patch.ceiling ?? 1
    if (!(ceiling > 0 && ceiling <= LIMITS.ceiling)) return refusal('bad-value', 'ceiling of steps')
    return patch.current !== undefined && !has(document.takes, patch.current)
      ? refusal('unknown-take', patch.current)
      : null
  },
  apply: (document, { patch }, bench) => bench.set(document, patch),
  invert: (before, { patch }) => [{ kind: 'shot.set', patch: valuesBefore(before, patch) }],
}

/** What is wrong with a format, or null. */
export function refuseFormat(format: Format): Refusal | null {
  const isSize = (n: number) => Number.isInteger(n) && n >= 1 && n <= LIMITS.sizePx
  if (!isSize(format.width)) return refusal('bad-value', 'width')
  if (!isSize(format.height)) return refusal('bad-value', 'height')
  if (!Number.isInteger(format.fps) || format.fps < 1 || format.fps > LIMITS.fps) return refusal('bad-value', 'fps')
  return COLOUR.test(format.paper) ? null : refusal('bad-value', 'paper')
}

export const layerAdd: Handler<'layer.add'> = {
  ids: op => [op.layer.id],
  facts: { movesTies: true, grows: true, referred: true },
  refuse(document, { layer }, bench) {
    if (has(document.layers, layer.id)) return refusal('id-taken', layer.id)
    if (bench.size(document.layers) >= LIMITS.layers) return refusal('too-many', 'layers')
    return refuseLayer(layer) ?? refuseTie(document, layer)
  },
  apply(document, { layer }, bench) {
    const layers = bench.put(document.layers, layer.id, layer)
    const empty = (take: Take) => bench.put(take.columns, layer.id, [{ drawing: null, frames: take.length }])
    return bench.set(document, { layers, takes: withColumns(document.takes, empty, bench) })
  },
  invert: (_before, { layer }) => [{ kind: 'layer.remove', id: layer.id }],
}

export const layerSet: Handler<'layer.set'> = {
  facts: { movesTies: true, grows: false, referred: true },
  readsTies: ({ patch }) => patch.follows !== undefined,
  refuse(document, { id, patch }) {
    if (!has(document.layers, id)) return refusal('unknown-layer', id)
    const layer = { ...get(document.layers, id), ...patch }
    return refuseLayer(layer) ?? (patch.follows === undefined ? null : refuseTie(document, layer))
  },
  apply(document, { id, patch }, bench) {
    bench.forgetUse()
    return bench.set(document, { layers: bench.put(document.layers, id, { ...get(document.layers, id), ...patch }) })
  },
  invert(before, { id, patch }) {
    const layer = get(before.layers, id)
    const back: Operation = { kind: 'layer.set', id, patch: valuesBefore(layer, patch) }
    // Tied now: untied again it shows what it showed, in its own time.
    return layer.follows === null && patch.follows ? [back, ...columnsOfOwn(before, id)] : [back]
  },
}

export const layerRemove: Handler<'layer.remove'> = {
  facts: { ...PLAIN, referred: true },
  refuse(document, { id }, bench) {
    if (!has(document.layers, id)) return refusal('unknown-layer', id)
    const much = bench.spend(bench.size(document.drawings) + bench.size(document.marks))
    if (much) return much
    if (bench.size(document.layers) === 1) return refusal('last-layer', id)
    if (Object.values(document.layers).some(layer => layer.follows === id)) return refusal('still-followed', id)
    const cycles = Object.values(document.takes).flatMap(take => Object.values(take.cycles))
    const things = [
      ...Object.values(document.drawings),
      ...Object.values(document.marks),
      ...Object.values(document.guides),
      ...cycles,
    ]
    return things.some(thing => thing.layer === id) ? refusal('layer-not-empty', id) : null
  },
  apply(document, { id }, bench) {
    const layers = bench.without(document.layers, [id])
    return bench.set(document, {
      layers,
      takes: withColumns(pathsWithout(document.takes, id, bench), take => bench.without(take.columns, [id]), bench),
    })
  },
  invert: (before, { id }) => [{ kind: 'layer.add', layer: get(before.layers, id) }, ...pathsOf(before, id)],
}

function refuseLayer({ id, name, order, kind, volume, left }: Layer): Refusal | null {
  if (!Number.isFinite(order) || name === '') return refusal('bad-value', 'layer')
  if (!VOLUMES.includes(volume)) return refusal('bad-value', 'volume of a layer')
  if (left && (left.for === id || left.why.length > LIMITS.reasonLength))
    return refusal('bad-value', 'why a pass was left')
  return LAYER_KINDS.includes(kind) ? null : refusal('bad-value', 'kind of layer')
}

export const charts = family('chart', { facts: PLAIN, refersToDrawings: true, refuse: refuseChart })

function refuseChart(document: ShotDocument, chart: Chart): Refusal | null {
  if (!has(document.layers, chart.layer)) return refusal('unknown-layer', chart.layer)
  if (chart.ticks.length > MOST_TICKS) return refusal('too-many', 'inbetweens')
  const drawings = [chart.from, chart.to, ...chart.ticks.map(tick => tick.drawing)].filter(id => id !== null)
  if (new Set(drawings).size !== drawings.length) return refusal('bad-value', 'the same drawing twice in a chart')
  for (const id of drawings) {
    const drawing = find(document.drawings, id)
    if (!drawing) return refusal('unknown-drawing', id)
    if (drawing.layer !== chart.layer) return refusal('wrong-layer', id)
  }
  const part = chart.part === null ? null : find(document.marks, chart.part)
  if (part === undefined) return refusal('unknown-mark', chart.part ?? '')
  if (part && part.layer !== chart.layer) return refusal('wrong-layer', part.id)
  return isUsableWish(chart.wish) ? refuseTicks(chart) : refusal('bad-value', 'wish')
}

/**
 * Ticks are made from ticks (or keys) that are drawn before them, and lie where their parents and ratio put them. In the
 * order of time they increase; past the later key (overshoot) they come back towards it.
 */
function refuseTicks({ ticks }: Chart): Refusal | null {
  for (const [i, tick] of ticks.entries()) {
    const [left, right] = [parentAt(ticks, tick, tick.left), parentAt(ticks, tick, tick.right)]
    if (!left || !right) return refusal('bad-value', `parents of tick ${i + 1}`)
    const meant = between(left, right, tick.ratio)
    if (meant.num !== tick.at.num || meant.den !== tick.at.den) return refusal('bad-value', `tick ${i + 1}`)
    const before = i === 0 ? 0 : valueOf((ticks[i - 1] as Tick).at)
    const at = valueOf(tick.at)
    const onTheWay = at > before && at !== 1 && at < 2
    const settling = before > 1 && at > 1 && at < before
    if (!onTheWay && !settling) return refusal('bad-value', `tick ${i + 1}`)
  }
  return null
}

/** Where a parent of a tick lies, or null when it is not drawn before the tick. */
function parentAt(ticks: readonly Tick[], tick: Tick, parent: number): Fraction | null {
  if (parent === KEY_A) return { num: 0, den: 1 }
  if (parent === KEY_B) return { num: 1, den: 1 }
  const found = ticks[parent]
  return found && found.depth < tick.depth ? found.at : null
}

/** Takes without the path of a layer that goes. */
const pathsWithout = (takes: Table<Take>, layer: string, bench: Bench): Table<Take> =>
  Object.values(takes)
    .filter(take => has(take.paths, layer))
    .reduce(
      (all, take) => bench.put(all, take.id, bench.set(take, { paths: bench.without(take.paths, [layer]) })),
      takes,
    )

function withColumns(takes: Table<Take>, columns: (take: Take) => Take['columns'], bench: Bench): Table<Take> {
  return Object.values(takes).reduce(
    (all, take) => bench.put(all, take.id, bench.set(take, { columns: columns(take) })),
    takes,
  )
}

/** Whether every layer of every take is exposed over exactly the take's length, in plain form: an invariant, for tests. */
export function columnsCover(document: ShotDocument): boolean {
  return Object.values(document.takes).every(take =>
    Object.keys(document.layers).every(layer => lengthOf(find(take.columns, layer) ?? []) === take.length),
  )
}
