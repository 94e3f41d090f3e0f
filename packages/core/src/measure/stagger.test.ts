import { describe, expect, test } from '@jest/globals'
import { FIRST } from '../document/model/fresh.ts'
import type { ShotDocument } from '../document/model/model.ts'
import type { Operation } from '../document/operations/index.ts'
import { columnOf } from '../document/model/selectors.ts'
import { get } from '../document/model/table.ts'
import { CHECKS } from './checks/table.ts'
import { staggeredTake } from './stagger.ts'
import { along, done, layer, moving, survey } from './tests/moving.ts'

/** Three layers with a mark each that go 80 px and stop, at frames of their own, and rest to the end. */
function three(starts: readonly number[]): ShotDocument {
  const base = moving({ head: along(0, 40, 80) }, [4 + (starts[0] ?? 0), 2, 18 - (starts[0] ?? 0)])
  const more = ['arm', 'tail'].flatMap((id, n): Operation[] => {
    const from = starts[n + 1] ?? 0
    return [
      { kind: 'layer.add', layer: { ...get(base.layers, layer), id, name: id, order: 5 + n } },
      { kind: 'mark.add', mark: { id: `${id}-tip`, layer: id, name: `${id} tip`, order: 0, kind: 'point' } },
      ...[0, 40, 80].map((x, i): Operation => ({
        kind: 'drawing.add',
        drawing: {
          id: `${id}-${i}`,
          layer: id,
          number: i + 1,
          role: 'key',
          elements: {},
          marks: { [`${id}-tip`]: { x, y: 100 * n, planted: false } },
        },
      })),
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: id,
        from: 0,
        runs: [
          { drawing: `${id}-0`, frames: 4 + from },
          { drawing: `${id}-1`, frames: 2 },
          { drawing: `${id}-2`, frames: 18 - from },
        ],
      },
    ]
  })
  return done(base, more)
}
const told = (document: ShotDocument) =>
  CHECKS.together
    .inspect(survey(document))
    .filter(one => one.layer === null)
    .map(one => one.words)

describe('layers that arrive as one', () => {
  test('are told, and shown staggered in a take of their own, in which they are not told any more', () => {
    const document = three([0, 0, 1])
    expect(told(document)).toEqual([
      '3 of 3 layers arrive on frame 7: figure, arm, tail. Staggered: arm 1 later, tail 2 later',
    ])
    const seen = survey(document)
    const finding = CHECKS.together.inspect(seen).find(one => one.layer === null)!
    let n = 0
    const fix = CHECKS.together.fix?.(seen, finding, () => `new-${n++}`)
    expect(fix?.words).toBe('see it staggered, as a take of its own')
    const after = done(document, fix!.ops)
    // What is there stays; the new take has the layers later, the first drawing held, the last cut.
    expect(after.current).toBe(document.current)
    expect(after.takes[FIRST.take]).toEqual(document.takes[FIRST.take])
    const take = Object.values(after.takes).find(one => one.id !== FIRST.take)!
    expect([take.name, take.length]).toEqual([`${document.takes[FIRST.take]!.name}, staggered`, 24])
    const holds = (id: string) => columnOf(take, id).map(run => run.frames)
    expect([holds(layer), holds('arm'), holds('tail')]).toEqual([
      [4, 2, 18],
      [5, 2, 17],
      [7, 2, 15],
    ])
    expect(told({ ...after, current: take.id })).toEqual([])
  })

  test('a layer whose volume means nothing is not among them', () => {
    const misty = done(three([0, 0, 0]), [{ kind: 'layer.set', id: 'tail', patch: { volume: 'off' } }])
    expect(told(misty)).toEqual([])
  })

  test('what comes one after the other is not', () => {
    expect(told(three([0, 3, 6]))).toEqual([])
  })

  test('in a loop a layer is turned on, and nothing is lost', () => {
    const looped = done(three([0, 0, 0]), [{ kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 24 } }])
    const take = looped.takes[FIRST.take]!
    let n = 0
    const ops = staggeredTake(looped, take, [{ layer: get(looped.layers, 'arm'), later: 5 }], () => `id-${n++}`)
    const after = done(looped, ops)
    const turned = Object.values(after.takes).find(one => one.id !== FIRST.take)!
    expect(columnOf(turned, 'arm').map(run => [run.drawing, run.frames])).toEqual([
      ['arm-2', 5],
      ['arm-0', 4],
      ['arm-1', 2],
      ['arm-2', 13],
    ])
    expect(staggeredTake(looped, take, [{ layer: get(looped.layers, 'arm'), later: 0 }], () => 'x')).toEqual([])
  })
})
