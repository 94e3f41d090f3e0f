/**
 * Work on many things, one at a time for each of them: what comes while one is being worked on is taken in together
 * afterwards, at most `most` at once. Waiting costs no connection, so work on one thing never keeps others from theirs.
 */
export function inTurns<Job, Answer>(
  work: (key: string, jobs: readonly Job[]) => Promise<readonly Settled<Answer>[]>,
  most: number,
  longestQueue: number,
  refuse: () => Error,
) {
  interface Waiting {
    readonly job: Job
    readonly done: (answer: Answer) => void
    readonly fail: (error: unknown) => void
  }
  const queues = new Map<string, Waiting[]>()

  async function drain(key: string, queue: Waiting[]): Promise<void> {
    while (queue.length > 0) {
      const some = queue.splice(0, most)
      try {
        const answers = await work(
          key,
          some.map(waiting => waiting.job),
        )
        some.forEach((waiting, i) => {
          const answer = answers[i] as Settled<Answer>
          if (answer.ok) waiting.done(answer.value)
          else waiting.fail(answer.error)
        })
      } catch (error) {
        for (const waiting of some) waiting.fail(error)
      }
    }
    queues.delete(key)
  }

  /** Does a job for a key when its turn comes. Rejects at once when too many wait already. */
  return (key: string, job: Job): Promise<Answer> =>
    new Promise((done, fail) => {
      const queue = queues.get(key)
      if (queue && queue.length >= longestQueue) return fail(refuse())
      const mine = queue ?? []
      mine.push({ job, done, fail })
      if (queue) return
      queues.set(key, mine)
      void drain(key, mine)
    })
}

export type Settled<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: unknown }
