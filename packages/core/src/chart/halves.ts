import { UsageError } from '../errors.ts'
import { needIncreasing } from './ease.ts'

/** A chart position as an exact fraction: `num / den`. */
export interface Fraction {
  readonly num: number
  readonly den: number
}

/**
 * How a tick lies between its two parents: half-way, or (marked on paper) at one or two thirds; or past the second one,
 * by an eighth or a quarter of the way between them.
 */
export const RATIOS = ['1/2', '1/3', '2/3', '9/8', '5/4'] as const
export type Ratio = (typeof RATIOS)[number]

/** The earlier key of a chart, where a tick names its parents. */
export const KEY_A = -1
/** The later key of a chart, where a tick names its parents. */
export const KEY_B = -2

/** One inbetween of a chart. */
export interface Tick {
  /** the share of the way from A to B */
  readonly at: Fraction
  /** the drawings it is made from: the index of another tick, KEY_A or KEY_B */
  readonly left: number
  readonly right: number
  readonly ratio: Ratio
  /** 0 for the breakdown, 1 for the halves beside it, 2 for the halves of halves … */
  readonly depth: number
}

/** Halves deeper than this cannot be judged by eye. A tree of depth 4 holds up to 15 ticks. */
export const DEEPEST_HALVING = 4

/** The most drawings a chart may ask for between two keys. */
export const MOST_TICKS = 11

/** The value of a fraction. */
export function valueOf(f: Fraction): number {
  return f.num / f.den
}

/** A fraction as people write it: "3/8". */
export function fractionLabel(f: Fraction): string {
  return `${f.num}/${f.den}`
}

interface Tree {
  /** the largest distance of a tick from its wish, and the sum of all squared */
  readonly largest: number
  readonly squares: number
  readonly height: number
  readonly root: number
  /** how the root lies in its stretch; always half-way but for a breakdown that may lie on a third */
  readonly ratio: '1/2' | '1/3' | '2/3'
  readonly left: Tree | null
  readonly right: Tree | null
}

/**
 * The chart made only of halves that lies nearest to a wish: every tick exactly half-way between its two nearest
 * neighbours at the moment it is drawn. `wished` are increasing positions between 0 and 1; the answer has as many ticks,
 * in the same order. Nearer is the chart whose largest error is smaller; where these are alike, the one that is nearer with all its other
 * ticks (the sum of squared errors). Of equally near charts the one that mirrors itself wins, then the shallower one, then
 * the one whose halves lie towards the nearer key, so that a wish seen in a mirror gives the chart seen in a mirror. Exact:
 * every halving tree of depth ≤ `deepest` is considered. With `thirds` the breakdown may also lie on a third of the way,
 * with halves on both sides.
 *
 * The search divides the wish: the tree over the stretch (lo, hi) for wishes i..j has its root at the middle of the
 * stretch for one of those wishes, and the best trees of the two halves do not depend on each other. It is done twice: for
 * the least largest error, and then, with that as the limit, for the least squares.
 *
 * Throws when the wish does not increase, or holds more ticks than a tree of that depth.
 */
export function nearestHalves(wished: readonly number[], deepest = DEEPEST_HALVING, thirds = false): Tick[] {
  needIncreasing(wished)
  if (wished.length > 2 ** deepest - 1) {
    throw new UsageError(`${wished.length} ticks do not fit halves of depth ${deepest}`)
  }
  const search = { wished, thirds, by: 'largest' as const, limit: Infinity }
  const limit = bestTree(search, 0, wished.length, 0, 1, deepest)?.largest ?? 0
  const tree = bestTree({ ...search, by: 'squares', limit: limit + SAME_ERROR }, 0, wished.length, 0, 1, deepest)
  const ticks: Tick[] = new Array<Tick>(wished.length)
  if (tree) plant(tree, ticks, 0, { num: 0, den: 1 }, { num: 1, den: 1 }, KEY_A, KEY_B)
  return ticks
}

/** The largest distance between a chart and a wish of as many positions, as a share of the way. */
export function largestError(ticks: readonly Tick[], wished: readonly number[]): number {
  return ticks.reduce((worst, tick, i) => Math.max(worst, Math.abs(valueOf(tick.at) - (wished[i] as number))), 0)
}

const SHARES = { '1/2': 1 / 2, '1/3': 1 / 3, '2/3': 2 / 3 } as const

interface Search {
  readonly wished: readonly number[]
  readonly thirds: boolean
  /** which error is to be small; no tick may lie farther off than `limit` */
  readonly by: 'largest' | 'squares'
  readonly limit: number
}

/** The best tree for wishes from..to-1 in the stretch lo..hi of the way; null when there are none, or none that fit. */
function bestTree(search: Search, from: number, to: number, lo: number, hi: number, levels: number): Tree | null {
  const { wished, by, limit } = search
  const room = 2 ** (levels - 1) - 1
  const backwards = leansLate(wished, lo, hi)
  const whole = lo === 0 && hi === 1
  let best: Tree | null = null
  for (const ratio of whole && search.thirds ? (['1/2', '1/3', '2/3'] as const) : (['1/2'] as const)) {
    const middle = lo + (hi - lo) * SHARES[ratio]
    for (let k = 0; k < to - from; k++) {
      const root = backwards ? to - 1 - k : from + k
      if (root - from > room || to - root - 1 > room) continue
      const own = Math.abs(middle - (wished[root] as number))
      if (own > limit) continue
      const left = bestTree(search, from, root, lo, middle, levels - 1)
      const right = bestTree(search, root + 1, to, middle, hi, levels - 1)
      if ((!left && root > from) || (!right && root + 1 < to)) continue
      const tree: Tree = {
        largest: Math.max(own, left?.largest ?? 0, right?.largest ?? 0),
        squares: own ** 2 + (left?.squares ?? 0) + (right?.squares ?? 0),
        height: 1 + Math.max(left?.height ?? 0, right?.height ?? 0),
        root,
        ratio,
        left,
        right,
      }
      if (!best || isNearer(tree, best, by, whole)) best = tree
    }
  }
  return best
}

/** Whether equally good halves of a stretch are looked for from its end: what lies behind the middle mirrors what lies before. */
function leansLate(wished: readonly number[], lo: number, hi: number): boolean {
  const middle = (lo + hi) / 2
  if (Math.abs(middle - 1 / 2) > SAME_ERROR) return middle > 1 / 2
  return wished.reduce((sum, t) => sum + t - 1 / 2, 0) > SAME_ERROR
}

const SAME_ERROR = 1e-12

function isNearer(a: Tree, b: Tree, by: 'largest' | 'squares', whole: boolean): boolean {
  if (Math.abs(a[by] - b[by]) > SAME_ERROR) return a[by] < b[by]
  const [evenA, evenB] = [whole && mirrorsItself(a), whole && mirrorsItself(b)]
  return evenA === evenB ? a.height < b.height : evenA
}

/** Whether a chart reads the same from its other end. */
function mirrorsItself(tree: Tree): boolean {
  const ticks: Tick[] = []
  plant(tree, ticks, 0, { num: 0, den: 1 }, { num: 1, den: 1 }, KEY_A, KEY_B)
  return ticks.every((tick, i) => {
    const twin = ticks[ticks.length - 1 - i] as Tick
    return Math.abs(valueOf(tick.at) + valueOf(twin.at) - 1) < SAME_ERROR && tick.depth === twin.depth
  })
}

function plant(tree: Tree, out: Tick[], depth: number, a: Fraction, b: Fraction, left: number, right: number): void {
  const at = between(a, b, tree.ratio)
  out[tree.root] = { at, left, right, ratio: tree.ratio, depth }
  if (tree.left) plant(tree.left, out, depth + 1, a, at, left, tree.root)
  if (tree.right) plant(tree.right, out, depth + 1, at, b, tree.root, right)
}

/** Weights of the two parents, and what they are parts of. */
const WEIGHTS: Record<Ratio, readonly [a: number, b: number, parts: number]> = {
  '1/2': [1, 1, 2],
  '1/3': [2, 1, 3],
  '2/3': [1, 2, 3],
  '9/8': [-1, 9, 8],
  '5/4': [-1, 5, 4],
}

/** A ratio as a number: 1/2, 9/8 … */
export const shareOf = (ratio: Ratio): number => WEIGHTS[ratio][1] / WEIGHTS[ratio][2]

/** The position at a ratio of the way from a to b, as a reduced fraction. */
export function between(a: Fraction, b: Fraction, ratio: Ratio): Fraction {
  const [weightA, weightB, parts] = WEIGHTS[ratio]
  return reduced(weightA * a.num * b.den + weightB * b.num * a.den, parts * a.den * b.den)
}

function reduced(num: number, den: number): Fraction {
  let [a, b] = [num, den]
  while (b !== 0) [a, b] = [b, a % b]
  return { num: num / a, den: den / a }
}

/**
 * The order in which the ticks of a chart are drawn, as indices into it: the breakdown first, then the halves, then the
 * halves of halves, left before right. Both parents of a tick always come before it.
 */
export function drawingOrder(ticks: readonly Tick[]): number[] {
  return ticks.map((_, i) => i).sort((a, b) => (ticks[a] as Tick).depth - (ticks[b] as Tick).depth || a - b)
}
