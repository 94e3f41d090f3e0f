import { KEY_A, KEY_B, valueOf } from '../chart/halves.ts'
import { chartInWords } from '../chart/reading.ts'
import { pathLength, type MeasuredPath } from '../geometry/curve.ts'
import type { Chart } from '../document/model/model.ts'
import { parentDrawing } from '../document/model/queue.ts'
import { firstFrameOf } from '../document/model/selectors.ts'
import { find } from '../document/model/table.ts'
import { thresholdOf } from './thresholds.ts'
import { placeOn, type Survey } from './survey.ts'
import {
  readWay,
  stepSpeeds,
  wayPath,
  worstCorrection,
  type Correction,
  type StepSpeed,
  type WayPlace,
  type WayReading,
} from './way.ts'

/** A chart read back from the drawings. */
export interface ChartReading {
  readonly chart: Chart
  /** what the chart asks for, and where its drawings lie */
  readonly places: readonly WayPlace[]
  readonly path: MeasuredPath | null
  /** for each tick where its drawing lies */
  readonly ticks: readonly (WayReading | null)[]
  /** a drawing within this share of the way from its tick meets it */
  readonly within: number
  readonly worst: Correction | null
  /** what the drawings amount to, once all are drawn */
  readonly words: string
  /** pixels a frame, step by step; empty while a drawing is not exposed */
  readonly speeds: readonly StepSpeed[]
}

/** Reads a chart back by a mark, or by the middles of silhouettes (null). */
export function readChart(
  survey: Pick<Survey, 'document' | 'take' | 'shapes'>,
  chart: Chart,
  mark: string | null,
): ChartReading {
  const { document } = survey
  const within = thresholdOf(document, 'way')
  const drawingOf = (id: string | null) => (id === null ? null : (find(document.drawings, id) ?? null))
  const places = chart.ticks.map((tick): WayPlace => ({
    planned: valueOf(tick.at),
    drawn: placeOn(survey, drawingOf(tick.drawing), mark),
    leads: tick.depth === 0,
  }))
  const a = placeOn(survey, parentDrawing(document, chart, KEY_A), mark)
  const b = placeOn(survey, parentDrawing(document, chart, KEY_B), mark)
  const path = wayPath(a, places, b)
  const ticks = readWay(a, places, b)
  const drawn = ticks.flatMap((read, i) => (read ? [{ read, planned: places[i]?.planned as number }] : []))
  const isWhole = drawn.length === ticks.length && ticks.length > 1
  return {
    chart,
    places,
    path,
    ticks,
    within,
    worst: path && worstCorrection(path, places, within),
    words: isWhole
      ? chartInWords(
          chart.wish,
          drawn.map(d => d.planned),
          drawn.map(d => d.read.share),
        )
      : '',
    speeds: path ? speedsOf(survey, chart, pathLength(path), ticks) : [],
  }
}

/** How fast each step is with the holds it has on the sheet. */
function speedsOf(
  { document, take }: Pick<Survey, 'document' | 'take'>,
  chart: Chart,
  wholePx: number,
  ticks: readonly (WayReading | null)[],
): StepSpeed[] {
  const starts = [chart.from, ...chart.ticks.map(tick => tick.drawing), chart.to].map(id => {
    const drawing = id === null ? undefined : find(document.drawings, id)
    return drawing && firstFrameOf(take, drawing)
  })
  const holds = starts.slice(1).map((start, i) => (start ?? NaN) - (starts[i] ?? NaN))
  if (!holds.every(hold => hold > 0)) return []
  const shares = chart.ticks.map(tick => valueOf(tick.at))
  return stepSpeeds(
    wholePx,
    shares,
    ticks.map(read => read?.share ?? null),
    holds,
  )
}
