import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { map } from '../geometry/matrix.ts'
import { distance } from '../geometry/point.ts'
import type { Moments } from '../raster/moments.ts'
import { bodyMap } from './carry.ts'

const body = (x: number, y: number, a: number, b: number, tiltRad = 0): Moments => ({
  area: Math.PI * a * b,
  centroid: { x, y },
  halfAxes: [a, b],
  tiltRad,
})
const n = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const anyBody = fc
  .record({ x: n(-500, 500), y: n(-500, 500), a: n(10, 200), flat: n(0.2, 1), tilt: n(-1.5, 1.5) })
  .map(({ x, y, a, flat, tilt }) => body(x, y, a, a * flat, tilt))

test('by hand: a ball that is squashed to twice as wide and half as high carries its top down and its side out', () => {
  const squashed = bodyMap(body(100, 100, 20, 20), body(300, 120, 40, 10))!
  const at = (x: number, y: number) => {
    const place = map(squashed, { x, y })
    return [Math.round(place.x * 1000) / 1000, Math.round(place.y * 1000) / 1000]
  }
  expect(at(100, 100)).toEqual([300, 120])
  expect(at(100, 80)).toEqual([300, 110])
  expect(at(120, 100)).toEqual([340, 120])
})

test('shifted alone all goes along as it is, whatever the body; what is nothing carries nothing', () => {
  fc.assert(
    fc.property(anyBody, n(-300, 300), n(-300, 300), (one, dx, dy) => {
      const { x, y } = one.centroid!
      const moved = bodyMap(one, { ...one, centroid: { x: x + dx, y: y + dy } })!
      const place = map(moved, { x: x + 17, y: y - 5 })
      expect(place.x).toBeCloseTo(x + 17 + dx, 4)
      expect(place.y).toBeCloseTo(y - 5 + dy, 4)
    }),
  )
  expect(bodyMap({ ...body(0, 0, 5, 5), centroid: null }, body(0, 0, 5, 5))).toBeNull()
  expect(bodyMap(body(0, 0, 5, 0), body(0, 0, 5, 5))).toBeNull()
})

test('there and back again is where it was, and the ellipse of one becomes that of the other', () => {
  fc.assert(
    fc.property(anyBody, anyBody, n(0, 6.28), (one, other, turn) => {
      const [there, back] = [bodyMap(one, other)!, bodyMap(other, one)!]
      const { x, y } = one.centroid!
      const [cos, sin] = [Math.cos(one.tiltRad), Math.sin(one.tiltRad)]
      const [u, v] = [one.halfAxes[0] * Math.cos(turn), one.halfAxes[1] * Math.sin(turn)]
      const rim = { x: x + u * cos - v * sin, y: y + u * sin + v * cos }
      const seen = map(there, rim)
      const again = map(back, seen)
      expect(distance(again, rim)).toBeLessThan(1e-5 * (1 + one.halfAxes[0]))
      const [dx, dy] = [seen.x - other.centroid!.x, seen.y - other.centroid!.y]
      const [c2, s2] = [Math.cos(other.tiltRad), Math.sin(other.tiltRad)]
      const [p, q] = [(dx * c2 + dy * s2) / other.halfAxes[0], (dy * c2 - dx * s2) / other.halfAxes[1]]
      expect(p * p + q * q).toBeCloseTo(1, 4)
    }),
  )
})
