import { LARGEST_BODY } from '@unhurried/contract'
import rawBody from 'raw-body'
import type { Context } from './context.ts'
import { Problem } from '../problems/problem.ts'
import { readJson } from '../problems/readJson.ts'

/**
 * The bytes of a request's body. Read by the routes and not before: who may not ask is answered without reading. At most
 * `most` bytes; nothing compressed, for a few bytes can hide many.
 */
export async function bodyBytes(ctx: Context, most = LARGEST_BODY, type = 'application/json'): Promise<Buffer> {
  const encoding = ctx.get('Content-Encoding').trim().toLowerCase()
  if (encoding !== '' && encoding !== 'identity') {
    throw new Problem('unsupported-encoding', 'Bodies are taken as they are, not compressed.')
  }
  if (!ctx.is(type)) {
    throw new Problem('bad-request', `The request needs a body of the type ${type}.`)
  }
  try {
    return await rawBody(ctx.req, { length: ctx.get('Content-Length') || null, limit: most })
  } catch (error) {
    const fault = (error as { type?: string }).type
    if (fault === 'entity.too.large') throw new Problem('too-large', 'That is more than one request may hold.')
    throw new Problem('bad-request', 'The request ended before all of it had come.')
  }
}

/** The value of a small JSON body. */
export const json = async (ctx: Context, most?: number): Promise<unknown> => readJson(await bodyBytes(ctx, most))
