import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { FIRST } from '../model/fresh.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, doBatch, openedForm, replay, storedForm, tiesHold, type Operation } from './index.ts'
import { makeBench } from './bench.ts'
import { elementsAdd } from './drawings.ts'
import { find, get, type Table } from '../model/table.ts'
import { anyOperation, sampleDocument, sampleElement } from '../tests/sample.ts'

const document = sampleDocument()
const tying = fc.constantFrom<Operation>(
  { kind: 'layer.set', id: FIRST.background, patch: { follows: FIRST.drawn } },
  { kind: 'layer.set', id: FIRST.background, patch: { follows: null } },
)
const sheet = fc.integer({ min: 1, max: 12 }).map((number): Operation => ({
  kind: 'drawing.add',
  drawing: { id: `p${number}`, layer: FIRST.background, number, role: 'key', elements: {}, marks: {} },
}))
const ops = fc.array(fc.oneof({ weight: 6, arbitrary: anyOperation }, tying, sheet), { minLength: 1, maxLength: 20 })

/** The operations of those given that are not refused, one after the other. */
function possible(start: ShotDocument, all: readonly Operation[]): Operation[] {
  let now = start
  return all.filter(op => {
    const result = doBatch(now, [op])
    if (result.ok) now = result.document
    return result.ok
  })
}

describe('a batch worked out on a bench', () => {
  test('leaves what it was given alone, is what its operations are one by one, and is undone as a whole', () => {
    fc.assert(
      fc.property(ops, all => {
        const before = JSON.stringify(document)
        const doable = possible(document, all)
        const whole = applyBatch(document, doable)
        if (!whole.ok) throw new Error(`refused: ${whole.refusal.code}`)
        const single = doable.reduce((now, op) => {
          const result = doBatch(now, [op])
          return result.ok ? result.document : now
        }, document)
        expect(whole.document).toEqual(single)
        expect(
          replay(
            document,
            doable.map(op => [op]),
          ),
        ).toEqual({ ok: true, document: single })
        expect(tiesHold(whole.document)).toBe(true)
        const kept = JSON.stringify(whole.document)
        const back = applyBatch(whole.document, whole.inverse)
        expect(back.ok && back.document).toEqual(document)
        expect([JSON.stringify(document), JSON.stringify(whole.document)]).toEqual([before, kept])
        expect(openedForm(JSON.parse(JSON.stringify(storedForm(whole.document))))).toEqual(whole.document)
      }),
      { numRuns: 500, seed: 23 },
    )
  })

  test('ids that objects inherit, or that no desk makes, are refused by name, wherever they come in', () => {
    const swatch = (id: string): Operation => ({
      kind: 'swatch.add',
      swatch: { id, name: 'ghost', colour: '#123456', order: 0 },
    })
    const places = JSON.parse('{"__proto__": null}') as Record<string, null>
    const drawing = get(document.drawings, 'a')
    for (const id of ['__proto__', 'constructor', 'toString', '', '-a', 'a b', 'a'.repeat(41)]) {
      const ops: Operation[] = [
        swatch(id),
        { kind: 'drawing.add', drawing: { ...drawing, id, number: 99, elements: {}, marks: {} } },
        { kind: 'mark.add', mark: { id, layer: drawing.layer, name: 'tail', order: 1, kind: 'point' } },
      ]
      for (const op of ops) {
        const result = applyBatch(document, [op])
        expect(result).toMatchObject({ ok: false, refusal: { code: 'bad-value', what: `id ${id.slice(0, 40)}` } })
      }
    }
    expect(applyBatch(document, [{ kind: 'marks.place', drawing: 'a', places }])).toMatchObject({ ok: false })
    expect(applyBatch(document, [swatch('reed-2')])).toMatchObject({ ok: true })
    // What is asked for under such an id is not there.
    expect(find(document.swatches, '__proto__')).toBeUndefined()
  })

  test('the sheet of a tied layer is not stored, and shared by takes of one timing', () => {
    const copies = Array.from({ length: 3 }, (_, i): Operation => {
      const take: Take = { ...get(document.takes, FIRST.take), id: `t${i}`, name: `take ${i}` }
      return { kind: 'take.add', take }
    })
    const tied = doBatch(document, [
      ...copies,
      { kind: 'layer.set', id: FIRST.background, patch: { follows: FIRST.drawn } },
    ])
    if (!tied.ok) throw new Error('refused')
    expect(Object.keys(get(storedForm(tied.document).takes, 't1').columns)).toEqual([FIRST.drawn])
    const [a, b] = ['t0', 't1'].map(id => tied.document.takes[id]?.columns[FIRST.background])
    expect(a).toBe(b)
  })
})

describe('a bench', () => {
  test('copies what it was given once, and changes in place what it made', () => {
    const bench = makeBench()
    const given = Object.freeze({ a: 1, b: 2 })
    const first = bench.put<number>(given, 'c', 3)
    const second = bench.put(bench.without(first, ['a', 'z']), 'b', 4)
    expect([second === first, second, given]).toEqual([true, { b: 4, c: 3 }, { a: 1, b: 2 }])
    expect([bench.size(given), bench.size(second)]).toEqual([2, 2])
    const thing = bench.set(Object.freeze<{ n: number; m: number }>({ n: 1, m: 1 }), { n: 2 })
    expect(bench.set(thing, { m: 3 })).toBe(thing)
    expect(makeBench().put(second, 'd', 5)).not.toBe(second)
  })

  test('is where every operation on strokes works: none copies a table that the batch has made', () => {
    const watched = { ...makeBench() }
    const seen = new Set<object>()
    const put = watched.put.bind(watched)
    watched.put = <T>(table: Table<T>, id: string, thing: T) => (seen.add(table), put(table, id, thing))
    let now = document
    for (let i = 0; i < 50; i++) {
      const op = { kind: 'elements.add', drawing: 'a', elements: [sampleElement(`n${i}`)] } as const
      now = elementsAdd.apply(now, op, watched)
    }
    // The drawings and the strokes that were given, and the one copy of each.
    expect(seen.size).toBe(4)
  })
})
