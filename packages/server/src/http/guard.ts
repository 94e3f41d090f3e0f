import type { Middleware } from 'koa'
import helmet from 'koa-helmet'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Logger } from 'pino'
import { isPassing, Problem } from '../problems/problem.ts'

/** Every failure leaves as JSON {code, message, details}. What nobody foresaw is logged and told without its insides. */
export function answerProblems(log: Logger): Middleware {
  return async (ctx, next) => {
    try {
      await next()
      if (ctx.status === 404 && !ctx.body)
        throw new Problem('not-found', `There is nothing at ${ctx.method} ${ctx.path}`)
    } catch (error) {
      const problem = error instanceof Problem ? error : foreseen(error)
      if (!problem) log.error({ err: error, method: ctx.method, path: ctx.path }, 'request failed')
      const told =
        problem ?? new Problem('server-fault', 'Something went wrong here. What was sent has not been stored.')
      if (told.code === 'busy') {
        log.warn({ method: ctx.method, path: ctx.path, why: (error as Error).message.slice(0, 200) }, 'not able to now')
        ctx.set('Retry-After', '2')
      }
      ctx.status = told.status
      ctx.body = { code: told.code, message: told.message, details: told.details }
      letGo(ctx.req, ctx.res)
    }
  }
}

/** A body that was not read is not received either: the connection ends with the answer. */
const UNREAD_MS = 1000

function letGo(req: IncomingMessage, res: ServerResponse): void {
  if (req.complete) return
  res.setHeader('Connection', 'close')
  res.once('finish', () => setTimeout(() => req.socket.destroy(), UNREAD_MS).unref())
}

/** Failures of libraries that carry a status of their own (a broken or climbing path), and of a database that is away. */
function foreseen(error: unknown): Problem | null {
  const { status } = error as { status?: unknown }
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Problem('not-found', 'There is nothing here.')
  if (isPassing(error)) return new Problem('busy', 'The server cannot do that at the moment. Nothing has been stored.')
  return null
}

export function logRequests(log: Logger): Middleware {
  return async (ctx, next) => {
    const start = performance.now()
    await next()
    const ms = Math.round((performance.now() - start) * 10) / 10
    log.debug({ method: ctx.method, path: ctx.path, status: ctx.status, ms }, 'answered')
  }
}

const YEAR_S = 31_536_000

/** Headers for every answer. The policy allows nothing but the application itself, and pictures it makes. */
export function securityHeaders(): Middleware {
  const headers = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'blob:', 'data:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: true,
    strictTransportSecurity: false,
  })
  return async (ctx, next) => {
    if (ctx.secure) ctx.set('Strict-Transport-Security', `max-age=${YEAR_S}`)
    await headers(ctx, next)
  }
}

/** Where the application is reached, as it was told: besides the address a request came to. */
export interface Door {
  /** the address browsers use, when it is not the server's own */
  readonly publicOrigin?: string | undefined
  /** further names, with their port when it is not the usual one */
  readonly allowedHosts?: readonly string[]
}

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])
const OWN_PAGES = new Set(['', 'same-origin', 'none'])

/**
 * Lets in what comes by a name of the house, and changes only from its own pages. A page elsewhere that has its own name
 * lead here, or lies on another port, is not one of them. Requests without an Origin header do not come from a page.
 */
export function checkDoor({ publicOrigin, allowedHosts = [] }: Door, log: Logger): Middleware {
  const home = publicOrigin === undefined ? null : new URL(publicOrigin)
  const names = new Set([...allowedHosts.map(host => host.toLowerCase()), ...(home ? [home.host] : [])])
  return async (ctx, next) => {
    const host = ctx.req.headers.host?.toLowerCase() ?? ''
    if (!names.has(host) && !isOwnAddress(host, ctx.req)) {
      log.warn({ event: 'wrong-host', host: host.slice(0, 100), ip: ctx.ip }, 'asked for by a name that is not ours')
      throw new Problem(
        'wrong-host',
        'This server does not answer to that name. Who runs it can allow it: ALLOWED_HOSTS.',
      )
    }
    const site = ctx.get('Sec-Fetch-Site')
    const origin = ctx.get('Origin')
    const isChange = CHANGES.has(ctx.method)
    const fromElsewhere = isChange && origin !== '' && origin !== home?.origin && origin !== `${ctx.protocol}://${host}`
    if (fromElsewhere || (!OWN_PAGES.has(site) && (isChange || ctx.path.startsWith('/api/')))) {
      log.warn({ event: 'wrong-origin', origin: origin.slice(0, 100), site, ip: ctx.ip }, 'asked for by another page')
      throw new Problem('wrong-origin', 'Only pages of this desk may ask for that.')
    }
    await next()
  }
}

/** Whether a Host header is the address and port the connection came to: no page elsewhere can make that its own. */
function isOwnAddress(host: string, { socket }: IncomingMessage): boolean {
  const parts = /^(\[[0-9a-f:.]+\]|[^:]+)(?::(\d+))?$/.exec(host)
  if (!parts || Number(parts[2] ?? 80) !== socket.localPort) return false
  const name = (parts[1] as string).replace(/^\[|\]$/g, '')
  const address = (socket.localAddress ?? '').replace(/^::ffff:/, '').toLowerCase()
  const loops = address === '::1' || address.startsWith('127.')
  return name === address || (loops && (name === 'localhost' || name === '::1' || name === '127.0.0.1'))
}
