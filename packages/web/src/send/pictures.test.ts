import { describe, expect, test } from '@jest/globals'
import { applyBatch, FIRST, freshDocument, get, type Operation } from '@unhurried/core/document'
import { restingPath, type LayerPath } from '@unhurried/core/path'
import fc from 'fast-check'
import { picturesOf, underKey } from './pictures.ts'

const drawing = (id: string, number: number, blank = false): Operation => {
  const element = {
    id: `${id}1`,
    kind: 'line',
    z: 1,
    samples: 's',
    part: null,
    nib: { look: 'ink', ends: 'round', thinning: 0.62 },
    label: null,
    matrix: null,
    swatch: 'graphite',
    width: 3,
  } as const
  return {
    kind: 'drawing.add',
    drawing: {
      id,
      layer: FIRST.drawn,
      number,
      role: 'key',
      elements: blank ? {} : { [element.id]: element },
      marks: {},
    },
  }
}

function shot(runs: { drawing: string | null; frames: number }[]) {
  const frames = runs.reduce((sum, run) => sum + run.frames, 0)
  const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, frames)
  const ops: Operation[] = [
    drawing('a', 1),
    drawing('b', 2),
    drawing('empty', 3, true),
    { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 0, runs },
  ]
  const result = applyBatch(fresh, ops)
  if (!result.ok) throw new Error(result.refusal.code)
  return { document: result.document, take: get(result.document.takes, FIRST.take), frames }
}

describe('pictures of a stretch', () => {
  test('a clip under the drawings makes a picture of its own of each of its own, and is no blink of nothing', () => {
    const { document, take } = shot([
      { drawing: 'a', frames: 3 },
      { drawing: null, frames: 3 },
    ])
    const under = (frame: number) => underKey([frame < 5 ? Math.floor(frame / 2) : null, null])
    expect(picturesOf(document, take, { from: 0, to: 6 }, under)).toEqual([
      { frame: 0, frames: 2, blank: false },
      { frame: 2, frames: 1, blank: false },
      { frame: 3, frames: 1, blank: false },
      { frame: 4, frames: 1, blank: false },
      { frame: 5, frames: 1, blank: true },
    ])
  })

  test('a held drawing is one picture, and blinks of nothing are pointed out', () => {
    const { document, take } = shot([
      { drawing: 'a', frames: 3 },
      { drawing: null, frames: 1 },
      { drawing: 'b', frames: 2 },
      { drawing: 'empty', frames: 2 },
    ])
    expect(picturesOf(document, take, { from: 1, to: 8 })).toEqual([
      { frame: 1, frames: 2, blank: false },
      { frame: 3, frames: 1, blank: true },
      { frame: 4, frames: 2, blank: false },
      { frame: 6, frames: 2, blank: true },
    ])
  })

  test('where a layer moves every place is another picture; what is added for looking only is none', () => {
    const { document } = shot([{ drawing: 'a', frames: 6 }])
    const path = { ...restingPath(64, 64), speed: { x: 3, y: 0 }, on: 2 }
    const starts = (layer: string, use: LayerPath['use']) => {
      const moved = applyBatch(document, [{ kind: 'path.set', take: FIRST.take, layer, path: { ...path, use } }])
      if (!moved.ok) throw new Error(moved.refusal.what)
      const take = get(moved.document.takes, FIRST.take)
      return picturesOf(moved.document, take, { from: 0, to: 6 }).map(({ frame, frames }) => [frame, frames])
    }
    const onTwos = [
      [0, 2],
      [2, 2],
      [4, 2],
    ]
    expect([starts(FIRST.drawn, 'moves'), starts(FIRST.drawn, 'ground')]).toEqual([onTwos, onTwos])
    expect(starts(FIRST.drawn, 'pin')).toEqual([[0, 6]])
    // Nothing is on the other layer.
    expect(starts(FIRST.background, 'moves')).toEqual([[0, 6]])
  })

  test('together they last exactly as long as the stretch, whatever is exposed', () => {
    const run = fc.record({ drawing: fc.constantFrom('a', 'b', null), frames: fc.integer({ min: 1, max: 5 }) })
    fc.assert(
      fc.property(fc.array(run, { minLength: 1, maxLength: 8 }), runs => {
        const { document, take, frames } = shot(runs)
        const pictures = picturesOf(document, take, { from: 0, to: frames })
        expect(pictures.reduce((sum, p) => sum + p.frames, 0)).toBe(frames)
        pictures
          .slice(1)
          .forEach((p, i) => expect(p.frame).toBe((pictures[i]?.frame ?? 0) + (pictures[i]?.frames ?? 0)))
      }),
    )
  })

  test('references and guides stay on the desk', () => {
    const { document, take } = shot([
      { drawing: 'a', frames: 2 },
      { drawing: 'b', frames: 2 },
    ])
    for (const kind of ['reference', 'guide'] as const) {
      const result = applyBatch(document, [{ kind: 'layer.set', id: FIRST.drawn, patch: { kind } }])
      if (!result.ok) throw new Error(result.refusal.code)
      expect(picturesOf(result.document, take, { from: 0, to: 4 })).toEqual([{ frame: 0, frames: 4, blank: true }])
    }
  })
})
