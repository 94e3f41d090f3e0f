import { expect, test } from '@jest/globals'
import type { Drawing } from '../model/model.ts'
import { FIRST, freshDocument } from '../model/fresh.ts'
import { drawingQueue } from '../model/queue.ts'
import { currentTake } from '../model/selectors.ts'
import { surestOf } from '../model/surest.ts'
import { applyBatch, type Operation } from '../operations/index.ts'

/** Drawings a–f on twos, with the tip of a tail at these places. */
function tailAt(xs: readonly (number | null)[], more: readonly Operation[] = []) {
  const ids = ['a', 'b', 'c', 'd', 'e', 'f'].slice(0, xs.length)
  const ops: Operation[] = [
    { kind: 'mark.add', mark: { id: 'tip', layer: FIRST.drawn, name: 'tip', order: 1, kind: 'point' } },
    ...ids.map((id, i): Operation => {
      const x = xs[i]
      const marks: Drawing['marks'] = x === null || x === undefined ? {} : { tip: { x, y: 50, planted: false } }
      const number = 1 + 2 * i
      return {
        kind: 'drawing.add',
        drawing: { id, layer: FIRST.drawn, number, role: 'inbetween', elements: {}, marks },
      }
    }),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: FIRST.drawn,
      from: 0,
      runs: ids.map(drawing => ({ drawing, frames: 2 })),
    },
    { kind: 'shot.set', patch: { way: 'surest' } },
    ...more,
  ]
  const done = applyBatch(freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 2 * xs.length), ops)
  if (!done.ok) throw new Error(done.refusal.what)
  return done.document
}
const queue = (document: ReturnType<typeof tailAt>) =>
  drawingQueue(document, currentTake(document)).map(item => item.drawing.id)

test('from the drawing where the mark is fastest outwards', () => {
  const document = tailAt([0, 4, 12, 60, 100, 104])
  // Between c and e it goes 88 px in four frames.
  expect(surestOf(document, currentTake(document), FIRST.drawn).get('d')).toEqual({ leads: 'tip', speed: 22, apart: 0 })
  expect(queue(document)).toEqual(['d', 'c', 'e', 'b', 'f', 'a'])
})

test('round a loop both ways, also over its seam', () => {
  const loop: Operation = { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 12 } }
  const document = tailAt(
    [0, 10, 20, 20, 10, 0].map(x => x * 3),
    [loop],
  )
  const sure = surestOf(document, currentTake(document), FIRST.drawn)
  // a and f lie beside each other over the seam: 30 px in four frames on b, on e, and none across the turns.
  expect([...sure.values()].map(one => Math.round(one.speed * 10) / 10)).toEqual([7.5, 15, 7.5, 7.5, 15, 7.5])
  expect(queue(document)).toEqual(['b', 'a', 'c', 'd', 'f', 'e'])
})

test('where no mark leads, the order of frames is left', () => {
  expect(queue(tailAt([null, null, 5, 9]))).toEqual(['a', 'b', 'c', 'd'])
  expect(queue(tailAt([5, 5, 5, 5]))).toEqual(['a', 'b', 'c', 'd'])
})
