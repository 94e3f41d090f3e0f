import type { FilmClip } from '@unhurried/core/document'
import type { Change } from '@unhurried/core/clip'
import type { Point } from '@unhurried/core/geometry'
import { proxy, wrap, type Remote } from 'comlink'
import { LRUCache } from 'lru-cache'
import { ref, shallowRef } from 'vue'
import type { ClipProtocol, FollowEnd, FoundPlace } from '../protocols/clip.ts'
import { clipWorker } from './packing.ts'

/** Pixels of all pictures of a clip that are kept at a time: about a hundred of 1280 × 720. */
const MOST_PIXELS = 100_000_000
/** Pictures are kept no wider than this: they lie under the paper and not in the film. */
const WIDEST_PX = 1280

/** So many pictures are decoded before they are wanted. */
const AHEAD = 8
/** Pictures that one may lag behind while it plays, until all have come once. */
const MOST_LATE = 48

/** A clip that is being looked at: its pictures as they are wanted, decoded behind one's back. */
export function openedClip(clip: FilmClip, bytes: Uint8Array) {
  const worker = clipWorker()
  const remote: Remote<ClipProtocol> = wrap<ClipProtocol>(worker)
  const times = shallowRef<readonly number[]>([])
  const state = ref<'opening' | 'there' | 'broken'>('opening')
  /** goes up whenever another picture has come */
  const come = ref(0)
  const pictures = new LRUCache<number, ImageBitmap>({
    maxSize: MOST_PIXELS,
    sizeCalculation: picture => Math.max(1, picture.width * picture.height),
    dispose: picture => picture.close(),
  })
  const asked = new Set<number>()
  /** what is wanted most is decoded first: the newest wish, and only one at a time */
  let wishes: number[] = []
  let isBusy = false

  remote.open(bytes).then(
    told => {
      times.value = told.times
      state.value = 'there'
      come.value++
    },
    () => (state.value = 'broken'),
  )

  /** What is likely wanted next: the pictures behind the last that was, going on the way one goes. */
  let last = 0
  let way: 1 | -1 = 1
  function ahead(): number | undefined {
    // Backwards each one costs all from the last whole picture on: whoever waits for another one would wait longer.
    if (way < 0) return undefined
    for (let n = 1; n <= AHEAD; n++) {
      const number = last + n
      if (number >= times.value.length) return undefined
      if (!pictures.has(number) && !asked.has(number)) return (asked.add(number), number)
    }
    return undefined
  }

  async function work(): Promise<void> {
    if (isBusy) return
    isBusy = true
    for (let next = wishes.pop() ?? ahead(); next !== undefined; next = wishes.pop() ?? ahead()) {
      const bitmap = await remote.picture(next, WIDEST_PX).catch(() => null)
      asked.delete(next)
      if (!bitmap) continue
      pictures.set(next, bitmap)
      come.value++
    }
    isBusy = false
  }

  return {
    media: clip.media,
    times,
    state,
    come,
    /** A picture by its number, if it is here; else it is asked for, and `come` tells when it is. */
    picture(number: number): ImageBitmap | null {
      if (number !== last) [way, last] = [number < last ? -1 : 1, number]
      const here = pictures.get(number)
      if (here) {
        void work()
        return here
      }
      if (state.value === 'there' && !asked.has(number)) {
        asked.add(number)
        wishes.push(number)
        // What was wished long ago is not looked at any more.
        for (const old of wishes.slice(0, -24)) asked.delete(old)
        wishes = wishes.slice(-24)
        void work()
      }
      return null
    },
    /** The nearest one before a picture that is here, of those just before it: while one plays, better than none. */
    before(number: number): ImageBitmap | null {
      for (let n = number - 1; n >= Math.max(0, number - MOST_LATE); n--) {
        const here = pictures.peek(n)
        if (here) return here
      }
      return null
    },
    /** Looks through it for where it changes. */
    changes: (from: number, to: number, told: (done: number) => void): Promise<Change[]> =>
      remote.changes(from, to, proxy(told)),
    /** Follows what lies at a place through the pictures behind one, on or back. */
    follow: (from: number, to: number, at: Point, told: (found: FoundPlace[]) => boolean): Promise<FollowEnd> =>
      remote.follow(from, to, at, proxy(told)),
    close(): void {
      worker.terminate()
      pictures.clear()
    },
  }
}

export type OpenedClip = ReturnType<typeof openedClip>
