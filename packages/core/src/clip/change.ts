import { UsageError } from '../errors.ts'
import { valueAt, type Grey, type Plane } from '../raster/grey.ts'

/** How much a picture differs from the one before, once what concerns all of it is taken out. */
export interface Change {
  /** the mean difference of the blocks that differ most, above what all differ by; brightness steps */
  readonly most: number
  /** what a block differs by for no reason: noise, packing; brightness steps */
  readonly usual: number
}

const BLOCK = 8
/** The share of blocks that counts as those that differ most. */
const TOP_SHARE = 0.025
/** How far all that lies behind may have moved from one picture to the next, in pixels, and how finely that is looked for. */
const FARTHEST = 4
const FINE = [-0.75, -0.5, -0.25, 0.25, 0.5, 0.75]
/** A pixel that differs by more than this counts no more: what moves must not draw the whole along. */
const ENOUGH = 20
/** Every so many pixels are held against each other while the shift is looked for. */
const SPARSE = 4
/** A shift is believed when it leaves less than this share of what differs without it. */
const BELIEVED = 0.6

const { abs, min, max, round, sqrt } = Math

interface Spread {
  readonly mean: number
  readonly deviation: number
}

function spreadOf(data: Uint8Array): Spread {
  let [sum, squares] = [0, 0]
  for (const value of data) {
    sum += value
    squares += value * value
  }
  const mean = sum / data.length
  return { mean, deviation: sqrt(max(0, squares / data.length - mean * mean)) }
}

/** A picture as bright, and as strong in contrast, as another: fades and flicker of the lamp concern all of it. */
function asBright(picture: Grey, like: Grey): Float32Array {
  const [own, other] = [spreadOf(picture.data), spreadOf(like.data)]
  const gain = own.deviation > 1 ? max(0.25, min(4, other.deviation / own.deviation)) : 1
  return Float32Array.from(picture.data, value => (value - own.mean) * gain + other.mean)
}

/** Softened by a window of three by three: what is left of chance counts for little. */
function softened(data: ArrayLike<number>, width: number, height: number): Float32Array {
  const across = new Float32Array(width * height)
  const both = new Float32Array(width * height)
  for (let i = 0; i < across.length; i++) {
    const x = i % width
    const [left, right] = [x > 0 ? i - 1 : i, x < width - 1 ? i + 1 : i]
    across[i] = ((data[left] as number) + (data[i] as number) + (data[right] as number)) / 3
  }
  for (let i = 0; i < both.length; i++) {
    const [up, down] = [i >= width ? i - width : i, i + width < both.length ? i + width : i]
    both[i] = ((across[up] as number) + (across[i] as number) + (across[down] as number)) / 3
  }
  return both
}

/** How badly two pictures fit when the second has moved by (dx, dy): the mean of bounded differences, away from the edges. */
function misfit(a: Plane, b: Plane, dx: number, dy: number): number {
  const { width, height, data } = a
  let [sum, count] = [0, 0]
  const margin = FARTHEST + 1
  for (let y = margin; y < height - margin; y += SPARSE) {
    for (let x = margin; x < width - margin; x += SPARSE) {
      sum += min(ENOUGH, abs((data[y * width + x] as number) - valueAt(b, x + dx, y + dy)))
      count++
    }
  }
  return count > 0 ? sum / count : 0
}

/** By how much what lies behind has moved, in pixels; (0, 0) where it has not. */
function shiftOf(a: Plane, b: Plane): readonly [number, number] {
  const still = misfit(a, b, 0, 0)
  let best = still
  let at: readonly [number, number] = [0, 0]
  const look = (dx: number, dy: number) => {
    const now = misfit(a, b, dx, dy)
    if (now >= best) return
    best = now
    at = [dx, dy]
  }
  for (let dy = -FARTHEST; dy <= FARTHEST; dy++) for (let dx = -FARTHEST; dx <= FARTHEST; dx++) look(dx, dy)
  const [wx, wy] = at
  for (const dx of FINE) look(wx + dx, wy)
  const [finer] = at
  for (const dy of FINE) look(finer, wy + dy)
  return best < still * BELIEVED ? at : [0, 0]
}

/**
 * How much picture `b` differs from `a`, the one before: as bright as that, and pixel by pixel as it stands or as what lies behind has moved, whichever fits
 * better (a fade, a scrolling ground behind a figure that is held, and a shaking camera are no new drawing), block by block. Throws a UsageError when the two
 * are not alike in size.
 */
export function changeBetween(a: Grey, b: Grey): Change {
  const { width, height } = a
  if (width !== b.width || height !== b.height) {
    throw new UsageError('pictures of different sizes cannot be held against each other')
  }
  const one: Plane = { width, height, data: softened(a.data, width, height) }
  const other: Plane = { width, height, data: softened(asBright(b, a), width, height) }
  const [dx, dy] = shiftOf(one, other)
  const differs = (x: number, y: number): number => {
    const value = one.data[y * width + x] as number
    const still = abs(value - (other.data[y * width + x] as number))
    return dx === 0 && dy === 0 ? still : min(still, abs(value - valueAt(other, x + dx, y + dy)))
  }
  const blocks: number[] = []
  for (let top = 0; top + BLOCK <= height; top += BLOCK) {
    for (let left = 0; left + BLOCK <= width; left += BLOCK) {
      let sum = 0
      for (let y = top; y < top + BLOCK; y++) for (let x = left; x < left + BLOCK; x++) sum += differs(x, y)
      blocks.push(sum / BLOCK ** 2)
    }
  }
  blocks.sort((x, y) => x - y)
  if (blocks.length === 0) return { most: 0, usual: 0 }
  const usual = blocks[blocks.length >> 1] as number
  const top = blocks.slice(-max(1, round(blocks.length * TOP_SHARE)))
  return { most: top.reduce((sum, value) => sum + value, 0) / top.length - usual, usual }
}
