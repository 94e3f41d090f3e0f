import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { paintedPieces } from './contours.ts'
import { contoursOf, outlinedLetters, type GlyphStep } from './lettering.ts'
import type { Point } from './point.ts'

/** A closed square, clockwise as seen (y down) or the other way round. */
function square(x: number, y: number, side: number, clockwise = true): GlyphStep[] {
  const corners = [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ] as const
  const way = clockwise ? corners : [...corners].reverse()
  return [...way.map(([px, py], i): GlyphStep => ({ type: i ? 'L' : 'M', x: px, y: py })), { type: 'Z' }]
}

/** How often a closed path winds round a point (y down, clockwise positive). */
function winding(path: readonly Point[], p: Point): number {
  let turns = 0
  path.forEach((a, i) => {
    const b = path[(i + 1) % path.length] as Point
    const side = (b.x - a.x) * (p.y - a.y) - (p.x - a.x) * (b.y - a.y)
    if (a.y <= p.y && b.y > p.y && side > 0) turns++
    if (a.y > p.y && b.y <= p.y && side < 0) turns--
  })
  return turns
}

describe('the outlines of letters', () => {
  test('curves are cut into short pieces that lie on them; outlines of nothing are left out', () => {
    const [arch] = contoursOf([{ type: 'M', x: 0, y: 0 }, { type: 'Q', x1: 50, y1: 100, x: 100, y: 0 }, { type: 'Z' }])
    // The quadratic at t: x = 100t, y = 200t(1 − t).
    for (const { x, y } of arch ?? []) expect(y).toBeCloseTo(200 * (x / 100) * (1 - x / 100), 6)
    expect(arch?.length).toBeGreaterThan(40)
    const [wave] = contoursOf([
      { type: 'M', x: 0, y: 0 },
      { type: 'C', x1: 0, y1: 40, x2: 40, y2: 40, x: 40, y: 0 },
    ])
    // Half-way along this cubic: (20, 30).
    expect(Math.max(...(wave ?? []).map(p => p.y))).toBeCloseTo(30, 1)
    expect(contoursOf([{ type: 'M', x: 1, y: 1 }, { type: 'L', x: 2, y: 2 }, { type: 'Z' }])).toEqual([])
  })

  test('a painted letter has one path with its holes cut in, whichever way its outlines ran', () => {
    fc.assert(
      fc.property(fc.boolean(), fc.boolean(), fc.boolean(), (a, b, c) => {
        // A 100 × 100 block with two holes of 20 × 20, as in a B.
        const steps = [...square(0, 0, 100, a), ...square(40, 20, 20, b), ...square(40, 60, 20, c)]
        const painted = paintedPieces(contoursOf(steps))
        expect(painted).toHaveLength(1)
        const path = painted[0] ?? []
        expect([winding(path, { x: 10, y: 10 }), winding(path, { x: 50, y: 50 })]).toEqual([1, 1])
        expect([winding(path, { x: 50, y: 30 }), winding(path, { x: 50, y: 70 })]).toEqual([0, 0])
        expect(winding(path, { x: 110, y: 50 })).toBe(0)
      }),
    )
  })

  test('separate pieces of paint are paths of their own, islands in holes too', () => {
    const steps = [...square(0, 0, 100), ...square(20, 20, 60, false), ...square(40, 40, 20), ...square(200, 0, 10)]
    const painted = paintedPieces(contoursOf(steps))
    expect(painted.map(path => path[0])).toEqual([
      { x: 0, y: 0, pressure: 0.5 },
      { x: 40, y: 40, pressure: 0.5 },
      { x: 200, y: 0, pressure: 0.5 },
    ])
    expect(winding(painted[0] ?? [], { x: 50, y: 50 })).toBe(0)
  })

  test('corners are there twice, so that they stay sharp; lines round the outlines are closed', () => {
    const contours = contoursOf(square(0, 0, 10))
    expect(paintedPieces(contours)[0]).toHaveLength(8)
    const [line] = outlinedLetters(contours)
    expect([line?.length, line?.[0], line?.[4]]).toEqual([5, line?.[4], line?.[0]])
  })
})
