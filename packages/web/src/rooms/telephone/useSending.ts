import type { AtTelephone } from '@unhurried/contract'
import { computed, onBeforeUnmount, reactive, ref } from 'vue'
import { Refused } from '../../api/ask.ts'
import { atTelephone } from '../../api/calls.ts'
import { newId } from '../../local/ids.ts'
import { photographToSend } from '../../pictures/photograph.ts'

/** How often it is asked what has arrived at the desk; and how long one waits before something is sent once more. */
const ASK_MS = 3000
const AGAIN_MS = 1500
const TRIES = 4

export type Way = 'waits' | 'goes' | 'sent' | 'not sent' | 'no picture'

/** A photograph on its way. */
export interface Sending {
  readonly id: string
  readonly name: string
  /** a picture of it, once it could be read */
  url: string | null
  way: Way
  /** why it could not be sent */
  why: string
}

const pause = (ms: number) => new Promise(done => setTimeout(done, ms))

/** Photographs sent to a desk by the code that was photographed there, one after the other. */
export function useSending(token: string) {
  const calls = atTelephone(token)
  const desk = ref<AtTelephone | null>(null)
  /** why nothing can be sent: the code is not, or no longer, good */
  const shut = ref('')
  const photos = reactive<Sending[]>([])
  const files = new Map<string, Blob>()
  let isGone = false
  let isSending = false

  async function look(): Promise<void> {
    try {
      desk.value = await calls.read()
    } catch (error) {
      if (error instanceof Refused && error.status < 500) shut.value = error.message
    }
  }
  const timer = setInterval(() => shut.value === '' && void look(), ASK_MS)
  onBeforeUnmount(() => {
    isGone = true
    clearInterval(timer)
    for (const { url } of photos) if (url !== null) URL.revokeObjectURL(url)
  })
  void look()

  async function sendOne(photo: Sending, blob: Blob): Promise<void> {
    photo.way = 'goes'
    for (let tried = 1; ; tried++) {
      try {
        await calls.send(photo.id, blob)
        photo.way = 'sent'
        return (files.delete(photo.id), undefined)
      } catch (error) {
        const isVerdict = error instanceof Refused && error.status < 500
        if (isVerdict || tried >= TRIES || isGone) {
          photo.way = 'not sent'
          photo.why = isVerdict ? error.message : 'The desk does not answer.'
          return
        }
        await pause(AGAIN_MS * tried)
      }
    }
  }

  async function sendAll(): Promise<void> {
    if (isSending) return
    isSending = true
    for (let next; (next = photos.find(photo => photo.way === 'waits')) && !isGone;) {
      const file = files.get(next.id) as Blob
      const blob = await photographToSend(file).catch(() => null)
      if (!blob) {
        next.way = 'no picture'
        files.delete(next.id)
        continue
      }
      if (next.url === null) next.url = URL.createObjectURL(blob)
      await sendOne(next, blob)
    }
    isSending = false
    await look()
  }

  return {
    desk,
    shut,
    photos,
    /** Whether the desk has a photograph. */
    arrived: (id: string): boolean => desk.value?.photos.some(photo => photo.id === id && photo.taken) ?? false,
    /** how many were sent by this code before this page was opened */
    before: computed(() => desk.value?.photos.filter(photo => !photos.some(mine => mine.id === photo.id)).length ?? 0),
    add(some: readonly File[]): void {
      for (const file of some) {
        const id = newId()
        files.set(id, file)
        photos.push({ id, name: file.name, url: null, way: 'waits', why: '' })
      }
      void sendAll()
    },
    again(photo: Sending): void {
      photo.way = 'waits'
      void sendAll()
    },
  }
}
