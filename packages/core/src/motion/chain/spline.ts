import type { Point } from '../../geometry/point.ts'
import type { FramedPlace } from '../recipe.ts'
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
 * A root that goes through given places, at least two, their frames increasing: by natural cubic splines between them, standing
 * before the first and after the last.
 */
export function rootThrough(places: readonly FramedPlace[]): Root {
  const frames = places.map(place => place.frame)
  const [x, y] = [places.map(place => place.at.x), places.map(place => place.at.y)]
  const curves = [naturalSpline(frames, x), naturalSpline(frames, y)] as const
  const [first, last] = [frames[0] as number, frames[frames.length - 1] as number]
  const read = (frame: number, nth: 0 | 1 | 2): Point => {
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
