import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { fractionLabel } from '@unhurried/core/chart'
import { applyBatch, FIRST, freshDocument, openReplica, type Operation } from '@unhurried/core/document'
import { createPinia, setActivePinia } from 'pinia'
import { markRaw, nextTick } from 'vue'

const kept = new Map<string, string>()
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (k: string, v: string) => void kept.set(k, v),
}
Object.assign(globalThis, { localStorage: storage, sessionStorage: storage })
jest.unstable_mockModule('../local/copies.ts', () => ({
  keepEntries: async () => undefined,
  keepCopy: async () => undefined,
  copyOf: async () => undefined,
  copies: async () => [],
  forgetCopies: async () => undefined,
}))
jest.unstable_mockModule('../local/media.ts', () => ({
  keepMedia: async () => undefined,
  mediaHere: async () => undefined,
  unsentMedia: async () => [],
  mediaSent: async () => undefined,
  dropMedia: async () => undefined,
}))
jest.unstable_mockModule('../local/database.ts', () => ({
  keep: () => Promise.resolve(),
  forget: () => Promise.resolve(),
  keepHistory: () => Promise.resolve(),
  readHistory: () => Promise.resolve(undefined),
  leftover: () => Promise.resolve({ batches: [], samples: new Map() }),
}))
const { useShot } = await import('./shot.ts')
const { useDesk } = await import('./desk.ts')
const { useChart } = await import('./chart.ts')

const L = FIRST.drawn

/** A desk on the first of three keys, eight frames each; the last pair is five frames. */
function rail() {
  setActivePinia(createPinia())
  const [shot, desk] = [useShot(), useDesk()]
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 24)
  const result = applyBatch(fresh, [
    { kind: 'mark.add', mark: { id: 'jaw', layer: L, name: 'jaw', order: 1, kind: 'point' } },
    ...['A', 'B', 'C'].map((id, i): Operation => ({
      kind: 'drawing.add',
      drawing: { id, layer: L, number: [1, 9, 14][i] as number, role: 'key', elements: {}, marks: {} },
    })),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: L,
      from: 0,
      runs: [
        { drawing: 'A', frames: 8 },
        { drawing: 'B', frames: 5 },
        { drawing: 'C', frames: 11 },
      ],
    },
  ])
  if (!result.ok) throw new Error(result.refusal.code)
  shot.replica = markRaw(openReplica(0, result.document))
  shot.role = 'owner'
  desk.reset(0)
  const chart = useChart()
  return { shot, desk, chart, ticks: () => chart.ticks.map(tick => fractionLabel(tick.at)).join(' ') }
}

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

describe('the chart on the rail', () => {
  test('is prepared before it is made, and then every change of it is a step', async () => {
    const { shot, chart, ticks } = rail()
    chart.choose('slow-in')
    expect([ticks(), chart.chart, shot.history.undo.length]).toEqual(['1/2 3/4 7/8', null, 0])
    chart.make()
    expect([ticks(), chart.unmade, shot.history.undo.length]).toEqual(['1/2 3/4 7/8', false, 1])
    chart.choose('even')
    expect([ticks(), chart.chart?.wish.ease]).toEqual(['1/4 1/2 3/4', 'even'])
    chart.respace({ wish: { ...chart.wish, ease: 'slow-out', strength: 1 } })
    expect(ticks()).toBe('1/8 1/4 1/2')
    shot.undo()
    await nextTick()
    expect([ticks(), chart.wish.ease]).toEqual(['1/4 1/2 3/4', 'even'])
  })

  test('a tick is dragged, added, and taken off; a blank drawing goes with its tick', () => {
    const { shot, chart, ticks } = rail()
    chart.choose('slow-in')
    chart.make()
    chart.dragTick(2, 0.28)
    expect([ticks(), chart.wish.ease]).toEqual(['1/4 1/2 3/4', 'hand'])
    chart.addTick(0.87)
    expect([ticks(), chart.unmade]).toEqual(['1/4 1/2 3/4 7/8', true])
    chart.removeTick(3)
    expect(ticks()).toBe('1/4 1/2 3/4')
    const before = Object.keys(shot.document?.drawings ?? {}).length
    chart.removeTick(0)
    expect(ticks()).toBe('1/2 3/4')
    expect(Object.keys(shot.document?.drawings ?? {})).toHaveLength(before)
    // By hand again: another number of inbetweens is even.
    chart.respace({ count: 3 })
    expect(ticks()).toBe('1/4 1/2 3/4')
  })

  test('copied to another pair of keys it keeps its wish and its number', () => {
    const { desk, chart, ticks } = rail()
    chart.choose('overshoot')
    chart.make()
    chart.copy()
    desk.goTo(desk.keys?.toFrame ?? 0)
    expect(chart.chart).toBeNull()
    chart.lay()
    expect([ticks(), chart.wish.ease]).toEqual(['1/4 1/2 5/4', 'overshoot'])
  })

  test('a part has a spacing of its own until it is let go, and the drawings keep theirs', () => {
    const { desk, chart, ticks } = rail()
    chart.choose('even')
    chart.make()
    expect(chart.canOwn).toBe(true)
    desk.part = 'jaw'
    chart.setOwn(true)
    chart.choose('slow-out')
    expect([ticks(), chart.own?.part, chart.main?.wish.ease]).toEqual(['1/8 1/4 1/2', 'jaw', 'even'])
    expect(chart.unmade).toBe(false)
    chart.setOwn(false)
    expect([chart.own, ticks()]).toEqual([null, '1/4 1/2 3/4'])
  })

  test('an odd gap offers whole frames, and moving the key makes it even', () => {
    const { shot, desk, chart } = rail()
    desk.goTo(8)
    chart.respace({ count: 1 })
    expect(chart.gap).toMatchObject({ wished: 10.5, nearest: [10, 11] })
    const later = chart.gap?.moves.find(move => move.key === 'to' && move.frame === 14)
    if (!later) throw new Error('the later key is not offered')
    chart.moveTo(later)
    expect([chart.gap, shot.take?.columns[L]?.map(run => run.frames)]).toEqual([null, [8, 6, 10]])
  })

  test('fewer inbetweens than are drawn is told and changes nothing', () => {
    const { shot, chart, ticks } = rail()
    chart.choose('even')
    chart.make()
    for (const tick of chart.ticks) {
      const element = {
        id: `e-${tick.drawing}`,
        kind: 'line',
        z: 1,
        samples: 's',
        part: null,
        nib: { look: 'ink', ends: 'round', thinning: 0.62 },
        label: null,
        matrix: null,
      } as const
      const elements = [{ ...element, swatch: 'graphite', width: 4 }]
      shot.commit('line', [{ kind: 'elements.add', drawing: tick.drawing ?? '', elements }])
    }
    chart.respace({ count: 1 })
    expect(shot.notice).toBe('3 drawings between these keys are drawn already; ask for at least as many.')
    expect([ticks(), chart.count]).toEqual(['1/4 1/2 3/4', 3])
    // A drawn one can be taken off the chart all the same; it stays on the sheet.
    chart.removeTick(1)
    expect([ticks(), shot.take?.columns[L]?.length]).toEqual(['1/2 3/4', 6])
  })
})
