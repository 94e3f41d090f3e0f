import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { MemberRow } from '../src/db/entities.ts'
import type { Operation } from '@unhurried/core/document'
import {
  batch,
  bench,
  filmWithShot,
  newDrawing,
  ORIGIN,
  PASSWORD,
  post,
  SHOT,
  visitor,
  type Visitor,
} from './harness.ts'
import request from 'supertest'

let ids = 0
const newId = () => `b${ids++}`
type Method = 'put' | 'get' | 'post' | 'patch' | 'delete'
let b: Awaited<ReturnType<typeof bench>>
let owner: Visitor
let film: string
let shot: string

beforeAll(async () => {
  b = await bench()
  await Promise.all(['owner', 'stranger', 'reviewer', 'animator'].map(label => b.account(label)))
  owner = await visitor(b.app, 'owner')
  ;({ film, shot } = await filmWithShot(owner))
  await owner.post(`/api/shots/${shot}/journal`).send({ since: 0, batches: [newDrawing('d1', 1)], samples: {} })
  for (const role of ['reviewer', 'animator'] as const) {
    const [{ id }] = await b.source.query('SELECT id FROM accounts WHERE email = $1', [`${role}@marsh-post.example`])
    await b.source.manager.insert(MemberRow, { filmId: film, accountId: id, role })
  }
})
afterAll(() => b.close())

/** Every route that touches a film or shot, with a body that would be accepted from a member. */
const routes = (): [Method, string, object | undefined, 'look' | 'remark' | 'draw' | 'own'][] => [
  ['get', `/api/shots/${shot}`, undefined, 'look'],
  ['get', `/api/shots/${shot}/samples`, undefined, 'look'],
  ['get', `/api/shots/${shot}/journal?after=0`, undefined, 'look'],
  ['get', `/api/shots/${shot}/versions?drawing=d1`, undefined, 'look'],
  ['get', `/api/shots/${shot}/events`, undefined, 'look'],
  ['post', `/api/shots/${shot}/journal`, { since: 0, batches: [newDrawing('d9', 9)], samples: {} }, 'remark'],
  ['get', `/api/shots/${shot}/pictures`, undefined, 'look'],
  ['put', `/api/shots/${shot}/assets/a1?kind=samples`, undefined, 'draw'],
  ['patch', `/api/shots/${shot}`, { name: 'Mine now' }, 'draw'],
  ['post', `/api/shots/${shot}/duplicate`, {}, 'draw'],
  ['post', `/api/shots/${shot}/remove`, {}, 'draw'],
  ['post', `/api/shots/${shot}/restore`, {}, 'draw'],
  ['patch', `/api/films/${film}`, { name: 'Mine now' }, 'draw'],
  ['post', `/api/films/${film}/shots`, SHOT, 'draw'],
  ['post', `/api/films/${film}/remove`, {}, 'own'],
  ['post', `/api/films/${film}/restore`, {}, 'own'],
  ['get', `/api/films/${film}/members`, undefined, 'own'],
  [
    'post',
    `/api/films/${film}/members`,
    { email: 'reviewer@marsh-post.example', name: 'reviewer', role: 'reviewer' },
    'own',
  ],
  ['delete', `/api/films/${film}/members/${film}`, undefined, 'own'],
]

async function everything() {
  const tables = ['films', 'shots', 'journal', 'snapshots', 'assets', 'assets_ahead']
  const rows = await Promise.all(tables.map(t => b.source.query(`SELECT * FROM ${t} ORDER BY 1, 2`)))
  return JSON.stringify(rows)
}

describe('who may do what', () => {
  test('to a stranger the film does not exist, on any route, and nothing changes', async () => {
    const stranger = await visitor(b.app, 'stranger')
    const before = await everything()
    for (const [method, path, body] of routes()) {
      const reply = await stranger[method](path).send(body)
      expect([path, reply.status, reply.body.code]).toEqual([path, 404, 'not-found'])
    }
    expect((await stranger.get('/api/shelf')).body).toEqual({ films: [] })
    expect(await everything()).toBe(before)
  })

  test('without signing in nothing answers', async () => {
    for (const [method, path, body] of [
      ...routes(),
      ['get', '/api/shelf', undefined] as const,
      ['post', '/api/films', { name: 'x' }] as const,
    ]) {
      const reply = await request(b.app.callback())[method as Method](path).send(body)
      expect([path, reply.status, reply.body.code]).toEqual([path, 401, 'not-signed-in'])
    }
  })

  test('a reviewer looks and does not draw; an animator draws and does not remove the film', async () => {
    const before = await everything()
    for (const [role, may] of [
      ['reviewer', ['look', 'remark']],
      ['animator', ['look', 'remark', 'draw']],
    ] as const) {
      const agent = await visitor(b.app, role)
      for (const [method, path, body, wish] of routes()) {
        if ((may as readonly string[]).includes(wish)) continue
        const reply = await agent[method](path).send(body)
        expect([role, path, reply.status, reply.body.code]).toEqual([role, path, 403, 'not-allowed'])
      }
      expect((await agent.get(`/api/shots/${shot}`)).body.role).toBe(role)
    }
    expect(await everything()).toBe(before)
  })

  test('a reviewer remarks, answers and has looked, under their own name; nothing else of the shot changes', async () => {
    const reviewer = await visitor(b.app, 'reviewer')
    const idOf = async (label: string): Promise<string> =>
      (await b.source.query('SELECT id FROM accounts WHERE email = $1', [`${label}@marsh-post.example`]))[0].id
    const [me, other] = [await idOf('reviewer'), await idOf('owner')]
    const answer = { by: me, name: 'Heron', text: 'better' }
    const remark = (id: string, by: string) => ({
      ...{ id, by, name: 'Heron', frame: 0, drawing: null, at: { x: 3, y: 4 } },
      ...{ sketch: [], text: 'too soon', answers: [], closed: false },
    })
    const add = (id: string, by: string): Operation => ({ kind: 'remark.add', remark: remark(id, by) })
    const looked = (by: string): Operation => ({ kind: 'looked.set', by, drawings: { d1: 'x' } })
    await post(owner, shot, [batch('theirs', add('r-owner', other))])
    const verdicts = async (...ops: readonly Operation[][]) => {
      const batches = ops.map(one => batch(newId(), ...one))
      const { body } = await post(reviewer, shot, batches)
      return batches.map(({ id }) => body.refused.find((one: { id: string }) => one.id === id)?.code ?? 'done')
    }
    expect(
      await verdicts(
        [add('r1', me)],
        [looked(me)],
        [{ kind: 'remark.set', id: 'r-owner', patch: { answers: [answer], closed: true } }],
        [{ kind: 'remark.set', id: 'r1', patch: { text: 'too late', answers: [answer] } }],
        [add('r2', me), { kind: 'remark.remove', id: 'r1' }],
      ),
    ).toEqual(['done', 'done', 'done', 'done', 'done'])
    const before = (await owner.get(`/api/shots/${shot}`)).body.document
    expect(Object.keys(before.remarks).sort()).toEqual(['r-owner', 'r2'])
    expect([before.looked, before.remarks['r-owner'].answers]).toEqual([{ [me]: { d1: 'x' } }, [answer]])
    expect(
      await verdicts(
        newDrawing('d9', 9).ops as Operation[],
        [add('r3', other)],
        [looked(other)],
        [{ kind: 'remark.remove', id: 'r-owner' }],
        [{ kind: 'remark.set', id: 'r-owner', patch: { text: 'fine' } }],
        [{ kind: 'remark.set', id: 'r-owner', patch: { answers: [{ ...answer, by: other }] } }],
        [{ kind: 'remark.set', id: 'nowhere', patch: { closed: true } }],
        // One that may be done does not take along what may not.
        [add('r4', me), { kind: 'format.set', patch: { fps: 3 } }],
        [{ kind: 'threshold.set', name: 'volume', value: 9 }],
      ),
    ).toEqual(Array(9).fill('not-yours'))
    expect((await owner.get(`/api/shots/${shot}`)).body.document).toEqual(before)
  })

  test('changes asked for by a page of another origin are refused', async () => {
    const reply = await owner.post('/api/films').set('Origin', 'http://elsewhere.example').send({ name: 'x' })
    expect([reply.status, reply.body.code]).toEqual([403, 'wrong-origin'])
    expect((await owner.get('/api/shelf').set('Origin', 'http://elsewhere.example')).status).toBe(200)
    expect(
      (await owner.patch(`/api/films/${film}`).set('Origin', ORIGIN).send({ name: 'The Marsh Post' })).status,
    ).toBe(200)
  })
})

describe('signing in', () => {
  const enter = (body: object) => request(b.app.callback()).post('/api/session').send(body)

  test('a wrong password and an unknown address get the same answer', async () => {
    const [wrong, unknown] = await Promise.all([
      enter({ email: 'owner@marsh-post.example', password: 'no' }),
      enter({ email: 'nobody@marsh-post.example', password: PASSWORD }),
    ])
    expect(wrong.status).toBe(401)
    expect(unknown.body).toEqual(wrong.body)
  })

  test('wrong fields are named', async () => {
    const reply = await enter({ email: 'owner', password: '', extra: 1 })
    expect(reply.status).toBe(400)
    expect(reply.body.details.map((d: { field: string }) => d.field)).toEqual([
      'email',
      'password',
      '(the whole request)',
    ])
  })

  test('the cookie cannot be read by scripts or sent from elsewhere, and signing out ends it', async () => {
    const reply = await enter({ email: 'OWNER@marsh-post.example', password: PASSWORD })
    const cookie = String(reply.headers['set-cookie'])
    expect(cookie).toMatch(/httponly/i)
    expect(cookie).toMatch(/samesite=strict/i)
    expect(JSON.stringify(await b.source.query('SELECT * FROM sessions'))).not.toContain(
      /desk_session=([^;]+)/.exec(cookie)?.[1],
    )
    const ask = () => request(b.app.callback()).get('/api/session').set('Cookie', cookie)
    expect((await ask()).body.account.name).toBe('owner')
    await request(b.app.callback()).delete('/api/session').set('Cookie', cookie)
    expect((await ask()).body.account).toBeNull()
  })

  test('attempts are limited', async () => {
    const strict = await bench({ signInsPerMinute: 3 })
    const agent = request(strict.app.callback())
    const codes = []
    for (let i = 0; i < 5; i++)
      codes.push((await agent.post('/api/session').send({ email: 'a@b.example', password: 'x' })).status)
    await strict.close()
    expect(codes).toEqual([401, 401, 401, 429, 429])
  })

  test('the first visitor becomes the owner, once, even when two try at the same moment', async () => {
    const fresh = await bench()
    const agent = request(fresh.app.callback())
    expect((await agent.get('/api/session')).body).toEqual({ account: null, needsOwner: true, demo: null })
    const ask = (n: number) =>
      agent.post('/api/owner').send({ email: `o${n}@marsh-post.example`, name: 'Otter', password: PASSWORD })
    const statuses = (await Promise.all([ask(1), ask(2)])).map(reply => reply.status).sort()
    const short = await agent.post('/api/owner').send({ email: 'x@y.example', name: 'x', password: 'short' })
    await fresh.close()
    expect(statuses).toEqual([200, 409])
    expect(short.body.details).toEqual([{ field: 'password', problem: 'must have at least 10 characters' }])
  })

  test('every answer carries the policy that keeps other code out', async () => {
    const { headers } = await request(b.app.callback()).get('/api/session')
    expect(headers['content-security-policy']).toContain("default-src 'none'")
    expect(headers['content-security-policy']).not.toContain('unsafe')
    expect(headers['x-content-type-options']).toBe('nosniff')
    expect(headers['cache-control']).toBe('no-store')
  })
})
