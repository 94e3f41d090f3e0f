import { describe, expect, test } from '@jest/globals'
import { INK, placeStroke, type Sample } from '../geometry/index.ts'
import { areasOf, factsOf, lineFacts, medianWidth, type ColouredStroke, type NamedStroke } from './index.ts'

const EVEN = { ...INK, thinning: 0 }
type Named = NamedStroke & ColouredStroke
const stroke = (
  element: string,
  kind: 'line' | 'shape',
  points: readonly (readonly [number, number])[],
  width = 4,
  swatch = 'ink',
): Named => ({
  ...placeStroke(
    points.map(([x, y]): Sample => ({ x, y, pressure: 0.5 })),
    kind,
    width,
    null,
    null,
    EVEN,
  ),
  element,
  swatch,
})
/** A square from (100, 100), each side of its own; the last one ends so far before the first begins. */
const box = (side: number, gap: number): Named[] => {
  const [a, b] = [100, 100 + side]
  const along = (x0: number, y0: number, x1: number, y1: number) =>
    Array.from({ length: 21 }, (_, i): [number, number] => [x0 + ((x1 - x0) * i) / 20, y0 + ((y1 - y0) * i) / 20])
  return [
    stroke('top', 'line', along(a, a, b, a)),
    stroke('right', 'line', along(b, a, b, b)),
    stroke('bottom', 'line', along(b, b, a, b)),
    stroke('left', 'line', along(a, b, a, a + gap)),
  ]
}

describe('lines of a drawing', () => {
  test('an outline that stands open leaks there, by what is missing between the edges of its lines', () => {
    // The left side ends 10 px below the middle of the top one; both are 4 px wide: 10 − 2 − 2.
    const [leak, ...others] = lineFacts(box(80, 10)).leaks
    expect(others).toEqual([])
    expect([leak?.at.y, leak?.to.y].sort()).toEqual([100, 110])
    expect(leak?.gapPx).toBeCloseTo(6, 6)
  })

  test('a line that leaks at its own beginning leaks once', () => {
    const own = box(80, 10).flatMap(side => side.samples.map(({ x, y }) => [x, y] as const))
    expect(lineFacts([stroke('own', 'line', own)]).leaks).toHaveLength(1)
  })

  test('a short line that closes the gap closes it', () => {
    const bridge = stroke('bridge', 'line', [
      [100, 110],
      [100, 105],
      [100, 100],
    ])
    expect(lineFacts([...box(80, 10), bridge]).leaks).toEqual([])
    // As thin as a hair, too.
    expect(lineFacts([...box(80, 10), { ...bridge, width: 0.05 }]).leaks).toEqual([])
  })

  test('one that is closed does not, nor one that is wide open', () => {
    expect(lineFacts(box(80, 0)).leaks).toEqual([])
    expect(lineFacts(box(80, 4)).leaks).toEqual([])
    expect(lineFacts(box(80, 30)).leaks).toEqual([])
  })

  test('a line that ends within a body, near its edge, parts nothing: it is a fold and no leak', () => {
    const fold = stroke(
      'fold',
      'line',
      Array.from({ length: 11 }, (_, i): [number, number] => [140 + i, 140 - 3 * i]),
    )
    expect(lineFacts([...box(80, 0), fold]).leaks).toEqual([])
  })

  test('what would run out has to be of some size', () => {
    // 10 × 10 px are less than 150 px².
    expect(lineFacts(box(14, 8)).leaks).toEqual([])
  })

  test('the width is the one that half of all the length is no wider than', () => {
    // 80 px at 4, 240 px at 6: the half of 320 lies in the wide ones.
    const [thin, ...wide] = box(80, 0)
    const facts = lineFacts([thin as Named, ...wide.map(line => ({ ...line, width: 6 }))])
    expect([facts.count, facts.widthPx]).toEqual([4, 6])
    expect(
      medianWidth([facts, { ...facts, widthPx: 4 }, { ...facts, count: 0, widthPx: 90 }, { ...facts, widthPx: 5 }]),
    ).toBe(5)
    expect(lineFacts([])).toEqual({ count: 0, widthPx: 0, leaks: [], strays: [], runs: [] })
  })

  test('a short stroke far from all others is a stray; near them, or alone on the sheet, it is none', () => {
    const dot = (x: number) =>
      stroke('dot', 'line', [
        [x, 140],
        [x + 4, 140],
      ])
    expect(lineFacts([...box(80, 0), dot(300)]).strays).toEqual([{ element: 'dot', at: { x: 302, y: 140 } }])
    expect(lineFacts([...box(80, 0), dot(200)]).strays).toEqual([])
    expect(lineFacts([...box(80, 0), dot(140)]).strays).toEqual([])
    expect(lineFacts([dot(300)]).strays).toEqual([])
  })
})

describe('colours of a drawing', () => {
  const square = (x: number, y: number, side: number, swatch: string) =>
    stroke(
      `${swatch} ${x}`,
      'shape',
      [
        [x, y],
        [x + side, y],
        [x + side, y + side],
        [x, y + side],
      ],
      1,
      swatch,
    )

  test('have the area that is seen of them: what lies on top counts', () => {
    const { green, rust } = areasOf([square(100, 100, 100, 'green'), square(150, 100, 50, 'rust')])
    expect(green).toBeCloseTo(7500, -2)
    expect(rust).toBeCloseTo(2500, -2)
    expect(areasOf([])).toEqual({})
  })

  test('a drawing moved has the same areas and the same leaks', () => {
    const moved = (by: number) =>
      [...box(80, 10), square(110, 110, 40, 'green')].map(one => ({
        ...one,
        samples: one.samples.map(s => ({ ...s, x: s.x + by })),
        box: { ...one.box, left: one.box.left + by, right: one.box.right + by },
      }))
    const [here, there] = [factsOf(moved(0)), factsOf(moved(37))]
    expect(there.lines.leaks.map(({ at, gapPx }) => [at.x - 37, at.y, gapPx])).toEqual(
      here.lines.leaks.map(({ at, gapPx }) => [at.x, at.y, gapPx]),
    )
    expect(there.areas).toEqual(here.areas)
  })
})
