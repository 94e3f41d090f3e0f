import type { EdgeSeen } from '@unhurried/core/measure'
import { edgeAgainst, type EdgeReading } from '@unhurried/core/raster'
import { LRUCache } from 'lru-cache'
import type { DeliveredOrder } from '../../protocols/delivered.ts'
import { paintedIn, painterOf, type Under } from './known.ts'

/** Pixels on which the outlines of figures are looked at. */
const EDGE_PIXELS = 260_000
/** How figures stand out that are known. */
const known = new LRUCache<string, { readonly reading: EdgeReading | null }>({ max: 2000 })

/** How the figures of an order stand out from their ground, by their drawings: each where it does so least. */
export async function edgesOf(order: DeliveredOrder, under: Under | null): Promise<Map<string, EdgeSeen>> {
  const { format, pictures, frames, figures } = order
  const scale = Math.min(1, Math.sqrt(EDGE_PIXELS / (format.width * format.height)))
  const [width, height] = [format.width, format.height].map(side => Math.max(3, Math.round(side * scale))) as [
    number,
    number,
  ]
  const painter = painterOf(order, width, height)
  const found = new Map<string, EdgeSeen>()
  for (const { drawing, frame, of } of figures) {
    const top = of.at(-1) ?? -1
    const all = (pictures[frames[frame] ?? -1] ?? []).slice(0, top + 1)
    const key = `${paintedIn(order)} ${under?.keyAt(frame) ?? ''} ${JSON.stringify([all, of])}`
    const one = known.get(key) ?? { reading: await read(all, new Set(of), frame) }
    known.set(key, one)
    const { reading } = one
    if (!reading || reading.near <= (found.get(drawing)?.near ?? -1)) continue
    const at = reading.at && { x: reading.at.x / width, y: reading.at.y / height }
    found.set(drawing, { ...reading, at, frame })
  }
  return found

  async function read(all: (typeof pictures)[number], own: ReadonlySet<number>, frame: number) {
    const figure = await painter.painted(
      all.filter((_, i) => own.has(i)),
      null,
    )
    const ground = await painter.painted(
      all.filter((_, i) => !own.has(i)),
      { under, frame },
    )
    return edgeAgainst(figure, ground, width, height)
  }
}
