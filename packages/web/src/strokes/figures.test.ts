import { describe, expect, test } from '@jest/globals'
import { roundFigure, straightFigure } from './figures.ts'

const drag = (x: number, y: number, more: object = {}) => ({
  from: { x: 100, y: 100 },
  to: { x: 100 + x, y: 100 + y },
  even: false,
  fromMiddle: false,
  ...more,
})
const boxOf = (samples: readonly { x: number; y: number }[]) => {
  const [xs, ys] = [samples.map(s => s.x), samples.map(s => s.y)]
  return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map(Math.round)
}
const FREE = { keeps: 'free', radius: 40, painted: false } as const

describe('figures in the hand', () => {
  test('a straight line: as drawn, in even directions, from its middle', () => {
    expect(straightFigure(drag(30, -40)).said).toBe('50 px · 53.1°')
    expect(straightFigure(drag(100, 4, { even: true })).samples.at(-1)?.y).toBeCloseTo(100, 9)
    expect(boxOf(straightFigure(drag(50, 0, { fromMiddle: true })).samples)).toEqual([50, 150, 100, 100])
  })

  test('a round from corner to corner, as a true circle, from its middle', () => {
    expect(boxOf(roundFigure(drag(80, 40), FREE)?.samples ?? [])).toEqual([100, 180, 100, 140])
    const circle = roundFigure(drag(-80, 40, { even: true }), FREE)
    expect([circle?.said, circle?.radius]).toEqual(['circle, radius 40 px', 40])
    expect(boxOf(circle?.samples ?? [])).toEqual([20, 100, 100, 180])
    expect(boxOf(roundFigure(drag(30, 20, { fromMiddle: true }), FREE)?.samples ?? [])).toEqual([70, 130, 80, 120])
    expect(roundFigure(drag(30, 0), FREE)).toBeNull()
  })

  test('a body pulled from its middle keeps its area, or its volume', () => {
    const area = roundFigure(drag(80, 0), { ...FREE, keeps: 'area' })
    expect(boxOf(area?.samples ?? [])).toEqual([20, 180, 80, 120])
    expect(area?.said).toBe('× 2.00 along, × 0.50 across · area kept')
    // Squashed to a half: 40 · ½ along, 40 · √2 across.
    const volume = roundFigure(drag(0, 20), { ...FREE, keeps: 'volume' })
    expect(boxOf(volume?.samples ?? [])).toEqual([43, 157, 80, 120])
    expect(volume?.said).toBe('× 0.50 along, × 1.41 across · volume kept')
  })
})
