import { carriedOn, pathOf, placeOnLayer, placeSeen, type Take } from '@unhurried/core/document'
import type { Matrix, Point } from '@unhurried/core/geometry'
import type { LayerPath } from '@unhurried/core/path'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useDesk } from './desk.ts'
import { useShot } from './shot.ts'

/** A path that is not committed yet: the hand still has it. */
interface Draft {
  readonly layer: string
  readonly path: LayerPath
}

/** How layers lie where they move as a whole: in the take as it is looked at on the desk. */
export const useCarried = defineStore('carried', () => {
  const shot = useShot()
  const desk = useDesk()
  /** for looking: every layer lies where it was drawn */
  const atRest = ref(false)
  const draft = shallowRef<Draft | null>(null)

  /** The take with its layers where they are seen: at rest, or as the hand has one. */
  const take = computed<Take | null>(() => {
    const { take: now } = shot
    if (!now) return null
    if (atRest.value) return { ...now, paths: {} }
    const held = draft.value
    return held ? { ...now, paths: { ...now.paths, [held.layer]: held.path } } : now
  })
  /** whether anything moves in the take */
  const moves = computed(() => Object.keys(shot.take?.paths ?? {}).length > 0)
  /** the path of the layer in the hand, as the hand has it */
  const path = computed<LayerPath | null>(() => {
    const { document } = shot
    if (!document || !shot.take) return null
    const held = draft.value
    return held?.layer === desk.timedLayer ? held.path : pathOf(document, shot.take, desk.timedLayer)
  })
  /** Where a layer lies on a frame; null where it lies as it was drawn. */
  const on = (layer: string, frame: number): Matrix | null =>
    shot.document && take.value ? carriedOn(shot.document, take.value, layer, frame) : null
  /** where the layer in the hand lies on the present frame */
  const hand = computed<Matrix | null>(() => on(desk.layerId, desk.frame))

  /** A place on a drawing of a layer as it is seen on a frame, in pixels of the layer in the hand as that lies now. */
  function seenFromHand(layer: string, frame: number, at: Point): Point {
    const { document } = shot
    if (!document || !take.value) return at
    const seen = placeSeen(document, take.value, layer, frame, at)
    return placeOnLayer(document, take.value, desk.layerId, desk.frame, seen)
  }

  /** A place in the picture as it is seen now, in pixels of the layer in the hand. */
  function pictureFromHand(at: Point): Point {
    const { document } = shot
    return document && take.value ? placeOnLayer(document, take.value, desk.layerId, desk.frame, at) : at
  }

  return {
    atRest,
    draft,
    take,
    moves,
    path,
    on,
    hand,
    seenFromHand,
    pictureFromHand,
    /** Starts afresh on another shot. */
    reset() {
      atRest.value = false
      draft.value = null
    },
  }
})
