import { distance } from '../geometry/point.ts'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { wishTicks, valueOf, shareOf, presetTicks, presetWish, RATIOS } from '../chart/index.ts'
import { applyBatch, currentTake, FIRST, type Operation } from '../document/index.ts'
import { sampleDocument } from '../document/tests/sample.ts'
import {
  INK,
  knottedPath,
  measurePath,
  partOfPath,
  pathLength,
  placeAlong,
  pointAlong,
  smoothPath,
  type Point,
} from '../geometry/index.ts'
import { flightAt } from '../motion/index.ts'
import { shapeOf } from '../raster/shapeOf.ts'
import {
  crossesOn,
  crossOf,
  directionInWords,
  readWay,
  stepSpeeds,
  wayPath,
  worstCorrection,
  type WayPlace,
} from './index.ts'

const A = { x: 0, y: 0 }
const B = { x: 400, y: 0 }

describe('crosses for the next drawing', () => {
  test('with only its two parents a half lies half-way, a third a third of the way', () => {
    const way = [
      { drawing: 'a', at: A },
      { drawing: 'b', at: B },
    ]
    expect(crossOf(way, 'a', 'b', '1/2')).toEqual({ x: 200, y: 0 })
    expect(crossOf(way, 'a', 'b', '1/3')?.x).toBeCloseTo(400 / 3)
    expect(crossOf(way, 'a', 'b', '9/8')).toEqual({ x: 450, y: 0 })
    expect(crossOf(way, 'a', 'gone', '1/2')).toBeNull()
  })

  test('with neighbours it lies on the arc through them, not on the straight line', () => {
    const at = (u: number) => flightAt(A, B, 150, u)
    const way = [0, 0.5, 0.75, 1].map((u, i) => ({ drawing: 'abcd'[i] as string, at: at(u) }))
    const cross = crossOf(way, 'b', 'c', '1/2') as Point
    const straight = { x: 250, y: (at(0.5).y + at(0.75).y) / 2 }
    const onArc = at(cross.x / 400)
    expect(Math.abs(cross.y - onArc.y)).toBeLessThan(4)
    expect(cross.y).toBeLessThan(straight.y - 3)
  })

  test('on any straight way every ratio is that share of the distance', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RATIOS), fc.integer({ min: 5, max: 900 }), (ratio, far) => {
        const way = [
          { drawing: 'a', at: { x: 10, y: 20 } },
          { drawing: 'b', at: { x: 10 + far, y: 20 + far } },
        ]
        const cross = crossOf(way, 'a', 'b', ratio) as Point
        expect(cross.x).toBeCloseTo(10 + far * shareOf(ratio), 6)
      }),
    )
  })

  test('what comes after does not push the half past the way: between 0 and 100 it is 50, though 90 follows', () => {
    const way = [0, 100, 90].map((x, i) => ({ drawing: 'abc'[i] as string, at: { x, y: 0 } }))
    expect(crossOf(way, 'a', 'b', '1/2')?.x).toBeCloseTo(50, 6)
  })

  test('a mark that does not move has its cross where it is', () => {
    const way = ['a', 'b'].map(drawing => ({ drawing, at: A }))
    expect(crossOf(way, 'a', 'b', '1/2')).toEqual(A)
  })
})

describe('paths that turn back', () => {
  const along = (xs: readonly number[]) => xs.map(x => ({ x, y: 7 }))

  test('on a straight line they never leave it, nor run past a point, and are as long as they are walked', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 500 }), { minLength: 1, maxLength: 8 }), xs => {
        const { path, knots } = knottedPath(along(xs))
        const walked = xs.slice(1).reduce((sum, x, i) => sum + Math.abs(x - (xs[i] as number)), 0)
        expect(pathLength(path)).toBeCloseTo(walked, 6)
        expect(knots[knots.length - 1]).toBeCloseTo(walked, 6)
      }),
    )
  })

  test('three points on a parabola along which the way goes on give that parabola', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 400 }), fc.integer({ min: 1, max: 150 }), (far, high) => {
        const there = { x: far, y: 0 }
        const { points } = smoothPath([A, flightAt(A, there, high, 0.5), there])
        const off = (p: Point) => Math.abs(p.y - flightAt(A, there, high, p.x / far).y)
        expect(Math.max(...points.map(off))).toBeLessThan(0.01)
      }),
    )
  })

  test('points doubled at an end leave the way on from it straight', () => {
    const { path } = knottedPath(along([0, 10, 10]))
    const doubled = measurePath(along([0, 0, 10, 10]))
    for (const p of [placeAlong(path, 15), placeAlong(doubled, 15)]) expect(p).toEqual({ x: 15, y: 7 })
    expect(placeAlong(doubled, -5)).toEqual({ x: -5, y: 7 })
  })
})

describe('paths with knots', () => {
  test('pass through their points at the lengths they tell', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.integer({ min: 0, max: 999 }), y: fc.integer({ min: 0, max: 999 }) }), {
          minLength: 1,
          maxLength: 7,
        }),
        points => {
          const { path, knots } = knottedPath(points)
          points.forEach((p, i) => {
            const there = placeAlong(path, knots[i] as number)
            expect(distance(p, there)).toBeLessThan(1e-6)
          })
          expect(pathLength(partOfPath(path, 0, pathLength(path)))).toBeCloseTo(pathLength(path), 6)
        },
      ),
    )
  })
})

/** A pebble of a radius at a place: the outline of a painted shape. */
const pebble = (at: Point, r: number) => [
  {
    kind: 'shape' as const,
    nib: INK,
    width: 1,
    box: { left: at.x - r, top: at.y - r, right: at.x + r, bottom: at.y + r },
    samples: Array.from({ length: 40 }, (_, i) => ({
      x: at.x + r * Math.cos((i * Math.PI) / 20),
      y: at.y + r * Math.sin((i * Math.PI) / 20),
      pressure: 1,
    })),
  },
]

describe('reading a chart back from drawings', () => {
  test('silhouettes along an arc read as their chart within one per cent of the way', () => {
    for (const preset of ['even', 'slow-in', 'both'] as const) {
      const ticks = wishTicks(presetWish(preset), 5)
      const arc = smoothPath([A, { x: 200, y: -150 }, B].map(p => ({ x: p.x + 100, y: p.y + 300 })))
      const centre = (share: number) => shapeOf(pebble(pointAlong(arc, share), 30)).centroid as Point
      const places: WayPlace[] = ticks.map(tick => ({
        planned: valueOf(tick.at),
        drawn: centre(valueOf(tick.at)),
        leads: tick.depth === 0,
      }))
      readWay(centre(0), places, centre(1)).forEach((reading, i) => {
        expect(Math.abs((reading?.share ?? 9) - (places[i]?.planned as number))).toBeLessThan(0.01)
      })
    }
  })

  test('an overshoot is read past the key', () => {
    const places: WayPlace[] = [
      { planned: 0.5, drawn: { x: 200, y: 0 }, leads: true },
      { planned: 1.25, drawn: { x: 470, y: 6 }, leads: true },
    ]
    const [, past] = readWay(A, places, B)
    expect(past).toEqual({ share: expect.closeTo(1.175), offPx: expect.closeTo(6), aheadPx: expect.closeTo(-30) })
  })

  test('the drawing that is most off is named with the way to its place', () => {
    const places: WayPlace[] = [
      { planned: 0.25, drawn: { x: 96, y: 3 }, leads: false },
      { planned: 0.5, drawn: { x: 200, y: 0 }, leads: true },
      { planned: 0.75, drawn: { x: 260, y: -20 }, leads: false },
    ]
    const path = wayPath(A, places, B)
    const worst = path && worstCorrection(path, places)
    expect(worst).toMatchObject({ index: 2, to: { x: 300, y: 0 }, words: '40 px right, 20 px down' })
    expect(path && worstCorrection(path, places.slice(0, 2))).toBeNull()
    expect(directionInWords(A, { x: -3.4, y: -8 })).toBe('3 px left, 8 px up')
    expect(directionInWords(A, { x: 0.2, y: 0.1 })).toBe('less than a pixel')
  })

  test('pixels a frame: 400 px in slow-in steps on twos', () => {
    expect(stepSpeeds(400, [0.5, 0.75, 0.875], [0.5, null, 0.9], [2, 2, 2, 2])).toEqual([
      { frames: 2, plannedPx: 100, drawnPx: 100 },
      { frames: 2, plannedPx: 50, drawnPx: null },
      { frames: 2, plannedPx: 25, drawnPx: null },
      { frames: 2, plannedPx: 25, drawnPx: expect.closeTo(20) },
    ])
  })
})

test('crosses on a drawing: every point of its layer that both parents have, by the chart or by one of its own', () => {
  const layer = FIRST.drawn
  const ticks = presetTicks('even', 1).map(tick => ({ ...tick, drawing: 'b' }))
  const own = presetTicks('favour-a', 1).map(tick => ({ ...tick, drawing: 'b' }))
  const mark = (id: string, kind: 'point' | 'space' = 'point'): Operation => ({
    kind: 'mark.add',
    mark: { id, layer, name: id, order: 1, kind },
  })
  const place = (drawing: string, x: number): Operation => ({
    kind: 'marks.place',
    drawing,
    places: Object.fromEntries(['nose', 'tail', 'gap'].map(id => [id, { x, y: 0, planted: false }])),
  })
  const chart = { layer, from: 'a', to: 'c', part: null, wish: presetWish('even'), ticks }
  const done = applyBatch(sampleDocument(), [
    { kind: 'drawing.set', id: 'b', patch: { role: 'inbetween' } },
    ...[mark('nose'), mark('tail'), mark('gap', 'space'), mark('knee')],
    ...[place('a', 0), place('b', 77), place('c', 60)],
    { kind: 'chart.add', chart: { ...chart, id: 'ac' } },
    { kind: 'chart.add', chart: { ...chart, id: 'tail', part: 'tail', wish: presetWish('favour-a'), ticks: own } },
  ])
  if (!done.ok) throw new Error(done.refusal.what)
  const take = currentTake(done.document)
  // Half-way, and a third of the way; where it lies on the drawing itself has no say.
  expect(crossesOn(done.document, take, done.document.drawings['b']!).map(one => [one.mark.id, one.at.x])).toEqual([
    ['nose', expect.closeTo(30, 6)],
    ['tail', expect.closeTo(20, 6)],
  ])
  // A key has no place on a chart.
  expect(crossesOn(done.document, take, done.document.drawings['a']!)).toEqual([])
})
