import {
  elementsInOrder,
  exposures,
  isBlank,
  parentDrawing,
  referenceKey,
  type Chart,
  type Drawing,
} from '@unhurried/core/document'
import { KEY_A, KEY_B, valueOf } from '@unhurried/core/chart'
import { compareVolume, readWay, wayPath, type WayPlace, type WayReading } from '@unhurried/core/measure'
import type { MeasuredPath, Point } from '@unhurried/core/geometry'
import type { Moments } from '@unhurried/core/raster'
import { wrap, type Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, shallowRef, triggerRef, watch } from 'vue'
import type { MeasureProtocol } from '../workers/measure.protocol.ts'
import { useDesk } from './desk.ts'
import { useShot } from './shot.ts'

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
      const strokes = elementsInOrder(drawing).flatMap(({ kind, width, part, matrix, samples }) => {
        const bytes = shot.strokeBytes(samples)
        return bytes ? [{ kind, width, part, matrix, bytes }] : []
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

  /** The chart around the frame, read back: for each tick where its drawing lies, and the path they are read along. */
  const reading = computed<{ chart: Chart; path: MeasuredPath | null; ticks: (WayReading | null)[] } | null>(() => {
    const { document } = shot
    if (!document || !desk.keys) return null
    const { from, to } = desk.keys
    const chart = Object.values(document.charts).find(c => c.from === from.id && c.to === to.id)
    if (!chart) return null
    const places = chart.ticks.map((tick): WayPlace => ({
      planned: valueOf(tick.at),
      drawn: centreOf(shot.drawing(tick.drawing)),
      leads: tick.depth === 0,
    }))
    const [a, b] = [centreOf(parentDrawing(document, chart, KEY_A)), centreOf(parentDrawing(document, chart, KEY_B))]
    return { chart, path: wayPath(a, places, b), ticks: readWay(a, places, b) }
  })

  const reference = computed(() =>
    shot.document && shot.take ? referenceKey(shot.document, shot.take, desk.layerId) : null,
  )
  const volumeOf = (drawing: Drawing) => {
    const [here, there] = [momentsOf(drawing), momentsOf(reference.value)]
    return here && there && !isBlank(drawing) ? compareVolume(here.area, there.area) : null
  }

  return { momentsOf, centreOf, reading, reference, volumeOf, broken }
})
