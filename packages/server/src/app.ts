import { bodyParser } from '@koa/bodyparser'
import Koa, { type Middleware } from 'koa'
import ratelimit from 'koa-ratelimit'
import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import { client } from './http/client.ts'
import type { RequestState } from './http/context.ts'
import { answerProblems, checkOrigin, logRequests, securityHeaders } from './http/guard.ts'
import { Problem } from './http/problem.ts'
import { sessionRoutes, whoIsThere, type Demo } from './http/session.ts'
import { shelfRoutes } from './http/shelf.ts'
import { shotRoutes } from './http/shots.ts'
import { accessService } from './services/access.ts'
import { accountService } from './services/accounts.ts'
import type { Announcer } from './services/announcer.ts'
import { filmService } from './services/films.ts'
import { journalService } from './services/journal.ts'

/** Everything the application needs from outside. */
export interface Dependencies {
  source: DataSource
  announcer: Announcer
  log: Logger
  publicOrigin?: string | undefined
  clientFolder?: string | undefined
  demo?: Demo | null
  signInsPerMinute?: number
}

/** A request with 50 batches and their samples fits well; a picture of the paper would not. */
const LARGEST_BODY = '8mb'

/** Builds the application without listening, so that tests need no port. */
export function createApp(deps: Dependencies): Koa<RequestState> {
  const app = new Koa<RequestState>()
  app.silent = true
  const accounts = accountService(deps.source)
  const access = accessService(deps.source)
  const journal = journalService(deps.source)
  const films = filmService(deps.source, journal)

  app.use(logRequests(deps.log))
  app.use(answerProblems(deps.log))
  app.use(securityHeaders())
  app.use(checkOrigin(deps.publicOrigin))
  app.use(bodyParser({ enableTypes: ['json'], jsonLimit: LARGEST_BODY }))
  app.use(whoIsThere(accounts))
  app.use(noStore)
  const routers = [
    sessionRoutes(accounts, deps.demo ?? null, limitSignIns(deps.signInsPerMinute ?? 20)),
    shelfRoutes(films, access),
    shotRoutes(journal, access, deps.announcer),
  ]
  for (const router of routers) app.use(router.routes())
  if (deps.clientFolder) for (const part of client(deps.clientFolder)) app.use(part)
  return app
}

const noStore: Middleware = async (ctx, next) => {
  if (ctx.path.startsWith('/api/')) ctx.set('Cache-Control', 'no-store')
  await next()
}

function limitSignIns(perMinute: number): Middleware {
  const limit = ratelimit({
    driver: 'memory',
    db: new Map(),
    duration: 60_000,
    max: perMinute,
    id: ctx => ctx.ip,
    throw: true,
  })
  return async (ctx, next) => {
    try {
      await limit(ctx, async () => undefined)
    } catch (error) {
      if ((error as { status?: number }).status !== 429) throw error
      throw new Problem('too-many-requests', 'Too many attempts to sign in. Wait a minute and try again.')
    }
    await next()
  }
}
