import { describe, expect, jest, test } from '@jest/globals'
import {
  applyBatch,
  commit,
  FIRST,
  freshDocument,
  openReplica,
  assetIds,
  type Batch,
  type JournalEntry,
  type Operation,
  type Outbox,
  type Replica,
} from '@unhurried/core/document'
import type { ErrorCode, JournalReply, PostBatches } from '@unhurried/contract'
import { Refused, Unreachable } from '../../api/ask.ts'
import { makeLink, type LinkPort } from './link.ts'

const start = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 12)
const loop = (from: number, id = `b${from}`): Batch => ({
  id,
  label: `loop ${from}`,
  ops: [{ kind: 'loop.set', take: FIRST.take, loop: { from, to: 12 } }],
})

/** A server that a test can take away, and a desk in front of it. */
function desk() {
  const entries: JournalEntry[] = []
  let document = start
  let replica: Replica = openReplica(0, start)
  let outbox: Outbox | null = null
  const answers: ((request: PostBatches) => void)[] = []
  let always: ((request: PostBatches) => void) | undefined
  const lost: string[] = []
  const waits: (string | null)[] = []
  const again: string[] = []
  let fetching: Promise<void> = Promise.resolve()
  const sizes: number[] = []
  const ahead: string[] = []
  const away = new Set<string>()
  const ways: (string | null)[] = []
  const sendingOf = new Map<string, Promise<void>>()

  function store(batches: readonly Batch[]): JournalReply['refused'] {
    return batches.flatMap(batch => {
      if (entries.some(e => e.batch.id === batch.id)) return []
      const result = applyBatch(document, batch.ops)
      if (!result.ok) return [{ id: batch.id, code: result.refusal.code, what: result.refusal.what }]
      document = result.document
      entries.push({ seq: entries.length + 1, batch })
      return []
    })
  }
  const port: LinkPort = {
    replica: () => replica,
    setReplica: next => (replica = next),
    setOutbox: next => (outbox = next),
    unsent: ids => new Map(ids.map(id => [id, new Uint8Array(id.startsWith('large') ? 700_000 : 3)])),
    async sendAhead({ kind, id }, bytes, goesOn) {
      for (const sent of [0, 300_000, bytes.length]) {
        if (away.has(id)) throw new Unreachable()
        if (!goesOn(sent)) return false
        await sendingOf.get(id)
      }
      ahead.push(`${kind} ${id} ${bytes.length}`)
      return true
    },
    ahead: way => ways.push(way && `${way.label}: ${way.sentBytes} of ${way.ofBytes}`),
    fetchStrokes: () => fetching,
    async post(request: PostBatches) {
      sizes.push(request.batches.length)
      const answer = answers.shift() ?? always
      answer?.(request)
      if (request.since > entries.length) refusing(409, 'moved-on')()
      const batches = (request.batches as Batch[]).slice(0, taken)
      const refused = store(batches)
      const done = batches.map(b => b.id).filter(id => !refused.some(r => r.id === id))
      return { entries: told(request.since), head: entries.length, refused, done } as JournalReply
    },
    async journal({ since, last }) {
      asked.push(since)
      const known = entries[since - 1]?.batch.id
      if (since > entries.length || (last !== undefined && last !== known)) refusing(409, 'moved-on')()
      return { entries: told(since), head: entries.length, refused: [], done: [] } as JournalReply
    },
    took: () => undefined,
    forget: () => undefined,
    park: given => lost.push(...given.map(({ batch, code }) => `${batch.label}, ${code}`)),
    movedOn: heard => again.push(...heard.map(batch => batch.id)),
    waits: words => waits.push(words),
    signedOut: () => lost.push('signed out'),
  }
  const asked: number[] = []
  let [part, taken] = [1000, 1000]
  const told = (since: number) => entries.filter(e => e.seq > since).slice(0, part)
  const link = makeLink(port, { epoch: 'now', last: null })
  return {
    link,
    answers,
    entries,
    lost,
    sizes,
    ahead,
    away,
    ways,
    sendingOf,
    store,
    replica: () => replica,
    /** As after a reload: opened at what the server has, with what this machine had kept. */
    openAgain(kept: readonly Batch[]) {
      replica = openReplica(entries.length, document, kept)
      link.pendingChanged()
    },
    outbox: () => outbox,
    waits,
    again,
    asked,
    /** entries are told, and batches taken in, this many at a time */
    inParts: (ofEntries: number, ofBatches: number) => ([part, taken] = [ofEntries, ofBatches]),
    /** the strokes of others come only when this is called */
    holdStrokes() {
      let release: () => void = () => undefined
      fetching = new Promise(done => (release = done))
      return () => release()
    },
    /** as when the database is put back to an earlier copy */
    loseEntries: (after: number) => entries.splice(after),
    do(batch: Batch) {
      const result = commit(replica, batch)
      if (!result.ok) throw new Error(result.refusal.code)
      replica = result.replica
      link.pendingChanged()
    },
    always: (answer: (request: PostBatches) => void) => (always = answer),
    settle: () => jest.advanceTimersByTimeAsync(20_000),
  }
}

const unreachable = () => {
  throw new Unreachable()
}
const refusing =
  (status: number, code: ErrorCode = 'bad-request') =>
  () => {
    throw new Refused(status, { code, message: 'no', details: [] })
  }
const word = (seq: number, epoch = 'now') => ({ seq, epoch })

/** A drawing that shows pictures, as it is added. */
const shown = (id: string, picture: string) =>
  ({
    id,
    kind: 'picture',
    picture,
    widthPx: 9,
    heightPx: 9,
    opacity: 1,
    cut: null,
    placeholder: false,
    z: 0,
    matrix: null,
  }) as const
const drawing = (id: string, number: number, ...pictures: string[]) => ({
  kind: 'drawing.add' as const,
  drawing: {
    id,
    layer: FIRST.drawn,
    number,
    role: 'key' as const,
    marks: {},
    elements: Object.fromEntries(pictures.map((picture, i) => [`${id}-${i}`, shown(`${id}-${i}`, picture)])),
  },
})

describe('the link to the server', () => {
  test('what is more than a request holds goes ahead one by one, and goes on where it was cut off', async () => {
    jest.useFakeTimers()
    const d = desk()
    const samples: string[][] = []
    d.always(request => void samples.push(Object.keys(request.samples)))
    d.away.add('large-2')
    d.do({ id: 'small', label: 'one', ops: [drawing('a', 1, 'thumb')] })
    d.do({
      id: 'many',
      label: 'two',
      ops: [drawing('b', 2, 'large-1', 'large-2', 'large-2'), drawing('c', 3, 'large-1')],
    })
    await d.settle()
    expect([samples, d.ahead]).toEqual([[['thumb']], ['picture large-1 700000']])
    expect(d.replica().pending.map(batch => batch.id)).toEqual(['many'])
    d.away.clear()
    d.link.retry()
    await d.settle()
    expect(d.ahead).toEqual(['picture large-1 700000', 'picture large-2 700000'])
    expect([samples.at(-1), d.replica().pending, d.lost]).toEqual([[], [], []])
    expect(d.entries.map(entry => entry.batch.id)).toEqual(['small', 'many'])
    // How far it has got is told: both, and what was left when it went on.
    expect(d.ways.filter((way, i) => way !== null && way !== d.ways[i - 1])).toEqual([
      'two: 0 of 1400000',
      'two: 300000 of 1400000',
      'two: 700000 of 1400000',
      'two: 0 of 700000',
      'two: 300000 of 700000',
      'two: 700000 of 700000',
    ])
    expect(d.ways.at(-1)).toBeNull()
  })

  test('a step whose pictures are on their way can be stopped: it is set aside, and what was done after it goes on', async () => {
    jest.useFakeTimers()
    const d = desk()
    let release: () => void = () => undefined
    d.sendingOf.set('large-1', new Promise(done => (release = done)))
    d.do({ id: 'many', label: 'two', ops: [drawing('b', 2, 'large-1', 'large-2')] })
    d.do(loop(1))
    await d.settle()
    expect([d.ways.at(-1), d.entries]).toEqual(['two: 0 of 1400000', []])
    d.link.stop()
    expect(d.lost).toEqual([])
    release()
    await d.settle()
    expect([d.lost, d.ahead, d.ways.at(-1)]).toEqual([['two, stopped'], [], null])
    expect([d.entries.map(entry => entry.batch.id), d.replica().pending]).toEqual([['b1'], []])
    expect(Object.keys(d.replica().document.drawings)).not.toContain('b')
    // Nothing is on its way any more: nothing happens.
    d.link.stop()
    await d.settle()
    expect(d.lost).toHaveLength(1)
  })

  test('it can be stopped too while nobody answers', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.away.add('large-1')
    d.do({ id: 'many', label: 'two', ops: [drawing('b', 2, 'large-1', 'large-2')] })
    await d.settle()
    expect(d.outbox()?.sending).toBe(false)
    d.link.stop()
    expect(d.lost).toEqual(['two, stopped'])
    await d.settle()
    expect([d.replica().pending, d.outbox()?.waiting, d.sizes]).toEqual([[], 0, []])
  })

  test('sends what was done, and everything is safe afterwards', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.do(loop(1))
    d.do(loop(2))
    await d.settle()
    expect(d.entries.map(e => e.batch.id)).toEqual(['b1', 'b2'])
    expect([d.replica().seq, d.replica().pending.length, d.outbox()?.waiting]).toEqual([2, 0, 0])
  })

  test('tries again until somebody answers, in order and once each', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.answers.push(unreachable, unreachable, unreachable)
    for (let i = 1; i < 6; i++) d.do(loop(i))
    await d.settle()
    expect(d.entries.map(e => e.batch.id)).toEqual(['b1', 'b2', 'b3', 'b4', 'b5'])
    expect(d.replica().pending).toEqual([])
  })

  test('one batch that is too large to be sent does not take the others along', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.answers.push(unreachable)
    d.always(request => {
      if ((request.batches as Batch[]).some(batch => batch.id === 'b2')) refusing(413, 'too-large')()
    })
    for (let i = 1; i < 4; i++) d.do(loop(i))
    await d.settle()
    expect(d.lost).toEqual(['loop 2, too-large'])
    expect(d.entries.map(e => e.batch.id)).toEqual(['b1', 'b3'])
    // What was done in one task travels together; then fewer at a time, until it is alone.
    expect(d.sizes).toEqual([3, 3, 1, 2, 1, 1])
  })

  test.each([
    [400, 'bad-request'],
    [403, 'not-allowed'],
    [404, 'not-found'],
    [410, 'removed'],
    [413, 'server-fault'],
    [403, 'server-fault'],
    [404, 'server-fault'],
    [500, 'server-fault'],
    [429, 'too-many-requests'],
  ] as const)('whatever answers %s %s for a while, nothing is given up', async (status, code) => {
    jest.useFakeTimers()
    const d = desk()
    d.always(refusing(status, code))
    for (let i = 1; i < 11; i++) d.do(loop(i))
    await d.settle()
    expect([d.lost, d.entries.length, d.replica().pending.length, d.outbox()?.waiting]).toEqual([[], 0, 10, 10])
    d.always(() => undefined)
    await d.settle()
    expect([d.lost, d.entries.length, d.replica().pending, d.waits.at(-1)]).toEqual([[], 10, [], null])
    // Only what this server itself says is told: a gateway's page says nothing about the shot.
    expect(d.waits.includes('no')).toBe(code !== 'server-fault')
  })

  test('what the server had no time for is sent again, and very many entries are asked for in parts', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.inParts(3, 2)
    d.store(Array.from({ length: 8 }, (_, i) => loop(1, `other-${i}`)))
    for (let i = 1; i < 6; i++) d.do(loop(i))
    await d.settle()
    expect([d.entries.length, d.replica().seq, d.replica().pending, d.lost]).toEqual([13, 13, [], []])
    expect(d.asked.length).toBeGreaterThan(2)
  })

  test('an answer that comes when the desk has gone on to another shot touches nothing', async () => {
    jest.useFakeTimers()
    const d = desk()
    const letGo = d.holdStrokes()
    d.store([loop(7, 'other')])
    d.do(loop(1))
    await jest.advanceTimersByTimeAsync(10)
    const before = d.replica()
    d.link.close()
    letGo()
    await d.settle()
    expect(d.replica()).toBe(before)
  })

  test('a database put back to an earlier copy is noticed, and all that was heard of it is handed over', async () => {
    jest.useFakeTimers()
    const d = desk()
    for (let i = 1; i < 4; i++) d.do(loop(i))
    await d.settle()
    d.loseEntries(1)
    d.do(loop(4))
    await d.settle()
    expect([d.again, d.lost]).toEqual([['b1', 'b2', 'b3'], []])
    // Other words that come now are none of this link's business any more.
    d.link.heard(word(1), true)
    await d.settle()
    expect(d.again).toHaveLength(3)
  })

  test('so is one that has gone on since, by the first word after listening again, or by another epoch', async () => {
    jest.useFakeTimers()
    for (const first of [word(1), word(3, 'another')]) {
      const d = desk()
      for (let i = 1; i < 4; i++) d.do(loop(i))
      await d.settle()
      d.loseEntries(1)
      if (first.seq === 3) d.store([loop(5, 'x'), loop(6, 'y')])
      d.link.heard(first, true)
      await d.settle()
      expect(d.again).toEqual(['b1', 'b2', 'b3'])
    }
    // A word that was overtaken by an answer says nothing.
    const d = desk()
    for (let i = 1; i < 4; i++) d.do(loop(i))
    await d.settle()
    d.link.heard(word(1))
    await d.settle()
    expect([d.again, d.asked]).toEqual([[], []])
  })

  test('entries that come with the word need not be asked for', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.store([loop(7, 'other')])
    d.link.heard({ ...word(1), entries: [...d.entries] })
    await d.settle()
    expect([d.replica().seq, d.asked]).toEqual([1, []])
  })

  test('what was stored before the desk was opened again is sent once more, and then let go', async () => {
    jest.useFakeTimers()
    const d = desk()
    const shorter: Batch = {
      id: 'shorter',
      label: 'take frames out',
      ops: [{ kind: 'frames.remove', take: FIRST.take, at: 2, count: 3 }],
    }
    d.store([shorter])
    const short: Batch = { ...loop(1), ops: [{ kind: 'loop.set', take: FIRST.take, loop: { from: 1, to: 5 } }] }
    d.openAgain([shorter, short])
    await d.settle()
    expect([d.sizes, d.lost]).toEqual([[2], []])
    expect([d.replica().pending, d.outbox()?.waiting]).toEqual([[], 0])
    // Taken out once, not twice.
    expect(d.replica().document.takes[FIRST.take]?.length).toBe(9)
  })

  test('what another desk made impossible is given up and told', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.store([{ id: 'other', label: 'shorter', ops: [{ kind: 'frames.remove', take: FIRST.take, at: 2, count: 10 }] }])
    d.do(loop(5))
    await d.settle()
    expect(d.lost).toEqual(['loop 5, outside-shot'])
    expect(d.replica().document.takes[FIRST.take]?.length).toBe(2)
  })

  test('word of changes that comes while something is being sent is not forgotten', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.answers.push(() => undefined)
    d.do(loop(1))
    // The other desk's entry is stored right after the answer to the first was read.
    d.answers.push(() => undefined)
    await Promise.resolve()
    d.link.heard(word(2))
    await jest.advanceTimersByTimeAsync(1)
    d.store([loop(7, 'other')])
    d.link.heard(word(2))
    await d.settle()
    expect(d.replica().document.takes[FIRST.take]?.loop).toEqual({ from: 7, to: 12 })
  })

  test('signed out, everything is kept and the desk is told', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.answers.push(refusing(401))
    d.do(loop(1))
    await jest.advanceTimersByTimeAsync(10)
    expect([d.lost, d.replica().pending.length]).toEqual([['signed out'], 1])
    d.link.close()
  })

  test('only operations that bring strokes need samples', () => {
    const element = {
      id: 'e',
      kind: 'line',
      z: 1,
      samples: 's',
      part: null,
      nib: { look: 'ink', ends: 'round', thinning: 0.62 },
      label: null,
      matrix: null,
      swatch: 'graphite',
      width: 3,
    } as const
    const ops: Operation[] = [
      { kind: 'elements.add', drawing: 'd', elements: [element] },
      {
        kind: 'drawing.add',
        drawing: {
          id: 'd2',
          layer: 'l',
          number: 1,
          role: 'key',
          elements: { e: { ...element, samples: 't' } },
          marks: {},
        },
      },
      { kind: 'elements.remove', drawing: 'd', ids: ['e'] },
    ]
    expect(assetIds(ops)).toEqual(['s', 't'])
  })
})
