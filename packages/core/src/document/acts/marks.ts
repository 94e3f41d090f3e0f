import type { Drawing, Mark, MarkPlace, ShotDocument } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { marksOf } from '../model/selectors.ts'

/** A new mark behind those its layer has. */
export function addMark(
  document: ShotDocument,
  layer: string,
  id: string,
  name: string,
  kind: Mark['kind'],
): Operation[] {
  const order = (marksOf(document, layer).at(-1)?.order ?? 0) + 1
  return [{ kind: 'mark.add', mark: { id, layer, name, order, kind } }]
}

/** Marks of so many names on a layer, behind those that are there; a name that is there already is left out, whatever its capitals. */
export function addMarks(
  document: ShotDocument,
  layer: string,
  names: readonly string[],
  newId: () => string,
): Operation[] {
  const there = new Set(marksOf(document, layer).map(({ name }) => name.toLowerCase()))
  const order = (marksOf(document, layer).at(-1)?.order ?? 0) + 1
  return names
    .filter(name => !there.has(name.toLowerCase()))
    .map((name, i): Operation => ({
      kind: 'mark.add',
      mark: { id: newId(), layer, name, order: order + i, kind: 'point' },
    }))
}

/** Marks of a layer in another order, from what leads to what hangs on it; those that are not named stay behind, in theirs. */
export function orderMarks(document: ShotDocument, layer: string, ids: readonly string[]): Operation[] {
  const all = marksOf(document, layer)
  const first = ids.flatMap(id => all.find(mark => mark.id === id) ?? [])
  const named = new Set(first)
  return [...first, ...all.filter(mark => !named.has(mark))].flatMap((mark, order): Operation[] =>
    mark.order === order ? [] : [{ kind: 'mark.set', id: mark.id, patch: { order } }],
  )
}

/** Places a mark on a drawing, or takes it off (null). */
export const placeMark = (drawing: string, mark: string, place: MarkPlace | null): Operation[] => [
  { kind: 'marks.place', drawing, places: { [mark]: place } },
]

/** Takes a mark off every drawing, its charts away, and the mark itself. */
export function removeMark(document: ShotDocument, mark: string): Operation[] {
  const charts = Object.values(document.charts).filter(chart => chart.part === mark)
  const drawings = Object.values(document.drawings).filter(drawing => drawing.marks[mark])
  return [
    ...charts.map((chart): Operation => ({ kind: 'chart.remove', id: chart.id })),
    ...drawings.flatMap(drawing => placeMark(drawing.id, mark, null)),
    { kind: 'mark.remove', id: mark },
  ]
}

/** Plants a mark, or lifts it, on those of the drawings that have it otherwise: one operation for each. */
export const plantMark = (drawings: readonly Drawing[], mark: string, planted: boolean): Operation[] =>
  drawings.flatMap(drawing => {
    const place = drawing.marks[mark]
    return place && place.planted !== planted ? placeMark(drawing.id, mark, { ...place, planted }) : []
  })
