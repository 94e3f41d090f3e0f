import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance, type Point } from '../geometry/point.ts'
import { map, translation, type Matrix } from '../geometry/matrix.ts'
import { inkAlong, proposePlace } from './proposals.ts'

/** A nose: a bow with a notch, about (0, 0), turned and laid somewhere; with a line far off that is none of its business. */
function face(at: Point, turnDeg = 0): Point[] {
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)]
  const own = [
    ...Array.from({ length: 60 }, (_, i) => ({ x: i - 60, y: -0.4 * (i - 60) - 4 })),
    ...Array.from({ length: 60 }, (_, i) => ({ x: -i, y: 0.9 * i + 3 })),
    ...Array.from({ length: 12 }, (_, i) => ({ x: -20 - i, y: -6 })),
  ]
  const far = Array.from({ length: 80 }, (_, i) => ({ x: at.x + 200, y: at.y - 40 + i }))
  return [...own.map(({ x, y }) => ({ x: at.x + x * cos - y * sin, y: at.y + x * sin + y * cos })), ...far]
}
const beside = (at: Point, turnDeg = 0) => ({ at, ink: face(at, turnDeg) })
const REACH = 64

describe('the place of a mark, proposed from the drawings beside it', () => {
  test('is where the shape around it is found again, also where that is not half-way between them', () => {
    const at = { x: 330, y: 214 }
    const found = proposePlace(
      { before: beside({ x: 300, y: 200 }), after: beside({ x: 340, y: 200 }), share: 0.5 },
      face(at),
      REACH,
    )!
    expect(found.isFound).toBe(true)
    expect(distance(found.at, at)).toBeLessThan(5)
  })

  test('turned a little it is found as well; one neighbour is enough', () => {
    const at = { x: 312, y: 190 }
    const found = proposePlace({ before: beside({ x: 300, y: 200 }), after: null, share: 0 }, face(at, 12), REACH)!
    expect(found.isFound).toBe(true)
    expect(distance(found.at, at)).toBeLessThan(7)
  })

  test('it is looked for where it would be if it had moved as its body has', () => {
    const before = { ...beside({ x: 300, y: 200 }), carried: translation(200, 60) }
    const at = { x: 506, y: 252 }
    const found = proposePlace({ before, after: null, share: 0 }, face(at), REACH)!
    expect(found.isFound).toBe(true)
    expect(distance(found.at, at)).toBeLessThan(5)
  })

  test('squashed and stretched with its body it is found as well, where as it was it is not', () => {
    const squash: Matrix = [1.5, 0, 0, 0.62, 60, 70]
    const place = { x: 300, y: 200 }
    const ink = face(place).map(p => map(squash, p))
    const found = (carried: Matrix | null) =>
      proposePlace({ before: { ...beside(place), carried }, after: null, share: 0 }, ink, REACH)!
    const there = map(squash, place)
    expect(found(squash).isFound).toBe(true)
    expect(distance(found(squash).at, there)).toBeLessThan(5)
    expect(found(translation(there.x - place.x, there.y - place.y)).isFound).toBe(false)
  })

  test('where nothing is like it, it lies between its neighbours, and that is said', () => {
    const other = Array.from({ length: 90 }, (_, i) => ({ x: 260 + i, y: 240 + 20 * Math.sin(i) }))
    const between = proposePlace(
      { before: beside({ x: 300, y: 200 }), after: beside({ x: 340, y: 240 }), share: 0.25 },
      other,
      REACH,
    )
    expect(between).toEqual({ at: { x: 310, y: 210 }, isFound: false })
    expect(proposePlace({ before: null, after: null, share: 0 }, other, REACH)).toBeNull()
    // What lies very far off is none of its business either.
    const far = [...other, ...Array.from({ length: 200 }, (_, i) => ({ x: 99_000 - i, y: 98_000 }))]
    expect(proposePlace({ before: beside({ x: 300, y: 200 }), after: null, share: 0 }, far, REACH)?.isFound).toBe(false)
    // A scribble has something near everything, and is no nose.
    const scribble = Array.from({ length: 1600 }, (_, i) => ({
      x: 240 + 4 * (i % 40),
      y: 140 + 4 * Math.floor(i / 40),
    }))
    expect(proposePlace({ before: beside({ x: 300, y: 200 }), after: null, share: 0 }, scribble, REACH)?.isFound).toBe(
      false,
    )
    const blank = proposePlace({ before: beside({ x: 300, y: 200 }), after: null, share: 0 }, [], REACH)
    expect(blank).toEqual({ at: { x: 300, y: 200 }, isFound: false })
  })

  test('all of it moved, the proposal is moved with it', () => {
    const shift = fc.integer({ min: -400, max: 400 })
    fc.assert(
      fc.property(shift, shift, (x, y) => {
        const by = (p: Point) => ({ x: p.x + x, y: p.y + y })
        const on = (move: (p: Point) => Point) =>
          proposePlace(
            {
              before: { at: move({ x: 300, y: 200 }), ink: face({ x: 300, y: 200 }).map(move) },
              after: null,
              share: 0,
            },
            face({ x: 316, y: 208 }).map(move),
            REACH,
          )!
        const [here, there] = [on(p => p), on(by)]
        expect(distance(by(here.at), there.at)).toBeLessThan(1e-6)
      }),
      { numRuns: 20 },
    )
  })
})

test('a straight line of two places is as much ink as it is long', () => {
  expect(inkAlong([], 3)).toEqual([])
  expect(inkAlong([{ x: 1, y: 2 }], 3)).toEqual([{ x: 1, y: 2 }])
  const line = [
    { x: 0, y: 0 },
    { x: 7, y: 0 },
    { x: 7, y: 2 },
  ]
  expect(inkAlong(line, 3).map(({ x, y }) => [Math.round(100 * x) / 100, y])).toEqual([
    [0, 0],
    [2.33, 0],
    [4.67, 0],
    [7, 0],
    [7, 2],
  ])
})
