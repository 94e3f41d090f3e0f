import { describe, expect, test } from '@jest/globals'
import {
  applyBatch,
  currentTake,
  FIRST,
  freshDocument,
  get,
  newPass,
  type Drawing,
  type Operation,
  type ShotDocument,
} from '@unhurried/core/document'
import fc from 'fast-check'
import { frameOfStep, seenAt, stepOf, turnOf, type Seeing } from './frames.ts'

const L = FIRST.drawn
const drawing = (id: string, role: Drawing['role'], number: number, layer: string = L): Operation => ({
  kind: 'drawing.add',
  drawing: { id, layer, number, role, elements: {}, marks: {} },
})

function shot(): ShotDocument {
  const fresh = freshDocument({ width: 64, height: 64, fps: 12, paper: '#fdfaf3' }, 8)
  const result = applyBatch(fresh, [
    drawing('A', 'key', 1),
    drawing('i', 'inbetween', 2),
    drawing('b', 'breakdown', 3),
    drawing('B', 'key', 4),
    drawing('pads', 'key', 1, FIRST.background),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: L,
      from: 0,
      runs: ['A', 'i', 'b', 'B'].map(id => ({ drawing: id, frames: 2 })),
    },
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: FIRST.background,
      from: 0,
      runs: [{ drawing: 'pads', frames: 8 }],
    },
  ])
  if (!result.ok) throw new Error(result.refusal.code)
  return result.document
}

const ALL: Seeing = { only: 'all', layer: null, silhouettes: false, hidden: new Set() }
const seen = (frame: number, seeing: Partial<Seeing> = {}) => {
  const document = shot()
  return seenAt(document, get(document.takes, FIRST.take), frame, { ...ALL, ...seeing })
    .map(one => one.drawing.id)
    .join(' ')
}

describe('what is seen in the flip room', () => {
  test('keys alone are held until the next key, with breakdowns until the next of either', () => {
    expect([0, 2, 4, 6].map(f => seen(f))).toEqual(['pads A', 'pads i', 'pads b', 'pads B'])
    expect([0, 2, 4, 6].map(f => seen(f, { only: 'keys' }))).toEqual(['pads A', 'pads A', 'pads A', 'pads B'])
    expect([2, 4].map(f => seen(f, { only: 'breakdowns' }))).toEqual(['pads A', 'pads b'])
  })

  test('one layer, hidden layers, silhouettes without the background', () => {
    expect(seen(0, { layer: L })).toBe('A')
    expect(seen(0, { hidden: new Set([L]) })).toBe('pads')
    expect(seen(0, { silhouettes: true })).toBe('A')
  })
})

describe('playing takes together', () => {
  const take = (length: number, loop: { from: number; to: number } | null = null) => ({
    ...get(shot().takes, FIRST.take),
    length,
    loop,
  })

  test('they begin together, and a shorter one waits on its last frame', () => {
    const [one, other] = [take(8), take(12, { from: 2, to: 5 })]
    expect(turnOf([one, other])).toBe(8)
    expect([0, 2, 7].map(step => frameOfStep(other, step))).toEqual([2, 4, 4])
    expect(frameOfStep(one, 7)).toBe(7)
  })

  test('there and back shows every step, and never the ends twice running', () => {
    expect(Array.from({ length: 8 }, (_, i) => stepOf(i, 4, true))).toEqual([0, 1, 2, 3, 2, 1, 0, 1])
    fc.assert(
      fc.property(fc.nat(400), fc.integer({ min: 1, max: 40 }), fc.boolean(), (due, turn, back) => {
        const step = stepOf(due, turn, back)
        expect(step >= 0 && step < turn).toBe(true)
        if (back && turn > 2) expect(Math.abs(stepOf(due + 1, turn, true) - step)).toBe(1)
      }),
    )
  })
})

describe('passes and takes of their own length', () => {
  test('a pass that was left is seen in place of the one that is drawn now, and else not at all', () => {
    let n = 0
    const old = shot()
    const result = applyBatch(
      old,
      newPass(old, L, 'too stiff', () => `n${++n}`),
    )
    if (!result.ok) throw new Error(result.refusal.code)
    const take = currentTake(result.document)
    const seen = (pass: string | null) =>
      seenAt(result.document, take, 0, { only: 'all', layer: null, silhouettes: false, hidden: new Set(), pass }).map(
        one => one.drawing.layer,
      )
    const fresh = get(result.document.layers, L).left?.for
    expect(seen(null)).toEqual([FIRST.background, fresh])
    expect(seen(L)).toEqual([FIRST.background, L])
  })

  test('side by side a shorter take waits, or goes round on its own', () => {
    const take = { ...get(shot().takes, FIRST.take), loop: { from: 2, to: 5 } }
    expect([0, 2, 3, 7].map(step => frameOfStep(take, step))).toEqual([2, 4, 4, 4])
    expect([0, 2, 3, 7].map(step => frameOfStep(take, step, true))).toEqual([2, 4, 2, 3])
  })
})
