import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { createHash } from 'node:crypto'
import { connect as connectTo, type AddressInfo, type Socket } from 'node:net'
import { request as ask, type IncomingMessage, type Server } from 'node:http'
import { gzipSync } from 'node:zlib'
import request from 'supertest'
import { serverFor } from '../src/app.ts'
import { jsonFault } from '../src/problems/readJson.ts'
import { bench, filmWithShot, newDrawing, PASSWORD, post, visitor, type Visitor } from './harness.ts'

let b: Awaited<ReturnType<typeof bench>>
let owner: Visitor
let film: string
let shot: string
let server: Server
let port: number

beforeAll(async () => {
  // At the settings as they come: no public address.
  b = await bench({ publicOrigin: undefined, streamLimits: { perAccount: 3, perServer: 5 } })
  for (const label of ['owner', 'animator']) await b.account(label)
  server = serverFor(b.app, { headersTimeout: 600, requestTimeout: 900, connectionsCheckingInterval: 100 } as never)
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  port = (server.address() as AddressInfo).port
})
beforeEach(async () => {
  owner = await visitor(b.app, 'owner')
  ;({ film, shot } = await filmWithShot(owner))
})
afterAll(async () => {
  server.closeAllConnections()
  server.close()
  await b.close()
})

const cookieOf = async (label: string) => {
  const reply = await request(server)
    .post('/api/session')
    .send({ email: `${label}@marsh-post.example`, password: PASSWORD })
  return String(reply.headers['set-cookie']).split(';')[0] as string
}

describe('who is let in at the door', () => {
  const rename = (headers: Record<string, string>) =>
    Object.entries(headers).reduce(
      (r, [name, value]) => r.set(name, value),
      request(server).patch(`/api/films/${film}`),
    )

  test('changes come from pages of this very address, whatever a page elsewhere calls itself', async () => {
    const cookie = await cookieOf('owner')
    const here = `127.0.0.1:${port}`
    const cases: [string, Record<string, string>, number][] = [
      ['its own page', { Origin: `http://${here}`, 'Sec-Fetch-Site': 'same-origin' }, 200],
      ['a command, not a page', {}, 200],
      ['its own page by another of its names', { Host: `localhost:${port}`, Origin: `http://localhost:${port}` }, 200],
      [
        'a name led here from elsewhere',
        { Host: `marsh.example:${port}`, Origin: `http://marsh.example:${port}` },
        421,
      ],
      ['a page elsewhere', { Origin: 'http://elsewhere.example' }, 403],
      ['a page on another port', { Origin: 'http://127.0.0.1:1', 'Sec-Fetch-Site': 'same-site' }, 403],
      ['a page without a name', { Origin: 'null' }, 403],
      ['a page over TLS that is not here', { Origin: `https://${here}` }, 403],
      ['a page that hides its name', { 'Sec-Fetch-Site': 'cross-site' }, 403],
      ['a longer name that begins alike', { Origin: `http://${here}.elsewhere.example` }, 403],
    ]
    for (const [what, headers, status] of cases) {
      const reply = await rename({ Cookie: cookie, ...headers }).send({ name: what })
      expect([what, reply.status]).toEqual([what, status])
    }
    const { films } = (await owner.get('/api/shelf')).body
    expect(films.find((f: { id: string }) => f.id === film).name).toBe('its own page by another of its names')
    const look = await request(server).get('/api/shelf').set({ Cookie: cookie, 'Sec-Fetch-Site': 'cross-site' })
    expect(look.status).toBe(403)
  })

  test('a public address is taken with a slash at its end, and other names are', async () => {
    const told = await bench({ publicOrigin: 'https://desk.example', allowedHosts: ['Marsh.example:4610'] })
    const codes = async (headers: Record<string, string>) =>
      (
        await request(told.app.callback())
          .post('/api/session')
          .set(headers)
          .send({ email: 'a@b.example', password: 'x' })
      ).body.code
    expect(await codes({ Host: 'desk.example', Origin: 'https://desk.example' })).toBe('wrong-sign-in')
    expect(await codes({ Host: 'marsh.example:4610', Origin: 'http://marsh.example:4610' })).toBe('wrong-sign-in')
    expect(await codes({ Host: 'other.example', Origin: 'https://desk.example' })).toBe('wrong-host')
    await told.close()
  })

  test('behind a proxy that is believed the cookie is bound to TLS and this host; one that is not told of is not believed', async () => {
    const enter = (app: typeof b.app) =>
      request(app.callback())
        .post('/api/session')
        .set({ Host: 'desk.example', 'X-Forwarded-Proto': 'https', 'X-Forwarded-For': '10.0.0.9' })
        .send({ email: 'owner@marsh-post.example', password: PASSWORD })
    const deps = { publicOrigin: 'https://desk.example' }
    const [told, untold] = [await bench({ ...deps, trustProxy: true }), await bench(deps)]
    for (const each of [told, untold]) await each.account('owner')
    const secure = await enter(told.app)
    expect(String(secure.headers['set-cookie'])).toMatch(/^__Host-desk_session=[^;]+; path=\/; .*secure; httponly/i)
    expect(secure.headers['strict-transport-security']).toBe('max-age=31536000')
    const plain = await enter(untold.app)
    expect(String(plain.headers['set-cookie'])).not.toMatch(/__Host|secure/i)
    expect(plain.headers['strict-transport-security']).toBeUndefined()
    for (const each of [told, untold]) await each.close()
  })
})

/** Sends a request by hand; answers with the status and when it came. */
function byHand(
  head: string,
  body: Buffer | string = '',
  keepSending = false,
): Promise<{ status: string; ms: number }> {
  const began = performance.now()
  return new Promise(done => {
    const socket: Socket = connectTo(port, '127.0.0.1')
    let text = ''
    socket.on('data', part => (text += String(part)))
    socket.on('error', () => undefined)
    socket.on('close', () => done({ status: text.slice(9, 12), ms: performance.now() - began }))
    socket.write(`${head}\r\nHost: 127.0.0.1:${port}\r\n`)
    socket.write('\r\n')
    if (body.length) socket.write(body)
    if (!keepSending && !head.includes('Content-Length')) socket.end()
  })
}

describe('bodies', () => {
  test('nobody who is not signed in has a body read, and little is read of others', async () => {
    const huge = 'x'.repeat(200_000)
    const reply = await request(server)
      .post(`/api/shots/${shot}/journal`)
      .set('Content-Type', 'application/json')
      .send(`"${huge}"`)
    expect([reply.status, reply.body.code]).toEqual([401, 'not-signed-in'])
    const cookie = await cookieOf('owner')
    const name = await request(server)
      .patch(`/api/films/${film}`)
      .set({ Cookie: cookie, 'Content-Type': 'application/json' })
      .send(`{"name":"${huge}"}`)
    expect([name.status, name.body.code]).toEqual([413, 'too-large'])
    const door = await request(server)
      .post('/api/session')
      .set('Content-Type', 'application/json')
      .send(`{"email":"${huge}"}`)
    expect([door.status, door.body.code]).toEqual([413, 'too-large'])
  })

  test('compressed, unknown and broken encodings are refused as such', async () => {
    const cookie = await cookieOf('owner')
    const zip = gzipSync(JSON.stringify({ name: 'x'.repeat(60) }))
    for (const [encoding, body] of [
      ['gzip', zip],
      ['br', zip],
      ['gzip', Buffer.from('no gzip')],
      ['utf-9', zip],
      ['gzip, gzip', zip],
    ] as const) {
      const status = await new Promise(done => {
        const headers = {
          Cookie: cookie,
          'Content-Type': 'application/json',
          'Content-Encoding': encoding,
          'Content-Length': body.length,
        }
        ask({ port, method: 'PATCH', path: `/api/films/${film}`, headers }, (res: IncomingMessage) =>
          done(res.statusCode),
        ).end(body)
      })
      expect([encoding, status]).toEqual([encoding, 415])
    }
  })

  test('who sends slowly is not waited for', async () => {
    const cookie = await cookieOf('owner')
    const head = `PATCH /api/films/${film} HTTP/1.1\r\nCookie: ${cookie}\r\nContent-Type: application/json\r\nContent-Length: 100`
    const slow = await byHand(head, '{"name":')
    expect(slow.status).toMatch(/^4/)
    expect(slow.ms).toBeLessThan(4000)
  }, 15_000)

  test('depth and number are looked at without building anything', () => {
    const text = (s: string) => jsonFault(Buffer.from(s))?.words ?? null
    expect(text('{"a":[1,2,{"b":"[[[[[[[[[[[[[[[[[[[[[[[[[\\"[[["}]}')).toBeNull()
    expect(text('['.repeat(16) + ']'.repeat(16))).toBeNull()
    expect(text('['.repeat(17) + ']'.repeat(17))).toMatch(/deeper than 16/)
    expect(text(`[${'1,'.repeat(600_001)}1]`)).toMatch(/more than 600000/)
    expect(text('"\\')).toBeNull()
  })
})

describe('what is asked for oddly', () => {
  test('is answered with a refusal and never as a fault of the server', async () => {
    const cookie = await cookieOf('owner')
    const get = (path: string) =>
      new Promise<number>(done => {
        ask({ port, path, headers: { Cookie: cookie } }, res => (res.resume(), done(res.statusCode ?? 0))).end()
      })
    for (const path of [
      '/../../etc/passwd',
      '/..%2f..%2fetc/passwd',
      '/%zz',
      '/%00',
      '/assets/%2e%2e/%2e%2e/x.js',
      '/api/%zz',
      '/api/shots/%zz',
      `/api/shots/${shot}/journal?after=99999999999`,
      `/api/shots/${shot}/journal?after=-1`,
      `/api/shots/${shot}/samples?ids=%00`,
    ]) {
      const status = await get(path)
      expect([path, status >= 400 && status < 500]).toEqual([path, true])
    }
    const keys = { undo: ['\u0000'] }
    const habits = { night: false, leftHanded: false, fingerDraws: false, sideButton: 'paper', keys }
    expect((await owner.put('/api/habits').send(habits)).status).toBe(400)
    expect((await owner.put('/api/habits').send({ ...habits, keys: { 'a\u0000': ['t'] } })).status).toBe(400)
  })
})

describe('streams', () => {
  /** Opens a stream; answers with what came, and a promise of its end. */
  async function listen(cookie: string, to = shot) {
    const words: string[] = []
    const res = await new Promise<IncomingMessage>(done =>
      ask({ port, path: `/api/shots/${to}/events`, headers: { Cookie: cookie } }, done).end(),
    )
    res.on('data', (part: Buffer) => words.push(part.toString()))
    const ended = new Promise<void>(done => res.on('close', done))
    return { status: res.statusCode, words, ended, close: () => res.destroy() }
  }
  const soon = <T>(promise: Promise<T>) =>
    Promise.race([promise.then(() => 'ended'), new Promise(done => setTimeout(() => done('still open'), 3000))])

  test('are bounded for an account and for the server', async () => {
    const [cookie, other] = [await cookieOf('owner'), await cookieOf('animator')]
    await b.source.query(`INSERT INTO members SELECT $1, id, 'animator' FROM accounts WHERE name = 'animator'`, [film])
    const open = [await listen(cookie), await listen(cookie), await listen(cookie), await listen(cookie)]
    expect(open.map(stream => stream.status)).toEqual([200, 200, 200, 429])
    const others = [await listen(other), await listen(other), await listen(other)]
    expect(others.map(stream => stream.status)).toEqual([200, 200, 429])
    for (const stream of [...open, ...others]) stream.close()
    await new Promise(done => setTimeout(done, 100))
    const again = await listen(cookie)
    expect(again.status).toBe(200)
    again.close()
  })

  test('end with the session, with membership, and when the shot or film is removed', async () => {
    const member = () =>
      b.source.query(
        `INSERT INTO members SELECT $1, id, 'animator' FROM accounts WHERE name = 'animator' ON CONFLICT DO NOTHING`,
        [film],
      )
    const cases: [string, (cookie: string) => Promise<unknown>][] = [
      ['signing out', cookie => request(server).delete('/api/session').set('Cookie', cookie)],
      [
        'a session taken away',
        cookie => {
          const token = cookie.split('=')[1] as string
          return b.source.query('DELETE FROM sessions WHERE token_hash = $1', [
            createHash('sha256').update(token).digest('hex'),
          ])
        },
      ],
      [
        'a member taken off',
        () => b.source.query(`DELETE FROM members WHERE film_id = $1 AND role = 'animator'`, [film]),
      ],
      ['the shot removed', () => owner.post(`/api/shots/${shot}/remove`)],
      [
        'the film removed',
        async () => {
          await owner.post(`/api/shots/${shot}/restore`)
          const stream = listen(await cookieOf('animator'))
          await owner.post(`/api/films/${film}/remove`)
          return stream.then(s => s.ended)
        },
      ],
    ]
    for (const [what, end] of cases) {
      await member()
      const cookie = await cookieOf('animator')
      const stream = what === 'the film removed' ? null : await listen(cookie)
      const bystander = what.startsWith('the ') ? null : await listen(await cookieOf('owner'))
      await end(cookie)
      if (stream) expect([what, await soon(stream.ended)]).toEqual([what, 'ended'])
      if (bystander) {
        await post(owner, shot, [newDrawing(`d-${what.replaceAll(' ', '-')}`, what.length)])
        await new Promise(done => setTimeout(done, 150))
        expect([what, bystander.words.length]).toEqual([what, 2])
        bystander.close()
      }
    }
  }, 30_000)
})

describe('what lies in the bin', () => {
  test('can be neither read nor written nor copied, only put back', async () => {
    await post(owner, shot, [newDrawing('d1', 1)])
    const routes = (): [string, ReturnType<Visitor['get']>][] => [
      ['open', owner.get(`/api/shots/${shot}`)],
      ['samples', owner.get(`/api/shots/${shot}/samples`)],
      ['journal', owner.get(`/api/shots/${shot}/journal?after=0`)],
      ['versions', owner.get(`/api/shots/${shot}/versions?drawing=d1`)],
      ['events', owner.get(`/api/shots/${shot}/events`)],
      ['post', post(owner, shot, [newDrawing('d2', 2)])],
      ['rename', owner.patch(`/api/shots/${shot}`).send({ name: 'Other' })],
      ['duplicate', owner.post(`/api/shots/${shot}/duplicate`)],
      ['remove', owner.post(`/api/shots/${shot}/remove`)],
    ]
    const allGone = async () => {
      for (const [what, asked] of routes()) {
        const reply = await asked
        expect([what, reply.status, reply.body.code]).toEqual([what, 410, 'removed'])
      }
    }
    await owner.post(`/api/shots/${shot}/remove`)
    await allGone()
    await owner.post(`/api/shots/${shot}/restore`)
    await owner.post(`/api/films/${film}/remove`)
    await allGone()
    for (const reply of [
      await owner.post(`/api/films/${film}/shots`).send({}),
      await owner.patch(`/api/films/${film}`).send({ name: 'x' }),
      await owner.post(`/api/shots/${shot}/restore`),
      await owner.post(`/api/films/${film}/remove`),
    ])
      expect(reply.body.code).toBe('removed')
    await owner.post(`/api/films/${film}/restore`)
    expect((await owner.get(`/api/shots/${shot}`)).body.seq).toBe(1)
  })
})
