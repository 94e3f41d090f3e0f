import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useShot } from './shot.ts'

/** Viewing speeds, as shares of the delivery rate, which they never touch. */
export const SPEEDS = [0.25, 0.5, 1, 2] as const
export const SPEED_WORDS: Record<number, string> = {
  0.25: '¼ speed',
  0.5: '½ speed',
  1: 'full speed',
  2: 'double speed',
}
export const ONLY = ['all', 'keys', 'breakdowns'] as const
export type Only = (typeof ONLY)[number]
export type SeenSize = 'fit' | 'phone' | 'full'

/** How the flip room plays: everything here is for looking only. */
export const useFlip = defineStore('flip', () => {
  const speed = ref<number>(1)
  const thereAndBack = ref(false)
  const only = ref<Only>('all')
  const oneLayer = ref(false)
  const silhouettes = ref(false)
  const size = ref<SeenSize>('fit')
  const bare = ref(false)
  /** ids of the takes seen side by side; empty: the current one */
  const takes = shallowRef<readonly string[]>([])
  /** passes that were left, seen beside the present one */
  const passes = shallowRef<readonly string[]>([])
  /** side by side, each take goes round on its own; else all wait for the longest */
  const each = ref(false)
  const shot = useShot()
  // What is ticked belongs to the shot it was ticked in.
  watch(
    () => shot.id,
    () => {
      takes.value = []
      passes.value = []
    },
  )
  /** Another viewing speed: the next slower or faster one. */
  function faster(by: -1 | 1): void {
    const at = SPEEDS.findIndex(one => one === speed.value)
    speed.value = SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, at + by))] ?? 1
  }

  return {
    speed,
    speedWords: computed(() => SPEED_WORDS[speed.value] ?? `${speed.value}×`),
    thereAndBack,
    only,
    oneLayer,
    silhouettes,
    size,
    bare,
    takes,
    passes,
    each,
    faster,
  }
})
