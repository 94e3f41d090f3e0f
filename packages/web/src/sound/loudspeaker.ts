import type { Sound } from '@unhurried/core/document'
import type { OpenedSound } from '../protocols/sound.ts'
import { makePlayer, type Audible, type Player } from './player.ts'
import { stretchSound } from './reading.ts'

/** How long one waits for the loudspeaker before the picture goes without. */
const WAKE_MS = 400
/** And how long for recordings to be made slower at their pitch; then they are heard lower this once. */
const SLOW_MS = 1600

const wait = (ms: number) => new Promise<void>(done => setTimeout(done, ms))

/** What recordings are heard by. It wakes with the first that is heard: browsers let nothing be heard before one has pressed something. */
export function makeLoudspeaker(openedOf: (media: string) => OpenedSound | null) {
  let context: AudioContext | null = null
  let player: Player | null = null
  const whole = new Map<string, AudioBuffer>()
  const slowed = new Map<string, Promise<AudioBuffer | null>>()
  const slowedNow = new Map<string, AudioBuffer>()

  function bufferFrom(at: AudioContext, channels: readonly Float32Array[], rate: number): AudioBuffer {
    const made = at.createBuffer(Math.max(1, channels.length), Math.max(1, channels[0]?.length ?? 1), rate)
    channels.forEach((channel, i) => made.copyToChannel(channel as Float32Array<ArrayBuffer>, i))
    return made
  }
  function wholeOf(media: string, at: AudioContext): AudioBuffer | null {
    const opened = openedOf(media)
    const made = whole.get(media) ?? (opened && bufferFrom(at, opened.channels, opened.rate))
    if (made) whole.set(media, made)
    return made
  }
  async function slow(media: string, speed: number, at: AudioContext): Promise<AudioBuffer | null> {
    const opened = openedOf(media)
    const channels = opened && (await stretchSound(opened.channels, opened.rate, 1 / speed))
    return opened && channels ? bufferFrom(at, channels, opened.rate) : null
  }
  /** A recording at a viewing speed, at its own pitch. */
  async function slowedOf(media: string, speed: number, at: AudioContext): Promise<void> {
    const key = `${media} ${speed}`
    const making = slowed.get(key) ?? slow(media, speed, at)
    slowed.set(key, making)
    const made = await making
    if (made) slowedNow.set(key, made)
    else slowed.delete(key)
  }

  const audible = (sounds: readonly Sound[], at: AudioContext, keepPitch: boolean): Audible[] =>
    sounds.flatMap(sound => {
      const buffer = wholeOf(sound.media, at)
      const atSpeed = (speed: number) => (keepPitch && slowedNow.get(`${sound.media} ${speed}`)) || null
      return buffer ? [{ sound, buffer, at: atSpeed }] : []
    })

  /** Awake, or null where there is none. */
  async function wake(): Promise<{ at: AudioContext; by: Player } | null> {
    try {
      context ??= new AudioContext({ latencyHint: 'interactive' })
      player ??= makePlayer(context)
      if (context.state !== 'running') await Promise.race([context.resume(), wait(WAKE_MS)])
      return context.state === 'running' ? { at: context, by: player } : null
    } catch {
      return null
    }
  }

  return {
    wake,
    /** What of sounds can be mixed, without being heard. */
    forMix(sounds: readonly Sound[]): Audible[] {
      const at = (context ??= new AudioContext({ latencyHint: 'interactive' }))
      return audible(sounds, at, false)
    },
    /** What of sounds can be heard at a viewing speed. */
    async ready(sounds: readonly Sound[], at: AudioContext, speed: number, keepPitch: boolean): Promise<Audible[]> {
      if (keepPitch && speed !== 1) {
        await Promise.race([Promise.all(sounds.map(one => slowedOf(one.media, speed, at))), wait(SLOW_MS)])
      }
      return audible(sounds, at, keepPitch)
    },
    audible: (sounds: readonly Sound[], at: AudioContext) => audible(sounds, at, false),
    stop: () => player?.stop(),
    /** seconds of the audio clock; null before it has woken */
    now: () => context?.currentTime ?? null,
  }
}
