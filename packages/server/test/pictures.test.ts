import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { MEDIA_CHUNK_BYTES } from '@unhurried/core/assets'
import { unpackStrokes } from '@unhurried/contract'
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
  const { body } = await agent.get(`/api/shots/${of}/samples`).query({ ids: id }).buffer(true)
  return Buffer.from(new Map(unpackStrokes(body)).get(id) ?? [])
}

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
  await b.source.undoLastMigration()
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
