import { describe, expect, test } from '@jest/globals'
import { restingPath, withKey } from '@unhurried/core/path'
import {
  applyBatch,
  currentTake,
  FIRST,
  freshDocument,
  freshGuide,
  guidePlan,
  type Operation,
} from '@unhurried/core/document'
import { makeSheetSight, rowInWords, runsInSight } from './sheetSight.ts'

const L = FIRST.drawn
function document() {
  const fresh = freshDocument({ width: 64, height: 64, fps: 24, paper: '#fdfaf3' }, 40)
  const ops: Operation[] = [
    ...['a', 'b'].map((id, i): Operation => ({
      kind: 'drawing.add',
      drawing: { id, layer: L, number: i + 1, role: 'key', elements: {}, marks: {} },
    })),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: L,
      from: 0,
      runs: [
        { drawing: 'a', frames: 4 },
        { drawing: 'b', frames: 4 },
        { drawing: 'a', frames: 2 },
      ],
    },
    {
      kind: 'cycle.add',
      take: FIRST.take,
      cycle: {
        id: 'y',
        layer: L,
        from: 20,
        to: 31,
        offset: 1,
        pattern: [
          { drawing: 'a', frames: 2 },
          { drawing: 'b', frames: 2 },
        ],
      },
    },
  ]
  const result = applyBatch(fresh, ops)
  if (!result.ok) throw new Error(result.refusal.code)
  return result.document
}

describe('what is in sight of a column', () => {
  const shot = document()
  const take = currentTake(shot)

  test('only runs that touch the rows, with shared ones told and later turns of a cycle marked', () => {
    const see = makeSheetSight()
    const { runs, cycles } = see(shot, take, L, 5, 26)
    expect(runs.map(run => `${run.sheet?.number} at ${run.start}`)).toEqual([
      '2 at 4',
      '1 at 8',
      '1 at 20',
      '2 at 21',
      '1 at 23',
      '2 at 25',
    ])
    expect(runs.map(run => run.repeated)).toEqual([false, false, false, false, true, true])
    expect(runs.map(run => run.shared)).toEqual([true, true, false, false, false, false])
    expect(cycles).toEqual([{ id: 'y', from: 20, to: 31, period: 4, turns: [23, 27] }])
    expect(runsInSight(take.columns[L] ?? [], 10, 20)).toEqual([])
  })

  test('guides of the layer are in sight where they cover the rows, those of others are not', () => {
    const guided = applyBatch(shot, freshGuide(shot, 'bounce', { take: FIRST.take, layer: L, from: 10 }, 'g'))
    if (!guided.ok) throw new Error(guided.refusal.what)
    const see = makeSheetSight()
    const { frames } = guidePlan(guided.document, guided.document.guides.g!)
    const on = (layer: string, first: number, last: number) => see(guided.document, take, layer, first, last).guides
    expect([on(L, 0, 40), on(L, 0, 10), on(FIRST.background, 0, 40)]).toEqual([[[10, 10 + frames]], [], []])
  })

  test('places of the layer are in sight on their rows, and told to those who hear the sheet', () => {
    const path = withKey(withKey(restingPath(64, 36), 4, { x: 9 }), 12, { x: 20 })
    const moved = applyBatch(shot, [{ kind: 'path.set', take: FIRST.take, layer: L, path }])
    if (!moved.ok) throw new Error(moved.refusal.what)
    const now = moved.document.takes[FIRST.take]!
    const see = makeSheetSight()
    expect(see(shot, take, L, 0, 20).places).toEqual([])
    expect(see(moved.document, now, L, 0, 10).places).toEqual([0, 4])
    expect(see(moved.document, now, FIRST.background, 0, 20).places).toEqual([])
    expect(rowInWords(moved.document, now, 4)).toContain('the layer has a place of its own here')
    expect(rowInWords(moved.document, now, 5)).not.toContain('of its own')
  })

  test('gives the very same answer until something of the column changes', () => {
    const see = makeSheetSight()
    const before = see(shot, take, L, 0, 20)
    const result = applyBatch(shot, [
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: FIRST.background,
        from: 0,
        runs: [{ drawing: null, frames: 3 }],
      },
    ])
    if (!result.ok) throw new Error(result.refusal.code)
    expect(see(result.document, currentTake(result.document), L, 0, 20)).toBe(before)
    expect(see(shot, take, L, 0, 21)).not.toBe(before)
  })

  test('a row is told in words', () => {
    expect(rowInWords(shot, take, 5)).toBe('Frame 6 of 40; figure 2, key, frame 2 of 4; background empty')
    expect(rowInWords(shot, take, 15)).toMatch(/^Frame 16 of 40; figure empty;/)
  })
})
