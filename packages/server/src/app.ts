import Koa, { type Middleware } from 'koa'
import ratelimit from 'koa-ratelimit'
import { createServer, type Server } from 'node:http'
import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import { client } from './http/client.ts'
import type { RequestState } from './http/context.ts'
import { answerProblems, checkDoor, logRequests, securityHeaders, type Door } from './http/guard.ts'
import { Problem } from './problems/problem.ts'
import { sessionRoutes, whoIsThere, type Demo } from './http/session.ts'
import { memberRoutes } from './http/members.ts'
import { mediaRoutes } from './http/media.ts'
import { modelRoutes } from './http/models.ts'
import { shelfRoutes } from './http/shelf.ts'
import { shotRoutes } from './http/shots.ts'
import { telephoneRoutes } from './http/telephones.ts'
import { streams, type StreamLimits } from './http/streams.ts'
import { accessService } from './services/access.ts'
import { accountService } from './services/accounts.ts'
import { aheadService } from './services/ahead.ts'
import { pictureNames } from './services/assets.ts'
import type { Announcer } from './services/announcer.ts'
import { binService } from './services/bin.ts'
import { filmService } from './services/films.ts'
import { memberService } from './services/members.ts'
import { mediaService, type MediaBounds } from './services/media.ts'
import { modelService } from './services/models.ts'
import { telephoneService } from './services/telephones.ts'
import { journalRoom, lanes, type JournalRoom } from './services/journalRoom.ts'

/** Everything the application needs from outside. */
export interface Dependencies extends Door {
  source: DataSource
  announcer: Announcer
  log: Logger
  /** where heavy documents are worked on; in this thread when there is no other */
  heavy?: JournalRoom
  /** the proxy in front is believed about addresses and TLS */
  trustProxy?: boolean
  clientFolder?: string | undefined
  demo?: Demo | null
  signInsPerMinute?: number
  /** days that what was removed lies in the bin */
  binDays?: number
  mediaBounds?: MediaBounds
  streamLimits?: StreamLimits
}

const MEDIA_BOUNDS: MediaBounds = { oneBytes: 256 * 1024 ** 2, filmBytes: 2 * 1024 ** 3 }
const STREAMS: StreamLimits = { perAccount: 20, perServer: 2000 }

/** Builds the application without listening, so that tests need no port. */
export function createApp(deps: Dependencies): Koa<RequestState> {
  const app = new Koa<RequestState>({ proxy: deps.trustProxy ?? false, maxIpsCount: 1 })
  app.silent = true
  const { source, log } = deps
  const accounts = accountService(source)
  const access = accessService(source)
  const room = journalRoom(source)
  const journal = deps.heavy ? lanes(room, deps.heavy) : room
  const films = filmService(source)
  const bin = binService(source, deps.binDays ?? 30)
  const media = mediaService(source, deps.mediaBounds ?? MEDIA_BOUNDS)
  const epoch = async () => ((await source.query('SELECT epoch FROM house')) as [{ epoch: string }])[0].epoch

  app.use(logRequests(log))
  app.use(answerProblems(log))
  app.use(securityHeaders())
  app.use(checkDoor(deps, log))
  app.use(whoIsThere(accounts))
  app.use(noStore)
  const limit = limitSignIns(deps.signInsPerMinute ?? 20)
  const routers = [
    sessionRoutes(accounts, deps.demo ?? null, limit, log),
    memberRoutes(memberService(source), access, limit, log),
    mediaRoutes(media, access),
    modelRoutes(modelService(source), access),
    telephoneRoutes(telephoneService(source, access), access),
    shelfRoutes(films, bin, journal, access, log),
    shotRoutes(
      journal,
      access,
      streams(deps.announcer, journal, deps.streamLimits ?? STREAMS),
      aheadService(source, media),
      (shot, ids) => pictureNames(source, shot, ids),
      epoch,
    ),
  ]
  for (const router of routers) app.use(router.routes())
  if (deps.clientFolder) for (const part of client(deps.clientFolder)) app.use(part)
  return app
}

/** How long a request may take to come in, its head and all of it; how often that is looked after. */
const ARRIVAL = { headersTimeout: 10_000, requestTimeout: 15_000, connectionsCheckingInterval: 2_000 } as const
const MOST_CONNECTIONS = 5000

/** A server for the application that does not wait for those who send slowly. */
export function serverFor(app: Koa<RequestState>, arrival = ARRIVAL): Server {
  const server = createServer({ ...arrival, keepAliveTimeout: 30_000 }, app.callback())
  server.maxConnections = MOST_CONNECTIONS
  return server
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
      throw new Problem('too-many-requests', 'Too many attempts. Wait a minute and try again.')
    }
    await next()
  }
}
