import type { ActionNote } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'

/** What happens over frames `from` up to, but not with, `to`; at least one. */
export const addNote = (note: ActionNote): Operation[] => [
  { kind: 'note.add', note: { ...note, to: Math.max(note.from + 1, note.to) } },
]

/** Changes a note; where it would end before it begins, the other end goes along. */
export function changeNote(note: ActionNote, patch: Partial<Pick<ActionNote, 'from' | 'to' | 'text'>>): Operation[] {
  const next = { ...note, ...patch }
  const other = patch.from === undefined ? { from: next.to - 1 } : { to: next.from + 1 }
  return [{ kind: 'note.set', id: note.id, patch: next.to <= next.from ? { ...patch, ...other } : patch }]
}

/** Takes a note away. */
export const removeNote = (id: string): Operation[] => [{ kind: 'note.remove', id }]
