import { pathLength, placeAlong, type MeasuredPath } from '../../geometry/curve.ts'
import type { Point } from '../../geometry/point.ts'
import type { Drawing } from '../../document/model/model.ts'
import { isAnimated } from '../../document/model/model.ts'
import { layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { readChart } from '../chartReading.ts'
import { shownOn, type Survey } from '../survey.ts'
import { directionInWords, isOffPath, meetsChart, type WayReading } from '../way.ts'
import { movedBy } from './moved.ts'
import { percent, type Check, type Finding, type Series, type SeriesValue } from './check.ts'

/** A drawing on its chart. */
interface OnChart {
  readonly drawing: Drawing
  /** shares of the way: asked for, and read */
  readonly planned: number
  readonly read: WayReading
  readonly path: MeasuredPath
  readonly drawn: Point
  readonly mark: string | null
  readonly leads: boolean
}

/** Every drawn tick of every chart, as it is read; the drawings of a layer in the order of time. */
function ticksRead(
  survey: Survey,
): (OnChart & { readonly layer: string; readonly frame: number; readonly to: number })[] {
  const { document } = survey
  return layersInOrder(document)
    .filter(isAnimated)
    .flatMap(layer => {
      const shown = new Map(shownOn(survey, layer.id).map(one => [one.drawing.id, one]))
      return Object.values(document.charts)
        .filter(chart => chart.layer === layer.id && shown.has(chart.from) && shown.has(chart.to))
        .flatMap(chart => {
          const { path, ticks, places } = readChart(survey, chart, chart.part)
          return ticks.flatMap((read, i) => {
            const [tick, place] = [chart.ticks[i], places[i]]
            const one = shown.get(tick?.drawing ?? '')
            if (!path || !read || !one || !place?.drawn) return []
            const { drawing, from, to } = one
            const { planned, drawn, leads } = place
            return [{ layer: layer.id, frame: from, to, drawing, planned, read, path, drawn, mark: chart.part, leads }]
          })
        })
        .sort((a, b) => a.frame - b.frame)
    })
}

/** Asks something of every drawn tick of every chart. */
function ofTicks(survey: Survey, say: (on: OnChart) => Pick<Finding, 'figures' | 'at' | 'words'> | null): Finding[] {
  return ticksRead(survey).flatMap((on): Finding[] => {
    const said = say(on)
    const marks = on.mark === null ? [] : [on.mark]
    const where = { layer: on.layer, from: on.frame, to: on.to, drawings: [on.drawing.id], marks }
    return said ? [{ severity: 'look', ...where, ...said }] : []
  })
}

/** The name of the mark it is read by, before what is said of it. */
const by = ({ document }: Survey, mark: string | null): string => {
  const name = mark === null ? undefined : find(document.marks, mark)?.name
  return name ? `${name} of ` : ''
}

/** Whether every drawing lies where its chart wants it along the way between its keys. */
export const way: Check = {
  words: 'place on the way',
  asks: 'Does every drawing lie where its chart wants it?',
  needs: ['shapes', 'charts'],
  series: ways,
  fix: ({ document }, { drawings: [id], figures: { dx, dy }, at }) => {
    const drawing = find(document.drawings, id ?? '')
    if (!drawing || dx === undefined || dy === undefined || !at) return null
    const words = `move ${drawing.number} by ${directionInWords(at, { x: at.x + dx, y: at.y + dy })}`
    return { words, ops: movedBy(drawing, dx, dy) }
  },
  inspect: survey =>
    ofTicks(survey, ({ drawing, planned, read, path, drawn, mark }) => {
      if (meetsChart(read, planned)) return null
      const to = placeAlong(path, planned * pathLength(path))
      return {
        figures: { planned, share: read.share, aheadPx: read.aheadPx, dx: to.x - drawn.x, dy: to.y - drawn.y },
        at: drawn,
        words: `${by(survey, mark)}${drawing.number} lies at ${percent(read.share)} of the way, planned ${percent(planned)}: ${directionInWords(drawn, to)}`,
      }
    }),
}

/** Whether the drawings that do not make the path lie on it. */
export const arc: Check = {
  words: 'off the arc',
  asks: 'Does every inbetween lie on the path through keys and breakdowns?',
  needs: ['shapes', 'charts'],
  inspect: survey =>
    ofTicks(survey, ({ drawing, read, path, drawn, mark, leads }) => {
      if (leads || !isOffPath(path, read)) return null
      return {
        figures: { offPx: read.offPx },
        at: drawn,
        words: `${by(survey, mark)}${drawing.number} lies ${Math.round(read.offPx)} px off the arc`,
      }
    }),
}

/** Where drawings lie on the way between their keys, and where their charts want them; one series for each layer and part. */
function ways(survey: Survey): Series[] {
  const all = new Map<string, { layer: string; mark: string | null; values: SeriesValue[]; planned: SeriesValue[] }>()
  for (const { drawing, planned, read, mark, layer, frame } of ticksRead(survey)) {
    const key = `${layer} ${mark ?? ''}`
    const one = all.get(key) ?? { layer, mark, values: [], planned: [] }
    one.values.push({ frame, drawing: drawing.id, value: 100 * read.share })
    one.planned.push({ frame, drawing: drawing.id, value: 100 * planned })
    all.set(key, one)
  }
  const { layers, marks } = survey.document
  const byFrame = (a: SeriesValue, b: SeriesValue) => a.frame - b.frame
  return [...all.values()].map(({ layer, mark, values, planned }) => ({
    layer,
    mark,
    name: [find(layers, layer)?.name, mark === null ? undefined : find(marks, mark)?.name].filter(Boolean).join(', '),
    unit: '% of the way',
    values: values.sort(byFrame),
    planned: planned.sort(byFrame),
  }))
}
