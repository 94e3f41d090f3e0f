import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { swatchOf } from '../elements/table.ts'
import { FIRST, freshDocument } from '../model/fresh.ts'
import type { ShotDocument } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import type { JournalEntry } from './replica.ts'
import { swatchesInOrder } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { sampleElement } from '../tests/sample.ts'
import { restoreOps, versionsOf } from './versions.ts'

const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 12)
const sheet = (id: string, number: number): Operation => ({
  kind: 'drawing.add',
  drawing: { id, layer: FIRST.drawn, number, role: 'key', elements: {}, marks: {} },
})
const line = (drawing: string, id: string): Operation => ({
  kind: 'elements.add',
  drawing,
  elements: [sampleElement(id)],
})

/** A journal of batches that can be done, and the document it ends with. */
function journal(steps: readonly (readonly Operation[])[]): { entries: JournalEntry[]; end: ShotDocument } {
  let end = fresh
  const entries: JournalEntry[] = []
  for (const ops of steps) {
    const result = applyBatch(end, ops)
    if (!result.ok) continue
    end = result.document
    entries.push({
      seq: entries.length + 1,
      batch: { id: `b${entries.length}`, label: `step ${entries.length + 1}`, ops },
    })
  }
  return { entries, end }
}

describe('versions of a drawing', () => {
  test('one for every change of it, none for changes of others', () => {
    const { entries } = journal([
      [sheet('a', 1), sheet('b', 2)],
      [line('a', 'a1')],
      [line('b', 'b1')],
      [{ kind: 'loop.set', take: FIRST.take, loop: null }],
      [line('a', 'a2'), line('b', 'b2')],
      [{ kind: 'elements.remove', drawing: 'a', ids: ['a1'] }],
    ])
    expect(versionsOf(fresh, entries, 'a').map(v => [v.seq, v.label, Object.keys(v.drawing.elements)])).toEqual([
      [1, 'step 1', []],
      [2, 'step 2', ['a1']],
      [5, 'step 5', ['a1', 'a2']],
      [6, 'step 6', ['a2']],
    ])
    expect(versionsOf(fresh, entries, 'gone')).toEqual([])
  })

  test('a drawing that was there from the beginning has that as its first version', () => {
    const { end } = journal([[sheet('a', 1)], [line('a', 'a1')]])
    expect(versionsOf(end, [], 'a')).toEqual([{ seq: 0, label: 'as it came', drawing: get(end.drawings, 'a') }])
  })

  const step = fc.record({
    what: fc.constantFrom('line' as const, 'off' as const, 'move' as const, 'mark' as const, 'colour' as const),
    n: fc.nat(6),
  })

  test('the newest version is the drawing; any is brought back exactly, and that is undone exactly', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), fc.nat(20), (steps, pick) => {
        const { entries, end } = journal([
          [
            sheet('a', 1),
            { kind: 'mark.add', mark: { id: 'nose', layer: FIRST.drawn, name: 'nose', order: 0, kind: 'point' } },
          ],
          ...steps.map(({ what, n }, i): Operation[] => {
            switch (what) {
              case 'line':
                return [line('a', `e${n}`)]
              case 'off':
                return [{ kind: 'elements.remove', drawing: 'a', ids: [`e${n}`] }]
              case 'move':
                return [
                  {
                    kind: 'elements.set',
                    drawing: 'a',
                    changes: [{ id: `e${n}`, patch: { matrix: [1, 0, 0, 1, i, n] } }],
                  },
                ]
              case 'mark':
                return [
                  { kind: 'marks.place', drawing: 'a', places: { nose: n ? { x: n, y: i, planted: n > 1 } : null } },
                ]
              case 'colour':
                return [{ kind: 'elements.set', drawing: 'a', changes: [{ id: `e${n}`, patch: { label: 'far' } }] }]
            }
          }),
        ])
        const versions = versionsOf(fresh, entries, 'a')
        const now = get(end.drawings, 'a')
        expect(versions.at(-1)?.drawing).toEqual(now)
        const version = versions[pick % versions.length]
        if (!version) throw new Error('no version')
        const back = applyBatch(end, restoreOps(end, now, version.drawing).ops)
        if (!back.ok) throw new Error(back.refusal.code)
        expect(get(back.document.drawings, 'a')).toEqual(version.drawing)
        const undone = applyBatch(back.document, back.inverse)
        if (!undone.ok) throw new Error(undone.refusal.code)
        expect(undone.document).toEqual(end)
      }),
    )
  })

  test('what a version has of marks and colours that were removed since stays away, and is told', () => {
    const nose = { id: 'nose', layer: FIRST.drawn, name: 'nose', order: 0, kind: 'point' } as const
    const { entries, end } = journal([
      [sheet('a', 1), { kind: 'mark.add', mark: nose }],
      [{ kind: 'swatch.add', swatch: { id: 'moss', name: 'moss', colour: '#556b2f', order: 99 } }],
      [
        { kind: 'elements.add', drawing: 'a', elements: [{ ...sampleElement('a1'), swatch: 'moss' }] },
        { kind: 'marks.place', drawing: 'a', places: { nose: { x: 3, y: 4, planted: false } } },
      ],
      [
        { kind: 'elements.remove', drawing: 'a', ids: ['a1'] },
        { kind: 'marks.place', drawing: 'a', places: { nose: null } },
        { kind: 'mark.remove', id: 'nose' },
        { kind: 'swatch.remove', id: 'moss' },
      ],
    ])
    const full = versionsOf(fresh, entries, 'a').find(version => 'a1' in version.drawing.elements)
    if (!full) throw new Error('no version')
    const restoring = restoreOps(end, get(end.drawings, 'a'), full.drawing)
    expect([restoring.marksGone, restoring.coloursGone]).toEqual([1, 1])
    const back = applyBatch(end, restoring.ops)
    if (!back.ok) throw new Error(back.refusal.code)
    const drawing = get(back.document.drawings, 'a')
    expect(Object.values(drawing.elements).map(e => [e.id, swatchOf(e)])).toEqual([['a1', swatchesInOrder(end)[0]?.id]])
    expect(drawing.marks).toEqual({})
  })
})
