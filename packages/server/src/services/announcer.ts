import pg from 'pg'
import type { Logger } from 'pino'
import { PATIENCE } from '../db/connect.ts'
import { ANNOUNCE_CHANNEL } from './journal.ts'

type Hearer = (seq: number) => unknown

/** Access that was taken away: a session ended, a member taken off a film, a film or shot put in the bin. */
export type AccessGone =
  | { readonly kind: 'session'; readonly session: string }
  | { readonly kind: 'member'; readonly film: string; readonly account: string }
  | { readonly kind: 'film' | 'shot'; readonly id: string }

const ACCESS_CHANNEL = 'access_changed'
const RECONNECT_MS = 1000
/** A connection that nothing comes over may be dead without anybody being told: it is asked now and then. */
const ASK_MS = 10_000

export interface Patience {
  readonly askMs: number
  readonly answerMs: number
}

/**
 * Passes on that a shot's journal has grown, whichever server process took the change in: one database connection
 * listens, any number of desks hear. A lost connection, or one that does not answer any more, is made again; what was
 * missed meanwhile is told.
 */
export function announcer(
  url: string,
  log: Logger,
  { askMs, answerMs }: Patience = { askMs: ASK_MS, answerMs: PATIENCE.lockMs },
) {
  const hearers = new Map<string, Set<Hearer>>()
  const guards = new Set<(gone: AccessGone) => void>()
  let client: pg.Client | null = null
  let closed = false
  let retry: NodeJS.Timeout | undefined
  let asking: NodeJS.Timeout | undefined

  /** What one who hears does wrong is written down; the others still hear, and the process goes on. */
  function safely(doing: () => unknown): void {
    const wrong = (error: unknown) => log.error({ err: error }, 'one who was told of a change failed')
    try {
      Promise.resolve(doing()).catch(wrong)
    } catch (error) {
      wrong(error)
    }
  }

  function tell(shot: string, seq: number): void {
    for (const hearer of hearers.get(shot) ?? []) safely(() => hearer(seq))
  }

  async function listen(): Promise<void> {
    if (closed) return
    const next = new pg.Client({
      connectionString: url,
      keepAlive: true,
      keepAliveInitialDelayMillis: 5_000,
      connectionTimeoutMillis: PATIENCE.connectMs,
      query_timeout: answerMs,
    })
    client = next
    next.on('error', error => log.warn({ err: error }, 'the listening connection failed'))
    next.on('end', () => client === next && listenAgain())
    next.on('notification', ({ channel, payload = '' }) => {
      if (channel === ACCESS_CHANNEL) return tellGone(payload)
      const [shot = '', seq] = payload.split(' ')
      tell(shot, Number(seq))
    })
    await next.connect()
    await next.query(`LISTEN ${ANNOUNCE_CHANNEL}; LISTEN ${ACCESS_CHANNEL}`)
    clearInterval(asking)
    asking = setInterval(() => void askWhether(next), askMs)
    asking.unref()
  }

  /** Asks a silent connection for an answer; without one it is given up. */
  async function askWhether(listening: pg.Client): Promise<void> {
    try {
      await listening.query('SELECT 1')
    } catch (error) {
      if (client !== listening || closed) return
      log.warn({ err: error }, 'the listening connection does not answer')
      client = null
      giveUp(listening)
      listenAgain()
    }
  }

  /** Ends a connection that may never answer: what waits on it fails now, and is nobody's business any more. */
  function giveUp(listening: pg.Client): void {
    listening.end().catch(() => undefined)
    ;(listening as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy()
  }

  function listenAgain(): void {
    if (closed || retry) return
    clearInterval(asking)
    retry = setTimeout(() => {
      retry = undefined
      listen().then(tellMissed).catch(listenAgain)
    }, RECONNECT_MS)
    retry.unref()
  }

  /** Word that went round while nobody listened is lost: every shot somebody hears of is told anew. */
  async function tellMissed(): Promise<void> {
    const heads = 'SELECT id, head_seq FROM shots WHERE id = ANY($1)'
    const result = await client?.query<{ id: string; head_seq: number }>(heads, [[...hearers.keys()]])
    for (const { id, head_seq } of result?.rows ?? []) tell(id, head_seq)
  }

  function tellGone(payload: string): void {
    const [kind, first = '', second = ''] = payload.split(' ')
    const gone: AccessGone | null =
      kind === 'session'
        ? { kind, session: first }
        : kind === 'member'
          ? { kind, film: first, account: second }
          : kind === 'film' || kind === 'shot'
            ? { kind, id: first }
            : null
    if (gone) for (const guard of guards) safely(() => guard(gone))
  }

  return {
    start: listen,
    /** Tells everybody here that a shot has come to a number. */
    tell,
    async stop(): Promise<void> {
      closed = true
      clearTimeout(retry)
      clearInterval(asking)
      await client?.end().catch(() => undefined)
    },
    /** Calls `hearer` with the newest number whenever the shot changes; returns how to stop. */
    hear(shot: string, hearer: Hearer): () => void {
      const set = hearers.get(shot) ?? new Set()
      hearers.set(shot, set.add(hearer))
      return () => {
        set.delete(hearer)
        if (set.size === 0) hearers.delete(shot)
      }
    },
    /** Calls `guard` whenever access is taken away. */
    onGone: (guard: (gone: AccessGone) => void) => void guards.add(guard),
  }
}

export type Announcer = ReturnType<typeof announcer>
