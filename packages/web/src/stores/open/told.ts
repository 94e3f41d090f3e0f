import { migrateDocument, OpenShotReply, unpackStrokes, type MemberRole } from '@unhurried/contract'
import { openReplica, receive, type Batch, type JournalEntry, type Replica } from '@unhurried/core/document'
import { Unreachable } from '../../api/ask.ts'
import { copyOf, keepCopy } from '../../local/copies.ts'
import { wholeShot } from '../stored.ts'

/** A shot as it is laid on the desk. */
export interface Told {
  readonly name: string
  readonly film: string
  readonly filmName: string
  readonly filmStudy: string
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

/**
 * A shot as the server tells it, kept here for when nobody answers; then (if a copy will do) as it is kept. Throws Refused
 * or Unreachable.
 */
export async function tellShot(id: string, mayBeCopy: boolean): Promise<Told> {
  try {
    const { opened, packed } = await wholeShot(id)
    const told = readOpened(opened)
    // Without room for it the desk works all the same; it only does not open without a server.
    const names = { name: told.shot.name, filmName: told.filmName }
    setTimeout(() => void keepCopy({ shot: id, opened, packed }, names, told.seq).catch(() => undefined), KEEP_MS)
    return laid(told, unpackStrokes(packed), [], false)
  } catch (error) {
    const copy = mayBeCopy && error instanceof Unreachable ? await copyOf(id).catch(() => undefined) : undefined
    if (!copy) throw error
    const told = readOpened(copy.opened)
    const entries = copy.entries.filter(entry => entry.seq > told.seq)
    return laid(told, [...unpackStrokes(copy.packed), ...copy.strokes], entries, true)
  }
}

const readOpened = (bytes: Uint8Array): OpenShotReply =>
  OpenShotReply.parse(JSON.parse(new TextDecoder().decode(bytes)))

/** A shot as it was told, and what came after. */
function laid(told: OpenShotReply, samples: Told['samples'], entries: readonly JournalEntry[], isCopy: boolean): Told {
  const { shot, filmName, filmStudy, role, epoch } = told
  return {
    name: shot.name,
    film: shot.film,
    filmName,
    filmStudy,
    role,
    epoch,
    recent: [...entries.map(entry => entry.batch.id).reverse(), ...told.recent],
    samples,
    isCopy,
    replica(pending) {
      const { seq, confirmed } = receive(openReplica(told.seq, migrateDocument(told.document)), entries)
      return openReplica(seq, confirmed, pending)
    },
  }
}
