import type { ErrorReply } from '@unhurried/contract'
import type { Logger } from 'pino'
import { Worker } from 'node:worker_threads'
import { isPassing, Problem } from '../problems/problem.ts'
import type { JournalRoom } from './journalRoom.ts'

/** What goes between the threads. */
export interface Call {
  readonly id: number
  readonly method: keyof JournalRoom
  readonly args: readonly unknown[]
}
export type Answer =
  | { readonly id: number; readonly ok: true; readonly bytes: Uint8Array }
  | { readonly id: number; readonly ok: false; readonly told: ErrorReply | null; readonly words: string }

/** An error as it goes between threads: what may be told keeps its code. */
export function coded(id: number, error: unknown): Answer {
  const words = String((error as Error)?.message ?? error)
  if (error instanceof Problem)
    return { id, ok: false, told: { code: error.code, message: words, details: error.details }, words }
  const told = isPassing(error)
    ? { code: 'busy' as const, message: 'The server cannot do that at the moment.', details: [] }
    : null
  return { id, ok: false, told, words }
}

/** A call that takes longer has got stuck: the thread is ended, and the next call gets a new one. */
const DEADLINE_MS = 45_000
/** More calls than this do not wait. */
const MOST_WAITING = 200
const MOST_MEMORY_MB = 1536

/** The room in a thread of its own. A thread that dies fails the calls it had, and is made anew for the next one. */
export function heavyRoom(url: string, log: Logger): { room: JournalRoom; stop(): Promise<void> } {
  interface Waiting {
    done(bytes: Uint8Array): void
    fail(error: Error): void
    readonly timer: NodeJS.Timeout
  }
  const waiting = new Map<number, Waiting>()
  let worker: Worker | null = null
  let calls = 0

  function start(): Worker {
    const fresh = new Worker(new URL('./journalWorker.mjs', import.meta.url), {
      workerData: { url },
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
    })
    fresh.on('message', (answer: Answer) => settle(answer))
    fresh.on('error', error => log.error({ err: error }, 'the thread for heavy shots failed'))
    fresh.on('exit', () => {
      if (worker === fresh) worker = null
      failAll()
    })
    return fresh
  }

  function settle(answer: Answer): void {
    const caller = waiting.get(answer.id)
    waiting.delete(answer.id)
    if (!caller) return
    clearTimeout(caller.timer)
    if (answer.ok) caller.done(answer.bytes)
    else if (answer.told) caller.fail(new Problem(answer.told.code, answer.told.message, answer.told.details))
    else caller.fail(new Error(answer.words))
  }

  function failAll(): void {
    for (const { fail, timer } of waiting.values()) {
      clearTimeout(timer)
      fail(new Problem('busy', 'The server was not able to finish that. Nothing has been stored.'))
    }
    waiting.clear()
  }

  function call(method: keyof JournalRoom, args: readonly unknown[]): Promise<Uint8Array> {
    if (waiting.size >= MOST_WAITING) return Promise.reject(new Problem('busy', 'Too much waits at the moment.'))
    worker ??= start()
    const id = ++calls
    const stuck = worker
    return new Promise((done, fail) => {
      const timer = setTimeout(() => {
        log.error({ method }, 'the thread for heavy shots does not answer')
        void stuck.terminate()
      }, DEADLINE_MS)
      waiting.set(id, { done, fail, timer })
      worker?.postMessage({ id, method, args } satisfies Call)
    })
  }

  // Ready before it is needed: starting takes some tenths of a second.
  worker = start()
  const room: JournalRoom = {
    open: (...args) => call('open', args),
    after: (...args) => call('after', args),
    versions: (...args) => call('versions', args),
    samples: (...args) => call('samples', args),
    post: (...args) => call('post', args),
    duplicate: (...args) => call('duplicate', args),
  }
  return {
    room,
    async stop() {
      await worker?.terminate()
    },
  }
}
