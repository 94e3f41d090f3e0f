import Router from '@koa/router'
import { ChangeFilm, NewFilm, NewShot, Order, Rename, RowId } from '@unhurried/contract'
import type { Logger } from 'pino'
import type { AccessService, Where, Wish } from '../services/access.ts'
import type { BinService } from '../services/bin.ts'
import { toCard, type FilmService } from '../services/films.ts'
import type { JournalRoom } from '../services/journalRoom.ts'
import { json } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { parse } from '../problems/problem.ts'
import { signedIn } from './session.ts'

/** The names of as many shots as a film holds. */
const LARGEST_ORDER = 32 * 1024

type Asked = Context & { params: { film?: string; shot?: string } }

/** Films and shots as wholes: made, named, copied, removed and brought back. */
export function shelfRoutes(
  films: FilmService,
  bin: BinService,
  journal: JournalRoom,
  access: AccessService,
  log: Logger,
): Router<RequestState> {
  const router = new Router<RequestState>()
  const film = (ctx: Asked, wish: Wish, where?: Where) =>
    access.toFilm(signedIn(ctx).id, parse(RowId, ctx.params.film), wish, where)
  const shot = (ctx: Asked, wish: Wish, where?: Where) =>
    access.toShot(signedIn(ctx).id, parse(RowId, ctx.params.shot), wish, where)
  const note = (ctx: Asked, event: string, what: object) =>
    log.info({ event, account: signedIn(ctx).id, ...what }, 'the shelf changed')

  router.get('/api/shelf', async ctx => {
    ctx.body = await films.shelf(signedIn(ctx).id)
  })
  router.post('/api/films', async ctx => {
    const account = signedIn(ctx)
    ctx.body = await films.create(account.id, parse(NewFilm, await json(ctx)).name)
  })
  router.patch('/api/films/:film', async ctx => {
    const { film: row } = await film(ctx, 'draw')
    const { name, study } = parse(ChangeFilm, await json(ctx))
    await films.change(row.id, { ...(name !== undefined && { name }), ...(study !== undefined && { study }) })
    ctx.body = {}
  })
  for (const [path, removed] of [
    ['remove', true],
    ['restore', false],
  ] as const) {
    const where: Where = removed ? 'shelf' : 'bin'
    router.post(`/api/films/:film/${path}`, async ctx => {
      const { id } = (await film(ctx, 'own', where)).film
      await films.setRemoved(id, removed)
      note(ctx, `film-${path}`, { film: id })
      ctx.body = {}
    })
    router.post(`/api/shots/:shot/${path}`, async ctx => {
      const { id } = (await shot(ctx, 'draw', where)).shot
      await films.setShotRemoved(id, removed)
      note(ctx, `shot-${path}`, { shot: id })
      ctx.body = {}
    })
  }
  router.get('/api/bin', async ctx => {
    ctx.body = await bin.of(signedIn(ctx).id)
  })
  router.post('/api/bin/empty', async ctx => {
    await bin.empty(signedIn(ctx).id)
    note(ctx, 'bin-emptied', {})
    ctx.body = {}
  })
  router.delete('/api/bin/films/:film', async ctx => {
    const { id } = (await film(ctx, 'own', 'bin')).film
    await bin.throwAway('film', id)
    note(ctx, 'film-thrown-away', { film: id })
    ctx.body = {}
  })
  router.delete('/api/bin/shots/:shot', async ctx => {
    const { id } = (await shot(ctx, 'own', 'bin')).shot
    await bin.throwAway('shot', id)
    note(ctx, 'shot-thrown-away', { shot: id })
    ctx.body = {}
  })
  router.put('/api/films/:film/order', async ctx => {
    const { film: row } = await film(ctx, 'draw')
    await films.order(row.id, parse(Order, await json(ctx, LARGEST_ORDER)).shots)
    ctx.body = {}
  })
  router.post('/api/films/:film/shots', async ctx => {
    const { film: row } = await film(ctx, 'draw')
    ctx.body = await films.addShot(row.id, parse(NewShot, await json(ctx)))
  })
  router.patch('/api/shots/:shot', async ctx => {
    const { shot: row } = await shot(ctx, 'draw')
    const { name } = parse(Rename, await json(ctx))
    await films.renameShot(row.id, name)
    ctx.body = toCard({ ...row, name })
  })
  router.post('/api/shots/:shot/duplicate', async ctx => {
    const { shot: row } = await shot(ctx, 'draw')
    ctx.type = 'application/json'
    ctx.body = Buffer.from(await journal.duplicate(row))
  })
  return router
}
