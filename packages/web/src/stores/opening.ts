import { migrateDocument, unpackStrokes, type MemberRole } from '@unhurried/contract'
import { openReplica, receive, type Batch, type Replica } from '@unhurried/core/document'
import { Unreachable } from '../api/ask.ts'
import * as calls from '../api/calls.ts'
import { copyOf, keepCopy } from '../local/copies.ts'

/** A shot as it is laid on the desk. */
export interface Told {
  readonly name: string
  readonly filmName: string
  readonly role: MemberRole
  readonly epoch: string
  /** ids of batches that the document has, the newest first */
  readonly recent: readonly string[]
  readonly samples: Iterable<readonly [string, Uint8Array]>
  replica(pending: readonly Batch[]): Replica
  /** whether it is what this machine has kept, since nobody answers */
  readonly isCopy: boolean
}

/** What was opened is kept here once the desk is quiet. */
const KEEP_MS = 2500

/** A shot as the server tells it, kept here for when nobody answers; then (if a copy will do) as it is kept. Throws Refused or Unreachable. */
export async function tellShot(id: string, mayBeCopy: boolean): Promise<Told> {
  try {
    const [opened, packed] = await Promise.all([calls.shot.open(id), calls.shot.sampleBytes(id)])
    const { shot, filmName, role, epoch, seq, recent, document } = opened
    const copy = { shot: id, name: shot.name, filmName, role, epoch, seq, recent, document, packed, at: Date.now() }
    // Without room for it the desk works all the same; it only does not open without a server.
    setTimeout(() => void keepCopy(copy).catch(() => undefined), KEEP_MS)
    return {
      ...copy,
      samples: unpackStrokes(packed),
      replica: pending => openReplica(seq, migrateDocument(document), pending),
      isCopy: false,
    }
  } catch (error) {
    const copy = mayBeCopy && error instanceof Unreachable ? await copyOf(id).catch(() => undefined) : undefined
    if (!copy) throw error
    const { seq, confirmed } = receive(
      openReplica(copy.seq, migrateDocument(copy.document as { schema: number })),
      copy.entries,
    )
    const since = copy.entries.map(entry => entry.batch.id).reverse()
    return {
      ...copy,
      recent: [...since, ...copy.recent],
      samples: [...unpackStrokes(copy.packed), ...copy.strokes],
      replica: pending => openReplica(seq, confirmed, pending),
      isCopy: true,
    }
  }
}
