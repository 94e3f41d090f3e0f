import { placedAll } from '@unhurried/core/document'
import { factsOf, isOnTransparency, shapeOf, type Grey, type Inked } from '@unhurried/core/raster'
import { expose } from 'comlink'
import { LRUCache } from 'lru-cache'
import type { MeasureProtocol, StoredPicture } from '../protocols/measure.ts'

/** How opaque a stored picture is; null where it cannot be read. */
async function alphaOf(bytes: Uint8Array): Promise<Grey | null> {
  const bitmap = await createImageBitmap(new Blob([bytes.slice()], { type: 'image/png' })).catch(() => null)
  if (!bitmap) return null
  const { width, height } = bitmap
  const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  brush?.drawImage(bitmap, 0, 0)
  bitmap.close()
  if (!brush) return null
  const { data } = brush.getImageData(0, 0, width, height)
  return { width, height, data: new Uint8Array(width * height).map((_, i) => data[4 * i + 3] as number) }
}

/** Pixels of pictures whose ink is known that are kept: a drawing is measured anew with every stroke, what lies on it stays. */
const MOST_PIXELS = 30_000_000
const known = new LRUCache<string, Grey>({
  maxSize: MOST_PIXELS,
  sizeCalculation: ({ data }) => Math.max(1, data.length),
})

async function inkOf({ id, bytes, matrix, cut }: StoredPicture): Promise<Inked[]> {
  const alpha = known.get(id) ?? (await alphaOf(bytes))
  if (!alpha) return []
  known.set(id, alpha)
  return isOnTransparency(alpha) ? [{ alpha, matrix, cut }] : []
}

const protocol: MeasureProtocol = {
  async measure(strokes, pictures, spaces, closedGapPx) {
    const inks = (await Promise.all(pictures.map(inkOf))).flat()
    const { placed, limbs } = placedAll(strokes)
    return { shape: shapeOf(placed, { spaces, closedGapPx, inks, limbs }), facts: factsOf(placed) }
  },
}

expose(protocol)
