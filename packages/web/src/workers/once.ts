import { wrap, type Remote } from 'comlink'

/** Why a worker gave no answer: it took too long, or nobody could be had to do it. */
export type NoAnswer = 'too-long' | 'no-reader'

/** Rejects with a NoAnswer when something takes too long. */
export async function inTime<T>(work: Promise<T>, deadlineMs: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Unanswered('too-long')), deadlineMs)
  })
  return Promise.race([work, late]).finally(() => clearTimeout(timer))
}

/** Nobody answered, and why. */
export class Unanswered extends Error {
  constructor(readonly why: NoAnswer) {
    super(why)
  }
}

/** Does one thing in a worker of its own, which ends with it. Rejects with Unanswered when it takes too long, or nobody can be had to do it. */
export async function inWorker<P, T>(
  worker: Worker,
  deadlineMs: number,
  work: (remote: Remote<P>) => Promise<T>,
): Promise<T> {
  const missing = new Promise<never>((_, fail) =>
    worker.addEventListener('error', () => fail(new Unanswered('no-reader'))),
  )
  try {
    return await inTime(Promise.race([work(wrap<P>(worker)), missing]), deadlineMs)
  } finally {
    worker.terminate()
  }
}

/** What is answered in the stead of what did not come; anything else that went wrong is thrown on. */
export function whyUnanswered(error: unknown): { readonly ok: false; readonly why: NoAnswer } {
  if (error instanceof Unanswered) return { ok: false, why: error.why }
  throw error
}
