import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { MEDIA_CHUNK_BYTES } from '@unhurried/core/assets'
import { createHash } from 'node:crypto'
import { rangeOf } from '../src/http/media.ts'
import { mediaService } from '../src/services/media.ts'
import { batch, benchWithOwner, filmWithShot, post, visitor, type Bench, type Visitor } from './harness.ts'

const BOUNDS = { oneBytes: 3 * 1024 ** 2, filmBytes: 5 * 1024 ** 2 }
let b: Bench
let agent: Visitor
let film: string
let shot: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner({ mediaBounds: BOUNDS }))
})
beforeEach(async () => {
  ;({ film, shot } = await filmWithShot(agent))
})
afterAll(() => b.close())

/** A made-up recording of so many bytes: it begins like one, and goes on by chance. */
function recording(bytes: number, seed = 1): Buffer {
  const all = Buffer.alloc(bytes)
  let state = seed
  for (let i = 0; i < bytes; i++) all[i] = (state = (Math.imul(state, 1_664_525) + 1_013_904_223) | 0) >>> 24
  all.write('RIFF', 0)
  all.write('WAVE', 8)
  return all
}
const idOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const piece = (bytes: Buffer, n: number) => bytes.subarray(n * MEDIA_CHUNK_BYTES, (n + 1) * MEDIA_CHUNK_BYTES)
const begin = (id: string, bytes: number, who = agent, to = film) =>
  who.post(`/api/films/${to}/media`).send({ id, bytes })
const put = (id: string, n: number, bytes: Buffer, who = agent) =>
  who.put(`/api/films/${film}/media/${id}/${n}`).set('Content-Type', 'application/octet-stream').send(bytes)
const whole = (id: string, who = agent) => who.post(`/api/films/${film}/media/${id}/whole`)
const get = (id: string, range?: string, who = agent) => {
  const asked = who.get(`/api/films/${film}/media/${id}`).buffer(true)
  return range ? asked.set('Range', range) : asked
}
async function store(bytes: Buffer): Promise<string> {
  const id = idOf(bytes)
  for (const n of (await begin(id, bytes.length)).body.missing as number[]) await put(id, n, piece(bytes, n))
  expect((await whole(id)).status).toBe(200)
  return id
}
const sound = (media: string) => ({
  id: 'voice',
  name: 'voice',
  media,
  seconds: 3,
  order: 0,
  from: 0,
  skip: 0,
  use: 3,
  gain: 1,
  muted: false,
  mine: true,
  source: '',
})
const older = (hours: number) =>
  b.source.query(`UPDATE media SET touched_at = touched_at - interval '${hours} hours' WHERE film_id = $1`, [film])
const stored = async () =>
  (await b.source.query('SELECT count(*)::int AS n FROM media WHERE film_id = $1', [film]))[0].n

describe('recordings and clips of a film', () => {
  const bytes = recording(2 * MEDIA_CHUNK_BYTES + 777)
  const id = idOf(bytes)

  test('come in pieces, in any order, and go on where they were cut off; then they are there for good', async () => {
    expect((await begin(id, bytes.length)).body).toEqual({ whole: false, missing: [0, 1, 2] })
    expect((await put(id, 2, piece(bytes, 2))).status).toBe(200)
    expect((await put(id, 0, piece(bytes, 0))).status).toBe(200)
    // Whoever went away asks again what is missing.
    expect((await begin(id, bytes.length)).body).toEqual({ whole: false, missing: [1] })
    expect((await whole(id)).body.message).toContain('Piece 1 of 3 is missing')
    expect((await get(id)).status).toBe(404)
    await put(id, 1, piece(bytes, 1))
    // The same piece twice does no harm.
    expect((await put(id, 1, piece(bytes, 1))).status).toBe(200)
    expect((await whole(id)).status).toBe(200)
    expect((await begin(id, bytes.length)).body).toEqual({ whole: true, missing: [] })
    const reply = await get(id)
    expect([reply.status, reply.type, reply.headers['content-length']]).toEqual([
      200,
      'audio/wav',
      String(bytes.length),
    ])
    expect(bytes.equals(reply.body)).toBe(true)
    expect(reply.headers['cache-control']).toContain('immutable')
    expect((await agent.get(`/api/films/${film}/media/${id}`).set('If-None-Match', `"${id}"`)).status).toBe(304)
    expect((await agent.get(`/api/films/${film}/media`)).body).toEqual({ used: bytes.length, ...BOUNDS })
  })

  test('parts of them are fetched, over the edges of pieces too', async () => {
    await store(bytes)
    const edge = MEDIA_CHUNK_BYTES
    for (const [range, from, to] of [
      ['bytes=0-0', 0, 1],
      [`bytes=${edge - 3}-${edge + 3}`, edge - 3, edge + 4],
      [`bytes=5-${2 * edge + 4}`, 5, 2 * edge + 5],
      ['bytes=-700', bytes.length - 700, bytes.length],
      [`bytes=${bytes.length - 1}-`, bytes.length - 1, bytes.length],
    ] as const) {
      const reply = await get(id, range)
      expect([reply.status, reply.headers['content-range']]).toEqual([206, `bytes ${from}-${to - 1}/${bytes.length}`])
      expect(bytes.subarray(from, to).equals(reply.body)).toBe(true)
    }
    const outside = await get(id, `bytes=${bytes.length}-`)
    expect([outside.status, outside.headers['content-range']]).toEqual([416, `bytes */${bytes.length}`])
    expect((await get(id, 'bytes=9-3')).status).toBe(200)
    expect((await get(id, 'bytes=0-1,5-6')).status).toBe(200)
    expect(['', 'bytes=-', 'bytes=-0', 'lines=0-3', 'bytes=0-99'].map(text => rangeOf(text, 50))).toEqual([
      null,
      null,
      'outside',
      null,
      [0, 50],
    ])
  })

  test('what is not what it was said to be is let go, with a sentence', async () => {
    const other = recording(5000, 9)
    await begin(idOf(other), 5000)
    await put(idOf(other), 0, recording(5000, 10))
    expect((await whole(idOf(other))).body.message).toContain('not what it was said to be')
    const page = Buffer.from('<html><script>alert(1)</script></html>'.repeat(10))
    await begin(idOf(page), page.length)
    await put(idOf(page), 0, page)
    expect((await whole(idOf(page))).body.message).toContain('no recording or clip')
    expect(await stored()).toBe(0)
    expect((await get(idOf(page))).status).toBe(404)
  })

  test('pieces of another length, behind the end or of the unknown are refused; so are other lengths of the same', async () => {
    await begin(id, bytes.length)
    expect((await put(id, 0, bytes.subarray(0, 9))).body.message).toContain('Piece 0 has 1048576 bytes, not 9')
    expect((await put(id, 3, bytes.subarray(0, 9))).body.message).toContain('no piece 3')
    expect((await put(id, 0, Buffer.concat([piece(bytes, 0), Buffer.from('x')]))).status).toBe(413)
    expect((await put(idOf(piece(bytes, 1)), 0, bytes.subarray(0, 9))).status).toBe(404)
    expect((await begin(id, 17)).status).toBe(400)
    for (const wrong of [
      { id: 'xyz', bytes: 3 },
      { id, bytes: 0 },
      { id, bytes: 1.5 },
      { id: id.toUpperCase(), bytes: 3 },
      {},
    ]) {
      expect((await agent.post(`/api/films/${film}/media`).send(wrong)).status).toBe(400)
    }
    expect((await agent.get(`/api/films/${film}/media/..%2f..%2fetc`)).status).toBe(400)
  })

  test('one is bounded, and so are all of a film together; what was only begun counts', async () => {
    const much = await begin('a'.repeat(64), BOUNDS.oneBytes + 1)
    expect([much.status, much.body.message]).toEqual([413, 'It has 4 MB; one may have 3 MB.'])
    await begin('a'.repeat(64), BOUNDS.oneBytes)
    const full = await begin('b'.repeat(64), 2 * 1024 ** 2 + 1)
    expect([full.status, full.body.message]).toEqual([
      413,
      'The film holds 3 MB of 5 MB of recordings, clips and pictures: there is no room for 3 MB more.',
    ])
    // Nobody goes on with the first one: a day later there is room.
    await older(25)
    expect((await begin('b'.repeat(64), 2 * 1024 ** 2 + 1)).status).toBe(200)
  })

  test('only members see them, and reviewers send none', async () => {
    await store(bytes)
    await b.account('stranger').catch(() => undefined)
    await b.account('reviewer').catch(() => undefined)
    const [stranger, reviewer] = [await visitor(b.app, 'stranger'), await visitor(b.app, 'reviewer')]
    await b.source.query(
      `INSERT INTO members (film_id, account_id, role) SELECT $1, id, 'reviewer' FROM accounts WHERE name = 'reviewer'`,
      [film],
    )
    expect((await get(id, undefined, stranger)).status).toBe(404)
    expect((await begin(id, bytes.length, stranger)).status).toBe(404)
    expect((await get(id, undefined, reviewer)).status).toBe(200)
    expect((await begin(id, bytes.length, reviewer)).status).toBe(403)
    expect((await put(id, 0, piece(bytes, 0), reviewer)).status).toBe(403)
    expect((await whole(id, reviewer)).status).toBe(403)
    // The same in another film is another one: nobody learns that it is known.
    const other = await filmWithShot(agent)
    expect((await begin(id, bytes.length, agent, other.film)).body.whole).toBe(false)
  })

  test('they stay as long as a shot refers to them or its journal does, copies too, and then go', async () => {
    const media = await store(bytes)
    const { sweep } = mediaService(b.source, BOUNDS)
    await older(25)
    await post(agent, shot, [batch('lay', { kind: 'sound.add', sound: sound(media) })])
    await post(agent, shot, [batch('take', { kind: 'sound.remove', id: 'voice' })], { since: 1 })
    await sweep()
    expect(await stored()).toBe(1)
    const copy = (await agent.post(`/api/shots/${shot}/duplicate`)).body.id as string
    await b.source.query('DELETE FROM shots WHERE id = $1', [shot])
    await sweep()
    expect(await stored()).toBe(1)
    await b.source.query('DELETE FROM shots WHERE id = $1', [copy])
    expect(await sweep()).toBeGreaterThanOrEqual(1)
    expect(await stored()).toBe(0)
    expect(
      (
        await b.source.query('SELECT count(*)::int AS n FROM media_chunks WHERE id = $1 AND film_id = $2', [
          media,
          film,
        ])
      )[0].n,
    ).toBe(0)
    // What has only just come is not taken for what nobody wants.
    await store(bytes)
    await sweep()
    expect(await stored()).toBe(1)
  })
})
