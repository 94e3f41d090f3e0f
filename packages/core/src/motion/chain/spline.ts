import type { Point } from '../../geometry/point.ts'
import type { Way } from '../recipe.ts'
import type { Root } from './spring.ts'

/** A natural cubic spline of one coordinate: values at frames, and the second derivatives there (de Boor 1978, ch. IV). */
interface Curve {
  readonly frames: readonly number[]
  readonly values: readonly number[]
  readonly seconds: readonly number[]
}

function naturalSpline(frames: readonly number[], values: readonly number[]): Curve {
  const n = frames.length
  const seconds = new Array<number>(n).fill(0)
  const upper = new Array<number>(n).fill(0)
  const right = new Array<number>(n).fill(0)
  const at = (list: readonly number[], i: number) => list[i] as number
  // Thomas' elimination of the three diagonals.
  for (let i = 1; i < n - 1; i++) {
    const [before, after] = [at(frames, i) - at(frames, i - 1), at(frames, i + 1) - at(frames, i)]
    const slope = (at(values, i + 1) - at(values, i)) / after - (at(values, i) - at(values, i - 1)) / before
    const pivot = 2 * (before + after) - before * at(upper, i - 1)
    upper[i] = after / pivot
    right[i] = (6 * slope - before * at(right, i - 1)) / pivot
  }
  for (let i = n - 2; i > 0; i--) seconds[i] = at(right, i) - at(upper, i) * at(seconds, i + 1)
  return { frames, values, seconds }
}

/** Sweeps that find a periodic spline: every one halves what is wrong at least, since each pivot is twice what lies beside it. */
const SWEEPS = 60

/**
 * The cubic spline that goes on after `period` frames as it began (de Boor 1978, ch. IV): for every knot, with the steps h on its two sides,
 * h₋M₋ + 2(h₋ + h₊)M + h₊M₊ = 6(slope₊ − slope₋), round; solved by Gauss and Seidel. The first knot is repeated at its end.
 */
function periodicSpline(knots: readonly number[], values: readonly number[], period: number): Curve {
  const n = knots.length
  const frames = [...knots, (knots[0] as number) + period]
  const round = [...values, values[0] as number]
  const steps = knots.map((frame, i) => (frames[i + 1] as number) - frame)
  const slopes = steps.map((step, i) => ((round[i + 1] as number) - (round[i] as number)) / step)
  const seconds = new Array<number>(n).fill(0)
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    for (let i = 0; i < n; i++) {
      const [before, after] = [(i + n - 1) % n, (i + 1) % n]
      const [left, right] = [steps[before] as number, steps[i] as number]
      const rise = 6 * ((slopes[i] as number) - (slopes[before] as number))
      const beside = left * (seconds[before] as number) + right * (seconds[after] as number)
      seconds[i] = (rise - beside) / (2 * (left + right))
    }
  }
  return { frames, values: round, seconds: [...seconds, seconds[0] as number] }
}

/** Value, speed and acceleration of a spline on a frame within it. */
function readSpline({ frames, values, seconds }: Curve, frame: number): readonly [number, number, number] {
  const next = frames.findIndex(f => f > frame)
  const i = next < 0 ? frames.length - 2 : Math.max(0, next - 1)
  const [a, b] = [frames[i] as number, frames[i + 1] as number]
  const [p, q] = [values[i] as number, values[i + 1] as number]
  const [s, t] = [seconds[i] as number, seconds[i + 1] as number]
  const h = b - a
  const [u, v] = [(b - frame) / h, (frame - a) / h]
  return [
    u * p + v * q + (((u ** 3 - u) * s + (v ** 3 - v) * t) * h * h) / 6,
    (q - p) / h + ((-(3 * u * u - 1) * s + (3 * v * v - 1) * t) * h) / 6,
    u * s + v * t,
  ]
}

/**
 * A root that goes through given places, at least two, their frames increasing: by cubic splines between them. One that goes round
 * in `period` frames (all places lie within it) goes on for ever; else it stands before the first place and after the last.
 */
export function rootThrough({ places, period }: Way): Root {
  const frames = places.map(place => place.frame)
  const spline = (values: readonly number[]) =>
    period === null ? naturalSpline(frames, values) : periodicSpline(frames, values, period)
  const curves = [spline(places.map(place => place.at.x)), spline(places.map(place => place.at.y))] as const
  const [first, last] = [frames[0] as number, frames[frames.length - 1] as number]
  const read = (frame: number, nth: 0 | 1 | 2): Point => {
    if (period !== null) {
      const turned = first + ((((frame - first) % period) + period) % period)
      return { x: readSpline(curves[0], turned)[nth], y: readSpline(curves[1], turned)[nth] }
    }
    const at = Math.max(first, Math.min(last, frame))
    const stands = nth > 0 && (frame < first || frame > last)
    const of = (curve: Curve) => (stands ? 0 : readSpline(curve, at)[nth])
    return { x: of(curves[0]), y: of(curves[1]) }
  }
  return {
    at: frame => read(frame, 0),
    velocity: frame => read(frame, 1),
    acceleration: frame => read(frame, 2),
  }
}
