import { expect, test } from '@jest/globals'
import { FIRST } from '../model/fresh.ts'
import { sheetChange } from './answers.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { currentTake } from '../model/selectors.ts'
import { holdDrawing, removeExposure } from './sheetEdits.ts'
import { sampleDocument, sure } from '../tests/sample.ts'

const base = sampleDocument()
const after = (ops: readonly Operation[]) => {
  const result = applyBatch(base, ops)
  if (!result.ok) throw new Error(result.refusal.code)
  return sheetChange(base, result.document)
}

test('an act is told by what it did: numbers held longer, what moved, what is gone, and what became of the length', () => {
  const longer = after(sure(holdDrawing(base, currentTake(base), FIRST.drawn, 0, 6)).ops)
  expect(longer).toEqual({
    lengthBy: 0,
    length: 24,
    held: [{ by: 2, numbers: [1] }],
    moved: [{ by: 2, numbers: [5, 9] }],
    gone: [],
    come: [],
    changed: true,
  })
  const removed = after(sure(removeExposure(base, currentTake(base), FIRST.drawn, 0)).ops)
  expect([removed.gone, removed.moved]).toEqual([[1], [{ by: -4, numbers: [5, 9] }]])
  expect(after([{ kind: 'frames.insert', take: FIRST.take, at: 24, count: 3, fill: {} }])).toMatchObject({
    lengthBy: 3,
    length: 27,
    changed: true,
  })
  expect(after([{ kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 4 } }])).toMatchObject({ changed: false })
})
