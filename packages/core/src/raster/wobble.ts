import { distance, type Point } from '../geometry/point.ts'
import { map, type Matrix } from '../geometry/matrix.ts'
import { lengthOf } from '../geometry/stroke.ts'

/** The middle of a line as places that lie evenly along it, x and y in turn, paper pixels. */
export type Run = Float32Array

/** Places along a line lie so far apart, px; over more than so many of a drawing they lie farther apart. */
const STEP_PX = 4
const MOST_PLACES = 6000

/** Lines as places along them, `STEP_PX` apart; farther where there is very much of them. */
export function runsOf(lines: readonly (readonly Point[])[]): Run[] {
  const lengths = lines.map(lengthOf)
  const step = Math.max(STEP_PX, lengths.reduce((a, b) => a + b, 0) / MOST_PLACES)
  return lines.map((line, i) => evenly(line, lengths[i] as number, step))
}

function evenly(line: readonly Point[], length: number, step: number): Run {
  const run = new Float32Array(line.length === 0 ? 0 : 2 * (Math.floor(length / step) + 2))
  let count = 0
  let ahead = 0
  for (let i = 0; i < line.length; i++) {
    const b = line[i] as Point
    const a = line[i - 1] ?? b
    const piece = distance(a, b)
    for (; ahead <= piece && 2 * count < run.length; ahead += step) {
      const t = piece === 0 ? 0 : ahead / piece
      run[2 * count] = a.x + (b.x - a.x) * t
      run[2 * count + 1] = a.y + (b.y - a.y) * t
      count++
    }
    ahead -= piece
  }
  return run.slice(0, 2 * count)
}

/** Lines of another drawing are looked for no farther off than this, px, and have to run alike: the cosine of the angle between them. */
const REACH_PX = 14
const ALIKE = 0.8
/** Where the way to them changes by more from one place to the next, px, it is another line that is met. */
const LEAP_PX = 4
/** What is slower than this many places to both sides is movement, what is faster is a tremble. */
const HALF = 6

/** Pieces of lines by the cell they begin in, to be found by their place. */
class Pieces {
  private readonly cells = new Map<number, number[]>()
  private readonly ends: Float64Array
  private count = 0

  constructor(runs: readonly Run[], through: Matrix | null) {
    this.ends = new Float64Array(2 * runs.reduce((sum, run) => sum + run.length, 0))
    for (const run of runs) {
      let before: Point | null = null
      for (let i = 0; i < run.length; i += 2) {
        const own = { x: run[i] as number, y: run[i + 1] as number }
        const here: Point = through ? map(through, own) : own
        if (before) this.add(before, here)
        before = here
      }
    }
  }

  private add(a: Point, b: Point): void {
    const at = 4 * this.count++
    this.ends[at] = a.x
    this.ends[at + 1] = a.y
    this.ends[at + 2] = b.x
    this.ends[at + 3] = b.y
    const key = cellAt(Math.floor(a.x / REACH_PX), Math.floor(a.y / REACH_PX))
    const cell = this.cells.get(key)
    if (cell) cell.push(at)
    else this.cells.set(key, [at])
  }

  /** How far the nearest piece that runs along (tx, ty) lies to the left of a place, px; NaN where none is near. */
  leftOf(x: number, y: number, tx: number, ty: number): number {
    let best = REACH_PX * REACH_PX
    let found = Number.NaN
    const { ends } = this
    const cx = Math.floor(x / REACH_PX)
    const cy = Math.floor(y / REACH_PX)
    for (let i = cx - 1; i <= cx + 1; i++) {
      for (let j = cy - 1; j <= cy + 1; j++) {
        const cell = this.cells.get(cellAt(i, j))
        if (!cell) continue
        for (const at of cell) {
          const ax = ends[at] as number
          const ay = ends[at + 1] as number
          const dx = (ends[at + 2] as number) - ax
          const dy = (ends[at + 3] as number) - ay
          const squared = dx * dx + dy * dy
          if (squared === 0 || Math.abs(dx * tx + dy * ty) < ALIKE * Math.sqrt(squared)) continue
          const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / squared))
          const ox = ax + t * dx - x
          const oy = ay + t * dy - y
          const far = ox * ox + oy * oy
          if (far >= best) continue
          best = far
          found = ox * ty - oy * tx
        }
      }
    }
    return found
  }
}
const cellAt = (x: number, y: number): number => x * 65_536 + y

/** How a drawing's lines tremble against the same lines of the drawings beside it. */
export interface Wobble {
  /** root of the mean square, px */
  readonly px: number
  /** how much of its lines could be held against both, 0–1 */
  readonly share: number
}

/**
 * How much the lines of a drawing leave their neighbours’ in quick turns: how far theirs lie to the side, less what is as far over 24 px each way (a high pass by
 * a moving average), as far as both say the same. What moves, turns or is squashed does not count, nor does what trembles in another drawing. `before` and `after`: the lines of the two
 * drawings beside it, and the maps that bring them here (null: as they are). Null where nothing is near them.
 */
export function wobbleOf(
  own: readonly Run[],
  before: { readonly runs: readonly Run[]; readonly through: Matrix | null },
  after: { readonly runs: readonly Run[]; readonly through: Matrix | null },
): Wobble | null {
  const sides = [new Pieces(before.runs, before.through), new Pieces(after.runs, after.through)] as const
  let [squares, held, all] = [0, 0, 0]
  for (const run of own) {
    const [one, other] = sides.map(side => quickly(besideOf(run, side))) as [Float64Array, Float64Array]
    for (let i = 0; i < one.length; i++) {
      all++
      const [a, b] = [one[i] as number, other[i] as number]
      if (Number.isNaN(a + b)) continue
      held++
      if (a * b > 0) squares += Math.min(a * a, b * b)
    }
  }
  return held > 0 ? { px: Math.sqrt(squares / held), share: held / all } : null
}

/** How far other lines lie to the left of each place of a run, px; NaN where none does. */
function besideOf(run: Run, pieces: Pieces): Float64Array {
  const count = run.length / 2
  return Float64Array.from({ length: count }, (_, i) => {
    const [from, to] = [Math.max(0, i - 1), Math.min(count - 1, i + 1)]
    const tx = (run[2 * to] as number) - (run[2 * from] as number)
    const ty = (run[2 * to + 1] as number) - (run[2 * from + 1] as number)
    const length = Math.hypot(tx, ty)
    return length === 0
      ? Number.NaN
      : pieces.leftOf(run[2 * i] as number, run[2 * i + 1] as number, tx / length, ty / length)
  })
}

/** Values less the mean of those around them, where all of these are known and hang together; NaN elsewhere. */
function quickly(values: Float64Array): Float64Array {
  const found = new Float64Array(values.length).fill(Number.NaN)
  let from = 0
  for (let end = 1; end <= values.length; end++) {
    const leaps = !(Math.abs((values[end] as number) - (values[end - 1] as number)) <= LEAP_PX)
    if (end < values.length && !leaps) continue
    for (let i = from + HALF; i < end - HALF; i++) {
      let sum = 0
      for (let k = i - HALF; k <= i + HALF; k++) sum += values[k] as number
      found[i] = (values[i] as number) - sum / (2 * HALF + 1)
    }
    from = end
  }
  return found
}
