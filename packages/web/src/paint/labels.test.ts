import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { placeLabels } from './labels.ts'

const box = ({ at }: { at: { x: number; y: number } }, width: number) => ({
  left: at.x,
  right: at.x + width,
  top: at.y - 10,
  bottom: at.y + 3,
})

describe('labels of marks', () => {
  test('one alone stands to the right above its mark', () => {
    expect(placeLabels([{ at: { x: 100, y: 100 }, width: 30 }])).toEqual([{ at: { x: 107, y: 94.5 }, far: false }])
  })

  test('three on one place are written beside and below one another', () => {
    const at = { x: 100, y: 100 }
    const placed = placeLabels([30, 40, 50].map(width => ({ at, width })))
    expect(new Set(placed.map(({ at: p }) => `${p.x} ${p.y}`)).size).toBe(3)
  })

  test('none lies on another, however near their marks are', () => {
    const named = fc.record({
      at: fc.record({ x: fc.integer({ min: 0, max: 120 }), y: fc.integer({ min: 0, max: 120 }) }),
      width: fc.integer({ min: 12, max: 70 }),
    })
    fc.assert(
      fc.property(fc.array(named, { maxLength: 8 }), marks => {
        const boxes = placeLabels(marks).map((placed, i) => box(placed, marks[i]?.width ?? 0))
        const pairs = boxes.flatMap((a, i) => boxes.slice(i + 1).map(b => [a, b] as const))
        return pairs.every(([a, b]) => a.left >= b.right || b.left >= a.right || a.top >= b.bottom || b.top >= a.bottom)
      }),
    )
  })
})
