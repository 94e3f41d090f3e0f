import type { Middleware } from 'koa'
import helmet from 'koa-helmet'
import type { Logger } from 'pino'
import { Problem } from './problem.ts'

/** Every failure leaves as JSON {code, message, details}. What nobody foresaw is logged and told without its insides. */
export function answerProblems(log: Logger): Middleware {
  return async (ctx, next) => {
    try {
      await next()
      if (ctx.status === 404 && ctx.path.startsWith('/api/') && !ctx.body) {
        throw new Problem('not-found', `There is nothing at ${ctx.method} ${ctx.path}`)
      }
    } catch (error) {
      const problem = error instanceof Problem ? error : foreseen(error)
      if (!problem) log.error({ err: error, method: ctx.method, path: ctx.path }, 'request failed')
      const told =
        problem ?? new Problem('server-fault', 'Something went wrong here. What was sent has not been stored.')
      ctx.status = told.status
      ctx.body = { code: told.code, message: told.message, details: told.details }
    }
  }
}

/** Failures of the body parser and the router, which carry a status of their own. */
function foreseen(error: unknown): Problem | null {
  const status = (error as { status?: number }).status
  if (status === 413) return new Problem('too-large', 'That is more than one request may hold.')
  if (status === 400 || error instanceof SyntaxError)
    return new Problem('bad-request', 'The request is not valid JSON.')
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

/** Headers for every answer. The policy allows nothing but the application itself, and pictures it makes. */
export const securityHeaders: () => Middleware = () =>
  helmet({
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
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: true,
    strictTransportSecurity: false,
  })

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/** Refuses changes asked for by pages of another origin. Requests without an Origin header do not come from a page. */
export function checkOrigin(publicOrigin: string | undefined): Middleware {
  return async (ctx, next) => {
    const origin = ctx.get('Origin')
    if (CHANGES.has(ctx.method) && origin !== '' && origin !== (publicOrigin ?? ctx.origin)) {
      throw new Problem('wrong-origin', `Changes from ${origin.slice(0, 100)} are not accepted.`)
    }
    await next()
  }
}
