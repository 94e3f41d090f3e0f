import { needWhole, UsageError } from '../errors.ts'
import { ease, PRESETS, USUAL_STRENGTH, wishes, type Preset } from './ease.ts'
import { between, KEY_A, KEY_B, MOST_TICKS, nearestHalves, shareOf, valueOf, type Tick } from './halves.ts'

/** What a chart can be wished to be: a preset, past the key and back, a curve drawn by hand, or ticks put by hand. */
export const EASES = [...PRESETS, 'overshoot', 'curve', 'hand'] as const
export type EaseName = (typeof EASES)[number]

/** What an animator asks of a chart; its ticks are the nearest that halves (and chosen thirds) can give. */
export interface Wish {
  readonly ease: EaseName
  /** 0–1; 0.5 is the usual amount. For overshoot: below 0.5 an eighth past the key, from there on a quarter */
  readonly strength: number
  /** whether the breakdown may lie on a third of the way */
  readonly thirds: boolean
  /**
   * curve: how far along (0–1, not falling) at equal steps of time from A to B, both ends included;
   * hand: where the ticks before the later key were put, in order, and behind them 1 for every tick past it; empty for all others
   */
  readonly points: readonly number[]
}

/** The most points of a curve drawn by hand. */
export const MOST_CURVE_POINTS = 65

/** The wish for a preset at its usual strength. Favouring a key allows thirds, since it means one. */
export function presetWish(preset: Preset, strength = USUAL_STRENGTH): Wish {
  return { ease: preset, strength, thirds: preset === 'favour-a' || preset === 'favour-b', points: [] }
}

/** How far apart two wished positions must be: far finer than anyone can draw. */
const LEAST_STEP = 1e-6

/**
 * The positions a wish asks for with `count` inbetweens, before halves are looked for: increasing, inside 0–1. For an
 * overshoot these are the inbetweens before the key is passed. Throws when a curve or ticks put by hand are unfit.
 */
export function wishedPositions(wish: Wish, count: number): number[] {
  needWhole(count, 0, 'number of inbetweens')
  if (wish.ease === 'hand') return wish.points.slice(0, count).filter(t => t < 1)
  if (wish.ease === 'curve') {
    needCurve(wish.points)
    return spacedOut(Array.from({ length: count }, (_, i) => alongCurve(wish.points, (i + 1) / (count + 1))))
  }
  if (wish.ease === 'overshoot') {
    const inner = count - pastCount(count)
    return Array.from({ length: inner }, (_, i) => ease('slow-out', (i + 1) / (inner + 1), 0.25))
  }
  return wishes(wish.ease, count, wish.strength)
}

/** Drawings past the key in an overshoot of so many: the overshoot itself, and with five or more one to settle. */
const pastCount = (count: number): number => (count === 0 ? 0 : count < 5 ? 1 : 2)

/** Ticks past the later key among `count`. */
function pastIn(wish: Wish, count: number): number {
  if (wish.ease === 'overshoot') return pastCount(count)
  return wish.ease === 'hand' ? wish.points.filter(t => t >= 1).length : 0
}

/**
 * The ticks of a chart with `count` inbetweens (0–11): the nearest that can be drawn by halves, in the order of time.
 * An overshoot ends with a tick past B (9/8 or 5/4 of the way) and, with five or more, the half between that and B.
 * Ticks put by hand decide their count themselves, and may end so too. Throws on a count outside 0–11 and on unfit points.
 */
export function wishTicks(wish: Wish, count: number): Tick[] {
  const n = wish.ease === 'hand' ? wish.points.length : count
  needWhole(n, 0, 'number of inbetweens')
  if (n > MOST_TICKS) throw new UsageError(`a chart holds at most ${MOST_TICKS} inbetweens, not ${n}`)
  const inner = nearestHalves(wishedPositions(wish, n), undefined, wish.thirds)
  const beyond = pastIn(wish, n)
  if (beyond > 2) throw new UsageError(`${beyond} ticks past the key are more than an overshoot and one to settle`)
  if (beyond === 0) return inner
  const ratio = pastRatio(wish)
  const ends = [
    { num: 0, den: 1 },
    { num: 1, den: 1 },
  ] as const
  const past: Tick = { at: between(ends[0], ends[1], ratio), left: KEY_A, right: KEY_B, ratio, depth: 0 }
  const settle: Tick = {
    at: between(past.at, ends[1], '1/2'),
    left: inner.length,
    right: KEY_B,
    ratio: '1/2',
    depth: 1,
  }
  return beyond === 2 ? [...inner, past, settle] : [...inner, past]
}

/** Whether an even chart of so many inbetweens can really be drawn evenly, and what can be done when it cannot. */
export interface Evenness {
  readonly byHalves: boolean
  /** with the breakdown on a third of the way */
  readonly byThirds: boolean
  /** the nearest numbers that halves give evenly: fewer and more; empty when halves do */
  readonly nearest: readonly number[]
}

/** How even `count` inbetweens can be: halves give 1, 3 and 7 evenly, a third of the way 2, 5 and 11 as well. */
export function evenness(count: number): Evenness {
  const isEven = (n: number, thirds: boolean) =>
    wishTicks({ ...presetWish('even'), thirds }, n).every((tick, i) => tick.at.num * (n + 1) === tick.at.den * (i + 1))
  const byHalves = isEven(count, false)
  const others = Array.from({ length: MOST_TICKS }, (_, i) => i + 1).filter(n => isEven(n, false))
  const nearest = [others.filter(n => n < count).pop(), others.find(n => n > count)].filter(n => n !== undefined)
  return { byHalves, byThirds: isEven(count, true), nearest: byHalves ? [] : nearest }
}

/** A chart of a preset at its usual strength. */
export const presetTicks = (preset: Preset, count: number): Tick[] => wishTicks(presetWish(preset), count)

const isCurve = (points: readonly number[]): boolean =>
  points.length >= 2 &&
  points.length <= MOST_CURVE_POINTS &&
  points.every((p, i) => p >= 0 && p <= 1 && (i === 0 || p >= (points[i - 1] as number)))

function needCurve(points: readonly number[]): void {
  if (!isCurve(points)) throw new UsageError('a curve needs 2 to 65 points between 0 and 1 that do not fall')
}

/** Whether the numbers of a wish can be used; a chart, or the way of a layer, is refused otherwise. No ticks are looked for. */
export function isUsableWish({ ease, strength, points }: Wish): boolean {
  if (!(EASES.includes(ease) && strength >= 0 && strength <= 1)) return false
  if (ease === 'curve') return isCurve(points)
  if (ease !== 'hand') return true
  const inner = points.filter(t => t < 1)
  const past = points.filter(t => t >= 1).length
  const rises = inner.every((t, i) => t > (inner[i - 1] ?? 0))
  return points.length <= MOST_TICKS && past <= 2 && inner.length + past === points.length && rises
}

/** How far past the key a wish goes, as a share of the way: an eighth below the usual strength, a quarter from there on. */
const pastRatio = (wish: Wish): '9/8' | '5/4' => (wish.strength < USUAL_STRENGTH ? '9/8' : '5/4')

/** Where in its time an overshoot is farthest. */
const FARTHEST_AT = 3 / 4

/**
 * How far along (0 at A, 1 at B) a wish is at the share `u` (0–1) of its time, as a curve that no drawing is needed for.
 * Presets are those of `ease`. An overshoot goes by half a cosine to its farthest at three quarters of the time, and by
 * another one back to the key. Ticks put by hand, and the points of a drawn curve, are joined by straight lines at equal
 * steps of time. Throws a UsageError on points that are unfit.
 */
export function alongWish(wish: Wish, u: number): number {
  switch (wish.ease) {
    case 'curve':
      needCurve(wish.points)
      return alongCurve(wish.points, u)
    case 'hand':
      return alongCurve(alongTicks(wish, 0), u)
    case 'overshoot': {
      const most = shareOf(pastRatio(wish))
      if (u <= FARTHEST_AT) return (most / 2) * (1 - Math.cos((Math.PI * u) / FARTHEST_AT))
      return 1 + ((most - 1) / 2) * (1 + Math.cos((Math.PI * (u - FARTHEST_AT)) / (1 - FARTHEST_AT)))
    }
    default:
      return ease(wish.ease, u, wish.strength)
  }
}

const found = new WeakMap<Wish, Map<number, readonly number[]>>()

/** How far along the chart of a wish with `count` inbetweens is at every step, both keys included; looked for once for each wish. */
export function alongTicks(wish: Wish, count: number): readonly number[] {
  const known = found.get(wish) ?? new Map<number, readonly number[]>()
  found.set(wish, known)
  const there = known.get(count)
  if (there) return there
  const steps = [0, ...wishTicks(wish, count).map(tick => valueOf(tick.at)), 1]
  known.set(count, steps)
  return steps
}

function alongCurve(points: readonly number[], u: number): number {
  const x = u * (points.length - 1)
  const i = Math.min(points.length - 2, Math.floor(x))
  const [a, b] = [points[i] as number, points[i + 1] as number]
  return a + (b - a) * (x - i)
}

/** Where a curve stands still the positions are kept a hair apart and inside the keys. */
function spacedOut(ts: readonly number[]): number[] {
  const n = ts.length
  let least = 0
  return ts.map((t, i) => {
    least = Math.max(least + LEAST_STEP, Math.min(t, 1 - (n - i) * LEAST_STEP))
    return least
  })
}

/**
 * A curve from a hand's track (places in a unit square, time to the right, way upwards): even steps, never falling. What
 * the hand left out at either end is a straight line from (0, 0), or on to (1, 1).
 */
export function curveFromTrack(track: readonly { readonly x: number; readonly y: number }[], steps = 17): number[] {
  const sorted = [...track].sort((a, b) => a.x - b.x)
  let highest = 0
  return Array.from({ length: steps }, (_, i) => {
    const u = i / (steps - 1)
    const y = i === 0 ? 0 : i === steps - 1 ? 1 : heightAt(sorted, u)
    highest = Math.max(highest, Math.min(1, Math.max(0, y)))
    return highest
  })
}

function heightAt(sorted: readonly { readonly x: number; readonly y: number }[], u: number): number {
  const found = sorted.findIndex(p => p.x >= u)
  const next = found < 0 ? sorted.length : found
  const [a, b] = [sorted[next - 1], sorted[next]]
  const from = a ?? { x: 0, y: 0 }
  const to = b ?? { x: 1, y: 1 }
  return to.x - from.x < 1e-9 ? to.y : from.y + ((to.y - from.y) * (u - from.x)) / (to.x - from.x)
}

/** Half-way between the two overshoots that can be drawn: nearer than this to the key it is the small one. */
const SMALL_OVERSHOOT = (9 / 8 + 5 / 4) / 2

/**
 * The wish after one tick was dragged to `t`: the others stay wished for where they are, the overshoot included. Dragged
 * itself, an overshoot becomes the nearer of an eighth and a quarter past the key; the tick that settles it is its half.
 */
export function withTickAt(ticks: readonly Tick[], index: number, t: number, thirds: boolean): Wish {
  const overshoot = ticks.findIndex(tick => valueOf(tick.at) > 1)
  const at = (tick: Tick, i: number) => {
    if (i !== index) return valueOf(tick.at)
    if (overshoot < 0 || i < overshoot) return Math.min(1 - LEAST_STEP, t)
    return i > overshoot ? valueOf(tick.at) : t < SMALL_OVERSHOOT ? 9 / 8 : 5 / 4
  }
  const wished = ticks.map(at)
  const alone = placeLeavingOthers(wished, index, thirds)
  return handWish(alone === null ? wished : wished.map((now, i) => (i === index ? alone : now)), thirds)
}

/** Every place that halves of halves, and thirds, can reach. */
const REACHABLE = [...new Set([16, 24].flatMap(den => Array.from({ length: den - 1 }, (_, i) => (i + 1) / den)))]

/** The place nearest to where a tick was dragged that leaves all others where they are; null when it passed one, or there is none. */
function placeLeavingOthers(wished: readonly number[], index: number, thirds: boolean): number | null {
  const inner = wished.filter(t => t < 1)
  const t = inner[index]
  if (t === undefined || t <= (inner[index - 1] ?? 0) || t >= (inner[index + 1] ?? 1)) return null
  const near = REACHABLE.filter(place => place > (inner[index - 1] ?? 0) && place < (inner[index + 1] ?? 1))
  near.sort((a, b) => Math.abs(a - t) - Math.abs(b - t))
  const keeps = (place: number) => {
    const asked = inner.map((now, i) => (i === index ? place : now))
    return nearestHalves(asked, undefined, thirds).every(
      (tick, i) => Math.abs(valueOf(tick.at) - (asked[i] as number)) < 1e-9,
    )
  }
  return near.find(keeps) ?? null
}

/** The wish with one more tick at `t` between the keys; null when the chart is full. */
export function withTickAdded(ticks: readonly Tick[], t: number, thirds: boolean): Wish | null {
  if (ticks.length >= MOST_TICKS) return null
  return handWish([Math.min(1 - LEAST_STEP, t), ...ticks.map(tick => valueOf(tick.at))], thirds)
}

/** The wish without one tick. */
export function withoutTick(ticks: readonly Tick[], index: number, thirds: boolean): Wish {
  return handWish(
    ticks.filter((_, i) => i !== index).map(tick => valueOf(tick.at)),
    thirds,
  )
}

/** The wish for ticks at `ts`, those past the key behind the others in the order of time. */
function handWish(ts: readonly number[], thirds: boolean): Wish {
  const past = ts.filter(t => t >= 1)
  const inside = ts.filter(t => t < 1).sort((a, b) => a - b)
  const points = [...spacedOut(inside.map(t => Math.max(LEAST_STEP, t))), ...past.map(() => 1)]
  const small = past.length > 0 && (past[0] as number) < SMALL_OVERSHOOT
  return { ease: 'hand', strength: small ? USUAL_STRENGTH / 2 : USUAL_STRENGTH, thirds, points }
}

/**
 * The share of the way covered by each step of a chart, keys included: one more number than there are ticks, sum 1. A
 * step back (from an overshoot to the key) is negative.
 */
export function steps(ticks: readonly Tick[]): number[] {
  const ts = [0, ...ticks.map(tick => valueOf(tick.at)), 1]
  return ts.slice(1).map((t, i) => t - (ts[i] as number))
}
