import {
  columnOf,
  cycleAt,
  exposedDrawing,
  exposureAt,
  exposureCount,
  exposures,
  get,
  keysAround,
  sourceAt,
  timedBy,
  type Drawing,
  type Layer,
  type Role,
} from '@unhurried/core/document'
import { drawingsOf, slice } from '@unhurried/core/time'
import { computed, type Ref } from 'vue'
import type { useShot } from './shot.ts'

/** Frames marked on the sheet over some layers, from–to with `to` not included. */
export interface SheetSelection {
  readonly layers: readonly string[]
  readonly from: number
  readonly to: number
}

/** A place on the sheet: a frame of a layer, and frames that are marked. */
export interface Place {
  readonly frame: Ref<number>
  readonly layerId: Ref<string>
  readonly selection: Ref<SheetSelection | null>
}

/** What lies at a place of the sheet. */
export function whatLies(shot: ReturnType<typeof useShot>, { frame, layerId, selection }: Place) {
  const layer = computed<Layer | null>(() => shot.document?.layers[layerId.value] ?? null)
  const drawing = computed(() =>
    shot.document && shot.take ? exposedDrawing(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** the layer whose timing the one in the hand shows */
  const timedLayer = computed(() => (shot.document ? timedBy(shot.document, layerId.value) : layerId.value))
  /** the line drawing that the paint of a tied layer lies under on this frame */
  const over = computed(() =>
    shot.document && shot.take && timedLayer.value !== layerId.value
      ? exposedDrawing(shot.document, shot.take, timedLayer.value, frame.value)
      : null,
  )
  const run = computed(() => (shot.take ? exposureAt(shot.take, timedLayer.value, frame.value) : null))
  const cycle = computed(() => (shot.take ? cycleAt(shot.take, timedLayer.value, frame.value) : null))
  const keys = computed(() =>
    shot.document && shot.take && timedLayer.value === layerId.value
      ? keysAround(shot.document, shot.take, layerId.value, frame.value)
      : null,
  )
  const source = computed(() =>
    shot.document && shot.take ? sourceAt(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** What a drawing begun here is: straight ahead an inbetween, but for the first; else a key, or what the one it copies is. */
  function roleOfNew(copied: Drawing | null = null): Role {
    if (shot.document?.way !== 'straight-ahead') return copied?.role ?? 'key'
    const first = !shot.take || exposures(shot.take, layerId.value).every(shown => shown.start > frame.value)
    return first ? 'key' : 'inbetween'
  }
  /** in how many places of the sheet the present drawing is shown; the turns of a linked cycle are one */
  const places = computed(() => {
    const { take } = shot
    if (!take || !drawing.value) return 0
    return cycle.value ? 1 : exposureCount(take, drawing.value)
  })
  /** other takes that show the present drawing: a change of it is a change there */
  const otherTakes = computed(() => {
    const { document, take } = shot
    const id = drawing.value?.id
    if (!document || !take || !id) return []
    return Object.values(document.takes).filter(
      other => other.id !== take.id && columnOf(other, layerId.value).some(shown => shown.drawing === id),
    )
  })
  /** drawings of the layer that are exposed on the marked frames, in order */
  const markedDrawings = computed<Drawing[]>(() => {
    const { document, take } = shot
    const marked = selection.value
    if (!document || !take || !marked?.layers.includes(layerId.value)) return []
    return drawingsOf(slice(columnOf(take, layerId.value), marked.from, marked.to)).map(id =>
      get(document.drawings, id),
    )
  })

  return { layer, drawing, timedLayer, over, run, cycle, keys, source, places, otherTakes, markedDrawings, roleOfNew }
}
