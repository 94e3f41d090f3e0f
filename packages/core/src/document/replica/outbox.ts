/**
 * When to send what is not safe yet. A pure reducer: an event and the state give the next state and what to do, as data;
 * sending, waiting and storing are done elsewhere. The batches themselves are the replica's `pending`; a batch sent twice
 * is stored once, so a lost answer is no conflict.
 */
export interface Outbox {
  /** batches waiting, the ones on their way included */
  readonly waiting: number
  readonly sending: boolean
  /** failed attempts in a row */
  readonly failures: number
}

export const EMPTY_OUTBOX: Outbox = { waiting: 0, sending: false, failures: 0 }

export type OutboxEvent =
  /** the replica changed: this many batches are pending now */
  | { readonly kind: 'pending'; readonly count: number }
  /** the server answered: this many batches are still pending after its answer was taken in */
  | { readonly kind: 'answered'; readonly count: number }
  /** no answer: no connection, the server is down or failed */
  | { readonly kind: 'failed' }
  /** a wait is over, or the connection came back */
  | { readonly kind: 'retry' }

export type OutboxEffect =
  { readonly kind: 'send' } | { readonly kind: 'wait'; readonly ms: number } | { readonly kind: 'none' }

/** What the desk says about saving: all stored, on its way, or kept on this machine until the server answers. */
export type SafeMark = 'safe' | 'sending' | 'kept-here'

/** The most batches put into one request. */
export const BATCHES_PER_REQUEST = 50

const FIRST_WAIT_MS = 500
const LONGEST_WAIT_MS = 8_000
const NOTHING: OutboxEffect = { kind: 'none' }

/** What the outbox does on an event: its next state, and what is to be done (send, wait so many ms, or nothing). */
export function reduceOutbox(state: Outbox, event: OutboxEvent): { state: Outbox; effect: OutboxEffect } {
  switch (event.kind) {
    case 'pending':
      return sendIfFree({ ...state, waiting: event.count })
    case 'answered':
      return sendIfFree({ waiting: event.count, sending: false, failures: 0 })
    case 'failed': {
      const failures = state.failures + 1
      const ms = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (failures - 1))
      return { state: { ...state, sending: false, failures }, effect: { kind: 'wait', ms } }
    }
    case 'retry':
      return state.waiting > 0 && !state.sending ? send(state) : { state, effect: NOTHING }
  }
}

/** After a failure nothing is sent until the wait is over. */
function sendIfFree(state: Outbox): { state: Outbox; effect: OutboxEffect } {
  return state.waiting > 0 && !state.sending && state.failures === 0 ? send(state) : { state, effect: NOTHING }
}

function send(state: Outbox): { state: Outbox; effect: OutboxEffect } {
  return { state: { ...state, sending: true }, effect: { kind: 'send' } }
}

/** What the mark in the header says of an outbox. */
export function safeMark(state: Outbox): SafeMark {
  if (state.waiting === 0) return 'safe'
  return state.failures > 0 ? 'kept-here' : 'sending'
}
