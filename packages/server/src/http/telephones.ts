import Router from '@koa/router'
import { Id, RowId, TELEPHONE } from '@unhurried/contract'
import type { AccessService } from '../services/access.ts'
import type { TelephoneService } from '../services/telephones.ts'
import { parse, Problem } from '../problems/problem.ts'
import { bodyBytes } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { signedIn } from './session.ts'

type Asked = Context & { params: { shot?: string; id?: string; photo?: string } }

/** Photographs from a telephone: the desk opens a way in and fetches what comes; the telephone has nothing but its code. */
export function telephoneRoutes(telephones: TelephoneService, access: AccessService): Router<RequestState> {
  const router = new Router<RequestState>()
  const desk = async (ctx: Asked) => {
    const account = signedIn(ctx).id
    return [account, (await access.toShot(account, parse(RowId, ctx.params.shot), 'draw')).shot.id] as const
  }
  const id = (ctx: Asked) => parse(RowId, ctx.params.id)

  router.post('/api/shots/:shot/telephones', async ctx => {
    ctx.body = await telephones.open(...(await desk(ctx)))
  })
  router.get('/api/shots/:shot/telephones/:id', async ctx => {
    ctx.body = await telephones.come(...(await desk(ctx)), id(ctx))
  })
  router.get('/api/shots/:shot/telephones/:id/photos/:photo', async ctx => {
    ctx.body = await telephones.fetch(...(await desk(ctx)), id(ctx), parse(Id, ctx.params.photo))
    ctx.type = 'application/octet-stream'
  })
  router.delete('/api/shots/:shot/telephones/:id', async ctx => {
    await telephones.close(...(await desk(ctx)), id(ctx))
    ctx.body = {}
  })

  router.get('/api/telephone', async ctx => {
    ctx.body = await telephones.at(tokenOf(ctx))
  })
  router.put('/api/telephone/photos/:photo', async ctx => {
    const photo = parse(Id, (ctx as Asked).params.photo)
    await telephones.take(tokenOf(ctx), photo, () => bodyBytes(ctx, TELEPHONE.photoBytes, 'application/octet-stream'))
    ctx.body = {}
  })
  return router
}

/** The code that a telephone shows with what it asks (RFC 6750, 2.1). Throws a Problem without one. */
function tokenOf(ctx: Context): string {
  const found = /^Bearer ([\w-]{1,200})$/.exec(ctx.get('Authorization'))
  if (!found) throw new Problem('not-signed-in', 'Photograph the code at the desk first.')
  return found[1] as string
}
