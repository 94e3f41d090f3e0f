import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { TELEPHONE } from '@unhurried/contract'
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import { accessService } from '../src/services/access.ts'
import { telephoneService } from '../src/services/telephones.ts'
import { benchWithOwner, filmWithShot, visitor, type Bench, type Visitor } from './harness.ts'

let b: Bench
let agent: Visitor
let shot: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner())
})
beforeEach(async () => {
  ;({ shot } = await filmWithShot(agent))
})
afterAll(() => b.close())

/** Enough of a photograph: it begins like one. */
const photo = (words = 'heron') => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.from(words)])
const open = async () => (await agent.post(`/api/shots/${shot}/telephones`)).body as { id: string; token: string }
/** Whoever holds a telephone: nobody has signed in there. */
const phone = () => request(b.app.callback())
const ask = (token: string) => phone().get('/api/telephone').set('Authorization', `Bearer ${token}`)
const send = (token: string, bytes: Buffer, id: string = randomUUID()) =>
  phone()
    .put(`/api/telephone/photos/${id}`)
    .set('Authorization', `Bearer ${token}`)
    .type('application/octet-stream')
    .send(bytes)
const at = (id: string, more = '') => `/api/shots/${shot}/telephones/${id}${more}`

describe('photographs from a telephone', () => {
  test('come in the order they were sent, are fetched, and the telephone is told', async () => {
    const { id, token } = await open()
    expect((await ask(token)).body).toEqual({
      shot: 'Lantern',
      film: 'The Marsh Post',
      seconds: 60 * TELEPHONE.minutes,
      photos: [],
    })
    const [one, two] = [randomUUID(), randomUUID()]
    expect((await send(token, photo('one'), one)).status).toBe(200)
    expect((await send(token, photo('two'), two)).status).toBe(200)
    // Sent again, since the answer got lost: it is there once.
    expect((await send(token, photo('one'), one)).status).toBe(200)
    expect((await agent.get(at(id))).body.photos.map((p: { id: string }) => p.id)).toEqual([one, two])
    const fetched = await agent.get(at(id, `/photos/${two}`)).buffer(true)
    expect(Buffer.from(fetched.body)).toEqual(photo('two'))
    expect((await ask(token)).body.photos).toEqual([
      { id: one, taken: false },
      { id: two, taken: true },
    ])
  })

  test('the code is good for its minutes, for one at a time, and until it is taken back', async () => {
    const first = await open()
    const second = await open()
    expect((await ask(first.token)).status).toBe(404)
    expect((await ask(second.token)).status).toBe(200)
    await send(second.token, photo())
    expect((await agent.delete(at(second.id))).status).toBe(200)
    expect((await send(second.token, photo())).body.message).toContain('no longer good')
    const third = await open()
    await send(third.token, photo())
    await b.source.query(`UPDATE telephones SET until = now() - interval '1 second' WHERE id = $1`, [third.id])
    for (const answer of [await ask(third.token), await send(third.token, photo()), await agent.get(at(third.id))])
      expect(answer.status).toBe(404)
    expect(await telephoneService(b.source, accessService(b.source)).sweep()).toBe(1)
    const left = await b.source.query('SELECT count(*)::int AS n FROM telephone_photos WHERE telephone_id = $1', [
      third.id,
    ])
    expect(left).toEqual([{ n: 0 }])
  })

  test('the code opens nothing else, and is stored only as a hash', async () => {
    const { id, token } = await open()
    const bearer = { Authorization: `Bearer ${token}` }
    for (const path of ['/api/shelf', `/api/shots/${shot}`, at(id), at(id, `/photos/${randomUUID()}`)])
      expect((await phone().get(path).set(bearer)).status).toBe(401)
    const rows = await b.source.query('SELECT * FROM telephones')
    expect(JSON.stringify(rows)).not.toContain(token)
  })

  test.each(['', 'Basic abc', 'Bearer ', 'Bearer a b', `Bearer ${'x'.repeat(300)}`])('%j is no code', async words => {
    expect((await phone().get('/api/telephone').set('Authorization', words)).status).toBe(401)
  })

  test.each<[string, Buffer]>([
    ['a page', Buffer.from('<html>')],
    ['a drawn text', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')],
    ['a pack', Buffer.from('PK\x03\x04')],
    ['nothing', Buffer.alloc(0)],
  ])('%s is no photograph', async (_, bytes) => {
    const { id, token } = await open()
    expect((await send(token, bytes)).status).toBe(400)
    expect((await agent.get(at(id))).body.photos).toEqual([])
  })

  test('too large a photograph and too many are told, and one that is there already is not counted twice', async () => {
    const { token } = await open()
    expect((await send(token, Buffer.concat([photo(), Buffer.alloc(TELEPHONE.photoBytes)]))).status).toBe(413)
    const ids = Array.from({ length: TELEPHONE.photos }, () => randomUUID())
    for (const id of ids) expect((await send(token, photo(), id)).status).toBe(200)
    expect((await send(token, photo())).status).toBe(413)
    expect((await send(token, photo(), ids[3])).status).toBe(200)
  })

  test('strangers, reviewers and those taken off may not ask for a code, nor does an old one serve them', async () => {
    const account = await b.account(`fox-${shot.slice(0, 8)}`)
    const fox = await visitor(b.app, `fox-${shot.slice(0, 8)}`)
    const asked = () => fox.post(`/api/shots/${shot}/telephones`)
    expect((await asked()).status).toBe(404)
    const [{ film }] = await b.source.query('SELECT film_id AS film FROM shots WHERE id = $1', [shot])
    const role = (name: string) =>
      b.source.query(
        `INSERT INTO members (film_id, account_id, role) VALUES ($1, $2, $3)
         ON CONFLICT (film_id, account_id) DO UPDATE SET role = $3`,
        [film, account.id, name],
      )
    await role('reviewer')
    expect((await asked()).status).toBe(403)
    await role('animator')
    const { id, token } = (await asked()).body
    // What one has asked for is no other member's.
    expect((await agent.get(at(id))).status).toBe(404)
    await role('reviewer')
    expect((await send(token, photo())).status).toBe(403)
    await b.source.query('DELETE FROM members WHERE account_id = $1', [account.id])
    expect((await send(token, photo())).status).toBe(404)
  })

  test('a shot in the bin takes none', async () => {
    const { token } = await open()
    await agent.post(`/api/shots/${shot}/remove`)
    expect((await send(token, photo())).status).toBe(410)
  })
})
