import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

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
  }
})
