import { migrateOperations } from '@unhurried/contract'
import {
  DOCUMENT_SCHEMA,
  type Batch,
  type Clip,
  type History,
  type JournalEntry,
  type Step,
} from '@unhurried/core/document'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

export interface Local extends DBSchema {
  /** batches that the server has not confirmed, in the order they were done */
  pending: {
    key: number
    /** written without a schema: the first */
    value: { shot: string; batch: Batch; schema?: number }
    indexes: { shot: string }
  }
  /** stroke samples used by them */
  samples: {
    key: [shot: string, id: string]
    value: { shot: string; id: string; bytes: Uint8Array }
    indexes: { shot: string }
  }
  /** undo and redo of each desk (tab), the last one used also under the shot alone */
  history: { key: string; value: History & { schema?: number } }
  /** batches that the server will never take, with all that is needed to lay them down again */
  parked: { key: number; value: StoredParked; indexes: { shot: string } }
  /** the stretch of a sheet last copied, for pasting it anywhere on this machine */
  clips: { key: 'sheet'; value: HeldClip & { schema: number } }
  /** shots as they were when they were last opened: what is told of them, their bytes, what the server took in since, its strokes */
  copies: { key: string; value: StoredCopy }
  copyBytes: { key: string; value: CopyBytes }
  copyEntries: { key: [shot: string, seq: number]; value: { shot: string; entry: JournalEntry; schema: number } }
  /** recordings and clips of films: those that are on their way to the server, and those that were fetched */
  media: { key: [film: string, id: string]; value: StoredMedia }
  copyStrokes: { key: [shot: string, id: string]; value: { shot: string; id: string; bytes: Uint8Array } }
}

/** A recording or clip as it is kept here. */
export interface StoredMedia {
  readonly film: string
  /** SHA-256 of its bytes */
  readonly id: string
  readonly name: string
  readonly bytes: Uint8Array
  /** the server has it; without that it is never let go */
  readonly sent: boolean
  /** when it was last wanted, ms since 1970 */
  readonly at: number
}

/** What is told of a shot that is kept here. */
export interface StoredCopy {
  readonly shot: string
  readonly name: string
  readonly filmName: string
  /** when it was opened, ms since 1970 */
  readonly at: number
  /** how large it is, in bytes */
  readonly size: number
}

/** A shot as the server told it, in the bytes that came: nothing of it has to be copied thing by thing. */
export interface CopyBytes {
  readonly shot: string
  /** the answer to opening it, JSON */
  readonly opened: Uint8Array
  /** its strokes, packed */
  readonly packed: Uint8Array
}

/** A batch that was given up by the server, with its reason and its strokes. */
export interface Parked {
  readonly key: number
  readonly batch: Batch
  readonly code: string
  readonly what: string
  /** when it was set aside, ms since 1970 */
  readonly at: number
  readonly samples: ReadonlyMap<string, Uint8Array>
}
type StoredParked = Omit<Parked, 'key'> & { shot: string; schema: number }

/** A copied stretch with the stroke samples of its drawings. */
export interface HeldClip {
  readonly clip: Clip
  readonly samples: ReadonlyMap<string, Uint8Array>
}

let opened: Promise<IDBPDatabase<Local>> | undefined

export const database = () =>
  (opened ??= openDB<Local>('unhurried-sketch', 5, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('pending', { autoIncrement: true }).createIndex('shot', 'shot')
        db.createObjectStore('samples', { keyPath: ['shot', 'id'] }).createIndex('shot', 'shot')
        db.createObjectStore('history')
      }
      if (from < 2) db.createObjectStore('clips')
      if (from < 3) db.createObjectStore('parked', { autoIncrement: true }).createIndex('shot', 'shot')
      if (from < 4) {
        db.createObjectStore('copies', { keyPath: 'shot' })
        db.createObjectStore('copyBytes', { keyPath: 'shot' })
        db.createObjectStore('copyEntries', { keyPath: ['shot', 'entry.seq'] })
        db.createObjectStore('copyStrokes', { keyPath: ['shot', 'id'] })
      }
      if (from < 5) db.createObjectStore('media', { keyPath: ['film', 'id'] })
    },
    // A tab of an older version must not keep a newer one waiting.
    blocking(_from, _to, event) {
      ;(event.target as IDBDatabase).close()
    },
  }))

/** What a desk left unfinished on this machine. */
export interface Leftover {
  readonly batches: Batch[]
  readonly samples: Map<string, Uint8Array>
}

export async function leftover(shot: string): Promise<Leftover> {
  const db = await database()
  const pending = await db.getAllFromIndex('pending', 'shot', shot)
  const samples = await db.getAllFromIndex('samples', 'shot', shot)
  return {
    batches: pending.map(row => ({ ...row.batch, ops: migrateOperations(row.batch.ops, row.schema ?? 1) })),
    samples: new Map(samples.map(row => [row.id, row.bytes])),
  }
}

/** Writes a batch and its new samples down before anything else can happen to them. */
export async function keep(shot: string, batch: Batch, samples: ReadonlyMap<string, Uint8Array>): Promise<void> {
  const tx = (await database()).transaction(['pending', 'samples'], 'readwrite', { durability: 'strict' })
  void tx.objectStore('pending').add({ shot, batch, schema: DOCUMENT_SCHEMA })
  for (const [id, bytes] of samples) void tx.objectStore('samples').put({ shot, id, bytes })
  await tx.done
}

/** Forgets batches that the server has, or has refused, and samples that nothing pending uses any more. */
export async function forget(shot: string, done: ReadonlySet<string>, samples: readonly string[]): Promise<void> {
  const tx = (await database()).transaction(['pending', 'samples'], 'readwrite')
  let cursor = await tx.objectStore('pending').index('shot').openCursor(shot)
  while (cursor) {
    if (done.has(cursor.value.batch.id)) await cursor.delete()
    cursor = await cursor.continue()
  }
  for (const id of samples) void tx.objectStore('samples').delete([shot, id])
  await tx.done
}

/** Puts other batches in place of all that a shot has waiting: those that have to be sent once more, and the rest. */
export async function keepInstead(
  shot: string,
  batches: readonly Batch[],
  samples: ReadonlyMap<string, Uint8Array>,
): Promise<void> {
  const tx = (await database()).transaction(['pending', 'samples'], 'readwrite', { durability: 'strict' })
  for (const key of await tx.objectStore('pending').index('shot').getAllKeys(shot)) {
    void tx.objectStore('pending').delete(key)
  }
  for (const batch of batches) void tx.objectStore('pending').add({ shot, batch, schema: DOCUMENT_SCHEMA })
  for (const [id, bytes] of samples) void tx.objectStore('samples').put({ shot, id, bytes })
  await tx.done
}

/** Sets batches aside and takes them off what waits, in one go: at no moment are they nowhere. Answers with their keys. */
export async function park(shot: string, batches: readonly Omit<Parked, 'key'>[]): Promise<number[]> {
  const tx = (await database()).transaction(['parked', 'pending'], 'readwrite', { durability: 'strict' })
  const keys = batches.map(parked => tx.objectStore('parked').add({ ...parked, shot, schema: DOCUMENT_SCHEMA }))
  const ids = new Set(batches.map(({ batch }) => batch.id))
  let cursor = await tx.objectStore('pending').index('shot').openCursor(shot)
  while (cursor) {
    if (ids.has(cursor.value.batch.id)) await cursor.delete()
    cursor = await cursor.continue()
  }
  await tx.done
  return Promise.all(keys)
}

/** What lies set aside of a shot, oldest first. */
export async function parkedOf(shot: string): Promise<Parked[]> {
  const tx = (await database()).transaction('parked')
  const parked: Parked[] = []
  let cursor = await tx.store.index('shot').openCursor(shot)
  while (cursor) {
    const { batch, schema, code, what, at, samples } = cursor.value
    const ops = migrateOperations(batch.ops, schema)
    parked.push({ key: cursor.primaryKey, batch: { ...batch, ops }, code, what, at, samples })
    cursor = await cursor.continue()
  }
  return parked
}

export const unpark = async (key: number): Promise<void> => (await database()).delete('parked', key)

/** The history of a desk, or of the desk last used on the shot. */
export async function readHistory(shot: string, desk: string): Promise<History | undefined> {
  const db = await database()
  const kept = (await db.get('history', `${shot} ${desk}`)) ?? (await db.get('history', shot))
  if (!kept) return undefined
  const asNow = (steps: readonly Step[]) =>
    steps.map(step => ({ ...step, ops: migrateOperations(step.ops, kept.schema ?? 1) }))
  return { undo: asNow(kept.undo), redo: asNow(kept.redo) }
}

export async function keepHistory(shot: string, desk: string, history: History): Promise<void> {
  const tx = (await database()).transaction('history', 'readwrite')
  const kept = { ...history, schema: DOCUMENT_SCHEMA }
  void tx.store.put(kept, `${shot} ${desk}`)
  void tx.store.put(kept, shot)
  await tx.done
}

export const keepClip = async (held: HeldClip): Promise<void> =>
  void (await (await database()).put('clips', { ...held, schema: DOCUMENT_SCHEMA }, 'sheet'))

/** The stretch last copied on this machine; one of another schema is let go. */
export async function readClip(): Promise<HeldClip | undefined> {
  const held = await (await database()).get('clips', 'sheet')
  return held?.schema === DOCUMENT_SCHEMA ? held : undefined
}
