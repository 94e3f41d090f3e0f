import type { Point } from '@unhurried/core/geometry'
import { curve, disc, limb, paint, points, tilda, type Mark, type Part } from './tilda.ts'

/** How the sides of a model sheet are painted: pixels to her own measure, and the box round all of them in that measure. */
export const SHEET = { scale: 4, left: -84, top: -70, right: 84, bottom: 74 } as const
/** Where she stands and where her crown is, in her own measure: the two points that all sides share. */
export const SOLE: Point = { x: 0, y: 62 }
export const CROWN: Point = { x: 0, y: -57 }
/** Heights that hold on all sides, as shares of the way from sole to crown. */
export const HEIGHTS = [
  { id: 'crown', name: 'crown', share: 1 },
  { id: 'eyes', name: 'eyes', share: 0.924 },
  { id: 'mouth', name: 'mouth', share: 0.63 },
  { id: 'satchel', name: 'satchel', share: 0.27 },
] as const

const mirrored = (all: readonly Point[]): Point[] => all.map(({ x, y }) => ({ x: -x, y })).reverse()
const both = (outline: readonly Point[]): Point[][] => [[...outline], mirrored(outline)]

const HEAD = points(
  ...[-47, -18, -46, -32, -36, -43, -31, -54, -22, -58, -13, -54, -8, -46, 0, -44, 8, -46, 13, -54, 22, -58, 31, -54],
  ...[36, -43, 46, -32, 47, -18, 32, -6, 0, -2, -32, -6],
)
const TRUNK = points(-34, 48, -41, 22, -32, -6, 0, -16, 32, -6, 41, 22, 34, 48, 0, 57)
const THIGH = points(-30, 55, -56, 52, -66, 32, -54, 12, -38, 16, -30, 34)
const SATCHEL = points(22, 20, 54, 16, 60, 34, 56, 46, 27, 50, 21, 36)

const foot = [
  limb({ x: -40, y: 57 }, { x: -62, y: 58 }, 5, 4),
  ...[-0.35, 0.1, 0.5].map(a =>
    limb({ x: -62, y: 58 }, { x: -62 - 11 * Math.cos(a), y: 58 + 9 * Math.sin(a) }, 2.4, 3.2),
  ),
]
const hand = { x: -17, y: 55 }
const arm = [
  limb({ x: -27, y: 4 }, { x: -33, y: 28 }, 7, 5.4),
  limb({ x: -33, y: 28 }, hand, 5.4, 4),
  ...[2.2, 1.6, 1].map(a => limb(hand, { x: hand.x + 7 * Math.cos(a), y: hand.y + 5 * Math.sin(a) }, 2, 2.8)),
]
const twice = (outlines: readonly (readonly Point[])[]) => outlines.flatMap(both)

const legs: Part = { outlines: [...twice(foot), ...both(curve(THIGH, true))], swatch: 'leaf', edge: 4.6, inner: [] }
const shape = (swatch: string, through: readonly Point[]): Mark => ({
  kind: 'shape',
  swatch,
  width: 1,
  points: curve(through, true),
})
const eyes = [-22, 22].flatMap((x): Mark[] => [
  { kind: 'shape', swatch: 'lamp', width: 1, points: disc({ x, y: -48 }, 8.6) },
  { kind: 'shape', swatch: 'graphite', width: 1, points: disc({ x: x * 0.94, y: -47 }, 3.6, 4.6, 16) },
  { kind: 'line', swatch: 'graphite', width: 3.2, points: disc({ x, y: -48 }, 8.6) },
])

function front(): Mark[] {
  const trunk: Part = {
    outlines: [curve(TRUNK, true)],
    swatch: 'leaf',
    edge: 5,
    inner: [{ points: curve(points(-24, -6, 6, 8, 36, 24)), width: 3.4 }],
    accents: [shape('straw', points(-22, 48, -29, 22, -20, 0, 0, -6, 20, 0, 29, 22, 22, 48, 0, 54))],
  }
  const bag: Part = {
    outlines: [curve(SATCHEL, true)],
    swatch: 'bark',
    edge: 4.2,
    inner: [{ points: curve(points(22, 26, 40, 36, 58, 24)), width: 3 }],
  }
  const head: Part = {
    outlines: [curve(HEAD, true)],
    swatch: 'leaf',
    edge: 5.2,
    inner: [
      { points: curve(points(-36, -22, -20, -14, 0, -12, 20, -14, 36, -22)), width: 3.4 },
      { points: curve(points(-5, -27, -3.4, -25)), width: 2.6 },
      { points: curve(points(5, -27, 3.4, -25)), width: 2.6 },
    ],
    accents: [
      shape('straw', points(-31, -16, -14, -9.5, 0, -8.5, 14, -9.5, 31, -16, 20, -6.5, 0, -4, -20, -6.5)),
      ...eyes,
    ],
  }
  return paint([legs, trunk, bag, { outlines: twice(arm), swatch: 'leaf', edge: 4, inner: [] }, head])
}

function back(): Mark[] {
  const spots = points(-18, 8, 12, 2, -8, 30, 20, 28)
  const trunk: Part = {
    outlines: [curve(TRUNK, true)],
    swatch: 'leaf',
    edge: 5,
    inner: [
      { points: curve(points(0, -2, 1, 24, 0, 50)), width: 2 },
      { points: curve(points(24, -6, -6, 8, -36, 24)), width: 3.4 },
    ],
    accents: spots.map((at, i) => ({
      kind: 'shape',
      swatch: 'moss',
      width: 1,
      points: disc(at, 6 - (i % 2) * 1.6, 4.4),
    })),
  }
  const bag: Part = {
    outlines: [mirrored(curve(SATCHEL, true))],
    swatch: 'bark',
    edge: 4.2,
    inner: [{ points: mirrored(curve(points(22, 28, 40, 31, 58, 26))), width: 2.4 }],
  }
  const head: Part = {
    outlines: [curve(HEAD, true)],
    swatch: 'leaf',
    edge: 5.2,
    inner: [{ points: curve(points(-16, -40, 0, -36, 16, -40)), width: 2 }],
    accents: [-1, 1].map(side => ({
      kind: 'shape',
      swatch: 'moss',
      width: 1,
      points: disc({ x: 22 * side, y: -22 }, 7, 5),
    })),
  }
  return paint([{ outlines: twice(arm), swatch: 'moss', edge: 4, inner: [] }, trunk, legs, bag, head])
}

/** She sits, seen from the side, as large as in front. */
const side = (): Mark[] =>
  tilda({
    at: { x: -14, y: 12 },
    tilt: -0.42,
    stretch: 1,
    size: 1.05,
    foot: { x: -16, y: 60 },
    planted: true,
    hand: { x: 32, y: 58 },
    drag: 0.1,
    lid: 0,
  })

/** Tilda from three sides, in her own measure: standing on one height, her crown at one height. */
export const SIDES: Record<'front' | 'side' | 'back', () => Mark[]> = { front, side, back }
