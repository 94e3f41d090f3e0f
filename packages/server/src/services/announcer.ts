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
  let retry: NodeJS.Timeout | undefined

  function tell(shot: string, seq: number): void {
    for (const hearer of hearers.get(shot) ?? []) hearer(seq)
  }

  async function listen(): Promise<void> {
    const next = new pg.Client({ connectionString: url })
    client = next
    next.on('error', error => log.warn({ err: error }, 'the listening connection failed'))
    next.on('end', listenAgain)
    next.on('notification', ({ payload }) => {
      const [shot = '', seq] = (payload ?? '').split(' ')
      tell(shot, Number(seq))
    })
    await next.connect()
    await next.query(`LISTEN ${ANNOUNCE_CHANNEL}`)
  }

  function listenAgain(): void {
    if (closed || retry) return
    retry = setTimeout(() => {
      retry = undefined
      listen().then(tellMissed, listenAgain)
    }, RECONNECT_MS)
    retry.unref()
  }

  /** Word that went round while nobody listened is lost: every shot somebody hears of is told anew. */
  async function tellMissed(): Promise<void> {
    const heads = 'SELECT id, head_seq FROM shots WHERE id = ANY($1)'
    const result = await client?.query<{ id: string; head_seq: number }>(heads, [[...hearers.keys()]])
    for (const { id, head_seq } of result?.rows ?? []) tell(id, head_seq)
  }

  return {
    start: listen,
    async stop(): Promise<void> {
      closed = true
      clearTimeout(retry)
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
