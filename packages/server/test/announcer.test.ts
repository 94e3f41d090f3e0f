import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { Writable } from 'node:stream'
import { pino } from 'pino'
import { announcer } from '../src/services/announcer.ts'
import { bench, filmWithShot, newDrawing, PASSWORD, post, sampleText, stroke, visitor } from './harness.ts'

let b: Awaited<ReturnType<typeof bench>>
let logged = ''
const log = pino(
  { level: 'debug' },
  new Writable({ write: (part, _encoding, done) => ((logged += String(part)), done()) }),
)

beforeAll(async () => {
  b = await bench({ log })
  await b.account('owner')
})
afterAll(() => b.close())

/** Waits until something is so, at most ten seconds: a busy machine takes longer than an idle one. */
async function until(so: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !so(); i++) await new Promise(done => setTimeout(done, 50))
}

test('a lost listening connection is made again, and what was missed meanwhile is told', async () => {
  const agent = await visitor(b.app, 'owner')
  const { shot } = await filmWithShot(agent)
  const word = announcer(b.url, pino({ level: 'silent' }))
  await word.start()
  const heard: number[] = []
  const stop = word.hear(shot, seq => heard.push(seq))
  await post(agent, shot, [newDrawing('d1', 1)])
  await b.source.query(
    `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()`,
  )
  await post(agent, shot, [stroke('a')])
  await until(() => heard.includes(2))
  expect(heard.at(-1)).toBe(2)
  await post(agent, shot, [stroke('b')])
  await until(() => heard.includes(3))
  expect(heard.at(-1)).toBe(3)
  stop()
  await post(agent, shot, [stroke('c')])
  await new Promise(done => setTimeout(done, 100))
  expect(heard.at(-1)).toBe(3)
  await word.stop()
}, 30_000)

test('neither passwords nor cookies nor drawings reach the log, whatever goes wrong', async () => {
  const agent = await visitor(b.app, 'owner')
  const { shot } = await filmWithShot(agent)
  const cookie = String(
    (await agent.post('/api/session').send({ email: 'owner@marsh-post.example', password: PASSWORD })).headers[
      'set-cookie'
    ],
  )
  await agent.post('/api/session').send({ email: 'owner@marsh-post.example', password: 'a-wrong-secret' })
  await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
  // A fault nobody foresaw, in the middle of storing a drawing.
  await b.source.query('ALTER TABLE journal RENAME TO journal_gone')
  const reply = await post(agent, shot, [stroke('b')])
  await b.source.query('ALTER TABLE journal_gone RENAME TO journal')
  expect([reply.status, reply.body.code]).toEqual([500, 'server-fault'])
  expect(reply.text).not.toMatch(/journal|relation|select/i)
  expect(logged).toContain('request failed')
  const token = /desk_session=([^;]+)/.exec(cookie)?.[1] as string
  for (const secret of [PASSWORD, 'a-wrong-secret', token, sampleText]) expect(logged).not.toContain(secret)
  // Nothing of the failed request stayed behind.
  expect((await post(agent, shot, [stroke('b')])).body.refused).toEqual([])
})
