import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { randomUUID } from 'node:crypto'
import { connect as dial, createServer, type AddressInfo, type Socket } from 'node:net'
import pg from 'pg'
import { pino } from 'pino'
import { connect, PATIENCE } from '../src/db/connect.ts'
import { announcer } from '../src/services/announcer.ts'
import { inTurns, type Settled } from '../src/services/turns.ts'
import {
  bench,
  benchWithOwner,
  type Bench,
  filmWithShot,
  newDrawing,
  post,
  stroke,
  visitor,
  type Visitor,
} from './harness.ts'

let b: Bench
let agent: Visitor
let shot: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner())
})
beforeEach(async () => {
  ;({ shot } = await filmWithShot(agent))
  await post(agent, shot, [newDrawing('d1', 1)])
})
afterAll(() => b.close())

const timed = async <T>(promise: PromiseLike<T>): Promise<[T, number]> => {
  const began = performance.now()
  return [await promise, performance.now() - began]
}

test('a shot that another process holds locked is answered as busy, and keeps nobody from other shots', async () => {
  const other = await filmWithShot(agent)
  const holder = new pg.Client({ connectionString: b.url })
  await holder.connect()
  await holder.query('BEGIN')
  await holder.query('SELECT 1 FROM shots WHERE id = $1 FOR UPDATE', [shot])
  // More of them than there are connections.
  const held = Array.from({ length: 40 }, (_, i) => post(agent, shot, [stroke(`h${i}`)], { since: 1 }))
  const waiting = Promise.all(held.map(reply => reply.then(r => r.status)))
  await new Promise(done => setTimeout(done, 200))
  for (let i = 0; i < 10; i++) {
    const [reply, ms] = await timed(post(agent, other.shot, [newDrawing(`d${i}`, i + 1)]))
    expect([reply.status, ms < PATIENCE.lockMs / 2]).toEqual([200, true])
  }
  expect(new Set(await waiting)).toEqual(new Set([503]))
  await holder.query('ROLLBACK')
  await holder.end()
  // Nothing was taken in half, and what is sent again is.
  expect((await post(agent, shot, [stroke('h0')], { since: 1 })).body.done).toEqual(['stroke-h0'])
}, 30_000)

test('a process that stands still in the middle of a transaction loses its locks', async () => {
  const holder = new pg.Client({
    connectionString: b.url,
    idle_in_transaction_session_timeout: PATIENCE.idleInTransactionMs,
  })
  const ended = new Promise(done => holder.on('error', done))
  await holder.connect()
  await holder.query('BEGIN')
  await holder.query('SELECT 1 FROM shots WHERE id = $1 FOR UPDATE', [shot])
  let status = 0
  for (let i = 0; i < 4 && status !== 200; i++) status = (await post(agent, shot, [stroke('p')], { since: 1 })).status
  await ended
  expect(status).toBe(200)
}, 40_000)

test('a database that is away is answered as busy, and the answer says nothing of its insides', async () => {
  const away = await bench()
  await away.account('owner')
  const there = await visitor(away.app, 'owner')
  const admin = new pg.Client({ connectionString: process.env.TEST_CLUSTER_URL })
  await admin.connect()
  await admin.query(`DROP DATABASE ${away.url.replace(/^.*\//, '')} WITH (FORCE)`)
  await admin.end()
  const reply = await there.get('/api/shelf')
  expect([reply.status, reply.body.code, reply.headers['retry-after']]).toEqual([503, 'busy', '2'])
  expect(reply.text).not.toMatch(/postgres|connect|pool|select/i)
  await away.close().catch(() => undefined)
})

test('a listening connection that falls silent is noticed and made again, and what was missed is told', async () => {
  const target = new URL(b.url)
  const port = Number(target.port)
  let isSilent = false
  const sockets: Socket[] = []
  // A wire that swallows everything without closing, as when a machine in between is gone.
  const wire = createServer(desk => {
    const house = dial(port, target.hostname)
    sockets.push(desk, house)
    for (const socket of [desk, house]) socket.on('error', () => undefined)
    const isOld = !isSilent
    desk.on('data', part => (isSilent && isOld) || house.write(part))
    house.on('data', part => (isSilent && isOld) || desk.write(part))
    desk.on('close', () => house.destroy())
    house.on('close', () => desk.destroy())
  })
  await new Promise<void>(done => wire.listen(0, '127.0.0.1', done))
  target.port = String((wire.address() as AddressInfo).port)
  const word = announcer(String(target), pino({ level: 'silent' }), { askMs: 200, answerMs: 300 })
  await word.start()
  const heard: number[] = []
  word.hear(shot, seq => heard.push(seq))
  await post(agent, shot, [stroke('a')])
  for (let i = 0; i < 40 && !heard.includes(2); i++) await new Promise(done => setTimeout(done, 50))
  isSilent = true
  await post(agent, shot, [stroke('b')])
  for (let i = 0; i < 100 && !heard.includes(3); i++) await new Promise(done => setTimeout(done, 50))
  expect(heard).toEqual([2, 3])
  await word.stop()
  for (const socket of sockets) socket.destroy()
  wire.close()
}, 20_000)

test('servers that start at the same moment on an empty database agree about its tables', async () => {
  const name = `t_${randomUUID().replaceAll('-', '')}`
  const cluster = process.env.TEST_CLUSTER_URL as string
  const admin = new pg.Client({ connectionString: cluster })
  await admin.connect()
  await admin.query(`CREATE DATABASE ${name}`)
  await admin.end()
  const url = cluster.replace(/[^/]+$/, name)
  const sources = await Promise.all([connect(url), connect(url), connect(url), connect(url)])
  const [{ n }] = await (sources[0] as (typeof sources)[0]).query('SELECT count(*)::int AS n FROM house')
  expect(n).toBe(1)
  await Promise.all(sources.map(source => source.destroy()))
})

test('work in turns: together what waits for one thing, apart what does not, and no longer a line than agreed', async () => {
  const seen: string[] = []
  let release: () => void = () => undefined
  const gate = new Promise<void>(done => (release = done))
  const turns = inTurns<number, string>(
    async (key, jobs): Promise<Settled<string>[]> => {
      seen.push(`${key}: ${jobs.join(' ')}`)
      if (jobs.includes(0)) await gate
      if (jobs.includes(7)) throw new Error('all of it')
      return jobs.map(job =>
        job === 3 ? { ok: false, error: new Error('three') } : { ok: true, value: `${key}${job}` },
      )
    },
    3,
    5,
    () => new Error('too many'),
  )
  const asked = [0, 1, 2, 3, 4, 5, 6].map(job => turns('a', job).catch((error: Error) => error.message))
  const other = turns('b', 1)
  expect(await other).toBe('b1')
  release()
  expect(await Promise.all(asked)).toEqual(['a0', 'a1', 'a2', 'three', 'a4', 'a5', 'too many'])
  expect(seen).toEqual(['a: 0', 'b: 1', 'a: 1 2 3', 'a: 4 5'])
  await expect(turns('a', 7)).rejects.toThrow('all of it')
  expect(await turns('a', 8)).toBe('a8')
})
