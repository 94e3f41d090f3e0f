import type { Batch, JournalEntry, Outbox, Replica } from '@unhurried/core/document'
import type { PostBatches } from '@unhurried/contract'
import { markRaw } from 'vue'
import * as calls from '../../api/calls.ts'
import { sendPieces } from '../../api/pieces.ts'
import { keepEntries } from '../../local/copies.ts'
import * as local from '../../local/database.ts'
import { hashOf } from '../../local/hash.ts'
import { verdictInWords } from '../../words/refusals.ts'
import { storedNamed } from '../stored.ts'
import type { GivenUp, Knows, LinkPort } from './link.ts'
import type { OwnStrokes } from './ownStrokes.ts'
import type { Parked } from './parked.ts'
import type { OpenState } from './state.ts'

/** What the shot on the desk is made of. */
export interface OpenParts {
  readonly state: OpenState
  readonly strokes: OwnStrokes
  readonly parked: Parked
}

/**
 * The desk as the link to one shot sees it. `isHere` says whether the desk is still at that shot: whatever is answered after it has
 * gone on touches nothing here any more.
 */
export function portOf(
  { state, strokes, parked }: OpenParts,
  shotId: string,
  isHere: () => boolean,
  movedOn: (heard: readonly Batch[]) => void,
): LinkPort {
  const { replica, notice } = state
  return {
    replica: () => replica.value as Replica,
    setReplica: (next: Replica) => void (replica.value = markRaw(next)),
    setOutbox: (next: Outbox) => void (state.outbox.value = next),
    unsent: strokes.unsent,
    async fetchStrokes(ids: readonly string[]) {
      const missing = strokes.missing(ids)
      if (missing.length === 0) return
      const fetched = await storedNamed(shotId, state.film.value, missing)
      if (isHere()) strokes.take(fetched)
    },
    async sendAhead(ref, bytes, goesOn) {
      if (ref.kind !== 'picture') {
        await calls.shot.ahead(shotId, ref, bytes)
        return goesOn(bytes.length)
      }
      const [film, name] = [state.film.value, await hashOf(bytes as Uint8Array<ArrayBuffer>)]
      if (!(await sendPieces(film, name, bytes, goesOn))) return false
      await calls.shot.named(shotId, ref.id, name)
      return true
    },
    ahead: way => void (state.ahead.value = way),
    post: (request: PostBatches) => calls.shot.post(shotId, request),
    journal: (knows: Knows) => calls.shot.journal(shotId, knows),
    took: (entries: readonly JournalEntry[]) => void keepEntries(shotId, entries, strokes.bytes).catch(() => undefined),
    forget(batchIds: ReadonlySet<string>) {
      void local.forget(shotId, batchIds, strokes.onlyFor(replica.value?.pending ?? []))
    },
    park(given: readonly GivenUp[]) {
      const [first] = given
      if (!first) return
      const what = given.length === 1 ? `“${first.batch.label}” is` : `${given.length} changes are`
      notice.value = `${what} set aside: ${verdictInWords(first.code, first.what)}. Nothing is lost; see “set aside” above.`
      parked
        .add(shotId, given, strokes.bytes)
        .catch(() => (notice.value = 'This machine’s storage is full or closed: save what is set aside as a file.'))
    },
    movedOn,
    waits: (words: string | null) => void (state.waiting.value = words ?? ''),
    signedOut: () => void (state.signedOut.value = true),
  }
}
