import type { Drawing, ShotDocument } from './model.ts'
import { doBatch, type Operation } from './operations/index.ts'
import type { JournalEntry } from './replica.ts'
import { find, put } from './table.ts'

/** A drawing as it was after an entry of the journal that changed it. */
export interface Version {
  readonly seq: number
  /** what was done, in the words of the desk */
  readonly label: string
  readonly drawing: Drawing
}

/** What strokes and marks of a drawing refer to, besides the drawing itself. */
const REFERRED = /^(swatch|mark|layer)\./

function concerns(op: Operation, id: string): boolean {
  switch (op.kind) {
    case 'drawing.add':
      return op.drawing.id === id
    case 'drawing.set':
    case 'drawing.remove':
      return op.id === id
    case 'elements.add':
    case 'elements.set':
    case 'elements.remove':
    case 'marks.place':
      return op.drawing === id
    default:
      return REFERRED.test(op.kind)
  }
}

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

/** Operations that make a drawing look as it did in a version: its strokes and marks, not its number, role or exposures. */
export function restoreOps(now: Drawing, version: Drawing): Operation[] {
  const same = (id: string) => JSON.stringify(now.elements[id]) === JSON.stringify(version.elements[id])
  const removed = Object.keys(now.elements).filter(id => !same(id))
  const added = Object.values(version.elements).filter(element => !same(element.id))
  const ops: Operation[] = []
  if (removed.length) ops.push({ kind: 'elements.remove', drawing: now.id, ids: removed })
  if (added.length) ops.push({ kind: 'elements.add', drawing: now.id, elements: added })
  const marks = [...new Set([...Object.keys(now.marks), ...Object.keys(version.marks)])].filter(
    id => JSON.stringify(now.marks[id]) !== JSON.stringify(version.marks[id]),
  )
  if (marks.length) {
    const places = Object.fromEntries(marks.map(id => [id, version.marks[id] ?? null]))
    ops.push({ kind: 'marks.place', drawing: now.id, places })
  }
  return ops
}
