import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { EMPTY_HISTORY, done, doneJoining, MOST_STEPS, redone, undone, type History } from './history.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { EMPTY_OUTBOX, reduceOutbox, safeMark, type Outbox, type OutboxEvent } from './outbox.ts'
import {
  commit,
  noLongerPending,
  openReplica,
  receive,
  type Batch,
  type JournalEntry,
  type Replica,
} from './replica.ts'
import { anyOperation, sampleDocument, sampleElement } from '../tests/sample.ts'

const start = sampleDocument()
const batchOf = (id: string, ...ops: Operation[]): Batch => ({ id, label: 'test', ops })
const stroke = (id: string, drawing = 'a') =>
  batchOf(`batch-${id}`, { kind: 'elements.add', drawing, elements: [sampleElement(id)] })

function mustCommit(replica: Replica, batch: Batch): Replica {
  const result = commit(replica, batch)
  if (!result.ok) throw new Error(result.refusal.code)
  return result.replica
}

/** A server in ten lines: takes batches that its document allows, once each. */
function makeJournal() {
  let document = start
  const entries: JournalEntry[] = []
  return {
    entries,
    document: () => document,
    post(batches: readonly Batch[]): string[] {
      return batches.flatMap(batch => {
        if (entries.some(entry => entry.batch.id === batch.id)) return []
        const result = applyBatch(document, batch.ops)
        if (!result.ok) return [batch.id]
        document = result.document
        entries.push({ seq: entries.length + 1, batch })
        return []
      })
    },
  }
}

describe('desks on one shot', () => {
  type Act =
    | { desk: number; kind: 'do'; op: Operation }
    | { desk: number; kind: 'send' }
    | { desk: number; kind: 'hear' }
    | { desk: number; kind: 'reload' }
  const desk = fc.integer({ min: 0, max: 2 })
  const act: fc.Arbitrary<Act> = fc.oneof(
    { weight: 3, arbitrary: fc.record({ desk, kind: fc.constant('do' as const), op: anyOperation }) },
    fc.record({ desk, kind: fc.constant('send' as const) }),
    fc.record({ desk, kind: fc.constant('hear' as const) }),
    fc.record({ desk, kind: fc.constant('reload' as const) }),
  )

  test('end with the same document as the journal, whatever was done, sent, heard and reloaded in whatever order', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 40 }), acts => {
        const journal = makeJournal()
        const desks = [0, 1, 2].map(() => openReplica(0, start))
        const hear = (i: number) => (desks[i] = receive(desks[i] as Replica, journal.entries))
        const send = (i: number) => {
          const refused = journal.post((desks[i] as Replica).pending)
          desks[i] = noLongerPending(hear(i), refused)
        }
        acts.forEach((a, n) => {
          const replica = desks[a.desk] as Replica
          if (a.kind === 'send') send(a.desk)
          else if (a.kind === 'hear') hear(a.desk)
          else if (a.kind === 'reload') desks[a.desk] = openReplica(replica.seq, replica.confirmed, replica.pending)
          else {
            const result = commit(replica, batchOf(`b${n}`, a.op))
            if (result.ok) desks[a.desk] = result.replica
          }
        })
        for (const i of [0, 1, 2]) send(i)
        for (const i of [0, 1, 2]) hear(i)
        for (const replica of desks) {
          expect(replica.pending).toEqual([])
          expect(replica.document).toEqual(journal.document())
        }
      }),
      { numRuns: 300, seed: 21 },
    )
  })

  test('a batch whose answer was lost is not done twice', () => {
    const journal = makeJournal()
    const replica = mustCommit(openReplica(0, start), stroke('n1'))
    journal.post(replica.pending)
    journal.post(replica.pending)
    const after = receive(replica, journal.entries)
    expect([after.seq, after.pending]).toEqual([1, []])
    expect(Object.keys(after.document.drawings.a?.elements ?? {})).toEqual(['a1', 'n1'])
  })

  test('own strokes come back without the document being made anew', () => {
    const replica = mustCommit(openReplica(0, start), stroke('n1'))
    const after = receive(replica, [{ seq: 1, batch: stroke('n1') }])
    expect(after.document).toBe(replica.document)
  })

  test('a gap in the journal is not passed over', () => {
    expect(() => receive(openReplica(0, start), [{ seq: 2, batch: stroke('n1') }])).toThrow('does not follow 0')
  })

  test('a refused batch is given up and what came after it stays', () => {
    const one = mustCommit(mustCommit(openReplica(0, start), stroke('n1')), stroke('n2'))
    const left = noLongerPending(one, ['batch-n1'])
    expect(left.pending.map(b => b.id)).toEqual(['batch-n2'])
    expect(Object.keys(left.document.drawings.a?.elements ?? {})).toEqual(['a1', 'n2'])
  })
})

describe('the outbox', () => {
  const run = (...events: OutboxEvent[]) => {
    let state: Outbox = EMPTY_OUTBOX
    const effects = events.map(event => {
      const next = reduceOutbox(state, event)
      state = next.state
      return next.effect.kind === 'wait' ? `wait ${next.effect.ms}` : next.effect.kind
    })
    return { state, effects, mark: safeMark(state) }
  }

  test('sends at once, one request at a time, and what came meanwhile right after', () => {
    const { effects, mark } = run(
      { kind: 'pending', count: 1 },
      { kind: 'pending', count: 2 },
      { kind: 'answered', count: 1 },
      { kind: 'answered', count: 0 },
    )
    expect(effects).toEqual(['send', 'none', 'send', 'none'])
    expect(mark).toBe('safe')
  })

  test('waits longer after each failure, keeps everything here, and starts afresh after an answer', () => {
    const { effects, mark } = run(
      { kind: 'pending', count: 1 },
      { kind: 'failed' },
      { kind: 'pending', count: 2 },
      { kind: 'retry' },
      { kind: 'failed' },
    )
    expect(effects).toEqual(['send', 'wait 500', 'none', 'send', 'wait 1000'])
    expect(mark).toBe('kept-here')
    expect(
      run({ kind: 'pending', count: 1 }, { kind: 'failed' }, { kind: 'retry' }, { kind: 'answered', count: 0 }).state,
    ).toEqual(EMPTY_OUTBOX)
  })

  test('never sends twice at a time and never stops with something waiting', () => {
    const event: fc.Arbitrary<OutboxEvent> = fc.oneof(
      fc.record({ kind: fc.constant('pending' as const), count: fc.nat(5) }),
      fc.record({ kind: fc.constant('answered' as const), count: fc.nat(5) }),
      fc.constant<OutboxEvent>({ kind: 'failed' }),
      fc.constant<OutboxEvent>({ kind: 'retry' }),
    )
    fc.assert(
      fc.property(fc.array(event), events => {
        let state: Outbox = EMPTY_OUTBOX
        for (const e of events) {
          if ((e.kind === 'answered' || e.kind === 'failed') && !state.sending) continue
          const before = state
          const next = reduceOutbox(state, e)
          state = next.state
          if (next.effect.kind === 'send') expect(before.sending && e.kind !== 'answered').toBe(false)
          if (state.waiting > 0) expect(state.sending || state.failures > 0).toBe(true)
        }
      }),
    )
  })
})

describe('history', () => {
  const step = (label: string) => ({ label, ops: [] })

  test('undo, redo, and something new in between', () => {
    let history: History = done(done(EMPTY_HISTORY, step('line')), step('shift'))
    history = undone(history, [])
    expect([history.undo.map(s => s.label), history.redo.map(s => s.label)]).toEqual([['line'], ['shift']])
    expect(redone(history, []).undo.map(s => s.label)).toEqual(['line', 'shift'])
    expect(done(history, step('rub')).redo).toEqual([])
    expect(undone(EMPTY_HISTORY, [])).toBe(EMPTY_HISTORY)
  })

  test('nudges of the same strokes are one step, others are not', () => {
    const nudge = (x: number, id = 'a1'): Operation => ({
      kind: 'elements.set',
      drawing: 'a',
      changes: [{ id, patch: { matrix: [1, 0, 0, 1, x, 0] } }],
    })
    let document = start
    let history: History = EMPTY_HISTORY
    for (const x of [1, 2, 3]) {
      const result = applyBatch(document, [nudge(x)])
      if (!result.ok) throw new Error(result.refusal.code)
      document = result.document
      history = doneJoining(history, { label: 'nudge', ops: result.inverse })
    }
    expect(history.undo).toHaveLength(1)
    const back = applyBatch(document, history.undo[0]?.ops ?? [])
    expect(back.ok && back.document).toEqual(start)
    expect(doneJoining(history, { label: 'nudge', ops: [nudge(1, 'other')] }).undo).toHaveLength(2)
    expect(doneJoining(history, { label: 'scale', ops: [nudge(1)] }).undo).toHaveLength(2)
  })

  test('is bounded', () => {
    let history = EMPTY_HISTORY
    for (let i = 0; i < MOST_STEPS + 5; i++) history = done(history, step(String(i)))
    expect(history.undo).toHaveLength(MOST_STEPS)
    expect(history.undo[0]?.label).toBe('5')
  })
})
