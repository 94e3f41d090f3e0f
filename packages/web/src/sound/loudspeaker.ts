import type { Sound } from '@unhurried/core/document'
import { makePlayer, type Audible, type Player } from './player.ts'
import { stretchSound, type OpenedSound } from './reading.ts'

/** How long one waits for the loudspeaker before the picture goes without. */
const WAKE_MS = 400
/** And how long for recordings to be made slower at their pitch; then they are heard lower this once. */
const SLOW_MS = 1600

const wait = (ms: number) => new Promise<void>(done => setTimeout(done, ms))

/** What recordings are heard by. It wakes with the first that is heard: browsers let nothing be heard before one has pressed something. */
export function makeLoudspeaker(openedOf: (media: string) => OpenedSound | null) {
  let context: AudioContext | null = null
  let player: Player | null = null
  const slowed = new Map<string, Promise<AudioBuffer | null>>()
  const slowedNow = new Map<string, AudioBuffer>()

  async function slow(media: string, speed: number): Promise<AudioBuffer | null> {
    const opened = openedOf(media)
    return opened && stretchSound(opened.buffer, 1 / speed)
  }
  /** A recording at a viewing speed, at its own pitch. */
  async function slowedOf(media: string, speed: number): Promise<void> {
    const key = `${media} ${speed}`
    const making = slowed.get(key) ?? slow(media, speed)
    slowed.set(key, making)
    const made = await making
    if (made) slowedNow.set(key, made)
    else slowed.delete(key)
  }

  const audible = (sounds: readonly Sound[], keepPitch: boolean): Audible[] =>
    sounds.flatMap(sound => {
      const buffer = openedOf(sound.media)?.buffer
      const atSpeed = (speed: number) => (keepPitch && slowedNow.get(`${sound.media} ${speed}`)) || null
      return buffer ? [{ sound, buffer, at: atSpeed }] : []
    })

  /** Awake, or null where there is none. */
  async function wake(): Promise<Player | null> {
    try {
      context ??= new AudioContext({ latencyHint: 'interactive' })
      player ??= makePlayer(context)
      if (context.state !== 'running') await Promise.race([context.resume(), wait(WAKE_MS)])
      return context.state === 'running' ? player : null
    } catch {
      return null
    }
  }

  return {
    wake,
    /** What of sounds can be heard at a viewing speed. */
    async ready(sounds: readonly Sound[], speed: number, keepPitch: boolean): Promise<Audible[]> {
      if (keepPitch && speed !== 1) {
        await Promise.race([Promise.all(sounds.map(one => slowedOf(one.media, speed))), wait(SLOW_MS)])
      }
      return audible(sounds, keepPitch)
    },
    audible: (sounds: readonly Sound[]) => audible(sounds, false),
    stop: () => player?.stop(),
    /** Lets go of what was made slower. */
    forget(): void {
      slowed.clear()
      slowedNow.clear()
    },
    /** seconds of the audio clock; null before it has woken */
    now: () => context?.currentTime ?? null,
  }
}
