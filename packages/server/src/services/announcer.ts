import pg from 'pg'
import type { Logger } from 'pino'
import { ANNOUNCE_CHANNEL } from './journal.ts'

type Hearer = (seq: number) => void

const RECONNECT_MS = 1000

/**
 * Passes on that a shot's journal has grown, whichever server process took the change in: one database connection
 * listens, any number of desks hear. A lost connection is made again; desks ask for what they missed by themselves.
 */
export function announcer(url: string, log: Logger) {
  const hearers = new Map<string, Set<Hearer>>()
  let client: pg.Client | null = null
  let closed = false

  async function listen(): Promise<void> {
    const next = new pg.Client({ connectionString: url })
    client = next
    next.on('error', error => log.warn({ err: error }, 'the listening connection failed'))
    next.on('end', () => {
      if (!closed) setTimeout(() => void listen().catch(() => undefined), RECONNECT_MS).unref()
    })
    next.on('notification', ({ payload }) => {
      const [shot = '', seq] = (payload ?? '').split(' ')
      for (const hearer of hearers.get(shot) ?? []) hearer(Number(seq))
    })
    await next.connect()
    await next.query(`LISTEN ${ANNOUNCE_CHANNEL}`)
  }

  return {
    start: listen,
    async stop(): Promise<void> {
      closed = true
      await client?.end()
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
  }
}

export type Announcer = ReturnType<typeof announcer>
