import { FRESH_HABITS, Habits } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import * as calls from '../api/calls.ts'
import { mirroredKey } from '../words/mirrored.ts'
import { useSession } from './session.ts'

const KEPT = 'habits'
/** The account whose last changes the server may not have yet. */
const UNSENT = 'habits to send'
/** Changes are kept on the account once they rest for this long. */
const REST_MS = 400

function readKept(): Habits {
  try {
    const kept = Habits.safeParse({ ...FRESH_HABITS, ...JSON.parse(localStorage.getItem(KEPT) ?? '{}') })
    return kept.success ? kept.data : FRESH_HABITS
  } catch {
    return FRESH_HABITS
  }
}

/** How one likes to sit: kept on the account, and on this machine so that the desk is right from the first moment. */
export const useHabits = defineStore('habits', () => {
  const session = useSession()
  const habits = shallowRef<Habits>(readKept())
  let resting: ReturnType<typeof setTimeout> | undefined

  watch(
    habits,
    now => {
      localStorage.setItem(KEPT, JSON.stringify(now))
      document.documentElement.dataset.desk = now.night ? 'night' : 'day'
    },
    { immediate: true },
  )
  watch(
    () => session.account?.id,
    async account => {
      if (!account) return
      // Left before the last change was sent: it is sent now, not forgotten.
      if (localStorage.getItem(UNSENT) === account) return send()
      // Nobody answering is no harm: what this machine knows goes on.
      habits.value = await calls.habits.read().catch(() => habits.value)
    },
    { immediate: true },
  )

  function set(patch: Partial<Habits>): void {
    habits.value = { ...habits.value, ...patch }
    if (session.account) localStorage.setItem(UNSENT, session.account.id)
    clearTimeout(resting)
    resting = setTimeout(() => void send(), REST_MS)
  }

  async function send(): Promise<void> {
    try {
      await calls.habits.keep(habits.value)
      localStorage.removeItem(UNSENT)
    } catch {
      // It waits on this machine until the desk is opened again.
    }
  }

  /** The keys of a command: as they were changed, or as they came (under the other hand for the left-handed). */
  function keysOf(command: { readonly id: string; readonly keys: readonly string[] }): readonly string[] {
    const { keys, leftHanded } = habits.value
    return keys[command.id] ?? (leftHanded ? command.keys.map(mirroredKey) : command.keys)
  }

  return {
    habits,
    set,
    keysOf,
    night: computed({ get: () => habits.value.night, set: (night: boolean) => set({ night }) }),
    leftHanded: computed({ get: () => habits.value.leftHanded, set: (leftHanded: boolean) => set({ leftHanded }) }),
    sideButton: computed({
      get: () => habits.value.sideButton,
      set: (sideButton: Habits['sideButton']) => set({ sideButton }),
    }),
    fingerDraws: computed({
      get: () => habits.value.fingerDraws,
      set: (fingerDraws: Habits['fingerDraws']) => set({ fingerDraws }),
    }),
  }
})
