import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { refusePath } from '../../path/path.ts'
import type { ShotDocument } from '../model/model.ts'
import { swatchOf } from '../elements/table.ts'
import { KINDS, likely, richDocument } from '../tests/rich.ts'
import { applyBatch, columnsCover, cyclesHold, tiesHold, type Operation, type OperationKind } from './index.ts'

const start = richDocument()
const thrown = fc.array(fc.array(fc.nat(99_999), { minLength: 8, maxLength: 8 }), { minLength: 1, maxLength: 14 })

/** What was done, out of numbers that were thrown: each operation on the document that those before led to. */
function doLikely(all: readonly (readonly number[])[]) {
  let now = start
  const done: Operation[] = []
  const undo: (readonly Operation[])[] = []
  const refused: string[] = []
  for (const numbers of all) {
    const op = likely(now, numbers)
    const result = applyBatch(now, [op])
    if (!result.ok) {
      refused.push(result.refusal.code)
      continue
    }
    done.push(op)
    undo.unshift(result.inverse)
    now = result.document
  }
  return { now, done, undo: undo.flat(), refused }
}
type Done = ReturnType<typeof doLikely>

const always = (what: (outcome: Done) => void, numRuns: number, seed: number) =>
  fc.assert(
    fc.property(thrown, all => what(doLikely(all))),
    { numRuns, seed },
  )

/** Every id that something points at is there; answers with the first that is not. */
function pointsNowhere(document: ShotDocument): string | null {
  const { drawings, layers, marks, beats, swatches, takes } = document
  const gone = (table: object, id: string | null) => (id !== null && !Object.hasOwn(table, id) ? id : null)
  const found = [
    ...Object.values(layers).map(layer => gone(layers, layer.follows)),
    ...Object.values(drawings).flatMap(drawing => [
      gone(layers, drawing.layer),
      ...Object.values(drawing.elements).map(element => gone(swatches, swatchOf(element))),
      ...Object.keys(drawing.marks).map(mark => gone(marks, mark)),
    ]),
    ...Object.values(document.guides).flatMap(guide => [gone(takes, guide.take), gone(layers, guide.layer)]),
    ...Object.values(document.charts).flatMap(({ from, to, part, ticks }) => [
      gone(drawings, from),
      gone(drawings, to),
      gone(marks, part),
      ...ticks.map(tick => gone(drawings, tick.drawing)),
    ]),
    ...Object.values(marks).map(mark => gone(layers, mark.layer)),
    ...Object.values(takes).flatMap(take => [
      ...Object.values(take.columns).flatMap(column => column.map(run => gone(drawings, run.drawing))),
      ...Object.values(take.cycles).flatMap(cycle => cycle.pattern.map(run => gone(drawings, run.drawing))),
      ...Object.keys(take.paths).map(layer => gone(layers, layer)),
      ...Object.entries(take.pins).flatMap(([drawing, beat]) => [gone(drawings, drawing), gone(beats, beat)]),
    ]),
    gone(takes, document.current),
  ]
  return found.find(id => id !== null) ?? null
}

/** Whether every path can be used, and reaches no farther than right behind its take. */
const pathsFit = ({ takes }: ShotDocument) =>
  Object.values(takes).every(({ paths, length }) =>
    Object.values(paths).every(path => refusePath(path) === null && path.keys.every(key => key.frame <= length)),
  )

describe('the laws, on a shot with some of everything', () => {
  test('undoing, newest first, restores it exactly; undoing that does it again', () => {
    always(
      ({ now, undo }) => {
        const back = applyBatch(now, undo)
        expect(back).toMatchObject({ ok: true })
        if (!back.ok) return
        expect(back.document).toEqual(start)
        const again = applyBatch(back.document, back.inverse)
        expect(again.ok && again.document).toEqual(now)
      },
      700,
      21,
    )
  })

  test('nothing points at what is not there, columns cover their takes, cycles and ties show what they say', () => {
    always(
      ({ now }) => {
        expect(pointsNowhere(now)).toBeNull()
        expect([columnsCover(now), cyclesHold(now.takes), tiesHold(now), pathsFit(now)]).toEqual([
          true,
          true,
          true,
          true,
        ])
      },
      700,
      23,
    )
  })

  test('the generator reaches every kind: each is taken often, no more than half is refused, and every refusal that keeps things is met', () => {
    const taken = new Map<OperationKind, number>(KINDS.map(kind => [kind, 0]))
    const refused = new Map<string, number>()
    let all = 0
    always(
      outcome => {
        for (const { kind } of outcome.done) taken.set(kind, (taken.get(kind) ?? 0) + 1)
        for (const code of outcome.refused) refused.set(code, (refused.get(code) ?? 0) + 1)
        all += outcome.done.length + outcome.refused.length
      },
      1100,
      25,
    )
    for (const [kind, times] of taken) expect([kind, times >= 10]).toEqual([kind, true])
    const no = [...refused.values()].reduce((sum, n) => sum + n, 0)
    expect(no / all).toBeLessThan(0.5)
    // What must be refused is met: things that are still shown, charted, pinned, placed, used and followed.
    for (const code of [
      'still-exposed',
      'still-charted',
      'still-pinned',
      'still-placed',
      'still-used',
      'still-followed',
      'still-tracked',
      'linked',
      'tied',
    ] as const) {
      expect([code, (refused.get(code) ?? 0) > 0]).toEqual([code, true])
    }
  })
})
