import { after, IDENTITY, translation } from '../../geometry/matrix.ts'
import { sheetsUnder } from '../../document/acts/paintSheets.ts'
import type { Drawing } from '../../document/model/model.ts'
import { find } from '../../document/model/table.ts'
import type { Operation } from '../../document/operations/index.ts'
import type { Survey } from '../survey.ts'
import { directionInWords } from '../way.ts'
import type { Finding, Fix } from './check.ts'

/** Everything on a drawing, with its marks, moved by so many paper pixels. */
export function movedBy({ id, elements, marks }: Drawing, dx: number, dy: number): Operation[] {
  const by = translation(dx, dy)
  const changes = Object.values(elements).map(element => ({
    id: element.id,
    patch: { matrix: after(element.matrix ?? IDENTITY, by) },
  }))
  const places = Object.fromEntries(
    Object.entries(marks).map(([mark, place]) => [mark, { ...place, x: place.x + dx, y: place.y + dy }]),
  )
  return [
    ...(changes.length > 0 ? [{ kind: 'elements.set', drawing: id, changes } as const] : []),
    ...(Object.keys(places).length > 0 ? [{ kind: 'marks.place', drawing: id, places } as const] : []),
  ]
}

/** Moves the drawing a finding is about by what its figures say (`dx`, `dy`, in pixels of the drawing). */
export function moveThere(
  { document }: Pick<Survey, 'document'>,
  { drawings: [id], figures: { dx, dy } }: Finding,
): Fix | null {
  const drawing = find(document.drawings, id ?? '')
  if (!drawing || dx === undefined || dy === undefined) return null
  return {
    words: `move ${drawing.number} by ${directionInWords({ x: 0, y: 0 }, { x: dx, y: dy })}`,
    // What is painted for it goes along.
    ops: [drawing, ...sheetsUnder(document, drawing)].flatMap(sheet => movedBy(sheet, dx, dy)),
  }
}
