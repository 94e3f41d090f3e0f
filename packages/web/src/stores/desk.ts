import {
  columnOf,
  cycleAt,
  drawingQueue,
  exposedDrawing,
  exposureAt,
  exposureCount,
  exposures,
  FIRST,
  get,
  isAnimated,
  keysAround,
  layersInOrder,
  sourceAt,
  timedBy,
  type Drawing,
  type Layer,
  type QueueItem,
  type Role,
  type ShotDocument,
} from '@unhurried/core/document'
import { drawingsOf, slice, type Following } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { keptFor } from './kept.ts'
import { keepSettings, readSettings } from './settings.ts'
import { useShot } from './shot.ts'

/** Frames marked on the sheet over some layers, from–to with `to` not included. */
export interface SheetSelection {
  readonly layers: readonly string[]
  readonly from: number
  readonly to: number
}

const firstLayer = (layers: ShotDocument['layers']) => Object.values(layers).find(isAnimated)?.id ?? FIRST.drawn

/** Where one stands on the sheet, and what that comes to. None of it belongs to the document. */
export const useDesk = defineStore('desk', () => {
  const shot = useShot()
  const frame = ref(0)
  const layerId = ref<string>(FIRST.drawn)
  const selection = shallowRef<SheetSelection | null>(null)
  /** frames that drawings begun from now on get: the shot says so */
  const exposure = computed(() => shot.document?.exposure ?? 2)
  const following = ref<Following>(readSettings().following)
  /** drawings passed over until one comes back to the shot */
  const skipped = shallowRef<ReadonlySet<string>>(new Set())
  const queueOfLayer = ref(false)
  /** the part whose chart the rail shows */
  const part = ref<string | null>(null)
  /** drawings put off in the queue */
  const deferred = shallowRef<readonly string[]>([])

  watch(following, () => keepSettings({ following: following.value }))
  watch(deferred, () => {
    if (shot.id) keptFor(shot.id).write({ deferred: deferred.value })
  })

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
  const queue = computed<QueueItem[]>(() => {
    if (!shot.document || !shot.take) return []
    return drawingQueue(shot.document, shot.take, {
      layer: queueOfLayer.value ? layerId.value : null,
      skipped: skipped.value,
      deferred: deferred.value,
    })
  })
  const source = computed(() =>
    shot.document && shot.take ? sourceAt(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** Frames that a drawing begun here is shown: as many as the shot says; a background is shown to the end. */
  const holdHere = computed(() => {
    const left = (shot.take?.length ?? 1) - frame.value
    return layer.value?.kind === 'background' && run.value?.drawing === null ? left : exposure.value
  })
  /** What a drawing begun here is: straight ahead an inbetween, but for the first; else a key, or what the one it copies is. */
  function roleOfNew(copied: Drawing | null = null): Role {
    if (shot.document?.way !== 'straight-ahead') return copied?.role ?? 'key'
    const first = !shot.take || exposures(shot.take, layerId.value).every(shown => shown.start > frame.value)
    return first ? 'key' : 'inbetween'
  }
  const loop = computed(() => shot.take?.loop ?? { from: 0, to: shot.take?.length ?? 1 })
  /** Whether the layer one stands on may be drawn on and retimed. */
  const mayEdit = computed(() => shot.mayDraw && layer.value !== null && !layer.value.locked)

  /** all layers, topmost first */
  const allColumns = computed<Layer[]>(() => (shot.document ? layersInOrder(shot.document).reverse() : []))

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
  function goTo(next: number): void {
    const last = (shot.take?.length ?? 1) - 1
    frame.value = Math.max(0, Math.min(last, Math.round(next)))
  }

  watch(
    () => shot.take?.length,
    length => {
      if (length !== undefined && frame.value >= length) frame.value = length - 1
    },
  )
  watch(layerId, () => (part.value = null))
  // The layer in the hand may go: undone here, or removed by somebody else.
  watch(
    () => shot.document?.layers,
    layers => {
      if (layers && !layers[layerId.value]) layerId.value = firstLayer(layers)
    },
  )

  return {
    frame,
    layerId,
    layer,
    selection,
    markedDrawings,
    exposure,
    following,
    holdHere,
    roleOfNew,
    mayEdit,
    allColumns,
    places,
    otherTakes,
    timedLayer,
    over,
    skipped,
    deferred,
    queueOfLayer,
    part,
    drawing,
    run,
    cycle,
    keys,
    queue,
    source,
    loop,
    goTo,
    /** Starts afresh on another shot. */
    reset(startFrame: number) {
      deferred.value = keptFor(shot.id).read().deferred
      layerId.value = firstLayer(shot.document?.layers ?? {})
      selection.value = null
      skipped.value = new Set()
      part.value = null
      goTo(startFrame)
    },
  }
})
