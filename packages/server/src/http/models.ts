import Router from '@koa/router'
import { Id, KeepModel, LARGEST_MODEL, RowId } from '@unhurried/contract'
import type { AccessService, Wish } from '../services/access.ts'
import type { ModelService } from '../services/models.ts'
import { parse } from '../problems/problem.ts'
import { json } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { signedIn } from './session.ts'

type Asked = Context & { params: { film?: string; id?: string } }

/** Model sheets of a film: read by its members, kept and taken off by those who draw. */
export function modelRoutes(models: ModelService, access: AccessService): Router<RequestState> {
  const router = new Router<RequestState>()
  const film = async (ctx: Asked, wish: Wish) =>
    (await access.toFilm(signedIn(ctx).id, parse(RowId, ctx.params.film), wish)).film.id

  router.get('/api/films/:film/models', async ctx => {
    ctx.body = { models: await models.of(await film(ctx, 'look')) }
  })
  router.put('/api/films/:film/models/:id', async ctx => {
    const to = await film(ctx, 'draw')
    const { turn, model } = parse(KeepModel, await json(ctx, LARGEST_MODEL))
    ctx.body = await models.keep(to, parse(Id, ctx.params.id), turn, model)
  })
  router.delete('/api/films/:film/models/:id', async ctx => {
    await models.remove(await film(ctx, 'draw'), parse(Id, ctx.params.id))
    ctx.body = {}
  })
  return router
}
