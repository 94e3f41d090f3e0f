import { assetIds, type Batch } from '@unhurried/core/document'
import { strokeBook } from '../../paint/strokes.ts'

type Bytes = Uint8Array
type Samples = ReadonlyMap<string, Bytes>

/** The stroke samples of the shot on the desk, and which of them the server may not have yet. */
export function makeOwnStrokes() {
  const all = new Map<string, Bytes>()
  const unsent = new Map<string, Bytes>()
  const book = strokeBook({ bytes: id => all.get(id) })
  const among = (samples: Samples, ids: readonly string[]): Map<string, Bytes> =>
    new Map(ids.flatMap(id => (samples.has(id) ? [[id, samples.get(id) as Bytes] as const] : [])))

  return {
    book,
    bytes: (id: string): Bytes | undefined => all.get(id),
    /** all as they are now, to be kept beyond putting the shot away */
    copy: (): Samples => new Map(all),
    /** takes samples in that the server has */
    take(samples: Iterable<readonly [string, Bytes]>): void {
      for (const [id, bytes] of samples) all.set(id, bytes)
    },
    /** takes samples in that were made here */
    make(samples: Iterable<readonly [string, Bytes]>): void {
      for (const [id, bytes] of samples) {
        all.set(id, bytes)
        unsent.set(id, bytes)
      }
    },
    missing: (ids: readonly string[]): string[] => [...new Set(ids)].filter(id => !all.has(id)),
    unsent: (ids: readonly string[]) => among(unsent, ids),
    /** samples that batches bring */
    brought: (batches: readonly Batch[]) =>
      among(
        all,
        batches.flatMap(batch => assetIds(batch.ops)),
      ),
    /** Keeps of what was unsent only what batches still waiting bring; answers with what is sent. */
    onlyFor(pending: readonly Batch[]): string[] {
      const used = new Set(pending.flatMap(batch => assetIds(batch.ops)))
      const sent = [...unsent.keys()].filter(id => !used.has(id))
      for (const id of sent) unsent.delete(id)
      return sent
    },
    forget(): void {
      all.clear()
      unsent.clear()
      book.forget()
    },
  }
}

export type OwnStrokes = ReturnType<typeof makeOwnStrokes>
