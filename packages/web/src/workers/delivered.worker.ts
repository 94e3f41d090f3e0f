import type { Drawing } from '@unhurried/core/document'
import { deliveredFrames } from '@unhurried/core/measure'
import type { Matrix } from '@unhurried/core/geometry'
import { cellsOf, edgeAgainst, flashGrid, type Cells, type EdgeReading } from '@unhurried/core/raster'
import { expose } from 'comlink'
import { LRUCache } from 'lru-cache'
import { coloursOf } from '../paint/colours.ts'
import { strokeBook } from '../paint/strokes.ts'
import { paintLaid, type LaidDrawing } from '../send/pictures.ts'
import type { DeliveredOrder, DeliveredProtocol, NamedPicture } from '../protocols/delivered.ts'

/** Bytes of pictures whose light is known that are kept: about three hundred. */
const MOST_BYTES = 96 * 1024 * 1024

const samples = new Map<string, Uint8Array>()
const book = strokeBook({ bytes: id => samples.get(id) })
const drawings = new Map<number, Drawing>()
const known = new LRUCache<string, Cells>({ maxSize: MOST_BYTES, sizeCalculation: cells => cells.byteLength })

/** Pixels on which the outlines of figures are looked at. */
const EDGE_PIXELS = 260_000
/** How figures stand out that are known. */
const edges = new LRUCache<string, { readonly reading: EdgeReading | null }>({ max: 2000 })

const laidOf = (picture: NamedPicture): LaidDrawing[] =>
  picture.flatMap(({ name, maps }) => {
    const drawing = drawings.get(name)
    return drawing ? [{ drawing, maps }] : []
  })

/** What an order's pictures are painted in, as a text. */
const paintedIn = ({ format, swatches, shownPx }: DeliveredOrder): string =>
  JSON.stringify([format.width, format.height, format.paper, swatches, shownPx])

const brushOf = (width: number, height: number): OffscreenCanvasRenderingContext2D => {
  const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Error('this browser gives no canvas to draw on')
  return brush
}

/** How the figures of an order stand out from their ground, by their drawings. */
async function edgesOf(order: DeliveredOrder): Promise<Map<string, EdgeReading>> {
  const { format, swatches, pictures, figures } = order
  const scale = Math.min(1, Math.sqrt(EDGE_PIXELS / (format.width * format.height)))
  const [width, height] = [
    Math.max(3, Math.round(format.width * scale)),
    Math.max(3, Math.round(format.height * scale)),
  ]
  const base: Matrix = [width / format.width, 0, 0, height / format.height, 0, 0]
  const brush = brushOf(width, height)
  const colours = coloursOf(swatches, false)
  const found = new Map<string, EdgeReading>()
  for (const { drawing, picture, of } of figures) {
    const all = pictures[picture] ?? []
    const top = of.at(-1) ?? -1
    const key = `${paintedIn(order)} ${JSON.stringify([all.slice(0, top + 1), of])}`
    const known = edges.get(key) ?? { reading: await read(all, new Set(of), top) }
    edges.set(key, known)
    const { reading } = known
    if (reading) {
      const at = reading.at && { x: reading.at.x / width, y: reading.at.y / height }
      found.set(drawing, { ...reading, at })
    }
  }
  return found

  async function read(all: NamedPicture, own: ReadonlySet<number>, top: number): Promise<EdgeReading | null> {
    const [figure, ground] = [
      laidOf(all.filter((_, i) => own.has(i))),
      laidOf(all.filter((_, i) => i < top && !own.has(i))),
    ]
    await book.ready([...figure, ...ground].map(one => one.drawing))
    const painted = (paper: string | null, laid: readonly LaidDrawing[]) => {
      brush.setTransform(1, 0, 0, 1, 0, 0)
      brush.clearRect(0, 0, width, height)
      if (paper !== null) {
        brush.fillStyle = paper
        brush.fillRect(0, 0, width, height)
      }
      paintLaid(brush, base, laid, colours, book)
      return brush.getImageData(0, 0, width, height).data
    }
    return edgeAgainst(painted(null, figure), painted(format.paper, ground), width, height)
  }
}

/** Paints the pictures of an order that are not known yet, and answers with the light of all. */
async function lightOf(order: DeliveredOrder, told: (painted: number) => void): Promise<Cells[]> {
  const { format, swatches, pictures, shownPx } = order
  const grid = flashGrid(format.width, format.height, shownPx)
  const brush = brushOf(grid.widthPx, grid.heightPx)
  const colours = coloursOf(swatches, false)
  const all: Cells[] = []
  for (const [i, picture] of pictures.entries()) {
    const key = `${paintedIn(order)} ${JSON.stringify(picture)}`
    const cells =
      known.get(key) ??
      cellsOf(await painted(picture).then(() => brush.getImageData(0, 0, grid.widthPx, grid.heightPx).data), grid)
    known.set(key, cells)
    all.push(cells)
    if (i % 8 === 7) told(i + 1)
  }
  return all

  async function painted(picture: NamedPicture): Promise<void> {
    const laid = laidOf(picture)
    await book.ready(laid.map(({ drawing }) => drawing))
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
    const grid = flashGrid(format.width, format.height, shownPx)
    return { ...deliveredFrames(frames, cells, grid, format.fps, loop), edges: await edgesOf(order) }
  },
}

expose(protocol)
