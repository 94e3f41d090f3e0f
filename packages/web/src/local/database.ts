import type { Batch, History } from '@unhurried/core/document'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

interface Local extends DBSchema {
  /** batches that the server has not confirmed, in the order they were done */
  pending: {
    key: number
    value: { shot: string; batch: Batch }
    indexes: { shot: string }
  }
  /** stroke samples used by them */
  samples: {
    key: [shot: string, id: string]
    value: { shot: string; id: string; bytes: Uint8Array }
    indexes: { shot: string }
  }
  /** undo and redo of each desk (tab), the last one used also under the shot alone */
  history: { key: string; value: History }
}

let opened: Promise<IDBPDatabase<Local>> | undefined

const database = () =>
  (opened ??= openDB<Local>('unhurried-sketch', 1, {
    upgrade(db) {
      db.createObjectStore('pending', { autoIncrement: true }).createIndex('shot', 'shot')
      db.createObjectStore('samples', { keyPath: ['shot', 'id'] }).createIndex('shot', 'shot')
      db.createObjectStore('history')
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
  return { batches: pending.map(row => row.batch), samples: new Map(samples.map(row => [row.id, row.bytes])) }
}

/** Writes a batch and its new samples down before anything else can happen to them. */
export async function keep(shot: string, batch: Batch, samples: ReadonlyMap<string, Uint8Array>): Promise<void> {
  const tx = (await database()).transaction(['pending', 'samples'], 'readwrite', { durability: 'strict' })
  void tx.objectStore('pending').add({ shot, batch })
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
  return (await db.get('history', `${shot} ${desk}`)) ?? (await db.get('history', shot))
}

export async function keepHistory(shot: string, desk: string, history: History): Promise<void> {
  const tx = (await database()).transaction('history', 'readwrite')
  void tx.store.put(history, `${shot} ${desk}`)
  void tx.store.put(history, shot)
  await tx.done
}
