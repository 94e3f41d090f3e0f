import Router from '@koa/router'
import { AssetQuery, Id, JournalQuery, LARGEST_POST, RowId, SamplesQuery, VersionsQuery } from '@unhurried/contract'
import { ASSET_KINDS } from '@unhurried/core/assets'
import type { AheadService } from '../services/ahead.ts'
import type { AccessService, ShotAccess, Wish } from '../services/access.ts'
import { toCard } from '../services/films.ts'
import type { JournalRoom } from '../services/journalRoom.ts'
import { bodyBytes } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { parse } from '../problems/problem.ts'
import { signedIn } from './session.ts'
import type { Streams } from './streams.ts'

/** One shot: its document, its stroke samples, its journal, and word of changes. */
export function shotRoutes(
  journal: JournalRoom,
  access: AccessService,
  streams: Streams,
  ahead: AheadService,
  pictures: (shot: string, ids?: readonly string[]) => Promise<Record<string, string>>,
  epoch: () => Promise<string>,
): Router<RequestState> {
  const router = new Router<RequestState>()
  const open = (ctx: Context & { params: { shot?: string } }, wish: Wish): Promise<ShotAccess> =>
    access.toShot(signedIn(ctx).id, parse(RowId, ctx.params.shot), wish)
  const answer = (ctx: Context, json: Uint8Array) => {
    ctx.type = 'application/json'
    ctx.body = Buffer.from(json.buffer, json.byteOffset, json.byteLength)
  }

  router.get('/api/shots/:shot', async ctx => {
    const { shot, film, role } = await open(ctx, 'look')
    const opened = Buffer.from(await journal.open(shot))
    // Both are written out: the second is put into the first, without being read again.
    const front = JSON.stringify({ shot: toCard(shot), filmName: film.name, filmStudy: film.study, role })
    answer(ctx, Buffer.concat([Buffer.from(`${front.slice(0, -1)},`), opened.subarray(1)]))
  })
  router.get('/api/shots/:shot/samples', async ctx => {
    const { shot } = await open(ctx, 'look')
    const { ids } = parse(SamplesQuery, ctx.query)
    const packed = await journal.samples(shot, ids)
    ctx.type = 'application/octet-stream'
    ctx.body = Buffer.from(packed.buffer, packed.byteOffset, packed.byteLength)
  })
  router.get('/api/shots/:shot/pictures', async ctx => {
    const { shot } = await open(ctx, 'look')
    ctx.body = { pictures: await pictures(shot.id, parse(SamplesQuery, ctx.query).ids) }
  })
  router.get('/api/shots/:shot/journal', async ctx => {
    const { shot } = await open(ctx, 'look')
    const { after: since, ...known } = parse(JournalQuery, ctx.query)
    answer(ctx, await journal.after(shot, { since, ...known }))
  })
  router.get('/api/shots/:shot/versions', async ctx => {
    const { shot } = await open(ctx, 'look')
    answer(ctx, await journal.versions(shot, parse(VersionsQuery, ctx.query).drawing))
  })
  router.post('/api/shots/:shot/journal', async ctx => {
    const account = signedIn(ctx)
    const { shot, role } = await open(ctx, 'remark')
    const by = { account: account.id, onlyReviews: role === 'reviewer' }
    answer(ctx, await journal.post(shot, by, await bodyBytes(ctx, LARGEST_POST)))
  })
  router.put('/api/shots/:shot/assets/:id', async ctx => {
    const { shot, film } = await open(ctx, 'draw')
    const { kind, media } = parse(AssetQuery, ctx.query)
    if (media !== undefined) {
      await ahead.name(shot.id, film.id, parse(Id, ctx.params.id), media)
      return void (ctx.body = {})
    }
    const bytes = await bodyBytes(ctx, ASSET_KINDS[kind].mostBytes, 'application/octet-stream')
    await ahead.take(shot.id, parse(Id, ctx.params.id), kind, bytes)
    ctx.body = {}
  })
  router.get('/api/shots/:shot/events', async ctx => {
    signedIn(ctx)
    const found = await open(ctx, 'look')
    const stream = streams.open(ctx.state.visit as NonNullable<RequestState['visit']>, found, await epoch())
    ctx.res.on('close', () => stream.destroy())
    ctx.set({ 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
    ctx.type = 'text/event-stream'
    ctx.body = stream
  })
  return router
}
