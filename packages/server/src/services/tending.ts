import type { Logger } from 'pino'

/** How often what has lain for its time is looked for. */
const LOOK_AFTER_MS = 60 * 60 * 1000

/** Something that is let go when its time is over: how it is called in the log, and how it is done; it answers how many things went. */
export type Tended = readonly [event: string, sweep: () => Promise<number>]

/** Looks after things from now on, every hour; returns how to stop. A look that fails is written down and tried again. */
export function tendHourly(log: Logger, ...tended: readonly Tended[]): () => void {
  const look = () => {
    for (const [event, sweep] of tended) {
      sweep().then(
        gone => gone > 0 && log.info({ event, gone }, 'what had lain for its time is gone'),
        (error: unknown) => log.warn({ event, err: error }, 'what has lain for its time could not be looked after'),
      )
    }
  }
  look()
  const timer = setInterval(look, LOOK_AFTER_MS)
  timer.unref()
  return () => clearInterval(timer)
}
