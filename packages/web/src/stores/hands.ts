import { defineStore } from 'pinia'
import { computed, reactive, watch } from 'vue'
import { z } from 'zod'
import { kept } from '../local/kept.ts'
import { useHabits } from './habits.ts'

const Kept = z.object({
  penSeen: z.boolean().catch(false),
  touchSeen: z.boolean().catch(false),
  /** that a finger draws was said */
  said: z.boolean().catch(false),
  /** keys to press on the screen; null: once a finger was seen */
  onScreen: z.boolean().nullable().catch(null),
})

/** What this machine is drawn on with: a pen, a finger, keys on the screen. */
export const useHands = defineStore('hands', () => {
  const habits = useHabits()
  const own = kept('hands')
  const now = reactive(Kept.parse(own.read() ?? {}))
  watch(now, () => own.write({ ...now }))
  /** keys that are held down on the screen */
  const held = reactive({ shift: false, alt: false })
  /** whether a finger draws: as one chose, or as long as no pen was seen */
  const fingerDraws = computed(() => habits.fingerDraws ?? !now.penSeen)
  const onScreen = computed({ get: () => now.onScreen ?? now.touchSeen, set: shown => (now.onScreen = shown) })

  return {
    held,
    fingerDraws,
    onScreen,
    /** A pointer that touches the paper. Whether it is the first finger that draws here, which is to be said once. */
    seen({ pointerType }: Pick<PointerEvent, 'pointerType'>): boolean {
      if (pointerType === 'pen') now.penSeen = true
      if (pointerType !== 'touch') return false
      now.touchSeen = true
      const first = fingerDraws.value && habits.fingerDraws === null && !now.said
      if (first) now.said = true
      return first
    },
  }
})
