import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { DOCUMENT_SCHEMA, FIRST, type Batch, type ShotDocument } from '@unhurried/core/document'
import { packSamples } from '@unhurried/core/geometry'
import { BYTES_PER_FILM, STROKE_BYTES_PER_SHOT, unpackStrokes } from '@unhurried/contract'
import { createServer, get } from 'node:http'
import type { AddressInfo } from 'node:net'
import { verifyAll } from '../src/services/verify.ts'
import {
  batch,
  type Bench,
  benchWithOwner,
  element,
  filmWithShot,
  lyingPicture,
  newDrawing,
  PNG,
  post,
  sampleText,
  SHOT,
  stroke,
  visitor,
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

const read = async (who = agent) =>
  (await who.get(`/api/shots/${shot}`)).body as { seq: number; document: ShotDocument }
const strokesOf = (document: ShotDocument) => Object.keys(document.drawings.d1?.elements ?? {})

describe('the journal', () => {
  test('takes batches in, numbers them, and answers with what the desk does not know', async () => {
    const first = await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    expect(first.body.entries.map((e: { seq: number }) => e.seq)).toEqual([1, 2])
    const second = await post(agent, shot, [stroke('b')], { since: 2 })
    expect(second.body).toEqual({
      entries: [{ seq: 3, batch: stroke('b') }],
      head: 3,
      refused: [],
      done: ['stroke-b'],
    })
    const { seq, document } = await read()
    expect([seq, strokesOf(document)]).toEqual([3, ['a', 'b']])
    const after = await agent.get(`/api/shots/${shot}/journal?after=2`)
    expect(after.body.entries).toHaveLength(1)
  })

  test('a batch sent again is stored once, also when both requests arrive together', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const batches = Array.from({ length: 40 }, (_, i) => stroke(`n${i}`))
    await Promise.all([post(agent, shot, batches), post(agent, shot, batches), post(agent, shot, batches.slice(0, 20))])
    const { seq, document } = await read()
    expect([seq, strokesOf(document).length]).toEqual([41, 40])
  })

  test('a desk that was opened again before it heard of what was stored is told that it is', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    const opened = (await agent.get(`/api/shots/${shot}`)).body
    expect([opened.seq, opened.recent]).toEqual([2, ['stroke-a', newDrawing('d1', 1).id]])
    const again = await post(agent, shot, [stroke('a'), stroke('x', 'nowhere')], { since: 2 })
    expect([again.body.entries, again.body.done]).toEqual([[], ['stroke-a']])
    expect(strokesOf((await read()).document)).toEqual(['a'])
  })

  test('a batch that cannot be done is refused with its reason, the others are taken in', async () => {
    const reply = await post(agent, shot, [newDrawing('d1', 1), stroke('a', 'nowhere'), stroke('b')])
    expect(reply.body.refused).toEqual([{ id: 'stroke-a', code: 'unknown-drawing', what: 'nowhere' }])
    expect(strokesOf((await read()).document)).toEqual(['b'])
  })

  test('all of a batch or nothing', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const half = batch(
      'half',
      { kind: 'elements.add', drawing: 'd1', elements: [element('x')] },
      { kind: 'drawing.remove', id: 'none' },
    )
    const reply = await post(agent, shot, [half])
    expect(reply.body.refused).toHaveLength(1)
    expect(strokesOf((await read()).document)).toEqual([])
  })

  test('strokes whose samples are nowhere are refused; samples come back as they were sent', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const lost = batch('lost', {
      kind: 'elements.add',
      drawing: 'd1',
      elements: [{ ...element('x'), samples: 'gone' }],
    })
    expect((await post(agent, shot, [lost])).body.refused).toEqual([
      { id: 'lost', code: 'unknown-asset', what: 'gone' },
    ])
    await post(agent, shot, [stroke('a')])
    const packed = await agent
      .get(`/api/shots/${shot}/samples`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = []
        res.on('data', (part: Buffer) => parts.push(part))
        res.on('end', () => done(null, Buffer.concat(parts)))
      })
    expect(unpackStrokes(packed.body as Buffer)).toEqual(
      new Map([['s1', new Uint8Array(Buffer.from(sampleText, 'base64'))]]),
    )
  })

  test('long journals are read from a snapshot, by a process that has nothing in memory', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    for (let i = 0; i < 4; i++) {
      await post(
        agent,
        shot,
        Array.from({ length: 40 }, (_, k) => stroke(`k${i}-${k}`)),
      )
    }
    const [{ n }] = await b.source.query('SELECT max(seq) AS n FROM snapshots WHERE shot_id = $1', [shot])
    expect(n).toBeGreaterThanOrEqual(128)
    const elsewhere = await visitor(b.another(), 'owner')
    expect(strokesOf((await read(elsewhere)).document)).toHaveLength(160)
  })

  test('two server processes agree', async () => {
    const other = await visitor(b.another(), 'owner')
    await post(agent, shot, [newDrawing('d1', 1)])
    await Promise.all(Array.from({ length: 30 }, (_, i) => post(i % 2 ? agent : other, shot, [stroke(`p${i}`)])))
    const [here, there] = [await read(agent), await read(other)]
    expect(here.seq).toBe(31)
    expect(there).toEqual(here)
    await Promise.all(
      Array.from({ length: 8 }, (_, k) =>
        post(
          k % 2 ? agent : other,
          shot,
          Array.from({ length: 20 }, (_, i) => stroke(`q${k}-${i}`)),
        ),
      ),
    )
    // Whoever wrote the documents down, they are what the journal makes.
    const { findings, snapshots } = await verifyAll(b.source, false)
    expect([findings.filter(finding => finding.shot === shot), snapshots > 1]).toEqual([[], true])
  })
})

describe('bad input changes nothing and is named', () => {
  const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`

  test('malformed, oversized, deeply nested and misplaced requests', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const before = await read()
    const raw = (body: string) =>
      agent.post(`/api/shots/${shot}/journal`).set('Content-Type', 'application/json').send(body)
    const cases: [string, request: Promise<{ status: number; body: { code: string } }>, number, string][] = [
      ['half a JSON', raw('{"since": 0, "batches": ['), 400, 'bad-request'],
      ['deeply nested', raw(`{"since":0,"batches":${deep(200_000)},"samples":{}}`), 400, 'bad-request'],
      ['oversized', raw(`{"since":0,"batches":[],"samples":{"a":"${'A'.repeat(9_000_000)}"}}`), 413, 'too-large'],
      [
        'more things than anything holds',
        raw(`{"since":0,"batches":[${'[],'.repeat(700_000)}[]],"samples":{}}`),
        413,
        'too-large',
      ],
      ['a batch without a name', post(agent, shot, [{ label: 'x', ops: [] }]), 400, 'bad-request'],
      ['another field', post(agent, shot, [], { admin: true }), 400, 'bad-request'],
      ['a number no journal has', post(agent, shot, [], { since: 2 ** 31 }), 400, 'bad-request'],
      ['a number no journal has', agent.get(`/api/shots/${shot}/journal?after=2147483648`), 400, 'bad-request'],
      ['an id that is none', agent.get('/api/shots/not-an-id'), 400, 'bad-request'],
      ['a shot that is not there', agent.get('/api/shots/00000000-0000-4000-8000-000000000000'), 404, 'not-found'],
      ['a place that is none', agent.get('/api/nothing'), 404, 'not-found'],
    ]
    for (const [what, asked, status, code] of cases) {
      const reply = await asked
      expect([what, reply.status, reply.body.code]).toEqual([what, status, code])
    }
    expect(await read()).toEqual(before)
  })

  test('the field that is wrong is named', async () => {
    const named = await agent.post(`/api/films/${film}/shots`).send({ ...SHOT, format: { ...SHOT.format, fps: 0 } })
    expect(named.body.details[0].field).toBe('format.fps')
    const control = await agent.post('/api/films').send({ name: 'a\u0000b' })
    expect([control.status, control.body.details[0].field]).toEqual([400, 'name'])
  })

  test('of several batches the unfit one is given up by name, and the others are taken in', async () => {
    const unfit = batch('x', { kind: 'elements.add', drawing: 'd1', elements: [{ ...element('e'), width: -3 }] })
    const unknown = batch('y', { kind: 'shot.burn' } as never)
    const { body } = await post(agent, shot, [newDrawing('d1', 1), unfit, unknown, stroke('a')])
    expect(body.done).toEqual(['add-d1', 'stroke-a'])
    expect(body.refused).toEqual([
      { id: 'x', code: 'unfit', what: expect.stringMatching(/^ops\.0\.elements\.0\.width: /) },
      { id: 'y', code: 'unfit', what: expect.stringMatching(/^ops\.0\.kind: /) },
    ])
  })

  test('of several strokes the one that cannot be read takes only its own batch along', async () => {
    const with2 = batch('with-2', {
      kind: 'elements.add',
      drawing: 'd1',
      elements: [{ ...element('e'), samples: 's2' }],
    })
    for (const broken of ['AAAA', 'A', 'no base64!', 7, '====']) {
      const samples = { s1: sampleText, s2: broken }
      const { body } = await post(agent, shot, [newDrawing('d1', 1), with2, stroke('a')], { samples })
      expect([broken, body.refused]).toEqual([broken, [{ id: 'with-2', code: 'unfit-asset', what: 's2' }]])
    }
    expect(strokesOf((await read()).document)).toEqual(['a'])
  })

  test('a picture is kept like strokes are, and is nothing but a picture', async () => {
    const picture = PNG.toString('base64')
    const lying = (id: string, more: object): Batch => lyingPicture(id, 'p1', more)
    const { body } = await post(
      agent,
      shot,
      [
        newDrawing('d1', 1),
        lying('whole', {}),
        lying('strokes', { picture: 's1' }),
        lying('cut', { picture: 'p2' }),
        batch('stroke', { kind: 'elements.add', drawing: 'd1', elements: [{ ...element('x'), samples: 'p1' }] }),
        lying('faint', { opacity: 2 }),
      ],
      { samples: { s1: sampleText, p1: picture, p2: PNG.subarray(0, 40).toString('base64') } },
    )
    expect(body.done).toEqual(['add-d1', 'lay-whole'])
    expect(body.refused.map(({ id, code }: { id: string; code: string }) => [id, code])).toEqual([
      ['lay-strokes', 'unfit-asset'],
      ['lay-cut', 'unfit-asset'],
      ['stroke', 'unfit-asset'],
      ['lay-faint', 'unfit'],
    ])
    // Known by now: it needs not be sent again, and is still no stroke.
    expect((await post(agent, shot, [lying('again', { matrix: [2, 0, 0, 2, 5, 5] })])).body.done).toEqual(['lay-again'])
    const misused = batch('late', {
      kind: 'elements.add',
      drawing: 'd1',
      elements: [{ ...element('y'), samples: 'p1' }],
    })
    expect((await post(agent, shot, [misused])).body.refused[0]).toMatchObject({ id: 'late', code: 'unfit-asset' })
    expect(strokesOf((await read()).document).sort()).toEqual(['again', 'whole'])
    const faint = batch('set', { kind: 'elements.set', drawing: 'd1', changes: [{ id: 'whole', patch: { width: 3 } }] })
    expect((await post(agent, shot, [faint])).body.refused).toEqual([
      { id: 'set', code: 'bad-value', what: 'width of a picture' },
    ])
  })

  describe('what is sent ahead', () => {
    const ahead = (id: string, bytes: Buffer, kind = 'picture', type = 'application/octet-stream') =>
      agent.put(`/api/shots/${shot}/assets/${id}?kind=${kind}`).set('Content-Type', type).send(bytes)
    const waiting = async () =>
      (await b.source.query('SELECT id FROM assets_ahead WHERE shot_id = $1 ORDER BY id', [shot])).map(
        ({ id }: { id: string }) => id,
      )

    test('waits until a batch uses it, is counted then, and is not sent with it', async () => {
      expect([(await ahead('p1', PNG)).status, (await ahead('p1', PNG)).status]).toEqual([200, 200])
      expect((await ahead('p2', PNG)).status).toBe(200)
      expect(await waiting()).toEqual(['p1', 'p2'])
      // Nobody is told of it, and a batch that is refused leaves it where it is.
      expect((await post(agent, shot, [lyingPicture('x', 'p1')])).body.refused[0].code).toBe('unknown-drawing')
      const { body } = await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1'), lyingPicture('b', 'p1')])
      expect(body.done).toEqual(['add-d1', 'lay-a', 'lay-b'])
      expect(await waiting()).toEqual(['p2'])
      const [{ n, bytes }] = await b.source.query(
        'SELECT count(*)::int AS n, (SELECT stroke_bytes::int FROM shots WHERE id = $1) AS bytes FROM assets WHERE shot_id = $1',
        [shot],
      )
      expect([n, bytes]).toEqual([1, PNG.length])
      // Sent once more behind its batch: known, and counted once.
      expect((await ahead('p1', PNG)).status).toBe(200)
      expect((await post(agent, shot, [lyingPicture('c', 'p1')])).body.done).toEqual(['lay-c'])
      expect((await b.source.query('SELECT stroke_bytes::int AS s FROM shots WHERE id = $1', [shot]))[0].s).toBe(
        PNG.length,
      )
    })

    test('is refused when it is not what it says, is too much, or has a name or a kind that is none', async () => {
      const cut = await ahead('p1', PNG.subarray(0, 40))
      expect([cut.status, cut.body.message]).toEqual([400, 'What was sent is no picture that can be kept: cut-short.'])
      expect((await ahead('p1', PNG, 'samples')).status).toBe(400)
      expect((await ahead('p1', PNG, 'clip')).status).toBe(400)
      expect((await ahead('p%20 1', PNG)).status).toBe(400)
      expect((await ahead('p1', PNG, 'picture', 'application/json')).status).toBe(400)
      expect((await ahead('p1', Buffer.alloc(4 * 1024 * 1024 + 1))).status).toBe(413)
      await b.source.query('UPDATE shots SET stroke_bytes = $2 WHERE id = $1', [shot, STROKE_BYTES_PER_SHOT - 10])
      const full = await ahead('p1', PNG)
      expect([full.status, full.body.message]).toEqual([413, expect.stringContaining('more than it may hold')])
      expect(await waiting()).toEqual([])
    })

    test('what nothing used for a day is let go, and is unknown then', async () => {
      await ahead('p1', PNG)
      await b.source.query("UPDATE assets_ahead SET created_at = now() - interval '25 hours'")
      await ahead('p2', PNG)
      expect(await waiting()).toEqual(['p2'])
      const { body } = await post(agent, shot, [newDrawing('d1', 1), lyingPicture('a', 'p1')])
      expect(body.refused).toEqual([{ id: 'lay-a', code: 'unknown-asset', what: 'p1' }])
    })
  })

  test('a known name with other content is refused, and not answered as done', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a')])
    const other = { ...stroke('a'), ops: stroke('b').ops }
    expect((await post(agent, shot, [other, stroke('a')])).body).toMatchObject({
      refused: [{ id: 'stroke-a', code: 'other-content', what: 'the change itself' }],
      done: ['stroke-a'],
    })
    const bytes = Buffer.from(packSamples([{ x: 9, y: 9, pressure: 1 }])).toString('base64')
    const again = await post(agent, shot, [stroke('c')], { samples: { s1: bytes } })
    expect(again.body.refused).toEqual([{ id: 'stroke-c', code: 'other-content', what: 's1' }])
    expect(strokesOf((await read()).document)).toEqual(['a'])
  })

  test('strokes that nothing uses are not kept', async () => {
    await post(agent, shot, [newDrawing('d1', 1)], { samples: { s1: sampleText, s2: sampleText } })
    await post(agent, shot, [stroke('x', 'nowhere')])
    const count =
      'SELECT count(*)::int AS n, (SELECT stroke_bytes::int FROM shots WHERE id = $1) AS bytes FROM assets WHERE shot_id = $1'
    expect(await b.source.query(count, [shot])).toEqual([{ n: 0, bytes: 0 }])
    await post(agent, shot, [stroke('a')])
    expect(await b.source.query(count, [shot])).toEqual([{ n: 1, bytes: Buffer.from(sampleText, 'base64').length }])
  })

  test('a shot and a film hold so many bytes and no more, and it is said what would fit', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const set = (column: string, bytes: number) =>
      b.source.query(`UPDATE shots SET ${column} = $2 WHERE id = $1`, [shot, bytes])
    await set('stroke_bytes', STROKE_BYTES_PER_SHOT - 1)
    expect((await post(agent, shot, [stroke('a')])).body.refused).toEqual([
      { id: 'stroke-a', code: 'no-room', what: 'strokes of this shot: 0.0 MB more would fit' },
    ])
    await set('stroke_bytes', 0)
    await set('journal_bytes', BYTES_PER_FILM - 10)
    expect((await post(agent, shot, [stroke('a')])).body.refused[0]).toMatchObject({ code: 'no-room' })
    expect((await agent.post(`/api/shots/${shot}/duplicate`)).status).toBe(200)
    await set('stroke_bytes', 11)
    expect((await agent.post(`/api/shots/${shot}/duplicate`)).status).toBe(413)
  })

  test('an operation for another shot finds nothing of this one', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const other = await filmWithShot(agent)
    const reply = await post(agent, other.shot, [stroke('a')])
    expect(reply.body.refused).toEqual([{ id: 'stroke-a', code: 'unknown-drawing', what: 'd1' }])
    expect(strokesOf((await read()).document)).toEqual([])
  })
})

describe('word of changes', () => {
  test('reaches a desk that listens to another server process', async () => {
    const server = createServer(b.another().callback()).listen(0, '127.0.0.1')
    await new Promise(done => server.once('listening', done))
    const { port } = server.address() as AddressInfo
    const cookie = (
      await agent.post('/api/session').send({ email: 'owner@marsh-post.example', password: 'reed-and-lantern' })
    ).headers['set-cookie'] as unknown as string[]
    const heard = await new Promise<string[]>((done, fail) => {
      const words: string[] = []
      const headers = { Cookie: cookie.map(c => c.split(';')[0]).join('; ') }
      const asked = get({ port, host: '127.0.0.1', path: `/api/shots/${shot}/events`, headers }, res => {
        res.on('data', (part: Buffer) => {
          words.push(part.toString().trim())
          if (words.length === 1) void post(agent, shot, [newDrawing('d1', 1)]).then(() => undefined)
          if (words.length === 2) {
            asked.destroy()
            done(words)
          }
        })
      })
      asked.on('error', error => (error.message === 'socket hang up' ? undefined : fail(error)))
    })
    server.closeAllConnections()
    server.close()
    const [first, second] = heard.map(words => JSON.parse(words.slice('data: '.length)))
    expect([first.seq, first.entries]).toEqual([0, undefined])
    // What changed comes along; nobody needs to ask for it.
    expect([second.seq, second.entries]).toEqual([1, [{ seq: 1, batch: newDrawing('d1', 1) }]])
    expect(second.epoch).toBe(first.epoch)
  })
})

describe('a shot from before', () => {
  test('entries stored for the first schema are read, replayed and told as ones of the present', async () => {
    const old = {
      kind: 'drawing.add',
      drawing: { id: 'old', layer: FIRST.drawn, number: 1, role: 'key', elements: {} },
    }
    await b.source.query(
      'INSERT INTO journal (shot_id, seq, batch_id, label, schema, ops) VALUES ($1, 1, $2, $3, 1, $4)',
      [shot, 'from-before', 'new drawing', JSON.stringify([old])],
    )
    await b.source.query('UPDATE shots SET head_seq = 1 WHERE id = $1', [shot])
    expect((await read()).document.drawings.old).toEqual({ ...old.drawing, marks: {} })
    const { body } = await agent.get(`/api/shots/${shot}/journal?after=0`)
    expect(body.entries[0].batch.ops[0].drawing.marks).toEqual({})
    await post(agent, shot, [newDrawing('d2', 2)])
    const rows = await b.source.query('SELECT seq, schema FROM journal WHERE shot_id = $1 ORDER BY seq', [shot])
    expect(rows).toEqual([
      { seq: 1, schema: 1 },
      { seq: 2, schema: DOCUMENT_SCHEMA },
    ])
  })
})

describe('versions of a drawing', () => {
  const versions = async (drawing: string) => (await agent.get(`/api/shots/${shot}/versions?drawing=${drawing}`)).body

  test('are told oldest first, with the moment each was stored; of very many the newest and an even choice', async () => {
    await post(agent, shot, [newDrawing('d1', 1), newDrawing('d2', 2), stroke('a'), stroke('b')])
    const few = await versions('d1')
    expect(
      few.versions.map((v: { seq: number; drawing: { elements: object } }) => [v.seq, Object.keys(v.drawing.elements)]),
    ).toEqual([
      [1, []],
      [3, ['a']],
      [4, ['a', 'b']],
    ])
    expect(Math.abs(Date.parse(few.versions[2].at) - Date.now())).toBeLessThan(60_000)
    for (let i = 0; i < 10; i++) {
      await post(
        agent,
        shot,
        Array.from({ length: 30 }, (_, k) => stroke(`s${i}-${k}`)),
        { since: 4 + i * 30 },
      )
    }
    const many = await versions('d1')
    expect(many.versions).toHaveLength(240)
    expect([many.versions[0].seq < 4, many.versions.at(-1).seq]).toEqual([true, 304])
  })

  test('of a drawing that never was there are none; a name that is none is refused', async () => {
    expect(await versions('gone')).toEqual({ versions: [] })
    expect((await agent.get(`/api/shots/${shot}/versions?drawing=__proto__`)).status).toBe(400)
    expect((await agent.get(`/api/shots/${shot}/versions`)).status).toBe(400)
  })
})
