import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  rectangleLine,
  bent,
  distance,
  ellipseLine,
  perimeter,
  pushed,
  snappedTo,
  straightLine,
  type Sample,
} from './index.ts'
import { stretchKeepingVolume } from '../motion/index.ts'

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
/** Area inside a closed path (shoelace). */
const areaOf = (path: readonly Sample[]) =>
  Math.abs(
    path.reduce((sum, p, i) => {
      const q = path[(i + 1) % path.length] as Sample
      return sum + p.x * q.y - q.x * p.y
    }, 0) / 2,
  )

describe('figures', () => {
  test('a straight line lies evenly from end to end', () => {
    const line = straightLine({ x: 0, y: 0 }, { x: 30, y: 40 })
    expect([line.length, line[0], line.at(-1)]).toEqual([
      18,
      { x: 0, y: 0, pressure: 0.5 },
      { x: 30, y: 40, pressure: 0.5 },
    ])
    expect(straightLine({ x: 1, y: 1 }, { x: 1, y: 1 })).toHaveLength(2)
  })

  test('round an ellipse, worked by hand', () => {
    expect(perimeter({ along: 10, across: 10 })).toBeCloseTo(20 * Math.PI, 12)
    // a = 5, b = 3: 25.526998863398…
    expect(perimeter({ along: 5, across: 3 })).toBeCloseTo(25.526999, 5)
  })

  test('an ellipse is closed, keeps its axes and its area at any turn', () => {
    fc.assert(
      fc.property(number(5, 400), number(5, 400), number(-4, 4), (along, across, turnRad) => {
        const line = ellipseLine({ centre: { x: 7, y: -3 }, along, across, turnRad })
        const off = line.map(p => distance(p, { x: 7, y: -3 }))
        expect(Math.max(...off)).toBeLessThanOrEqual(Math.max(along, across) + 1e-6)
        expect(Math.min(...off)).toBeGreaterThanOrEqual(Math.min(along, across) - 1e-6)
        expect(distance(line[0] as Sample, line.at(-2) as Sample)).toBeLessThan(1e-6)
        expect(areaOf(line.slice(0, -2)) / (Math.PI * along * across)).toBeGreaterThan(0.985)
      }),
    )
  })

  test('a line snaps to the nearest direction and keeps its length', () => {
    const to = snappedTo({ x: 10, y: 10 }, { x: 20, y: 11 }, Math.PI / 12)
    expect([to.y, to.x]).toEqual([10, 10 + Math.hypot(10, 1)])
  })

  test('a body keeps its volume', () => {
    const { along, across } = stretchKeepingVolume(10, 1.44)
    expect(along).toBeCloseTo(14.4, 12)
    expect(across).toBeCloseTo(10 / 1.2, 12)
    expect(along * across ** 2).toBeCloseTo(1000, 9)
    expect(() => stretchKeepingVolume(10, 0)).toThrow('stretch')
  })
})

describe('bending and pushing', () => {
  const line = straightLine({ x: 0, y: 0 }, { x: 0, y: -90 }).map((s, i) => ({ ...s, pressure: i / 40 }))

  test('a push takes along what is under the middle, half at half the radius, nothing beyond', () => {
    const after = pushed(line, { x: 0, y: -45 }, { x: 8, y: 0 }, 30)
    expect(after[15]).toEqual({ x: 8, y: -45, pressure: 15 / 40 })
    expect(after[20]?.x).toBeCloseTo(4, 9)
    expect([after[5]?.x, after[30]?.x]).toEqual([0, 0])
    expect(pushed(line, { x: 500, y: 0 }, { x: 8, y: 0 }, 30)).toBe(line)
  })

  test('a bend keeps the root, the length and the weight of a line; a quarter turn at the tip makes a half circle', () => {
    const after = bent(line, { x: 0, y: 0 }, { x: 0, y: -90 }, Math.PI / 2)
    expect(after[0]).toEqual({ x: 0, y: 0, pressure: 0 })
    const length = after.slice(1).reduce((sum, p, i) => sum + distance(after[i] as Sample, p), 0)
    expect(length).toBeCloseTo(90, 0)
    // Half a circle of length 90: its tip lies a diameter, 180/π, beside the root.
    expect(distance(after.at(-1) as Sample, { x: 0, y: 0 })).toBeCloseTo(180 / Math.PI, 1)
    expect(after.map(s => s.pressure)).toEqual(line.map(s => s.pressure))
    expect(bent(line, { x: 0, y: 0 }, { x: 0, y: -90 }, 0)).toEqual(line)
  })

  test('the tip is seen from the root turned by the angle asked for, whatever the angle', () => {
    fc.assert(
      fc.property(number(-1.5, 1.5), angle => {
        const tip = bent(line, { x: 0, y: 0 }, { x: 0, y: -90 }, angle).at(-1) as Sample
        expect(Math.atan2(tip.y, tip.x) - Math.atan2(-1, 0)).toBeCloseTo(angle, 6)
      }),
    )
  })
})

test('a rectangle is closed, meets its corners and runs along its sides', () => {
  const line = rectangleLine({ x: 10, y: 20 }, { x: 110, y: 60 })
  expect([line[0], line[line.length - 1]]).toMatchObject([
    { x: 10, y: 20 },
    { x: 10, y: 20 },
  ])
  for (const corner of [
    { x: 110, y: 20 },
    { x: 110, y: 60 },
    { x: 10, y: 60 },
  ]) {
    expect(line.some(s => s.x === corner.x && s.y === corner.y)).toBe(true)
  }
  expect(line.every(s => s.x === 10 || s.x === 110 || s.y === 20 || s.y === 60)).toBe(true)
})
