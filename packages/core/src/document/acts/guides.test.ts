import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { expectedOf } from '../../motion/table.ts'
import { placed } from '../../time/exposure.ts'
import { valueOf } from '../../chart/halves.ts'
import { carriedOn } from '../model/carried.ts'
import { FIRST, freshDocument, newLayer } from '../model/fresh.ts'
import { guidePlan, guidesOf } from '../model/guides.ts'
import type { Element, Guide, ShotDocument } from '../model/model.ts'
import { columnOf, currentTake, marksOf } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { applyBatch, joinOf, refuse, type Operation } from '../operations/index.ts'
import { changeGuide, copyGuide, freshGuide, moveGuide, removeGuide } from './guides.ts'
import { laidAlready, layGuide, movesAsPlanned, needsSheets } from './layGuide.ts'
import { sampleDrawing } from '../tests/sample.ts'
import { changeRate } from './format.ts'
import { copyTake, removeTake } from './takes.ts'

const L = FIRST.drawn
const fresh = (frames: number) => freshDocument({ width: 1280, height: 720, fps: 24, paper: '#fdfaf3' }, frames)
function after(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
function counter() {
  let n = 0
  return () => `n${++n}`
}
const dropped = (document: ShotDocument, from = 0) =>
  after(document, freshGuide(document, 'bounce', { take: FIRST.take, layer: L, from }, 'acorn'))
const acorn = (document: ShotDocument) => get(document.guides, 'acorn')

describe('guides in the document', () => {
  const document = dropped(fresh(72))

  test.each([
    ['a number out of bounds', { radius: 0 }, 'radius must be a number from 1 to 4000'],
    ['a start in the ground', { y: 700 }, 'y must be above the ground by more than the radius'],
    ['a choice there is not', { school: 'spherical' }, 'school must be flat or round'],
    ['a number that is none', { radius: '12' }, 'radius must be a number from 1 to 4000'],
    ['not a number', { x: Number.NaN }, 'x must be a number from -20000 to 20000'],
    ['a number of another recipe', { stride: 3 }, 'stride is no number of this recipe'],
    ['a name that objects inherit', { constructor: 3 }, 'constructor is no number of this recipe'],
  ])('%s is refused by name', (_what, numbers, what) => {
    const [op] = changeGuide(acorn(document), numbers as Guide['numbers'])
    expect(refuse(document, op as Operation)).toEqual({ code: 'bad-value', what })
  })

  test('a number that is missing, a recipe there is not, a layer or take that is gone', () => {
    const { radius: _, ...lacking } = acorn(document).numbers
    const add = (patch: object): Operation => ({ kind: 'guide.add', guide: { ...acorn(document), id: 'g2', ...patch } })
    expect(refuse(document, add({ numbers: lacking }))?.what).toBe('radius is missing')
    expect(refuse(document, add({ recipe: 'toString' }))?.what).toBe('recipe of a guide')
    expect(refuse(document, add({ layer: 'gone' }))?.code).toBe('unknown-layer')
    expect(refuse(document, add({ take: 'gone' }))?.code).toBe('unknown-take')
    expect(refuse(document, add({ from: -1 }))?.what).toBe('frame of a guide')
    expect(refuse(document, add({}))).toBeNull()
  })

  test('goes with its take: copied along, and taken away before it', () => {
    const copied = after(document, copyTake(document, FIRST.take, 'slow', 'slower', counter()))
    expect(guidesOf(copied, 'slow').map(({ recipe, numbers }) => [recipe, numbers])).toEqual([
      ['bounce', acorn(document).numbers],
    ])
    expect(refuse(copied, { kind: 'take.remove', id: 'slow' })).toEqual({ code: 'still-guided', what: 'slow' })
    const gone = after(copied, removeTake(copied, 'slow'))
    expect([Object.keys(gone.takes), Object.keys(gone.guides)]).toEqual([[FIRST.take], ['acorn']])
  })

  test('keeps its layer from going; hidden, moved and taken away it changes nothing else', () => {
    const moth = after(document, [{ kind: 'layer.add', layer: newLayer('moth', 'moth', 4) }])
    const own = after(moth, freshGuide(moth, 'bounce', { take: FIRST.take, layer: 'moth', from: 3 }, 'g2'))
    expect(refuse(own, { kind: 'layer.remove', id: 'moth' })?.code).toBe('layer-not-empty')
    const moved = after(own, moveGuide('g2', { from: 9, shown: false }))
    expect([get(moved.guides, 'g2').from, get(moved.guides, 'g2').shown]).toEqual([9, false])
    expect({ ...after(moved, removeGuide('g2')), guides: null }).toEqual({ ...moth, guides: null })
  })
})

describe('a guide laid on the sheet', () => {
  test('is sheets with roles at its exposures, charts, marks where they belong, and beats; one step undoes it', () => {
    const document = dropped(fresh(120), 4)
    const plan = guidePlan(document, acorn(document))
    const step = layGuide(document, currentTake(document), acorn(document), counter(), 'stay')
    if (!step.ok) throw new Error(step.code)
    const result = applyBatch(document, step.ops)
    if (!result.ok) throw new Error(result.refusal.what)
    const now = result.document
    const shown = placed(columnOf(currentTake(now), L)).filter(run => run.drawing !== null)
    expect(shown.map(({ start, frames }) => [start - 4, frames])).toEqual(
      plan.exposures.map(({ drawing, frames }) => [plan.drawings[drawing]?.frame, frames]),
    )
    const sheets = shown.map(run => get(now.drawings, run.drawing as string))
    expect(sheets.map(sheet => sheet.role)).toEqual(plan.drawings.map(planned => planned.role))
    expect(sheets.map(sheet => sheet.number)).toEqual(plan.drawings.map(({ frame }) => frame + 5))
    const [centre] = marksOf(now, L)
    expect(centre?.name).toBe('centre')
    expect(sheets[0]?.marks[centre?.id ?? '']).toEqual({ x: 256, y: 144, planted: false })
    expect(Object.values(now.beats).map(beat => beat.frame)).toEqual(plan.beats.map(({ frame }) => frame + 4))
    // A fall from rest: the drawing half-way in time lies a quarter of the way down, to the nearest that halves give.
    const [fall] = Object.values(now.charts)
    const middle = fall?.ticks[(fall.ticks.length - 1) / 2]
    expect(Math.abs((middle ? valueOf(middle.at) : 1) - 0.25)).toBeLessThan(0.07)
    expect(step.frame).toBe(4)
    expect(currentTake(now).length).toBe(120)
    const back = applyBatch(now, result.inverse)
    expect(back.ok && back.document).toEqual(document)
  })

  test('from a frame behind the end of the shot it lies where it begins, with empty frames before it', () => {
    const late = after(dropped(fresh(24)), moveGuide('acorn', { from: 30 }))
    const plan = guidePlan(late, acorn(late))
    const lay = (manner: Parameters<typeof layGuide>[4]) =>
      layGuide(late, currentTake(late), acorn(late), counter(), manner)
    expect(lay('ripple')).toEqual({ ok: false, code: 'no-room', over: 6 + plan.frames })
    const longer = lay({ following: 'ripple', room: 'longer' })
    if (!longer.ok) throw new Error(longer.code)
    const now = after(late, longer.ops)
    const column = columnOf(currentTake(now), L)
    expect([column[0], currentTake(now).length]).toEqual([{ drawing: null, frames: 30 }, 30 + plan.frames])
    expect(Math.min(...Object.values(now.beats).map(beat => beat.frame))).toBe(30 + (plan.beats[0]?.frame ?? 0))
  })

  test('at another rate it begins at the same moment', () => {
    const change = changeRate(dropped(fresh(48), 12), 12, 'seconds')
    if (!change.step.ok) throw new Error(change.step.code)
    expect(acorn(after(dropped(fresh(48), 12), change.step.ops)).from).toBe(6)
  })

  test('what sets the same of one guide can be one step', () => {
    const joins = (numbers: object) => changeGuide(acorn(dropped(fresh(48))), numbers as never).map(joinOf)
    expect(joins({ x: 3 })).toEqual(joins({ x: 4 }))
    expect(joins({ x: 3 })[0]).not.toBeNull()
    expect(moveGuide('acorn', { shown: false }).map(joinOf)).not.toEqual(joins({ x: 3 }))
  })

  test('keeps the length of the shot, and what is drawn there, unless told otherwise', () => {
    const short = dropped(fresh(30))
    const { frames } = guidePlan(short, acorn(short))
    const lay = (document: ShotDocument, manner: Parameters<typeof layGuide>[4]) =>
      layGuide(document, currentTake(document), acorn(document), counter(), manner)
    expect(lay(short, 'ripple')).toEqual({ ok: false, code: 'no-room', over: frames - 30 })
    const longer = lay(short, { following: 'ripple', room: 'longer' })
    expect(longer.ok && currentTake(after(short, longer.ops)).length).toBe(frames)
    const long = dropped(fresh(200))
    const taken = after(long, [
      { kind: 'drawing.add', drawing: { id: 'mine', layer: L, number: 1, role: 'key', elements: {}, marks: {} } },
      { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs: [{ drawing: 'mine', frames: 4 }] },
    ])
    expect(lay(taken, 'ripple')).toEqual({ ok: false, code: 'would-cover', drawings: ['mine'] })
    const over = lay(taken, { following: 'ripple', room: 'cover' })
    if (!over.ok) throw new Error(over.code)
    expect(get(after(taken, over.ops).drawings, 'mine').number).toBe(1)
  })

  test('whatever bounces: what is laid stands where it was planned, and is undone exactly', () => {
    const numbers = fc.record({
      restitution: fc.integer({ min: 0, max: 95 }).map(n => n / 100),
      exposure: fc.integer({ min: 1, max: 4 }),
      forward: fc.integer({ min: -8, max: 8 }),
      contact: fc.constantFrom('squash', 'touch'),
      bounces: fc.option(fc.nat(3), { nil: null }),
    })
    fc.assert(
      fc.property(numbers, fc.nat(20), (some, from) => {
        const start = dropped(fresh(900), from)
        const document = after(start, changeGuide(acorn(start), some))
        const plan = guidePlan(document, acorn(document))
        const step = layGuide(document, currentTake(document), acorn(document), counter(), 'stay')
        if (!step.ok) throw new Error(step.code)
        const result = applyBatch(document, step.ops)
        if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
        const starts = placed(columnOf(currentTake(result.document), L)).filter(run => run.drawing !== null)
        expect(starts.map(run => run.start)).toEqual(plan.drawings.map(({ frame }) => frame + from))
        const back = applyBatch(result.document, result.inverse)
        expect(back.ok && back.document).toEqual(document)
      }),
      { numRuns: 60 },
    )
  })
})

test('a chart that halves and thirds cannot give is left out; the marks say where drawings belong', () => {
  const lay = (recipe: 'turn' | 'bounce') => {
    const start = fresh(200)
    const added = after(start, freshGuide(start, recipe, { take: FIRST.take, layer: L, from: 0 }, 'acorn'))
    const step = layGuide(added, currentTake(added), acorn(added), counter(), 'stay')
    if (!step.ok) throw new Error(step.code)
    return after(added, step.ops)
  }
  expect(guidePlan(lay('turn'), acorn(lay('turn'))).charts).toHaveLength(1)
  expect([Object.keys(lay('turn').charts).length, Object.keys(lay('bounce').charts).length > 1]).toEqual([0, true])
})

test('a guide that follows a mark is worked out anew when the mark is moved', () => {
  const laid = (() => {
    const document = dropped(fresh(200))
    const step = layGuide(document, currentTake(document), acorn(document), counter(), 'stay')
    if (!step.ok) throw new Error(step.code)
    return after(document, step.ops)
  })()
  const [centre] = marksOf(laid, L)
  const added = after(laid, freshGuide(laid, 'chain', { take: FIRST.take, layer: L, from: 0 }, 'strap'))
  const strap = (document: ShotDocument) => get(document.guides, 'strap')
  const hung = after(added, changeGuide(strap(added), { drive: 'mark', follows: centre?.id ?? '' }))
  const rootOf = (document: ShotDocument) => expectedOf('chain', guidePlan(document, strap(document)), 0).marks.root
  expect(rootOf(hung)).toEqual({ x: 256, y: 144 })
  expect(guidePlan(hung, strap(hung))).toBe(guidePlan(hung, strap(hung)))
  const first = Object.values(hung.drawings).find(drawing => drawing.number === 1)!
  const places = { [centre!.id]: { x: 300, y: 90, planted: false } }
  const moved = after(hung, [{ kind: 'marks.place', drawing: first.id, places }])
  expect(rootOf(moved)).toEqual({ x: 300, y: 90 })
})

describe('a guide laid again', () => {
  const stroke = (id: string): Element => ({
    id,
    kind: 'line',
    z: 1,
    samples: 's',
    part: null,
    nib: { look: 'ink', ends: 'round', thinning: 0.62 },
    label: null,
    matrix: null,
    swatch: 'graphite',
    width: 4,
  })
  const lay = (document: ShotDocument, along: 'blank' | 'all' = 'blank') => {
    const step = layGuide(document, currentTake(document), acorn(document), counter(), 'stay', along)
    if (!step.ok) throw new Error(step.code)
    return after(document, step.ops)
  }
  const sheets = (document: ShotDocument) =>
    placed(columnOf(currentTake(document), L)).flatMap(run =>
      run.drawing === null ? [] : get(document.drawings, run.drawing),
    )
  const centreOf = (document: ShotDocument, i: number) => Object.values(sheets(document)[i]?.marks ?? {})[0]
  /** Laid, and its first three sheets drawn. */
  const half = () => {
    const laid = lay(dropped(fresh(200)))
    const ids = sheets(laid).slice(0, 3)
    return after(
      laid,
      ids.map(({ id }): Operation => ({ kind: 'elements.add', drawing: id, elements: [stroke(`s-${id}`)] })),
    )
  }

  test('the same guide laid twice changes nothing', () => {
    const once = lay(dropped(fresh(200)))
    expect(lay(once)).toEqual({ ...once, charts: expect.anything() })
    expect(Object.values(lay(once).charts).map(({ from, to, ticks }) => [from, to, ticks])).toEqual(
      Object.values(once.charts).map(({ from, to, ticks }) => [from, to, ticks]),
    )
  })

  test('what nobody has drawn yet goes along; what was drawn stays as it is, unless all is asked for', () => {
    const drawn = half()
    expect(laidAlready(drawn, acorn(drawn))).toMatchObject({ drawn: 3 })
    const moved = after(drawn, changeGuide(acorn(drawn), { x: 400 }))
    const now = lay(moved)
    expect([centreOf(now, 0)?.x, centreOf(now, 2)?.x]).toEqual([centreOf(drawn, 0)?.x, centreOf(drawn, 2)?.x])
    expect((centreOf(now, 3)?.x ?? 0) - (centreOf(drawn, 3)?.x ?? 0)).toBeCloseTo(144, 1)
    const all = lay(moved, 'all')
    expect((centreOf(all, 0)?.x ?? 0) - (centreOf(drawn, 0)?.x ?? 0)).toBeCloseTo(144, 1)
    expect(sheets(all).map(({ id }) => id)).toEqual(sheets(drawn).map(({ id }) => id))
    expect(Object.keys(get(all.drawings, sheets(all)[0]?.id ?? '').elements)).toHaveLength(1)
  })

  test('shorter, blank sheets go with their beats, and drawn ones are never lost unasked', () => {
    const drawn = half()
    const fewer = after(drawn, changeGuide(acorn(drawn), { bounces: 0 }))
    const now = lay(fewer)
    const plan = guidePlan(now, acorn(now))
    expect(sheets(now)).toHaveLength(plan.drawings.length)
    expect(Object.keys(now.drawings)).toHaveLength(plan.drawings.length)
    expect(Object.values(now.beats)).toHaveLength(1)
    const last = sheets(drawn).at(-1)!
    const kept = after(fewer, [{ kind: 'elements.add', drawing: last.id, elements: [stroke('z')] }])
    const step = layGuide(kept, currentTake(kept), acorn(kept), counter(), 'stay')
    expect(step).toMatchObject({ ok: false, code: 'would-cover' })
    expect(!step.ok && step.code === 'would-cover' && step.drawings.includes(last.id)).toBe(true)
  })

  test('begun elsewhere, its sheets go there', () => {
    const drawn = half()
    const later = lay(after(drawn, moveGuide('acorn', { from: 20 })))
    const first = placed(columnOf(currentTake(later), L)).find(run => run.drawing !== null)
    expect([first?.start, first?.drawing]).toEqual([20, sheets(drawn)[0]?.id])
    expect(Object.values(later.beats).map(beat => beat.frame - 20)).toEqual(
      Object.values(drawn.beats).map(beat => beat.frame),
    )
  })

  test('what loops is linked to the end, and laid again in its pattern', () => {
    const start = fresh(100)
    const walking = after(start, freshGuide(start, 'walk', { take: FIRST.take, layer: L, from: 4 }, 'acorn'))
    const laid = lay(walking)
    const [cycle] = Object.values(currentTake(laid).cycles)
    const plan = guidePlan(walking, acorn(walking))
    expect([cycle?.from, cycle?.to, cycle?.pattern.length]).toEqual([4, null, plan.exposures.length])
    expect(currentTake(laid).loop).toEqual({ from: 4, to: 4 + plan.frames })
    const slower = lay(after(laid, changeGuide(acorn(laid), { step: (acorn(laid).numbers.step as number) + 4 })))
    const [now] = Object.values(currentTake(slower).cycles)
    expect([now?.id, now?.pattern.length, Object.keys(slower.drawings).length]).toEqual([
      cycle?.id,
      plan.exposures.length + 4,
      plan.drawings.length + 4,
    ])
    // The loop that was set by laying follows; one of the animator's own is left alone.
    expect(currentTake(slower).loop).toEqual({ from: 4, to: 4 + plan.frames + 8 })
    const own = after(laid, [{ kind: 'loop.set', take: FIRST.take, loop: { from: 4, to: 30 } }])
    expect(currentTake(lay(own)).loop).toEqual({ from: 4, to: 30 })
    const planted = Object.values(sheets(laid)[0]?.marks ?? {}).filter(mark => mark.planted)
    expect(planted.length).toBeGreaterThan(0)
  })

  test('one that only lets its layer go lays a sheet where nothing is shown, and none where something is', () => {
    const start = fresh(200)
    const where = { take: FIRST.take, layer: FIRST.background, from: 10 }
    const guided = after(start, freshGuide(start, 'scroll', where, 'acorn'))
    const plan = guidePlan(guided, acorn(guided))
    const moved = lay(guided)
    expect(Object.values(moved.drawings)).toHaveLength(1)
    const path = currentTake(moved).paths[FIRST.background]
    expect(path).toEqual({ ...plan.path, keys: [{ ...plan.path?.keys[0], frame: 10 }] })
    expect([
      movesAsPlanned(guided, currentTake(guided), acorn(guided)),
      movesAsPlanned(moved, currentTake(moved), acorn(moved)),
    ]).toEqual([false, true])
    // Laid again with another speed it takes its own sheet along.
    const faster = after(moved, changeGuide(acorn(moved), { speed: -40 }))
    expect(movesAsPlanned(faster, currentTake(faster), acorn(faster))).toBe(false)
    expect(currentTake(lay(faster)).paths[FIRST.background]?.speed).toEqual({ x: -40, y: 0 })
    expect(Object.values(lay(faster).drawings)).toHaveLength(1)
    const drawn = after(start, [
      { kind: 'drawing.add', drawing: { ...sampleDrawing('hill', 1), layer: FIRST.background } },
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: FIRST.background,
        from: 0,
        runs: [{ drawing: 'hill', frames: 200 }],
      },
    ])
    const over = after(drawn, freshGuide(drawn, 'scroll', where, 'acorn'))
    expect([
      needsSheets(guided, currentTake(guided), acorn(guided)),
      needsSheets(over, currentTake(over), acorn(over)),
    ]).toEqual([true, false])
    const goes = lay(over)
    expect([Object.keys(goes.drawings), goes.takes[FIRST.take]?.columns]).toEqual([
      ['hill'],
      over.takes[FIRST.take]?.columns,
    ])
    expect(goes.takes[FIRST.take]?.paths[FIRST.background]?.use).toBe('ground')
  })

  test('its sheet is shown as long as nothing else is, however long a strip takes to pass: nothing has to be asked', () => {
    const where = { take: FIRST.take, layer: FIRST.background, from: 16 }
    const runsOf = (start: ShotDocument) => {
      const guided = after(start, freshGuide(start, 'scroll', where, 'acorn'))
      expect(guidePlan(guided, acorn(guided)).frames).toBeGreaterThan(48)
      const laid = lay(guided)
      const take = currentTake(laid)
      expect([take.length, take.loop, Object.keys(take.cycles)]).toEqual([48, null, []])
      return columnOf(take, FIRST.background).map(run => run.frames)
    }
    expect(runsOf(fresh(48))).toEqual([16, 32])
    const later = after(fresh(48), [
      { kind: 'drawing.add', drawing: { ...sampleDrawing('hill', 1), layer: FIRST.background } },
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: FIRST.background,
        from: 40,
        runs: [{ drawing: 'hill', frames: 8 }],
      },
    ])
    expect(runsOf(later)).toEqual([16, 24, 8])
  })

  test('the ground passes as fast as what walks on the spot in the take', () => {
    const start = fresh(100)
    const walking = after(start, freshGuide(start, 'walk', { take: FIRST.take, layer: L, from: 0 }, 'acorn'))
    const { ground } = guidePlan(walking, acorn(walking))
    expect(ground).toBeLessThan(0)
    const [op] = freshGuide(walking, 'scroll', { take: FIRST.take, layer: FIRST.background, from: 0 }, 'g')
    expect(op?.kind === 'guide.add' && op.guide.numbers.speed).toBe(ground)
  })

  test('a hop on the spot gets a pin with its sheets, which is seen and not sent off', () => {
    const start = fresh(100)
    const guided = after(start, freshGuide(start, 'hop', { take: FIRST.take, layer: L, from: 4 }, 'acorn'))
    const pinned = after(guided, changeGuide(acorn(guided), { pinned: true }))
    expect(currentTake(lay(guided)).paths).toEqual({})
    const laid = lay(pinned)
    const take = currentTake(laid)
    expect([take.paths[L]?.use, take.paths[L]?.keys[0]?.frame]).toEqual(['pin', 4])
    const top = guidePlan(laid, acorn(laid)).drawings.find(drawing => drawing.name === 'top')
    const on = 4 + (top?.frame ?? 0)
    expect(carriedOn(laid, take, L, on)?.[5]).toBeLessThan(-100)
    expect(carriedOn(laid, take, L, on, 'sent off')).toBeNull()
  })

  test('what loops, begun elsewhere, goes there with its loop, and is undone as one', () => {
    const start = fresh(100)
    const laid = lay(after(start, freshGuide(start, 'walk', { take: FIRST.take, layer: L, from: 4 }, 'acorn')))
    for (const from of [0, 12]) {
      const moved = after(laid, moveGuide('acorn', { from }))
      const step = layGuide(moved, currentTake(moved), acorn(moved), counter(), 'stay')
      if (!step.ok) throw new Error(step.code)
      const done = applyBatch(moved, step.ops)
      if (!done.ok) throw new Error(done.refusal.what)
      const take = currentTake(done.document)
      expect([Object.values(take.cycles)[0]?.from, take.loop?.from, columnOf(take, L)[0]?.drawing === null]).toEqual([
        from,
        from,
        from > 0,
      ])
      expect(Object.values(done.document.beats)[0]?.frame).toBe(from)
      const back = applyBatch(done.document, done.inverse)
      expect(back.ok && back.document).toEqual(moved)
    }
  })

  test('a spare sheet that a chart of one’s own, or another take, still has is kept', () => {
    const laid = lay(dropped(fresh(200)))
    const copied = after(laid, copyTake(laid, FIRST.take, 'slow', 'slower', counter()))
    const last = sheets(copied).at(-1)!
    const fewer = after(copied, changeGuide(acorn(copied), { bounces: 0 }))
    const now = lay(fewer)
    expect(sheets(now).some(sheet => sheet.id === last.id)).toBe(false)
    expect(get(now.drawings, last.id)).toEqual(last)
    const [a, b] = [sheets(laid).at(-3)!, sheets(laid).at(-1)!]
    const wish = { ease: 'even', strength: 0.5, thirds: false, points: [] } as const
    const charted = after(laid, [
      { kind: 'mark.add', mark: { id: 'nose', layer: L, name: 'nose', order: 9, kind: 'point' } },
      { kind: 'chart.add', chart: { id: 'own', layer: L, from: a.id, to: b.id, part: 'nose', wish, ticks: [] } },
    ])
    const shorter = lay(after(charted, changeGuide(acorn(charted), { bounces: 0 })))
    expect([Object.keys(shorter.charts).includes('own'), get(shorter.drawings, b.id).id]).toEqual([true, b.id])
  })

  test('a sheet that went to another layer is none of its own any more', () => {
    const laid = lay(dropped(fresh(120)))
    const [first] = sheets(laid)
    const guide = acorn(laid)
    expect(laidAlready(laid, guide)).toMatchObject({ blank: guide.laid.drawings.length, drawn: 0 })
    const strange = { ...guide, layer: FIRST.background }
    expect(laidAlready(laid, strange)).toEqual({ drawings: guide.laid.drawings.map(() => null), blank: 0, drawn: 0 })
    const gone = { ...guide, laid: { ...guide.laid, drawings: ['gone', first!.id] } }
    expect(laidAlready(laid, gone)).toEqual({ drawings: [null, first], blank: 1, drawn: 0 })
  })

  test('begun a little later, it takes its sheets along and leaves the frames before empty', () => {
    const laid = lay(dropped(fresh(120), 4))
    const [start] = sheets(laid)
    const later = lay(after(laid, moveGuide('acorn', { from: 7 })))
    const column = columnOf(currentTake(later), L)
    expect(placed(column).filter(run => run.drawing !== null)[0]).toMatchObject({ drawing: start?.id, start: 7 })
    expect(column[0]).toEqual({ drawing: null, frames: 7 })
    // As far towards the end of the shot as there is room, and beyond it only when asked.
    const plan = guidePlan(laid, acorn(laid))
    const end = after(laid, moveGuide('acorn', { from: 120 - plan.frames }))
    expect(placed(columnOf(currentTake(lay(end)), L)).at(-1)).toMatchObject({ start: expect.any(Number) })
    const over = layGuide(
      after(laid, moveGuide('acorn', { from: 121 - plan.frames })),
      currentTake(laid),
      { ...acorn(laid), from: 121 - plan.frames },
      counter(),
      'ripple',
    )
    expect(over).toMatchObject({ ok: false, code: 'no-room' })
  })

  test('a beat that a key is pinned to is kept when its plan has no more use for it', () => {
    const laid = lay(dropped(fresh(240)))
    const [first] = sheets(laid)
    const last = acorn(laid).laid.beats.at(-1) as string
    const pinned = after(laid, [{ kind: 'pin.set', take: FIRST.take, drawing: first!.id, beat: last }])
    const fewer = lay(after(pinned, changeGuide(acorn(pinned), { bounces: 0 })))
    expect(Object.keys(fewer.beats)).toContain(last)
    expect(acorn(fewer).laid.beats).toContain(last)
    const free = lay(after(laid, changeGuide(acorn(laid), { bounces: 0 })))
    expect(Object.keys(free.beats)).not.toContain(last)
    expect(acorn(free).laid.beats).not.toContain(last)
  })

  test('a copy has nothing laid, and laying it makes sheets of its own', () => {
    const laid = lay(dropped(fresh(300)))
    let made = 0
    const two = after(laid, copyGuide(acorn(laid), 'second', 100))
    expect([get(two.guides, 'second').laid.drawings, get(two.guides, 'second').from]).toEqual([[], 100])
    const step = layGuide(two, currentTake(two), get(two.guides, 'second'), () => `c${++made}`, 'stay')
    expect(step.ok && Object.keys(after(two, step.ops).drawings)).toHaveLength(2 * Object.keys(laid.drawings).length)
  })
})
