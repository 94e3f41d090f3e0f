import { DOCUMENT_SCHEMA, assetsUsed, mediaUsed, versionsOf, type JournalEntry } from '@unhurried/core/document'
import {
  migrateDocument,
  MOST_VERSIONS,
  RECENT_BATCHES,
  type JournalReply,
  type PostBatches,
  type VersionsReply,
} from '@unhurried/contract'
import type { DataSource, EntityManager } from 'typeorm'
import { Problem } from '../problems/problem.ts'
import { knownBatches, readBatches, roomIn, sieve, type Doer, type Read, type Verdict } from './sift.ts'
import { entriesAfter, heftOf, stateReader, toEntry, written, type Head, type State } from './states.ts'
import { assetShelf, readAssets, type AssetShelf, type Sent } from './assets.ts'
import { inTurns, type Settled } from './turns.ts'

/** After this many entries a shot's document is written down whole, so that opening it never replays more. */
const ENTRIES_PER_SNAPSHOT = 64
/** What took longer than this to do, or is larger, is not done again: the document is written down at once. */
const HEAVY_WORK_MS = 60
const HEAVY_BYTES = 512 * 1024
/** Versions are worked out from so many bytes of the journal at most. */
const MOST_VERSION_BYTES = 48 * 1024 * 1024
/** Requests of one shot that are taken in with one transaction, and the most that may wait in one process. */
const REQUESTS_AT_ONCE = 50
const MOST_WAITING = 500
/** Taking in stops after so much work; desks send what is left again. What others ask for comes in between. */
const WORK_MS = 400

export const ANNOUNCE_CHANNEL = 'shot_changed'

/** All that is stored of what was taken in, and word of it, in one go. */
const WRITE_DOWN = `
  WITH brought AS (
    INSERT INTO assets (shot_id, id, kind, bytes)
    SELECT $1, id, kind, bytes FROM unnest($2::text[], $16::text[], $3::bytea[]) AS t (id, kind, bytes)
  ), entries AS (
    INSERT INTO journal (shot_id, seq, batch_id, account_id, label, schema, ops)
    SELECT $1, seq, batch_id, account_id, label, $4, ops::json
    FROM unnest($5::int[], $6::text[], $7::uuid[], $8::text[], $9::text[]) AS t (seq, batch_id, account_id, label, ops)
  ), head AS (
    UPDATE shots SET head_seq = $10, document_bytes = $11, stroke_bytes = stroke_bytes + $12,
      journal_bytes = journal_bytes + $13 WHERE id = $1
  )
  SELECT pg_notify($14, $15)`

/** What was sent ahead is kept once a batch uses it. */
const KEEP_WHAT_CAME_AHEAD = `
  WITH used AS (DELETE FROM assets_ahead WHERE shot_id = $1 AND id = ANY($2) RETURNING shot_id, id, kind, bytes, media)
  INSERT INTO assets (shot_id, id, kind, bytes, media) SELECT shot_id, id, kind, bytes, media FROM used ON CONFLICT DO NOTHING`

/** A journal can bring back what it once referred to: that is kept as long as the journal is. */
const REMEMBER_MEDIA = `
  INSERT INTO media_uses (shot_id, id) SELECT $1, unnest($2::text[]) ON CONFLICT DO NOTHING`

/** What a desk says it knows of a journal. */
export interface Knows {
  readonly since: number
  readonly epoch?: string | undefined
  readonly last?: string | undefined
}

export interface OpenState extends State {
  readonly epoch: string
  readonly recent: string[]
}

interface ShotHead extends Head {
  readonly epoch: string
  readonly strokeBytes: number
  readonly filmBytes: number
}

/** One desk's request, read. */
interface Job {
  readonly knows: Knows
  readonly by: Doer
  readonly batches: readonly Read[]
  readonly sent: Sent
}

/**
 * The journal of every shot: batches in the one order that all desks apply them in. The shot's row is locked while
 * requests are taken in, so several server processes agree without knowing of each other; within a process what waits
 * for the same shot is taken in together.
 */
export function journalService(source: DataSource) {
  const states = stateReader()

  /** Reads in one transaction in which nothing changes. */
  const reading = <T>(work: (tx: EntityManager) => Promise<T>): Promise<T> =>
    source.transaction('REPEATABLE READ', work)

  async function takeIn(shotId: string, jobs: readonly Job[]): Promise<Settled<JournalReply>[]> {
    const done = await source.transaction(async tx => {
      await tx.query('SELECT 1 FROM shots WHERE id = $1 FOR UPDATE', [shotId])
      const head = await headOf(tx, shotId)
      const stale = await movedOn(tx, shotId, head, jobs)
      const before = await states.at(tx, shotId, head)
      const batches = jobs.flatMap(job => job.batches.flatMap(read => (read.ok ? [read.batch] : [])))
      const known = await knownBatches(tx, shotId, [...new Set(batches.map(batch => batch.id))])
      const shelf = await assetShelf(
        tx,
        shotId,
        batches.flatMap(batch => assetsUsed(batch.ops)),
      )
      const sifted = sieve(before.document, known, shelf, roomIn(head))
      const began = performance.now()
      const answers = jobs.map((job, i) => (stale[i] ? null : judgeAll(job, sifted, began)))

      const { after, entries } = await writeDown(tx, shotId, before, sifted.result(), shelf)
      const replies: Settled<JournalReply>[] = []
      for (const [i, job] of jobs.entries()) {
        const answer = answers[i]
        if (!answer) {
          replies.push({ ok: false, error: new Problem('moved-on', 'The shot has to be opened anew.') })
          continue
        }
        const { since } = job.knows
        const earlier = since < before.seq ? await entriesAfter(tx, shotId, since) : null
        const news = earlier ?? entries.filter(entry => entry.seq > since)
        replies.push({ ok: true, value: { entries: news, head: after.seq, ...answer } })
      }
      return { after, replies }
    })
    states.keep(shotId, done.after)
    return done.replies
  }

  const post = inTurns(
    takeIn,
    REQUESTS_AT_ONCE,
    MOST_WAITING,
    () => new Problem('busy', 'Too many desks wait for this shot at the moment.'),
  )

  return {
    async read(shotId: string): Promise<OpenState> {
      const opened = await reading(async tx => {
        const head = await headOf(tx, shotId)
        const state = await states.at(tx, shotId, head)
        const rows: { batch_id: string }[] = await tx.query(
          'SELECT batch_id FROM journal WHERE shot_id = $1 AND seq <= $2 ORDER BY seq DESC LIMIT $3',
          [shotId, head.seq, RECENT_BATCHES],
        )
        return { ...state, epoch: head.epoch, recent: rows.map(row => row.batch_id) }
      })
      states.keep(shotId, { seq: opened.seq, last: opened.last, document: opened.document })
      return opened
    },

    /** What follows on what a desk knows. */
    async after(shotId: string, knows: Knows): Promise<JournalReply> {
      return reading(async tx => {
        const head = await headOf(tx, shotId)
        const [stale] = await movedOn(tx, shotId, head, [{ knows }])
        if (stale) throw new Problem('moved-on', 'The shot has to be opened anew.')
        return { entries: await entriesAfter(tx, shotId, knows.since), head: head.seq, refused: [], done: [] }
      })
    },

    /** Versions of a drawing, oldest first: the newest always, of very many an even choice. */
    versions: (shotId: string, drawing: string): Promise<VersionsReply['versions']> =>
      reading(tx => versionsIn(tx, shotId, drawing)),

    /** Stroke samples of a shot: those asked for, or all. Pictures lie with the media of the film. */
    async samples(shotId: string, ids?: readonly string[]): Promise<[string, Uint8Array][]> {
      const rows: { id: string; bytes: Buffer }[] = await source.query(
        'SELECT id, bytes FROM assets WHERE shot_id = $1 AND media IS NULL AND ($2::text[] IS NULL OR id = ANY($2))',
        [shotId, ids ?? null],
      )
      return rows.map(row => [row.id, row.bytes])
    },

    /** Takes in what a desk did: everything that can be done, in one transaction; the rest is refused with reasons. */
    async post(shotId: string, by: Doer, request: PostBatches): Promise<JournalReply> {
      const batches = readBatches(request.batches)
      if (!batches) throw new Problem('bad-request', 'batches: every batch needs an id.')
      return post(shotId, { knows: request, by, batches, sent: readAssets(request.samples) })
    },
  }
}

export type JournalService = ReturnType<typeof journalService>

/** Writes down what was taken in on what was there before. Answers with what it came to, and with its entries. */
async function writeDown(
  tx: EntityManager,
  shotId: string,
  before: State,
  { taken, document, strokeBytes, journalBytes, workMs }: ReturnType<ReturnType<typeof sieve>['result']>,
  shelf: AssetShelf,
): Promise<{ after: State; entries: JournalEntry[] }> {
  const entries = taken.map(({ batch }, i): JournalEntry => ({ seq: before.seq + i + 1, batch }))
  const after: State = {
    seq: before.seq + taken.length,
    last: entries[entries.length - 1]?.batch.id ?? before.last,
    document,
  }
  if (taken.length === 0) return { after, entries }
  const crossed = Math.floor(after.seq / ENTRIES_PER_SNAPSHOT) > Math.floor(before.seq / ENTRIES_PER_SNAPSHOT)
  const isHeavy = workMs > HEAVY_WORK_MS || journalBytes > HEAVY_BYTES
  if (crossed || isHeavy) await writeSnapshot(tx, shotId, after)
  if (shelf.fromAhead().length > 0) await tx.query(KEEP_WHAT_CAME_AHEAD, [shotId, shelf.fromAhead()])
  const media = mediaUsed(taken.flatMap(({ batch }) => batch.ops))
  if (media.length > 0) await tx.query(REMEMBER_MEDIA, [shotId, media])
  const fresh = shelf.fresh()
  await tx.query(WRITE_DOWN, [
    shotId,
    fresh.map(({ id }) => id),
    fresh.map(({ bytes }) => bytes),
    DOCUMENT_SCHEMA,
    entries.map(entry => entry.seq),
    taken.map(({ batch }) => batch.id),
    taken.map(({ account }) => account),
    taken.map(({ batch }) => batch.label),
    taken.map(({ text }) => text),
    after.seq,
    heftOf(document),
    strokeBytes,
    journalBytes,
    ANNOUNCE_CHANNEL,
    `${shotId} ${after.seq}`,
    fresh.map(({ kind }) => kind),
  ])
  return { after, entries }
}

/** Verdicts on the batches of one request, as long as there is time; the first of all is always looked at. */
function judgeAll(job: Job, sifted: ReturnType<typeof sieve>, began: number): { refused: Verdict[]; done: string[] } {
  const refused: Verdict[] = []
  const done: string[] = []
  for (const read of job.batches) {
    if (sifted.result().taken.length > 0 && performance.now() - began > WORK_MS) break
    const verdict = read.ok ? sifted.judge(read.batch, job.sent, job.by) : read.verdict
    if (verdict) refused.push(verdict)
    else if (read.ok) done.push(read.batch.id)
  }
  return { refused, done }
}

async function headOf(tx: EntityManager, shotId: string): Promise<ShotHead> {
  const [row]: {
    seq: number
    last: string | null
    stroke_bytes: string
    film_bytes: string
    removed: boolean
    epoch: string
  }[] = await tx.query(
    `SELECT s.head_seq AS seq, j.batch_id AS last, s.stroke_bytes, h.epoch,
       s.removed_at IS NOT NULL OR f.removed_at IS NOT NULL AS removed,
       (SELECT sum(stroke_bytes + journal_bytes) FROM shots WHERE film_id = s.film_id) AS film_bytes
     FROM shots s JOIN films f ON f.id = s.film_id CROSS JOIN house h
     LEFT JOIN journal j ON j.shot_id = s.id AND j.seq = s.head_seq
     WHERE s.id = $1`,
    [shotId],
  )
  if (!row) throw new Problem('not-found', 'There is no such shot.')
  if (row.removed) throw new Problem('removed', 'This shot lies in the bin. Put it back to go on with it.')
  const { seq, last, epoch } = row
  return {
    seq,
    last,
    epoch,
    strokeBytes: Number(row.stroke_bytes),
    filmBytes: Number(row.film_bytes),
  }
}

/** For each desk whether the journal is another than the one it knows: a restored database, or one of another life. */
async function movedOn(
  tx: EntityManager,
  shotId: string,
  head: ShotHead,
  desks: readonly { readonly knows: Knows }[],
): Promise<boolean[]> {
  const asked = desks.flatMap(({ knows }) =>
    knows.last && knows.since > 0 && knows.since < head.seq ? [knows.since] : [],
  )
  const rows: { seq: number; batch_id: string }[] =
    asked.length === 0
      ? []
      : await tx.query('SELECT seq, batch_id FROM journal WHERE shot_id = $1 AND seq = ANY($2)', [shotId, asked])
  const at = new Map(rows.map(row => [row.seq, row.batch_id]))
  if (head.last !== null) at.set(head.seq, head.last)
  return desks.map(
    ({ knows: { since, last, epoch } }) =>
      since > head.seq ||
      (epoch !== undefined && epoch !== head.epoch) ||
      (last !== undefined && since > 0 && at.get(since) !== last),
  )
}

/** Writes a document down whole and lets all but the one before it (and the very first) go. */
async function writeSnapshot(tx: EntityManager, shotId: string, { seq, document }: State): Promise<void> {
  const { text, hash } = written(document)
  await tx.query('INSERT INTO snapshots (shot_id, seq, document, hash) VALUES ($1, $2, $3::json, $4)', [
    shotId,
    seq,
    text,
    hash,
  ])
  await tx.query(
    `DELETE FROM snapshots WHERE shot_id = $1 AND seq <> 0 AND seq <> $2
       AND seq <> (SELECT max(seq) FROM snapshots WHERE shot_id = $1 AND seq < $2)`,
    [shotId, seq],
  )
}

/** What strokes and marks refer to concerns every drawing; of the rest only entries that name the drawing are read. */
async function versionsIn(tx: EntityManager, shotId: string, drawing: string): Promise<VersionsReply['versions']> {
  const head = await headOf(tx, shotId)
  const [start]: { text: string; at: Date }[] = await tx.query(
    `SELECT s.document::text AS text, h.created_at AS at FROM snapshots s JOIN shots h ON h.id = s.shot_id
     WHERE s.shot_id = $1 AND s.seq = 0`,
    [shotId],
  )
  if (!start) throw new Error(`shot ${shotId} has no beginning`)
  const concerning = `FROM journal WHERE shot_id = $1 AND seq <= $2
    AND (strpos(ops::text, $3) > 0 OR ops::text ~ '"kind": ?"(swatch|mark|layer)\\.')`
  const which = [shotId, head.seq, JSON.stringify(drawing)]
  const [much]: { bytes: string | null }[] = await tx.query(
    `SELECT sum(octet_length(ops::text)) AS bytes ${concerning}`,
    which,
  )
  if (Number(much?.bytes) > MOST_VERSION_BYTES) {
    throw new Problem('too-large', 'So much was done to this drawing that its making cannot be shown.')
  }
  const rows: (Parameters<typeof toEntry>[0] & { at: Date })[] = await tx.query(
    `SELECT seq, batch_id, label, schema, ops, created_at AS at ${concerning} ORDER BY seq`,
    which,
  )
  const times = new Map(rows.map(row => [row.seq, row.at]))
  const all = versionsOf(migrateDocument(JSON.parse(start.text)), rows.map(toEntry), drawing)
  const step = Math.max(1, all.length / MOST_VERSIONS)
  const chosen = Array.from(
    { length: Math.min(all.length, MOST_VERSIONS) },
    (_, i) => all[all.length - 1 - Math.round(i * step)],
  )
  return chosen
    .flatMap(version => version ?? [])
    .reverse()
    .map(version => ({ ...version, at: (times.get(version.seq) ?? start.at).toISOString() }))
}
