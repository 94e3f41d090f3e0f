import { describe, expect, test } from '@jest/globals'
import { freshGuide } from '../document/acts/guides.ts'
import { layGuide } from '../document/acts/layGuide.ts'
import { FIRST, freshDocument } from '../document/model/fresh.ts'
import type { MarkPlace, ShotDocument } from '../document/model/model.ts'
import { applyBatch, type Operation } from '../document/operations/index.ts'
import { get } from '../document/model/table.ts'
import { currentTake } from '../document/model/selectors.ts'
import { evenKey, restingPath, type LayerPath } from '../path/path.ts'
import { sampleDocument } from '../document/tests/sample.ts'
import type { Standing } from './ground.ts'
import { groundFor, groundsOn, plantedMarks, slips } from './planted.ts'

const down = (x: number, y = 100): MarkPlace => ({ x, y, planted: true })
const up = (x: number, y = 60): MarkPlace => ({ x, y, planted: false })

/** The sample shot (a, b, c on fours) with a heel on its three drawings. */
function withHeel(places: readonly (MarkPlace | null)[]): ShotDocument {
  const ops: Operation[] = [
    { kind: 'mark.add', mark: { id: 'heel', layer: FIRST.drawn, name: 'heel', order: 1, kind: 'point' } },
    ...['a', 'b', 'c'].map((drawing, i): Operation => ({
      kind: 'marks.place',
      drawing,
      places: { heel: places[i] ?? null },
    })),
  ]
  const result = applyBatch(sampleDocument(), ops)
  if (!result.ok) throw new Error(result.refusal.code)
  return result.document
}

const read = (places: readonly (MarkPlace | null)[], loop: { from: number; to: number } | null = null) => {
  const document = withHeel(places)
  return plantedMarks(document, currentTake(document), FIRST.drawn, loop)
}

const isOff = (one: Parameters<typeof slips>[1]) => slips(sampleDocument(), one)

describe('planted marks', () => {
  test('are held against where they were set down, not against the drawing before', () => {
    const found = read([down(100), down(103), down(106)])
    // 3 and 6 px from where it was set down, though every step is 3 px.
    expect(found.map(one => [one.drawing, one.frame, one.from, one.offPx])).toEqual([
      ['a', 0, 'a', 0],
      ['b', 4, 'a', 3],
      ['c', 8, 'a', 6],
    ])
    expect(found.map(isOff)).toEqual([false, true, true])
  })

  test('may lie off by what nobody sees', () => {
    expect(read([down(100), down(102), down(99)]).map(isOff)).toEqual([false, false, false])
  })

  test('begin anew where they are set down again, and say nothing while they are lifted or not placed', () => {
    expect(read([down(100), up(150), down(200)]).map(one => [one.drawing, one.from, one.offPx])).toEqual([
      ['a', 'a', 0],
      ['c', 'c', 0],
    ])
    expect(read([down(100), null, down(200)]).map(one => one.from)).toEqual(['a', 'c'])
  })

  test('go on over the seam of a loop, when it is gone round', () => {
    const places = [down(105), up(150), down(100)]
    expect(read(places).map(one => one.offPx)).toEqual([0, 0])
    const round = read(places, { from: 0, to: 12 })
    expect(round.map(one => [one.drawing, one.from, one.offPx])).toEqual([
      ['c', 'c', 0],
      ['a', 'c', 5],
    ])
    // 640 px wide: from 64 px on it is a cut back, as from one pad to the other.
    expect(read([down(165), up(150), down(100)], { from: 0, to: 12 }).map(one => one.offPx)).toEqual([0, 0])
    expect(read([down(163), up(150), down(100)], { from: 0, to: 12 }).map(one => one.offPx)).toEqual([0, 63])
    // Planted all the way round: the first of the loop is what the others are held against.
    expect(read([down(100), down(100), down(104)], { from: 0, to: 12 }).map(one => one.from)).toEqual(['a', 'a', 'a'])
    // What starts outside the loop does not count.
    expect(read([down(100), down(110), down(120)], { from: 4, to: 12 }).map(one => one.offPx)).toEqual([0, 10])
  })

  test('on ground that passes they have to go along: laid from a walk nothing slips; moved by five pixels, it does by five', () => {
    const start = freshDocument({ width: 1280, height: 720, fps: 24, paper: '#fdfaf3' }, 64)
    const where = { take: FIRST.take, layer: FIRST.drawn, from: 4 }
    const done = applyBatch(start, freshGuide(start, 'walk', where, 'walk'))
    if (!done.ok) throw new Error(done.refusal.what)
    let n = 0
    const walk = get(done.document.guides, 'walk')
    const step = layGuide(done.document, currentTake(done.document), walk, () => `n${++n}`, 'stay')
    if (!step.ok) throw new Error(step.code)
    const laid = applyBatch(done.document, step.ops)
    if (!laid.ok) throw new Error(laid.refusal.what)
    const take = currentTake(laid.document)
    for (const loop of [null, take.loop]) {
      const found = plantedMarks(laid.document, take, FIRST.drawn, loop)
      expect(found.length).toBeGreaterThan(8)
      expect(Math.max(...found.map(one => one.offPx))).toBeLessThan(0.2)
    }
    // The far foot was set down half a round earlier, and goes on over the seam.
    const far = Object.values(laid.document.marks).find(one => one.name === 'far ball')
    const overSeam = plantedMarks(laid.document, take, FIRST.drawn, take.loop).find(
      one => one.mark === far?.id && one.frame === 4,
    )
    expect(get(laid.document.drawings, overSeam?.from ?? '').number).toBe(4 + 8 + 1)
    // In the second round of the cycle as in the first, over the seam too.
    const drawing = get(laid.document.drawings, plantedMarks(laid.document, take, FIRST.drawn, null)[2]?.drawing ?? '')
    const [mark, place] = Object.entries(drawing.marks).find(([, one]) => one.planted) as [string, MarkPlace]
    const moved = applyBatch(laid.document, [
      { kind: 'marks.place', drawing: drawing.id, places: { [mark]: { ...place, x: place.x + 5 } } },
    ])
    if (!moved.ok) throw new Error(moved.refusal.what)
    const slipping = plantedMarks(moved.document, take, FIRST.drawn, null).filter(one => slips(moved.document, one))
    expect(slipping.length).toBeGreaterThan(0)
    for (const one of slipping) expect([one.drawing, Math.round(one.offPx)]).toEqual([drawing.id, 5])
  })

  test('tell where the next drawing ought to have them', () => {
    const found = read([down(100), down(103), null])
    const passing = (ground: (frame: number) => number): Standing => {
      return (at, set, now) => ({ x: at.x + ground(now) - ground(set), y: at.y })
    }
    const still = passing(() => 0)
    expect(groundFor(found, 'heel', 'b', 12, still)).toEqual({ x: 100, y: 100 })
    expect(groundFor(found, 'heel', 'c', 12, still)).toBeNull()
    expect(groundFor(found, 'toes', 'b', 12, still)).toBeNull()
    // b lies on frames 4–7; by frame 8 the ground went on for four frames.
    expect(
      groundFor(
        found,
        'heel',
        'b',
        8,
        passing(frame => -3 * frame),
      ),
    ).toEqual({ x: 88, y: 100 })
  })

  test('on a drawing: what is planted there, and what is planted on the one before and has no place yet', () => {
    const document = withHeel([down(100), null, down(104)])
    const take = currentTake(document)
    const planted = plantedMarks(document, take, FIRST.drawn, null)
    const on = (id: string, frame: number) =>
      groundsOn(document, take, get(document.drawings, id), frame, planted).map(({ mark, ...rest }) => [mark.id, rest])
    expect(on('a', 0)).toEqual([['heel', { anchor: { x: 100, y: 100 }, at: { x: 100, y: 100 }, slips: false }]])
    expect(on('b', 5)).toEqual([['heel', { anchor: { x: 100, y: 100 }, at: null, slips: false }]])
    // b lifted it: on c it is set down anew.
    expect(on('c', 9)).toEqual([['heel', { anchor: { x: 104, y: 100 }, at: { x: 104, y: 100 }, slips: false }]])
    const slipping = withHeel([down(100), down(104), up(104)])
    const all = plantedMarks(slipping, take, FIRST.drawn, null)
    const found = groundsOn(slipping, currentTake(slipping), get(slipping.drawings, 'b'), 6, all)
    expect(found.map(one => [one.anchor.x, one.at?.x, one.slips])).toEqual([[100, 104, true]])
    // What lies on a drawing and is not planted there is not asked for.
    expect(groundsOn(slipping, currentTake(slipping), get(slipping.drawings, 'c'), 9, all)).toEqual([])
  })

  test('a layer that moves takes what is planted on it along, and it slips where nothing else does', () => {
    const document = withHeel([down(100), down(100), down(100)])
    const with_ = (layer: string, path: LayerPath) => {
      const done = applyBatch(document, [{ kind: 'path.set', take: document.current, layer, path }])
      if (!done.ok) throw new Error(done.refusal.what)
      return plantedMarks(done.document, currentTake(done.document), FIRST.drawn, null)
    }
    // 1.5 px a frame: on frames 4 and 8 six and twelve away, and it belongs as far back on the drawing.
    const own = with_(FIRST.drawn, { ...restingPath(64, 36), speed: { x: 1.5, y: 0 } })
    expect(own.map(one => [one.drawing, one.offPx, one.anchor.x])).toEqual([
      ['a', 0, 100],
      ['b', 6, 94],
      ['c', 12, 88],
    ])
    // The ground is another layer: what stands on it goes along with that.
    const ground = with_(FIRST.background, { ...restingPath(64, 36), speed: { x: -2, y: 0 }, use: 'ground' })
    expect(ground.map(one => [one.offPx, one.anchor.x])).toEqual([
      [0, 100],
      [8, 92],
      [16, 84],
    ])
    // What is planted on the ground itself goes along with it.
    const itself = with_(FIRST.drawn, { ...restingPath(64, 36), speed: { x: -2, y: 0 }, use: 'ground' })
    expect(itself.map(one => one.offPx)).toEqual([0, 0, 0])
    // One that only moves is no ground.
    const sky = with_(FIRST.background, { ...restingPath(64, 36), speed: { x: -2, y: 0 } })
    expect(sky.map(one => one.offPx)).toEqual([0, 0, 0])
  })

  test('set down later, it is held against where it was seen then', () => {
    const document = withHeel([up(100), down(100), down(100)])
    const path: LayerPath = { ...restingPath(64, 36), speed: { x: 1.5, y: 0 } }
    const done = applyBatch(document, [{ kind: 'path.set', take: document.current, layer: FIRST.drawn, path }])
    if (!done.ok) throw new Error(done.refusal.what)
    const found = plantedMarks(done.document, currentTake(done.document), FIRST.drawn, null)
    // Four frames on since it was set down on frame 4.
    expect(found.map(one => [one.drawing, one.from, one.offPx, one.anchor.x])).toEqual([
      ['b', 'b', 0, 100],
      ['c', 'b', 6, 94],
    ])
  })

  test('a layer that goes along with its ground does not slip; a turned one is read where it is seen', () => {
    const start = withHeel([down(100), down(100), down(100)])
    const path: LayerPath = { ...restingPath(64, 36), speed: { x: -2, y: 0 }, use: 'ground' }
    const turned: LayerPath = {
      ...restingPath(64, 36),
      pivot: { x: 100, y: 0 },
      keys: [0, 4].map((frame, i) => evenKey(frame, 0, 0, i * (Math.PI / 2))),
    }
    const read = (ops: readonly Operation[]) => {
      const done = applyBatch(start, ops)
      if (!done.ok) throw new Error(done.refusal.what)
      return plantedMarks(done.document, currentTake(done.document), FIRST.drawn, null)
    }
    const set = (layer: string, one: LayerPath): Operation => ({
      kind: 'path.set',
      take: start.current,
      layer,
      path: one,
    })
    const along = read([set(FIRST.background, path), set(FIRST.drawn, { ...path, use: 'moves' })])
    expect(along.map(one => one.offPx)).toEqual([0, 0, 0])
    // A quarter turn about (100, 0) brings (100, 100) to (0, 0): a long way off.
    const [, second] = read([set(FIRST.drawn, turned)])
    expect(second?.offPx).toBeCloseTo(100 * Math.SQRT2, 6)
    expect([second?.anchor.x, second?.anchor.y]).toEqual([expect.closeTo(200, 6), expect.closeTo(0, 6)])
  })
})
