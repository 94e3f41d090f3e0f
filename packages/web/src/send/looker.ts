import { assetIds, type Drawing, type FilmClip, type ShotDocument, type Take } from '@unhurried/core/document'
import { thresholdOf, type Delivered } from '@unhurried/core/measure'
import { proxy, wrap } from 'comlink'
import type { StrokeBook } from '../paint/strokes.ts'
import type { DeliveredProtocol, NamedPicture } from '../protocols/delivered.ts'
import { figuresOf, framesOf } from './frames.ts'

/** Pictures that are done, of how many. */
export interface Looked {
  readonly done: number
  readonly of: number
}

/** Where bytes come from: strokes and pictures, which are here, and films of clips, which are fetched. */
export interface Bytes {
  of(id: string): Uint8Array | undefined
  ofFilm(clip: FilmClip): Promise<Uint8Array>
}

/** Looks at the frames of takes as they are sent off, in a worker: every picture once, as long as it stays the same. `broke` is told when the worker dies. */
export function filmLooker(bytes: Bytes, broke: () => void) {
  const worker = new Worker(new URL('../workers/delivered.worker.ts', import.meta.url), { type: 'module' })
  worker.onerror = broke
  const remote = wrap<DeliveredProtocol>(worker)
  const names = new WeakMap<Drawing, number>()
  const sent = new Set<string>()
  let named = 0

  /** The name of a drawing, which the worker knows by then. */
  async function nameOf(drawing: Drawing): Promise<number> {
    const known = names.get(drawing)
    if (known !== undefined) return known
    const fresh = new Map<string, Uint8Array>()
    for (const id of assetIds([{ kind: 'drawing.add', drawing }])) {
      const own = sent.has(id) ? undefined : bytes.of(id)
      if (own) fresh.set(id, own)
    }
    const name = ++named
    await remote.know(name, drawing, fresh)
    for (const id of fresh.keys()) sent.add(id)
    names.set(drawing, name)
    return name
  }

  async function knowFilm(clip: FilmClip): Promise<void> {
    if (sent.has(clip.media)) return
    await remote.knowFilm(clip.media, await bytes.ofFilm(clip))
    sent.add(clip.media)
  }

  return {
    /** What was measured; null when it was called off meanwhile. Rejects when it cannot be looked at. */
    async look(
      document: ShotDocument,
      take: Take,
      clips: readonly FilmClip[],
      book: Pick<StrokeBook, 'boxOf'>,
      isOff: () => boolean,
      told: (looked: Looked) => void,
    ): Promise<Delivered | null> {
      const film = framesOf(document, take, book)
      const of = film.pictures.length
      const pictures: NamedPicture[] = []
      for (const laid of film.pictures) {
        const picture = []
        for (const { drawing, maps } of laid) picture.push({ name: await nameOf(drawing), maps })
        if (isOff()) return null
        pictures.push(picture)
      }
      for (const clip of clips) await knowFilm(clip)
      if (isOff()) return null
      told({ done: 0, of })
      const { format, swatches } = document
      const shownPx = thresholdOf(document, 'shown')
      const figures = figuresOf(document, film, clips.length > 0)
      const order = { format, swatches, pictures, frames: film.frames, loop: take.loop, shownPx, figures, clips }
      return remote.look(
        order,
        proxy((done: number, among: number) => told({ done, of: among })),
      )
    },
    end: () => worker.terminate(),
  }
}
