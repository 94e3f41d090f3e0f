import type { JournalReply, Word } from '@unhurried/contract'
import { PassThrough } from 'node:stream'
import type { Announcer } from '../services/announcer.ts'
import type { JournalRoom } from '../services/journalRoom.ts'
import type { ShotAccess } from '../services/access.ts'
import type { Visit } from '../services/accounts.ts'
import { Problem } from '../problems/problem.ts'

/** Proxies close silent connections; a comment now and then keeps them open. */
const HEARTBEAT_MS = 20_000
/** A desk that does not take its words is let go; it comes again by itself. */
const MOST_UNTAKEN_BYTES = 1024 * 1024
/** Entries are sent along up to this size; beyond it desks ask for them. */
const MOST_WORD_BYTES = 64 * 1024

export interface StreamLimits {
  readonly perAccount: number
  readonly perServer: number
}

interface Open {
  readonly visit: Visit
  readonly access: ShotAccess
  readonly stream: PassThrough
}

/** Streams that tell desks of changes. What changed is read once for all who listen, and sent along. */
export function streams(announcer: Announcer, journal: JournalRoom, limits: StreamLimits) {
  const open = new Set<Open>()
  const rooms = new Map<string, ReturnType<typeof listenTo>>()

  function write({ stream, visit }: Open, text: string): void {
    // Ended, and not closed yet: a word too late must not end the process.
    if (stream.writableEnded || stream.destroyed) return
    if (stream.writableLength > MOST_UNTAKEN_BYTES || visit.expiresAt.getTime() < Date.now()) stream.end()
    else stream.write(text)
  }

  const beat = setInterval(() => {
    for (const one of open) write(one, ': still here\n\n')
  }, HEARTBEAT_MS)
  beat.unref()

  announcer.onGone(gone => {
    for (const one of open) {
      const { visit, access } = one
      const ends =
        gone.kind === 'session'
          ? visit.session === gone.session
          : gone.kind === 'member'
            ? access.film.id === gone.film && visit.account.id === gone.account
            : gone.kind === 'film'
              ? access.film.id === gone.id
              : access.shot.id === gone.id
      if (ends) one.stream.end()
    }
  })

  /** Everybody who listens to one shot. */
  function listenTo(access: ShotAccess, epoch: string) {
    const desks = new Set<Open>()
    let told = access.shot.headSeq
    let newest = told
    let telling = false

    async function tell(): Promise<void> {
      if (telling) return
      telling = true
      try {
        while (told < newest) {
          const seq = newest
          const word = await wordOf(told, seq)
          told = Math.max(seq, word.seq)
          const text = `data: ${JSON.stringify(word)}\n\n`
          for (const desk of desks) write(desk, text)
        }
      } finally {
        telling = false
      }
    }

    /** The entries after a number, or only the newest number when they are many or cannot be read now. */
    async function wordOf(since: number, seq: number): Promise<Word> {
      try {
        const bytes = await journal.after(access.shot, { since, epoch })
        if (bytes.length > MOST_WORD_BYTES) return { seq, epoch }
        const { entries, head } = JSON.parse(Buffer.from(bytes).toString()) as JournalReply
        return entries.length === head - since ? { seq: head, epoch, entries } : { seq, epoch }
      } catch {
        return { seq, epoch }
      }
    }

    const stop = announcer.hear(access.shot.id, seq => {
      newest = Math.max(newest, seq)
      return tell()
    })
    return { desks, stop }
  }

  return {
    /** A stream of words for one desk. Refused when the account or the server has too many. */
    open(visit: Visit, access: ShotAccess, epoch: string): PassThrough {
      const own = [...open].filter(one => one.visit.account.id === visit.account.id).length
      if (own >= limits.perAccount || open.size >= limits.perServer) {
        throw new Problem('too-many-requests', 'Too many desks are open at once. Close some of them.')
      }
      const stream = new PassThrough()
      const mine: Open = { visit, access, stream }
      const key = `${access.shot.id} ${epoch}`
      const room = rooms.get(key) ?? listenTo(access, epoch)
      rooms.set(key, room)
      room.desks.add(mine)
      open.add(mine)
      stream.on('error', () => stream.destroy())
      stream.on('close', () => {
        open.delete(mine)
        room.desks.delete(mine)
        if (room.desks.size > 0) return
        room.stop()
        if (rooms.get(key) === room) rooms.delete(key)
      })
      const word: Word = { seq: access.shot.headSeq, epoch }
      stream.write(`data: ${JSON.stringify(word)}\n\n`)
      return stream
    },
  }
}

export type Streams = ReturnType<typeof streams>
