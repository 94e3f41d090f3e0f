import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { presetWish } from '../../chart/wish.ts'
import { plain } from '../../time/exposure.ts'
import { FIRST } from '../model/fresh.ts'
import type { ShotDocument } from '../model/model.ts'
import { applyBatch, columnsCover, cyclesHold, refuse, type Operation } from './index.ts'
import { anyOperation, sampleDocument, sampleElement } from '../tests/sample.ts'

const document = sampleDocument()
const ops = fc.array(anyOperation, { minLength: 1, maxLength: 12 })

/** The document after those of the operations that are not refused, each a batch of its own, with all that undoes them. */
function doAll(start: ShotDocument, all: readonly Operation[]) {
  let now = start
  const undo: (readonly Operation[])[] = []
  for (const op of all) {
    const result = applyBatch(now, [op])
    if (!result.ok) continue
    now = result.document
    undo.unshift(result.inverse)
  }
  return { now, undo }
}

describe('the laws of operations', () => {
  test('undoing, newest first, restores the document exactly', () => {
    fc.assert(
      fc.property(ops, all => {
        const { now, undo } = doAll(document, all)
        const back = applyBatch(now, undo.flat())
        expect(back).toMatchObject({ ok: true })
        if (back.ok) expect(back.document).toEqual(document)
      }),
      { numRuns: 600, seed: 3 },
    )
  })

  test('undo of undo does it again', () => {
    fc.assert(
      fc.property(ops, all => {
        const { now, undo } = doAll(document, all)
        const back = applyBatch(now, undo.flat())
        if (!back.ok) throw new Error('undo was refused')
        const again = applyBatch(back.document, back.inverse)
        expect(again.ok && again.document).toEqual(now)
      }),
      { numRuns: 300, seed: 5 },
    )
  })

  test('a batch is the sequence of its operations, or nothing at all', () => {
    fc.assert(
      fc.property(ops, all => {
        const before = JSON.stringify(document)
        const whole = applyBatch(document, all)
        if (whole.ok) expect(whole.document).toEqual(doAll(document, all).now)
        else
          expect(refuse(doAll(document, all.slice(0, whole.index)).now, all[whole.index] as Operation)).toEqual(
            whole.refusal,
          )
        expect(JSON.stringify(document)).toBe(before)
      }),
      { numRuns: 300, seed: 7 },
    )
  })

  test('replaying what was written down as JSON gives the same document', () => {
    fc.assert(
      fc.property(ops, all => {
        const { now } = doAll(document, all)
        const stored = JSON.parse(JSON.stringify(all)) as Operation[]
        expect(doAll(JSON.parse(JSON.stringify(document)) as ShotDocument, stored).now).toEqual(now)
        expect(JSON.parse(JSON.stringify(now))).toEqual(now)
      }),
      { numRuns: 300, seed: 9 },
    )
  })

  test('every layer is exposed over the whole take, without gaps or overlaps, whatever was done', () => {
    fc.assert(
      fc.property(ops, all => {
        const { now } = doAll(document, all)
        expect(columnsCover(now)).toBe(true)
        expect(cyclesHold(now.takes)).toBe(true)
        expect(Object.hasOwn(now.takes, now.current)).toBe(true)
        for (const take of Object.values(now.takes)) {
          for (const column of Object.values(take.columns)) expect(plain(column)).toEqual(column)
          if (take.loop) expect(take.loop.to).toBeLessThanOrEqual(take.length)
        }
      }),
      { numRuns: 600, seed: 13 },
    )
  })

  test('nothing ever points at what is not there', () => {
    fc.assert(
      fc.property(ops, all => {
        const { now } = doAll(document, all)
        const shown = Object.values(now.takes).flatMap(t =>
          Object.values(t.columns).flatMap(c => c.map(r => r.drawing)),
        )
        const charted = Object.values(now.charts).flatMap(c => [c.from, c.to, ...c.ticks.map(t => t.drawing)])
        for (const id of [...shown, ...charted]) {
          if (id !== null) expect(Object.hasOwn(now.drawings, id)).toBe(true)
        }
        for (const drawing of Object.values(now.drawings)) {
          expect(Object.hasOwn(now.layers, drawing.layer)).toBe(true)
          for (const mark of Object.keys(drawing.marks)) expect(now.marks[mark]?.layer).toBe(drawing.layer)
        }
        for (const take of Object.values(now.takes)) {
          for (const [drawing, beat] of Object.entries(take.pins)) {
            expect([Object.hasOwn(now.drawings, drawing), Object.hasOwn(now.beats, beat)]).toEqual([true, true])
          }
          for (const cycle of Object.values(take.cycles)) {
            for (const run of cycle.pattern)
              if (run.drawing) expect(Object.hasOwn(now.drawings, run.drawing)).toBe(true)
          }
        }
      }),
      { numRuns: 600, seed: 17 },
    )
  })

  test('changes to different drawings can go in either order', () => {
    const first: Operation = { kind: 'elements.add', drawing: 'a', elements: [sampleElement('n1')] }
    const second: Operation = { kind: 'elements.remove', drawing: 'b', ids: ['b1'] }
    const third: Operation = {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: FIRST.drawn,
      from: 20,
      runs: [{ drawing: 'c', frames: 1 }],
    }
    const one = applyBatch(document, [first, second, third])
    const other = applyBatch(document, [third, second, first])
    expect(one.ok && other.ok && one.document).toEqual(other.ok && other.document)
  })

  test('parts that are not touched keep their identity', () => {
    const result = applyBatch(document, [{ kind: 'elements.add', drawing: 'a', elements: [sampleElement('n1')] }])
    if (!result.ok) throw new Error('refused')
    expect(result.document.drawings.b).toBe(document.drawings.b)
    expect(result.document.takes).toBe(document.takes)
    expect(result.document.drawings.a).not.toBe(document.drawings.a)
  })
})

describe('the loop', () => {
  const looped = applyBatch(document, [{ kind: 'loop.set', take: FIRST.take, loop: { from: 4, to: 8 } }])

  test.each([
    ['all of it', 3, 6],
    ['its start', 2, 4],
    ['its end', 6, 5],
    ['frames before it', 0, 3],
  ])('comes back when %s was taken out and that is undone', (_what, at, count) => {
    if (!looped.ok) throw new Error('refused')
    const out = applyBatch(looped.document, [{ kind: 'frames.remove', take: FIRST.take, at, count }])
    if (!out.ok) throw new Error('refused')
    const back = applyBatch(out.document, out.inverse)
    expect(back.ok && back.document).toEqual(looped.document)
  })
})

describe('refusals', () => {
  const cases: [string, Operation, string][] = [
    ['a drawing still on the sheet', { kind: 'drawing.remove', id: 'a' }, 'still-exposed'],
    ['a number twice on a layer', { kind: 'drawing.set', id: 'a', patch: { number: 5 } }, 'number-taken'],
    [
      'a drawing on the wrong layer',
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: FIRST.background,
        from: 0,
        runs: [{ drawing: 'a', frames: 1 }],
      },
      'wrong-layer',
    ],
    [
      'frames past the end',
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 23, runs: [{ drawing: 'a', frames: 2 }] },
      'outside-shot',
    ],
    ['all frames', { kind: 'frames.remove', take: FIRST.take, at: 0, count: 24 }, 'bad-value'],
    ['a layer with drawings', { kind: 'layer.remove', id: FIRST.drawn }, 'layer-not-empty'],
    ['a colour that is none', { kind: 'format.set', patch: { paper: 'red' } }, 'bad-value'],
    [
      'an unknown swatch',
      { kind: 'elements.add', drawing: 'a', elements: [{ ...sampleElement('n'), swatch: 'constructor' }] },
      'unknown-swatch',
    ],
    ['a loop of nothing', { kind: 'loop.set', take: FIRST.take, loop: { from: 3, to: 3 } }, 'outside-shot'],
    [
      'a chart whose ticks do not increase',
      {
        kind: 'chart.add',
        chart: {
          id: 'ch',
          layer: FIRST.drawn,
          from: 'a',
          to: 'b',
          part: null,
          wish: presetWish('even'),
          ticks: [
            { at: { num: 1, den: 2 }, left: -1, right: -2, ratio: '1/2', depth: 0, drawing: null },
            { at: { num: 1, den: 2 }, left: 0, right: -2, ratio: '1/2', depth: 1, drawing: null },
          ],
        },
      },
      'bad-value',
    ],
    [
      'a tick drawn before its parent',
      {
        kind: 'chart.add',
        chart: {
          id: 'ch',
          layer: FIRST.drawn,
          from: 'a',
          to: 'b',
          part: null,
          wish: presetWish('even'),
          ticks: [{ at: { num: 1, den: 2 }, left: -1, right: 7, ratio: '1/2', depth: 0, drawing: null }],
        },
      },
      'bad-value',
    ],
  ]
  test.each(cases)('%s', (_what, op, code) => {
    expect(refuse(document, op)?.code).toBe(code)
  })
})
