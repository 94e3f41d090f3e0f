import type { FilmClip } from '@unhurried/core/document'
import { pictureAt, type Change } from '@unhurried/core/clip'
import type { Point } from '@unhurried/core/geometry'
import { proxy, wrap, type Remote } from 'comlink'
import { ref, shallowRef } from 'vue'
import type { ClipProtocol, FollowEnd, FoundPlace } from '../protocols/clip.ts'
import { keptSmall } from './keptSmall.ts'
import { largePictures } from './large.ts'
import { clipWorker } from './packing.ts'
import { smallPictures, SMALL_WIDTH, type SmallPictures } from './small.ts'

/** Pictures are kept no wider than this: they lie under the paper and not in the film. */
const WIDEST_PX = 1280
/** Where a small picture stands in, the large one is decoded once one has stayed for so long: whoever goes over a clip does not wait for it. */
const STAYED_MS = 90
/** What is looked for within so long is looked at together: on the paper, and in windows beside it. */
const TOGETHER_MS = 45
/** So many pictures are waited for at a time: one on the paper, and one in each window beside it. */
const MOST_MISSED = 8

/** A clip of a film that is being looked at: its pictures as they are wanted, decoded behind one's back. */
export function openedClip(film: string, clip: FilmClip, bytes: Uint8Array) {
  const worker = clipWorker()
  const remote: Remote<ClipProtocol> = wrap<ClipProtocol>(worker)
  const times = shallowRef<readonly number[]>([])
  const state = ref<'opening' | 'there' | 'broken'>('opening')
  /** goes up whenever a picture has come that somebody looked for */
  const come = ref(0)
  let small: SmallPictures | null = null
  let wantedAt = performance.now()
  let stay: ReturnType<typeof setTimeout> | undefined
  let passed: readonly { readonly number: number; readonly at: number }[] = []
  /** The large pictures of where one stays; of what one goes over, none. */
  function wishIfStayed(number: number): void {
    const now = performance.now()
    passed = [...passed.filter(({ at }) => now - at < TOGETHER_MS), { number, at: now }]
    clearTimeout(stay)
    stay = setTimeout(() => passed.forEach(one => large.wish(one.number)), STAYED_MS)
  }

  /** What was looked for in vain, the newest; what only comes ahead of being wanted is nobody's business. */
  let missed: readonly number[] = []
  function arrived(number: number): void {
    if (missed.includes(number)) come.value++
  }
  const large = largePictures({
    count: () => times.value.length,
    decode: number => remote.picture(number, WIDEST_PX),
    arrived,
  })

  remote.open(bytes).then(
    told => {
      times.value = told.times
      state.value = 'there'
      come.value++
      if (clip.widthPx <= SMALL_WIDTH) return
      small = smallPictures(told.times.length, {
        ...keptSmall(film, clip.media),
        make: (from, to) => remote.small(from, to, SMALL_WIDTH),
        idleMs: () => performance.now() - wantedAt,
        come: arrived,
      })
    },
    () => (state.value = 'broken'),
  )

  /** What is gone to from a picture: the ones beside it, and those a second on and back. */
  function nextTo(number: number): number[] {
    const now = times.value[number] ?? 0
    const at = (moment: number) => pictureAt(times.value, moment) ?? 0
    return [number + 1, number - 1, at(now + 1), at(now - 1)]
  }

  return {
    media: clip.media,
    times,
    state,
    come,
    /** A picture by its number, if it is here, or a small one; else it is asked for, and `come` tells when it is. */
    picture(number: number, playing = false): ImageBitmap | null {
      if (large.goTo(number)) wantedAt = performance.now()
      const here = large.here(number)
      if (here) {
        // Whoever goes over a clip by small pictures is not kept waiting by large ones.
        if (playing || !small?.has(number + 1)) large.goOn()
        return here
      }
      if (!missed.includes(number)) missed = [...missed.slice(1 - MOST_MISSED), number]
      if (playing || !small?.has(number)) {
        large.wish(number)
        return small?.picture(number) ?? null
      }
      small.ready(nextTo(number))
      wishIfStayed(number)
      return small.picture(number)
    },
    /** The nearest one before a picture that is here, of those just before it: while one plays, better than none. */
    before: large.before,
    /** Looks through it for where it changes. */
    changes: (from: number, to: number, told: (done: number) => void): Promise<Change[]> =>
      remote.changes(from, to, proxy(told)),
    /** Follows what lies at a place through the pictures behind one, on or back. */
    follow: (from: number, to: number, at: Point, told: (found: FoundPlace[]) => boolean): Promise<FollowEnd> =>
      remote.follow(from, to, at, proxy(told)),
    close(): void {
      clearTimeout(stay)
      small?.close()
      worker.terminate()
      large.close()
    },
  }
}

export type OpenedClip = ReturnType<typeof openedClip>
