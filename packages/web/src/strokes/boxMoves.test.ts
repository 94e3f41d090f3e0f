import { describe, expect, test } from '@jest/globals'
import { map, type Point } from '@unhurried/core/geometry'
import { bentBox, movedBox, type BoxDrag } from './boxMoves.ts'

const box = { left: 10, top: 20, right: 110, bottom: 70 }
const drag = (patch: Partial<BoxDrag>): BoxDrag => ({
  handle: 'move',
  from: { x: 0, y: 0 },
  to: { x: 0, y: 0 },
  corner: { x: 10, y: 20 },
  side: 0,
  about: { x: 60, y: 45 },
  free: false,
  ...patch,
})
function moved(patch: Partial<BoxDrag>, p: Point) {
  const { change, said } = movedBox(box, drag(patch))
  if (change.kind !== 'map') throw new Error('not a map')
  const { x, y } = map(change.by, p)
  return [Math.round(x * 100) / 100, Math.round(y * 100) / 100, said]
}

describe('handles of a box', () => {
  test('moving, and turning about the pivot the smaller way round', () => {
    expect(moved({ from: { x: 5, y: 5 }, to: { x: 8, y: 1 } }, { x: 0, y: 0 })).toEqual([3, -4, '3, -4 px'])
    const turn = { handle: 'turn', from: { x: 60, y: 5 }, to: { x: 100, y: 45 } } as const
    expect(moved(turn, { x: 60, y: 25 })).toEqual([80, 45, '90.0°'])
    const back = { handle: 'turn', from: { x: 20, y: 44 }, to: { x: 20, y: 46 } } as const
    expect(moved(back, { x: 60, y: 45 })[2]).toBe('-2.9°')
  })

  test('a corner pulled scales about the one across, evenly or free, and never to nothing', () => {
    const corner = { handle: 'scale', from: { x: 110, y: 70 } } as const
    expect(moved({ ...corner, to: { x: 210, y: 120 } }, { x: 110, y: 70 })).toEqual([210, 120, '200 × 200 %'])
    expect(moved({ ...corner, to: { x: 210, y: 70 }, free: true }, { x: 110, y: 70 })).toEqual([210, 70, '200 × 100 %'])
    expect(moved({ ...corner, to: { x: 10, y: 20 } }, { x: 110, y: 70 })[2]).toBe('2 × 2 %')
  })

  test.each([
    [0, { x: 60, y: 20 }, { x: 60, y: 70 }],
    [2, { x: 60, y: 70 }, { x: 60, y: 20 }],
  ] as const)('side %i moves along itself and the side across stays', (side, at, across) => {
    const pull = { handle: 'skew', side, from: at, to: { x: at.x + 50, y: at.y } } as const
    expect(moved(pull, at).slice(0, 2)).toEqual([at.x + 50, at.y])
    expect(moved(pull, across).slice(0, 2)).toEqual([across.x, across.y])
  })

  test('left and right sides move up and down', () => {
    const pull = { handle: 'skew', side: 1, from: { x: 110, y: 45 }, to: { x: 110, y: 55 } } as const
    expect(moved(pull, { x: 110, y: 45 }).slice(0, 2)).toEqual([110, 55])
    expect(moved(pull, { x: 10, y: 45 }).slice(0, 2)).toEqual([10, 45])
  })

  test('a bend goes from the foot of the box to its head, or from the pivot', () => {
    const quarter = bentBox(box, null, { x: 60, y: 20 }, { x: 110, y: 70 })
    expect(quarter.change).toEqual({
      kind: 'bend',
      root: { x: 60, y: 70 },
      tip: { x: 60, y: 20 },
      angleRad: Math.PI / 2,
    })
    expect(quarter.said).toBe('bent 90.0°')
    expect(bentBox(box, { x: 0, y: 70 }, { x: 60, y: 20 }, { x: 60, y: 20 }).change).toMatchObject({
      root: { x: 0, y: 70 },
    })
  })
})
