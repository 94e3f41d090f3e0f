import { after, inverse, type Matrix } from '../geometry/matrix.ts'
import { valueAt, type Grey, type Plane } from '../raster/grey.ts'
import { matrixOfSimilarity, type Similarity } from '../geometry/similarity.ts'
import { smaller } from './smaller.ts'

/** How a drawing is laid on another one. */
export interface Laid {
  /** from pixels of the drawing to those of the other */
  readonly matrix: Matrix
  /** how much of the ink lies on ink of the other then, 0–1: the normalised correlation of both, softened */
  readonly alike: number
}

/** Sizes of the longer side at which two drawings are held against each other, coarse to fine. */
const SIZES = [56, 112, 224, 448, 900]
/** Turns that are tried at first, radians, and steps of Gauss and Newton at each size. */
const TURNS = [-0.18, -0.09, 0, 0.09, 0.18]
const STEPS = [24, 16, 12, 10, 8]
/** Ink is softened by so many pixels of the size it is held against at: lines that do not meet yet feel each other. */
const SOFT = 2
/** How much larger or smaller it may be made. */
const MOST_SCALE = 1.35

const { abs, exp, log, max, min, sqrt } = Math

/** Ink softened by a window, so many times. */
function softened({ width, height, data }: Grey, times: number): Plane {
  let now = Float32Array.from(data)
  const at = (x: number, y: number) =>
    now[(y < 0 ? 0 : y >= height ? height - 1 : y) * width + (x < 0 ? 0 : x >= width ? width - 1 : x)] as number
  for (let turn = 0; turn < times; turn++) {
    const next = new Float32Array(now.length)
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        next[y * width + x] =
          (4 * at(x, y) +
            2 * (at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1)) +
            at(x - 1, y - 1) +
            at(x + 1, y - 1) +
            at(x - 1, y + 1) +
            at(x + 1, y + 1)) /
          16
      }
    }
    now = next
  }
  return { width, height, data: now }
}

interface Weighed {
  readonly x: number
  readonly y: number
  readonly spread: number
}

/** The middle of ink and how far it spreads about it (root mean square), pixels. */
function weighed({ width, data }: Plane): Weighed {
  let [all, sx, sy, ss] = [1e-9, 0, 0, 0]
  for (let i = 0; i < data.length; i++) {
    const ink = data[i] as number
    if (ink === 0) continue
    const [x, y] = [i % width, (i / width) | 0]
    all += ink
    sx += ink * x
    sy += ink * y
    ss += ink * (x * x + y * y)
  }
  const [x, y] = [sx / all, sy / all]
  return { x, y, spread: sqrt(max(1e-6, ss / all - x * x - y * y)) }
}

/** What is looked for while one drawing is laid on another: about the middle of the other, so that turn and shift do not pull at each other. */
interface State {
  readonly dx: number
  readonly dy: number
  readonly turn: number
  readonly grow: number
}

/** The map from pixels of the reference (about its middle) to pixels of the drawing. */
const toDrawing = (state: State, of: Weighed, to: Weighed): Matrix => {
  const turned: Similarity = {
    shiftX: of.x + state.dx,
    shiftY: of.y + state.dy,
    turnRad: state.turn,
    scale: exp(state.grow),
  }
  return after([1, 0, 0, 1, -to.x, -to.y], matrixOfSimilarity(turned))
}

/** How alike both are where the reference is looked at through a map: −1 to 1. */
function alike(reference: Plane, drawing: Plane, [a, b, c, d, e, f]: Matrix): number {
  let [sum, own, other, so, sw, n] = [0, 0, 0, 0, 0, 0]
  for (let y = 0; y < reference.height; y++) {
    for (let x = 0; x < reference.width; x++) {
      const wished = reference.data[y * reference.width + x] as number
      const there = inkAt(drawing, a * x + c * y + e, b * x + d * y + f)
      sum += wished * there
      own += wished * wished
      other += there * there
      so += wished
      sw += there
      n++
    }
  }
  const spread = (own - (so * so) / n) * (other - (sw * sw) / n)
  return spread > 1e-6 ? (sum - (so * sw) / n) / sqrt(spread) : 0
}

/** Ink between pixels; there is none beyond the edge. */
const inkAt = (plane: Plane, x: number, y: number): number =>
  x < -1 || y < -1 || x > plane.width || y > plane.height ? 0 : valueAt(plane, x, y)

/** One after the other steps of Gauss and Newton over shift, turn and growth (B. Lucas and T. Kanade, 1981), each kept small; stops where it no longer moves. */
function settle(reference: Plane, drawing: Plane, of: Weighed, to: Weighed, from: State, steps: number): State {
  let state = from
  const gain = strength(reference) / max(1e-6, strength(drawing))
  for (let turn = 0; turn < steps; turn++) {
    const [a, b, c, d, e, f] = toDrawing(state, of, to)
    const normal = new Float64Array(16)
    const side = new Float64Array(4)
    for (let y = 0; y < reference.height; y++) {
      for (let x = 0; x < reference.width; x++) {
        const [u, v] = [a * x + c * y + e, b * x + d * y + f]
        if (u < 1 || v < 1 || u > drawing.width - 2 || v > drawing.height - 2) continue
        const gx = (gain * (valueAt(drawing, u + 1, v) - valueAt(drawing, u - 1, v))) / 2
        const gy = (gain * (valueAt(drawing, u, v + 1) - valueAt(drawing, u, v - 1))) / 2
        if (gx === 0 && gy === 0) continue
        const error = (reference.data[y * reference.width + x] as number) - gain * valueAt(drawing, u, v)
        // How the place moves: with shift, with turn about the middle, with growth.
        const [px, py] = [u - of.x - state.dx, v - of.y - state.dy]
        const slopes = [gx, gy, gy * px - gx * py, gx * px + gy * py]
        // What is elsewhere altogether has less of a say.
        const weight = 1 / (1 + (error / 60) ** 2)
        for (let i = 0; i < 4; i++) {
          side[i] = (side[i] as number) + weight * (slopes[i] as number) * error
          for (let k = 0; k < 4; k++) {
            normal[4 * i + k] = (normal[4 * i + k] as number) + weight * (slopes[i] as number) * (slopes[k] as number)
          }
        }
      }
    }
    const step = solved(normal, side)
    if (!step) break
    const [dx, dy, dturn, dgrow] = step as [number, number, number, number]
    const most = log(MOST_SCALE)
    state = {
      dx: state.dx + max(-3, min(3, dx)),
      dy: state.dy + max(-3, min(3, dy)),
      turn: state.turn + max(-0.05, min(0.05, dturn)),
      grow: max(-most, min(most, state.grow + max(-0.04, min(0.04, dgrow)))),
    }
    if (abs(dx) + abs(dy) < 0.003 && abs(dturn) + abs(dgrow) < 1e-5) break
  }
  return state
}

const strength = ({ data }: Plane): number => {
  let [sum, squares] = [0, 0]
  for (const value of data) {
    sum += value
    squares += value * value
  }
  return sqrt(max(0, squares / data.length - (sum / data.length) ** 2))
}

/** Four equations with four unknowns, by elimination; a little is added where they do not suffice. Null where there is nothing to go by. */
function solved(normal: Float64Array, side: Float64Array): number[] | null {
  const rows = Array.from({ length: 4 }, (_, i) => [...normal.slice(4 * i, 4 * i + 4), side[i] as number])
  rows.forEach((row, i) => (row[i] = (row[i] as number) * (1 + 1e-6) + 1e-9))
  for (let i = 0; i < 4; i++) {
    const best = rows
      .slice(i)
      .reduce((at, row, k) => (abs(row[i] as number) > abs((rows[at] as number[])[i] as number) ? i + k : at), i)
    ;[rows[i], rows[best]] = [rows[best] as number[], rows[i] as number[]]
    const pivot = (rows[i] as number[])[i] as number
    if (abs(pivot) < 1e-8) return null
    rows.forEach((row, k) => {
      if (k === i) return
      const by = (row[i] as number) / pivot
      for (let j = i; j < 5; j++) row[j] = (row[j] as number) - by * ((rows[i] as number[])[j] as number)
    })
  }
  return rows.map((row, i) => (row[4] as number) / (row[i] as number))
}

/**
 * Lays a drawing on another one that shows much the same: shift, small turn and small scale by which the ink of both lies best on one another, found coarse to fine and between
 * pixels. Both are ink (255 at its fullest) in pixels of their own; begun where their middles of ink meet, tried with some turns. A blank one stays where it is. No
 * finer than at `finestPx` pixels of the longer side, where a rough answer is enough.
 */
export function alignedOn(reference: Grey, drawing: Grey, finestPx = Infinity): Laid {
  if (!reference.data.some(value => value > 0) || !drawing.data.some(value => value > 0)) {
    return { matrix: [1, 0, 0, 1, 0, 0], alike: 0 }
  }
  const long = max(reference.width, reference.height, drawing.width, drawing.height)
  const sizes = SIZES.filter((size, i) => i === 0 || ((SIZES[i - 1] as number) < long && size <= finestPx))
  let best: { state: State; per: number } | null = null
  let end: Laid = { matrix: [1, 0, 0, 1, 0, 0], alike: 0 }
  sizes.forEach((size, level) => {
    // Both are made smaller by the same: a pixel is as much of the one as of the other.
    const share = size / long
    const small = (one: Grey) => smaller(one, max(8, max(one.width, one.height) * share))
    const [a, b] = [small(reference), small(drawing)]
    const [one, other] = [softened(a.grey, SOFT), softened(b.grey, SOFT)]
    const [to, of] = [weighed(one), weighed(other)]
    const steps = STEPS[level] ?? 8
    const starts: State[] = best
      ? [{ ...best.state, dx: (best.state.dx * best.per) / a.by, dy: (best.state.dy * best.per) / a.by }]
      : TURNS.map(turn => ({ dx: 0, dy: 0, turn, grow: clampGrow(log(of.spread / to.spread)) }))
    const tried = starts.map(start => {
      const state = settle(one, other, of, to, start, steps)
      return { state, alike: alike(one, other, toDrawing(state, of, to)) }
    })
    const found = tried.reduce((x, y) => (y.alike > x.alike ? y : x))
    best = { state: found.state, per: a.by }
    const through = after(after(toSmall(a.by), toDrawing(found.state, of, to)), fromSmall(b.by))
    end = { matrix: inverse(through) ?? end.matrix, alike: found.alike }
  })
  return end
}

const clampGrow = (grow: number): number => max(-log(MOST_SCALE), min(log(MOST_SCALE), grow))
/** Between pixels of a picture and of a smaller one, middles of pixels on middles. */
const toSmall = (by: number): Matrix => [1 / by, 0, 0, 1 / by, 0.5 / by - 0.5, 0.5 / by - 0.5]
const fromSmall = (by: number): Matrix => [by, 0, 0, by, 0.5 * by - 0.5, 0.5 * by - 0.5]
