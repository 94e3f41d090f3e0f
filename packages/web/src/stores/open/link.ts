import {
  BATCHES_PER_REQUEST,
  EMPTY_OUTBOX,
  noLongerPending,
  receive,
  reduceOutbox,
  assetIds,
  type Batch,
  type JournalEntry,
  type Outbox,
  type OutboxEvent,
  type Replica,
} from '@unhurried/core/document'
import type { JournalReply, PostBatches, Word } from '@unhurried/contract'
import { Refused } from '../../api/ask.ts'
import { STOPPED } from '../../words/refusals.ts'
import { makeAhead, type AheadPort } from './ahead.ts'

/** A batch the server has given up for good, with its reason. */
export interface GivenUp {
  readonly batch: Batch
  readonly code: string
  readonly what: string
}

/** What a desk says it knows of the journal. */
export interface Knows {
  readonly since: number
  readonly epoch: string
  readonly last?: string
}

/** The journal that a shot was opened from, and the newest batch of it that its document has. */
export interface Opened {
  readonly epoch: string
  readonly last: string | null
}

/** What the link needs from the desk it serves. */
export interface LinkPort extends AheadPort {
  setReplica(replica: Replica): void
  setOutbox(outbox: Outbox): void
  /** makes sure the strokes that others drew are here before their drawings are */
  fetchStrokes(ids: readonly string[]): Promise<void>
  post(request: PostBatches): Promise<JournalReply>
  journal(knows: Knows): Promise<JournalReply>
  /** what the journal has is taken in, and may be kept on this machine */
  took(entries: readonly JournalEntry[]): void
  forget(batchIds: ReadonlySet<string>): void
  /** sets aside what the server will not take; what could be kept no other way must not be lost */
  park(given: readonly GivenUp[]): void
  /** the journal is another than the one this desk knows: it has to open the shot anew, and send these once more */
  movedOn(heard: readonly Batch[]): void
  /** what is done waits here, in words why; null when it does not any more */
  waits(words: string | null): void
  signedOut(): void
}

/** Batches taken in that are remembered, to be sent once more should the database lose them. */
const MOST_HEARD = 2000

/** Batches that are not pending any more, whatever became of them. */
function dropPending(port: LinkPort, ids: readonly string[]): void {
  port.setReplica(noLongerPending(port.replica(), ids))
  port.forget(new Set(ids))
}

/** Of what was sent, what was refused, with its reason. */
const givenUp = (batches: readonly Batch[], refused: JournalReply['refused']): GivenUp[] =>
  refused.flatMap(one => {
    const batch = batches.find(({ id }) => id === one.id)
    return batch ? [{ ...one, batch }] : []
  })

/** All of what was sent, given up for one reason. */
const inAnyCase = (batches: readonly Batch[], code: string, what: string): GivenUp[] =>
  batches.map(batch => ({ batch, code, what }))

/** Sets batches aside; they are not pending any more. */
function park(port: LinkPort, given: readonly GivenUp[]): void {
  if (given.length === 0) return
  port.park(given)
  dropPending(
    port,
    given.map(({ batch }) => batch.id),
  )
}

/**
 * Batches that the journal has, and that are pending all the same once its answer was taken in: they were stored, and
 * the desk was opened again, before it heard of that. They are in the document it was opened with.
 */
function settle(port: LinkPort, done: readonly string[]): void {
  const known = new Set(done)
  const ids = port.replica().pending.flatMap(batch => (known.has(batch.id) ? [batch.id] : []))
  if (ids.length) dropPending(port, ids)
}

/** Where a desk stands in the journal, and how it takes in what follows. */
function makeReading(port: LinkPort, opened: Opened, isClosed: () => boolean) {
  let taking: Promise<void> = Promise.resolve()
  let last = opened.last
  const heard: Batch[] = []

  function knows(): Knows {
    const since = port.replica().seq
    return { since, epoch: opened.epoch, ...(since > 0 && last !== null && { last }) }
  }

  async function takeNow(entries: readonly JournalEntry[]): Promise<void> {
    if (isClosed()) return
    const own = new Set(port.replica().pending.map(batch => batch.id))
    const foreign = entries.filter(entry => entry.seq > port.replica().seq && !own.has(entry.batch.id))
    await port.fetchStrokes(foreign.flatMap(entry => assetIds(entry.batch.ops)))
    // The desk may have gone on to another shot meanwhile: what came for this one is none of its business.
    if (isClosed()) return
    const before = port.replica().seq
    port.setReplica(receive(port.replica(), entries))
    const fresh = entries.filter(entry => entry.seq > before)
    last = fresh[fresh.length - 1]?.batch.id ?? last
    port.took(fresh)
    heard.push(...fresh.map(entry => entry.batch))
    heard.splice(0, Math.max(0, heard.length - MOST_HEARD))
    port.forget(new Set(entries.map(entry => entry.batch.id)))
  }

  /** Takes entries in, one answer after the other. */
  function take(entries: readonly JournalEntry[]): Promise<void> {
    // What failed before is no reason to take nothing in any more.
    taking = taking.catch(() => undefined).then(() => takeNow(entries))
    return taking
  }

  /** Asks for the rest of very many entries, part by part. */
  async function catchUp(head: number): Promise<void> {
    while (!isClosed() && port.replica().seq < head) {
      const before = port.replica().seq
      await take((await port.journal(knows())).entries)
      if (port.replica().seq === before) return
    }
  }

  /** Asks for everything that follows; refused when the journal is not the one this desk knows any more. */
  async function askAnew(): Promise<void> {
    const { entries, head } = await port.journal(knows())
    await take(entries)
    await catchUp(head)
  }

  return { knows, take, catchUp, askAnew, heard }
}

/**
 * The door to the server: sends what is pending, takes in what others did, and tries again when nobody answers. A batch is
 * given up only on the server's own verdict about that batch. Whatever else goes wrong, on the way or over there, it waits.
 */
export function makeLink(port: LinkPort, opened: Opened) {
  let outbox = EMPTY_OUTBOX
  let perRequest = BATCHES_PER_REQUEST
  let timer: ReturnType<typeof setTimeout> | undefined
  let closed = false
  /** the newest journal number heard of */
  let newest = 0
  const ahead = makeAhead(port, () => closed)
  const { knows, take, catchUp, askAnew, heard } = makeReading(port, opened, () => closed)

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

  const answered = () => dispatch({ kind: 'answered', count: port.replica().pending.length })

  /** Sends what is pending. Not in the task of the edit that asks for it: the desk is answered first, the server next. */
  async function send(): Promise<void> {
    await new Promise(nextTask => setTimeout(nextTask))
    if (closed) return
    const loaded = ahead.load(perRequest)
    const { batches, samples } = loaded
    try {
      const isThere = await ahead.go(loaded)
      if (closed) return
      if (!isThere) return letGo()
      const reply = await port.post({ ...knows(), batches, samples })
      if (closed) return
      await take(reply.entries)
      await catchUp(reply.head)
      if (closed) return
      settle(port, reply.done)
      park(port, givenUp(batches, reply.refused))
      perRequest = BATCHES_PER_REQUEST
      if (reply.done.length + reply.refused.length >= batches.length) ahead.used()
      port.waits(null)
      answered()
      // Word of others' changes that came while this was on its way.
      void fetchNews()
    } catch (error) {
      if (!closed) failed(error, batches)
    }
  }

  function failed(error: unknown, batches: readonly Batch[]): void {
    const code = error instanceof Refused ? error.code : null
    if (code === 'moved-on') return movedOn()
    if (error instanceof Refused && error.status === 401) port.signedOut()
    else if (error instanceof Refused && code !== 'server-fault') port.waits(error.message)
    if (error instanceof Refused && error.status === 413) {
      // Too much at once, for the server or for something in between: fewer go through.
      const isAlone = batches.length === 1
      perRequest = Math.max(1, Math.floor(batches.length / 4))
      if (isAlone && code === 'too-large') park(port, inAnyCase(batches, code, error.message))
      if (!isAlone || code === 'too-large') return answered()
    }
    dispatch({ kind: 'failed' })
  }

  /** The step that is on its way is set aside; the rest goes on. */
  function letGo(): void {
    const batch = ahead.stopped()
    if (batch) park(port, [{ batch, code: STOPPED, what: '' }])
    answered()
  }

  function movedOn(): void {
    close()
    port.movedOn(heard)
  }

  /** Asks for what others did. While something is being sent, its answer brings it; afterwards this is asked again. */
  async function fetchNews(): Promise<void> {
    if (closed || outbox.sending || newest <= port.replica().seq) return
    try {
      await catchUp(newest)
    } catch (error) {
      lookInto(error)
    }
  }

  /** What the next word, or the next answer to something sent, does not bring either is that the journal is another. */
  function lookInto(error: unknown): void {
    if (!closed && error instanceof Refused && error.code === 'moved-on') movedOn()
  }

  function close(): void {
    closed = true
    clearTimeout(timer)
  }

  return {
    pendingChanged: () => dispatch({ kind: 'pending', count: port.replica().pending.length }),
    retry: () => dispatch({ kind: 'retry' }),
    /** Sends the step whose pictures are on their way no more: it is set aside, whether or not anybody answers. */
    stop(): void {
      // Where nobody answers, nothing else sets it aside.
      if (ahead.stop() && !outbox.sending) letGo()
    },
    /**
     * Someone changed the shot: the journal has grown, and what was added may come along. `isFirst` is the first word after
     * listening began (again): a number behind this desk's own, or another epoch, says that the journal is another.
     */
    heard({ seq, epoch, entries = [] }: Word, isFirst = false): void {
      if (closed) return
      if (epoch !== opened.epoch || (isFirst && seq < port.replica().seq)) return void askAnew().catch(lookInto)
      newest = Math.max(newest, seq)
      const first = entries[0]
      if (first && first.seq <= port.replica().seq + 1) void take(entries).then(fetchNews, lookInto)
      else void fetchNews()
    },
    close,
  }
}

export type Link = ReturnType<typeof makeLink>
