import { doBatch, assetsUsed, mayReview, type Batch, type ShotDocument } from '@unhurried/core/document'
import {
  Batch as BatchSchema,
  BYTES_PER_FILM,
  migrateOperations,
  NamedBatch,
  STROKE_BYTES_PER_SHOT,
  type JournalReply,
} from '@unhurried/contract'
import { isDeepStrictEqual } from 'node:util'
import type { EntityManager } from 'typeorm'
import type { AssetShelf, Sent } from './assets.ts'

export type Verdict = JournalReply['refused'][number]

/** A batch of a request, read; or the verdict that it is none. */
export type Read = { readonly ok: true; readonly batch: Batch } | { readonly ok: false; readonly verdict: Verdict }

/** Reads the batches of a request one by one. One that has not even a name is answered by null: the request is broken. */
export function readBatches(batches: readonly unknown[]): Read[] | null {
  const read: Read[] = []
  for (const value of batches) {
    const result = BatchSchema.safeParse(value)
    const named = NamedBatch.safeParse(value)
    if (!named.success) return null
    const issue = result.error?.issues[0]
    read.push(
      result.success
        ? { ok: true, batch: result.data }
        : { ok: false, verdict: { id: named.data.id, code: 'unfit', what: wordsOf(issue) } },
    )
  }
  return read
}

const wordsOf = (issue: { path: PropertyKey[]; message: string } | undefined): string =>
  issue ? `${issue.path.map(String).join('.') || 'batch'}: ${issue.message}` : 'batch'

/** Who does it: an account, or the house itself; and whether it may only look and remark. */
export interface Doer {
  readonly account: string | null
  readonly onlyReviews: boolean
}

/** A batch that is taken in now, and who did it. */
export interface Taken {
  readonly batch: Batch
  readonly account: string | null
  readonly text: string
}

/** Room that is left, in bytes. */
export interface Room {
  strokes: number
  film: number
}

export const roomIn = (shot: { strokeBytes: number; filmBytes: number }): Room => ({
  strokes: STROKE_BYTES_PER_SHOT - shot.strokeBytes,
  film: BYTES_PER_FILM - shot.filmBytes,
})

/** Batches of these names that the journal has. */
export async function knownBatches(
  tx: EntityManager,
  shotId: string,
  ids: readonly string[],
): Promise<Map<string, Batch>> {
  if (ids.length === 0) return new Map()
  const rows: { batch_id: string; label: string; schema: number; ops: readonly object[] }[] = await tx.query(
    'SELECT batch_id, label, schema, ops FROM journal WHERE shot_id = $1 AND batch_id = ANY($2)',
    [shotId, ids],
  )
  return new Map(
    rows.map(row => [
      row.batch_id,
      { id: row.batch_id, label: row.label, ops: migrateOperations(row.ops, row.schema) },
    ]),
  )
}

const asStored = (batch: Batch): unknown => JSON.parse(JSON.stringify({ label: batch.label, ops: batch.ops }))

/** Takes batches in one after the other: done, known, or refused for good with a reason. */
export function sieve(start: ShotDocument, known: Map<string, Batch>, assets: AssetShelf, room: Room) {
  let document = start
  const taken: Taken[] = []
  let strokeBytes = 0
  let journalBytes = 0
  let workMs = 0

  /** The verdict on a batch; null when it is in the journal, by now or since before. */
  function judge(batch: Batch, sent: Sent, { account, onlyReviews }: Doer): Verdict | null {
    const no = (code: string, what: string): Verdict => ({ id: batch.id, code, what })
    const before = known.get(batch.id)
    if (before) {
      return isDeepStrictEqual(asStored(before), asStored(batch)) ? null : no('other-content', 'the change itself')
    }
    const beyond = onlyReviews && batch.ops.find(op => !mayReview(document, op, account ?? ''))
    if (beyond) return no('not-yours', beyond.kind)
    const used = assetsUsed(batch.ops)
    for (const ref of used) {
      const fault = assets.fault(ref, sent)
      if (fault) return no(fault, ref.id)
    }
    const text = JSON.stringify(batch.ops)
    const bytes = assets.adds(used, sent)
    const full = refuseBytes(bytes, Buffer.byteLength(text))
    if (full) return no('no-room', full)
    const began = performance.now()
    const result = doBatch(document, batch.ops)
    workMs += performance.now() - began
    if (!result.ok) return { id: batch.id, ...result.refusal }
    document = result.document
    assets.use(used, sent)
    strokeBytes += bytes
    journalBytes += Buffer.byteLength(text)
    known.set(batch.id, batch)
    taken.push({ batch, account, text })
    return null
  }

  function refuseBytes(ofStrokes: number, ofJournal: number): string | null {
    const left = room.strokes - strokeBytes
    if (ofStrokes > 0 && ofStrokes > left) return `strokes of this shot: ${inWords(left)} more would fit`
    const inFilm = room.film - strokeBytes - journalBytes
    return ofStrokes + ofJournal > inFilm ? `everything in this film: ${inWords(inFilm)} more would fit` : null
  }

  return {
    judge,
    result: () => ({ document, taken, strokeBytes, journalBytes, workMs }),
  }
}

const inWords = (bytes: number): string => `${(Math.max(0, bytes) / 1_048_576).toFixed(1)} MB`
