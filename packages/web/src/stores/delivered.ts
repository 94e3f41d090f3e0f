import { clipsToSend, type FilmClip } from '@unhurried/core/document'
import type { Delivered } from '@unhurried/core/measure'
import { defineStore } from 'pinia'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { filmLooker, type Looked } from '../send/looker.ts'
import { useMedia } from './media.ts'
import { useShot } from './shot.ts'

/** Changes come in bursts; the frames are looked at when the hand rests. */
const REST_MS = 500
const BROKEN = 'The frames cannot be looked at here.'

/** The frames of the shot as they are delivered, looked at while a room wants to know. */
export const useDelivered = defineStore('delivered', () => {
  const shot = useShot()
  const media = useMedia()
  const seen = shallowRef<Delivered | null>(null)
  /** null while nothing is looked at */
  const progress = shallowRef<Looked | null>(null)
  /** why nothing is known; empty while it is, or will be */
  const broken = ref('')
  const wanted = ref(0)
  /** whether one's own clips go out under the drawings, and are looked at with them */
  const withClips = ref(false)
  const clips = computed(() => (withClips.value && shot.document ? clipsToSend(shot.document) : []))
  let looker: ReturnType<typeof filmLooker> | null = null
  let round = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  /** Everything that was painted is forgotten with the worker. */
  function end(why = ''): void {
    looker?.end()
    looker = null
    progress.value = null
    broken.value = why
    round++
  }

  async function look(): Promise<void> {
    const { document, take } = shot
    if (!document || !take || wanted.value === 0) return
    const mine = ++round
    const isOff = () => mine !== round
    const bytes = {
      of: shot.strokeBytes,
      ofFilm: (clip: FilmClip) => media.bytesOf(shot.film, clip.media, clip.name),
    }
    looker ??= filmLooker(bytes, () => end(BROKEN))
    try {
      const found = await looker.look(
        document,
        take,
        clips.value,
        shot.book,
        isOff,
        looked => !isOff() && (progress.value = looked),
      )
      if (isOff() || !found) return
      seen.value = found
      broken.value = ''
    } catch {
      if (!isOff()) broken.value = BROKEN
    }
    if (!isOff()) progress.value = null
  }

  function soon(): void {
    clearTimeout(timer)
    timer = setTimeout(() => void look(), REST_MS)
  }
  watch(wanted, soon)
  watch(
    () => {
      const { document, take } = shot
      return [
        document?.drawings,
        document?.layers,
        document?.swatches,
        document?.format,
        document?.thresholds.shown,
        take,
        withClips.value && document?.clips,
      ]
    },
    () => {
      // What nobody looks at any more is not told of what it was before.
      if (wanted.value === 0) seen.value = null
      soon()
    },
  )
  watch(
    () => shot.id,
    () => {
      end()
      seen.value = null
      withClips.value = false
    },
  )
  onScopeDispose(end)

  return {
    seen,
    withClips,
    progress,
    broken,
    /** A room wants to know, until it goes. */
    want(): () => void {
      wanted.value++
      return () => void wanted.value--
    },
  }
})
