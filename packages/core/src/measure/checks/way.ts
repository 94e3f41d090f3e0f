import { pathLength, placeAlong, type MeasuredPath } from '../../geometry/curve.ts'
import type { Point } from '../../geometry/point.ts'
import type { Drawing } from '../../document/model/model.ts'
import { isAnimated } from '../../document/model/model.ts'
import { exposedDrawing, layersInOrder } from '../../document/model/selectors.ts'
import { offArcs } from '../tracks/arcs.ts'
import { tracksOfMarks } from '../tracks/ofMarks.ts'
import { heldPlaces } from '../tracks/track.ts'
import { find } from '../../document/model/table.ts'
import { readChart } from '../chartReading.ts'
import { shownOn, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { directionInWords, isOffPath, meetsChart, type WayReading } from '../way.ts'
import { moveThere } from './moved.ts'
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
  fix: moveThere,
  inspect: survey =>
    ofTicks(survey, ({ drawing, planned, read, path, drawn, mark }) => {
      if (meetsChart(read, planned, thresholdOf(survey.document, 'way'))) return null
      const to = placeAlong(path, planned * pathLength(path))
      return {
        figures: { planned, share: read.share, aheadPx: read.aheadPx, dx: to.x - drawn.x, dy: to.y - drawn.y },
        at: drawn,
        words: `${by(survey, mark)}${drawing.number} lies at ${percent(read.share)} of the way, planned ${percent(planned)}: ${directionInWords(drawn, to)}`,
      }
    }),
}

/** Less than this off the arc of its neighbours, px, nobody sees. */
const OFF_PX = 2
/** What goes another way by more than this turns a corner on purpose. */
const CORNER_RAD = Math.PI / 3

/** Whether the drawings that do not make the path lie on it, and every mark that no chart has spaced on the arc its neighbours make. */
export const arc: Check = {
  words: 'off the arc',
  asks: 'Does every drawing lie on the arc?',
  needs: ['charts', 'marks'],
  inspect: survey => [...offPaths(survey), ...offArcsOfMarks(survey)],
  series: arcSeries,
  limits: ({ document }) => [100 * thresholdOf(document, 'arc')],
}

/** Each mark on each drawing, as far off the arc of the two before and the two behind as it is. */
function arcsOf({ document, take }: Survey) {
  return layersInOrder(document)
    .filter(isAnimated)
    .flatMap(layer =>
      tracksOfMarks(document, take, layer.id).map(track => ({
        layer,
        track,
        off: offArcs(track).map(one => ({ ...one, drawing: exposedDrawing(document, take, layer.id, one.frame) })),
      })),
    )
}

function arcSeries(survey: Survey): Series[] {
  return arcsOf(survey).flatMap(({ layer, track, off }): Series[] =>
    off.length > 0
      ? [
          {
            layer: layer.id,
            mark: track.id,
            name: `${layer.name}, ${track.name}`,
            unit: '% of a step off',
            values: off.map(({ frame, drawing, share }) => ({
              frame,
              drawing: drawing?.id ?? null,
              value: 100 * share,
            })),
            planned: [],
          },
        ]
      : [],
  )
}

function offArcsOfMarks(survey: Survey): Finding[] {
  const { document } = survey
  const charted = new Set(
    Object.values(document.charts).flatMap(chart => chart.ticks.flatMap(tick => tick.drawing ?? [])),
  )
  const most = thresholdOf(document, 'arc')
  return arcsOf(survey).flatMap(({ layer, track, off }) => {
    const places = heldPlaces(track)
    return off.flatMap(({ frame, drawing, px, share }, i): Finding[] => {
      if (!drawing || px <= OFF_PX || share <= most || charted.has(drawing.id)) return []
      const five = places.slice(places.findIndex(place => place.frame === frame) - 2).slice(0, 5)
      const isContact = five.some(({ frame: at }) => isPlantedOn(survey, layer.id, track.id, at))
      if (isContact || turnsCorner(five.map(place => place.at))) return []
      // One that is off pulls its neighbours' arcs with it: only the farthest of them is told.
      if (off.some((other, j) => j !== i && Math.abs(j - i) <= 2 && other.share > share)) return []
      return [
        {
          severity: 'look',
          layer: layer.id,
          from: frame,
          to: frame + 1,
          drawings: [drawing.id],
          marks: [track.id],
          figures: { offPx: px, share },
          at: five[2]?.at ?? null,
          isInPicture: true,
          words: `${track.name} of ${drawing.number} lies ${Math.round(px * 10) / 10} px off the arc of its neighbours: ${percent(share)} of a step`,
        },
      ]
    })
  })
}

const isPlantedOn = ({ document, take }: Survey, layer: string, mark: string, frame: number): boolean =>
  find(exposedDrawing(document, take, layer, frame)?.marks ?? {}, mark)?.planted ?? false

/** Whether a way of five places turns a corner at one of the inner ones; without the middle one, which may be what is off. */
function turnsCorner(five: readonly Point[]): boolean {
  const [a, b, , c, d] = five
  if (!a || !b || !c || !d) return true
  const angle = (p: Point, q: Point, r: Point, s: Point) => {
    const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, s.x - r.x, s.y - r.y]
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy))
  }
  return angle(a, b, b, c) > CORNER_RAD || angle(b, c, c, d) > CORNER_RAD
}

const offPaths = (survey: Survey): Finding[] =>
  ofTicks(survey, ({ drawing, read, path, drawn, mark, leads }) => {
    if (leads || !isOffPath(path, read)) return null
    return {
      figures: { offPx: read.offPx },
      at: drawn,
      words: `${by(survey, mark)}${drawing.number} lies ${Math.round(read.offPx)} px off the arc`,
    }
  })

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
