import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { FIRST, freshDocument } from '../document/model/fresh.ts'
import { applyBatch, type Operation } from '../document/operations/index.ts'
import { currentTake } from '../document/model/selectors.ts'
import { sampleDrawing } from '../document/tests/sample.ts'
import { tappedBeats, tempoBeats, wholeFrames } from '../time/index.ts'
import {
  budgetOf,
  holdFrom,
  paceOfDrawing,
  ratioInWords,
  safeBox,
  seenOnPhone,
  steppedShare,
  totalBudget,
} from './index.ts'

describe('the budget', () => {
  test('a held key, twos, and a drawing shown again: each sheet counts once', () => {
    const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 24)
    const ops: Operation[] = [
      ...['a', 'b', 'c'].map((id, i): Operation => ({
        kind: 'drawing.add',
        drawing: { ...sampleDrawing(id, i + 1), role: i === 0 ? 'key' : 'inbetween', ...(i === 2 && { elements: {} }) },
      })),
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: FIRST.drawn,
        from: 0,
        runs: [
          { drawing: 'a', frames: 8 },
          { drawing: 'b', frames: 2 },
          { drawing: 'c', frames: 2 },
          { drawing: 'b', frames: 2 },
          { drawing: 'a', frames: 4 },
        ],
      },
    ]
    const result = applyBatch(fresh, ops)
    if (!result.ok) throw new Error(result.refusal.code)
    const budgets = budgetOf(result.document, currentTake(result.document))
    expect(budgets).toHaveLength(1)
    expect(totalBudget(budgets)).toEqual({
      frames: 18,
      drawings: 3,
      byRole: { key: 1, breakdown: 0, inbetween: 2 },
      drawn: 2,
      left: 1,
      reused: 2,
      held: 1,
      // The held key stays one sheet; the two on twos become two each.
      onOnes: 5,
    })
    expect([holdFrom(24), holdFrom(12), holdFrom(60)]).toEqual([6, 3, 15])
  })
})

describe('rates and sizes', () => {
  test('24 on twos is twelve drawings a second, 36 frames of it 18; 15 on ones is 15', () => {
    expect(paceOfDrawing(24, 2, 1.5)).toMatchObject({ perSecond: 12, forShot: 18 })
    expect(paceOfDrawing(15, 1, 4)).toMatchObject({ perSecond: 15, forShot: 60 })
    expect(paceOfDrawing(25, 3, 1)).toMatchObject({ forShot: 9 })
    // 14.5 frames: 15, here as where the length is typed (0.29 · 50 is a hair less in a computer).
    expect(paceOfDrawing(50, 1, 0.29).forShot).toBe(wholeFrames(0.29, 50).frames)
    expect(tempoBeats(60, 50, 0, 200).map(f => f % 50)).toEqual([0, 0, 0, 0])
    expect(tappedBeats([0, 290], 50, 0)).toEqual([0, 15])
  })

  test('samples at all rates start and end together and never run ahead of time', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(6, 8, 10, 12, 15, 24, 25, 30),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 1000 }),
        (fps, exposure, ms) => {
          const share = steppedShare(ms, 1000, fps, exposure)
          expect(share).toBeLessThanOrEqual(ms / 1000 + 1e-9)
          expect(share).toBeGreaterThan(ms / 1000 - exposure / fps - 1e-9)
        },
      ),
    )
    expect(steppedShare(1200, 1000, 24, 2)).toBe(1)
  })

  test('a wide picture on a phone is 68 mm by 38, and its safe margin a twentieth', () => {
    const seen = seenOnPhone(1920, 1080)
    expect([seen.widthMm, seen.heightMm, seen.thinnestLinePx]).toEqual([
      68,
      expect.closeTo(38.25),
      expect.closeTo(4.235, 3),
    ])
    expect(safeBox(1000, 500)).toEqual({ left: 50, top: 25, right: 950, bottom: 475 })
    expect([ratioInWords(1920, 1080), ratioInWords(1080, 1920), ratioInWords(853, 480)]).toEqual([
      '16:9',
      '9:16',
      '1.78 to 1',
    ])
  })
})
