import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { FIRST, type ShotDocument } from '@unhurried/core/document'
import { binService } from '../src/services/bin.ts'
import {
  benchWithOwner,
  filmWithShot,
  newDrawing,
  ORIGIN,
  post,
  SHOT,
  stroke,
  visitor,
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

describe('the bin', () => {
  const bin = async (who = agent) =>
    (await who.get('/api/bin')).body as {
      days: number
      films: { id: string; name: string; shots: number; removedAt: string; leavesAt: string }[]
      shots: { id: string; name: string; film: string; mayThrowAway: boolean; leavesAt: string }[]
    }
  const rows = async (id: string) =>
    (await b.source.query('SELECT count(*)::int AS n FROM assets WHERE shot_id = $1', [id]))[0].n as number

  test('says what lies there, for how long, and lets it be put back with all that was drawn', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    await agent.post(`/api/shots/${shot}/remove`)
    const lies = (await bin()).shots.find(s => s.id === shot)
    expect(lies).toMatchObject({ name: SHOT.name, film: 'The Marsh Post', mayThrowAway: true })
    expect(Math.round((Date.parse(lies?.leavesAt ?? '') - Date.now()) / 86_400_000)).toBe(30)
    await agent.post(`/api/shots/${shot}/restore`)
    expect((await bin()).shots.filter(s => s.id === shot)).toEqual([])
    expect(strokesOf((await read()).document)).toEqual(['a'])
    await agent.post(`/api/films/${film}/remove`)
    expect((await bin()).films.find(f => f.id === film)).toMatchObject({ name: 'The Marsh Post', shots: 1 })
  })

  test('only what lies there is thrown away, only by the owner, and then wholly', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    await b.account('animator').catch(() => undefined)
    const animator = await visitor(b.app, 'animator')
    const [{ id }] = await b.source.query(`SELECT id FROM accounts WHERE name = 'animator'`)
    await b.source.query(`INSERT INTO members VALUES ($1, $2, 'animator')`, [film, id])
    await agent.delete(`/api/bin/shots/${shot}`)
    expect(await rows(shot)).toBe(1)
    await animator.post(`/api/shots/${shot}/remove`).set('Origin', ORIGIN)
    expect((await bin(animator)).shots.find(s => s.id === shot)?.mayThrowAway).toBe(false)
    expect((await animator.delete(`/api/bin/shots/${shot}`).set('Origin', ORIGIN)).status).toBe(403)
    await animator.post('/api/bin/empty').set('Origin', ORIGIN)
    expect(await rows(shot)).toBe(1)
    expect((await agent.delete(`/api/bin/shots/${shot}`)).status).toBe(200)
    expect([await rows(shot), (await agent.get(`/api/shots/${shot}`)).status]).toEqual([0, 404])
  })

  test('is emptied of what one owns, and of nothing that lies on the shelf', async () => {
    const { film: kept, shot: keptShot } = await filmWithShot(agent)
    await agent.post(`/api/shots/${shot}/remove`)
    const { film: away } = await filmWithShot(agent)
    await agent.post(`/api/films/${away}/remove`)
    await agent.post('/api/bin/empty')
    const now = await bin()
    expect([now.films, now.shots]).toEqual([[], []])
    const { films } = (await agent.get('/api/shelf')).body as { films: { id: string; shots: { id: string }[] }[] }
    expect(films.find(f => f.id === kept)?.shots.map(s => s.id)).toEqual([keptShot])
    expect(films.find(f => f.id === film)?.shots).toEqual([])
    expect(films.some(f => f.id === away)).toBe(false)
  })

  test('what has lain there for its days goes by itself, and not a moment earlier', async () => {
    await agent.post(`/api/shots/${shot}/remove`)
    const own = binService(b.source, 3)
    const after = (days: number) => own.sweep(new Date(Date.now() + days * 86_400_000))
    await after(2.99)
    expect((await bin()).shots.some(s => s.id === shot)).toBe(true)
    await after(3.01)
    expect((await bin()).shots.some(s => s.id === shot)).toBe(false)
    expect((await agent.get(`/api/shots/${shot}`)).status).toBe(404)
  })
})

test('shots lie in the order they are laid in; those not named lie behind, and another film’s are left alone', async () => {
  const add = async (name: string) =>
    (await agent.post(`/api/films/${film}/shots`).send({ ...SHOT, name })).body.id as string
  const [two, three] = [await add('two'), await add('three')]
  const { shot: other } = await filmWithShot(agent)
  const order = async () => {
    const { films } = (await agent.get('/api/shelf')).body as { films: { id: string; shots: { id: string }[] }[] }
    return films.find(f => f.id === film)?.shots.map(s => s.id)
  }
  expect((await agent.put(`/api/films/${film}/order`).send({ shots: [three, other, shot] })).status).toBe(200)
  expect(await order()).toEqual([three, shot, two])
  expect((await agent.put(`/api/films/${film}/order`).send({ shots: ['first'] })).status).toBe(400)
  const four = await add('four')
  expect(await order()).toEqual([three, shot, two, four])
})
