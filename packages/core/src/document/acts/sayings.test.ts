import { expect, test } from '@jest/globals'
import type { Saying } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import type { Drawing, ShotDocument } from '../model/model.ts'
import type { Run } from '../../time/exposure.ts'
import { FIRST, freshDocument } from '../model/fresh.ts'
import { addSaying, changeSaying, sayingsAlong } from './sayings.ts'

const saying: Saying = { id: 's', kind: 'still', layer: 'layer-1', about: [], from: 4, to: 9 }

test('what is said is said of a frame at least; where one end would pass the other, that goes along', () => {
  const added = (to: number) => addSaying({ ...saying, to }).map(op => op.kind === 'saying.add' && op.saying.to)
  expect([added(9), added(2)]).toEqual([[9], [5]])
  const changed = (patch: Partial<Pick<Saying, 'from' | 'to'>>) =>
    changeSaying(saying, patch).map(op => op.kind === 'saying.set' && op.patch)
  expect(changed({ to: 12 })).toEqual([{ to: 12 }])
  expect(changed({ from: 20 })).toEqual([{ from: 20, to: 21 }])
  expect(changed({ to: 3 })).toEqual([{ from: 2, to: 3 }])
  expect(changed({ to: 0 })).toEqual([{ from: 0, to: 1 }])
})

/** Drawings on a layer for so many frames each, and things said of it. */
function said(runs: readonly (readonly [id: string, frames: number])[], ...sayings: readonly Saying[]): ShotDocument {
  const fresh = freshDocument(
    { width: 64, height: 64, fps: 24, paper: '#fdfaf3' },
    runs.reduce((sum, [, frames]) => sum + frames, 0),
  )
  const ids = [...new Set(runs.map(([id]) => id))]
  const result = applyBatch(fresh, [
    ...ids.map((id, i): Operation => {
      const drawing: Drawing = { id, layer: FIRST.drawn, number: i + 1, role: 'key', elements: {}, marks: {} }
      return { kind: 'drawing.add', drawing }
    }),
    write(runs),
    ...sayings.map((one): Operation => ({ kind: 'saying.add', saying: one })),
  ])
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const write = (runs: readonly (readonly [id: string, frames: number])[]): Operation => ({
  kind: 'exposure.write',
  take: FIRST.take,
  layer: FIRST.drawn,
  from: 0,
  runs: runs.map(([drawing, frames]): Run => ({ drawing, frames })),
})
const ends = (document: ShotDocument, ops: readonly Operation[]) =>
  sayingsAlong(document, ops).map(op => op.kind === 'saying.set' && [op.id, op.patch.from, op.patch.to])

test('what is said goes where its drawings go: held longer, cut shorter, laid in another order', () => {
  const s: Saying = { ...saying, layer: FIRST.drawn }
  // b and c, frames 3–6 of a b c d on twos.
  const document = said(
    [
      ['a', 2],
      ['b', 2],
      ['c', 2],
      ['d', 2],
    ],
    { ...s, from: 2, to: 6 },
  )
  const frames = (kind: 'frames.insert' | 'frames.remove', at: number, count: number) => {
    const take = FIRST.take
    return ends(document, [kind === 'frames.insert' ? { kind, take, at, count, fill: {} } : { kind, take, at, count }])
  }
  // Four frames put in before it, within it, and behind it: what was shown there is held for them.
  expect(frames('frames.insert', 2, 4)).toEqual([['s', 6, 10]])
  expect(frames('frames.insert', 4, 4)).toEqual([['s', 2, 10]])
  expect(frames('frames.insert', 6, 4)).toEqual([['s', 2, 10]])
  expect(frames('frames.insert', 8, 4)).toEqual([])
  expect(frames('frames.remove', 0, 2)).toEqual([['s', 0, 4]])
  expect(frames('frames.remove', 3, 1)).toEqual([['s', 2, 5]])
  // On ones: a at 1, b and c on 2 and 3.
  expect(
    ends(document, [
      write([
        ['a', 1],
        ['b', 1],
        ['c', 1],
        ['d', 5],
      ]),
    ]),
  ).toEqual([['s', 1, 3]])
  expect(
    ends(document, [
      write([
        ['d', 2],
        ['a', 2],
        ['b', 2],
        ['c', 2],
      ]),
    ]),
  ).toEqual([['s', 4, 8]])
  // Where the order would turn it round, or a drawing is gone, it stays.
  expect(
    ends(document, [
      write([
        ['c', 2],
        ['b', 2],
        ['a', 2],
        ['d', 2],
      ]),
    ]),
  ).toEqual([])
  expect(
    ends(document, [
      write([
        ['a', 2],
        ['b', 2],
        ['c', 2],
        ['d', 2],
      ]),
    ]),
  ).toEqual([])
  expect(ends(document, [write([['a', 8]])])).toEqual([])
})

test('from the middle of a hold to the middle of another it stays as far from their ends; of two exposures it keeps its own', () => {
  const s: Saying = { ...saying, layer: FIRST.drawn }
  const document = said(
    [
      ['a', 4],
      ['b', 4],
      ['a', 4],
    ],
    { ...s, from: 1, to: 7 },
    { ...s, id: 't', from: 8, to: 12 },
  )
  expect(
    ends(document, [
      write([
        ['a', 6],
        ['b', 4],
        ['a', 2],
      ]),
    ]),
  ).toEqual([
    ['s', 1, 9],
    ['t', 10, 12],
  ])
})

test('what is said of the whole take is said of the whole of it; what a step says itself is left to it', () => {
  const s: Saying = { ...saying, layer: FIRST.drawn }
  const document = said(
    [
      ['a', 2],
      ['b', 2],
    ],
    { ...s, from: 0, to: 4 },
  )
  const other: Operation = { kind: 'saying.set', id: 's', patch: { to: 3 } }
  expect(
    ends(document, [
      write([
        ['a', 1],
        ['b', 3],
      ]),
    ]),
  ).toEqual([])
  const three = said(
    [
      ['a', 2],
      ['b', 2],
      ['c', 2],
    ],
    { ...s, from: 0, to: 6 },
  )
  const swapped = write([
    ['b', 2],
    ['a', 2],
    ['c', 2],
  ])
  expect(ends(three, [swapped])).toEqual([])
  const longer: Operation = { kind: 'frames.insert', take: FIRST.take, at: 4, count: 3, fill: {} }
  expect(ends(document, [longer])).toEqual([['s', 0, 7]])
  expect(ends(document, [longer, other])).toEqual([])
  expect(
    ends(
      said([
        ['a', 2],
        ['b', 2],
      ]),
      [
        write([
          ['a', 1],
          ['b', 3],
        ]),
      ],
    ),
  ).toEqual([])
})
