import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { FIRST, type ShotDocument } from '@unhurried/core/document'
import { createHash } from 'node:crypto'
import { journalService } from '../src/services/journal.ts'
import { stateReader } from '../src/services/states.ts'
import {
  batch,
  type Bench,
  benchWithOwner,
  filmWithShot,
  newDrawing,
  post,
  sampleText,
  stroke,
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
})
afterAll(() => b.close())

/** Inserts a frame: done twice, the shot is longer than it should be. */
const longer = (id: string) => batch(id, { kind: 'frames.insert', take: FIRST.take, at: 0, count: 1, fill: {} })
const lengthOf = (document: ShotDocument) => document.takes[FIRST.take]?.length
const opened = async (who = agent) =>
  (await who.get(`/api/shots/${shot}`)).body as { seq: number; epoch: string; recent: string[]; document: ShotDocument }

const HOUSE = { account: null, onlyReviews: false }

describe('reading a shot while it is written to', () => {
  test('gives the document of exactly the number it says, also around the entries where snapshots are written', async () => {
    const writer = journalService(b.source)
    for (let round = 0; round < 12; round++) {
      ;({ shot } = await filmWithShot(agent))
      for (let at = 0; at < 60; at += 30) {
        const batches = Array.from({ length: 30 }, (_, i) => longer(`a${at + i}`))
        await writer.post(shot, HOUSE, { since: at, batches, samples: {} })
      }
      // Fresh readers with nothing in memory, as other processes are, while the 64th entry is stored.
      const writing = (async () => {
        for (let i = 60; i < 68; i++)
          await writer.post(shot, HOUSE, { since: i, batches: [longer(`a${i}`)], samples: {} })
      })()
      const readings = Array.from({ length: 24 }, async (_, i) => {
        await new Promise(done => setTimeout(done, i))
        return journalService(b.source).read(shot)
      })
      for (const { seq, last, document } of await Promise.all(readings)) {
        expect([lengthOf(document), last]).toEqual([24 + seq, `a${seq - 1}`])
      }
      await writing
      const [{ seq, document, hash }] = await b.source.query(
        'SELECT seq, document::text AS document, hash FROM snapshots WHERE shot_id = $1 ORDER BY seq DESC LIMIT 1',
        [shot],
      )
      expect([lengthOf(JSON.parse(document)), seq]).toEqual([24 + 64, 64])
      expect(createHash('sha256').update(document).digest('hex')).toBe(hash)
    }
  }, 60_000)

  test('a number from before the newest snapshot gives the document of that number', async () => {
    for (let i = 0; i < 80; i += 40)
      await post(
        agent,
        shot,
        Array.from({ length: 40 }, (_, k) => longer(`c${i + k}`)),
      )
    for (const seq of [1, 40, 63, 79, 80]) {
      const state = await stateReader().at(b.source.manager, shot, { seq, last: `c${seq - 1}` })
      expect([seq, lengthOf(state.document)]).toEqual([seq, 24 + seq])
    }
  })

  test('happens in one transaction in which nothing changes, whatever is read', async () => {
    const began = jest.spyOn(b.source, 'transaction')
    const journal = journalService(b.source)
    await journal.read(shot)
    await journal.after(shot, { since: 0 })
    await journal.versions(shot, 'd1')
    expect(began.mock.calls.map(([level]) => level)).toEqual(Array(3).fill('REPEATABLE READ'))
    began.mockRestore()
  })

  test('a reader that was slow does not bring an old document back', () => {
    const states = stateReader()
    const at = (seq: number) => ({ seq, last: `a${seq}`, document: { drawings: {}, takes: {} } as ShotDocument })
    states.keep('s', at(5))
    states.keep('s', at(3))
    const head = { seq: 5, last: 'a5' }
    return expect(states.at(null as never, 's', head)).resolves.toEqual(at(5))
  })

  test('a snapshot whose text is not what was written is passed over', async () => {
    for (let i = 0; i < 66; i += 33)
      await post(
        agent,
        shot,
        Array.from({ length: 33 }, (_, k) => longer(`b${i + k}`)),
      )
    const change = `UPDATE snapshots SET document = replace(document::text, '"length":90', '"length":12')::json WHERE shot_id = $1 AND seq > 0`
    expect((await b.source.query(change, [shot]))[1]).toBe(1)
    expect(lengthOf((await journalService(b.source).read(shot)).document)).toBe(24 + 66)
  })
})

describe('a desk that knows another journal', () => {
  const ask = (known: object) => post(agent, shot, [stroke('z')], known)

  test('is told to open the shot anew: its number is ahead, the life of the database or the batch at its number differs', async () => {
    await post(agent, shot, [newDrawing('d1', 1), stroke('a'), stroke('b')])
    const { epoch, recent } = await opened()
    expect(recent).toEqual(['stroke-b', 'stroke-a', 'add-d1'])
    for (const known of [
      { since: 4 },
      { since: 3, epoch: 'another-life' },
      { since: 3, epoch, last: 'stroke-x' },
      { since: 2, epoch, last: 'stroke-x' },
    ]) {
      const reply = await ask(known)
      expect([known, reply.status, reply.body.code]).toEqual([known, 409, 'moved-on'])
      const query = new URLSearchParams({ after: String(known.since), ...(known.epoch && { epoch: known.epoch }) })
      if (known.last) query.set('last', known.last)
      expect((await agent.get(`/api/shots/${shot}/journal?${query}`)).body.code).toBe('moved-on')
    }
    expect((await opened()).seq).toBe(3)
    for (const known of [{ since: 2, epoch, last: 'stroke-a' }, { since: 3 }, { since: 0 }]) {
      expect((await ask(known)).body.done).toEqual(['stroke-z'])
    }
  })

  test('does not take along desks that are asked for in the same breath', async () => {
    await post(agent, shot, [newDrawing('d1', 1)])
    const replies = await Promise.all([
      post(agent, shot, [stroke('a')], { since: 1 }),
      post(agent, shot, [stroke('b')], { since: 9 }),
      post(agent, shot, [stroke('c')], { since: 1 }),
    ])
    expect(replies.map(reply => reply.status)).toEqual([200, 409, 200])
    expect(Object.keys((await opened()).document.drawings.d1?.elements ?? {}).sort()).toEqual(['a', 'c'])
  })

  test('memory of another life of the database is not believed', async () => {
    const journal = journalService(b.source)
    await journal.post(shot, HOUSE, { since: 0, batches: [longer('x1'), longer('x2')], samples: {} })
    // As after going back to a copy from before the second entry, and drawing on.
    await b.source.query('DELETE FROM journal WHERE shot_id = $1 AND seq = 2', [shot])
    await b.source.query('UPDATE shots SET head_seq = 1 WHERE id = $1', [shot])
    await post(agent, shot, [newDrawing('d1', 1)], { since: 1 })
    const now = await journal.read(shot)
    expect([now.seq, lengthOf(now.document), Object.keys(now.document.drawings)]).toEqual([2, 25, ['d1']])
    await post(agent, shot, [newDrawing('d2', 2)], { since: 2 })
    expect(Object.keys((await journal.read(shot)).document.drawings)).toEqual(['d1', 'd2'])
  })
})

describe('much at once', () => {
  test('a long journal is told in parts, each following on the last', async () => {
    const entries = Array.from({ length: 1300 }, (_, i) => i + 1)
    await b.source.query(
      `INSERT INTO journal (shot_id, seq, batch_id, label, schema, ops)
       SELECT $1, n, 'x' || n, 'longer', 4, $3::json FROM unnest($2::int[]) n`,
      [shot, entries, JSON.stringify(longer('x').ops)],
    )
    await b.source.query('UPDATE shots SET head_seq = 1300 WHERE id = $1', [shot])
    const first = (await agent.get(`/api/shots/${shot}/journal?after=0`)).body
    expect([first.entries.length, first.entries.at(-1).seq, first.head]).toEqual([1000, 1000, 1300])
    const rest = (await agent.get(`/api/shots/${shot}/journal?after=1000`)).body
    expect([rest.entries[0].seq, rest.entries.length]).toEqual([1001, 300])
    expect(lengthOf((await opened()).document)).toBe(1324)
  })

  test('changes of single strokes on a full drawing take as long as they are many, not as the drawing is full', async () => {
    const elements = Array.from({ length: 5000 }, (_, i) => ({
      ...(stroke(`n${i}`).ops[0] as never as { elements: object[] }).elements[0],
    }))
    await post(agent, shot, [
      newDrawing('d1', 1),
      batch('full', { kind: 'elements.add', drawing: 'd1', elements } as never),
    ])
    const sets = Array.from({ length: 5 }, (_, k) =>
      batch(
        `set-${k}`,
        ...Array.from({ length: 500 }, (_, i) => ({
          kind: 'elements.set' as const,
          drawing: 'd1',
          changes: [{ id: `n${(k * 500 + i) * 2}`, patch: { width: 5 } }],
        })),
      ),
    )
    const began = performance.now()
    const { body } = await post(agent, shot, sets, { since: 2, samples: {} })
    expect([body.refused, body.done.length]).toEqual([[], 5])
    // 9.6 s when every change copied the table it is in.
    expect(performance.now() - began).toBeLessThan(4000)
  })

  test('what is left when the time of a request is over is neither done nor refused, and is taken in when sent again', async () => {
    const pattern = ['d1', 'd2'].map(drawing => ({ drawing, frames: 1 }))
    const cycle = { id: 'c', layer: FIRST.drawn, from: 0, to: null, offset: 0, pattern }
    const long = batch('long', { kind: 'frames.insert', take: FIRST.take, at: 0, count: 19_000, fill: {} })
    const ready = [
      newDrawing('d1', 1),
      newDrawing('d2', 2),
      long,
      batch('c', { kind: 'cycle.add', take: FIRST.take, cycle }),
    ]
    expect((await post(agent, shot, ready)).body.refused).toEqual([])
    const turns = Array.from({ length: 6 }, (_, k) =>
      batch(
        `turn-${k}`,
        ...Array.from({ length: 60 }, (_, i) => ({
          kind: 'cycle.set' as const,
          take: FIRST.take,
          id: 'c',
          patch: { offset: (k + i) % 2 },
        })),
      ),
    )
    let waiting = turns
    let rounds = 0
    for (; waiting.length > 0 && rounds < 40; rounds++) {
      const { body } = await post(agent, shot, waiting, { since: 4, samples: {} })
      expect([body.refused, body.done.length > 0]).toEqual([[], true])
      waiting = waiting.filter(one => !body.done.includes(one.id))
    }
    expect([rounds > 1, waiting]).toEqual([true, []])
  }, 60_000)
})

test('versions are found by the drawing’s name, and what all drawings refer to is not left out', async () => {
  await post(
    agent,
    shot,
    [
      newDrawing('d1', 1),
      newDrawing('d2', 2),
      batch('swatch', { kind: 'swatch.add', swatch: { id: 'dawn', name: 'dawn', colour: '#ffeedd', order: 0 } }),
      stroke('a', 'd2'),
      batch('dawn', {
        kind: 'elements.add',
        drawing: 'd1',
        elements: [
          { ...(stroke('q').ops[0] as never as { elements: object[] }).elements[0], id: 'q', swatch: 'dawn' } as never,
        ],
      }),
    ],
    { samples: { s1: sampleText } },
  )
  const { versions } = (await agent.get(`/api/shots/${shot}/versions?drawing=d1`)).body
  expect(versions.map((v: { seq: number }) => v.seq)).toEqual([1, 5])
})
