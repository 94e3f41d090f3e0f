import {
  currentTake,
  EMPTY_HISTORY,
  EMPTY_OUTBOX,
  type History,
  type Outbox,
  type Replica,
  type ShotDocument,
} from '@unhurried/core/document'
import type { MemberRole } from '@unhurried/contract'
import { computed, ref, shallowRef } from 'vue'
import { newId } from '../../local/ids.ts'
import type { Ahead } from './ahead.ts'

/** The name of this tab: its history survives a reload and is not mixed with another tab's. */
export function deskName(): string {
  const known = sessionStorage.getItem('desk')
  if (known) return known
  const fresh = newId()
  sessionStorage.setItem('desk', fresh)
  return fresh
}

/** What is known of the shot on the desk. */
export function openState() {
  const id = ref('')
  const name = ref('')
  const film = ref('')
  const filmName = ref('')
  /** whose work all of the film is a study of */
  const filmStudy = ref('')
  const role = ref<MemberRole>('reviewer')
  const replica = shallowRef<Replica | null>(null)
  const history = shallowRef<History>(EMPTY_HISTORY)
  const outbox = shallowRef<Outbox>(EMPTY_OUTBOX)
  const notice = ref('')
  const signedOut = ref(false)
  /** why what is done here is not taken over there at the moment, in words */
  const waiting = ref('')
  /** a step with many pictures, as far as it has got; null while none is on its way */
  const ahead = shallowRef<Ahead | null>(null)
  const document = computed<ShotDocument | null>(() => replica.value?.document ?? null)
  const take = computed(() => (document.value ? currentTake(document.value) : null))
  const mayDraw = computed(() => role.value !== 'reviewer')

  /** Nothing lies on the desk. */
  function empty(): void {
    replica.value = null
    history.value = EMPTY_HISTORY
    outbox.value = EMPTY_OUTBOX
    notice.value = ''
    signedOut.value = false
    waiting.value = ''
    ahead.value = null
  }
  return {
    id,
    name,
    film,
    filmName,
    filmStudy,
    role,
    replica,
    history,
    outbox,
    notice,
    signedOut,
    waiting,
    ahead,
    document,
    take,
    mayDraw,
    empty,
  }
}

export type OpenState = ReturnType<typeof openState>
