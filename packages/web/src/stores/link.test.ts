import { describe, expect, jest, test } from '@jest/globals'
import {
  applyBatch,
  commit,
  FIRST,
  freshDocument,
  openReplica,
  samplesUsed,
  type Batch,
  type JournalEntry,
  type Operation,
  type Outbox,
  type Replica,
} from '@unhurried/core/document'
import type { JournalReply, PostBatches } from '@unhurried/contract'
import { Refused, Unreachable } from '../api/ask.ts'
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
  const sizes: number[] = []

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
    unsent: ids => new Map(ids.map(id => [id, Uint8Array.from([1, 2, 3])])),
    fetchStrokes: () => Promise.resolve(),
    async post(request: PostBatches) {
      sizes.push(request.batches.length)
      const answer = answers.shift() ?? always
      answer?.(request)
      const refused = store(request.batches)
      const done = request.batches.map(b => b.id).filter(id => !refused.some(r => r.id === id))
      return { entries: entries.filter(e => e.seq > request.since), refused, done } as JournalReply
    },
    journal: after =>
      Promise.resolve({ entries: entries.filter(e => e.seq > after), refused: [], done: [] } as JournalReply),
    forget: () => undefined,
    lost: (labels, _, why) => lost.push(...labels.map(label => `${label}, ${why}`)),
    signedOut: () => lost.push('signed out'),
  }
  const link = makeLink(port)
  return {
    link,
    answers,
    entries,
    lost,
    sizes,
    store,
    replica: () => replica,
    /** As after a reload: opened at what the server has, with what this machine had kept. */
    openAgain(kept: readonly Batch[]) {
      replica = openReplica(entries.length, document, kept)
      link.pendingChanged()
    },
    outbox: () => outbox,
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
const refusing = (status: number) => () => {
  throw new Refused(status, { code: 'bad-request', message: 'no', details: [] })
}

describe('the link to the server', () => {
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

  test('one batch that cannot be sent at all does not take the others along', async () => {
    jest.useFakeTimers()
    const d = desk()
    d.answers.push(unreachable)
    d.always(request => {
      if (request.batches.some(batch => batch.id === 'b2')) refusing(400)()
    })
    for (let i = 1; i < 4; i++) d.do(loop(i))
    await d.settle()
    expect(d.lost).toEqual(['loop 2, unfit'])
    expect(d.entries.map(e => e.batch.id)).toEqual(['b1', 'b3'])
    // What was done in one task travels together; then all at once, and one at a time until the bad one is found.
    expect(d.sizes).toEqual([3, 3, 1, 2, 1, 1])
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
    expect(d.lost).toEqual(['loop 5, first'])
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
    d.link.heard(2)
    await jest.advanceTimersByTimeAsync(1)
    d.store([loop(7, 'other')])
    d.link.heard(2)
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
    expect(samplesUsed(ops)).toEqual(['s', 't'])
  })
})
