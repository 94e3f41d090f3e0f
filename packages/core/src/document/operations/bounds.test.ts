import { describe, expect, test } from '@jest/globals'
import type { Cycle } from '../../time/cycle.ts'
import { FIRST, freshDocument, newLayer } from '../model/fresh.ts'
import { LIMITS, type Element, type ShotDocument } from '../model/model.ts'
import { doBatch, replay, runsOf, type Operation } from './index.ts'
import { sampleDocument, sampleElement } from '../tests/sample.ts'

const document = sampleDocument()

describe('what is bounded over the whole shot', () => {
  const many = (count: number, from = 0): Element[] =>
    Array.from({ length: count }, (_, i) => sampleElement(`n${from + i}`))

  test('strokes: refused with how many more would fit', () => {
    let now: ShotDocument = document
    const full = Math.floor(LIMITS.elementsPerShot / LIMITS.elementsPerDrawing)
    for (let i = 0; i < full; i++) {
      const elements = Object.fromEntries(many(LIMITS.elementsPerDrawing - (i === 0 ? 100 : 0)).map(e => [e.id, e]))
      const drawing = { id: `x${i}`, layer: FIRST.drawn, number: 100 + i, role: 'key', elements, marks: {} } as const
      const result = doBatch(now, [{ kind: 'drawing.add', drawing }])
      if (!result.ok) throw new Error(result.refusal.what)
      now = result.document
    }
    const there = Object.values(now.drawings).reduce((sum, d) => sum + Object.keys(d.elements).length, 0)
    const fits = LIMITS.elementsPerShot - there
    const add = (count: number, drawing = 'x0'): Operation => ({
      kind: 'elements.add',
      drawing,
      elements: many(count, 9000),
    })
    expect(doBatch(now, [add(fits)]).ok).toBe(true)
    expect(doBatch(now, [add(fits + 1)])).toMatchObject({
      refusal: { code: 'too-many', what: `strokes in the shot: ${fits} more would fit` },
    })
    // Counted along within a batch, and given back by what is taken off.
    const off: Operation = { kind: 'elements.remove', drawing: 'x1', ids: ['n0'] }
    expect(doBatch(now, [add(fits), add(1, 'x2')]).ok).toBe(false)
    expect(doBatch(now, [add(fits), off, { kind: 'elements.add', drawing: 'x0', elements: many(1, 99_000) }]).ok).toBe(
      true,
    )
  })

  test('exposures: many tied layers under long takes are counted, and what was larger before can shrink', () => {
    const long = freshDocument(document.format, 20_000)
    const drawings = Array.from({ length: 2 }, (_, i): Operation => ({
      kind: 'drawing.add',
      drawing: { id: `d${i}`, layer: FIRST.drawn, number: i + 1, role: 'key', elements: {}, marks: {} },
    }))
    const pattern = [
      { drawing: 'd0', frames: 1 },
      { drawing: 'd1', frames: 1 },
    ]
    const cycle: Cycle = { id: 'c', layer: FIRST.drawn, from: 0, to: null, offset: 0, pattern }
    const ones = doBatch(long, [...drawings, { kind: 'cycle.add', take: FIRST.take, cycle }])
    if (!ones.ok) throw new Error('refused')
    expect(runsOf(ones.document)).toBe(20_000 + 1 + 2)
    const paint = (i: number): Operation[] => [
      {
        kind: 'layer.add',
        layer: newLayer(`l${i}`, 'paint', 9, { follows: FIRST.drawn }),
      },
      ...[1, 2].map((number): Operation => ({
        kind: 'drawing.add',
        drawing: { id: `p${i}-${number}`, layer: `l${i}`, number, role: 'key', elements: {}, marks: {} },
      })),
    ]
    let now = ones.document
    let fitted = 0
    for (let i = 0; i < 30; i++) {
      const result = doBatch(now, paint(i))
      if (!result.ok) {
        expect(result.refusal).toMatchObject({
          code: 'too-many',
          what: expect.stringContaining('exposures in the shot'),
        })
        break
      }
      now = result.document
      fitted++
    }
    expect(fitted).toBe(18)
    // A journal from before there was a bound is read all the same, and can be made smaller.
    const over = replay(
      now,
      Array.from({ length: 4 }, (_, i) => paint(40 + i)),
    )
    if (!over.ok) throw new Error('refused')
    expect(runsOf(over.document)).toBeGreaterThan(LIMITS.runsPerShot)
    expect(doBatch(over.document, [{ kind: 'frames.remove', take: FIRST.take, at: 0, count: 100 }]).ok).toBe(true)
  })

  test('one batch looks through a large shot only so often', () => {
    const drawings = Array.from({ length: 400 }, (_, i): Operation => ({
      kind: 'drawing.add',
      drawing: { id: `d${i}`, layer: FIRST.drawn, number: 200 + i, role: 'key', elements: {}, marks: {} },
    }))
    const made = doBatch(document, drawings)
    if (!made.ok) throw new Error('refused')
    const removing = drawings.map((_, i): Operation => ({ kind: 'drawing.remove', id: `d${i}` }))
    expect(doBatch(made.document, removing).ok).toBe(true)
    const long = doBatch(freshDocument(document.format, 20_000), [
      ...drawings.slice(0, 2),
      {
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: {
          id: 'c',
          layer: FIRST.drawn,
          from: 0,
          to: null,
          offset: 0,
          pattern: [
            { drawing: 'd0', frames: 1 },
            { drawing: 'd1', frames: 1 },
          ],
        },
      },
    ])
    if (!long.ok) throw new Error('refused')
    const again = Array.from({ length: 140 }, (_, i): Operation => ({
      kind: 'cycle.set',
      take: FIRST.take,
      id: 'c',
      patch: { offset: i % 2 },
    }))
    const result = doBatch(long.document, again)
    expect(result).toMatchObject({ ok: false, refusal: { code: 'too-many' } })
    expect(replay(long.document, [again]).ok).toBe(true)
  })
})
