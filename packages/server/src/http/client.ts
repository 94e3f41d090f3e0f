import type { Middleware } from 'koa'
import serve from 'koa-static'

const YEAR_MS = 31_536_000_000

/** Addresses of rooms hold nothing that would have to be escaped, and no dots. */
const ROOM = /^\/[\w/-]*$/

/** Serves the built client; every address that is not a file or the API is a room of the application. */
export function client(folder: string): Middleware[] {
  const files = serve(folder, {
    index: 'index.html',
    maxage: 0,
    setHeaders(res, path) {
      if (path.includes('/assets/')) res.setHeader('Cache-Control', `public, max-age=${YEAR_MS / 1000}, immutable`)
    },
  })
  const rooms: Middleware = async (ctx, next) => {
    const isRoom = ctx.method === 'GET' && !ctx.path.startsWith('/api/') && ROOM.test(ctx.path)
    if (isRoom) ctx.path = '/'
    await next()
  }
  return [rooms, files]
}
