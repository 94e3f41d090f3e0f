import { keepMedia, mediaHere } from '../local/media.ts'
import type { SmallPort } from './small.ts'

/** Small pictures of a clip lie on this machine beside what was fetched, and leave it with that. */
export function keptSmall(film: string, media: string): Pick<SmallPort, 'kept' | 'keep' | 'unpack' | 'wait'> {
  const id = `${media}:small`
  return {
    kept: async () => (await mediaHere(film, id))?.bytes,
    keep: bytes => keepMedia({ film, id, name: '', bytes, sent: true, at: Date.now() }),
    unpack: picture => createImageBitmap(new Blob([picture.slice()], { type: 'image/jpeg' })),
    wait: ms => new Promise(done => setTimeout(done, ms)),
  }
}
