import { ErrorReply } from '@unhurried/contract'
import type { z } from 'zod'

/** The server's refusal, ready to be shown: a code, a sentence, and which fields are wrong. */
export class Refused extends Error {
  readonly code: string
  readonly status: number
  readonly details: ErrorReply['details']

  constructor(status: number, reply: ErrorReply) {
    super(reply.message)
    this.status = status
    this.code = reply.code
    this.details = reply.details
  }
}

/** No answer at all: no connection, or the server is not there. */
export class Unreachable extends Error {
  constructor() {
    super('The server does not answer. What you do is kept on this machine until it does.')
  }
}

/** A gateway in front of the server says that it is not there. */
const GATEWAY = new Set([502, 503, 504])
const PATIENCE_MS = 20_000

/** Who asks where nobody has signed in: whoever holds a code. */
export const bearer = (token: string): Record<string, string> => ({ Authorization: `Bearer ${token}` })

const asJson = (body: unknown): RequestInit =>
  body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }

async function request(method: string, path: string, sent: RequestInit = {}): Promise<Response> {
  let response: Response
  try {
    response = await fetch(path, {
      method,
      ...sent,
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
  } catch {
    throw new Unreachable()
  }
  if (response.ok) return response
  if (GATEWAY.has(response.status)) throw new Unreachable()
  const reply = ErrorReply.safeParse(await response.json().catch(() => null))
  throw new Refused(
    response.status,
    reply.data ?? { code: 'server-fault', message: `The server answered with ${response.status}.`, details: [] },
  )
}

/** Asks the server and checks the answer. Throws Refused or Unreachable. */
export async function ask<T extends z.ZodType>(
  reply: T,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<z.infer<T>> {
  const sent = asJson(body)
  const response = await request(method, path, { ...sent, headers: { ...headers, ...sent.headers } })
  return reply.parse(await response.json())
}

/** Gives the server bytes. Throws Refused or Unreachable. */
export async function giveBytes(
  path: string,
  bytes: Uint8Array | Blob,
  headers: Record<string, string> = {},
): Promise<void> {
  const body = bytes instanceof Blob ? bytes : bytes.slice()
  await request('PUT', path, { headers: { ...headers, 'Content-Type': 'application/octet-stream' }, body })
}

/** Asks the server for bytes. */
export async function askBytes(path: string): Promise<Uint8Array> {
  const response = await request('GET', path)
  return new Uint8Array(await response.arrayBuffer())
}
