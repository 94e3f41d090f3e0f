import pg from 'pg'
import type { Logger } from 'pino'
import { PATIENCE } from '../db/connect.ts'

const RECONNECT_MS = 1000
/** A connection that nothing comes over may be dead without anybody being told: it is asked now and then. */
const ASK_MS = 10_000

export interface Patience {
  readonly askMs: number
  readonly answerMs: number
}

/** What comes over a listening connection. */
interface Heard {
  readonly notified: (channel: string, payload: string) => void
  /** listening began again: what went round meanwhile is lost, and can be asked for */
  readonly missed: (client: pg.Client) => Promise<void>
}

/** Ends a connection that may never answer: what waits on it fails now, and is nobody's business any more. */
function giveUp(listening: pg.Client): void {
  listening.end().catch(() => undefined)
  ;(listening as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy()
}

/**
 * Listens on channels of the database. A lost connection, or one that does not answer any more, is made again.
 */
export function listening(
  url: string,
  log: Logger,
  channels: readonly string[],
  { notified, missed }: Heard,
  { askMs, answerMs }: Patience = { askMs: ASK_MS, answerMs: PATIENCE.lockMs },
) {
  let client: pg.Client | null = null
  let closed = false
  let retry: NodeJS.Timeout | undefined
  let asking: NodeJS.Timeout | undefined

  /** Begins to listen. Throws what the database says when it cannot be reached. */
  async function start(): Promise<void> {
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
    next.on('end', () => client === next && again())
    next.on('notification', ({ channel, payload = '' }) => notified(channel, payload))
    await next.connect()
    await next.query(channels.map(channel => `LISTEN ${channel}`).join('; '))
    clearInterval(asking)
    asking = setInterval(() => void askWhether(next), askMs)
    asking.unref()
  }

  /** Asks a silent connection for an answer; without one it is given up. */
  async function askWhether(asked: pg.Client): Promise<void> {
    try {
      await asked.query('SELECT 1')
    } catch (error) {
      if (client !== asked || closed) return
      log.warn({ err: error }, 'the listening connection does not answer')
      client = null
      giveUp(asked)
      again()
    }
  }

  function again(): void {
    if (closed || retry) return
    clearInterval(asking)
    retry = setTimeout(() => {
      retry = undefined
      start()
        .then(() => client && missed(client))
        .catch(again)
    }, RECONNECT_MS)
    retry.unref()
  }

  async function stop(): Promise<void> {
    closed = true
    clearTimeout(retry)
    clearInterval(asking)
    await client?.end().catch(() => undefined)
  }
  return { start, stop }
}
