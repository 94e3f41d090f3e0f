import { cellsOf, flashGrid, type Cells } from '@unhurried/core/raster'
import { LRUCache } from 'lru-cache'
import type { DeliveredOrder } from '../../protocols/delivered.ts'
import { paintedIn, painterOf, type Under } from './known.ts'

/** Bytes of pictures whose light is known that are kept: about three hundred. */
const MOST_BYTES = 96 * 1024 * 1024
const known = new LRUCache<string, Cells>({ maxSize: MOST_BYTES, sizeCalculation: cells => cells.byteLength })

/** The light of a film: of each different picture, and the number of its picture for every frame. */
export interface FilmLight {
  readonly pictures: readonly Cells[]
  readonly frames: readonly number[]
}

/** Paints the pictures of an order that are not known yet; what lies under the drawings makes more of them. */
export async function lightOf(
  order: DeliveredOrder,
  under: Under | null,
  told: (painted: number, of: number) => void,
): Promise<FilmLight> {
  const { format, shownPx } = order
  const grid = flashGrid(format.width, format.height, shownPx)
  const painter = painterOf(order, grid.widthPx, grid.heightPx)
  const numbers = new Map<string, number>()
  const first: { readonly picture: number; readonly frame: number; readonly beneath: string }[] = []
  const frames = order.frames.map((picture, frame) => {
    const beneath = under?.keyAt(frame) ?? ''
    const key = `${picture} ${beneath}`
    const number = numbers.get(key) ?? first.length
    if (number === first.length) {
      numbers.set(key, number)
      first.push({ picture, frame, beneath })
    }
    return number
  })
  const pictures: Cells[] = []
  for (const [i, { picture, frame, beneath }] of first.entries()) {
    const laid = order.pictures[picture] ?? []
    const key = `${paintedIn(order)} ${beneath} ${JSON.stringify(laid)}`
    const cells = known.get(key) ?? cellsOf(await painter.painted(laid, { under, frame }), grid)
    known.set(key, cells)
    pictures.push(cells)
    if (i % 8 === 7) told(i + 1, first.length)
  }
  return { pictures, frames }
}
