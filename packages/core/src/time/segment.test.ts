import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  drawingAt,
  drawingsOf,
  followedHolds,
  lengthOf,
  onN,
  plain,
  repeated,
  replaceStretch,
  reversed,
  shareFrames,
  slice,
  slid,
  spread,
  stretched,
  thereAndBack,
  trimmed,
  type Run,
} from './index.ts'

const run = fc.record({
  drawing: fc.option(fc.constantFrom('a', 'b', 'c', 'd'), { nil: null }),
  frames: fc.integer({ min: 1, max: 6 }),
})
const column = fc.array(run, { minLength: 1, maxLength: 10 }).map(plain)
const stretch = column.chain(runs =>
  fc
    .tuple(fc.nat(lengthOf(runs) - 1), fc.integer({ min: 1, max: lengthOf(runs) }))
    .map(([a, n]) => ({ runs, from: a, to: Math.min(lengthOf(runs), a + n) })),
)
const shown = (runs: readonly Run[]) =>
  Array.from({ length: lengthOf(runs) }, (_, f) => drawingAt(runs, f) ?? '.').join('')
/** A column written as one letter a frame, a dot for nothing. */
const sheet = (letters: string): Run[] =>
  plain([...letters].map(letter => ({ drawing: letter === '.' ? null : letter, frames: 1 })))

describe('edits of a stretch', () => {
  test('by hand', () => {
    expect(shown(onN(sheet('abbbcc'), 2))).toBe('aabbcc')
    expect(shown(reversed(sheet('aabcc')))).toBe('ccbaa')
    expect(shown(thereAndBack(sheet('aabbcc'), true))).toBe('aabbccbb')
    // Not a loop: it comes home.
    expect(shown(thereAndBack(sheet('aabbcc'), false))).toBe('aabbccbbaa')
    expect(shown(repeated(sheet('ab'), 3))).toBe('ababab')
    expect(shown(stretched(sheet('aabb'), 6))).toBe('aaabbb')
    expect(shown(stretched(sheet('aaaab'), 3))).toBe('aab')
  })

  test('reversing twice changes nothing, and there-and-back reads the same both ways but for its ends', () => {
    fc.assert(
      fc.property(column, runs => {
        expect(reversed(reversed(runs))).toEqual(runs)
        const there = thereAndBack(runs, true)
        expect(thereAndBack(runs, false).length).toBe(2 * runs.length - 1)
        // Played as a loop, the way back mirrors the way there.
        const turn = [...there, runs[0] as Run]
        expect(turn.map(r => r.drawing)).toEqual([...turn].reverse().map(r => r.drawing))
      }),
    )
  })

  test('stretching keeps the order of drawings, fills the frames, and undoes itself when lengths were equal', () => {
    fc.assert(
      fc.property(column, fc.nat(40), (runs, more) => {
        const frames = runs.length + more
        const out = stretched(runs, frames)
        expect(lengthOf(out)).toBe(frames)
        expect(out.map(r => r.drawing)).toEqual(runs.map(r => r.drawing))
        expect(Math.min(...out.map(r => r.frames))).toBeGreaterThanOrEqual(1)
        expect(stretched(runs, lengthOf(runs))).toEqual(runs)
      }),
    )
  })

  test('an even hold keeps its tempo when it is stretched: 24 ones over 36 frames go 1, 2, 1, 2', () => {
    const ones: Run[] = Array.from({ length: 24 }, (_, i) => ({ drawing: `d${i}`, frames: 1 }))
    expect(stretched(ones, 36).map(r => r.frames)).toEqual(Array.from({ length: 24 }, (_, i) => (i % 2 ? 2 : 1)))
    expect(spread(13, 4)).toEqual([3, 3, 4, 3])
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.nat(80), (parts, more) => {
        let passed = 0
        spread(parts + more, parts).forEach((hold, i) => {
          passed += hold
          // The error never adds up: no drawing ends more than half a frame off.
          expect(Math.abs(passed - ((parts + more) * (i + 1)) / parts)).toBeLessThanOrEqual(0.5 + 1e-9)
        })
      }),
    )
  })

  test('frames are shared in proportion: no part is more than one frame off its share while all have room', () => {
    expect(shareFrames(15, [2, 2, 2, 2, 2, 2])).toEqual([2, 3, 2, 3, 2, 3])
    expect(shareFrames(7, [4, 1, 1])).toEqual([5, 1, 1])
    expect(shareFrames(6, [2, 1])).toEqual([4, 2])
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 9 }), fc.nat(60), (ws, more) => {
        const total = ws.reduce((a, b) => a + b)
        const frames = total + more
        const parts = shareFrames(frames, ws)
        expect(parts.reduce((a, b) => a + b)).toBe(frames)
        parts.forEach((part, i) =>
          expect(Math.abs(part - (frames * (ws[i] as number)) / total)).toBeLessThanOrEqual(1.001),
        )
      }),
    )
    expect(() => shareFrames(2, [1, 1, 1])).toThrow('frames must be a whole number of at least 3')
  })
})

describe('holds that follow a key', () => {
  test('come to the same frame by frame as at once, and keep uneven timing uneven', () => {
    expect(followedHolds(9, followedHolds(8, followedHolds(7, [2, 2, 2])))).toEqual([3, 3, 3])
    expect(followedHolds(10, [1, 3, 1])).toEqual([2, 6, 2])
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.integer({ min: 1, max: 4 }), fc.nat(30), (n, on, far) => {
        const holds = Array.from({ length: n }, () => on)
        let now: number[] = holds
        for (let by = 1; by <= far; by++) now = followedHolds(n * on + by, now)
        expect(now).toEqual(far === 0 ? holds : followedHolds(n * on + far, holds))
      }),
    )
  })
})

describe('putting a stretch back', () => {
  test('with a ripple what follows moves and nothing of it is lost', () => {
    fc.assert(
      fc.property(stretch, column, ({ runs, from, to }, put) => {
        const out = shown(replaceStretch(runs, from, to, put, 'ripple'))
        expect(out).toBe(shown(runs).slice(0, from) + shown(put) + shown(runs).slice(to))
      }),
    )
  })

  test('without one the column keeps its length and every frame outside the stretch', () => {
    fc.assert(
      fc.property(stretch, column, ({ runs, from, to }, put) => {
        const out = shown(replaceStretch(runs, from, to, put, 'stay'))
        expect(out).toHaveLength(lengthOf(runs))
        expect(out.slice(0, from) + out.slice(to)).toBe(shown(runs).slice(0, from) + shown(runs).slice(to))
        const cut = shown(put).slice(0, to - from)
        expect(out.slice(from, from + cut.length)).toBe(cut)
      }),
    )
  })

  test('a stretch outside the column is the caller’s mistake', () => {
    expect(() => replaceStretch(sheet('aab'), 2, 5, [], 'ripple')).toThrow(
      'frames 2 to 5 are no stretch of a column of 3',
    )
  })
})

describe('sliding and trimming', () => {
  test('by hand', () => {
    expect(shown(slid(sheet('aabbccdd'), 2, 4, 2))).toBe('aaaabbdd')
    expect(shown(slid(sheet('aabbccdd'), 4, 6, -2))).toBe('aaccdddd')
    expect(shown(slid(sheet('bbcc'), 0, 2, 1))).toBe('.bbc')
    expect(shown(trimmed(sheet('aaaabb'), 1, 'end', 'ripple'))).toBe('aabb')
    expect(shown(trimmed(sheet('aaaabb'), 1, 'end', 'stay'))).toBe('aa..bb')
    expect(shown(trimmed(sheet('aaaabb'), 1, 'start', 'ripple'))).toBe('aaabb')
  })

  test('slid frames arrive whole, and the column keeps its length', () => {
    fc.assert(
      fc.property(stretch, fc.integer({ min: -20, max: 20 }), ({ runs, from, to }, by) => {
        const out = slid(runs, from, to, by)
        const real = Math.max(-from, Math.min(lengthOf(runs) - to, by))
        expect(lengthOf(out)).toBe(lengthOf(runs))
        expect(slice(out, from + real, to + real).length).toBeGreaterThan(0)
        expect(shown(out).slice(from + real, to + real)).toBe(shown(runs).slice(from, to))
        expect(drawingsOf(out).every(id => drawingsOf(runs).includes(id))).toBe(true)
      }),
    )
  })
})
