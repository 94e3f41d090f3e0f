import type { Drawing, Layer, ShotDocument } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { find, get } from '../model/table.ts'

/*
 * Paint layers that are tied to a line layer: their sheets lie under the line drawings of the same number and are exposed
 * with them. What is done to the timing of either is done to the line layer.
 */

/** The paint layers tied to a line layer. */
export const followersOf = (document: ShotDocument, layer: string): Layer[] =>
  Object.values(document.layers).filter(other => other.follows === layer)

/** The sheets of tied layers that lie under a line drawing. */
export function sheetsUnder(document: ShotDocument, line: Drawing): Drawing[] {
  const layers = new Set(followersOf(document, line.layer).map(layer => layer.id))
  if (layers.size === 0) return []
  return Object.values(document.drawings).filter(d => layers.has(d.layer) && d.number === line.number)
}

/** The line drawing that a sheet of a tied layer lies under; null where it lies under none. */
export function lineOver(document: ShotDocument, sheet: Drawing): Drawing | null {
  const follows = find(document.layers, sheet.layer)?.follows
  if (!follows) return null
  return Object.values(document.drawings).find(d => d.layer === follows && d.number === sheet.number) ?? null
}

/** All sheets that go along with a layer, by the number of the drawing they lie under: for whoever asks for many of them. */
export function sheetsByNumber(document: ShotDocument, layer: string): ReadonlyMap<number, readonly Drawing[]> {
  const layers = new Set(followersOf(document, layer).map(other => other.id))
  const sheets = new Map<number, Drawing[]>()
  if (layers.size === 0) return sheets
  for (const drawing of Object.values(document.drawings)) {
    if (layers.has(drawing.layer)) sheets.set(drawing.number, [...(sheets.get(drawing.number) ?? []), drawing])
  }
  return sheets
}

/** A blank sheet, or a copy of another's strokes, to lie under a line drawing on a layer tied to its layer. */
export function sheetFor(line: Drawing, layer: string, elements: Drawing['elements'], newId: () => string): Drawing {
  return { id: newId(), layer, number: line.number, role: line.role, elements, marks: {} }
}

/** Copies of the sheets under a line drawing, to lie under its copy; samples are shared, not copied. */
export function sheetsUnderCopy(
  document: ShotDocument,
  line: Drawing,
  copy: Drawing,
  copied: (sheet: Drawing) => Drawing['elements'],
  newId: () => string,
): Operation[] {
  if (line.layer !== copy.layer) return []
  return sheetsUnder(document, line).map(sheet => ({
    kind: 'drawing.add',
    drawing: sheetFor(copy, sheet.layer, copied(sheet), newId),
  }))
}

/**
 * Operations that take off the paint under a line drawing that goes: left behind, it would lie under the next drawing that
 * gets the number.
 */
export const paintOff = (document: ShotDocument, line: string): Operation[] =>
  sheetsUnder(document, get(document.drawings, line)).map(sheet => ({ kind: 'drawing.remove', id: sheet.id }))
