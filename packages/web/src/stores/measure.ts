import {
  chartBetween,
  elementsInOrder,
  exposures,
  firstFrameOf,
  isBlank,
  marksOf,
  parentDrawing,
  plannedPlace,
  referenceKey,
  type Chart,
  type Drawing,
  type Mark,
  type Take,
} from '@unhurried/core/document'
import { chartInWords, KEY_A, KEY_B, valueOf } from '@unhurried/core/chart'
import {
  compareVolume,
  crossOf,
  groundFor,
  plantedMarks,
  readWay,
  slips,
  stepSpeeds,
  wayPath,
  worstCorrection,
  type Correction,
  type Planted,
  type StepSpeed,
  type WayPlace,
  type WayReading,
} from '@unhurried/core/measure'
import { pathLength, type MeasuredPath, type Point } from '@unhurried/core/geometry'
import type { Moments } from '@unhurried/core/raster'
import { wrap, type Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, shallowRef, triggerRef, watch } from 'vue'
import type { MeasureProtocol } from '../workers/measure.protocol.ts'
import { useDesk } from './desk.ts'
import { useShot } from './shot.ts'

/** A chart read back from the drawings. */
export interface ChartReading {
  readonly chart: Chart
  readonly path: MeasuredPath | null
  /** for each tick where its drawing lies */
  readonly ticks: (WayReading | null)[]
  readonly worst: Correction | null
  /** what the drawings amount to, once all are drawn */
  readonly words: string
  readonly speeds: StepSpeed[]
}

/** A planted mark on the present drawing: where it was set down, and where it lies (null: not placed yet). */
export interface Ground {
  readonly mark: Mark
  readonly anchor: Point
  readonly at: Point | null
  readonly slips: boolean
}

/** Strokes come in bursts; measuring starts when the hand rests. */
const REST_MS = 120

/** What the drawings amount to, measured from their pixels in a worker and kept until a drawing changes. */
export const useMeasure = defineStore('measure', () => {
  const shot = useShot()
  const desk = useDesk()
  // Keyed by the drawing as a value: a changed drawing is another one and measured anew.
  const known = shallowRef(new WeakMap<Drawing, Moments>())
  const broken = shallowRef(false)
  let worker: Worker | null = null
  let remote: Remote<MeasureProtocol> | null = null
  let round = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  const wanted = computed<Drawing[]>(() => {
    if (!shot.document || !shot.take) return []
    const ids = new Set(exposures(shot.take, desk.layerId).map(run => run.drawing as string))
    return [...ids].flatMap(id => shot.drawing(id) ?? [])
  })

  watch(
    wanted,
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => void measureAll(), REST_MS)
    },
    { immediate: true },
  )

  function connect(): Remote<MeasureProtocol> {
    worker = new Worker(new URL('../workers/measure.worker.ts', import.meta.url), { type: 'module' })
    // A worker that dies would leave its callers waiting for ever: the next drawing gets a new one.
    worker.onerror = () => {
      worker?.terminate()
      worker = null
      remote = null
      broken.value = true
    }
    return wrap<MeasureProtocol>(worker)
  }

  async function measureAll(): Promise<void> {
    const mine = ++round
    for (const drawing of wanted.value) {
      if (known.value.has(drawing)) continue
      remote ??= connect()
      const strokes = elementsInOrder(drawing).flatMap(({ kind, width, part, matrix, nib, samples }) => {
        const bytes = shot.strokeBytes(samples)
        return bytes ? [{ kind, width, part, matrix, nib, bytes }] : []
      })
      const moments = await remote.measure(strokes)
      known.value.set(drawing, moments)
      broken.value = false
      triggerRef(known)
      // Something changed meanwhile: a newer round goes on with the newer drawings.
      if (mine !== round) return
    }
  }

  const momentsOf = (drawing: Drawing | null): Moments | null => (drawing && known.value.get(drawing)) || null
  const centreOf = (drawing: Drawing | null): Point | null => momentsOf(drawing)?.centroid ?? null

  /** Where a drawing lies: its mark when the chart is read by a part, else the middle of its silhouette. */
  const placeOf = (drawing: Drawing | null): Point | null =>
    desk.part === null ? centreOf(drawing) : (drawing?.marks[desk.part] ?? null)

  /** The chart around the frame, read back along the path through its keys and breakdowns. */
  const reading = computed<ChartReading | null>(() => {
    const { document, take } = shot
    if (!document || !take || !desk.keys) return null
    const { from, to } = desk.keys
    const chart =
      (desk.part !== null && chartBetween(document, from.id, to.id, desk.part)) ||
      chartBetween(document, from.id, to.id)
    if (!chart) return null
    const places = chart.ticks.map((tick): WayPlace => ({
      planned: valueOf(tick.at),
      drawn: placeOf(shot.drawing(tick.drawing)),
      leads: tick.depth === 0,
    }))
    const [a, b] = [placeOf(parentDrawing(document, chart, KEY_A)), placeOf(parentDrawing(document, chart, KEY_B))]
    const path = wayPath(a, places, b)
    const ticks = readWay(a, places, b)
    const drawn = ticks.flatMap((read, i) => (read ? [{ read, planned: places[i]?.planned as number }] : []))
    const all = drawn.length === ticks.length && ticks.length > 1
    return {
      chart,
      path,
      ticks,
      worst: path && worstCorrection(path, places),
      words: all
        ? chartInWords(
            chart.wish,
            drawn.map(d => d.planned),
            drawn.map(d => d.read.share),
          )
        : '',
      speeds: path ? speedsOf(take, chart, pathLength(path), ticks) : [],
    }
  })

  /** How fast each step is with the holds it has on the sheet; nothing while a drawing is not exposed. */
  function speedsOf(take: Take, chart: Chart, wholePx: number, ticks: readonly (WayReading | null)[]): StepSpeed[] {
    const starts = [chart.from, ...chart.ticks.map(tick => tick.drawing), chart.to].map(id => {
      const drawing = shot.drawing(id)
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

  /** Where the marks of the layer belong on the present drawing, by its place on the chart and the paths through all drawings. */
  const crosses = computed<{ mark: Mark; at: Point }[]>(() => {
    const { document, take } = shot
    const { drawing } = desk
    const place = document && take && drawing ? plannedPlace(document, take, drawing) : null
    if (!document || !take || !drawing || !place) return []
    const order = [...new Set(exposures(take, desk.layerId).map(run => run.drawing as string))]
    return marksOf(document, desk.layerId).flatMap(mark => {
      const own = chartBetween(document, place.chart.from, place.chart.to, mark.id)
      const tick = (own ?? place.chart).ticks.find(t => t.drawing === drawing.id)
      if (!tick) return []
      const way = order.flatMap(id => {
        const at = id === drawing.id ? undefined : shot.drawing(id)?.marks[mark.id]
        return at ? [{ drawing: id, at }] : []
      })
      const parents = [tick.left, tick.right].map(p => parentDrawing(document, own ?? place.chart, p)?.id ?? '')
      const at = crossOf(way, parents[0] as string, parents[1] as string, tick.ratio)
      return at ? [{ mark, at }] : []
    })
  })

  /** Planted marks of the layer, held against where they were set down; round the loop when the light table goes round it. */
  const planted = computed<Planted[]>(() => {
    const { document, take } = shot
    return document && take ? plantedMarks(document, take, desk.layerId, desk.lightTable.wrap ? take.loop : null) : []
  })

  /** Where planted marks were set down that are planted on the present drawing, or may be next. */
  const grounds = computed<Ground[]>(() => {
    const { document, take } = shot
    const { drawing } = desk
    if (!document || !take || !drawing) return []
    const before = exposures(take, desk.layerId).filter(run => run.start < desk.frame && run.drawing !== drawing.id)
    const previous = before[before.length - 1]?.drawing ?? ''
    return marksOf(document, desk.layerId).flatMap((mark): Ground[] => {
      const here = planted.value.find(one => one.mark === mark.id && one.drawing === drawing.id)
      if (here) return [{ mark, anchor: here.anchor, at: here.at, slips: slips(here) }]
      const anchor = drawing.marks[mark.id] ? null : groundFor(planted.value, mark.id, previous)
      return anchor ? [{ mark, anchor, at: null, slips: false }] : []
    })
  })

  const reference = computed(() =>
    shot.document && shot.take ? referenceKey(shot.document, shot.take, desk.layerId) : null,
  )
  const volumeOf = (drawing: Drawing) => {
    const [here, there] = [momentsOf(drawing), momentsOf(reference.value)]
    return here && there && !isBlank(drawing) ? compareVolume(here.area, there.area) : null
  }

  return { momentsOf, centreOf, placeOf, reading, crosses, planted, grounds, reference, volumeOf, broken }
})
