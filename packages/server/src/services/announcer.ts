import type pg from 'pg'
import type { Logger } from 'pino'
import { ANNOUNCE_CHANNEL } from './journal.ts'
import { listening, type Patience } from './listening.ts'

type Hearer = (seq: number) => unknown

/** Access that was taken away: a session ended, a member taken off a film, a film or shot put in the bin. */
export type AccessGone =
  | { readonly kind: 'session'; readonly session: string }
  | { readonly kind: 'member'; readonly film: string; readonly account: string }
  | { readonly kind: 'film' | 'shot'; readonly id: string }

const ACCESS_CHANNEL = 'access_changed'
/**
 * Passes on that a shot's journal has grown, whichever server process took the change in: one database connection
 * listens, any number of desks hear. What was missed while nobody listened is told.
 */
export function announcer(url: string, log: Logger, patience?: Patience) {
  const hearers = new Map<string, Set<Hearer>>()
  const guards = new Set<(gone: AccessGone) => void>()

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

  /** Word that went round while nobody listened is lost: every shot somebody hears of is told anew. */
  async function tellMissed(client: pg.Client): Promise<void> {
    const heads = 'SELECT id, head_seq FROM shots WHERE id = ANY($1)'
    const { rows } = await client.query<{ id: string; head_seq: number }>(heads, [[...hearers.keys()]])
    for (const { id, head_seq } of rows) tell(id, head_seq)
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

  const { start, stop } = listening(
    url,
    log,
    [ANNOUNCE_CHANNEL, ACCESS_CHANNEL],
    {
      notified(channel, payload) {
        if (channel === ACCESS_CHANNEL) return tellGone(payload)
        const [shot = '', seq] = payload.split(' ')
        tell(shot, Number(seq))
      },
      missed: tellMissed,
    },
    patience,
  )

  return {
    start,
    stop,
    /** Tells everybody here that a shot has come to a number. */
    tell,
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
