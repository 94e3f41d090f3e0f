import {
  applyBatch,
  DOCUMENT_SCHEMA,
  samplesUsed,
  versionsOf,
  type Batch,
  type JournalEntry,
  type ShotDocument,
} from '@unhurried/core/document'
import { unpackSamplesSafe } from '@unhurried/core/geometry'
import {
  migrateDocument,
  migrateOperations,
  MOST_VERSIONS,
  RECENT_BATCHES,
  type JournalReply,
  type PostBatches,
  type VersionsReply,
} from '@unhurried/contract'
import { In, LessThanOrEqual, MoreThan, Not, type DataSource, type EntityManager } from 'typeorm'
import { JournalRow, ShotRow, SnapshotRow, StrokeRow } from '../db/entities.ts'
import { Problem } from '../http/problem.ts'
import { recentlyUsed } from './recentlyUsed.ts'

/** After this many entries a shot's document is written down whole, so that opening it never replays more. */
const ENTRIES_PER_SNAPSHOT = 64
/** Documents kept in memory by each server process. They are only trusted when their number is the shot's newest. */
const DOCUMENTS_IN_MEMORY = 200

/** A shot's document after journal entry `seq`. */
export interface State {
  readonly seq: number
  readonly document: ShotDocument
}

type Refused = JournalReply['refused'][number]

export const ANNOUNCE_CHANNEL = 'shot_changed'

/**
 * The journal of every shot: batches in the one order that all desks apply them in. The shot's row is locked while a
 * request is taken in, so several server processes agree without knowing of each other.
 */
export function journalService(source: DataSource) {
  const memory = recentlyUsed<State>(DOCUMENTS_IN_MEMORY)

  async function stateAt(tx: EntityManager, shotId: string, head: number): Promise<State> {
    const known = memory.get(shotId)
    if (known?.seq === head) return known
    const base = known && known.seq < head ? known : await newestSnapshot(tx, shotId)
    const rows = await tx.find(JournalRow, { where: { shotId, seq: MoreThan(base.seq) }, order: { seq: 'ASC' } })
    let { document } = base
    for (const row of rows.filter(r => r.seq <= head)) {
      const result = applyBatch(document, migrateOperations(row.ops, row.schema))
      if (!result.ok) throw new Error(`journal entry ${row.seq} of shot ${shotId} cannot be replayed`)
      document = result.document
    }
    return { seq: head, document }
  }

  async function newestSnapshot(tx: EntityManager, shotId: string): Promise<State> {
    const row = await tx.findOne(SnapshotRow, { where: { shotId }, order: { seq: 'DESC' } })
    if (!row) throw new Error(`shot ${shotId} has no snapshot`)
    return { seq: row.seq, document: migrateDocument(row.document) }
  }

  async function writeSnapshot(tx: EntityManager, shotId: string, { seq, document }: State): Promise<void> {
    await tx.insert(SnapshotRow, { shotId, seq, document: document as object })
    await tx.delete(SnapshotRow, { shotId, seq: Not(In([0, seq])) })
  }

  return {
    async read(shotId: string): Promise<State> {
      const shot = await source.manager.findOneByOrFail(ShotRow, { id: shotId })
      const state = await stateAt(source.manager, shotId, shot.headSeq)
      memory.set(shotId, state)
      return state
    },

    /** The newest batches up to an entry of the journal, newest first. */
    async recent(shotId: string, seq: number): Promise<string[]> {
      const rows = await source.manager.find(JournalRow, {
        select: { batchId: true },
        where: { shotId, seq: LessThanOrEqual(seq) },
        order: { seq: 'DESC' },
        take: RECENT_BATCHES,
      })
      return rows.map(row => row.batchId)
    },

    async after(shotId: string, seq: number): Promise<JournalEntry[]> {
      return entriesAfter(source.manager, shotId, seq)
    },

    /** Versions of a drawing, oldest first: the newest always, of very many an even choice. */
    async versions(shotId: string, drawing: string): Promise<VersionsReply['versions']> {
      const start = await source.manager.findOneByOrFail(SnapshotRow, { shotId, seq: 0 })
      const shot = await source.manager.findOneByOrFail(ShotRow, { id: shotId })
      const rows = await source.manager.find(JournalRow, { where: { shotId }, order: { seq: 'ASC' } })
      const entries = rows.map(row => ({
        seq: row.seq,
        batch: { id: row.batchId, label: row.label, ops: migrateOperations(row.ops, row.schema) },
      }))
      const times = new Map(rows.map(row => [row.seq, row.createdAt]))
      const all = versionsOf(migrateDocument(start.document), entries, drawing)
      const step = Math.max(1, all.length / MOST_VERSIONS)
      const chosen = Array.from(
        { length: Math.min(all.length, MOST_VERSIONS) },
        (_, i) => all[all.length - 1 - Math.round(i * step)],
      )
      return chosen
        .flatMap(version => version ?? [])
        .reverse()
        .map(version => ({ ...version, at: (times.get(version.seq) ?? shot.createdAt).toISOString() }))
    },

    /** Stroke samples of a shot: those asked for, or all. */
    async samples(shotId: string, ids?: readonly string[]): Promise<[string, Uint8Array][]> {
      const rows = await source.manager.findBy(StrokeRow, { shotId, ...(ids && { id: In([...ids]) }) })
      return rows.map(row => [row.id, row.bytes])
    },

    /** Takes in what a desk did: everything that can be done, in one transaction; the rest is refused with reasons. */
    async post(shotId: string, account: string | null, request: PostBatches): Promise<JournalReply> {
      const strokes = readStrokes(request.samples)
      const taken = await source.transaction(async tx => {
        const shot = await tx.findOneOrFail(ShotRow, { where: { id: shotId }, lock: { mode: 'pessimistic_write' } })
        const before = await stateAt(tx, shotId, shot.headSeq)
        await storeStrokes(tx, shotId, strokes)
        const { fresh, refused, document } = await sift(tx, shotId, before.document, request.batches)
        const after: State = { seq: before.seq + fresh.length, document }
        if (fresh.length > 0) {
          await tx.insert(
            JournalRow,
            fresh.map((batch, i) => ({
              shotId,
              seq: before.seq + i + 1,
              batchId: batch.id,
              accountId: account,
              label: batch.label,
              schema: DOCUMENT_SCHEMA,
              ops: batch.ops as object[],
            })),
          )
          await tx.update(ShotRow, { id: shotId }, { headSeq: after.seq })
          const crossed = Math.floor(after.seq / ENTRIES_PER_SNAPSHOT) > Math.floor(before.seq / ENTRIES_PER_SNAPSHOT)
          if (crossed) await writeSnapshot(tx, shotId, after)
          await tx.query('SELECT pg_notify($1, $2)', [ANNOUNCE_CHANNEL, `${shotId} ${after.seq}`])
        }
        const no = new Set(refused.map(one => one.id))
        const done = request.batches.map(batch => batch.id).filter(id => !no.has(id))
        return { after, refused, done, entries: await entriesAfter(tx, shotId, request.since) }
      })
      memory.set(shotId, taken.after)
      const { entries, refused, done } = taken
      return { entries, refused, done }
    },
  }
}

export type JournalService = ReturnType<typeof journalService>

async function entriesAfter(tx: EntityManager, shotId: string, seq: number): Promise<JournalEntry[]> {
  const rows = await tx.find(JournalRow, { where: { shotId, seq: MoreThan(seq) }, order: { seq: 'ASC' } })
  return rows.map(({ seq: at, batchId: id, label, ops, schema }) => ({
    seq: at,
    batch: { id, label, ops: migrateOperations(ops, schema) },
  }))
}

/** Decodes and checks the samples of a request; a Problem names the stroke that cannot be read. */
function readStrokes(samples: PostBatches['samples']): Map<string, Buffer> {
  const strokes = new Map<string, Buffer>()
  for (const [id, text] of Object.entries(samples)) {
    const bytes = Buffer.from(text, 'base64')
    const result = unpackSamplesSafe(bytes)
    if (!result.ok) {
      const details = [{ field: `samples.${id}`, problem: result.fault }]
      throw new Problem('bad-request', `The samples of stroke ${id} cannot be read: ${result.fault}`, details)
    }
    strokes.set(id, bytes)
  }
  return strokes
}

async function storeStrokes(tx: EntityManager, shotId: string, strokes: Map<string, Buffer>): Promise<void> {
  if (strokes.size === 0) return
  const rows = [...strokes].map(([id, bytes]) => ({ shotId, id, bytes }))
  await tx.createQueryBuilder().insert().into(StrokeRow).values(rows).orIgnore().execute()
}

/** Separates new batches that can be done from those known already and those that cannot; with the document after them. */
async function sift(tx: EntityManager, shotId: string, start: ShotDocument, batches: readonly Batch[]) {
  const ids = batches.map(batch => batch.id)
  const known = await tx.find(JournalRow, { select: { batchId: true }, where: { shotId, batchId: In(ids) } })
  const done = new Set(known.map(row => row.batchId))
  const stored = await storedSamples(tx, shotId, batches)
  const fresh: Batch[] = []
  const refused: Refused[] = []
  let document = start
  for (const batch of batches) {
    if (done.has(batch.id)) continue
    const missing = samplesUsed(batch.ops).find(id => !stored.has(id))
    if (missing !== undefined) {
      refused.push({ id: batch.id, code: 'unknown-samples', what: missing })
      continue
    }
    const result = applyBatch(document, batch.ops)
    if (!result.ok) {
      refused.push({ id: batch.id, ...result.refusal })
      continue
    }
    document = result.document
    done.add(batch.id)
    fresh.push(batch)
  }
  return { fresh, refused, document }
}

async function storedSamples(tx: EntityManager, shotId: string, batches: readonly Batch[]): Promise<Set<string>> {
  const wanted = [...new Set(batches.flatMap(batch => samplesUsed(batch.ops)))]
  if (wanted.length === 0) return new Set()
  const rows = await tx.find(StrokeRow, { select: { id: true }, where: { shotId, id: In(wanted) } })
  return new Set(rows.map(row => row.id))
}
