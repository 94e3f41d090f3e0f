import { describe, expect, test } from '@jest/globals'
import { map } from '@unhurried/core/geometry'
import fc from 'fast-check'
import { constructionOn } from './construction.ts'
import type { Brush } from './nibs.ts'
import { FLAT, paperToScreen } from './view.ts'

/** Everything a brush is told, in order. */
function listening() {
  const told: [string, ...number[]][] = []
  const brush = new Proxy({} as Brush, {
    get:
      (_, name: string) =>
      (...numbers: number[]) =>
        told.push([name, ...numbers]),
  })
  return { brush, of: (name: string) => told.filter(one => one[0] === name).map(([, ...numbers]) => numbers) }
}
const screen = { width: 880, height: 575 }
const paper = { width: 1280, height: 720 }

describe('constructions on the paper as it lies', () => {
  test('the tip of a tilted body is where the paper has it, zoomed, turned and mirrored', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 12, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.boolean(),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (zoom, turnRad, mirrored, tiltRad) => {
          const matrix = paperToScreen({ ...FLAT, zoom, turnRad, mirrored }, screen, paper)
          const { brush, of } = listening()
          const at = { x: 300, y: 200 }
          constructionOn(brush, matrix).ellipse('body', at, 40, 25, tiltRad)
          const [x = 0, y = 0, along = 0, across = 0, tilt = 0] = of('ellipse')[0] ?? []
          const tip = map(matrix, { x: at.x + 40 * Math.cos(tiltRad), y: at.y + 40 * Math.sin(tiltRad) })
          expect([x + along * Math.cos(tilt), y + along * Math.sin(tilt)]).toEqual([
            expect.closeTo(tip.x, 6),
            expect.closeTo(tip.y, 6),
          ])
          expect(across / along).toBeCloseTo(25 / 40, 9)
        },
      ),
    )
  })

  test('near and far are told apart without hue: strong and whole, and broken', () => {
    const told: string[] = []
    const state: Record<string, unknown> = { lineWidth: 1 }
    const brush = new Proxy(state, {
      get: (_, name: string) =>
        name === 'lineWidth'
          ? state.lineWidth
          : (...all: unknown[]) => {
              if (name === 'setLineDash') told.push(JSON.stringify([state.lineWidth, ...all]))
              if (name === 'restore') state.lineWidth = 1
            },
      set: (_, name: string, value) => ((state[name] = value), true),
    }) as unknown as Brush
    const sink = constructionOn(brush, paperToScreen(FLAT, screen, paper))
    const way = [
      { x: 0, y: 0 },
      { x: 9, y: 9 },
    ]
    sink.path('leg', way, 'near')
    sink.path('leg', way, 'far')
    const [near, far] = told.map(one => JSON.parse(one) as [number, number[]])
    expect([near?.[1], far?.[1].length]).toEqual([[], 2])
    expect(near?.[0]).toBeGreaterThan(far?.[0] ?? 9)
  })

  test('only parts of one name where that is asked', () => {
    const { brush, of } = listening()
    const sink = constructionOn(brush, paperToScreen(FLAT, screen, paper), ['body'])
    const [a, b] = [
      { x: 0, y: 0 },
      { x: 9, y: 9 },
    ]
    sink.ellipse('body', a, 5, 5, 0)
    sink.ellipse('head', a, 5, 5, 0)
    sink.line('ground', a, b)
    sink.bend('path', a, b, a)
    expect([of('ellipse').length, of('quadraticCurveTo').length, of('stroke').length]).toEqual([1, 0, 2])
  })
})
