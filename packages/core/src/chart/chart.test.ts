import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  drawingOrder,
  ease,
  fractionLabel,
  KEY_A,
  KEY_B,
  nearestHalves,
  presetTicks,
  presetWish,
  PRESETS,
  steps,
  valueOf,
  wishTicks,
  type Fraction,
  type Preset,
  type Tick,
} from './index.ts'

const written = (ticks: readonly Tick[]) => ticks.map(tick => fractionLabel(tick.at)).join(' ')
const values = (ticks: readonly Tick[]) => ticks.map(tick => valueOf(tick.at))
const preset = fc.constantFrom(...PRESETS)
const count = fc.integer({ min: 0, max: 11 })

/** Every chart of `n` halves no deeper than `levels`, found by trying all trees: the plain twin of the search. */
function allHalves(n: number, levels: number, lo = 0, hi = 1): number[][] {
  if (n === 0) return [[]]
  if (levels === 0) return []
  const middle = (lo + hi) / 2
  return Array.from({ length: n }, (_, left) => left).flatMap(left =>
    allHalves(left, levels - 1, lo, middle).flatMap(a =>
      allHalves(n - 1 - left, levels - 1, middle, hi).map(b => [...a, middle, ...b]),
    ),
  )
}

const worst = (ts: readonly number[], wished: readonly number[]) =>
  Math.max(...ts.map((t, i) => Math.abs(t - (wished[i] as number))))

describe('presets', () => {
  test.each([
    ['even', 1, '1/2'],
    ['even', 3, '1/4 1/2 3/4'],
    ['even', 7, '1/8 1/4 3/8 1/2 5/8 3/4 7/8'],
    ['slow-in', 3, '1/2 3/4 7/8'],
    ['slow-out', 3, '1/8 1/4 1/2'],
    ['slow-in', 4, '1/2 3/4 7/8 15/16'],
    ['slow-out', 4, '1/16 1/8 1/4 1/2'],
    ['both', 5, '1/8 1/4 1/2 3/4 7/8'],
    ['favour-a', 1, '1/3'],
    ['favour-b', 1, '2/3'],
    ['favour-b', 3, '1/3 2/3 5/6'],
  ] as const)('%s with %i inbetweens is %s', (name, n, chart) => {
    expect(written(presetTicks(name, n))).toBe(chart)
  })

  test('charts increase strictly, and every parent exists before it is needed', () => {
    fc.assert(
      fc.property(preset, count, (name, n) => {
        const ticks = presetTicks(name, n)
        expect(ticks).toHaveLength(n)
        const ts = [0, ...values(ticks), 1]
        ts.slice(1).forEach((t, i) => expect(t).toBeGreaterThan(ts[i] as number))
        const drawn = new Set([KEY_A, KEY_B])
        for (const i of drawingOrder(ticks)) {
          const tick = ticks[i] as Tick
          expect(drawn.has(tick.left) && drawn.has(tick.right)).toBe(true)
          drawn.add(i)
        }
      }),
    )
  })

  test('every tick lies at its ratio between its two parents, which are its nearest drawn neighbours', () => {
    fc.assert(
      fc.property(preset, count, (name, n) => {
        const ticks = presetTicks(name, n)
        const at = (parent: number) =>
          parent === KEY_A ? 0 : parent === KEY_B ? 1 : valueOf((ticks[parent] as Tick).at as Fraction)
        const drawn = [0, 1]
        for (const i of drawingOrder(ticks)) {
          const tick = ticks[i] as Tick
          const [a, b] = [at(tick.left), at(tick.right)]
          const share = tick.ratio === '1/2' ? 1 / 2 : tick.ratio === '1/3' ? 1 / 3 : 2 / 3
          expect(valueOf(tick.at)).toBeCloseTo(a + (b - a) * share, 12)
          expect(drawn.filter(t => t > a && t < b)).toEqual([])
          drawn.push(valueOf(tick.at))
        }
      }),
    )
  })

  test('steps of a slow-in shrink, and all steps make the whole way', () => {
    expect(steps(presetTicks('slow-in', 3))).toEqual([1 / 2, 1 / 4, 1 / 8, 1 / 8])
    fc.assert(
      fc.property(preset, count, (name, n) => {
        expect(steps(presetTicks(name, n)).reduce((a, b) => a + b)).toBeCloseTo(1, 12)
      }),
    )
  })

  test('slow in mirrors slow out, favouring the last key favouring the first, and even and both themselves', () => {
    const twins: Record<Preset, Preset> = {
      even: 'even',
      both: 'both',
      'slow-in': 'slow-out',
      'slow-out': 'slow-in',
      'favour-a': 'favour-b',
      'favour-b': 'favour-a',
    }
    fc.assert(
      fc.property(preset, count, fc.double({ min: 0.05, max: 1, noNaN: true }), (name, n, strength) => {
        const there = values(wishTicks(presetWish(name, strength), n))
        const back = values(wishTicks(presetWish(twins[name], strength), n))
        // A number of halves that cannot be even on both sides has two charts that mirror each other.
        if (twins[name] === name && n % 2 === 0) return
        back.reverse().forEach((t, i) => expect(1 - t).toBeCloseTo(there[i] as number, 9))
      }),
    )
  })

  test('every curve runs from 0 to 1', () => {
    for (const name of PRESETS) expect([ease(name, 0), ease(name, 1)]).toEqual([0, 1])
    expect([ease('favour-a', 0.5), ease('favour-b', 0.5)]).toEqual([expect.closeTo(1 / 3), expect.closeTo(2 / 3)])
  })

  test('more than eleven inbetweens are refused', () => {
    expect(() => presetTicks('even', 12)).toThrow('at most 11')
  })
})

describe('the nearest halves', () => {
  const wish = fc
    .uniqueArray(fc.integer({ min: 1, max: 999 }), { minLength: 1, maxLength: 6 })
    .map(xs => xs.sort((a, b) => a - b).map(x => x / 1000))

  test('no chart of halves is nearer than the one found', () => {
    fc.assert(
      fc.property(wish, wished => {
        const found = worst(values(nearestHalves(wished)), wished)
        const best = Math.min(...allHalves(wished.length, 4).map(ts => worst(ts, wished)))
        expect(found).toBeCloseTo(best, 12)
        // Among those as near, none lies nearer with all its ticks.
        const squares = (ts: readonly number[]) => ts.reduce((sum, t, i) => sum + (t - (wished[i] as number)) ** 2, 0)
        const near = allHalves(wished.length, 4).filter(ts => worst(ts, wished) <= best + 1e-12)
        const least = Math.min(...near.map(squares))
        expect(squares(values(nearestHalves(wished)))).toBeCloseTo(least, 12)
      }),
      { numRuns: 60, seed: 11 },
    )
  })

  test('a wish that is a chart of halves is met exactly', () => {
    expect(written(nearestHalves([3 / 16, 1 / 4, 1 / 2]))).toBe('1/8 1/4 1/2')
    expect(written(nearestHalves([1 / 16, 1 / 8, 1 / 4, 1 / 2]))).toBe('1/16 1/8 1/4 1/2')
  })

  test('the breakdown may lie on a third, marked as one, with halves on both sides', () => {
    const ticks = nearestHalves([0.16, 0.33, 0.66], 4, true)
    expect(written(ticks)).toBe('1/6 1/3 2/3')
    expect(ticks.map(tick => tick.ratio)).toEqual(['1/2', '1/3', '1/2'])
    expect(written(nearestHalves([0.25, 0.5, 0.75], 4, true))).toBe('1/4 1/2 3/4')
  })

  test('a wish that does not increase is refused', () => {
    expect(() => nearestHalves([0.5, 0.5])).toThrow('position 2 is 0.5')
  })
})
