import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Moments } from '../raster/index.ts'
import { flightAt, stretchKeepingArea, stretchKeepingVolume, type Axes } from '../motion/index.ts'
import { pointAlong, type MeasuredPath } from '../geometry/index.ts'
import {
  compareVolume,
  meetsChart,
  readWay,
  wayPath,
  worstCorrection,
  type WayPlace,
  type WayReading,
} from './index.ts'

const factor = fc.double({ min: 0.2, max: 4, noNaN: true })
const A = { x: 0, y: 0 }
const B = { x: 400, y: 0 }

describe('volume', () => {
  test('within eight per cent is kept, beyond it is named', () => {
    const disc = (area: number) => ({ area, halfAxes: [1, 1] as const, tiltRad: 0 })
    const flat = (area: number) => compareVolume(disc(area), disc(100))
    expect(flat(107)).toEqual({ share: 1.07, verdict: 'kept' })
    expect(flat(109)?.verdict).toBe('grown')
    expect(flat(91)?.verdict).toBe('shrunk')
    expect(flat(0)).toBeNull()
    expect(compareVolume(disc(300), disc(100), 'off')).toBeNull()
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

describe('the two schools of volume', () => {
  const body = ({ along, across }: Axes, tiltRad = 0): Pick<Moments, 'area' | 'halfAxes' | 'tiltRad'> => ({
    area: Math.PI * along * across,
    halfAxes: along >= across ? [along, across] : [across, along],
    tiltRad: along >= across ? tiltRad : tiltRad + Math.PI / 2,
  })
  const ball = body({ along: 50, across: 50 })

  test('each reads its own stretch and squash as kept, and the other one as not', () => {
    fc.assert(
      fc.property(factor, s => {
        expect(compareVolume(body(stretchKeepingArea(50, s)), ball, 'flat')?.share).toBeCloseTo(1, 9)
        expect(compareVolume(body(stretchKeepingVolume(50, s)), ball, 'round')?.share).toBeCloseTo(1, 9)
      }),
    )
    // Stretched to twice its length the round body shows √2 of the area: no flat shape would.
    expect(compareVolume(body(stretchKeepingVolume(50, 2)), ball, 'flat')).toMatchObject({ verdict: 'grown' })
    expect(compareVolume(body(stretchKeepingArea(50, 2)), ball, 'round')).toMatchObject({ verdict: 'shrunk' })
    expect(compareVolume(body({ along: 60, across: 60 }), ball, 'round')?.share).toBeCloseTo(1.728)
  })

  test('a tall body squashed until it is wide still reads as kept', () => {
    const tall = body({ along: 100, across: 50 })
    const flat = body({ along: 100 * 0.4, across: 50 / Math.sqrt(0.4) })
    expect(compareVolume(flat, tall, 'round')?.share).toBeCloseTo(1, 9)
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
    const [reading] = readWay(A, [{ planned: 0.5, drawn: { x: 180, y: 6 }, leads: false }], B)
    expect(reading).toEqual({ share: 0.45, offPx: 6, aheadPx: expect.closeTo(-20) })
    expect(meetsChart(reading as WayReading, 0.5)).toBe(false)
    // Four per cent of the way.
    expect(meetsChart(reading as WayReading, 0.49)).toBe(true)
    expect(meetsChart(reading as WayReading, 0.491)).toBe(false)
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

  test('a drawing past a key reads past it, before the first one before it', () => {
    const at = (x: number): WayPlace => ({ planned: 0.5, drawn: { x, y: 0 }, leads: false })
    const read = readWay(A, [at(110), at(-30), at(100), at(0)], { x: 100, y: 0 })
    expect(read.map(r => r?.share)).toEqual([1.1, -0.3, 1, 0].map(n => expect.closeTo(n)))
  })

  test('a pixel off is never a miss, however short the way', () => {
    const places: WayPlace[] = [{ planned: 0.5, drawn: { x: 11, y: 0 }, leads: false }]
    const [reading] = readWay(A, places, { x: 20, y: 0 })
    expect(reading?.share).toBeCloseTo(0.55)
    expect(meetsChart(reading as WayReading, 0.5)).toBe(true)
    expect(worstCorrection(wayPath(A, places, { x: 20, y: 0 }) as MeasuredPath, places)).toBeNull()
    const [two] = readWay(A, [{ planned: 0.5, drawn: { x: 12.1, y: 0 }, leads: false }], { x: 20, y: 0 })
    expect(meetsChart(two as WayReading, 0.5)).toBe(false)
  })

  test('a way that turns back is as long as it is walked, and read on the branch the plan says', () => {
    const over: WayPlace[] = [
      { planned: 0.5, drawn: { x: 120, y: 0 }, leads: true },
      { planned: 0.95, drawn: { x: 110, y: 0 }, leads: false },
    ]
    const [tip, back] = readWay(A, over, { x: 100, y: 0 })
    expect([tip?.share, back?.share]).toEqual([expect.closeTo(120 / 140, 4), expect.closeTo(130 / 140, 4)])
    // A nod: down to 100 and up again. At 40 it is on its way down, or on its way up.
    const nod = (planned: number): WayPlace[] => [
      { planned: 0.5, drawn: { x: 0, y: 100 }, leads: true },
      { planned, drawn: { x: 0, y: 40 }, leads: false },
    ]
    expect(readWay(A, nod(0.25), A)[1]?.share).toBeCloseTo(0.2, 4)
    expect(readWay(A, nod(0.75), A)[1]?.share).toBeCloseTo(0.8, 4)
  })

  test('what is not drawn is not read, and without both keys nothing is', () => {
    expect(readWay(A, [{ planned: 0.5, drawn: null, leads: true }], B)).toEqual([null])
    expect(readWay(null, [{ planned: 0.5, drawn: B, leads: true }], B)).toEqual([null])
    expect(readWay(A, [{ planned: 0.5, drawn: B, leads: false }], { x: 0.2, y: 0 })).toEqual([null])
  })
})
