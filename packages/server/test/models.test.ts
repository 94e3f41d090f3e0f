import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { MODEL_LIMITS, type ModelSheet } from '@unhurried/core/models'
import { createHash } from 'node:crypto'
import { mediaService } from '../src/services/media.ts'
import { benchWithOwner, filmWithShot, visitor, type Bench, type Visitor } from './harness.ts'

let b: Bench
let agent: Visitor
let film: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner())
})
beforeEach(async () => {
  ;({ film } = await filmWithShot(agent))
})
afterAll(() => b.close())

/** Enough of a picture: it begins like one, and goes on by its name. */
const picture = (name: string) =>
  Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), Buffer.from(name)])
const idOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const sheet = (media = 'a'.repeat(64), name = 'Tilda'): ModelSheet => ({
  name,
  views: [
    {
      id: 'front',
      name: 'front',
      media,
      widthPx: 300,
      heightPx: 400,
      low: { x: 150, y: 390 },
      high: { x: 150, y: 10 },
    },
  ],
  heights: [{ id: 'eyes', name: 'eyes', share: 0.9 }],
})
const keep = (id: string, turn: number, model: unknown, who = agent) =>
  who.put(`/api/films/${film}/models/${id}`).send({ turn, model })
const all = async (who = agent) => (await who.get(`/api/films/${film}/models`)).body.models

describe('model sheets of a film', () => {
  test('are kept, changed turn by turn, and taken off', async () => {
    expect(await all()).toEqual([])
    expect((await keep('tilda', 0, sheet())).body).toEqual({ id: 'tilda', turn: 1, model: sheet() })
    const longer = { ...sheet(), name: 'Tilda, grown' }
    expect((await keep('tilda', 1, longer)).body.turn).toBe(2)
    expect(await all()).toEqual([{ id: 'tilda', turn: 2, model: longer }])
    expect((await agent.delete(`/api/films/${film}/models/tilda`)).status).toBe(200)
    expect((await agent.delete(`/api/films/${film}/models/tilda`)).status).toBe(200)
    expect(await all()).toEqual([])
  })

  test('of two who change the same turn, the second is told, and nothing of the first is lost', async () => {
    await keep('tilda', 0, sheet())
    const answers = await Promise.all([
      keep('tilda', 1, { ...sheet(), name: 'one' }),
      keep('tilda', 1, { ...sheet(), name: 'other' }),
    ])
    expect(answers.map(answer => answer.status).sort()).toEqual([200, 409])
    const done = answers.find(answer => answer.status === 200)!
    expect((await all())[0].model).toEqual(done.body.model)
    // A new one under a name that is taken is no other.
    expect((await keep('tilda', 0, sheet())).status).toBe(409)
    expect((await keep('gone', 3, sheet())).status).toBe(409)
  })

  test.each<[string, unknown, string]>([
    ['no model', {}, 'model.name'],
    ['a side that is no picture', { ...sheet('x') }, 'model.views.0.media'],
    [
      'points off the picture',
      { ...sheet(), views: [{ ...sheet().views[0], low: { x: 1e9, y: 0 } }] },
      'the two points of front',
    ],
    ['heights without end', { ...sheet(), heights: [{ id: 'a', name: 'a', share: 1e12 }] }, 'the height a'],
    [
      'more than there is room for',
      { ...sheet(), heights: Array.from({ length: 25 }, (_, i) => ({ id: `h${i}`, name: 'h', share: 0 })) },
      'model.heights',
    ],
    ['something else beside it', { ...sheet(), script: 'x' }, 'script'],
  ])('%s is refused by its name', async (_words, model, told) => {
    const { status, body } = await keep('tilda', 0, model)
    expect(status).toBe(400)
    expect(JSON.stringify(body)).toContain(told)
    expect(await all()).toEqual([])
  })

  test('one that is far too long is refused before it is read', async () => {
    expect((await keep('tilda', 0, { ...sheet(), name: 'x'.repeat(100_000) })).status).toBe(413)
  })

  test(`a film holds ${MODEL_LIMITS.sheets}`, async () => {
    for (let i = 0; i < MODEL_LIMITS.sheets; i++) expect((await keep(`m${i}`, 0, sheet())).status).toBe(200)
    const { status, body } = await keep('one-more', 0, sheet())
    expect([status, body.message]).toEqual([413, `A film holds at most ${MODEL_LIMITS.sheets} model sheets.`])
  })

  test('strangers do not find them, and reviewers look only', async () => {
    await keep('tilda', 0, sheet())
    await b.account('stranger')
    const stranger = await visitor(b.app, 'stranger')
    expect((await stranger.get(`/api/films/${film}/models`)).status).toBe(404)
    expect((await keep('theirs', 0, sheet(), stranger)).status).toBe(404)
    await b.source.query(`UPDATE members SET role = 'reviewer' WHERE film_id = $1`, [film])
    expect(await all()).toHaveLength(1)
    expect((await keep('tilda', 1, sheet())).status).toBe(403)
    expect((await agent.delete(`/api/films/${film}/models/tilda`)).status).toBe(403)
    await b.source.query('DELETE FROM members WHERE film_id = $1', [film])
    expect((await agent.get(`/api/films/${film}/models`)).status).toBe(404)
  })

  test('their pictures stay as long as a sheet shows them, and go a day after', async () => {
    const media = mediaService(b.source, { oneBytes: 1e6, filmBytes: 1e6 })
    const [kept, loose] = [picture('kept'), picture('loose')]
    for (const bytes of [kept, loose]) await media.store(film, { id: idOf(bytes), bytes })
    await keep('tilda', 0, sheet(idOf(kept)))
    await b.source.query(`UPDATE media SET touched_at = now() - interval '25 hours' WHERE film_id = $1`, [film])
    await media.sweep()
    const left = async () =>
      (await b.source.query('SELECT id FROM media WHERE film_id = $1', [film])).map((row: { id: string }) => row.id)
    expect(await left()).toEqual([idOf(kept)])
    const served = await agent.get(`/api/films/${film}/media/${idOf(kept)}`).buffer(true)
    expect([served.status, served.headers['content-type']]).toEqual([200, 'image/png'])
    await agent.delete(`/api/films/${film}/models/tilda`)
    await media.sweep()
    expect(await left()).toEqual([])
  })
})

describe('a film that is a study', () => {
  test('says whose on the shelf and to every desk that opens its shots; empty it is one’s own again', async () => {
    const card = async () => (await agent.get('/api/shelf')).body.films.find((one: { id: string }) => one.id === film)
    expect((await card()).study).toBe('')
    expect((await agent.patch(`/api/films/${film}`).send({ study: 'the millers’ pond film' })).status).toBe(200)
    expect(await card()).toMatchObject({ study: 'the millers’ pond film' })
    const [shot] = (await card()).shots
    expect((await agent.get(`/api/shots/${shot.id}`)).body.filmStudy).toBe('the millers’ pond film')
    expect((await agent.patch(`/api/films/${film}`).send({ study: 'x'.repeat(300) })).status).toBe(400)
    expect((await agent.patch(`/api/films/${film}`).send({ study: '', name: 'Mine' })).status).toBe(200)
    expect(await card()).toMatchObject({ study: '', name: 'Mine' })
  })
})
