import { assetIds, isBlank, strokesOn, type Drawing } from '@unhurried/core/document'
import { EMPTY_BOX, type Box } from '@unhurried/core/geometry'
import { LRUCache } from 'lru-cache'
import { shallowRef } from 'vue'
import type { BitmapShelf, Look } from '../paint/bitmaps.ts'
import type { Colours } from '../paint/colours.ts'
import type { Brush } from '../paint/nibs.ts'
import { withDeadline, type WorkerLike } from './deadline.ts'
import type { DrawingOrder, DrawnPicture, PictureOrder, PicturePart } from '../protocols/pictures.ts'

/** One drawing takes some milliseconds; one that takes this long is not waited for. */
const DEADLINE_MS = 4000
const MOST_BYTES = 480 * 1024 * 1024

type Entry =
  | { readonly kind: 'painted'; readonly picture: DrawnPicture; readonly bytes: number }
  /** under way; or given up, and a plain sheet in its place */
  | { readonly kind: 'coming' | 'plain'; readonly bytes: 0 }

/**
 * Painted drawings like those of the desk, but painted in a worker within a deadline: for rooms that show whole films.
 * What is not painted yet is not drawn; `painted` changes when more is.
 */
export function remoteShelf(
  make: () => WorkerLike,
  bytesOf: (id: string) => Uint8Array | undefined,
  deadlineMs = DEADLINE_MS,
): BitmapShelf & { close(): void } {
  const line = withDeadline<PictureOrder, PicturePart>(make, deadlineMs)
  const shelf = new LRUCache<string, Entry>({
    maxSize: MOST_BYTES,
    sizeCalculation: ({ bytes }) => Math.max(1, bytes),
    dispose: entry => entry.kind === 'painted' && entry.picture.bitmap.close(),
  })
  const boxes = new WeakMap<Drawing, Box>()
  const names = new WeakMap<Drawing | Colours, number>()
  const painted = shallowRef(0)
  let sent = new Set<string>()
  let sentIn = 0
  let named = 0
  let closed = false

  function nameOf(thing: Drawing | Colours): number {
    const name = names.get(thing) ?? ++named
    names.set(thing, name)
    return name
  }

  function keyOf(drawing: Drawing, look: Look, scale: number): string {
    const paintedIn = look.kind === 'drawn' ? nameOf(look.colours) : look.colour
    return `${nameOf(drawing)} ${look.kind} ${paintedIn} ${scale.toFixed(4)}`
  }

  /** Made when its turn comes: by then it is known what the worker has. */
  function orderFor(drawing: Drawing, look: Look, scale: number): DrawingOrder {
    if (sentIn !== line.generation()) sent = new Set()
    sentIn = line.generation()
    const samples = new Map<string, Uint8Array>()
    for (const id of assetIds([{ kind: 'drawing.add', drawing }])) {
      const own = sent.has(id) ? undefined : bytesOf(id)
      if (!own) continue
      samples.set(id, own)
      sent.add(id)
    }
    const seen: DrawingOrder['look'] =
      look.kind === 'drawn'
        ? { kind: 'drawn', colours: Object.fromEntries(strokesOn(drawing).map(e => [e.id, look.colours(e)])) }
        : { kind: look.kind, colour: look.colour }
    return { kind: 'drawing', drawing, look: seen, scale, samples }
  }

  async function ask(key: string, drawing: Drawing, look: Look, scale: number): Promise<void> {
    shelf.set(key, { kind: 'coming', bytes: 0 })
    try {
      await line.run(
        () => orderFor(drawing, look, scale),
        part => {
          if (part.kind !== 'drawn') return
          boxes.set(drawing, boxOf(part))
          shelf.set(key, { kind: 'painted', picture: part, bytes: part.bitmap.width * part.bitmap.height * 4 })
        },
      )
    } catch {
      shelf.set(key, { kind: 'plain', bytes: 0 })
    }
    if (!closed) painted.value++
  }

  function find(drawing: Drawing, look: Look, scale: number): Entry {
    const key = keyOf(drawing, look, scale)
    if (!shelf.has(key)) void ask(key, drawing, look, scale)
    return shelf.get(key) as Entry
  }

  return {
    painted,
    boxOf: drawing => boxes.get(drawing) ?? EMPTY_BOX,
    // A blank sheet is painted by leaving it alone.
    isReady: (drawing, look, scale) => isBlank(drawing) || find(drawing, look, scale).kind !== 'coming',
    draw(brush, drawing, look, scale) {
      if (isBlank(drawing)) return
      const entry = find(drawing, look, scale)
      if (entry.kind === 'plain') return layPlain(brush, drawing, scale)
      if (entry.kind !== 'painted') return
      const { bitmap, left, top, scale: at } = entry.picture
      brush.drawImage(bitmap, left, top, bitmap.width / at, bitmap.height / at)
    },
    close() {
      closed = true
      line.end()
    },
  }
}

/** In place of a drawing that cannot be painted in time: a word about it, on the paper. */
function layPlain(brush: Brush, { number }: Drawing, scale: number): void {
  brush.save()
  brush.fillStyle = '#746c5e'
  brush.font = `${13 / scale}px "Atkinson Hyperlegible", sans-serif`
  brush.fillText(`drawing ${number} is too much to be painted here`, 14 / scale, 26 / scale)
  brush.restore()
}

/** What a painted picture covers, in pixels of the drawing. */
const boxOf = ({ bitmap, left, top, scale }: DrawnPicture): Box => ({
  left,
  top,
  right: left + bitmap.width / scale,
  bottom: top + bitmap.height / scale,
})
