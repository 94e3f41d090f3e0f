import { replay, assetIds, storedForm, type Operation, type ShotDocument } from '@unhurried/core/document'
import { migrateDocument, migrateOperations } from '@unhurried/contract'
import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { DataSource, EntityManager } from 'typeorm'
import { written } from './states.ts'

/** Something about a shot that is not as it should be, in words. */
export interface Finding {
  readonly shot: string
  readonly name: string
  readonly what: string
  readonly mended: boolean
}

/** What was looked through. */
export interface Verified {
  readonly shots: number
  readonly entries: number
  readonly snapshots: number
  readonly strokes: number
  readonly findings: readonly Finding[]
}

interface Entry {
  seq: number
  schema: number
  ops: readonly object[]
}

interface Looked {
  readonly entries: number
  readonly snapshots: number
  readonly strokes: number
}

const PER_READING = 500

/**
 * Holds every shot against its journal: the numbers without gaps, each snapshot as the journal up to it makes it, all
 * strokes there that are used, sums right. With `mend` what follows from the journal is made anew from it, and strokes that
 * nothing uses are taken away; the journal itself is never changed.
 */
export async function verifyAll(source: DataSource, mend: boolean): Promise<Verified> {
  const shots: { id: string; name: string }[] = await source.query('SELECT id, name FROM shots ORDER BY created_at, id')
  const findings: Finding[] = []
  let [entries, snapshots, strokes] = [0, 0, 0]
  for (const { id, name } of shots) {
    const find = (what: string, isMended = false) => findings.push({ shot: id, name, what, mended: isMended && mend })
    const looked = await source.transaction(async tx => {
      // Replaying a long journal takes its time, and nobody waits for it.
      await tx.query('SET LOCAL statement_timeout = 0')
      await tx.query('SET LOCAL idle_in_transaction_session_timeout = 0')
      return verifyShot(tx, id, mend, find)
    })
    entries += looked.entries
    snapshots += looked.snapshots
    strokes += looked.strokes
  }
  return { shots: shots.length, entries, snapshots, strokes, findings }
}

type Find = (what: string, isMended?: boolean) => void

async function verifyShot(tx: EntityManager, shot: string, mend: boolean, find: Find): Promise<Looked> {
  const [row]: { head_seq: number }[] = await tx.query('SELECT head_seq FROM shots WHERE id = $1 FOR UPDATE', [shot])
  const snapshots: { seq: number; text: string; hash: string | null }[] = await tx.query(
    'SELECT seq, document::text AS text, hash FROM snapshots WHERE shot_id = $1 ORDER BY seq',
    [shot],
  )
  const first = snapshots[0]
  if (!row || !first || first.seq !== 0) {
    find('has no beginning, and cannot be replayed')
    return { entries: 0, snapshots: snapshots.length, strokes: 0 }
  }
  const used = new Set<string>()
  const wrong: number[] = []
  let document = migrateDocument(JSON.parse(first.text))
  noteStrokes(document, used)
  const check = ({ seq, text, hash }: (typeof snapshots)[number], now: ShotDocument) => {
    const isAsWritten = hash === null || createHash('sha256').update(text).digest('hex') === hash
    if (isAsWritten && sameDocument(migrateDocument(JSON.parse(text)), now)) return
    if (seq > 0) wrong.push(seq)
    find(`the document written down at ${seq} is not what the journal makes`, seq > 0)
  }
  check(first, document)

  let at = 0
  let bytes = 0
  for (;;) {
    const rows: (Entry & { bytes: number })[] = await tx.query(
      `SELECT seq, schema, ops, octet_length(ops::text) AS bytes FROM journal
       WHERE shot_id = $1 AND seq > $2 ORDER BY seq LIMIT $3`,
      [shot, at, PER_READING],
    )
    if (rows.length === 0) break
    for (const entry of rows) {
      if (entry.seq !== at + 1) find(`entry ${at + 1} of the journal is missing`)
      const ops = migrateOperations(entry.ops, entry.schema)
      const result = replay(document, [ops])
      if (result.ok) document = result.document
      else find(`entry ${entry.seq} of the journal cannot be replayed: ${result.refusal.code}`)
      for (const id of assetIds(ops)) used.add(id)
      at = entry.seq
      bytes += entry.bytes
      const snapshot = snapshots.find(one => one.seq === at)
      if (snapshot) check(snapshot, document)
    }
  }
  if (row.head_seq !== at) find(`says that its newest entry is ${row.head_seq}, and it is ${at}`, true)
  for (const { seq } of snapshots) {
    if (seq <= at) continue
    wrong.push(seq)
    find(`has a document written down at ${seq}, past its newest entry ${at}`, true)
  }
  const strokes = await verifyStrokes(tx, shot, document, used, mend, find)
  const [sums]: { stroke_bytes: string; journal_bytes: string }[] = await tx.query(
    'SELECT stroke_bytes, journal_bytes FROM shots WHERE id = $1',
    [shot],
  )
  if (Number(sums?.stroke_bytes) !== strokes.bytes || Number(sums?.journal_bytes) !== bytes) {
    find('counts its bytes wrong', true)
  }
  if (mend) await mendShot(tx, shot, at, wrong, document, { strokes: strokes.bytes, journal: bytes })
  return { entries: at, snapshots: snapshots.length, strokes: strokes.count }
}

/** Documents written by earlier programs may lack what follows from the rest, or hold it. */
const plainForm = (document: ShotDocument): unknown => JSON.parse(JSON.stringify(storedForm(document)))
const sameDocument = (one: ShotDocument, other: ShotDocument) => isDeepStrictEqual(plainForm(one), plainForm(other))

function noteStrokes(document: ShotDocument, used: Set<string>): void {
  const adds = Object.values(document.drawings).map((drawing): Operation => ({ kind: 'drawing.add', drawing }))
  for (const id of assetIds(adds)) used.add(id)
}

/** Lets go of stored things of a shot, and of what its film keeps for it alone. */
const LET_GO = `
  WITH gone AS (DELETE FROM assets WHERE shot_id = $1 AND id = ANY($2) RETURNING media)
  DELETE FROM media_uses u WHERE u.shot_id = $1 AND u.id IN (SELECT media FROM gone)
    AND NOT EXISTS (SELECT 1 FROM assets a WHERE a.shot_id = $1 AND a.media = u.id AND a.id <> ALL($2))`

async function verifyStrokes(
  tx: EntityManager,
  shot: string,
  document: ShotDocument,
  used: ReadonlySet<string>,
  mend: boolean,
  find: Find,
): Promise<{ count: number; bytes: number }> {
  const rows: { id: string; bytes: number }[] = await tx.query(
    'SELECT id, length AS bytes FROM assets_whole WHERE shot_id = $1',
    [shot],
  )
  const stored = new Set(rows.map(stroke => stroke.id))
  const needed = new Set<string>()
  noteStrokes(document, needed)
  const missing = [...needed].filter(id => !stored.has(id))
  if (missing.length) find(`lacks the samples of ${missing.length} strokes: ${missing.slice(0, 3).join(', ')}`)
  const unused = rows.filter(stroke => !used.has(stroke.id))
  const unusedBytes = unused.reduce((sum, stroke) => sum + stroke.bytes, 0)
  if (unused.length) find(`keeps ${unused.length} strokes (${unusedBytes} bytes) that nothing ever used`, true)
  if (mend && unused.length) {
    await tx.query(LET_GO, [shot, unused.map(({ id }) => id)])
  }
  const all = rows.reduce((sum, stroke) => sum + stroke.bytes, 0)
  return { count: rows.length, bytes: mend ? all - unusedBytes : all }
}

async function mendShot(
  tx: EntityManager,
  shot: string,
  head: number,
  wrong: readonly number[],
  document: ShotDocument,
  bytes: { strokes: number; journal: number },
): Promise<void> {
  await tx.query('UPDATE shots SET head_seq = $2, stroke_bytes = $3, journal_bytes = $4 WHERE id = $1', [
    shot,
    head,
    bytes.strokes,
    bytes.journal,
  ])
  if (wrong.length === 0) return
  await tx.query('DELETE FROM snapshots WHERE shot_id = $1 AND seq = ANY($2)', [shot, wrong])
  if (head === 0) return
  const { text, hash } = written(document)
  await tx.query(
    `INSERT INTO snapshots (shot_id, seq, document, hash) VALUES ($1, $2, $3::json, $4)
     ON CONFLICT (shot_id, seq) DO UPDATE SET document = excluded.document, hash = excluded.hash`,
    [shot, head, text, hash],
  )
}

/** Begins another life of the database: every open desk opens its shot anew and sends what it has. For restored copies. */
export async function beginEpoch(source: DataSource): Promise<void> {
  await source.query('UPDATE house SET epoch = gen_random_uuid()::text')
}
