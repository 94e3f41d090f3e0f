import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { placeStroke, type Sample } from '../geometry/index.ts'
import type { ExpectedBody } from '../motion/recipe.ts'
import { shapeOf } from '../raster/index.ts'
import { heldAgainst } from './planned.ts'

/** An ellipse painted by hand: half axes along and across, turned, about a middle. */
function drawn(along: number, across: number, tiltRad: number, at = { x: 300, y: 200 }) {
  const samples = Array.from({ length: 120 }, (_, i): Sample => {
    const t = (i / 120) * 2 * Math.PI
    const [u, v] = [along * Math.cos(t), across * Math.sin(t)]
    const [c, s] = [Math.cos(tiltRad), Math.sin(tiltRad)]
    return { x: at.x + u * c - v * s, y: at.y + u * s + v * c, pressure: 1 }
  })
  return shapeOf([placeStroke(samples, 'shape', 1, null, null)])
}
const planned = (along: number, across: number, tiltRad: number): ExpectedBody => ({
  area: Math.PI * along * across,
  axes: [along, across],
  tiltRad,
})
const MIDDLE = { x: 300, y: 200 }

describe('a drawing held against its guide', () => {
  test('drawn as planned it reads as planned, however it is stretched and turned', () => {
    const number = fc.integer({ min: 30, max: 90 })
    fc.assert(
      fc.property(number, number, fc.integer({ min: -89, max: 90 }), (along, across, degrees) => {
        const rad = (degrees * Math.PI) / 180
        const reading = heldAgainst(planned(along, across, rad), drawn(along, across, rad), MIDDLE)
        if (!reading) throw new Error('nothing read')
        expect(Math.abs(reading.areaShare - 1)).toBeLessThan(0.02)
        expect(Math.abs(reading.stretch.drawn - reading.stretch.planned)).toBeLessThan(0.03)
        expect(reading.off?.px ?? 9).toBeLessThan(0.5)
        if (reading.stretch.planned > 1.15) expect(Math.abs(reading.turnedRad ?? 9)).toBeLessThan(0.06)
      }),
      { numRuns: 40 },
    )
  })

  test('by hand: half as wide as planned, turned by 30 degrees, 40 px to the right', () => {
    const reading = heldAgainst(planned(80, 40, 0), drawn(80, 20, Math.PI / 6, { x: 340, y: 200 }), MIDDLE)
    expect(reading?.areaShare).toBeCloseTo(0.5, 1)
    // √(80/40) = 1.414, √(80/20) = 2
    expect(reading?.stretch.planned).toBeCloseTo(1.414, 3)
    expect(reading?.stretch.drawn).toBeCloseTo(2, 1)
    expect(((reading?.turnedRad ?? 0) * 180) / Math.PI).toBeCloseTo(30, 0)
    expect(reading?.off?.px).toBeCloseTo(40, 0)
  })

  test('a squash is long across its tilt; what is nearly round has no direction; nothing drawn is not read', () => {
    const squash = heldAgainst(planned(30, 60, Math.PI / 2), drawn(60, 30, 0), MIDDLE)
    expect(Math.abs(squash?.turnedRad ?? 9)).toBeLessThan(0.02)
    expect(heldAgainst(planned(50, 50, 0), drawn(50, 50, 0), null)).toMatchObject({ turnedRad: null, off: null })
    expect(heldAgainst(planned(50, 50, 0), shapeOf([]), MIDDLE)).toBeNull()
  })
})
