import type { AssetRef } from '@unhurried/core/assets'
import { assetIds, assetsUsed, type Batch, type Replica } from '@unhurried/core/document'
import { toBase64 } from '../../local/base64.ts'

/** Requests are kept well under what the server takes at a time. */
const FULL_REQUEST_BYTES = 4 * 1024 * 1024

/** What a batch brings goes ahead of it, one by one, when it is more than this: a step with many pictures is still one step. */
const GOES_AHEAD_BYTES = 1024 * 1024

/** A step with many pictures on its way: how many bytes of it are there. */
export interface Ahead {
  readonly label: string
  readonly sentBytes: number
  readonly ofBytes: number
}

/** What is needed of the desk to send what it waits with. */
export interface AheadPort {
  replica(): Replica
  /** bytes of strokes that the server may not have yet */
  unsent(ids: readonly string[]): Map<string, Uint8Array>
  /**
   * Sends a stored thing before the batch that uses it; `goesOn` hears how many of its bytes are there and says whether the rest is wanted.
   * Whether all of it is there.
   */
  sendAhead(ref: AssetRef, bytes: Uint8Array, goesOn: (sentBytes: number) => boolean): Promise<boolean>
  /** how far a step with many pictures has got; null when none is on its way any more */
  ahead(way: Ahead | null): void
}

/** The next request: its batches, the strokes they bring, and what has to be sent before it. */
export interface Load {
  readonly batches: Batch[]
  readonly samples: Record<string, string>
  readonly ahead: readonly (readonly [AssetRef, Uint8Array])[]
}

/** The batches of the next request with their strokes: at most `most`, and no more bytes than go at a time. `there` was sent ahead before. */
function load(port: AheadPort, most: number, there: ReadonlySet<string>): Load {
  const batches: Batch[] = []
  const samples: Record<string, string> = {}
  const ahead: [AssetRef, Uint8Array][] = []
  let bytes = 0
  for (const batch of port.replica().pending.slice(0, most)) {
    const brought = [...port.unsent(assetIds(batch.ops))].filter(([id]) => !(id in samples))
    const goesAhead = brought.reduce((sum, [, b]) => sum + b.length, 0) > GOES_AHEAD_BYTES
    const strokes = goesAhead ? [] : brought
    if (goesAhead) {
      if (batches.length > 0) break
      const own = new Map(brought)
      for (const ref of assetsUsed(batch.ops)) {
        const b = own.get(ref.id)
        if (b && !there.has(ref.id)) ahead.push([ref, b])
        own.delete(ref.id)
      }
    }
    bytes += JSON.stringify(batch.ops).length + strokes.reduce((sum, [, b]) => sum + b.length * 1.4, 0)
    if (batches.length > 0 && bytes > FULL_REQUEST_BYTES) break
    batches.push(batch)
    for (const [id, b] of strokes) samples[id] = toBase64(b)
  }
  return { batches, samples, ahead }
}

/**
 * Sends what is more than a request holds, one by one; what was cut off goes on behind the last piece that arrived. Whether all of it is
 * there: it is not when nobody wants it any more.
 */
async function goAhead(
  port: AheadPort,
  { ahead, batches }: Load,
  there: Set<string>,
  isWanted: () => boolean,
): Promise<boolean> {
  const label = batches[0]?.label ?? ''
  const ofBytes = ahead.reduce((sum, [, bytes]) => sum + bytes.length, 0)
  let before = 0
  for (const [ref, bytes] of ahead) {
    const goesOn = (sent: number): boolean => {
      if (isWanted()) port.ahead({ label, sentBytes: before + sent, ofBytes })
      return isWanted()
    }
    if (!goesOn(0) || !(await port.sendAhead(ref, bytes, goesOn))) return false
    there.add(ref.id)
    before += bytes.length
  }
  return isWanted()
}

/** What is sent next, and what goes ahead of it: a step with many pictures is on its way for a while, can be stopped, and goes on where it was cut off. */
export function makeAhead(port: AheadPort, isClosed: () => boolean) {
  /** what was sent ahead of a batch that is not there yet */
  const there = new Set<string>()
  let onItsWay: Batch | null = null
  let isStopped = false

  function landed(): void {
    onItsWay = null
    isStopped = false
    port.ahead(null)
  }

  return {
    /** the next request, of at most so many batches */
    load: (most: number): Load => load(port, most, there),
    /** Sends what goes ahead of a request. Whether it is all there, and the request can follow. */
    async go(loaded: Load): Promise<boolean> {
      onItsWay = loaded.ahead.length > 0 ? (loaded.batches[0] ?? null) : null
      const isThere = await goAhead(port, loaded, there, () => !isClosed() && !isStopped)
      if (isThere) landed()
      return isThere
    },
    /** Everything that went ahead is used. */
    used: () => there.clear(),
    /** The step that is on its way is wanted no more. Whether one is. */
    stop: (): boolean => (isStopped = onItsWay !== null),
    /** The step that was stopped. */
    stopped(): Batch | null {
      const batch = onItsWay
      landed()
      return batch
    },
  }
}
