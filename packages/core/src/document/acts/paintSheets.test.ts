import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { placed } from '../../time/exposure.ts'
import { kindOf } from '../elements/table.ts'
import { newLayer, FIRST } from '../model/fresh.ts'
import type { Layer, ShotDocument } from '../model/model.ts'
import { applyBatch, tiesHold, type Operation } from '../operations/index.ts'
import { sheetsUnder } from './paintSheets.ts'
import { columnOf, currentTake, timedBy } from '../model/selectors.ts'
import { ownCopy, putNewDrawing, removeExposure } from './sheetEdits.ts'
import { get } from '../model/table.ts'
import { anyOperation, sampleDocument, sampleElement, sure } from '../tests/sample.ts'

const PAINT: Layer = newLayer('paint', 'paint', 0.5, { follows: FIRST.drawn })
const sheet = (id: string, number: number): Operation => ({
  kind: 'drawing.add',
  drawing: { id, layer: 'paint', number, role: 'key', elements: {}, marks: {} },
})

function after(document: ShotDocument, ops: readonly Operation[]) {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result
}
/** The sample shot (1, 5, 9 on fours, then nothing) with a paint layer tied to it that has sheets under 1 and 9. */
const tied = after(sampleDocument(), [{ kind: 'layer.add', layer: PAINT }, sheet('p1', 1), sheet('p9', 9)]).document

const shown = (document: ShotDocument, layer = 'paint') =>
  placed(columnOf(currentTake(document), layer)).map(run => `${run.drawing ?? '-'}×${run.frames}`)

const refusedOn = (document: ShotDocument, op: Operation) => {
  const result = applyBatch(document, [op])
  return result.ok ? null : result.refusal.code
}

let made = 0
const newId = () => `n${++made}`

describe('a paint layer that is tied to a line layer', () => {
  test('shows under each line drawing the sheet of its number, and nothing where there is none', () => {
    expect(shown(tied)).toEqual(['p1×4', '-×4', 'p9×4', '-×12'])
  })

  test('is timed with it, whatever is done to that, in every take', () => {
    const runs = [
      { drawing: 'c', frames: 2 },
      { drawing: 'a', frames: 3 },
    ]
    const written = after(tied, [{ kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 0, runs }])
    expect(shown(written.document)).toEqual(['p9×2', 'p1×3', '-×3', 'p9×4', '-×12'])
    expect(after(written.document, written.inverse).document).toEqual(tied)
    const shorter = after(tied, [{ kind: 'frames.remove', take: FIRST.take, at: 2, count: 4 }])
    expect(shown(shorter.document)).toEqual(['p1×2', '-×2', 'p9×4', '-×12'])
    const pattern = [
      { drawing: 'a', frames: 1 },
      { drawing: 'c', frames: 1 },
    ]
    const cycle = { id: 'y', layer: FIRST.drawn, from: 12, to: 16, offset: 0, pattern }
    const linked = after(tied, [{ kind: 'cycle.add', take: FIRST.take, cycle }])
    expect(shown(linked.document).slice(3)).toEqual(['p1×1', 'p9×1', 'p1×1', 'p9×1', '-×8'])
  })

  test('has no timing of its own to be changed', () => {
    const runs = [{ drawing: 'p1', frames: 1 }]
    const cycle = { id: 'y', layer: 'paint', from: 0, to: 4, offset: 0, pattern: runs }
    expect(refusedOn(tied, { kind: 'exposure.write', take: FIRST.take, layer: 'paint', from: 0, runs })).toBe('tied')
    expect(refusedOn(tied, { kind: 'cycle.add', take: FIRST.take, cycle })).toBe('tied')
  })

  test('keeps its line layer there, and is followed by none itself', () => {
    const another = { ...PAINT, id: 'more' }
    expect(refusedOn(tied, { kind: 'layer.set', id: FIRST.drawn, patch: { follows: 'paint' } })).toBe('tied')
    expect(refusedOn(tied, { kind: 'layer.set', id: 'paint', patch: { follows: 'paint' } })).toBe('tied')
    expect(refusedOn(tied, { kind: 'layer.set', id: 'paint', patch: { follows: 'gone' } })).toBe('unknown-layer')
    expect(refusedOn(tied, { kind: 'layer.add', layer: { ...another, follows: 'paint' } })).toBe('tied')
    expect(refusedOn(tied, { kind: 'layer.set', id: FIRST.drawn, patch: { follows: FIRST.background } })).toBe(
      'still-followed',
    )
    const bare = after(sampleDocument(), [{ kind: 'layer.add', layer: { ...PAINT, follows: FIRST.background } }])
    expect(refusedOn(bare.document, { kind: 'layer.remove', id: FIRST.background })).toBe('still-followed')
  })

  test('untied keeps showing what it shows; tied by undoing, it follows again, and untied by undoing it has its own back', () => {
    const untied = after(tied, [{ kind: 'layer.set', id: 'paint', patch: { follows: null } }])
    expect(shown(untied.document)).toEqual(shown(tied))
    const own = after(untied.document, [
      { kind: 'exposure.write', take: FIRST.take, layer: 'paint', from: 0, runs: [{ drawing: 'p9', frames: 20 }] },
    ]).document
    const again = after(own, [{ kind: 'layer.set', id: 'paint', patch: { follows: FIRST.drawn, name: 'colour' } }])
    expect(shown(again.document)).toEqual(shown(tied))
    expect(after(again.document, again.inverse).document).toEqual(own)
  })

  test('is drawn on where a line is: the sheet gets its number and is exposed with it at once', () => {
    const take = currentTake(tied)
    const put = sure(putNewDrawing(tied, take, 'paint', 6, 2, null, 'key', newId))
    expect(put.frame).toBe(6)
    const now = after(tied, put.ops).document
    expect(get(now.drawings, put.drawing)).toMatchObject({ layer: 'paint', number: 5 })
    expect(shown(now)).toEqual(['p1×4', `${put.drawing}×4`, 'p9×4', '-×12'])
    expect(putNewDrawing(tied, take, 'paint', 14, 2, null, 'key', newId)).toBeNull()
    expect(putNewDrawing(tied, take, 'paint', 1, 2, null, 'key', newId)).toBeNull()
    expect([timedBy(tied, 'paint'), timedBy(tied, FIRST.drawn)]).toEqual([FIRST.drawn, FIRST.drawn])
  })

  test('gives up a sheet without touching the line', () => {
    const edit = sure(removeExposure(tied, currentTake(tied), 'paint', 2))
    const gone = after(tied, edit.ops)
    expect(shown(gone.document)).toEqual(['-×8', 'p9×4', '-×12'])
    expect(shown(gone.document, FIRST.drawn)).toEqual(shown(tied, FIRST.drawn))
    expect(after(gone.document, gone.inverse).document).toEqual(tied)
  })

  test('goes with its line drawing, and does not lie in wait for the next one of the number', () => {
    const edit = sure(removeExposure(tied, currentTake(tied), FIRST.drawn, 1))
    const gone = after(tied, edit.ops)
    expect(Object.keys(gone.document.drawings).sort()).toEqual(['b', 'c', 'p9'])
    expect(shown(gone.document)).toEqual(['-×4', 'p9×4', '-×16'])
    expect(after(gone.document, gone.inverse).document).toEqual(tied)
    // A drawing that is still shown elsewhere keeps its paint.
    const shared = after(tied, [
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 12, runs: [{ drawing: 'a', frames: 4 }] },
    ]).document
    const one = after(shared, sure(removeExposure(shared, currentTake(shared), FIRST.drawn, 1)).ops).document
    expect(Object.keys(one.drawings)).toContain('p1')
  })

  test('is copied along with the line drawing, strokes and all', () => {
    const painted = after(tied, [{ kind: 'elements.add', drawing: 'p1', elements: [sampleElement('fill')] }]).document
    const copy = sure(
      putNewDrawing(painted, currentTake(painted), FIRST.drawn, 13, 2, get(painted.drawings, 'a'), 'key', newId),
    )
    const now = after(painted, copy.ops).document
    const [under] = sheetsUnder(now, get(now.drawings, copy.drawing))
    expect(Object.values(under?.elements ?? {}).map(e => kindOf(e).asset(e).id)).toEqual(['s-fill'])
    expect(shown(now)).toContain(`${under?.id}×2`)
    // On the paint layer, its own copy here means a line drawing of its own, with its paint.
    const shared = after(painted, [
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 12, runs: [{ drawing: 'a', frames: 4 }] },
    ]).document
    const own = sure(ownCopy(shared, currentTake(shared), 'paint', 13, newId))
    const parted = after(shared, own.ops).document
    expect(shown(parted, FIRST.drawn)[3]).toBe(`${own.drawing}×4`)
    expect(sheetsUnder(parted, get(parted.drawings, own.drawing))).toHaveLength(1)
  })

  test('shows what it follows after any operations, and undoing them restores everything', () => {
    const onTied = fc.oneof(
      anyOperation,
      fc.constantFrom<Operation>(
        sheet('p5', 5),
        sheet('p13', 13),
        { kind: 'drawing.remove', id: 'p1' },
        { kind: 'drawing.set', id: 'p9', patch: { number: 5 } },
        { kind: 'drawing.set', id: 'a', patch: { number: 9 } },
        { kind: 'layer.set', id: 'paint', patch: { follows: null } },
        { kind: 'layer.set', id: 'paint', patch: { follows: FIRST.drawn } },
        { kind: 'layer.set', id: 'paint', patch: { follows: FIRST.background } },
      ),
    )
    fc.assert(
      fc.property(fc.array(onTied, { minLength: 1, maxLength: 12 }), all => {
        let now = tied
        const undo: (readonly Operation[])[] = []
        for (const op of all) {
          const result = applyBatch(now, [op])
          if (!result.ok) continue
          now = result.document
          undo.unshift(result.inverse)
          expect(tiesHold(now)).toBe(true)
        }
        expect(after(now, undo.flat()).document).toEqual(tied)
      }),
      { numRuns: 800, seed: 17 },
    )
  })
})
