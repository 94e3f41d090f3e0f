import { expect, test } from '@jest/globals'
import { applyBatch, FIRST, freshDocument, get, newLayer, type Operation } from '@unhurried/core/document'
import { restingPath } from '@unhurried/core/path'
import { figuresOf, framesOf } from './frames.ts'

const shape = (id: string) => ({
  ...{ id, kind: 'shape' as const, z: 1, samples: id, part: null, swatch: 'moss', width: 1, label: null, matrix: null },
  nib: { look: 'ink' as const, ends: 'round' as const, thinning: 0 },
})
const drawing = (id: string, layer: string, number: number, isPainted: boolean): Operation => ({
  kind: 'drawing.add',
  drawing: {
    ...{ id, layer, number, role: 'key', marks: {} },
    elements: { [`${id}-1`]: isPainted ? shape(`${id}-1`) : { ...shape(`${id}-1`), kind: 'line' as const } },
  },
})
const shown = (layer: string, ...runs: [string, number][]): Operation => ({
  ...{ kind: 'exposure.write', take: FIRST.take, layer, from: 0 },
  runs: runs.map(([id, frames]) => ({ drawing: id, frames })),
})

/** A frog in lines with paint under it, a rough bird, mist without a body, and a painted meadow behind. */
function marsh() {
  const line = FIRST.drawn
  const result = applyBatch(freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 6), [
    { kind: 'layer.add', layer: newLayer('paint', 'paint', -1, { follows: line }) },
    { kind: 'layer.add', layer: newLayer('bird', 'bird', 7) },
    { kind: 'layer.add', layer: newLayer('mist', 'mist', 8, { volume: 'off' }) },
    drawing('a', line, 1, false),
    drawing('b', line, 2, false),
    drawing('a-paint', 'paint', 1, true),
    drawing('b-paint', 'paint', 2, true),
    drawing('rough', 'bird', 1, false),
    drawing('wisp', 'mist', 1, true),
    drawing('meadow', FIRST.background, 1, true),
    shown(line, ['a', 2], ['b', 2], ['a', 2]),
    shown('bird', ['rough', 6]),
    shown('mist', ['wisp', 6]),
    shown(FIRST.background, ['meadow', 6]),
  ])
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

test('figures are painted drawings of layers with a body, lines and paint together, each where it is first seen', () => {
  const document = marsh()
  const film = framesOf(document, get(document.takes, FIRST.take), {
    boxOf: () => ({ left: 0, top: 0, right: 9, bottom: 9 }),
  })
  expect(film.frames).toEqual([0, 0, 1, 1, 0, 0])
  const told = figuresOf(document, film, false).map(({ drawing: id, frame, of }) => [
    id,
    frame,
    of.map(i => film.pictures[film.frames[frame]!]![i]!.drawing.id).sort(),
  ])
  expect(told).toEqual([
    ['a', 0, ['a', 'a-paint']],
    ['b', 2, ['b', 'b-paint']],
  ])
})

test('before another ground, or elsewhere, a figure is looked at again, but not without end', () => {
  const document = marsh()
  const take = get(document.takes, FIRST.take)
  const seen = (ops: readonly Operation[], changes = false) => {
    const result = applyBatch(document, ops)
    if (!result.ok) throw new Error(result.refusal.code)
    const film = framesOf(result.document, get(result.document.takes, FIRST.take), {
      boxOf: () => ({ left: 0, top: 0, right: 9, bottom: 9 }),
    })
    return figuresOf(result.document, film, changes).map(({ drawing: id, frame }) => `${id}${frame}`)
  }
  // Another meadow from frame 3 on: b is seen before both, a before the first, and before the second again.
  const other = [drawing('night', FIRST.background, 2, true), shown(FIRST.background, ['meadow', 3], ['night', 3])]
  expect(seen(other)).toEqual(['a0', 'a4', 'b2', 'b3'])
  // What lies over it is no ground.
  expect(seen([drawing('cloud', 'mist', 2, true), shown('mist', ['wisp', 1], ['cloud', 5])])).toEqual(['a0', 'b2'])
  // Its layer goes through the picture: four places of its frames, the first and the last among them.
  const held = shown(FIRST.drawn, ['a', 6])
  const path = { ...restingPath(64, 64), speed: { x: 3, y: 0 } }
  const carried: Operation = { kind: 'path.set', take: take.id, layer: FIRST.drawn, path }
  expect(seen([held, carried])).toEqual(['a0', 'a2', 'a4', 'a5'])
  // A clip under all of it is another picture on every frame.
  expect(seen([held], true)).toEqual(['a0', 'a2', 'a4', 'a5'])
  expect(seen([held])).toEqual(['a0'])
})
