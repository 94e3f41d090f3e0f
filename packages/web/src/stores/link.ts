import {
  BATCHES_PER_REQUEST,
  EMPTY_OUTBOX,
  noLongerPending,
  receive,
  reduceOutbox,
  samplesUsed,
  type Batch,
  type JournalEntry,
  type Outbox,
  type OutboxEvent,
  type Replica,
} from '@unhurried/core/document'
import type { JournalReply, PostBatches } from '@unhurried/contract'
import { Refused } from '../api/ask.ts'

/** What the link needs from the desk it serves. */
export interface LinkPort {
  replica(): Replica
  setReplica(replica: Replica): void
  setOutbox(outbox: Outbox): void
  /** bytes of strokes that the server may not have yet */
  unsent(ids: readonly string[]): Map<string, Uint8Array>
  /** makes sure the strokes that others drew are here before their drawings are */
  fetchStrokes(ids: readonly string[]): Promise<void>
  post(request: PostBatches): Promise<JournalReply>
  journal(after: number): Promise<JournalReply>
  forget(batchIds: ReadonlySet<string>): void
  /** something could not be kept; `what` is in words. Another desk was `first`, or the server finds it `unfit` */
  lost(labels: readonly string[], what: string, why: 'first' | 'unfit'): void
  signedOut(): void
}

function toBase64(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return btoa(text)
}

/** The door to the server: sends what is pending, takes in what others did, and tries again when nobody answers. */
export function makeLink(port: LinkPort) {
  let outbox = EMPTY_OUTBOX
  let perRequest = BATCHES_PER_REQUEST
  let timer: ReturnType<typeof setTimeout> | undefined
  let closed = false
  let taking: Promise<void> = Promise.resolve()
  /** the newest journal number heard of */
  let newest = 0

  function dispatch(event: OutboxEvent): void {
    if (closed) return
    const { state, effect } = reduceOutbox(outbox, event)
    outbox = state
    port.setOutbox(state)
    if (effect.kind === 'send') void send()
    if (effect.kind === 'wait') {
      clearTimeout(timer)
      timer = setTimeout(() => dispatch({ kind: 'retry' }), effect.ms)
    }
  }

  /** Sends what is pending. Not in the task of the edit that asks for it: the desk is answered first, the server next. */
  async function send(): Promise<void> {
    await new Promise(nextTask => setTimeout(nextTask))
    if (closed) return
    const batches = port.replica().pending.slice(0, perRequest)
    const samples = port.unsent(batches.flatMap(batch => samplesUsed(batch.ops)))
    try {
      const reply = await port.post({
        since: port.replica().seq,
        batches: [...batches],
        samples: Object.fromEntries([...samples].map(([id, bytes]) => [id, toBase64(bytes)])),
      })
      await take(reply.entries)
      settle(reply.done)
      refuse(
        reply.refused.map(r => ({ id: r.id, what: `${r.code}: ${r.what}` })),
        'first',
      )
      perRequest = BATCHES_PER_REQUEST
      dispatch({ kind: 'answered', count: port.replica().pending.length })
      // Word of others' changes that came while this was on its way.
      void fetchNews()
    } catch (error) {
      failed(error, batches)
    }
  }

  function failed(error: unknown, batches: readonly Batch[]): void {
    if (error instanceof Refused && error.status === 401) port.signedOut()
    const hopeless = error instanceof Refused && [400, 403, 404, 413].includes(error.status)
    if (!hopeless) return dispatch({ kind: 'failed' })
    // One of them cannot be sent at all: find it by sending them one at a time, so that the others are kept.
    if (batches.length > 1) perRequest = 1
    else
      refuse(
        batches.map(batch => ({ id: batch.id, what: error.message })),
        'unfit',
      )
    dispatch({ kind: 'answered', count: port.replica().pending.length })
  }

  function dropPending(ids: readonly string[]): void {
    port.setReplica(noLongerPending(port.replica(), ids))
    port.forget(new Set(ids))
  }

  /**
   * Batches that the journal has, and that are pending all the same once its answer was taken in: they were stored, and
   * the desk was opened again, before it heard of that. They are in the document it was opened with.
   */
  function settle(done: readonly string[]): void {
    const known = new Set(done)
    const ids = port.replica().pending.flatMap(batch => (known.has(batch.id) ? [batch.id] : []))
    if (ids.length) dropPending(ids)
  }

  function refuse(refused: readonly { id: string; what: string }[], why: 'first' | 'unfit'): void {
    if (refused.length === 0) return
    const ids = refused.map(r => r.id)
    const labels = port
      .replica()
      .pending.filter(batch => ids.includes(batch.id))
      .map(batch => batch.label)
    dropPending(ids)
    port.lost(labels, refused[0]?.what ?? '', why)
  }

  /** Takes entries in, one answer after the other. */
  function take(entries: readonly JournalEntry[]): Promise<void> {
    // What failed before is no reason to take nothing in any more.
    taking = taking
      .catch(() => undefined)
      .then(async () => {
        const own = new Set(port.replica().pending.map(batch => batch.id))
        const foreign = entries.filter(entry => entry.seq > port.replica().seq && !own.has(entry.batch.id))
        await port.fetchStrokes(foreign.flatMap(entry => samplesUsed(entry.batch.ops)))
        port.setReplica(receive(port.replica(), entries))
        port.forget(new Set(entries.map(entry => entry.batch.id)))
      })
    return taking
  }

  /** Asks for what others did. While something is being sent, its answer brings it; afterwards this is asked again. */
  async function fetchNews(): Promise<void> {
    if (closed || outbox.sending || newest <= port.replica().seq) return
    try {
      await take((await port.journal(port.replica().seq)).entries)
    } catch {
      // The next word, or the next answer to something sent, brings what is missing.
    }
  }

  return {
    pendingChanged: () => dispatch({ kind: 'pending', count: port.replica().pending.length }),
    retry: () => dispatch({ kind: 'retry' }),
    /** Someone changed the shot: the journal has grown to `seq`. */
    heard(seq: number): void {
      newest = Math.max(newest, seq)
      void fetchNews()
    },
    close(): void {
      closed = true
      clearTimeout(timer)
    },
  }
}

export type Link = ReturnType<typeof makeLink>
