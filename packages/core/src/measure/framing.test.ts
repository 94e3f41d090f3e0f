import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { rotation, translation } from '../geometry/matrix.ts'
import { coverageOf, differenceOf } from '../raster/coverage.ts'
import { boxSeen, framingOf, wayInto } from './framing.ts'
import { blockAt } from './tests/moving.ts'

const PICTURE = { left: 0, top: 0, right: 640, bottom: 360 }

describe('where a body lies', () => {
  test('a block fills its cells, and its box is just around it', () => {
    // 100 by 40 px of a mask of 128 by 64, two pixels to a cell.
    const inside = Uint8Array.from({ length: 128 * 64 }, (_, i) =>
      i % 128 >= 20 && i % 128 < 120 && i >= 128 * 10 && i < 128 * 50 ? 1 : 0,
    )
    const body = coverageOf({ width: 128, height: 64, inside }, { left: 7, top: 9, scale: 0.5 })!
    expect([body.across, body.down, body.cellPx]).toEqual([64, 32, 4])
    expect(body.box).toEqual({ left: 47, top: 29, right: 247, bottom: 109 })
    expect(body.cells.filter(filled => filled === 255)).toHaveLength(50 * 20)
    expect(body.cells.filter(filled => filled > 0)).toHaveLength(50 * 20)
    expect(coverageOf({ width: 8, height: 8, inside: new Uint8Array(64) }, { left: 0, top: 0, scale: 1 })).toBeNull()
  })
})

describe('two bodies', () => {
  test('differ by what only one of them covers', () => {
    const here = blockAt(100, 100, 80, 60)
    expect(differenceOf(here, here)).toBe(0)
    expect(differenceOf(here, blockAt(300, 100, 80, 60))).toBe(1)
    // Half beside it: a third of what both cover is common.
    expect(differenceOf(here, blockAt(140, 100, 80, 60))).toBeCloseTo(2 / 3, 1)
    // A quarter of it larger.
    expect(differenceOf(here, blockAt(100, 100, 80, 75))).toBeCloseTo(0.2, 1)
    expect(differenceOf(blockAt(100, 100, 80, 75), here)).toBeCloseTo(0.2, 1)
  })
})

describe('how a body lies to a part of the picture', () => {
  test('the share outside, and the side it reaches beyond farthest', () => {
    const of = (x: number, y: number) => framingOf(blockAt(x, y, 100, 50), null, PICTURE)
    expect(of(200, 100)).toEqual({ outside: 0, beyond: null })
    // Just inside on all sides.
    expect(of(0, 0)).toEqual({ outside: 0, beyond: null })
    expect(of(540, 310)).toEqual({ outside: 0, beyond: null })
    // A quarter of it is right of 640; half of it above 0; a tenth below 360.
    expect(of(565, 100).outside).toBeCloseTo(0.25, 3)
    expect(of(565, 100).beyond).toEqual({ side: 'right', px: 25 })
    expect(of(100, -25).outside).toBeCloseTo(0.5, 3)
    expect(of(100, -25).beyond).toEqual({ side: 'top', px: 25 })
    expect(of(100, 315).outside).toBeCloseTo(0.1, 3)
    expect(of(100, 315).beyond).toEqual({ side: 'bottom', px: 5 })
    expect(of(-300, 100)).toEqual({ outside: 1, beyond: { side: 'left', px: 300 } })
  })

  test('carried and turned it lies where it is seen', () => {
    const body = blockAt(0, 0, 100, 50)
    expect(framingOf(body, translation(590, 100), PICTURE).outside).toBeCloseTo(0.5, 3)
    // Turned by a right angle about its corner it lies left of the picture, 50 px wide.
    const turned = rotation(Math.PI / 2, { x: 0, y: 0 })
    expect(boxSeen(body, turned).left).toBeCloseTo(-50, 6)
    expect(boxSeen(body, turned).bottom).toBeCloseTo(100, 6)
    expect(framingOf(body, turned, PICTURE).outside).toBeCloseTo(1, 6)
    // Turned by half of that about its middle its corner is what reaches out.
    const eighth = framingOf(blockAt(0, 100, 60, 60), rotation(Math.PI / 4, { x: 30, y: 130 }), PICTURE)
    // A triangle of 30 (√2 − 1) px height: its area is that squared, of 3600.
    expect(eighth.outside).toBeCloseTo((30 * (Math.SQRT2 - 1)) ** 2 / 3600, 2)
  })

  test('the least way back in, and none where it is larger than that', () => {
    expect(wayInto(blockAt(-20, 330, 100, 50), null, PICTURE)).toEqual({ x: 20, y: -20 })
    expect(wayInto(blockAt(200, 100, 100, 50), null, PICTURE)).toEqual({ x: 0, y: 0 })
    expect(wayInto(blockAt(-20, 100, 700, 50), null, PICTURE)).toBeNull()
  })

  test('what is moved in by its way lies inside; all together moved changes no share', () => {
    const place = fc.integer({ min: -900, max: 900 })
    fc.assert(
      fc.property(place, place, place, place, (x, y, dx, dy) => {
        const body = blockAt(x, y, 80, 60)
        const way = wayInto(body, null, PICTURE)!
        expect(framingOf(body, translation(way.x, way.y), PICTURE).outside).toBe(0)
        const part = { left: dx, top: dy, right: dx + 640, bottom: dy + 360 }
        const [here, there] = [framingOf(body, null, PICTURE), framingOf(body, translation(dx, dy), part)]
        expect(there.outside).toBeCloseTo(here.outside, 6)
      }),
    )
  })
})
