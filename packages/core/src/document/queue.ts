import { drawingOrder, KEY_A, KEY_B, type Fraction, type Ratio } from '../chart/halves.ts'
import type { Chart, Drawing, ShotDocument, Take } from './model.ts'
import { firstFrameOf, isBlank } from './selectors.ts'
import { find } from './table.ts'

/** The next drawing that a chart asks for, with the two drawings it is made from. */
export interface QueueItem {
  readonly drawing: Drawing
  readonly chart: Chart
  /** index of the tick in the chart */
  readonly tick: number
  readonly left: Drawing
  readonly right: Drawing
  readonly ratio: Ratio
  readonly at: Fraction
  /** frame on which the drawing is first exposed, from 0 */
  readonly frame: number
}

/** Either parent of a tick: a key or the drawing of another tick. */
export function parentDrawing(document: ShotDocument, chart: Chart, parent: number): Drawing | null {
  const id = parent === KEY_A ? chart.from : parent === KEY_B ? chart.to : (chart.ticks[parent]?.drawing ?? null)
  return id === null ? null : (find(document.drawings, id) ?? null)
}

/**
 * What is left to draw on a take, in the order to draw it: chart by chart along the film, in each the breakdown first,
 * then the halves, then halves of halves. A drawing waits until it has something on it. Charts whose keys are still
 * blank, and drawings not exposed in this take, are left out.
 */
export function drawingQueue(document: ShotDocument, take: Take): QueueItem[] {
  const charts = Object.values(document.charts)
    .map(chart => ({ chart, start: startOf(document, take, chart) }))
    .filter((entry): entry is { chart: Chart; start: number } => entry.start !== null)
    .sort((a, b) => a.start - b.start)
  return charts.flatMap(({ chart }) => queueOf(document, take, chart))
}

function startOf(document: ShotDocument, take: Take, chart: Chart): number | null {
  const [from, to] = [find(document.drawings, chart.from), find(document.drawings, chart.to)]
  return from && to && !isBlank(from) && !isBlank(to) ? firstFrameOf(take, from) : null
}

function queueOf(document: ShotDocument, take: Take, chart: Chart): QueueItem[] {
  return drawingOrder(chart.ticks).flatMap(i => {
    const item = itemOf(document, take, chart, i)
    return item && isBlank(item.drawing) ? [item] : []
  })
}

function itemOf(document: ShotDocument, take: Take, chart: Chart, i: number): QueueItem | null {
  const tick = chart.ticks[i]
  const drawing = tick?.drawing ? find(document.drawings, tick.drawing) : undefined
  if (!tick || !drawing) return null
  const left = parentDrawing(document, chart, tick.left)
  const right = parentDrawing(document, chart, tick.right)
  const frame = firstFrameOf(take, drawing)
  if (!left || !right || frame === null) return null
  return { drawing, chart, tick: i, left, right, ratio: tick.ratio, at: tick.at, frame }
}

/** The tick of whichever chart a drawing was made for, as a queue item; null for keys and drawings without a chart. */
export function plannedPlace(document: ShotDocument, take: Take, drawing: Drawing): QueueItem | null {
  for (const chart of Object.values(document.charts)) {
    const i = chart.ticks.findIndex(tick => tick.drawing === drawing.id)
    if (i >= 0) return itemOf(document, take, chart, i)
  }
  return null
}
