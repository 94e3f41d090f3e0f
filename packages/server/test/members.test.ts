import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { MOST_MEMBERS } from '@unhurried/contract'
import request from 'supertest'
import { bench, filmWithShot, newDrawing, PASSWORD, post, visitor, type Visitor } from './harness.ts'

let b: Awaited<ReturnType<typeof bench>>
let owner: Visitor
let film: string
let shot: string

beforeAll(async () => {
  b = await bench()
  await Promise.all(['owner', 'toad'].map(label => b.account(label)))
  owner = await visitor(b.app, 'owner')
  ;({ film, shot } = await filmWithShot(owner))
})
afterAll(() => b.close())

const mail = (label: string) => `${label}@marsh-post.example`
const letIn = (label: string, role: string, more: object = {}) =>
  owner.post(`/api/films/${film}/members`).send({ email: mail(label), name: label, role, ...more })
const people = async () =>
  (await owner.get(`/api/films/${film}/members`)).body.members.map((one: { name: string; role: string }) => [
    one.name,
    one.role,
  ])

describe('people of a film', () => {
  test('who has an account is let in without a word about it, by whatever capitals, and gets another part by the same', async () => {
    const toad = await visitor(b.app, 'toad')
    expect((await toad.get(`/api/shots/${shot}`)).status).toBe(404)
    const first = await letIn('Toad', 'reviewer')
    expect(first.body).toMatchObject({
      member: { name: 'toad', email: mail('toad'), role: 'reviewer' },
      password: null,
    })
    expect((await toad.get(`/api/shots/${shot}`)).body.role).toBe('reviewer')
    const draws = () => post(toad, shot, [newDrawing('d1', 1)])
    expect((await draws()).body.refused).toMatchObject([{ code: 'not-yours' }])
    await letIn('toad', 'animator')
    expect(await people()).toEqual([
      ['owner', 'owner'],
      ['toad', 'animator'],
    ])
    expect((await draws()).body.refused).toEqual([])
  })

  test('who has none gets one, with a password that is told once, and changes it', async () => {
    const { member, password } = (await letIn('newt', 'reviewer')).body
    expect(password).toMatch(/^([a-z2-9]{4}-){3}[a-z2-9]{4}$/)
    expect((await letIn('newt', 'reviewer')).body.password).toBeNull()
    const sit = (agent: ReturnType<typeof request.agent>, word: string) =>
      agent.post('/api/session').send({ email: mail('newt'), password: word })
    const [newt, elsewhere] = [request.agent(b.app.callback()), request.agent(b.app.callback())]
    expect((await sit(newt, PASSWORD)).status).toBe(401)
    expect((await sit(newt, password)).status).toBe(200)
    await sit(elsewhere, password)
    expect((await newt.get(`/api/shots/${shot}`)).status).toBe(200)
    const change = (word: string, fresh: string) => newt.put('/api/password').send({ password: word, fresh })
    expect((await change('not-this-one', 'lantern-over-reeds')).body.code).toBe('wrong-sign-in')
    const short = await change(password, 'short')
    expect(short.body.details).toMatchObject([{ field: 'fresh', problem: 'must have at least 10 characters' }])
    expect((await change(password, 'lantern-over-reeds')).status).toBe(200)
    // Here one stays; everywhere else one signs in anew.
    expect((await newt.get(`/api/shots/${shot}`)).status).toBe(200)
    expect((await elsewhere.get(`/api/shots/${shot}`)).status).toBe(401)
    expect((await sit(elsewhere, password)).status).toBe(401)
    expect((await sit(elsewhere, 'lantern-over-reeds')).status).toBe(200)
    expect((await owner.delete(`/api/films/${film}/members/${member.account}`)).status).toBe(200)
    expect((await newt.get(`/api/shots/${shot}`)).status).toBe(404)
  })

  test('the owner stays the owner; what is no address or no part is refused, and changes nothing', async () => {
    const before = await people()
    expect((await letIn('owner', 'reviewer')).body).toMatchObject({
      code: 'bad-request',
      message: 'The owner of a film stays its owner.',
    })
    const [{ id }] = await b.source.query(`SELECT id FROM accounts WHERE name = 'owner'`)
    expect((await owner.delete(`/api/films/${film}/members/${id}`)).status).toBe(404)
    expect((await owner.delete(`/api/films/${film}/members/not-an-id`)).status).toBe(400)
    for (const more of [{ email: 'nobody' }, { role: 'owner' }, { name: '' }, { name: 'x'.repeat(200) }, { more: 1 }]) {
      expect([more, (await letIn('heron', 'reviewer', more)).status]).toEqual([more, 400])
    }
    expect(await b.source.query(`SELECT 1 FROM accounts WHERE email = $1`, [mail('heron')])).toEqual([])
    expect(await people()).toEqual(before)
  })

  test('two owners’ presses at once let one person in once; a film holds so many and no more', async () => {
    const both = await Promise.all([letIn('moth', 'reviewer'), letIn('moth', 'reviewer')])
    expect(both.map(one => one.status)).toEqual([200, 200])
    expect(both.filter(one => one.body.password !== null)).toHaveLength(1)
    const there = (await people()).length
    await b.source.query(
      `WITH made AS (INSERT INTO accounts (email, name, password_hash)
         SELECT 'many' || n || '@marsh-post.example', 'many', '' FROM generate_series(1, $2) n RETURNING id)
       INSERT INTO members (film_id, account_id, role) SELECT $1, id, 'reviewer' FROM made`,
      [film, MOST_MEMBERS - there],
    )
    expect((await letIn('frog', 'reviewer')).body.message).toBe('A film has at most 50 people.')
    expect((await letIn('moth', 'animator')).status).toBe(200)
  })
})
