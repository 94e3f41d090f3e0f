import { valueAt, type Grey } from '../raster/grey.ts'

/** Brightness (0–255, of a sheet whose light was evened out) that counts as paper, and as ink at its fullest. */
export interface Levels {
  readonly white: number
  readonly black: number
}

/** Blocks along the longer side in which the light on the paper is looked for, and the share of a block's pixels that are darker than its paper. */
const BLOCKS = 28
const PAPER_SHARE = 0.8
/** How bright paper is made. */
const PAPER = 235
/** Paper is what is brighter than its middle less so many times its spread; ink is what is darker than that by a good deal. */
const SPREADS = 4
const APART = 14

const { ceil, max, min, round } = Math

/** A share (0–1) of some counted values is at most as bright as this. */
function quantile(counts: Uint32Array, share: number): number {
  const all = counts.reduce((sum, n) => sum + n, 0)
  let seen = 0
  for (let value = 0; value < 256; value++) {
    seen += counts[value] as number
    if (seen > share * all) return value
  }
  return 255
}

function countsIn({ width, data }: Grey, left: number, top: number, right: number, bottom: number): Uint32Array {
  const counts = new Uint32Array(256)
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const value = data[y * width + x] as number
      counts[value] = (counts[value] as number) + 1
    }
  }
  return counts
}

/** Each value of a grid made from those about it. */
function fromAbout(grid: Float32Array, across: number, down: number, of: (values: number[]) => number): Float32Array {
  return grid.map((_, i) => {
    const [x, y] = [i % across, (i / across) | 0]
    const values: number[] = []
    for (let v = max(0, y - 1); v <= min(down - 1, y + 1); v++) {
      for (let u = max(0, x - 1); u <= min(across - 1, x + 1); u++) values.push(grid[v * across + u] as number)
    }
    return of(values)
  })
}

/**
 * A photographed sheet with the light on it evened out: paper becomes equally bright everywhere. How bright the paper is somewhere is what four in five pixels of a
 * block there are darker than, or brighter blocks beside it say (one that is full of ink does not tell), softened.
 */
export function evened(photo: Grey): Grey {
  const { width, height, data } = photo
  const side = max(4, ceil(max(width, height) / BLOCKS))
  const [across, down] = [ceil(width / side), ceil(height / side)]
  const blocks = Float32Array.from({ length: across * down }, (_, i) => {
    const [left, top] = [(i % across) * side, ((i / across) | 0) * side]
    return quantile(countsIn(photo, left, top, min(width, left + side), min(height, top + side)), PAPER_SHARE)
  })
  const bright = fromAbout(blocks, across, down, values => max(...values))
  const soft = fromAbout(bright, across, down, values => values.reduce((sum, value) => sum + value, 0) / values.length)
  const light = { width: across, height: down, data: soft }
  const out = new Uint8Array(data.length)
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const here = max(1, valueAt(light, (x + 0.5) / side - 0.5, (y + 0.5) / side - 0.5))
      out[i] = min(255, round(((data[i] as number) * PAPER) / here))
    }
  }
  return { width, height, data: out }
}

/** What is paper and what is ink on an evened sheet: paper about its middle brightness, ink a quarter up from the darkest of what is clearly darker. */
export function levelsOf(sheet: Grey): Levels {
  const counts = countsIn(sheet, 0, 0, sheet.width, sheet.height)
  const middle = quantile(counts, 0.5)
  const spread = max(1, middle - quantile(counts, 0.16))
  const white = max(20, middle - min(60, SPREADS * spread))
  const dark = counts.slice().fill(0, max(0, white - APART))
  const isEmpty = dark.every(n => n === 0)
  return { white, black: isEmpty ? max(0, white - 110) : min(white - APART, quantile(dark, 0.25)) }
}

/** Fainter than this is the grain of the paper. */
const FAINT = 14

/** How much ink is where on an evened sheet: 0 none, 255 as dark as ink gets; in between in proportion, and the grain of the paper none. */
export function inkOf({ width, height, data }: Grey, { white, black }: Levels): Grey {
  const range = max(1, white - black)
  const inked = (value: number) => round(255 * max(0, min(1, (white - value) / range)))
  const strong = Uint8Array.from({ length: 256 }, (_, value) => (inked(value) < FAINT ? 0 : inked(value)))
  return { width, height, data: data.map(value => strong[value] as number) }
}
