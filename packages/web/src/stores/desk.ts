import {
  drawingQueue,
  FIRST,
  isAnimated,
  layersInOrder,
  type Layer,
  type QueueItem,
  type ShotDocument,
} from '@unhurried/core/document'
import { type Following } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { keptFor } from './kept.ts'
import { keepSettings, readSettings } from './settings.ts'
import { useShot } from './shot.ts'
import { whatLies, type SheetSelection } from './whatLies.ts'

export type { SheetSelection }

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

  const here = whatLies(shot, { frame, layerId, selection })
  const { layer, run } = here

  watch(following, () => keepSettings({ following: following.value }))
  watch(deferred, () => {
    if (shot.id) keptFor(shot.id).write({ deferred: deferred.value })
  })

  const queue = computed<QueueItem[]>(() => {
    if (!shot.document || !shot.take) return []
    return drawingQueue(shot.document, shot.take, {
      layer: queueOfLayer.value ? layerId.value : null,
      skipped: skipped.value,
      deferred: deferred.value,
    })
  })
  /** Frames that a drawing begun here is shown: as many as the shot says; a background is shown to the end. */
  const holdHere = computed(() => {
    const left = (shot.take?.length ?? 1) - frame.value
    return layer.value?.kind === 'background' && run.value?.drawing === null ? left : exposure.value
  })
  const loop = computed(() => shot.take?.loop ?? { from: 0, to: shot.take?.length ?? 1 })
  /** Whether the layer one stands on may be drawn on and retimed. */
  const mayEdit = computed(() => shot.mayDraw && layer.value !== null && !layer.value.locked)

  /** all layers, topmost first */
  const allColumns = computed<Layer[]>(() => (shot.document ? layersInOrder(shot.document).reverse() : []))

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
    ...here,
    frame,
    layerId,
    selection,
    exposure,
    following,
    holdHere,
    mayEdit,
    allColumns,
    skipped,
    deferred,
    queueOfLayer,
    part,
    queue,
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
