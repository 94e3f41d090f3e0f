import { describe, expect, test } from '@jest/globals'
import { distance, map } from '@unhurried/core/geometry'
import fc from 'fast-check'
import { makePlayback } from './playback.ts'
import { fitScale, FLAT, paperToScreen, toPaper, turnedBy, zoomedAt, type View } from './view.ts'

const screen = { width: 880, height: 575 }
const paper = { width: 1280, height: 720 }
const view: fc.Arbitrary<View> = fc.record({
  zoom: fc.double({ min: 0.2, max: 12, noNaN: true }),
  turnRad: fc.double({ min: -3, max: 3, noNaN: true }),
  panX: fc.integer({ min: -500, max: 500 }),
  mirrored: fc.boolean(),
  panY: fc.integer({ min: -500, max: 500 }),
})
const place = fc.record({ x: fc.integer({ min: 0, max: 880 }), y: fc.integer({ min: 0, max: 575 }) })

describe('how the paper lies', () => {
  test('a place on the screen is found again from the paper, however it is turned', () => {
    fc.assert(
      fc.property(view, place, (v, p) => {
        const matrix = paperToScreen(v, screen, paper)
        const back = map(matrix, toPaper(matrix, p))
        expect(back.x).toBeCloseTo(p.x, 6)
        expect(back.y).toBeCloseTo(p.y, 6)
      }),
    )
  })

  test('coming nearer leaves the paper under the pointer where it is', () => {
    fc.assert(
      fc.property(view, place, fc.double({ min: 0.5, max: 2, noNaN: true }), (v, at, factor) => {
        const before = toPaper(paperToScreen(v, screen, paper), at)
        const after = toPaper(paperToScreen(zoomedAt(v, factor, at, screen), screen, paper), at)
        // A straight paper is laid on whole screen pixels, before and after.
        const scale = fitScale(screen, paper) * Math.min(v.zoom, zoomedAt(v, factor, at, screen).zoom)
        expect(distance(before, after) * scale).toBeLessThan(1.5)
      }),
    )
  })

  test('flat, the whole paper is in sight; turned there and back it is flat again', () => {
    const corner = map(paperToScreen(FLAT, screen, paper), { x: 1280, y: 720 })
    expect(corner.x).toBeLessThan(screen.width)
    expect(corner.y).toBeLessThan(screen.height)
    expect(turnedBy(turnedBy(FLAT, 0.3), -0.3)).toEqual(FLAT)
  })
})

describe('playback', () => {
  /** A clock that ticks as told, in milliseconds. */
  function playedAt(ticks: number[], round: boolean) {
    let now = 0
    const waiting: (() => void)[] = []
    const shown: number[] = []
    const playback = makePlayback({
      show: frame => shown.push(frame),
      now: () => now,
      nextTick: call => {
        waiting.splice(0, 1, call)
        return 1
      },
      cancelTick: () => void waiting.splice(0),
    })
    playback.start(2, 10, { from: 0, to: 6 }, round)
    for (const at of ticks) {
      now = at
      waiting[0]?.()
    }
    return { shown, report: playback.report.value, playing: playback.playing.value }
  }

  test('shows the frame that is due, each once, and comes round', () => {
    const { shown, report } = playedAt([16, 99, 101, 205, 310, 420, 510], true)
    expect(shown).toEqual([2, 3, 4, 5, 0, 1])
    expect(report).toEqual({ shown: 6, dropped: 0 })
  })

  test('a machine that is late drops frames and keeps time', () => {
    const { shown, report } = playedAt([450], true)
    expect(shown).toEqual([2, 0])
    expect(report).toEqual({ shown: 2, dropped: 3 })
  })

  test('without a loop it stops on the last frame', () => {
    const { shown, playing } = playedAt([100, 200, 300, 400], false)
    expect([shown.at(-1), playing]).toEqual([5, false])
  })
})
