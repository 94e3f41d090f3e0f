import type { Point } from '../../geometry/point.ts'
import { namedDrawings, PLAIN_PLAN, softly } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, type Plan, type Recipe } from '../recipe.ts'
import { refuseSoft, softDefaults, type SoftNumbers } from './numbers.ts'

/** Both bodies on a drawing. */
export interface SoftPair {
  /** the lower one: half axes, and its middle */
  readonly low: { readonly centre: Point; readonly wide: number; readonly high: number }
  /** the upper one before it is arched: half axes, its middle, and how far it arches: y + b·x²/a */
  readonly up: { readonly centre: Point; readonly wide: number; readonly high: number; readonly arch: number }
  /** px that they are apart, at the middle */
  readonly apart: number
}

/** Two soft bodies worked out. */
export interface SoftPlan extends Plan<SoftNumbers> {
  readonly pairs: readonly SoftPair[]
}

/**
 * A soft body in a cycle (rest, squash, stretch, recover) and another one riding on it. While it is pushed up the upper one arches:
 * its middle is carried and both sides hang, (x, y) becomes (x, y + b·x²/a), which keeps its area exactly; b follows the upward
 * acceleration, some drawings late, and is held below what would close it round the lower one. Let go of, it hangs at the
 * top, then comes after. The two touch while pushed and never overlap.
 */
export const soft: Recipe<SoftNumbers, SoftPlan> = {
  through: [],
  measures: { across: ['x'], down: ['ground'], lengths: ['lowWide', 'lowHigh', 'wide', 'high'] },
  defaults: softDefaults,
  refuse: refuseSoft,
  plan: planSoft,
  figure(plan, frame, sink) {
    const { low, up } = plan.pairs[shownOn(plan, frame)] as SoftPair
    const { x, ground, lowWide } = plan.numbers
    sink.line('ground', { x: x - 1.6 * lowWide, y: ground }, { x: x + 1.6 * lowWide, y: ground })
    sink.ellipse('lower', low.centre, low.wide, low.high, 0)
    sink.path('upper', archOutline(up), 'near')
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const { low, up } = plan.pairs[drawing] as SoftPair
    const top = { x: low.centre.x, y: low.centre.y - low.high }
    const area = Math.PI * (low.wide * low.high + up.wide * up.high)
    return { marks: { top, upper: up.centre }, body: { area, axes: axesOfBoth(low, up), tiltRad: Math.PI / 2 } }
  },
}

/** Half height and half width of what both cover together. */
function axesOfBoth(low: SoftPair['low'], up: SoftPair['up']): readonly [number, number] {
  const high = (low.centre.y + low.high - (up.centre.y - up.high)) / 2
  return [high, Math.max(low.wide, up.wide)]
}

const PIECES = 48
/** The outline of the upper body: an ellipse whose sides hang by the square of how far they are from its middle. */
export const archOutline = ({ centre, wide, high, arch }: SoftPair['up']): Point[] =>
  Array.from({ length: PIECES + 1 }, (_, i) => {
    const a = (2 * Math.PI * i) / PIECES
    const x = wide * Math.cos(a)
    return { x: centre.x + x, y: centre.y + high * Math.sin(a) + (arch * x * x) / wide }
  })

/** Share of its height that the lower body has at a share of the cycle: rest, squashed at a quarter, long at the half, at rest again at three quarters. */
function heightAt({ squash, stretch }: SoftNumbers, share: number): number {
  const u = ((share % 1) + 1) % 1
  const between = (a: number, b: number, from: number) => a + (b - a) * softly((u - from) * 4)
  if (u < 1 / 4) return between(1, 1 - squash, 0)
  if (u < 1 / 2) return between(1 - squash, 1 + stretch, 1 / 4)
  if (u < 3 / 4) return between(1 + stretch, 1, 1 / 2)
  return 1
}

/** An arch of this share of the one at which the upper body would close round the lower one is the most there is. */
const MOST_ARCH = 0.8

function planSoft(numbers: SoftNumbers): SoftPlan {
  const { drawings: count, exposure: n, x, ground, lowWide, lowHigh, wide, high, hangs } = numbers
  const lows = Array.from({ length: count }, (_, i) => {
    const s = heightAt(numbers, i / count)
    return { centre: { x, y: ground - lowHigh * s }, wide: lowWide / s, high: lowHigh * s }
  })
  const at = <T>(list: readonly T[], i: number): T => list[((i % count) + count) % count] as T
  const tops = lows.map(low => low.centre.y - low.high)
  const pushes = tops.map((top, i) => Math.max(0, 2 * top - at(tops, i - 1) - at(tops, i + 1)))
  const greatest = Math.max(...pushes, 1e-9)
  const feet = feetOf(numbers, tops)
  const pairs = lows.map((low, i): SoftPair => {
    const foot = at(feet, i)
    const speed = foot - at(feet, i - 1)
    const fastest = Math.max(1e-9, ...feet.map((one, k) => one - at(feet, k - 1)))
    const s = 1 + numbers.follows * Math.max(0, speed / fastest)
    const [a, h] = [wide / s, high * s]
    const most = MOST_ARCH * (h / (2 * a) + (a * low.high) / (2 * low.wide ** 2))
    const arch = numbers.arch * most * (at(pushes, i - numbers.lag) / greatest)
    return { low, up: { centre: { x, y: foot - h }, wide: a, high: h, arch }, apart: (tops[i] as number) - foot }
  })
  const quarter = (k: number) => Math.floor((k * count) / 4 + 1 / 2)
  const names = new Map([
    [0, 'rest'],
    [quarter(1), 'squashed'],
    [quarter(2), 'long'],
    [quarter(3), 'recovers'],
  ])
  const widest = Math.max(...pairs.map(pair => pair.apart))
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: count * n,
    loops: true,
    drawings: namedDrawings(count, n, names),
    exposures: oneByOne(count, n),
    marks: ['top', 'upper'],
    told: [
      ...(hangs > 0 && widest >= 1 ? [`they part by ${Math.round(widest)} px at the top`] : []),
      ...(numbers.arch === 1 ? ['it arches as far as it can without closing round the lower one'] : []),
    ],
    pairs,
  }
}

/** Heights of the lower edge of the upper body: carried up to the top, left there for some drawings, then it falls until it is carried again. */
function feetOf({ drawings: count, hangs }: SoftNumbers, tops: readonly number[]): number[] {
  const highest = tops.indexOf(Math.min(...tops))
  const released = highest + hangs
  const caught = Math.max(released + 1, Math.ceil((3 * count) / 4))
  return tops.map((top, i) => {
    if (i <= highest || i >= caught) return top
    const from = tops[highest] as number
    if (i <= released) return Math.min(top, from)
    const u = (i - released) / (caught - released)
    // It never comes lower than what carries it.
    return Math.min(top, from + ((tops[caught % count] as number) - from) * u * u)
  })
}
