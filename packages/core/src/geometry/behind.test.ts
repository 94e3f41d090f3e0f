import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { endedAtEdge, leftBefore, placeStroke, type Point, type Sample } from './index.ts'

const line = (...xy: (readonly [number, number])[]) => {
  const samples: Sample[] = xy.map(([x, y]) => ({ x, y, pressure: 0.5 }))
  return placeStroke(samples, 'line', 4, null, null)
}
/** From x to x at a height, a sample every 10 px. */
const level = (from: number, to: number, y: number) =>
  line(...Array.from({ length: (to - from) / 10 + 1 }, (_, i) => [from + 10 * i, y] as const))
/** A square from 100 to 200, its edge a place every 10 px. */
const square: Point[] = (['x', 'y'] as const).flatMap((_, k) =>
  [0, 1].flatMap(far =>
    Array.from({ length: 10 }, (__, i) => {
      const along = 100 + 10 * i
      if (k === 0) return far === 0 ? { x: along, y: 100 } : { x: 200, y: along }
      return far === 0 ? { x: 300 - along, y: 200 } : { x: 100, y: 300 - along }
    }),
  ),
)

test('a line that runs through a part is left on both sides of it, and ends under its edge', () => {
  // 55 to 255 in 21 samples: 105 to 195 are those from 5 to 14.
  expect(leftBefore(square, level(55, 255, 151))).toEqual([
    [0, 5],
    [14, 20],
  ])
  expect(leftBefore(square, level(55, 155, 151))).toEqual([[0, 5]])
  expect(leftBefore(square, level(155, 255, 151))).toEqual([[4, 10]])
})

test('what is drawn on the part, runs along its edge, or lies beside it stays', () => {
  expect(leftBefore(square, level(120, 180, 151))).toBeNull()
  expect(leftBefore(square, level(50, 90, 151))).toBeNull()
  expect(leftBefore(square, level(80, 210, 102))).toBeNull()
  // Its own outline may lie a little within it.
  expect(leftBefore(square, level(80, 210, 104))).toBeNull()
  // A long line of which a part runs along the edge, and a little in and out of it.
  expect(leftBefore(square, level(-300, 210, 101))).toBeNull()
  expect(leftBefore(square.slice(0, 2), level(50, 250, 151))).toBeNull()
  expect(leftBefore(square, line([150, 150]))).toBeNull()
})

test('what is left lies outside but for the ends that go under the edge, in order, and whatever lies outside is left', () => {
  // Never just on the edge.
  const odd = fc.integer({ min: 0, max: 149 }).map(n => 2 * n + 1)
  const place = fc.record({ x: odd, y: odd })
  const isIn = ({ x, y }: Point) => x > 100 && x < 200 && y > 100 && y < 200
  fc.assert(
    fc.property(fc.array(place, { minLength: 2, maxLength: 30 }), places => {
      const stroke = line(...places.map(({ x, y }) => [x, y] as const))
      const left = leftBefore(square, stroke)
      if (!left) return
      const kept = new Set(left.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i)))
      places.forEach((at, i) => {
        const isAlone = !kept.has(i) && isIn(at) === false
        // One sample between two that are cut is no line any more.
        if (isAlone) expect([places[i - 1], places[i + 1]].every(other => !other || isIn(other))).toBe(true)
      })
      left.slice(1).forEach(([from], i) => expect(from).toBeGreaterThanOrEqual(left[i]![1]))
      for (const [from, to] of left) {
        expect(to).toBeGreaterThan(from)
        // What is left is left: nothing of it is cut once more.
        expect(leftBefore(square, { ...stroke, samples: stroke.samples.slice(from, to + 1) })).toBeNull()
      }
    }),
  )
})

test('a piece that goes under the edge ends on it, with the pressure there; one that does not ends where it did', () => {
  const sample = (x: number, pressure: number): Sample => ({ x, y: 150, pressure })
  const [first, , last] = endedAtEdge([square], [sample(40, 0.2), sample(80, 0.4), sample(120, 0.8)])
  expect(first).toEqual(sample(40, 0.2))
  // Half-way between 80 and 120.
  expect(last?.x).toBeCloseTo(100, 1)
  expect(last?.pressure).toBeCloseTo(0.6, 2)
  expect(endedAtEdge([square], [sample(180, 0.5), sample(260, 0.5)])[0]?.x).toBeCloseTo(200, 0)
  const inside = [sample(120, 0.5), sample(130, 0.5)]
  expect(endedAtEdge([square], inside)).toEqual(inside)
  expect(endedAtEdge([square], [])).toEqual([])
})
