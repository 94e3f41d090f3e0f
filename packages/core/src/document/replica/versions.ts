import { inKnownColour, isColourGone } from '../elements/table.ts'
import type { Drawing, ShotDocument } from '../model/model.ts'
import { doBatch, drawingOf, isReferred, type Operation } from '../operations/index.ts'
import type { JournalEntry } from './replica.ts'
import { swatchesInOrder } from '../model/selectors.ts'
import { find, has, put } from '../model/table.ts'

/** A drawing as it was after an entry of the journal that changed it. */
export interface Version {
  readonly seq: number
  /** what was done, in the words of the desk */
  readonly label: string
  readonly drawing: Drawing
}

const concerns = (op: Operation, id: string): boolean => isReferred(op) || drawingOf(op) === id

/**
 * All versions of a drawing, oldest first: `entries` of the journal done in order on the document they begin from. Only what
 * concerns the drawing is done, so that a long shot costs little. What cannot be done is passed over.
 */
export function versionsOf(beginning: ShotDocument, entries: readonly JournalEntry[], id: string): Version[] {
  const first = find(beginning.drawings, id)
  let document: ShotDocument = { ...beginning, drawings: first ? put({}, id, first) : {} }
  const versions: Version[] = first ? [{ seq: 0, label: 'as it came', drawing: first }] : []
  for (const { seq, batch } of entries) {
    const ops = batch.ops.filter(op => concerns(op, id))
    if (ops.length === 0) continue
    const before = find(document.drawings, id)
    const result = doBatch(document, ops)
    if (!result.ok) continue
    document = result.document
    const drawing = find(document.drawings, id)
    if (drawing && drawing !== before) versions.push({ seq, label: batch.label, drawing })
  }
  return versions
}

/** What makes a drawing look as it did, and what of it cannot come back because the shot has it no more. */
export interface Restoring {
  readonly ops: readonly Operation[]
  /** marks of the version that were removed since: they stay away */
  readonly marksGone: number
  /** strokes whose colour was removed since: they come back in the first colour of the shot */
  readonly coloursGone: number
}

/** Operations that make a drawing look as it did in a version: its strokes and marks, not its number, role or exposures. */
export function restoreOps(document: ShotDocument, now: Drawing, version: Drawing): Restoring {
  const first = swatchesInOrder(document)[0]
  const wanted = new Map(
    Object.values(version.elements).map(element => [
      element.id,
      first ? inKnownColour(document, element, first.id) : element,
    ]),
  )
  const same = (id: string) => JSON.stringify(now.elements[id]) === JSON.stringify(wanted.get(id))
  const removed = Object.keys(now.elements).filter(id => !same(id))
  const added = [...wanted.values()].filter(element => !same(element.id))
  const ops: Operation[] = []
  if (removed.length) ops.push({ kind: 'elements.remove', drawing: now.id, ids: removed })
  if (added.length) ops.push({ kind: 'elements.add', drawing: now.id, elements: added })
  const known = (id: string) => has(document.marks, id)
  const marks = [...new Set([...Object.keys(now.marks), ...Object.keys(version.marks)])].filter(
    id => known(id) && JSON.stringify(now.marks[id]) !== JSON.stringify(version.marks[id]),
  )
  if (marks.length) {
    const places = Object.fromEntries(marks.map(id => [id, version.marks[id] ?? null]))
    ops.push({ kind: 'marks.place', drawing: now.id, places })
  }
  return {
    ops,
    marksGone: Object.keys(version.marks).filter(id => !known(id)).length,
    coloursGone: Object.values(version.elements).filter(element => isColourGone(document, element)).length,
  }
}
