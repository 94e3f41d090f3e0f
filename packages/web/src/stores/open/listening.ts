import { Word } from '@unhurried/contract'

/** When nobody may listen at the moment, it is asked for again after this. */
const LISTEN_AGAIN_MS = 5000

/**
 * Listens to what the server says of a shot, until it is closed. `hear` gets each word, and whether it is the first since
 * listening began (again); `retry` is called when the way to the server may be open again.
 */
export function listenTo(shotId: string, hear: (word: Word, isFirst: boolean) => void, retry: () => void) {
  let words: EventSource
  let again: ReturnType<typeof setTimeout> | undefined

  function listen(): void {
    words = new EventSource(`/api/shots/${shotId}/events`)
    let isFirst = false
    words.onopen = () => (isFirst = true)
    // A lost connection is made again by the browser; after a refusal nobody but us asks once more.
    words.onerror = () => {
      if (words.readyState === EventSource.CLOSED) again = setTimeout(listen, LISTEN_AGAIN_MS)
    }
    words.onmessage = ({ data }: MessageEvent<string>) => {
      retry()
      hear(Word.parse(JSON.parse(data)), isFirst)
      isFirst = false
    }
  }
  listen()
  addEventListener('online', retry)

  return {
    close(): void {
      words.close()
      clearTimeout(again)
      removeEventListener('online', retry)
    },
  }
}

export type Listening = ReturnType<typeof listenTo>
