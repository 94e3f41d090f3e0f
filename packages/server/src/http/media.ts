import Router from '@koa/router'
import { BeginMedia, MediaChunk, MediaId, RowId } from '@unhurried/contract'
import { MEDIA_CHUNK_BYTES } from '@unhurried/core/assets'
import { Readable } from 'node:stream'
import type { AccessService, Wish } from '../services/access.ts'
import type { MediaService } from '../services/media.ts'
import { parse, Problem } from '../problems/problem.ts'
import { bodyBytes, json } from './body.ts'
import type { Context, RequestState } from './context.ts'
import { signedIn } from './session.ts'

type Asked = Context & { params: { film?: string; id?: string; chunk?: string } }

/** Recordings and clips of a film: sent in pieces, fetched whole or in part. */
export function mediaRoutes(media: MediaService, access: AccessService): Router<RequestState> {
  const router = new Router<RequestState>()
  const film = async (ctx: Asked, wish: Wish) =>
    (await access.toFilm(signedIn(ctx).id, parse(RowId, ctx.params.film), wish)).film.id
  const id = (ctx: Asked) => parse(MediaId, ctx.params.id)

  router.get('/api/films/:film/media', async ctx => {
    ctx.body = await media.room(await film(ctx, 'look'))
  })
  router.post('/api/films/:film/media', async ctx => {
    const to = await film(ctx, 'draw')
    const wanted = parse(BeginMedia, await json(ctx))
    ctx.body = await media.begin(to, wanted.id, wanted.bytes)
  })
  router.put('/api/films/:film/media/:id/:chunk', async ctx => {
    const to = await film(ctx, 'draw')
    const bytes = await bodyBytes(ctx, MEDIA_CHUNK_BYTES, 'application/octet-stream')
    await media.take(to, id(ctx), parse(MediaChunk, ctx.params.chunk), bytes)
    ctx.body = {}
  })
  router.post('/api/films/:film/media/:id/whole', async ctx => {
    await media.finish(await film(ctx, 'draw'), id(ctx))
    ctx.body = {}
  })
  router.get('/api/films/:film/media/:id', async ctx => {
    const from = await film(ctx, 'look')
    const { bytes, type, read } = await media.open(from, id(ctx))
    ctx.set({
      'Accept-Ranges': 'bytes',
      'Cache-Control': 'private, max-age=31536000, immutable',
      ETag: `"${id(ctx)}"`,
    })
    ctx.type = type
    if (ctx.get('If-None-Match') === `"${id(ctx)}"`) return void (ctx.status = 304)
    const part = rangeOf(ctx.get('Range'), bytes)
    if (part === 'outside') {
      ctx.set('Content-Range', `bytes */${bytes}`)
      throw new Problem('outside-it', `It has ${bytes} bytes; what was asked for lies behind them.`)
    }
    const [first, end] = part ?? [0, bytes]
    if (part) {
      ctx.status = 206
      ctx.set('Content-Range', `bytes ${first}-${end - 1}/${bytes}`)
    }
    ctx.body = Readable.from(read(first, end))
    ctx.length = end - first
  })
  return router
}

/** The one part of so many bytes that a request asks for, as [from, to); null for all of it, also where it is not understood (RFC 9110, 14.2). */
export function rangeOf(header: string, bytes: number): readonly [number, number] | 'outside' | null {
  const found = /^bytes=(\d{0,15})-(\d{0,15})$/.exec(header.trim())
  if (!found || (found[1] === '' && found[2] === '')) return null
  const [from, last] = [found[1], found[2]] as [string, string]
  // The last so many bytes.
  if (from === '') return Number(last) === 0 ? 'outside' : [Math.max(0, bytes - Number(last)), bytes]
  if (last !== '' && Number(last) < Number(from)) return null
  return Number(from) >= bytes ? 'outside' : [Number(from), last === '' ? bytes : Math.min(bytes, Number(last) + 1)]
}
