import type { Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import { kindOf } from '../elements/table.ts'

/** An id made by a desk: letters, digits, - and _, never starting with one of the last two; so none that objects inherit. */
export const ID_FORM = /^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$/

const isId = (id: string): boolean => ID_FORM.test(id) && !(id in Object.prototype)

/** Why an operation may not bring its new things in, for the sake of their ids; or null. */
export function refuseIds(op: Operation): Refusal | null {
  const strange = newIds(op).find(id => !isId(id))
  return strange === undefined ? null : refusal('bad-value', `id ${strange.slice(0, 40)}`)
}

/** The ids of things, and of places in tables, that an operation brings in. */
function newIds(op: Operation): string[] {
  switch (op.kind) {
    case 'layer.add':
      return [op.layer.id]
    case 'drawing.add':
      return [op.drawing.id, ...Object.keys(op.drawing.elements), ...Object.keys(op.drawing.marks)]
    case 'elements.add':
      return op.elements.flatMap(element => [element.id, kindOf(element).asset(element).id])
    case 'chart.add':
      return [op.chart.id]
    case 'cycle.add':
      return [op.cycle.id]
    case 'take.add':
      return [op.take.id, ...Object.keys(op.take.columns), ...Object.keys(op.take.cycles), ...Object.keys(op.take.pins)]
    case 'swatch.add':
      return [op.swatch.id]
    case 'mark.add':
      return [op.mark.id]
    case 'marks.place':
      return Object.keys(op.places)
    case 'beat.add':
      return [op.beat.id]
    case 'note.add':
      return [op.note.id]
    case 'guide.add':
      return [op.guide.id]
    default:
      return []
  }
}
