import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { MEDIA_CHUNK_BYTES } from '@unhurried/core/assets'
import { STROKE_BYTES_PER_SHOT } from '@unhurried/contract'
import { createHash } from 'node:crypto'
import { mediaService } from '../src/services/media.ts'
import { verifyAll } from '../src/services/verify.ts'
import {
  benchWithOwner,
  filmWithShot,
  lyingPicture,
  newDrawing,
  PNG,
  post,
  type Bench,
  type Visitor,
} from './harness.ts'

let b: Bench
let agent: Visitor
let film: string
let shot: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner())
})
beforeEach(async () => {
  ;({ film, shot } = await filmWithShot(agent))
})
afterAll(() => b.close())

/** The picture made longer by a chunk that nobody reads, so that it lies in several pieces. */
function large(bytes: number): Buffer {
  const text = Buffer.alloc(bytes + 12)
  text.writeUInt32BE(bytes, 0)
  text.write('teXt', 4)
  for (let i = 8; i < bytes + 8; i++) text[i] = (i * 131) % 251
  const end = PNG.length - 12
  return Buffer.concat([PNG.subarray(0, end), text, PNG.subarray(end)])
}
const LARGE = large(2.5 * MEDIA_CHUNK_BYTES)
const idOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const kept = async (): Promise<{ id: string; pieces: number }[]> =>
  b.source.query(
    `SELECT id, (SELECT count(*)::int FROM media_chunks c WHERE c.film_id = m.film_id AND c.id = m.id) AS pieces
     FROM media m WHERE film_id = $1 ORDER BY id`,
    [film],
  )
const ahead = (id: string, bytes: Buffer, to = shot) =>
  agent.put(`/api/shots/${to}/assets/${id}?kind=picture`).set('Content-Type', 'application/octet-stream').send(bytes)
async function pictureOf(id: string, of = shot): Promise<Buffer> {
  const names = (await agent.get(`/api/shots/${of}/pictures`).query({ ids: id })).body.pictures as Record<
    string,
    string
  >
  return names[id] ? (await agent.get(`/api/films/${film}/media/${names[id]}`).buffer(true)).body : Buffer.alloc(0)
}
/** Sends what is still missing of a picture, as many pieces as are said. */
async function sendPieces(bytes: Buffer, most = Infinity): Promise<readonly number[]> {
  const id = idOf(bytes)
  const { missing } = (await agent.post(`/api/films/${film}/media`).send({ id, bytes: bytes.length })).body
  for (const place of missing.slice(0, most)) {
    const piece = bytes.subarray(place * MEDIA_CHUNK_BYTES, (place + 1) * MEDIA_CHUNK_BYTES)
    await agent
      .put(`/api/films/${film}/media/${id}/${place}`)
      .set('Content-Type', 'application/octet-stream')
      .send(piece)
  }
  if (most === Infinity) await agent.post(`/api/films/${film}/media/${id}/whole`)
  return missing
}
const named = (id: string, name: string, to = shot) =>
  agent.put(`/api/shots/${to}/assets/${id}?kind=picture&media=${name}`)

test('pictures of drawings lie with the film’s media, once each, however many drawings and shots show them', async () => {
  const text = PNG.toString('base64')
  const laid = [newDrawing('d1', 1), lyingPicture('a', 'p1'), lyingPicture('b', 'p2')]
  expect((await post(agent, shot, laid, { samples: { p1: text, p2: text } })).body.done).toHaveLength(3)
  await ahead('p3', LARGE)
  expect((await post(agent, shot, [lyingPicture('c', 'p3')])).body.done).toEqual(['lay-c'])
  expect(await kept()).toEqual(
    [
      { id: idOf(PNG), pieces: 1 },
      { id: idOf(LARGE), pieces: 3 },
    ].sort((x, y) => x.id.localeCompare(y.id)),
  )
  const copy = (await agent.post(`/api/shots/${shot}/duplicate`)).body.id as string
  expect(await kept()).toHaveLength(2)
  for (const one of [shot, copy]) {
    expect(PNG.equals(await pictureOf('p2', one))).toBe(true)
    expect(LARGE.equals(await pictureOf('p3', one))).toBe(true)
  }
  // The same name for something else is still told apart.
  const again = await post(agent, shot, [lyingPicture('d', 'p1')], {
    samples: { p1: LARGE.subarray(0).toString('base64') },
  })
  expect(again.body.refused[0]).toMatchObject({ code: 'other-content' })
  expect((await verifyAll(b.source, false)).findings.filter(f => f.shot === shot || f.shot === copy)).toEqual([])

  const { sweep } = mediaService(b.source, { oneBytes: 1e9, filmBytes: 1e9 })
  await b.source.query("UPDATE media SET touched_at = now() - interval '25 hours' WHERE film_id = $1", [film])
  await b.source.query('DELETE FROM shots WHERE id = $1', [shot])
  await sweep()
  expect(await kept()).toHaveLength(2)
  await b.source.query('DELETE FROM shots WHERE id = $1', [copy])
  await sweep()
  expect(await kept()).toEqual([])
})

test('what somebody began to send under its name, and may be anything, is not taken for it', async () => {
  const id = idOf(LARGE)
  await agent.post(`/api/films/${film}/media`).send({ id, bytes: 4 * MEDIA_CHUNK_BYTES })
  for (const place of [0, 3]) {
    const piece = Buffer.alloc(MEDIA_CHUNK_BYTES, 7)
    await agent
      .put(`/api/films/${film}/media/${id}/${place}`)
      .set('Content-Type', 'application/octet-stream')
      .send(piece)
  }
  await ahead('p1', LARGE)
  expect((await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1')])).body.refused).toEqual([])
  expect(LARGE.equals(await pictureOf('p1'))).toBe(true)
})

test('pictures that lay in their shots move there when the tables are brought up to date, and back', async () => {
  await ahead('p1', LARGE)
  await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1')])
  for (const _ of ['named', 'pictures']) await b.source.undoLastMigration()
  const [row] = await b.source.query("SELECT bytes FROM assets WHERE shot_id = $1 AND id = 'p1'", [shot])
  expect(LARGE.equals(row.bytes)).toBe(true)
  await b.source.query('DELETE FROM media WHERE film_id = $1', [film])
  await b.source.runMigrations()
  expect(await kept()).toEqual([{ id: idOf(LARGE), pieces: 3 }])
  expect(LARGE.equals(await pictureOf('p1'))).toBe(true)
})

test('what nothing ever used is let go with what the film kept for it alone', async () => {
  await ahead('p1', PNG)
  await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1')])
  const uses = async () =>
    (await b.source.query('SELECT id FROM media_uses WHERE shot_id = $1', [shot])).map((use: { id: string }) => use.id)
  for (const [id, bytes] of [
    ['stray', LARGE],
    ['twin', PNG],
  ] as const) {
    await b.source.query("INSERT INTO assets (shot_id, id, kind, bytes) VALUES ($1, $2, 'picture', $3)", [
      shot,
      id,
      bytes,
    ])
  }
  expect((await uses()).sort()).toEqual([idOf(PNG), idOf(LARGE)].sort())
  await verifyAll(b.source, true)
  expect(await uses()).toEqual([idOf(PNG)])
})

test('a picture comes in pieces, goes on where it was cut off, and is then named ahead of the batch that uses it', async () => {
  expect(await sendPieces(LARGE, 2)).toEqual([0, 1, 2])
  // Not all of it is there.
  expect((await named('p1', idOf(LARGE))).status).toBe(404)
  expect(await sendPieces(LARGE)).toEqual([2])
  expect((await named('p1', idOf(LARGE))).status).toBe(200)
  expect((await named('p1', idOf(LARGE))).status).toBe(200)
  // Nothing shows it yet, and a day later it is still wanted as long as it waits.
  await b.source.query("UPDATE media SET touched_at = now() - interval '25 hours' WHERE film_id = $1", [film])
  const { sweep } = mediaService(b.source, { oneBytes: 1e9, filmBytes: 1e9 })
  await sweep()
  expect(await kept()).toHaveLength(1)
  expect((await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1')])).body.done).toEqual([
    'add-d1',
    'lay-a',
  ])
  expect(LARGE.equals(await pictureOf('p1'))).toBe(true)
  const [row] = await b.source.query('SELECT stroke_bytes::int AS bytes FROM shots WHERE id = $1', [shot])
  expect(row.bytes).toBe(LARGE.length)
  expect((await verifyAll(b.source, false)).findings.filter(f => f.shot === shot)).toEqual([])
  // The same bytes under another name need not be sent again, and are counted.
  expect(await sendPieces(LARGE)).toEqual([])
  await named('p2', idOf(LARGE))
  expect((await post(agent, shot, [lyingPicture('b', 'p2')])).body.done).toEqual(['lay-b'])
  expect(await kept()).toHaveLength(1)
  // It is wanted as long as the journal is.
  await b.source.query('UPDATE media SET touched_at = touched_at - $2::interval WHERE film_id = $1', [film, '25 hours'])
  await sweep()
  expect(LARGE.equals(await pictureOf('p2'))).toBe(true)
})

test('what is named and no picture, too large, too much, or nowhere, is refused', async () => {
  expect((await named('p1', idOf(Buffer.from('nowhere')))).status).toBe(404)
  expect((await named('p1', 'no-name')).status).toBe(400)
  const sound = Buffer.concat([Buffer.from('RIFF\0\0\0\0WAVEfmt '), Buffer.alloc(100)])
  await sendPieces(sound)
  const heard = await named('p1', idOf(sound))
  expect([heard.status, heard.body.message]).toEqual([400, expect.stringContaining('no picture that can be kept')])
  const huge = large(4.2 * MEDIA_CHUNK_BYTES)
  await sendPieces(huge)
  expect((await named('p1', idOf(huge))).body.message).toBe('It is larger than a picture of a drawing may be.')
  await sendPieces(LARGE)
  const elsewhere = await filmWithShot(agent)
  expect((await named('p1', idOf(LARGE), elsewhere.shot)).status).toBe(404)
  await b.source.query('UPDATE shots SET stroke_bytes = $2 WHERE id = $1', [shot, STROKE_BYTES_PER_SHOT - 10])
  expect((await named('p1', idOf(LARGE))).status).toBe(413)
  const kindless = await agent.put(`/api/shots/${shot}/assets/p1?kind=samples&media=${idOf(LARGE)}`)
  expect(kindless.status).toBe(400)
})
