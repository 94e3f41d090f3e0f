import Router from '@koa/router'
import { NewFilm, NewShot, Rename, RowId } from '@unhurried/contract'
import type { AccessService, Wish } from '../services/access.ts'
import { toCard, type FilmService } from '../services/films.ts'
import type { Context, RequestState } from './context.ts'
import { parse } from './problem.ts'
import { signedIn } from './session.ts'

/** Films and shots as wholes: made, named, copied, removed and brought back. */
export function shelfRoutes(films: FilmService, access: AccessService): Router<RequestState> {
  const router = new Router<RequestState>()
  const film = (ctx: Context & { params: { film?: string } }, wish: Wish) =>
    access.toFilm(signedIn(ctx).id, parse(RowId, ctx.params.film), wish)
  const shot = (ctx: Context & { params: { shot?: string } }, wish: Wish) =>
    access.toShot(signedIn(ctx).id, parse(RowId, ctx.params.shot), wish)

  router.get('/api/shelf', async ctx => {
    ctx.body = await films.shelf(signedIn(ctx).id)
  })
  router.post('/api/films', async ctx => {
    const account = signedIn(ctx)
    ctx.body = await films.create(account.id, parse(NewFilm, ctx.request.body).name)
  })
  router.patch('/api/films/:film', async ctx => {
    const { film: row } = await film(ctx, 'draw')
    await films.rename(row.id, parse(Rename, ctx.request.body).name)
    ctx.body = {}
  })
  for (const [path, removed] of [
    ['remove', true],
    ['restore', false],
  ] as const) {
    router.post(`/api/films/:film/${path}`, async ctx => {
      await films.setRemoved((await film(ctx, 'own')).film.id, removed)
      ctx.body = {}
    })
    router.post(`/api/shots/:shot/${path}`, async ctx => {
      await films.setShotRemoved((await shot(ctx, 'draw')).shot.id, removed)
      ctx.body = {}
    })
  }
  router.post('/api/films/:film/shots', async ctx => {
    const { film: row } = await film(ctx, 'draw')
    ctx.body = await films.addShot(row.id, parse(NewShot, ctx.request.body))
  })
  router.patch('/api/shots/:shot', async ctx => {
    const { shot: row } = await shot(ctx, 'draw')
    const { name } = parse(Rename, ctx.request.body)
    await films.renameShot(row.id, name)
    ctx.body = toCard({ ...row, name })
  })
  router.post('/api/shots/:shot/duplicate', async ctx => {
    ctx.body = await films.duplicateShot((await shot(ctx, 'draw')).shot)
  })
  return router
}
