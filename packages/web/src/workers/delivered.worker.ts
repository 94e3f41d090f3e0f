import type { Drawing } from '@unhurried/core/document'
import { deliveredFrames } from '@unhurried/core/measure'
import { cellsOf, flashGrid, type Cells } from '@unhurried/core/raster'
import { expose } from 'comlink'
import { LRUCache } from 'lru-cache'
import { coloursOf } from '../paint/colours.ts'
import { strokeBook } from '../paint/strokes.ts'
import { paintLaid } from '../send/pictures.ts'
import type { DeliveredOrder, DeliveredProtocol, NamedPicture } from '../protocols/delivered.ts'

/** Bytes of pictures whose light is known that are kept: about three hundred. */
const MOST_BYTES = 96 * 1024 * 1024

const samples = new Map<string, Uint8Array>()
const book = strokeBook({ bytes: id => samples.get(id) })
const drawings = new Map<number, Drawing>()
const known = new LRUCache<string, Cells>({ maxSize: MOST_BYTES, sizeCalculation: cells => cells.byteLength })

/** Paints the pictures of an order that are not known yet, and answers with the light of all. */
async function lightOf(order: DeliveredOrder, told: (painted: number) => void): Promise<Cells[]> {
  const { format, swatches, pictures, shownPx } = order
  const grid = flashGrid(format.width, format.height, shownPx)
  const brush = new OffscreenCanvas(grid.widthPx, grid.heightPx).getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Error('this browser gives no canvas to draw on')
  const colours = coloursOf(swatches, false)
  const paintedIn = JSON.stringify([format.width, format.height, format.paper, swatches, shownPx])
  const all: Cells[] = []
  for (const [i, picture] of pictures.entries()) {
    const key = `${paintedIn} ${JSON.stringify(picture)}`
    const cells =
      known.get(key) ??
      cellsOf(await painted(picture).then(() => brush.getImageData(0, 0, grid.widthPx, grid.heightPx).data), grid)
    known.set(key, cells)
    all.push(cells)
    if (i % 8 === 7) told(i + 1)
  }
  return all

  async function painted(picture: NamedPicture): Promise<void> {
    const laid = picture.flatMap(({ name, maps }) => {
      const drawing = drawings.get(name)
      return drawing ? [{ drawing, maps }] : []
    })
    await book.ready(laid.map(({ drawing }) => drawing))
    if (!brush) return
    brush.setTransform(1, 0, 0, 1, 0, 0)
    brush.fillStyle = format.paper
    brush.fillRect(0, 0, grid.widthPx, grid.heightPx)
    paintLaid(brush, [grid.widthPx / format.width, 0, 0, grid.heightPx / format.height, 0, 0], laid, colours, book)
  }
}

const protocol: DeliveredProtocol = {
  async know(name, drawing, strokes) {
    for (const [id, bytes] of strokes) samples.set(id, bytes)
    drawings.set(name, drawing)
  },
  async look(order, told) {
    const { format, frames, loop, shownPx } = order
    const cells = await lightOf(order, told)
    return deliveredFrames(frames, cells, flashGrid(format.width, format.height, shownPx), format.fps, loop)
  },
}

expose(protocol)
