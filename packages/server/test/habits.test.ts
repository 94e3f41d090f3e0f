import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { FRESH_HABITS } from '@unhurried/contract'
import request from 'supertest'
import { bench, visitor, ORIGIN } from './harness.ts'

let b: Awaited<ReturnType<typeof bench>>
beforeAll(async () => {
  b = await bench()
  await Promise.all(['wilma', 'odo'].map(label => b.account(label)))
})
afterAll(() => b.close())

describe('how somebody sits', () => {
  const wanted = {
    night: true,
    leftHanded: true,
    fingerDraws: false,
    sideButton: 'gather',
    keys: { 'desk/play': ['shift+p'], 'flip/undo': [] },
  }

  test('is kept on the account, for that account alone', async () => {
    const [wilma, odo] = [await visitor(b.app, 'wilma'), await visitor(b.app, 'odo')]
    expect((await wilma.get('/api/habits')).body).toEqual(FRESH_HABITS)
    expect((await wilma.put('/api/habits').set('Origin', ORIGIN).send(wanted)).status).toBe(200)
    expect((await (await visitor(b.app, 'wilma')).get('/api/habits')).body).toEqual(wanted)
    expect((await odo.get('/api/habits')).body).toEqual(FRESH_HABITS)
  })

  test('what is no habit is refused, named, and changes nothing', async () => {
    const wilma = await visitor(b.app, 'wilma')
    for (const [patch, field] of [
      [{ night: 'yes' }, 'night'],
      [{ sideButton: 'fly' }, 'sideButton'],
      [{ keys: { 'desk/play': ['a key of my own'] } }, 'keys.desk/play.0'],
      [{ keys: { 'Play it!': ['p'] } }, 'keys'],
      [{ keys: { 'desk/play': ['a', 'b', 'c', 'd', 'e'] } }, 'keys.desk/play'],
      [{ colour: 'red' }, ''],
    ] as const) {
      const reply = await wilma
        .put('/api/habits')
        .set('Origin', ORIGIN)
        .send({ ...wanted, ...patch })
      expect(reply.status).toBe(400)
      expect(JSON.stringify(reply.body)).toContain(field)
    }
    expect((await wilma.get('/api/habits')).body).toEqual(wanted)
  })

  test('is nobody’s business without signing in, and what cannot be read any more is as it came', async () => {
    const nobody = request(b.app.callback())
    expect((await nobody.get('/api/habits')).status).toBe(401)
    expect((await nobody.put('/api/habits').set('Origin', ORIGIN).send(wanted)).status).toBe(401)
    await b.source.query(`UPDATE accounts SET habits = '{"night": 3}'`)
    expect((await (await visitor(b.app, 'wilma')).get('/api/habits')).body).toEqual(FRESH_HABITS)
  })
})
