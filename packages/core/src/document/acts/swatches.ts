import { coloursApart } from '../../colour/plain.ts'
import { shifted, type ColourShift } from '../../colour/shift.ts'
import { LIMITS, type ShotDocument, type Swatch } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { swatchOf } from '../elements/table.ts'
import { swatchesInOrder } from '../model/selectors.ts'

/** A new colour at the end of the palette strip. */
export function addSwatch(document: ShotDocument, id: string, colour: string, name?: string): Operation[] {
  const all = Object.values(document.swatches)
  const order = Math.max(-1, ...all.map(swatch => swatch.order), all.length - 1) + 1
  return [{ kind: 'swatch.add', swatch: { id, name: name ?? `colour ${all.length + 1}`, colour, order } }]
}

/**
 * A place on the palette for each of some colours (#rrggbb): the one there is, or a new one, `most` of those; what is more takes the nearest of all. The operations, and which swatch stands for each.
 */
export function swatchesFor(
  document: ShotDocument,
  colours: readonly string[],
  most: number,
  newId: () => string,
): { readonly ops: Operation[]; readonly swatchOf: ReadonlyMap<string, string> } {
  const all: Pick<Swatch, 'id' | 'colour'>[] = Object.values(document.swatches)
  const ops: Operation[] = []
  const found = new Map<string, string>()
  const room = Math.min(most, LIMITS.swatches - all.length)
  let order = Math.max(-1, ...Object.values(document.swatches).map(swatch => swatch.order), all.length - 1)
  for (const colour of new Set(colours)) {
    const there = all.find(swatch => swatch.colour === colour)
    if (there || ops.length >= room) {
      const nearest =
        there ??
        all.reduce((best, one) => (coloursApart(one.colour, colour) < coloursApart(best.colour, colour) ? one : best))
      found.set(colour, nearest.id)
      continue
    }
    const id = newId()
    ops.push({ kind: 'swatch.add', swatch: { id, name: `colour ${all.length + 1}`, colour, order: ++order } })
    all.push({ id, colour })
    found.set(colour, id)
  }
  return { ops, swatchOf: found }
}

/** Names a colour, or mixes it anew. */
export const changeSwatch = (id: string, patch: Partial<Omit<Swatch, 'id'>>): Operation[] => [
  { kind: 'swatch.set', id, patch },
]

/** Several colours that much lighter, stronger and further round, together; strokes in them follow. Those that stay as they are, are left out. */
export const shiftSwatches = (document: ShotDocument, ids: readonly string[], by: ColourShift): Operation[] =>
  ids.flatMap((id): Operation[] => {
    const before = document.swatches[id]?.colour
    const colour = before && shifted(before, by)
    return colour && colour !== before ? [{ kind: 'swatch.set', id, patch: { colour } }] : []
  })

/** How many strokes are in a colour. */
export const strokesIn = (document: ShotDocument, swatch: string): number =>
  Object.values(document.drawings).reduce(
    (sum, drawing) => sum + Object.values(drawing.elements).filter(element => swatchOf(element) === swatch).length,
    0,
  )

/** Operations that take a colour off the palette; strokes in it take on another. */
export function replaceSwatch(document: ShotDocument, swatch: string, by: string): Operation[] {
  const recoloured = Object.values(document.drawings).flatMap((drawing): Operation[] => {
    const changes = Object.values(drawing.elements)
      .filter(element => swatchOf(element) === swatch)
      .map(element => ({ id: element.id, patch: { swatch: by } }))
    return changes.length ? [{ kind: 'elements.set', drawing: drawing.id, changes }] : []
  })
  return [...recoloured, { kind: 'swatch.remove', id: swatch }]
}

/** Operations that move a colour by one place on the palette strip; all colours get places of their own. */
export function moveSwatch(document: ShotDocument, swatch: string, by: -1 | 1): Operation[] {
  const order = swatchesInOrder(document)
  const at = order.findIndex(one => one.id === swatch)
  const other = order[at + by]
  if (at < 0 || !other) return []
  const next = order.map((one): Swatch => (one.id === swatch ? other : one === other ? (order[at] as Swatch) : one))
  return next.flatMap(({ id, order: now }, i): Operation[] =>
    now === i ? [] : [{ kind: 'swatch.set', id, patch: { order: i } }],
  )
}
