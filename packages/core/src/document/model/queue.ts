import { KEY_A, KEY_B, type Fraction, type Ratio } from '../../chart/halves.ts'
import { isAnimated, type Chart, type Drawing, type ShotDocument, type Take, type WayOfWorking } from './model.ts'
import { exposures, firstFrameOf, isBlank } from './selectors.ts'
import { surestOf, type Sure } from './surest.ts'
import { find, get } from './table.ts'

/** Where a chart wants a drawing: its tick, and the two drawings it is made from. */
export interface PlannedPlace {
  readonly chart: Chart
  /** index of the tick in the chart */
  readonly tick: number
  readonly left: Drawing
  readonly right: Drawing
  readonly ratio: Ratio
  readonly at: Fraction
}

/** A drawing that is still to be drawn, with those to show through. */
export interface QueueItem {
  readonly drawing: Drawing
  /** frame on which it is first exposed, from 0 */
  readonly frame: number
  /** its place on a chart, or null for keys and for drawings no chart asks for */
  readonly place: PlannedPlace | null
  /** what it is drawn from: the two parents of its tick, or the nearest drawn neighbours; straight ahead only the one before */
  readonly left: Drawing | null
  readonly right: Drawing | null
  /** how sure it is, when one works from the surest outwards; null where nothing leads */
  readonly sure: Sure | null
}

/** What is asked of the queue: one layer or all, what to leave out, what to put at the end. */
export interface QueueWish {
  readonly layer?: string | null
  readonly skipped?: ReadonlySet<string>
  /** put off to the end, in this order */
  readonly deferred?: readonly string[]
}

/** Either parent of a tick: a key or the drawing of another tick. */
export function parentDrawing(document: ShotDocument, chart: Chart, parent: number): Drawing | null {
  const id = parent === KEY_A ? chart.from : parent === KEY_B ? chart.to : (chart.ticks[parent]?.drawing ?? null)
  return id === null ? null : (find(document.drawings, id) ?? null)
}

/**
 * What is left to draw on a take, in the order to draw it. Pose to pose: all keys along the film, then all breakdowns,
 * then the halves by depth. Straight ahead: in the order of frames. Mixed: keys and breakdowns first, then straight ahead.
 * A drawing waits until it has something on it. Only drawn layers that are not locked are asked for.
 */
export function drawingQueue(document: ShotDocument, take: Take, wish: QueueWish = {}): QueueItem[] {
  const places = plannedPlaces(document)
  const items = Object.values(document.layers)
    .filter(layer => isAnimated(layer) && !layer.locked && (wish.layer ?? layer.id) === layer.id)
    .flatMap(layer => waiting(document, take, layer.id, places))
    .filter(item => !wish.skipped?.has(item.drawing.id))
  const ranks = new Map(items.map(item => [item, item.sure ? item.sure.apart : rankOf(item, document.way)]))
  const turn = (item: QueueItem) => (wish.deferred ?? []).indexOf(item.drawing.id)
  return items.sort(
    (a, b) =>
      turn(a) - turn(b) || (ranks.get(a) as number) - (ranks.get(b) as number) || a.frame - b.frame || byId(a, b),
  )
}

const byId = (a: QueueItem, b: QueueItem) => (a.drawing.id < b.drawing.id ? -1 : 1)

/** Keys 0, breakdowns 1, halves by depth 2, 3 …; straight ahead makes no difference between those it does not put first. */
function rankOf({ drawing, place }: QueueItem, way: WayOfWorking): number {
  if (way === 'straight-ahead') return 0
  // Where nothing leads there is nothing to be sure of: that comes last.
  if (way === 'surest') return Infinity
  if (drawing.role === 'key') return 0
  const depth = place ? (place.chart.ticks[place.tick]?.depth ?? 0) : drawing.role === 'breakdown' ? 0 : 1
  return way === 'mixed' ? Math.min(2, 1 + depth) : 1 + depth
}

function waiting(document: ShotDocument, take: Take, layer: string, places: Map<string, PlannedPlace>): QueueItem[] {
  const shown = exposures(take, layer).map(run => ({ ...run, sheet: get(document.drawings, run.drawing as string) }))
  // The nearest drawn one behind each, found in one pass from the end.
  const behind: (Drawing | null)[] = new Array<Drawing | null>(shown.length).fill(null)
  for (let i = shown.length - 2; i >= 0; i--) {
    const next = (shown[i + 1] as (typeof shown)[number]).sheet
    behind[i] = isBlank(next) ? (behind[i + 1] ?? null) : next
  }
  const sure = document.way === 'surest' ? surestOf(document, take, layer) : null
  const seen = new Set<string>()
  let before: Drawing | null = null
  const items: QueueItem[] = []
  for (const [i, { sheet, start }] of shown.entries()) {
    if (!isBlank(sheet)) before = sheet
    if (seen.has(sheet.id) || !isBlank(sheet)) continue
    seen.add(sheet.id)
    const place = places.get(sheet.id) ?? null
    const after = behind[i] ?? null
    const ahead = document.way === 'straight-ahead' || (document.way === 'mixed' && sheet.role === 'inbetween')
    items.push({
      drawing: sheet,
      frame: start,
      place,
      left: ahead ? before : (place?.left ?? before),
      right: ahead ? null : (place?.right ?? after),
      sure: sure?.get(sheet.id) ?? null,
    })
  }
  return items
}

/** Every drawing's place on the chart of its keys. Charts of parts give no turn of their own. */
function plannedPlaces(document: ShotDocument): Map<string, PlannedPlace> {
  const places = new Map<string, PlannedPlace>()
  for (const chart of Object.values(document.charts)) {
    if (chart.part !== null) continue
    for (const [i, tick] of chart.ticks.entries()) {
      const place = tick.drawing === null ? null : placeOf(document, chart, i)
      if (place && tick.drawing !== null) places.set(tick.drawing, place)
    }
  }
  return places
}

function placeOf(document: ShotDocument, chart: Chart, i: number): PlannedPlace | null {
  const tick = chart.ticks[i]
  if (!tick) return null
  const [left, right] = [parentDrawing(document, chart, tick.left), parentDrawing(document, chart, tick.right)]
  return left && right ? { chart, tick: i, left, right, ratio: tick.ratio, at: tick.at } : null
}

/** The place a chart gives a drawing; null for keys, drawings without a chart and drawings not exposed in this take. */
export function plannedPlace(document: ShotDocument, take: Take, drawing: Drawing): PlannedPlace | null {
  if (firstFrameOf(take, drawing) === null) return null
  for (const chart of Object.values(document.charts)) {
    const i = chart.part === null ? chart.ticks.findIndex(tick => tick.drawing === drawing.id) : -1
    if (i >= 0) return placeOf(document, chart, i)
  }
  return null
}
