import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { flightAt, stretchKeepingArea } from '../motion/index.ts'
import { pointAlong, type MeasuredPath } from '../geometry/index.ts'
import { compareVolume, meetsChart, readWay, wayPath, type WayReading } from './index.ts'

const factor = fc.double({ min: 0.2, max: 4, noNaN: true })
const A = { x: 0, y: 0 }
const B = { x: 400, y: 0 }

describe('volume', () => {
  test('within eight per cent is kept, beyond it is named', () => {
    expect(compareVolume(107, 100)).toEqual({ share: 1.07, verdict: 'kept' })
    expect(compareVolume(109, 100)?.verdict).toBe('grown')
    expect(compareVolume(91, 100)?.verdict).toBe('shrunk')
    expect(compareVolume(0, 100)).toBeNull()
  })

  test('squash and stretch keep what they say they keep', () => {
    fc.assert(
      fc.property(factor, factor, (r, s) => {
        const flat = stretchKeepingArea(r, s)
        expect(flat.along * flat.across).toBeCloseTo(r * r, 8)
      }),
    )
    expect(() => stretchKeepingArea(1, 0)).toThrow('stretch must be a number above 0, not 0')
  })
})

describe('flight', () => {
  test('leaves and lands where it should, highest in the middle', () => {
    expect(flightAt(A, B, 100, 0)).toEqual(A)
    expect(flightAt(A, B, 100, 0.5)).toEqual({ x: 200, y: -100 })
    expect(flightAt(A, B, 100, 1).y).toBeCloseTo(0)
  })
})

describe('reading a chart back', () => {
  test('on a straight way the share is the share of the distance, and ahead is in pixels', () => {
    const [reading] = readWay(A, [{ planned: 0.5, drawn: { x: 188, y: 6 }, leads: false }], B)
    expect(reading).toEqual({ share: 0.47, offPx: 6, aheadPx: expect.closeTo(-12) })
    expect(meetsChart(reading as WayReading, 0.5)).toBe(false)
    expect(meetsChart(reading as WayReading, 0.48)).toBe(true)
  })

  test('through a breakdown the way is the arc, read back within one per cent', () => {
    const places = [0.125, 0.25, 0.5, 0.75, 0.875].map(planned => ({
      planned,
      drawn: flightAt(A, B, 150, planned),
      leads: planned === 0.5,
    }))
    const path = wayPath(A, places, B)
    readWay(A, places, B).forEach((reading, i) => {
      const along = pointAlong(path as MeasuredPath, (reading as WayReading).share)
      expect(along.x).toBeCloseTo(places[i]?.drawn.x as number, 0)
      expect((reading as WayReading).offPx).toBeLessThan(1)
    })
  })

  test('what is not drawn is not read, and without both keys nothing is', () => {
    expect(readWay(A, [{ planned: 0.5, drawn: null, leads: true }], B)).toEqual([null])
    expect(readWay(null, [{ planned: 0.5, drawn: B, leads: true }], B)).toEqual([null])
    expect(readWay(A, [{ planned: 0.5, drawn: B, leads: false }], { x: 0.2, y: 0 })).toEqual([null])
  })
})
