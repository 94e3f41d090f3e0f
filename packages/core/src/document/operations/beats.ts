import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS, type ActionNote, type Beat } from '../model.ts'
import { find, get, has } from '../table.ts'
import { isFrame, refusal, valuesBefore, type Handler, type Refusal } from './kinds.ts'

export const beatAdd: Handler<'beat.add'> = {
  refuse(document, { beat }, bench) {
    if (has(document.beats, beat.id)) return refusal('id-taken', beat.id)
    return bench.size(document.beats) >= LIMITS.beats ? refusal('too-many', 'beats') : refuseBeat(beat)
  },
  apply: (document, { beat }, bench) => bench.set(document, { beats: bench.put(document.beats, beat.id, beat) }),
  invert: (_before, { beat }) => [{ kind: 'beat.remove', id: beat.id }],
}

export const beatSet: Handler<'beat.set'> = {
  refuse(document, { id, patch }) {
    const beat = find(document.beats, id)
    return beat ? refuseBeat({ ...beat, ...patch }) : refusal('unknown-beat', id)
  },
  apply: (document, { id, patch }, bench) =>
    bench.set(document, { beats: bench.put(document.beats, id, { ...get(document.beats, id), ...patch }) }),
  invert: (before, { id, patch }) => [{ kind: 'beat.set', id, patch: valuesBefore(get(before.beats, id), patch) }],
}

export const beatRemove: Handler<'beat.remove'> = {
  refuse(document, { id }, bench) {
    if (!has(document.beats, id)) return refusal('unknown-beat', id)
    const takes = Object.values(document.takes)
    const much = bench.spend(takes.reduce((sum, take) => sum + bench.size(take.pins), 0))
    if (much) return much
    return takes.some(take => Object.values(take.pins).includes(id)) ? refusal('still-pinned', id) : null
  },
  apply: (document, { id }, bench) => bench.set(document, { beats: bench.without(document.beats, [id]) }),
  invert: (before, { id }) => [{ kind: 'beat.add', beat: get(before.beats, id) }],
}

export const pinSet: Handler<'pin.set'> = {
  refuse(document, op) {
    if (!has(document.takes, op.take)) return refusal('unknown-take', op.take)
    if (!has(document.drawings, op.drawing)) return refusal('unknown-drawing', op.drawing)
    return op.beat !== null && !has(document.beats, op.beat) ? refusal('unknown-beat', op.beat) : null
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    const pins = op.beat === null ? bench.without(take.pins, [op.drawing]) : bench.put(take.pins, op.drawing, op.beat)
    bench.forgetUse()
    return bench.set(document, { takes: bench.put(document.takes, take.id, bench.set(take, { pins })) })
  },
  invert(before, op) {
    const beat = find(get(before.takes, op.take).pins, op.drawing) ?? null
    return [{ kind: 'pin.set', take: op.take, drawing: op.drawing, beat }]
  },
}

export const noteAdd: Handler<'note.add'> = {
  refuse(document, { note }, bench) {
    if (has(document.notes, note.id)) return refusal('id-taken', note.id)
    return bench.size(document.notes) >= LIMITS.notes ? refusal('too-many', 'notes') : refuseNote(note)
  },
  apply: (document, { note }, bench) => bench.set(document, { notes: bench.put(document.notes, note.id, note) }),
  invert: (_before, { note }) => [{ kind: 'note.remove', id: note.id }],
}

export const noteSet: Handler<'note.set'> = {
  refuse(document, { id, patch }) {
    const note = find(document.notes, id)
    return note ? refuseNote({ ...note, ...patch }) : refusal('unknown-note', id)
  },
  apply: (document, { id, patch }, bench) =>
    bench.set(document, { notes: bench.put(document.notes, id, { ...get(document.notes, id), ...patch }) }),
  invert: (before, { id, patch }) => [{ kind: 'note.set', id, patch: valuesBefore(get(before.notes, id), patch) }],
}

export const noteRemove: Handler<'note.remove'> = {
  refuse: (document, { id }) => (has(document.notes, id) ? null : refusal('unknown-note', id)),
  apply: (document, { id }, bench) => bench.set(document, { notes: bench.without(document.notes, [id]) }),
  invert: (before, { id }) => [{ kind: 'note.add', note: get(before.notes, id) }],
}

function refuseBeat(beat: Beat): Refusal | null {
  if (!isFrame(beat.frame) || beat.frame >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a beat')
  return beat.name === '' ? refusal('bad-value', 'name of a beat') : null
}

function refuseNote({ from, to, text }: ActionNote): Refusal | null {
  if (!isFrame(from) || !isFrame(to) || to <= from || to > LONGEST_SHOT_FRAMES) {
    return refusal('bad-value', 'frames of a note')
  }
  return text === '' || text.length > LIMITS.noteLength ? refusal('bad-value', 'text of a note') : null
}
