import { migrateOperations } from '@unhurried/contract'
import { DOCUMENT_SCHEMA, assetIds, type JournalEntry } from '@unhurried/core/document'
import { database, type CopyBytes, type StoredCopy } from './database.ts'

/** So many shots, and so many bytes of them, stay on this machine; those opened longest ago go first. */
const MOST_COPIES = 40
const MOST_BYTES = 256 * 1024 * 1024
const STORES = ['copies', 'copyBytes', 'copyEntries', 'copyStrokes'] as const

/** All entries and strokes of one shot. */
const ofShot = (shot: string) => IDBKeyRange.bound([shot], [shot, []])

/** A shot kept here: as it was opened, what came after, and the strokes of that. */
export interface Copy extends CopyBytes {
  readonly entries: readonly JournalEntry[]
  readonly strokes: ReadonlyMap<string, Uint8Array>
}

/** Keeps a shot as it was opened with entries up to `seq` in it; what was kept before is part of that. Others make room. */
export async function keepCopy(
  { shot, opened, packed }: CopyBytes,
  told: Pick<StoredCopy, 'name' | 'filmName'>,
  seq: number,
): Promise<void> {
  const tx = (await database()).transaction(STORES, 'readwrite')
  void tx.objectStore('copies').put({ shot, ...told, at: Date.now(), size: opened.length + packed.length })
  void tx.objectStore('copyBytes').put({ shot, opened, packed })
  void tx.objectStore('copyEntries').delete(IDBKeyRange.bound([shot, 0], [shot, seq]))
  const all = (await tx.objectStore('copies').getAll()).sort((a, b) => b.at - a.at)
  let bytes = 0
  for (const [i, one] of all.entries()) {
    bytes += one.size
    if (i === 0 || (i < MOST_COPIES && bytes <= MOST_BYTES)) continue
    void tx.objectStore('copies').delete(one.shot)
    void tx.objectStore('copyBytes').delete(one.shot)
    void tx.objectStore('copyEntries').delete(ofShot(one.shot))
    void tx.objectStore('copyStrokes').delete(ofShot(one.shot))
  }
  await tx.done
}

/** Keeps what the server took in since a shot was opened. */
export async function keepEntries(
  shot: string,
  entries: readonly JournalEntry[],
  bytes: (id: string) => Uint8Array | undefined,
): Promise<void> {
  const tx = (await database()).transaction(['copyEntries', 'copyStrokes'], 'readwrite')
  for (const entry of entries) {
    void tx.objectStore('copyEntries').put({ shot, entry, schema: DOCUMENT_SCHEMA })
    for (const id of assetIds(entry.batch.ops)) {
      const stroke = bytes(id)
      if (stroke) void tx.objectStore('copyStrokes').put({ shot, id, bytes: stroke })
    }
  }
  await tx.done
}

/** A shot as it is kept here, or nothing. */
export async function copyOf(shot: string): Promise<Copy | undefined> {
  const tx = (await database()).transaction(STORES)
  const bytes = await tx.objectStore('copyBytes').get(shot)
  if (!bytes) return undefined
  const entries = await tx.objectStore('copyEntries').getAll(ofShot(shot))
  const strokes = await tx.objectStore('copyStrokes').getAll(ofShot(shot))
  return {
    ...bytes,
    entries: entries.map(({ entry, schema }) => ({
      seq: entry.seq,
      batch: { ...entry.batch, ops: migrateOperations(entry.batch.ops, schema) },
    })),
    strokes: new Map(strokes.map(row => [row.id, row.bytes])),
  }
}

/** The shots kept here, the one opened last first. */
export async function copies(): Promise<StoredCopy[]> {
  return (await (await database()).getAll('copies')).sort((a, b) => b.at - a.at)
}

/** Nothing of any shot stays here: who sat at this machine got up. */
export async function forgetCopies(): Promise<void> {
  const tx = (await database()).transaction(STORES, 'readwrite')
  for (const store of STORES) void tx.objectStore(store).clear()
  await tx.done
}
