/** It took longer than anything that is drawn in earnest takes. */
export class TooSlow extends Error {
  constructor() {
    super('It could not be painted in time.')
  }
}

/** The part of a worker that is used here, so that tests need none. */
export interface WorkerLike {
  postMessage(message: unknown): void
  terminate(): void
  onmessage: ((event: MessageEvent) => void) | null
  onerror: ((event: ErrorEvent) => void) | null
}

/** What a worker says to an order: something on the way, the end of it, or that it failed. */
export type Said<Part> =
  | { readonly kind: 'part'; readonly part: Part }
  | { readonly kind: 'done' }
  | { readonly kind: 'failed'; readonly message: string }

/**
 * Does orders in a worker, one after the other, each within a deadline. One that takes longer is given up, the worker with
 * it; the next order gets a fresh one. So nothing that was drawn can keep the page, or what else is to be painted, waiting.
 */
export function withDeadline<Order, Part>(make: () => WorkerLike, deadlineMs: number) {
  let worker: WorkerLike | null = null
  let turn: Promise<unknown> = Promise.resolve()
  let generation = 0

  function end(): void {
    worker?.terminate()
    worker = null
    generation++
  }

  function carryOut(order: Order, hear: (part: Part) => void): Promise<void> {
    const mine = (worker ??= make())
    return new Promise((done, fail) => {
      const giveUp = (error: Error) => {
        if (worker === mine) end()
        fail(error)
      }
      const timer = setTimeout(() => giveUp(new TooSlow()), deadlineMs)
      mine.onmessage = ({ data }: MessageEvent<Said<Part>>) => {
        if (data.kind === 'part') return hear(data.part)
        clearTimeout(timer)
        if (data.kind === 'done') done()
        else fail(new Error(data.message))
      }
      mine.onerror = event => {
        clearTimeout(timer)
        giveUp(new Error(event.message || 'the worker stopped'))
      }
      mine.postMessage(order)
    })
  }

  return {
    /** Does an order; `hear` gets its parts as they come. `orderFor` is asked when its turn comes. */
    run(orderFor: () => Order, hear: (part: Part) => void): Promise<void> {
      const mine = turn.then(() => carryOut(orderFor(), hear))
      turn = mine.catch(() => undefined)
      return mine
    },
    /** changes whenever a worker is given up: the next one knows nothing of what the last was sent */
    generation: () => generation,
    end,
  }
}
