import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { map } from '../geometry/matrix.ts'
import { distance } from '../geometry/point.ts'
import { fitPoints } from '../geometry/similarity.ts'
import { fitted, heightLine, shareOf } from './laid.ts'
import { freshPoints, modelFault, MODEL_LIMITS, type ModelSheet, type ModelView } from './model.ts'

const VIEW: ModelView = {
  id: 'front',
  name: 'front',
  media: 'a'.repeat(64),
  widthPx: 300,
  heightPx: 500,
  low: { x: 150, y: 480 },
  high: { x: 150, y: 20 },
}
const SHEET: ModelSheet = { name: 'Tilda', views: [VIEW], heights: [{ id: 'eye', name: 'eyes', share: 0.8 }] }
const place = fc.record({
  x: fc.double({ min: -2000, max: 2000, noNaN: true }),
  y: fc.double({ min: -2000, max: 2000, noNaN: true }),
})

describe('a model laid over a drawing', () => {
  test('its two points lie on the two of the drawing, and lengths grow alike in all directions', () => {
    fc.assert(
      fc.property(place, place, place, place, place, (p, q, u, v, any) => {
        fc.pre(distance(p, q) > 1 && distance(u, v) > 1)
        const { matrix } = fitPoints([p, q], [u, v])!
        const scale = distance(u, v) / distance(p, q)
        const near = 1e-6 * (1 + scale) * 4000
        expect(distance(map(matrix, p), u)).toBeLessThan(near)
        expect(distance(map(matrix, q), v)).toBeLessThan(near)
        expect(Math.abs(distance(map(matrix, any), u) - scale * distance(any, p))).toBeLessThan(near)
      }),
    )
  })
  test('by hand: twice as large and a quarter turned', () => {
    // (0,0)–(0,10) onto (5,5)–(25,5): twice as long, and what pointed down points right.
    const { matrix } = fitPoints(
      [
        { x: 0, y: 0 },
        { x: 0, y: 10 },
      ],
      [
        { x: 5, y: 5 },
        { x: 25, y: 5 },
      ],
    )!
    expect(map(matrix, { x: 10, y: 0 })).toEqual({ x: 5, y: -15 })
  })
  test('one place is no pair', () => {
    const one = { x: 3, y: 3 }
    expect(fitPoints([one, one], [one, { x: 4, y: 4 }])).toBeNull()
    expect(fitPoints([one, { x: 4, y: 4 }], [one, one])).toBeNull()
  })
  test('heights lie across the way from sole to crown, at their share of it', () => {
    const [from, to] = heightLine(VIEW.low, VIEW.high, 0.25, 40)!
    expect([from.y, to.y]).toEqual([365, 365])
    expect(Math.abs(from.x - to.x)).toBe(80)
    expect(shareOf(VIEW, { x: 10, y: 365 })).toBeCloseTo(0.25, 9)
    expect(heightLine(VIEW.low, VIEW.low, 0.5, 10)).toBeNull()
  })
  test('fitted into a room it touches two of its walls and lies in the middle', () => {
    const matrix = fitted(300, 500, { width: 200, height: 100 })
    expect(map(matrix, { x: 0, y: 0 })).toEqual({ x: 70, y: 0 })
    expect(map(matrix, { x: 300, y: 500 })).toEqual({ x: 130, y: 100 })
    const wide = fitted(300, 150, { width: 100, height: 100 })
    expect(map(wide, { x: 0, y: 0 })).toEqual({ x: 0, y: 25 })
    expect(map(wide, { x: 300, y: 150 })).toEqual({ x: 100, y: 75 })
  })
})

describe('model sheets from outside', () => {
  test('a fit one has no fault, and points that nobody put stand at top and bottom', () => {
    expect(modelFault(SHEET)).toBeNull()
    expect(freshPoints({ left: 10, top: 5, right: 30, bottom: 95 })).toEqual({
      low: { x: 20, y: 95 },
      high: { x: 20, y: 5 },
    })
  })
  test.each<[string, Partial<ModelSheet>]>([
    ['the name', { name: ' ' }],
    [
      'more than 24 sides',
      { views: Array.from({ length: MODEL_LIMITS.views + 1 }, (_, i) => ({ ...VIEW, id: `v${i}` })) },
    ],
    ['two things of one name', { views: [VIEW, VIEW] }],
    ['the picture of front', { views: [{ ...VIEW, media: '../../etc' }] }],
    ['the size of front', { views: [{ ...VIEW, widthPx: 0.5 }] }],
    ['the two points of front', { views: [{ ...VIEW, low: { x: -1, y: 0 } }] }],
    ['the two points of front', { views: [{ ...VIEW, low: VIEW.high }] }],
    ['the height eyes', { heights: [{ id: 'a', name: 'eyes', share: NaN }] }],
    ['the height crown', { heights: [{ id: 'a', name: 'crown', share: 5 }] }],
  ])('told is %s', (words, patch) => {
    expect(modelFault({ ...SHEET, ...patch })).toContain(words)
  })
})
