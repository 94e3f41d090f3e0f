import type { Drawing, Element, ShotDocument, Take } from '../model/model.ts'
import { kindOf } from '../elements/table.ts'
import { newLayer } from '../model/fresh.ts'
import type { Operation } from '../operations/index.ts'
import { sheetsUnder } from './paintSheets.ts'
import { columnOf, elementsInOrder, layersInOrder, topZ } from '../model/selectors.ts'
import { get, has } from '../model/table.ts'
import { drawingAt, plain } from '../../time/exposure.ts'

/*
 * A part of drawings on a layer of its own: the body held while the wings are drawn anew, the chair that stands while the
 * figure moves.
 */

/** What makes two strokes of different drawings the same stroke: the stored samples, moved alike and of one weight. */
const likeness = (element: Element): string => JSON.stringify([element.kind, ...kindOf(element).likeness(element)])

/** For every drawing of the layer that has the same strokes (of those named that lie on the drawing), which they are. The drawing itself among them. */
export function alikeIn(document: ShotDocument, drawing: string, elements: readonly string[]): Map<string, string[]> {
  const source = get(document.drawings, drawing)
  const own = elements.filter(id => has(source.elements, id))
  const wanted = new Set(own.map(id => likeness(get(source.elements, id))))
  const found = new Map<string, string[]>()
  for (const other of Object.values(document.drawings)) {
    if (other.layer !== source.layer) continue
    const alike = Object.values(other.elements).filter(element => wanted.has(likeness(element)))
    if (other.id === drawing) found.set(other.id, own)
    else if (wanted.size > 0 && new Set(alike.map(likeness)).size === wanted.size) {
      found.set(
        other.id,
        alike.map(element => element.id),
      )
    }
  }
  return found
}

/** A part that gets a layer of its own. */
export interface PartWish {
  readonly name: string
  readonly where: 'above' | 'below'
  /** held: one sheet through the whole shot. timed: a sheet for each drawing, shown with it */
  readonly timing: 'held' | 'timed'
  /** sheets of paint tied to the drawing, with the shapes on them that belong to the part */
  readonly paint?: readonly { readonly sheet: string; readonly elements: readonly string[] }[]
  /** marks of the layer that lie on the part */
  readonly marks?: readonly string[]
}

/** What goes from one drawing: strokes from sheets, and places of marks. */
interface Going {
  readonly from: readonly { readonly sheet: string; readonly ids: readonly string[] }[]
  readonly elements: readonly Element[]
}

/**
 * Takes strokes of a drawing to a layer of their own, with their paint and marks, and the same of all drawings on which they
 * are alike. Held, they lie there once through the whole of every take; timed, each drawing's on a sheet of its number,
 * shown when it is.
 */
export function partToLayer(
  document: ShotDocument,
  drawing: string,
  elements: readonly string[],
  wish: PartWish,
  newId: () => string,
): Operation[] {
  const source = get(document.drawings, drawing)
  const lines = alikeIn(document, drawing, elements)
  if (lines.get(drawing)?.length === 0) return []
  const going = new Map([...lines].map(([id, ids]) => [id, goingFrom(document, drawing, id, ids, wish.paint ?? [])]))
  const line = get(document.layers, source.layer)
  const layer = newId()
  const marks = new Map((wish.marks ?? []).map(id => [id, newId()]))
  const shownOn = wish.timing === 'held' ? [drawing] : [...going.keys()]
  const sheets = new Map(
    shownOn.map(id => {
      const from = get(document.drawings, id)
      const moved = (going.get(id) as Going).elements
      const places = Object.entries(from.marks).flatMap(([mark, at]) => {
        const fresh = marks.get(mark)
        return fresh === undefined ? [] : [[fresh, at] as const]
      })
      const sheet: Drawing = {
        id: newId(),
        layer,
        number: from.number,
        role: from.role,
        elements: Object.fromEntries(moved.map(element => [element.id, element])),
        marks: Object.fromEntries(places),
      }
      return [id, sheet] as const
    }),
  )
  const order = orderBeside(document, line.order, wish.where)
  return [
    ...[...going].flatMap(([id, { from }]) => takenOff(document, id, from, [...marks.keys()])),
    { kind: 'layer.add', layer: newLayer(layer, wish.name, order, { volume: line.volume }) },
    ...[...marks].map(([old, id]): Operation => ({
      kind: 'mark.add',
      mark: { ...get(document.marks, old), id, layer },
    })),
    ...[...sheets.values()].map((sheet): Operation => ({ kind: 'drawing.add', drawing: sheet })),
    ...Object.values(document.takes).map((take): Operation => ({
      kind: 'exposure.write',
      take: take.id,
      layer,
      from: 0,
      runs:
        wish.timing === 'held'
          ? [{ drawing: (sheets.get(drawing) as Drawing).id, frames: take.length }]
          : plain(
              columnOf(take, source.layer).map(run => ({
                drawing: (run.drawing !== null && sheets.get(run.drawing)?.id) || null,
                frames: run.frames,
              })),
            ),
    })),
  ]
}

/** Of one drawing on which the part is alike: its lines, and the same shapes of paint on the sheets tied to it. */
function goingFrom(
  document: ShotDocument,
  source: string,
  id: string,
  ids: readonly string[],
  paint: NonNullable<PartWish['paint']>,
): Going {
  const own = get(document.drawings, id)
  const lines = ids.map(one => get(own.elements, one))
  const under = paint.flatMap(({ sheet, elements }) => {
    const from = get(document.drawings, sheet)
    const wanted = new Set(elements.map(one => likeness(get(from.elements, one))))
    const here = id === source ? from : sheetsUnder(document, own).find(other => other.layer === from.layer)
    const shapes = Object.values(here?.elements ?? {}).filter(element => wanted.has(likeness(element)))
    return here && shapes.length ? [{ sheet: here.id, shapes }] : []
  })
  return {
    from: [
      ...(ids.length ? [{ sheet: id, ids }] : []),
      ...under.map(({ sheet, shapes }) => ({ sheet, ids: shapes.map(shape => shape.id) })),
    ],
    elements: [...under.flatMap(({ shapes }) => shapes), ...lines],
  }
}

function takenOff(document: ShotDocument, id: string, from: Going['from'], marks: readonly string[]): Operation[] {
  const placed = marks.filter(mark => has(get(document.drawings, id).marks, mark))
  const off = from.map(({ sheet, ids }): Operation => ({ kind: 'elements.remove', drawing: sheet, ids }))
  if (placed.length === 0) return off
  const places = Object.fromEntries(placed.map(mark => [mark, null]))
  return [...off, { kind: 'marks.place', drawing: id, places }]
}

function orderBeside(document: ShotDocument, order: number, where: 'above' | 'below'): number {
  const orders = layersInOrder(document).map(layer => layer.order)
  const next = where === 'above' ? orders.find(o => o > order) : orders.reverse().find(o => o < order)
  return next === undefined ? order + (where === 'above' ? 1 : -1) : (order + next) / 2
}

/**
 * Puts what a layer shows back into the drawings of another, in the current take: each drawing gets the strokes of the sheet
 * that is shown when it is first seen, over its own strokes or under them. The layer is emptied and goes. Null where the
 * layer still has charts, marks or linked cycles, or a take shows it otherwise.
 */
export function layerIntoDrawings(
  document: ShotDocument,
  take: Take,
  part: string,
  into: string,
  newId: () => string,
): Operation[] | null {
  const own = Object.values(document.drawings).filter(drawing => drawing.layer === part)
  const others = [...Object.values(document.marks), ...Object.values(document.charts)]
  const linked = Object.values(document.takes).some(t => Object.values(t.cycles).some(cycle => cycle.layer === part))
  const followed = Object.values(document.layers).some(layer => layer.follows === part)
  if (linked || followed || others.some(thing => thing.layer === part)) return null
  const above = get(document.layers, part).order > get(document.layers, into).order
  const first = firstFrames(take, into)
  const added = [...first].flatMap(([drawing, frame]): Operation[] => {
    const shown = drawingAt(columnOf(take, part), frame)
    const sheet = shown === null ? null : get(document.drawings, shown)
    if (!sheet || Object.keys(sheet.elements).length === 0) return []
    const target = get(document.drawings, drawing)
    const own = elementsInOrder(sheet)
    const lowest = Math.min(0, ...Object.values(target.elements).map(element => element.z))
    const base = above ? topZ(target) : lowest - own.length - 1
    const elements = own.map((element, i) => ({ ...element, id: newId(), z: base + i }))
    return [{ kind: 'elements.add', drawing, elements }]
  })
  const blank = Object.values(document.takes).map((t): Operation => ({
    kind: 'exposure.write',
    take: t.id,
    layer: part,
    from: 0,
    runs: [{ drawing: null, frames: t.length }],
  }))
  const gone = own.map((drawing): Operation => ({ kind: 'drawing.remove', id: drawing.id }))
  return [...added, ...blank, ...gone, { kind: 'layer.remove', id: part }]
}

function firstFrames(take: Take, layer: string): Map<string, number> {
  const first = new Map<string, number>()
  let at = 0
  for (const run of columnOf(take, layer)) {
    if (run.drawing !== null && !first.has(run.drawing)) first.set(run.drawing, at)
    at += run.frames
  }
  return first
}
