import { pathLength, placeAlong, type MeasuredPath } from '../../geometry/curve.ts'
import type { Point } from '../../geometry/point.ts'
import type { Drawing } from '../../document/model/model.ts'
import { isAnimated } from '../../document/model/model.ts'
import { layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { readChart } from '../chartReading.ts'
import { shownOn, type Survey } from '../survey.ts'
import { directionInWords, isOffPath, meetsChart, type WayReading } from '../way.ts'
import { percent, type Check, type Finding } from './check.ts'

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

/** Asks something of every drawn tick of every chart; the drawings of a layer in the order of time. */
function ofTicks(survey: Survey, say: (on: OnChart) => Pick<Finding, 'figures' | 'at' | 'words'> | null): Finding[] {
  const { document } = survey
  return layersInOrder(document)
    .filter(isAnimated)
    .flatMap(layer => {
      const shown = new Map(shownOn(survey, layer.id).map(one => [one.drawing.id, one]))
      return Object.values(document.charts)
        .filter(chart => chart.layer === layer.id && shown.has(chart.from) && shown.has(chart.to))
        .flatMap((chart): Finding[] => {
          const { path, ticks, places } = readChart(survey, chart, chart.part)
          return ticks.flatMap((read, i): Finding[] => {
            const [tick, place] = [chart.ticks[i], places[i]]
            const one = shown.get(tick?.drawing ?? '')
            if (!path || !read || !one || !place?.drawn) return []
            const { drawing, from, to } = one
            const { planned, drawn, leads } = place
            const said = say({ drawing, planned, read, path, drawn, mark: chart.part, leads })
            const marks = chart.part === null ? [] : [chart.part]
            return said ? [{ severity: 'look', layer: layer.id, from, to, drawings: [drawing.id], marks, ...said }] : []
          })
        })
        .sort((a, b) => a.from - b.from)
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
  inspect: survey =>
    ofTicks(survey, ({ drawing, planned, read, path, drawn, mark }) => {
      if (meetsChart(read, planned)) return null
      const to = placeAlong(path, planned * pathLength(path))
      return {
        figures: { planned, share: read.share, aheadPx: read.aheadPx },
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
