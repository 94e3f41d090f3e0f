import Router from '@koa/router'
import { JournalQuery, packStrokes, PostBatches, RowId, SamplesQuery, VersionsQuery } from '@unhurried/contract'
import { PassThrough } from 'node:stream'
import type { AccessService, Wish } from '../services/access.ts'
import type { Announcer } from '../services/announcer.ts'
import { toCard } from '../services/films.ts'
import type { JournalService } from '../services/journal.ts'
import type { Context, RequestState } from './context.ts'
import { parse } from './problem.ts'
import { signedIn } from './session.ts'

/** Proxies close silent connections; a comment now and then keeps them open. */
const HEARTBEAT_MS = 20_000

/** One shot: its document, its stroke samples, its journal, and word of changes. */
export function shotRoutes(journal: JournalService, access: AccessService, announcer: Announcer): Router<RequestState> {
  const router = new Router<RequestState>()
  const open = (ctx: Context & { params: { shot?: string } }, wish: Wish) =>
    access.toShot(signedIn(ctx).id, parse(RowId, ctx.params.shot), wish)

  router.get('/api/shots/:shot', async ctx => {
    const { shot, film, role } = await open(ctx, 'look')
    const { seq, document } = await journal.read(shot.id)
    const recent = await journal.recent(shot.id, seq)
    ctx.body = { shot: toCard(shot), filmName: film.name, role, seq, recent, document }
  })
  router.get('/api/shots/:shot/samples', async ctx => {
    const { shot } = await open(ctx, 'look')
    ctx.type = 'application/octet-stream'
    const { ids } = parse(SamplesQuery, ctx.query)
    ctx.body = Buffer.from(packStrokes(await journal.samples(shot.id, ids)))
  })
  router.get('/api/shots/:shot/journal', async ctx => {
    const { shot } = await open(ctx, 'look')
    const { after } = parse(JournalQuery, ctx.query)
    ctx.body = { entries: await journal.after(shot.id, after), refused: [], done: [] }
  })
  router.get('/api/shots/:shot/versions', async ctx => {
    const { shot } = await open(ctx, 'look')
    const { drawing } = parse(VersionsQuery, ctx.query)
    ctx.body = { versions: await journal.versions(shot.id, drawing) }
  })
  router.post('/api/shots/:shot/journal', async ctx => {
    const { shot } = await open(ctx, 'draw')
    const account = signedIn(ctx)
    ctx.body = await journal.post(shot.id, account.id, parse(PostBatches, ctx.request.body))
  })
  router.get('/api/shots/:shot/events', async ctx => {
    const { shot } = await open(ctx, 'look')
    const stream = new PassThrough()
    const stop = announcer.hear(shot.id, seq => stream.write(`data: ${seq}\n\n`))
    const beat = setInterval(() => stream.write(': still here\n\n'), HEARTBEAT_MS)
    stream.on('close', () => {
      stop()
      clearInterval(beat)
    })
    ctx.res.on('close', () => stream.destroy())
    ctx.set({ 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
    ctx.type = 'text/event-stream'
    ctx.body = stream
    stream.write(`data: ${shot.headSeq}\n\n`)
  })
  return router
}
