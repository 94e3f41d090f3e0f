import type { ShotDocument } from '../model/model.ts'
import type { Refusal } from '../model/refusal.ts'
import { applyBatch, doBatch, replay, type Operation } from '../operations/index.ts'

/** Operations that belong together: one undo step, done all or not at all, and sent and stored as one. */
export interface Batch {
  /** made by the desk that committed it; sending a batch twice does no harm */
  readonly id: string
  /** what was done, in words for the history: "pen stroke" */
  readonly label: string
  readonly ops: readonly Operation[]
}

/** A batch with its place in the shot's journal, counted from 1. */
export interface JournalEntry {
  readonly seq: number
  readonly batch: Batch
}

/**
 * One desk's copy of a shot: what the journal says up to `seq`, and what was done here since and is not in the journal
 * yet. All desks apply the journal in the same order, so all end with the same document.
 */
export interface Replica {
  readonly seq: number
  readonly confirmed: ShotDocument
  readonly pending: readonly Batch[]
  /** `confirmed` with `pending` on top: what the desk shows */
  readonly document: ShotDocument
}

/** A desk that opens a shot: the document after journal entry `seq`, and what waits here on top of it. */
export function openReplica(seq: number, confirmed: ShotDocument, pending: readonly Batch[] = []): Replica {
  return { seq, confirmed, pending, document: withPending(confirmed, pending) }
}

/** A commit on this desk: shown at once, or refused. `inverse` undoes it. */
export type Commit =
  | { readonly ok: true; readonly replica: Replica; readonly inverse: readonly Operation[] }
  | { readonly ok: false; readonly refusal: Refusal }

/** A batch done on this desk: the replica with it waiting and what undoes it, or why it was refused. */
export function commit(replica: Replica, batch: Batch): Commit {
  const result = applyBatch(replica.document, batch.ops)
  if (!result.ok) return result
  const pending = [...replica.pending, batch]
  return { ok: true, replica: { ...replica, pending, document: result.document }, inverse: result.inverse }
}

/**
 * Takes in journal entries that follow on `seq` (older ones are passed over). Own batches among them stop being pending;
 * what is still pending is put on top again. Throws on a gap in the numbers: the caller must ask for what is missing.
 */
export function receive(replica: Replica, entries: readonly JournalEntry[]): Replica {
  const fresh = entries.filter(entry => entry.seq > replica.seq)
  const last = fresh[fresh.length - 1]
  if (!last) return replica
  let { pending } = replica
  let foreign = false
  for (const [i, entry] of fresh.entries()) {
    const due = replica.seq + i + 1
    if (entry.seq !== due) throw new RangeError(`journal entry ${entry.seq} does not follow ${due - 1}`)
    if (pending[0]?.id === entry.batch.id) pending = pending.slice(1)
    else foreign = true
  }
  const result = replay(
    replica.confirmed,
    fresh.map(entry => entry.batch.ops),
  )
  if (!result.ok) throw new RangeError(`journal entries up to ${last.seq} cannot be replayed: ${result.refusal.code}`)
  const confirmed = result.document
  if (foreign) {
    const known = new Set(fresh.map(entry => entry.batch.id))
    pending = pending.filter(batch => !known.has(batch.id))
  }
  // Own batches come back in the order they were done, so without foreign ones in between nothing shown has changed.
  const document = foreign ? withPending(confirmed, pending) : replica.document
  return { seq: last.seq, confirmed, pending, document }
}

/** Takes batches off what is pending: those that the journal will not take, or has had all along. */
export function noLongerPending(replica: Replica, ids: readonly string[]): Replica {
  const pending = replica.pending.filter(batch => !ids.includes(batch.id))
  if (pending.length === replica.pending.length) return replica
  return { ...replica, pending, document: withPending(replica.confirmed, pending) }
}

/** Pending batches that others' changes have made impossible are left out; the journal will refuse them just the same. */
function withPending(confirmed: ShotDocument, pending: readonly Batch[]): ShotDocument {
  let document = confirmed
  for (const batch of pending) {
    const result = doBatch(document, batch.ops)
    if (result.ok) document = result.document
  }
  return document
}
