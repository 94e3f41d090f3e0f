import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import {
  applyBatch,
  FIRST,
  freshDocument,
  get,
  openReplica,
  type Element,
  type Operation,
} from '@unhurried/core/document'
import { createPinia, setActivePinia } from 'pinia'
import { markRaw } from 'vue'

/** The browser's storage, as far as the desk needs it. */
function storage() {
  const kept = new Map<string, string>()
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  }
}
Object.assign(globalThis, { localStorage: storage(), sessionStorage: storage() })
let clip: unknown
jest.unstable_mockModule('../local/database.ts', () => ({
  keep: () => Promise.resolve(),
  forget: () => Promise.resolve(),
  keepHistory: () => Promise.resolve(),
  readHistory: () => Promise.resolve(undefined),
  leftover: () => Promise.resolve({ batches: [], samples: new Map() }),
  keepClip: (held: unknown) => Promise.resolve(void (clip = held)),
  readClip: () => Promise.resolve(clip),
}))

const { useShot } = await import('../stores/shot.ts')
const { useDesk } = await import('../stores/desk.ts')
const { useActs } = await import('./acts.ts')

const L = FIRST.drawn
const element = (id: string): Element => ({
  id,
  kind: 'line',
  z: 1,
  samples: 's',
  part: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
})

/** A desk with drawings 1 (two frames) and 3 (four frames) of twelve, standing on the first frame. */
function desk() {
  setActivePinia(createPinia())
  const [shot, on] = [useShot(), useDesk()]
  const ops: Operation[] = [1, 3].map(number => ({
    kind: 'drawing.add',
    drawing: {
      id: `d${number}`,
      layer: L,
      number,
      role: 'key',
      elements: { [`e${number}`]: element(`e${number}`) },
      marks: {},
    },
  }))
  const runs = [
    { drawing: 'd1', frames: 2 },
    { drawing: 'd3', frames: 4 },
  ]
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)
  const result = applyBatch(fresh, [...ops, { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs }])
  if (!result.ok) throw new Error(result.refusal.code)
  shot.replica = markRaw(openReplica(0, result.document))
  shot.role = 'owner'
  on.reset(0)
  const column = () => {
    const take = get(shot.document!.takes, FIRST.take)
    const written = get(take.columns, L).map(r => `${r.drawing ? shot.drawing(r.drawing)?.number : '-'}×${r.frames}`)
    return `${written.join(' ')} / ${take.length}`
  }
  return { shot, on, acts: useActs(), column }
}

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

describe('acts on the sheet', () => {
  test('new, copy and share put a drawing where one stands and go there; undo takes it away again', () => {
    const { shot, on, acts, column } = desk()
    on.goTo(8)
    acts.newDrawing('empty')
    expect([column(), on.frame, on.drawing?.role]).toEqual(['1×2 3×4 -×2 9×2 -×2 / 12', 8, 'key'])
    on.goTo(10)
    acts.newDrawing('copy')
    expect(on.drawing?.number).toBe(11)
    shot.undo()
    acts.share()
    expect(column()).toBe('1×2 3×4 -×2 9×4 / 12')
    shot.undo()
    shot.undo()
    expect(column()).toBe('1×2 3×4 -×6 / 12')
    expect(shot.redo()).not.toBeNull()
    expect(column()).toBe('1×2 3×4 -×2 9×2 -×2 / 12')
  })

  test('on ones re-exposes what is marked, or the drawing one stands on, and new drawings follow', () => {
    const { on, acts, column } = desk()
    on.goTo(2)
    acts.sheet.exposeOn(1)
    expect([column(), on.exposure]).toEqual(['1×2 3×1 -×6 / 9', 1])
    on.goTo(0)
    acts.arrow(0, 1, true)
    acts.arrow(0, 1, true)
    expect(on.selection).toEqual({ layers: [L], from: 0, to: 3 })
    acts.sheet.exposeOn(3)
    expect(column()).toBe('1×3 3×3 -×6 / 12')
  })

  test('marking shrinks again towards where it began', () => {
    const { on, acts } = desk()
    on.goTo(5)
    for (const by of [1, 1, -1, -1, -1]) acts.arrow(0, by, true)
    expect(on.selection).toEqual({ layers: [L], from: 4, to: 6 })
    acts.arrow(0, 1, false)
    expect(on.selection).toBeNull()
  })

  test('holds, frames put in and taken out, and the loop', () => {
    const { shot, on, acts, column } = desk()
    acts.sheet.hold(1)
    expect(column()).toBe('1×3 3×4 -×6 / 13')
    acts.sheet.insertFrames()
    acts.sheet.removeFrames()
    expect(column()).toBe('1×3 3×4 -×6 / 13')
    on.goTo(4)
    acts.setLoop('from')
    on.goTo(9)
    acts.setLoop('to')
    expect(get(shot.document!.takes, FIRST.take).loop).toEqual({ from: 4, to: 10 })
    on.goTo(2)
    acts.setLoop('to')
    expect(get(shot.document!.takes, FIRST.take).loop).toEqual({ from: 2, to: 3 })
  })

  test('clear keeps the sheet, remove moves up what follows', () => {
    const { shot, acts, column } = desk()
    acts.clear()
    expect([column(), Object.keys(shot.drawing('d1')?.elements ?? { x: 1 })]).toEqual(['1×2 3×4 -×6 / 12', []])
    acts.remove()
    expect(column()).toBe('3×4 -×6 / 10')
  })
})

describe('acts on strokes', () => {
  test('nudges are one step; arrows move what is gathered and nothing else', () => {
    const { shot, on, acts } = desk()
    on.gathered = new Set(['e1'])
    for (let i = 0; i < 5; i++) acts.arrow(1, 0, false)
    acts.arrow(0, 1, true)
    expect(get(shot.drawing('d1')!.elements, 'e1').matrix).toEqual([1, 0, 0, 1, 5, 10])
    expect([on.frame, shot.history.undo.length]).toEqual([0, 1])
    shot.undo()
    expect(get(shot.drawing('d1')!.elements, 'e1').matrix).toBeNull()
  })

  test('delete takes off what is gathered, and else the whole drawing’s lines', () => {
    const { shot, on, acts } = desk()
    on.gathered = new Set(['e1', 'gone'])
    acts.deleteStrokes()
    expect([on.gathered.size, Object.keys(shot.drawing('d1')!.elements)]).toEqual([0, []])
    on.goTo(3)
    acts.deleteStrokes()
    expect(Object.keys(shot.drawing('d3')!.elements)).toEqual([])
  })

  test('the role goes round, and thickness stays within its bounds', () => {
    const { on, acts } = desk()
    const roles = [1, 2, 3].map(() => (acts.nextRole(), on.drawing?.role))
    expect(roles).toEqual(['breakdown', 'inbetween', 'key'])
    for (let i = 0; i < 60; i++) acts.thicken(1.2)
    expect(on.widths[on.tool]).toBe(160)
    for (let i = 0; i < 90; i++) acts.thicken(0.8)
    expect(on.widths[on.tool]).toBe(1)
  })
})

describe('looking', () => {
  test('flipping shows a neighbour instead, rolling goes at most four away, letting go comes back', () => {
    const { on, acts } = desk()
    acts.flip(1)
    expect(on.flippedTo).toBe('d3')
    acts.letGo()
    acts.rollBy(9)
    expect(on.flippedTo).toBe('d3')
    acts.rollBy(0)
    expect(on.flippedTo).toBeNull()
    acts.flip(-1)
    expect(on.flippedTo).toBeNull()
  })

  test('what a change made by another desk refuses is told in one line', () => {
    const { shot } = desk()
    const refusal = shot.commit('paint', [{ kind: 'elements.remove', drawing: 'd1', ids: ['none'] }])
    expect(refusal).toEqual({ code: 'unknown-element', what: 'none' })
    expect(shot.notice).toBe('That cannot be done: that stroke is gone.')
  })
})
