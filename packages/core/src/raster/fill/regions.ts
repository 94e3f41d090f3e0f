import type { LinePicture } from './lines.ts'
import { left, runsOfRow, widened, type Runs } from './runs.ts'

/** Labels that are none: off the paper, and lines while regions grow between them. */
const OFF = -1
const LINE = -2

/**
 * The regions that lines part the paper into: each pixel has its label from 1, those of lines that of either side. The grid
 * has a rim of one pixel round the picture (`stride` pixels a row), so that every pixel has its neighbours.
 */
export interface Regions {
  readonly picture: LinePicture
  readonly stride: number
  readonly labels: Int32Array
  /** the pixels between which regions may meet: of lines, and near them */
  readonly border: readonly Int32Array[]
  /** the regions that reach the edge of the paper */
  readonly atEdge: ReadonlySet<number>
}

/** Where a pixel of the picture is in the grid. */
export const indexOf = (stride: number, x: number, y: number): number => (y + 1) * stride + x + 1

/**
 * Parts the paper by its lines. Gaps of up to `gapPx` pixels of the picture are taken as closed: only what is farther from
 * lines (and the edge of the paper) than half of that grows together, and from there all regions grow back at the same
 * pace, so that two which meet in a gap part it in its middle, and two on both sides of a line part it in its middle. The
 * open paper is handled in runs of pixels; what takes time is the length of the lines.
 */
export function regionsOf(picture: LinePicture, gapPx: number): Regions {
  const { width, height, line } = picture
  const stride = width + 2
  const labels = new Int32Array(stride * (height + 2))
  labels.fill(OFF, 0, stride).fill(OFF, (height + 1) * stride)
  for (let row = stride; row < labels.length; row += stride) labels[row] = labels[row + stride - 1] = OFF

  const rows = Array.from({ length: height }, (_, y) => runsOfRow(line, width, y))
  const radius = (gapPx + 1) / 2
  const edge = Math.floor(radius)
  const near = widened(rows, radius)
  const open = near.map((runs, y): Runs => (y < edge || y >= height - edge ? [] : left(runs, edge, width - edge)))
  const found = labelRuns(labels, stride, open)

  const lines = pixelsOf(rows, stride)
  for (const i of lines) labels[i] = LINE
  // What is neither open nor line.
  const between = pixelsOf(
    open.map((runs, y): Runs => {
      const other = left(runs, 0, width)
      return other.flatMap((from, k) => (k % 2 === 0 ? left(rows[y] as Runs, from, other[k + 1] as number) : []))
    }),
    stride,
  )
  grow(labels, stride, between)
  labelPockets(labels, stride, between, found)
  for (const i of lines) labels[i] = 0
  grow(labels, stride, lines)
  return { picture, stride, labels, border: [between, lines], atEdge: edgesOf(labels, stride, width, height) }
}

/** The places in the grid of all pixels of runs. */
function pixelsOf(rows: readonly Runs[], stride: number): Int32Array {
  const count = rows.reduce((sum, runs) => runs.reduce((n, at, k) => n + (k % 2 === 0 ? -at : at), sum), 0)
  const pixels = new Int32Array(count)
  let end = 0
  rows.forEach((runs, y) => {
    const row = indexOf(stride, 0, y)
    for (let k = 0; k < runs.length; k += 2) {
      for (let x = runs[k] as number; x < (runs[k + 1] as number); x++) pixels[end++] = row + x
    }
  })
  return pixels
}

function edgesOf(labels: Int32Array, stride: number, width: number, height: number): Set<number> {
  const found = new Set<number>()
  const take = (x: number, y: number) => found.add(labels[indexOf(stride, x, y)] as number)
  for (let x = 0; x < width; x++) {
    take(x, 0)
    take(x, height - 1)
  }
  for (let y = 0; y < height; y++) {
    take(0, y)
    take(width - 1, y)
  }
  return found
}

/** Labels runs that touch in neighbouring rows alike, from 1 on. Answers with the next free label. */
function labelRuns(labels: Int32Array, stride: number, rows: readonly Runs[]): number {
  const parents: number[] = []
  const rootOf = (n: number): number => {
    let root = n
    while (parents[root] !== root) root = parents[root] as number
    parents[n] = root
    return root
  }
  let above: { readonly runs: Runs; readonly ids: readonly number[] } = { runs: [], ids: [] }
  const ids = rows.map(runs => {
    const own: number[] = []
    let k = 0
    for (let i = 0; i < runs.length; i += 2) {
      let id = -1
      while (k < above.runs.length && (above.runs[k + 1] as number) <= (runs[i] as number)) k += 2
      for (let n = k; n < above.runs.length && (above.runs[n] as number) < (runs[i + 1] as number); n += 2) {
        const other = rootOf(above.ids[n / 2] as number)
        if (id >= 0) parents[Math.max(id, other)] = Math.min(id, other)
        id = id < 0 ? other : Math.min(id, other)
      }
      own.push(id < 0 ? parents.push(parents.length) - 1 : id)
    }
    above = { runs, ids: own }
    return own
  })
  rows.forEach((runs, y) => {
    const at = indexOf(stride, 0, y)
    for (let i = 0; i < runs.length; i += 2) {
      const label = rootOf(ids[y]?.[i / 2] as number) + 1
      labels.fill(label, at + (runs[i] as number), at + (runs[i + 1] as number))
    }
  })
  return parents.length + 1
}

/** Labels what is still unlabelled among pixels, connected in four directions: pockets narrower than a gap everywhere. */
function labelPockets(labels: Int32Array, stride: number, pixels: Int32Array, first: number): void {
  let label = first
  for (const start of pixels) {
    if (labels[start] !== 0) continue
    const stack = [start]
    for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
      if (labels[i] !== 0) continue
      labels[i] = label
      stack.push(i - 1, i + 1, i - stride, i + stride)
    }
    label++
  }
}

/**
 * Labelled pixels grow into those of the list, which are unlabelled (0), all by one pixel at a time. Written out for each of
 * the four directions: this is what filling waits for.
 */
function grow(labels: Int32Array, stride: number, pixels: Int32Array): void {
  const queue = new Int32Array(pixels.length)
  let end = 0
  for (let k = 0; k < pixels.length; k++) {
    const i = pixels[k] as number
    const isBeside =
      (labels[i - 1] as number) > 0 ||
      (labels[i + 1] as number) > 0 ||
      (labels[i - stride] as number) > 0 ||
      (labels[i + stride] as number) > 0
    if (isBeside) queue[end++] = i
  }
  // The first step for all of them before any is labelled: none grows from another of the same step.
  const first = new Int32Array(end)
  for (let k = 0; k < end; k++) {
    const i = queue[k] as number
    first[k] = Math.max(
      labels[i - 1] as number,
      labels[i + 1] as number,
      labels[i - stride] as number,
      labels[i + stride] as number,
    )
  }
  for (let k = 0; k < end; k++) labels[queue[k] as number] = first[k] as number
  for (let k = 0; k < end; k++) {
    const i = queue[k] as number
    const own = labels[i] as number
    if (labels[i - 1] === 0) {
      labels[i - 1] = own
      queue[end++] = i - 1
    }
    if (labels[i + 1] === 0) {
      labels[i + 1] = own
      queue[end++] = i + 1
    }
    if (labels[i - stride] === 0) {
      labels[i - stride] = own
      queue[end++] = i - stride
    }
    if (labels[i + stride] === 0) {
      labels[i + stride] = own
      queue[end++] = i + stride
    }
  }
}
