import { expect, test } from '@jest/globals'
import { colourDifference } from '../colour/difference.ts'
import { edgeAgainst } from './edge.ts'

type Colour = readonly [number, number, number, number]
const [W, H] = [20, 16]
const NONE: Colour = [0, 0, 0, 0]
const MOSS: Colour = [120, 150, 90, 255]
const PAPER: Colour = [253, 250, 243, 255]

const picture = (of: (x: number, y: number) => Colour) =>
  Uint8ClampedArray.from({ length: 4 * W * H }, (_, i) => {
    const pixel = Math.floor(i / 4)
    return of(pixel % W, Math.floor(pixel / W))[i % 4] as number
  })
/** A block of 8 by 6 pixels. */
const isBlock = (x: number, y: number) => x >= 6 && x < 14 && y >= 5 && y < 11
const block = picture((x, y) => (isBlock(x, y) ? MOSS : NONE))

test('a block on paper: its outline is 24 pixels, all as far from the ground as its colour is', () => {
  const read = edgeAgainst(
    block,
    picture(() => PAPER),
    W,
    H,
  )!
  // 2 · 8 + 2 · 4.
  expect(read.pixels).toBe(24)
  expect(read.near).toBe(0)
  expect(read.at).toBeNull()
  expect(read.difference).toBeCloseTo(colourDifference('#78965a', '#fdfaf3'), 0)
  expect(read.lightness).toBeGreaterThan(35)
})

test('where the ground is as the figure, so much of the outline is lost, and there it is told', () => {
  const half = edgeAgainst(
    block,
    picture(x => (x < 10 ? [124, 152, 92, 255] : PAPER)),
    W,
    H,
  )!
  expect(half.near).toBe(0.5)
  // Columns 6 to 9 of the block, to the left of its middle.
  expect(half.at?.x).toBeLessThan(9)
  expect(half.at?.y).toBeCloseTo(8, 6)
  const all = edgeAgainst(
    block,
    picture(() => MOSS),
    W,
    H,
  )!
  expect([all.near, all.difference, all.lightness, all.chroma]).toEqual([1, 0, 0, 0])
})

test('the soft edge of a line is not the figure’s, what lies inside is not its outline, and nothing has none', () => {
  const soft = picture((x, y) =>
    isBlock(x, y) ? MOSS : isBlock(x + 1, y) || isBlock(x - 1, y) ? [255, 0, 0, 90] : NONE,
  )
  expect(
    edgeAgainst(
      soft,
      picture(() => MOSS),
      W,
      H,
    )?.near,
  ).toBe(1)
  // A seam of half opacity within it is no outline either.
  const seam = picture((x, y) => (isBlock(x, y) ? (x === 9 ? [120, 150, 90, 150] : MOSS) : NONE))
  expect(
    edgeAgainst(
      seam,
      picture(() => PAPER),
      W,
      H,
    )?.pixels,
  ).toBe(22)
  const cut = picture((_, y) => (y > 8 ? MOSS : NONE))
  // What goes out at the edge of the picture ends there and has no outline.
  expect(
    edgeAgainst(
      cut,
      picture(() => PAPER),
      W,
      H,
    )?.pixels,
  ).toBe(W - 2)
  expect(
    edgeAgainst(
      picture(() => NONE),
      picture(() => PAPER),
      W,
      H,
    ),
  ).toBeNull()
})
