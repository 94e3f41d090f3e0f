import { MARK_KINDS, type MarkPlace, type ShotDocument } from '../model/model.ts'
import { find, get, has, type Table } from '../model/table.ts'
import { family } from './family.ts'
import { PLAIN, type Handler } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'

export const marks = family('mark', {
  facts: { ...PLAIN, referred: true },
  refuse(document, { layer, kind, name, order }) {
    if (!has(document.layers, layer)) return refusal('unknown-layer', layer)
    if (!MARK_KINDS.includes(kind)) return refusal('bad-value', 'kind of mark')
    return name !== '' && Number.isFinite(order) ? null : refusal('bad-value', 'mark')
  },
  kept(document, id, bench) {
    const much = bench.spend(bench.size(document.charts) + bench.size(document.drawings))
    if (much) return much
    if (Object.values(document.charts).some(chart => chart.part === id)) return refusal('still-charted', id)
    const placed = Object.values(document.drawings).some(drawing => has(drawing.marks, id))
    return placed ? refusal('still-placed', id) : null
  },
})

export const marksPlace: Handler<'marks.place'> = {
  facts: PLAIN,
  ids: op => Object.keys(op.places),
  drawing: op => op.drawing,
  refuse(document, op, bench) {
    const drawing = find(document.drawings, op.drawing)
    if (!drawing) return refusal('unknown-drawing', op.drawing)
    return (
      refusePlaces(document, drawing.layer, op.places) ??
      bench.room(bench.totals(document).places, morePlaces(drawing.marks, op.places), 'placesPerShot')
    )
  },
  apply(document, op, bench) {
    const drawing = get(document.drawings, op.drawing)
    bench.totals(document).places += morePlaces(drawing.marks, op.places)
    let { marks } = drawing
    for (const [id, place] of Object.entries(op.places)) {
      marks = place ? bench.put(marks, id, place) : bench.without(marks, [id])
    }
    return bench.set(document, { drawings: bench.put(document.drawings, drawing.id, bench.set(drawing, { marks })) })
  },
  invert(before, op) {
    const { marks } = get(before.drawings, op.drawing)
    const places = Object.fromEntries(Object.keys(op.places).map(id => [id, find(marks, id) ?? null]))
    return [{ kind: 'marks.place', drawing: op.drawing, places }]
  },
}

const morePlaces = (marks: Table<MarkPlace>, places: Table<MarkPlace | null>): number =>
  Object.entries(places).reduce((more, [id, place]) => more + Number(place !== null) - Number(has(marks, id)), 0)

/** Places must be on marks of the drawing's own layer, and somewhere. */
export function refusePlaces(document: ShotDocument, layer: string, places: Table<MarkPlace | null>): Refusal | null {
  for (const [id, place] of Object.entries(places)) {
    const mark = find(document.marks, id)
    if (!mark) return refusal('unknown-mark', id)
    if (mark.layer !== layer) return refusal('wrong-layer', id)
    if (place && !(Number.isFinite(place.x) && Number.isFinite(place.y))) return refusal('bad-value', 'place of a mark')
  }
  return null
}
