/** A cell is a tenth of a degree wide: so many pixels of a picture that is seen from where one degree is 34 of them (WCAG 2.3.1). */
const CELL_PX = 3.4
/** The block of the picture that counts, at that distance: a visual field of ten degrees. */
const BLOCK = { width: 341, height: 256 } as const
/** More than this share of a block flashes. */
const SHARE = 0.25
/** Pictures are looked at as if they were shown so wide, unless something else is said. */
export const SHOWN_PX = 1024
/** Each cell is painted with so many pixels across. */
const PIXELS_ACROSS = 3

/** A picture that is far higher than wide is parted no finer than into so many cells. */
const MOST_CELLS = 400_000

/** How a picture is parted into cells, and what of them counts. */
export interface FlashGrid {
  /** cells of the picture */
  readonly across: number
  readonly down: number
  /** cells of a block, no more than there are */
  readonly blockAcross: number
  readonly blockDown: number
  /** more cells than these of one block are enough to be seen as a flash */
  readonly enough: number
  /** pixels at which the picture is painted to be parted */
  readonly widthPx: number
  readonly heightPx: number
}

/** The grid of a picture of some shape (any unit), shown so many pixels wide. Throws a RangeError when one of them is not a positive number. */
export function flashGrid(width: number, height: number, shownPx: number = SHOWN_PX): FlashGrid {
  for (const side of [width, height, shownPx]) {
    if (!(side > 0 && Number.isFinite(side))) throw new RangeError(`a picture is not ${side} wide or high`)
  }
  const wanted = shownPx / CELL_PX
  const fits = Math.sqrt((MOST_CELLS * width) / height)
  const across = Math.max(1, Math.round(Math.min(wanted, fits)))
  const cell = shownPx / across
  const down = Math.max(1, Math.round((shownPx * height) / width / cell))
  return {
    across,
    down,
    blockAcross: Math.max(1, Math.min(across, Math.round(BLOCK.width / cell))),
    blockDown: Math.max(1, Math.min(down, Math.round(BLOCK.height / cell))),
    enough: (SHARE * BLOCK.width * BLOCK.height) / (cell * cell),
    widthPx: across * PIXELS_ACROSS,
    heightPx: down * PIXELS_ACROSS,
  }
}

/** Light of the cells of a picture: red, green, blue of each, linear, 65,535 is all there is; row by row. */
export type Cells = Uint16Array

/** sRGB of 0–255 as linear light of 0–1 (IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => {
  const c = value / 255
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
})

/**
 * The mean light of every cell of a picture that was painted as large as its grid says. `rgba`: bytes of opaque pixels, row by row. Throws a RangeError when
 * there are more or fewer of them.
 */
export function cellsOf(rgba: Uint8ClampedArray, { across, down, widthPx, heightPx }: FlashGrid): Cells {
  if (rgba.length !== 4 * widthPx * heightPx)
    throw new RangeError(`${rgba.length} bytes are no ${widthPx} × ${heightPx} pixels`)
  const sums = new Float32Array(3 * across * down)
  for (let y = 0; y < heightPx; y++) {
    const row = Math.floor(y / PIXELS_ACROSS) * across
    for (let x = 0; x < widthPx; x++) {
      const from = 4 * (y * widthPx + x)
      const to = 3 * (row + Math.floor(x / PIXELS_ACROSS))
      for (let c = 0; c < 3; c++) sums[to + c] = (sums[to + c] as number) + (LINEAR[rgba[from + c] as number] as number)
    }
  }
  const whole = 65_535 / (PIXELS_ACROSS * PIXELS_ACROSS)
  return Uint16Array.from(sums, sum => Math.round(sum * whole))
}
