import { migrateOperations } from '@unhurried/contract'
import { DOCUMENT_SCHEMA, type Batch, type Clip, type History, type Step } from '@unhurried/core/document'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

interface Local extends DBSchema {
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
  /** the stretch of a sheet last copied, for pasting it anywhere on this machine */
  clips: { key: 'sheet'; value: HeldClip & { schema: number } }
}

/** A copied stretch with the stroke samples of its drawings. */
export interface HeldClip {
  readonly clip: Clip
  readonly samples: ReadonlyMap<string, Uint8Array>
}

let opened: Promise<IDBPDatabase<Local>> | undefined

const database = () =>
  (opened ??= openDB<Local>('unhurried-sketch', 2, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('pending', { autoIncrement: true }).createIndex('shot', 'shot')
        db.createObjectStore('samples', { keyPath: ['shot', 'id'] }).createIndex('shot', 'shot')
        db.createObjectStore('history')
      }
      if (from < 2) db.createObjectStore('clips')
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
