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
  'too-large': 413,
  'too-many-requests': 429,
  'server-fault': 500,
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
