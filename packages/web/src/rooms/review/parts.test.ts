import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { partsOf } from './parts.ts'

const picture = { width: 1920, height: 1080 }

describe('parts that are looked at one after the other', () => {
  test('what fits is one part, in its middle; what does not is parted in rows', () => {
    const box = { left: 100, top: 200, right: 500, bottom: 600 }
    expect(partsOf(box, picture, { width: 800, height: 600 })).toEqual([{ x: 300, y: 400 }])
    // 400 px through a window of 250: 42 px more than one step of 210 would show, so two.
    expect(partsOf(box, picture, { width: 250, height: 600 }).map(({ x }) => x)).toEqual([225, 375])
    expect(partsOf(null, picture, { width: 960, height: 1080 })).toHaveLength(3)
    expect(partsOf({ left: -300, top: 0, right: -10, bottom: 9 }, picture, { width: 100, height: 100 })).toEqual([
      { x: 960, y: 540 },
    ])
  })

  test('together they show all of what is drawn in the picture, and nothing farther', () => {
    const side = fc.integer({ min: -400, max: 2400 })
    const view = fc.record({ width: fc.integer({ min: 60, max: 1400 }), height: fc.integer({ min: 60, max: 900 }) })
    fc.assert(
      fc.property(side, side, side, side, view, (a, b, c, d, window) => {
        const box = { left: Math.min(a, b), right: Math.max(a, b) + 1, top: Math.min(c, d), bottom: Math.max(c, d) + 1 }
        const [left, right] = [Math.max(0, box.left), Math.min(picture.width, box.right)]
        const [top, bottom] = [Math.max(0, box.top), Math.min(picture.height, box.bottom)]
        fc.pre(left < right && top < bottom)
        const parts = partsOf(box, picture, window)
        for (let i = 0; i <= 12; i++)
          for (let j = 0; j <= 12; j++) {
            const [x, y] = [left + ((right - left) * i) / 12, top + ((bottom - top) * j) / 12]
            const isSeen = parts.some(
              at => Math.abs(at.x - x) <= window.width / 2 + 1e-6 && Math.abs(at.y - y) <= window.height / 2 + 1e-6,
            )
            expect(isSeen).toBe(true)
          }
        for (const at of parts) expect(at.x >= left && at.x <= right && at.y >= top && at.y <= bottom).toBe(true)
      }),
    )
  })
})
