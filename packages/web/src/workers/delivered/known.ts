import type { Drawing, FilmClip } from '@unhurried/core/document'
import type { Matrix } from '@unhurried/core/geometry'
import { coloursOf } from '../../paint/colours.ts'
import { strokeBook } from '../../paint/strokes.ts'
import type { DeliveredOrder, NamedPicture } from '../../protocols/delivered.ts'
import { paintLaid, type LaidDrawing } from '../../send/pictures.ts'
import { sentClips } from '../sentClips.ts'

/** What the worker was told of: drawings by their names, the strokes of all of them, and films of clips. */
const samples = new Map<string, Uint8Array>()
const book = strokeBook({ bytes: id => samples.get(id) })
const drawings = new Map<number, Drawing>()
const films = new Map<string, Uint8Array>()

export function knowDrawing(name: number, drawing: Drawing, strokes: ReadonlyMap<string, Uint8Array>): void {
  for (const [id, bytes] of strokes) samples.set(id, bytes)
  drawings.set(name, drawing)
}
export const knowFilm = (media: string, bytes: Uint8Array): void => void films.set(media, bytes)

/** What lies under the drawings of a frame: as a text that tells it from other frames, and how it is painted. */
export type Under = Awaited<ReturnType<typeof sentClips>>

/** The clips that were opened last: they stay, as long as they lie as they lay. */
let opened: { readonly key: string; readonly under: Under } | null = null

/** What of an order’s clips lies under its frames; null where it has none. */
export async function underOf({ clips, format }: DeliveredOrder): Promise<Under | null> {
  if (clips.length === 0) return null
  const key = JSON.stringify([clips, format.fps])
  if (opened?.key === key) return opened.under
  const sent = clips.flatMap((clip: FilmClip) => {
    const bytes = films.get(clip.media)
    return bytes ? [{ clip, bytes }] : []
  })
  const under = await sentClips(sent, format.fps)
  opened = { key, under }
  return under
}

/** What an order's pictures are painted in, as a text. */
export const paintedIn = ({ format, swatches, shownPx, clips }: DeliveredOrder): string =>
  JSON.stringify([format.width, format.height, format.paper, swatches, shownPx, clips])

const laidOf = (picture: NamedPicture): LaidDrawing[] =>
  picture.flatMap(({ name, maps }) => {
    const drawing = drawings.get(name)
    return drawing ? [{ drawing, maps }] : []
  })

/** Something to paint on, and how an order’s pictures are painted there. */
export function painterOf({ format, swatches }: DeliveredOrder, width: number, height: number) {
  const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Error('this browser gives no canvas to draw on')
  const base: Matrix = [width / format.width, 0, 0, height / format.height, 0, 0]
  const colours = coloursOf(swatches, false)
  return {
    /** The bytes of a picture: on its paper with what lies under it (`under` of a frame), or on nothing. */
    async painted(
      picture: NamedPicture,
      on: { readonly under: Under | null; readonly frame: number } | null,
    ): Promise<Uint8ClampedArray> {
      const laid = laidOf(picture)
      await book.ready(laid.map(({ drawing }) => drawing))
      const beneath = await on?.under?.at(on.frame)
      brush.setTransform(1, 0, 0, 1, 0, 0)
      brush.clearRect(0, 0, width, height)
      if (on) {
        brush.fillStyle = format.paper
        brush.fillRect(0, 0, width, height)
        beneath?.(brush, base)
      }
      paintLaid(brush, base, laid, colours, book)
      return brush.getImageData(0, 0, width, height).data
    },
  }
}
