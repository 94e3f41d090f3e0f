import type { Account } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { Unreachable } from '../api/ask.ts'
import * as calls from '../api/calls.ts'
import { forgetCopies } from '../local/copies.ts'
import { forgetKept } from '../local/kept.ts'
import { forgetSentMedia } from '../local/media.ts'

/** Who sits here. */
export const useSession = defineStore('session', () => {
  const account = ref<Account | null>(null)
  const needsOwner = ref(false)
  const demo = ref<{ email: string; password: string } | null>(null)
  const known = ref(false)
  const unreachable = ref(false)

  type State = Awaited<ReturnType<typeof calls.session.read>>
  function take(state: State): void {
    account.value = state.account
    needsOwner.value = state.needsOwner
    demo.value = state.demo
    known.value = true
    unreachable.value = false
  }

  async function refresh(): Promise<void> {
    try {
      take(await calls.session.read())
    } catch (error) {
      unreachable.value = error instanceof Unreachable
      throw error
    }
  }

  return {
    account,
    needsOwner,
    demo,
    known,
    unreachable,
    signedIn: computed(() => account.value !== null),
    refresh,
    signIn: async (email: string, password: string) => take(await calls.session.open(email, password)),
    setUp: async (email: string, name: string, password: string) =>
      take(await calls.session.setUp(email, name, password)),
    async signOut() {
      take(await calls.session.close())
      // The next to sit here sees nothing of what lay on this desk.
      await Promise.allSettled([forgetCopies(), forgetSentMedia()])
      forgetKept('models ')
    },
  }
})
