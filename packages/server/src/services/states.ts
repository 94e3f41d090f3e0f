import { replay, runsOf, storedForm, type JournalEntry, type ShotDocument } from '@unhurried/core/document'
import { migrateDocument, migrateOperations } from '@unhurried/contract'
import { LRUCache } from 'lru-cache'
import { createHash } from 'node:crypto'
import type { EntityManager } from 'typeorm'

/** A shot's document after journal entry `seq`, whose batch was `last` (null: none yet). */
export interface State {
  readonly seq: number
  readonly last: string | null
  readonly document: ShotDocument
}

/** What a shot's row tells: the newest entry, and its batch. */
export interface Head {
  readonly seq: number
  readonly last: string | null
}

interface EntryRow {
  seq: number
  batch_id: string
  label: string
  schema: number
  ops: readonly object[]
}

/** Documents kept in memory by each server process, and how much may be in them altogether (strokes and exposures). */
const DOCUMENTS_IN_MEMORY = 200
const WEIGHT_IN_MEMORY = 1_500_000

/** The text a document is stored as, and its hash. */
export function written(document: ShotDocument): { text: string; hash: string } {
  const text = JSON.stringify(storedForm(document))
  return { text, hash: createHash('sha256').update(text).digest('hex') }
}

/**
 * Reads shots as they are after an entry of their journal. All of one reading happens in one transaction in which nothing
 * changes (or under the shot's lock), so that head, snapshot and entries belong together.
 */
export function stateReader() {
  const memory = new LRUCache<string, State>({
    max: DOCUMENTS_IN_MEMORY,
    maxSize: WEIGHT_IN_MEMORY,
    // The newest is kept whatever it weighs.
    sizeCalculation: state => Math.min(WEIGHT_IN_MEMORY, weightOf(state)),
  })

  async function at(tx: EntityManager, shotId: string, head: Head): Promise<State> {
    const known = memory.get(shotId)
    if (known && known.seq === head.seq && known.last === head.last) return known
    if (known && known.seq < head.seq) {
      const rows = await entryRows(tx, shotId, known.seq - 1, head.seq)
      // The journal must go on from what is in memory; of a restored database it may not.
      const first = known.seq === 0 ? known.last : rows.shift()?.batch_id
      if (first === known.last) return after(shotId, known, rows, head)
    }
    const base = await newestSnapshot(tx, shotId, head.seq)
    return after(shotId, base, await entryRows(tx, shotId, base.seq, head.seq), head)
  }

  return {
    at,
    /** Keeps a state for the next reading. Memory only goes forwards: a slow reader does not bring an old one back. */
    keep(shotId: string, state: State): void {
      const known = memory.get(shotId)
      if (!known || known.seq <= state.seq) memory.set(shotId, state)
    },
  }
}

export type StateReader = ReturnType<typeof stateReader>

const strokesIn = (document: ShotDocument): number =>
  Object.values(document.drawings).reduce((sum, drawing) => sum + 1 + Object.keys(drawing.elements).length, 0)

/** What a document amounts to in memory: things of some hundred bytes each. */
const weightOf = ({ document }: State): number => 1 + runsOf(document) + strokesIn(document)

const BYTES = { stroke: 260, run: 40, frame: 4 } as const

/**
 * About how many bytes a document is when it is written down, and what retiming it goes through: the frames of all its
 * columns, exposed or not. Cheap to tell, and near enough to know what is heavy.
 */
export function heftOf(document: ShotDocument): number {
  const layers = Object.keys(document.layers).length
  const frames = Object.values(document.takes).reduce((sum, take) => sum + take.length * layers, 0)
  return BYTES.stroke * strokesIn(document) + BYTES.run * runsOf(document) + BYTES.frame * frames
}

function after(shotId: string, base: State, rows: readonly EntryRow[], head: Head): State {
  const last = rows[rows.length - 1]
  if (base.seq + rows.length !== head.seq || (last && last.batch_id !== head.last)) {
    throw new Error(`the journal of shot ${shotId} has gaps between ${base.seq} and ${head.seq}`)
  }
  const result = replay(
    base.document,
    rows.map(row => migrateOperations(row.ops, row.schema)),
  )
  if (!result.ok) {
    throw new Error(`the journal of shot ${shotId} cannot be replayed up to ${head.seq}: ${result.refusal.code}`)
  }
  return { seq: head.seq, last: head.last, document: result.document }
}

/** The newest snapshot up to an entry whose text is what was written; a damaged one is passed over. */
async function newestSnapshot(tx: EntityManager, shotId: string, seq: number): Promise<State> {
  for (let most = seq; ;) {
    const [row]: { seq: number; text: string; hash: string | null; batch_id: string | null }[] = await tx.query(
      `SELECT s.seq, s.document::text AS text, s.hash, j.batch_id FROM snapshots s
       LEFT JOIN journal j ON j.shot_id = s.shot_id AND j.seq = s.seq
       WHERE s.shot_id = $1 AND s.seq <= $2 ORDER BY s.seq DESC LIMIT 1`,
      [shotId, most],
    )
    if (!row) throw new Error(`shot ${shotId} has no snapshot up to ${most} that can be read`)
    if (row.hash === null || createHash('sha256').update(row.text).digest('hex') === row.hash) {
      return { seq: row.seq, last: row.batch_id, document: migrateDocument(JSON.parse(row.text)) }
    }
    most = row.seq - 1
  }
}

/** Journal rows with numbers above `above`, up to and with `upTo`. */
function entryRows(tx: EntityManager, shotId: string, above: number, upTo: number): Promise<EntryRow[]> {
  return tx.query(
    `SELECT seq, batch_id, label, schema, ops FROM journal WHERE shot_id = $1 AND seq > $2 AND seq <= $3 ORDER BY seq`,
    [shotId, above, upTo],
  )
}

/** At most so many entries, or about so many bytes of them, are told at a time; a desk asks for the rest. */
const MOST_ENTRIES = 1000
const MOST_ENTRY_BYTES = 4 * 1024 * 1024

/** Journal entries after a number: all, or the first of very many. */
export async function entriesAfter(tx: EntityManager, shotId: string, seq: number): Promise<JournalEntry[]> {
  const rows: EntryRow[] = await tx.query(
    `SELECT seq, batch_id, label, schema, ops FROM (
       SELECT *, sum(octet_length(ops::text)) OVER (ORDER BY seq) - octet_length(ops::text) AS before FROM (
         SELECT * FROM journal WHERE shot_id = $1 AND seq > $2 ORDER BY seq LIMIT $3) first) counted
     WHERE before < $4 ORDER BY seq`,
    [shotId, seq, MOST_ENTRIES, MOST_ENTRY_BYTES],
  )
  return rows.map(toEntry)
}

export const toEntry = ({ seq, batch_id: id, label, ops, schema }: EntryRow): JournalEntry => ({
  seq,
  batch: { id, label, ops: migrateOperations(ops, schema) },
})
