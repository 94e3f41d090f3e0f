import type { Sound } from '@unhurried/core/document'
import { markRaw, shallowReactive } from 'vue'
import { openSound, type OpenedSound } from './reading.ts'

/** What is known of a recording here: that it is being opened, what is wrong with it, or itself. */
export type Heard =
  | { readonly state: 'opening' }
  | { readonly state: 'missing'; readonly why: string }
  | { readonly state: 'there'; readonly opened: OpenedSound }

/** Recordings of a shot, unpacked once each. `bytesOf` fetches one. */
export function makeOpened(bytesOf: (sound: Sound) => Promise<Uint8Array>) {
  const heard = shallowReactive(new Map<string, Heard>())

  async function open(sound: Sound): Promise<void> {
    const { media } = sound
    heard.set(media, { state: 'opening' })
    const bytes = await bytesOf(sound).catch(() => null)
    const opened = bytes && (await openSound(bytes))
    if (opened) heard.set(media, { state: 'there', opened: markRaw(opened) })
    else heard.set(media, { state: 'missing', why: bytes ? 'cannot be read here' : 'has not arrived yet' })
  }

  return {
    heard,
    /** Opens those that are not known yet; those that were missing once more, if asked. */
    want(sounds: readonly Sound[], again = false): void {
      for (const sound of sounds) {
        const known = heard.get(sound.media)
        if (!known || (again && known.state === 'missing')) void open(sound)
      }
    },
    /** Lets go of all that are not among these: minutes of sound fill a memory. */
    keepOnly(sounds: readonly Sound[]): void {
      const wanted = new Set(sounds.map(sound => sound.media))
      for (const media of [...heard.keys()]) if (!wanted.has(media)) heard.delete(media)
    },
    of(media: string): OpenedSound | null {
      const found = heard.get(media)
      return found?.state === 'there' ? found.opened : null
    },
  }
}

export type Opened = ReturnType<typeof makeOpened>
