import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  drawingAt,
  drawingsOf,
  fitTo,
  heldAt,
  insert,
  lengthOf,
  onN,
  overwrite,
  plain,
  remove,
  replaceStretch,
  slice,
  spread,
  type Run,
} from './index.ts'

const run = fc.record({
  drawing: fc.option(fc.constantFrom('a', 'b', 'c', 'd'), { nil: null }),
  frames: fc.integer({ min: 1, max: 6 }),
})
const column = fc.array(run, { minLength: 1, maxLength: 12 }).map(plain)
const shown = (runs: readonly Run[]) => Array.from({ length: lengthOf(runs) }, (_, f) => drawingAt(runs, f))
const isPlain = (runs: readonly Run[]) =>
  runs.every((r, i) => r.frames > 0 && (i === 0 || r.drawing !== runs[i - 1]?.drawing))

/** A column and two frames of it, the first not behind the second. */
const stretch = column.chain(runs =>
  fc
    .tuple(fc.nat(lengthOf(runs)), fc.nat(lengthOf(runs)))
    .map(([a, b]) => ({ runs, from: Math.min(a, b), to: Math.max(a, b) })),
)

describe('the sheet as a function from frames to drawings', () => {
  test('overwriting changes exactly the frames written', () => {
    fc.assert(
      fc.property(stretch, column, ({ runs, from }, other) => {
        const written = slice(other, 0, lengthOf(runs) - from)
        const result = overwrite(runs, from, written)
        const wanted = shown(runs)
        wanted.splice(from, lengthOf(written), ...shown(written))
        expect(shown(result)).toEqual(wanted)
        expect(isPlain(result)).toBe(true)
      }),
    )
  })

  test('writing back what was there before undoes it', () => {
    fc.assert(
      fc.property(stretch, column, ({ runs, from }, other) => {
        const written = slice(other, 0, lengthOf(runs) - from)
        const before = slice(runs, from, from + lengthOf(written))
        expect(overwrite(overwrite(runs, from, written), from, before)).toEqual(runs)
      }),
    )
  })

  test('insert and remove undo each other, and remove undoes with what it took', () => {
    fc.assert(
      fc.property(stretch, column, ({ runs, from, to }, added) => {
        expect(remove(insert(runs, from, added), from, from + lengthOf(added))).toEqual(runs)
        expect(insert(remove(runs, from, to), from, slice(runs, from, to))).toEqual(runs)
      }),
    )
  })

  test('runs away from a change stay the values they are', () => {
    const long = Array.from({ length: 1000 }, (_, i): Run => ({ drawing: `d${i % 40}`, frames: 2 }))
    const changed = insert(long, 1001, [{ drawing: 'new', frames: 3 }])
    expect(changed).toHaveLength(1002)
    expect(changed.slice(0, 500).every((r, i) => r === long[i])).toBe(true)
    expect(changed.slice(503).every((r, i) => r === long[i + 501])).toBe(true)
    expect(shown(changed).slice(1000, 1005)).toEqual(['d20', 'new', 'new', 'new', 'd20'])
  })

  test('rippling re-exposes whole drawings, and the column grows by what they do', () => {
    const runs = [
      { drawing: 'a', frames: 1 },
      { drawing: 'b', frames: 3 },
      { drawing: 'c', frames: 2 },
    ]
    expect(replaceStretch(runs, 0, 4, onN(slice(runs, 0, 4), 2), 'ripple')).toEqual([
      { drawing: 'a', frames: 2 },
      { drawing: 'b', frames: 2 },
      { drawing: 'c', frames: 2 },
    ])
    fc.assert(
      fc.property(column, fc.integer({ min: 1, max: 4 }), (any, n) => {
        const result = replaceStretch(any, 0, lengthOf(any), onN(any, n), 'ripple')
        const drawn = any.filter(run => run.drawing !== null)
        expect(lengthOf(result) - lengthOf(any)).toBe(drawn.length * n - lengthOf(drawn))
        expect(drawingsOf(result)).toEqual(drawingsOf(any))
      }),
    )
  })

  test('an inserted frame holds what was shown before it', () => {
    expect(heldAt([{ drawing: 'a', frames: 2 }], 2, 3)).toEqual([{ drawing: 'a', frames: 3 }])
    expect(heldAt([{ drawing: 'a', frames: 2 }], 0, 1)).toEqual([{ drawing: null, frames: 1 }])
  })

  test('fitting to a length cuts or adds nothing', () => {
    expect(fitTo([{ drawing: 'a', frames: 2 }], 1)).toEqual([{ drawing: 'a', frames: 1 }])
    expect(fitTo([{ drawing: 'a', frames: 2 }], 3)).toEqual([
      { drawing: 'a', frames: 2 },
      { drawing: null, frames: 1 },
    ])
  })

  test('frames are shared out as evenly as whole frames allow', () => {
    expect(spread(13, 4)).toEqual([3, 3, 4, 3])
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.nat(100), (parts, more) => {
        const shares = spread(parts + more, parts)
        expect(shares.reduce((a, b) => a + b)).toBe(parts + more)
        expect(Math.max(...shares) - Math.min(...shares)).toBeLessThanOrEqual(1)
      }),
    )
  })

  test('a column is never written past its end', () => {
    expect(() => overwrite([{ drawing: null, frames: 2 }], 1, [{ drawing: 'a', frames: 2 }])).toThrow('reach outside')
  })
})
