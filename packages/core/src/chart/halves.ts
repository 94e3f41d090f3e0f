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
  readonly error: number
  readonly root: number
  /** how the root lies in its stretch; always half-way but for a breakdown that may lie on a third */
  readonly ratio: '1/2' | '1/3' | '2/3'
  readonly left: Tree | null
  readonly right: Tree | null
}

/**
 * The chart made only of halves that lies nearest to a wish: every tick exactly half-way between its two nearest
 * neighbours at the moment it is drawn. `wished` are increasing positions between 0 and 1; the answer has as many ticks,
 * in the same order. "Nearest" is the smallest largest error; of equally near charts the shallower one wins, then the one
 * whose breakdown comes earlier. Exact: every halving tree of depth ≤ `deepest` is considered. With `thirds` the breakdown
 * may also lie on a third of the way, with halves on both sides.
 *
 * The search divides the wish: the tree over the stretch (lo, hi) for wishes i..j has its root at the middle of the
 * stretch for one of those wishes, and the best trees of the two halves do not depend on each other.
 *
 * Throws when the wish does not increase, or holds more ticks than a tree of that depth.
 */
export function nearestHalves(wished: readonly number[], deepest = DEEPEST_HALVING, thirds = false): Tick[] {
  needIncreasing(wished)
  if (wished.length > 2 ** deepest - 1) {
    throw new UsageError(`${wished.length} ticks do not fit halves of depth ${deepest}`)
  }
  const tree = bestTree(wished, 0, wished.length, 0, 1, deepest, thirds)
  const ticks: Tick[] = new Array<Tick>(wished.length)
  if (tree) plant(tree, ticks, 0, { num: 0, den: 1 }, { num: 1, den: 1 }, KEY_A, KEY_B)
  return ticks
}

/** The largest distance between a chart and a wish of as many positions, as a share of the way. */
export function largestError(ticks: readonly Tick[], wished: readonly number[]): number {
  return ticks.reduce((worst, tick, i) => Math.max(worst, Math.abs(valueOf(tick.at) - (wished[i] as number))), 0)
}

const SHARES = { '1/2': 1 / 2, '1/3': 1 / 3, '2/3': 2 / 3 } as const

/** The best tree for wishes from..to-1 in the stretch lo..hi of the way; null when there are none. */
function bestTree(
  wished: readonly number[],
  from: number,
  to: number,
  lo: number,
  hi: number,
  levels: number,
  thirds: boolean,
): Tree | null {
  if (from === to) return null
  const room = 2 ** (levels - 1) - 1
  let best: Tree | null = null
  for (const ratio of thirds ? (['1/2', '1/3', '2/3'] as const) : (['1/2'] as const)) {
    const middle = lo + (hi - lo) * SHARES[ratio]
    for (let root = from; root < to; root++) {
      if (root - from > room || to - root - 1 > room) continue
      const left = bestTree(wished, from, root, lo, middle, levels - 1, false)
      const right = bestTree(wished, root + 1, to, middle, hi, levels - 1, false)
      const own = Math.abs(middle - (wished[root] as number))
      const tree = { error: Math.max(own, left?.error ?? 0, right?.error ?? 0), root, ratio, left, right }
      if (!best || isNearer(tree, best)) best = tree
    }
  }
  return best
}

const SAME_ERROR = 1e-12

function isNearer(a: Tree, b: Tree): boolean {
  if (Math.abs(a.error - b.error) > SAME_ERROR) return a.error < b.error
  return heightOf(a) < heightOf(b)
}

function heightOf(tree: Tree | null): number {
  return tree ? 1 + Math.max(heightOf(tree.left), heightOf(tree.right)) : 0
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
