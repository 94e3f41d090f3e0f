import { onScopeDispose, ref, shallowRef } from 'vue'
import { Refused } from '../../../api/ask.ts'
import { telephones } from '../../../api/calls.ts'
import { useShot } from '../../../stores/shot.ts'

const ASK_MS = 1500

/** What is taken from a telephone: the photograph, and which one of those it sent. */
type Take = (photo: Blob, name: string) => Promise<void>

/** A telephone that may send photographs here for some minutes: a code is asked for, and what comes is taken as it comes. */
export function useTelephone(take: Take) {
  const shot = useShot()
  const code = shallowRef<{ readonly id: string; readonly token: string } | null>(null)
  const seconds = ref(0)
  const come = ref(0)
  const why = ref('')
  const had = new Set<string>()
  let timer: ReturnType<typeof setTimeout> | undefined
  let opening = 0

  /** Takes what has come since; asks again in a while, as long as the code is good. */
  async function look(mine: number): Promise<void> {
    const at = code.value
    if (!at || mine !== opening) return
    try {
      const now = await telephones.come(shot.id, at.id)
      seconds.value = now.seconds
      for (const photo of now.photos) {
        if (had.has(photo.id)) continue
        const bytes = await telephones.photo(shot.id, at.id, photo.id)
        if (mine !== opening) return
        had.add(photo.id)
        come.value++
        await take(new Blob([bytes.slice()]), `photograph ${come.value}`)
      }
    } catch (error) {
      // Without an answer it is asked again; a verdict ends it.
      if (error instanceof Refused && error.status < 500) {
        if (mine !== opening) return
        code.value = null
        why.value = error.message
      }
    }
    if (mine === opening && code.value) timer = setTimeout(() => void look(mine), ASK_MS)
  }

  async function open(): Promise<void> {
    close()
    const mine = ++opening
    why.value = ''
    try {
      const made = await telephones.open(shot.id)
      if (mine !== opening) return void telephones.close(shot.id, made.id).catch(() => undefined)
      code.value = made
      seconds.value = made.seconds
      void look(mine)
    } catch (error) {
      if (mine === opening) why.value = (error as Error).message
    }
  }

  function close(): void {
    opening++
    clearTimeout(timer)
    if (code.value) telephones.close(shot.id, code.value.id).catch(() => undefined)
    code.value = null
  }
  onScopeDispose(close)

  return { code, seconds, come, why, open, close }
}

export type FromTelephone = ReturnType<typeof useTelephone>
