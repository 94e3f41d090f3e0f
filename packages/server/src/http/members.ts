import Router from '@koa/router'
import { NewMember, RowId, type Members } from '@unhurried/contract'
import type { Middleware } from 'koa'
import type { Logger } from 'pino'
import type { AccessService, Wish } from '../services/access.ts'
import type { MemberService } from '../services/members.ts'
import { json } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { parse } from '../problems/problem.ts'
import { signedIn } from './session.ts'

type Asked = Context & { params: { film?: string; account?: string } }

/** Who works on a film: its owner lets people in and go. */
export function memberRoutes(
  members: MemberService,
  access: AccessService,
  limit: Middleware,
  log: Logger,
): Router<RequestState> {
  const router = new Router<RequestState>()
  const film = async (ctx: Asked, wish: Wish) =>
    (await access.toFilm(signedIn(ctx).id, parse(RowId, ctx.params.film), wish)).film.id

  router.get('/api/films/:film/members', async ctx => {
    const reply: Members = { members: await members.of(await film(ctx, 'own')) }
    ctx.body = reply
  })
  // Whoever is let in may be new, and a password is made for them: as seldom as one may sign in.
  router.post('/api/films/:film/members', limit, async ctx => {
    const id = await film(ctx, 'own')
    const added = await members.add(id, parse(NewMember, await json(ctx)))
    const { account, role } = added.member
    log.info({ event: 'member-in', film: id, by: signedIn(ctx).id, account, role }, 'a member was let in')
    ctx.body = added
  })
  router.delete('/api/films/:film/members/:account', async ctx => {
    const id = await film(ctx, 'own')
    const account = parse(RowId, ctx.params.account)
    await members.remove(id, account)
    log.info({ event: 'member-out', film: id, by: signedIn(ctx).id, account }, 'a member was let go')
    ctx.body = {}
  })
  return router
}
