import { soundsInOrder, type Sound } from '@unhurried/core/document'
import { onsetsOf, swing, tempoOf, type Onset, type Tempo } from '@unhurried/core/sound'
import type { LoopRange } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { makeLoudspeaker } from '../sound/loudspeaker.ts'
import type { Mix } from '../protocols/sound.ts'
import { mixedSound } from '../sound/mix.ts'
import { makeOpened } from '../sound/opened.ts'
import { useMedia } from './media.ts'
import { keepSettings, readSettings } from './settings.ts'
import { useShot } from './shot.ts'

/** The sounds of the shot, opened as soon as it lies on the desk: what they look like, and how they are heard. */
export const useSound = defineStore('sound', () => {
  const shot = useShot()
  const media = useMedia()
  const opened = makeOpened(sound => media.bytesOf(shot.film, sound.media, sound.name))
  const loud = makeLoudspeaker(opened.of)
  const on = ref(readSettings().sound.on)
  const keepPitch = ref(readSettings().sound.keepPitch)
  watch([on, keepPitch], () => keepSettings({ sound: { on: on.value, keepPitch: keepPitch.value } }))

  const sounds = computed<Sound[]>(() => (shot.document ? soundsInOrder(shot.document) : []))
  const fps = computed(() => shot.document?.format.fps ?? 24)
  watch([sounds, () => shot.film], () => shot.film && opened.want(sounds.value), { immediate: true })
  // With another shot what was heard in the one before goes.
  watch(
    () => shot.id,
    () => {
      loud.stop()
      loud.forget()
      opened.keepOnly(sounds.value)
    },
  )
  // What another desk was still sending is asked for again, when this one is looked at again.
  globalThis.addEventListener?.('focus', () => opened.want(sounds.value, true))

  /** How far a sound swings from one frame (from 0) up to another, −1 … 1; as loud as it is laid. */
  function swingOn(sound: Sound, from: number, to: number): readonly [number, number] {
    const peaks = opened.of(sound.media)?.peaks
    const start = Math.max(0, from - sound.from) / fps.value
    const end = Math.min(sound.use, (to - sound.from) / fps.value)
    if (!peaks || end <= start) return [0, 0]
    const [low, high] = swing(peaks, sound.skip + start, sound.skip + end)
    return [low * sound.gain, high * sound.gain]
  }

  const isHeard = computed(() => on.value && sounds.value.some(sound => !sound.muted && sound.gain > 0))
  /** only the newest of what was asked to be heard is */
  let asked = 0

  /** Begins to be heard; answers with the clock the picture goes by, or nothing where nothing is heard. */
  async function play(
    from: number,
    range: LoopRange,
    speed: number,
    round: boolean,
    which: readonly Sound[] = sounds.value,
  ): Promise<(() => number) | undefined> {
    const mine = ++asked
    const awake = isHeard.value ? await loud.wake() : null
    if (!awake) return undefined
    const ready = await loud.ready(which, speed, keepPitch.value)
    if (mine !== asked) return undefined
    const first = from >= range.from && from < range.to - (round ? 0 : 1) ? from : range.from
    return awake.start(ready, { from: first, range, fps: fps.value, speed, round })
  }
  /** Lets one frame be heard. */
  async function scrub(frame: number): Promise<void> {
    const mine = ++asked
    const awake = isHeard.value ? await loud.wake() : null
    if (awake && mine === asked) awake.scrub(loud.audible(sounds.value), frame, fps.value)
  }
  function stop(): void {
    asked++
    loud.stop()
  }

  return {
    sounds,
    heard: opened.heard,
    on,
    keepPitch,
    isHeard,
    swingOn,
    play,
    scrub,
    stop,
    now: loud.now,
    /** What one's own sounds amount to over some frames of the shot; null where nothing is heard. */
    mixOfOwn: (range: LoopRange): Promise<Mix | null> =>
      mixedSound(loud.audible(sounds.value.filter(one => one.mine)), fps.value, range),
    /** Where a recording sets in, by how much is listened for (0–1); in seconds of the recording. */
    onsets: (id: string, sensitivity: number): Onset[] => {
      const flux = opened.of(id)?.flux
      return flux ? onsetsOf(flux, sensitivity) : []
    },
    tempo: (id: string): Tempo | null => {
      const flux = opened.of(id)?.flux
      return flux ? tempoOf(flux) : null
    },
  }
})
