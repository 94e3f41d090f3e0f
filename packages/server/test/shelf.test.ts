import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { FIRST, type ShotDocument } from '@unhurried/core/document'
import { benchWithOwner, filmWithShot, newDrawing, post, SHOT, stroke, type Bench, type Visitor } from './harness.ts'

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

const read = async () => (await agent.get(`/api/shots/${shot}`)).body as { seq: number; document: ShotDocument }
const strokesOf = (document: ShotDocument) => Object.keys(document.drawings.d1?.elements ?? {})

describe('the shelf', () => {
  test('films and shots are named, copied with their drawings, removed and brought back', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    await agent.patch(`/api/films/${film}`).send({ name: 'Night post' })
    await agent.patch(`/api/shots/${shot}`).send({ name: 'Ripples' })
    const copy = (await agent.post(`/api/shots/${shot}/duplicate`)).body
    const names = async () => {
      const { films } = (await agent.get('/api/shelf')).body as {
        films: { id: string; name: string; shots: { name: string }[] }[]
      }
      const here = films.find(f => f.id === film)
      return here && [here.name, ...here.shots.map(s => s.name)]
    }
    expect(await names()).toEqual(['Night post', 'Ripples', 'Ripples (copy)'])
    const opened = (await agent.get(`/api/shots/${copy.id}`)).body as { seq: number; document: ShotDocument }
    expect([opened.seq, strokesOf(opened.document)]).toEqual([0, ['a']])
    await post(agent, copy.id, [stroke('b')])
    expect(strokesOf((await read()).document)).toEqual(['a'])
    await agent.post(`/api/shots/${shot}/remove`)
    expect(await names()).toEqual(['Night post', 'Ripples (copy)'])
    await agent.post(`/api/shots/${shot}/restore`)
    await agent.post(`/api/films/${film}/remove`)
    expect(await names()).toBeUndefined()
    await agent.post(`/api/films/${film}/restore`)
    expect(await names()).toEqual(['Night post', 'Ripples', 'Ripples (copy)'])
  })

  test('holds so many films and shots and no more, and says so', async () => {
    const { b: own, agent: otter } = await benchWithOwner()
    const { film: full } = await filmWithShot(otter)
    const add = () => otter.post(`/api/films/${full}/shots`).send(SHOT)
    const fill = (films: string, count: number) =>
      own.source.query(
        `INSERT INTO shots (film_id, name, place) SELECT id, 'x', n FROM (${films}) f, generate_series(1, ${count}) n`,
      )
    await fill(`SELECT '${full}'::uuid AS id`, 498)
    expect((await add()).status).toBe(200)
    expect((await add()).body.message).toBe('A film holds at most 500 shots.')
    const [{ id: owner }] = await own.source.query('SELECT id FROM accounts')
    await own.source.query(
      `WITH made AS (INSERT INTO films (name) SELECT 'f' FROM generate_series(1, 199) RETURNING id)
       INSERT INTO members SELECT id, $1, 'owner' FROM made`,
      [owner],
    )
    expect((await otter.post('/api/films').send({ name: 'x' })).body.message).toBe(
      'One account may own at most 200 films.',
    )
    await own.source.query('DELETE FROM shots WHERE film_id = $1', [full])
    await fill(`SELECT id FROM films WHERE id <> '${full}' LIMIT 8`, 500)
    expect((await add()).body.message).toBe('One owner has at most 4000 shots.')
    await own.close()
  })

  test('a new shot covers its length on every layer', async () => {
    const { document } = await read()
    expect(document.takes[FIRST.take]?.columns).toEqual({
      [FIRST.background]: [{ drawing: null, frames: 24 }],
      [FIRST.drawn]: [{ drawing: null, frames: 24 }],
    })
  })
})
