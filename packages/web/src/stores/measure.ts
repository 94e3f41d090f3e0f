import {
  chartBetween,
  elementsInOrder,
  exposures,
  isAnimated,
  isBlank,
  kindOf,
  marksOf,
  parentDrawing,
  plannedPlace,
  referenceKey,
  type Drawing,
  type Mark,
  type ShotDocument,
} from '@unhurried/core/document'
import {
  compareVolume,
  crossOf,
  findings,
  groundFor,
  plantedMarks,
  readChart,
  slips,
  standingOn,
  type ChartReading,
  type Found,
  type Planted,
} from '@unhurried/core/measure'
import type { Point } from '@unhurried/core/geometry'
import type { Shape } from '@unhurried/core/raster'
import { wrap, type Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, shallowRef, triggerRef, watch } from 'vue'
import type { MeasureProtocol } from '../protocols/measure.ts'
import { useDesk } from './desk.ts'
import { useSight } from './sight.ts'
import { useLamp } from './lamp.ts'
import { useShot } from './shot.ts'

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
  const sight = useSight()
  const lamp = useLamp()
  // Keyed by the drawing as a value: a changed drawing is another one and measured anew.
  const known = shallowRef(new WeakMap<Drawing, Shape>())
  const broken = shallowRef(false)
  let worker: Worker | null = null
  let remote: Remote<MeasureProtocol> | null = null
  let round = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  /** Everything that is drawn on layers that are animated; the layer in hand first. */
  const wanted = computed<Drawing[]>(() => {
    const { document, take } = shot
    if (!document || !take) return []
    const layers = Object.values(document.layers).filter(layer => isAnimated(layer) && layer.id !== desk.layerId)
    const ids = [desk.layerId, ...layers.map(layer => layer.id)].flatMap(layer =>
      exposures(take, layer).map(run => run.drawing as string),
    )
    return [...new Set(ids)].flatMap(id => shot.drawing(id) ?? [])
  })

  watch(
    wanted,
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => void measureAll(), REST_MS)
    },
    { immediate: true },
  )

  // Another gap counts as closed: everything is measured anew.
  watch(
    () => sight.closedGapPx,
    () => {
      known.value = new WeakMap()
      void measureAll()
    },
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

  /** Where enclosed empty space is marked on a drawing. */
  const spacesOn = (drawing: Drawing): Point[] =>
    Object.entries(drawing.marks).flatMap(([id, { x, y }]) =>
      shot.document?.marks[id]?.kind === 'space' ? [{ x, y }] : [],
    )

  async function measureAll(): Promise<void> {
    const mine = ++round
    for (const drawing of wanted.value) {
      if (known.value.has(drawing)) continue
      remote ??= connect()
      const strokes = elementsInOrder(drawing).flatMap(
        element => kindOf(element).silhouette(element, shot.strokeBytes) ?? [],
      )
      const shape = await remote.measure(strokes, spacesOn(drawing), sight.closedGapPx)
      known.value.set(drawing, shape)
      broken.value = false
      triggerRef(known)
      // Something changed meanwhile: a newer round goes on with the newer drawings.
      if (mine !== round) return
    }
    if (mine === round) look()
  }

  /** What the checks find, brought up to date when the hand rests. */
  const found = shallowRef<readonly Found[]>([])
  function look(): void {
    const { document, take } = shot
    found.value = document && take ? findings({ document, take, shapes: shapes.value, loop: loop.value }) : []
  }

  /** The frames that are gone round, when the light table goes round them. */
  const loop = computed(() => (lamp.lightTable.wrap ? (shot.take?.loop ?? null) : null))
  watch(loop, look)

  const shapes = computed<ReadonlyMap<string, Shape>>(
    () =>
      new Map(
        wanted.value.flatMap(drawing => {
          const shape = known.value.get(drawing)
          return shape ? [[drawing.id, shape] as const] : []
        }),
      ),
  )

  const momentsOf = (drawing: Drawing | null): Shape | null => (drawing && known.value.get(drawing)) || null
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
    return chart ? readChart({ document, take, shapes: shapes.value }, chart, desk.part) : null
  })

  const pointsOf = (document: ShotDocument, layer: string) => marksOf(document, layer).filter(m => m.kind === 'point')

  /** Where the marks of the layer belong on the present drawing, by its place on the chart and the paths through all drawings. */
  const crosses = computed<{ mark: Mark; at: Point }[]>(() => {
    const { document, take } = shot
    const { drawing } = desk
    const place = document && take && drawing ? plannedPlace(document, take, drawing) : null
    if (!document || !take || !drawing || !place) return []
    const order = [...new Set(exposures(take, desk.layerId).map(run => run.drawing as string))]
    return pointsOf(document, desk.layerId).flatMap(mark => {
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
    return document && take ? plantedMarks(document, take, desk.layerId, loop.value) : []
  })

  /** Where planted marks were set down that are planted on the present drawing, or may be next. */
  const grounds = computed<Ground[]>(() => {
    const { document, take } = shot
    const { drawing } = desk
    if (!document || !take || !drawing) return []
    const before = exposures(take, desk.layerId).filter(run => run.start < desk.frame && run.drawing !== drawing.id)
    const previous = before[before.length - 1]?.drawing ?? ''
    const start = exposures(take, desk.layerId).find(
      run => run.drawing === drawing.id && run.start + run.frames > desk.frame,
    )
    const standing = standingOn(document, take, desk.layerId)
    return marksOf(document, desk.layerId).flatMap((mark): Ground[] => {
      const here = planted.value.find(
        one => one.mark === mark.id && one.drawing === drawing.id && (start === undefined || one.frame === start.start),
      )
      if (here) return [{ mark, anchor: here.anchor, at: here.at, slips: slips(here) }]
      const anchor = drawing.marks[mark.id]
        ? null
        : groundFor(planted.value, mark.id, previous, start?.start ?? desk.frame, standing)
      return anchor ? [{ mark, anchor, at: null, slips: false }] : []
    })
  })

  const reference = computed(() =>
    shot.document && shot.take ? referenceKey(shot.document, shot.take, desk.layerId) : null,
  )
  const volumeOf = (drawing: Drawing) => {
    const [here, there] = [momentsOf(drawing), momentsOf(reference.value)]
    if (here?.open || there?.open) return null
    return here && there && !isBlank(drawing) ? compareVolume(here, there, desk.layer?.volume) : null
  }

  /** Where the outline of a drawing stands open, so that its area means little; null where it is closed, or nothing is asked. */
  const openAt = (drawing: Drawing | null): Point | null =>
    desk.layer?.volume === 'off' || desk.layer?.kind === 'background' ? null : (momentsOf(drawing)?.open ?? null)

  return { momentsOf, centreOf, placeOf, reading, crosses, grounds, reference, volumeOf, openAt, found, broken }
})
