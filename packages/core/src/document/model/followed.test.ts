import { describe, expect, test } from '@jest/globals'
import { RECIPES } from '../../motion/table.ts'
import { freshGuide } from '../acts/guides.ts'
import { evenKey } from '../../path/path.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { sampleDocument } from '../tests/sample.ts'
import { exposuresIn, followedMark, stepsSeen } from './followed.ts'
import { FIRST } from './fresh.ts'
import { guidePlan, recipeShot } from './guides.ts'
import type { ShotDocument } from './model.ts'
import { currentTake } from './selectors.ts'
import { get } from './table.ts'

const L = FIRST.drawn
/** The sample shot, a, b and c on fours from the first frame, with a nose on a and c. */
const shot = done([
  { kind: 'mark.add', mark: { id: 'nose', layer: L, name: 'nose', order: 1, kind: 'point' } },
  ...(['a', 'c'] as const).map((drawing, i): Operation => ({
    kind: 'marks.place',
    drawing,
    places: { nose: { x: 10 + 60 * i, y: 20, planted: true } },
  })),
])
function done(ops: readonly Operation[], document: ShotDocument = sampleDocument()): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

describe('what is followed over the sheet', () => {
  test('exposures in a loop are those that start in it', () => {
    const take = currentTake(shot)
    const starts = (loop: { from: number; to: number } | null) => exposuresIn(take, L, loop).map(run => run.start)
    expect(starts(null)).toEqual([0, 4, 8])
    expect(starts({ from: 0, to: 8 })).toEqual([0, 4])
    expect(starts({ from: 1, to: 9 })).toEqual([4, 8])
    expect(starts({ from: 9, to: 20 })).toEqual([])
  })

  test('a mark is where its drawings have it, and nowhere on others', () => {
    const steps = followedMark(shot, exposuresIn(currentTake(shot), L, null), 'nose')
    expect(steps).toEqual([
      { drawing: 'a', start: 0, at: { x: 10, y: 20 } },
      { drawing: 'b', start: 4, at: null },
      { drawing: 'c', start: 8, at: { x: 70, y: 20 } },
    ])
    const moved = done(
      [
        {
          kind: 'path.set',
          take: FIRST.take,
          layer: L,
          path: {
            keys: [evenKey(0, 0, 5)],
            speed: { x: 2, y: 0 },
            pivot: { x: 0, y: 0 },
            whole: false,
            on: 1,
            closes: null,
            use: 'moves',
          },
        },
      ],
      shot,
    )
    expect(stepsSeen(moved, currentTake(moved), L, steps).map(step => step.at)).toEqual([
      { x: 10, y: 25 },
      null,
      { x: 86, y: 25 },
    ])
  })

  test('a guide follows a mark from where it begins: earlier places have no say, frames are counted from there', () => {
    const chain = { ...RECIPES.chain.defaults(recipeShot(shot)), drive: 'mark' as const, follows: 'nose' }
    const guided = (from: number) => {
      const where = { take: FIRST.take, layer: L, from }
      const numbers = { kind: 'guide.set', id: 'g', patch: { numbers: chain } } as unknown as Operation
      const middle: Operation = {
        kind: 'marks.place',
        drawing: 'b',
        places: { nose: { x: 40, y: 20, planted: false } },
      }
      return done([middle, ...freshGuide(shot, 'chain', where, 'g'), numbers], shot)
    }
    const rootsOf = (from: number) => {
      const document = guided(from)
      const plan = guidePlan(document, get(document.guides, 'g'))
      const found: number[] = []
      for (const frame of [0, 8 - from]) {
        const roots: { x: number }[] = []
        RECIPES.chain.figure(plan as never, plan.drawings.find(one => one.frame >= frame)?.frame ?? 0, {
          ellipse: () => undefined,
          bend: () => undefined,
          line: () => undefined,
          path: (_, points) => roots.push(points[0] as { x: number }),
          arrow: () => undefined,
        })
        found.push(Math.round(roots[0]?.x ?? NaN))
      }
      return found
    }
    // Begun on frame 0 the root goes from 10 to 70; begun behind the first place, from the second one on.
    expect(rootsOf(0)).toEqual([10, 70])
    expect(rootsOf(4)).toEqual([40, 70])
  })
})
