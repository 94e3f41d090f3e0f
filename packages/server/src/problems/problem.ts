import type { ErrorCode, ErrorReply } from '@unhurried/contract'
import type { z } from 'zod'

const STATUS: Record<ErrorCode, number> = {
  'bad-request': 400,
  'not-signed-in': 401,
  'wrong-sign-in': 401,
  'not-allowed': 403,
  'wrong-origin': 403,
  'not-found': 404,
  'already-set-up': 409,
  'moved-on': 409,
  removed: 410,
  'too-large': 413,
  'unsupported-encoding': 415,
  'outside-it': 416,
  'wrong-host': 421,
  'too-many-requests': 429,
  'server-fault': 500,
  busy: 503,
}

/** A refusal that the person at the other end may read: a code, a sentence, and which fields are wrong. */
export class Problem extends Error {
  readonly code: ErrorCode
  readonly details: ErrorReply['details']

  constructor(code: ErrorCode, message: string, details: ErrorReply['details'] = []) {
    super(message)
    this.code = code
    this.details = details
  }

  get status(): number {
    return STATUS[this.code]
  }
}

const MOST_DETAILS = 20

/** Checks a value from outside against a schema; a Problem names every field that is wrong. */
export function parse<T extends z.ZodType>(schema: T, value: unknown): z.infer<T> {
  const result = schema.safeParse(value)
  if (result.success) return result.data
  const details = result.error.issues.slice(0, MOST_DETAILS).map(issue => ({
    field: issue.path.map(String).join('.') || '(the whole request)',
    problem: issue.message,
  }))
  const first = details[0]
  throw new Problem('bad-request', `${first?.field}: ${first?.problem}`, details)
}

/**
 * What the database says when it is only not able to at the moment: locked too long, stopped, starting, full, without
 * connections, or not there at all. https://www.postgresql.org/docs/15/errcodes-appendix.html
 */
const PASSING = /^(08|53|57P|3D000|55P03|57014|25P03|25006|40001|40P01)/
const GONE = /ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|timeout|terminated|Connection ended|not queryable/i

/** Whether a failure is the database's and passes: what was asked can be asked again. */
export function isPassing(error: unknown): boolean {
  const { code, message } = error as { code?: unknown; message?: unknown }
  return (typeof code === 'string' && PASSING.test(code)) || GONE.test(`${String(code)} ${String(message)}`)
}
