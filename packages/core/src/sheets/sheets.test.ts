import { describe, expect, test } from '@jest/globals'
import { inverse, map, type Matrix } from '../geometry/matrix.ts'
import { distance, type Point } from '../geometry/point.ts'
import type { Grey } from '../raster/grey.ts'
import { alignedOn } from './align.ts'
import { evened, inkOf, levelsOf } from './light.ts'
import { paperOf } from './paper.ts'
import { asRead, cutOut, partsOf } from './parts.ts'
import { crosses, pairedMarks, pegHoles, withoutMarks } from './pegs.ts'
import { boxRound, insideSheet, inkThrough, onPaper, registeredOn, type SheetDrawing } from './registered.ts'
import { fitPoints, similarityOf } from '../geometry/similarity.ts'
import { smaller } from './smaller.ts'
import { heron, moved, photo } from './tests/photo.ts'

const DEGREES = 180 / Math.PI
function inked(one: Grey): Grey {
  const even = evened(one)
  return inkOf(even, levelsOf(even))
}
/** How far a map is off another over a sheet, px, and how far it turns otherwise, degrees. */
function off(found: Matrix, wished: Matrix): { px: number; degrees: number } {
  const places = [60, 200, 330].flatMap(x => [50, 150, 250].map((y): Point => ({ x, y })))
  return {
    px: Math.max(...places.map(p => distance(map(found, p), map(wished, p)))),
    degrees: Math.abs(similarityOf(found).turnRad - similarityOf(wished).turnRad) * DEGREES,
  }
}

describe('light', () => {
  test('under a lamp at one side paper is white everywhere and lines stay as dark', () => {
    const ink = inked(photo({ lines: heron(), uneven: 0.6, noise: 6 }))
    const at = (x: number, y: number) => ink.data[y * ink.width + x] as number
    // Blank paper in bright and in dark corners, and the middle of lines on both sides.
    for (const [x, y] of [
      [10, 10],
      [390, 10],
      [390, 290],
      [12, 290],
      [200, 150],
    ] as const)
      expect(at(x, y)).toBeLessThan(20)
    expect(at(262, 100)).toBeGreaterThan(150)
    expect(at(112, 164)).toBeGreaterThan(150)
  })

  test('a blank sheet has no ink; one that is full of it in a corner keeps it', () => {
    const blank = inked(photo({ noise: 5 }))
    expect(blank.data.filter(value => value > 60).length).toBeLessThan(20)
    const blot = inked(photo({ holes: [{ x: 70, y: 70, r: 30 }] }))
    expect(blot.data[70 * 400 + 70]).toBeGreaterThan(200)
  })
})

describe('the sheet', () => {
  test('its corners are found on a table to half a pixel, turned as it lies', () => {
    const matrix = moved(3.7, 0.8, 6, -4)
    const corners = paperOf(photo({ matrix, sheet: { width: 400, height: 300 }, lines: heron() }))!
    const wished = [
      { x: 0, y: 0 },
      { x: 400, y: 0 },
      { x: 400, y: 300 },
      { x: 0, y: 300 },
    ].map(p => map(matrix, p))
    corners.forEach((corner, i) => expect(distance(corner, wished[i]!)).toBeLessThan(0.6))
  })

  test('none is seen where it fills the photograph', () => {
    expect(paperOf(photo({ lines: heron() }))).toBeNull()
    expect(paperOf({ width: 40, height: 30, data: new Uint8Array(1200).fill(200) })).toBeNull()
  })
})

describe('registration', () => {
  test.each([
    [2.3, 1.03, 9, -6, 0],
    [-4.2, 0.94, -14, 8, 0],
    [7.5, 1.1, 20, 12, 0],
    [-1.1, 1, 3.4, 2.7, 0.7],
  ])(
    'by the drawing: turned %d°, scaled %d, shifted: within half a pixel and a tenth of a degree',
    (turn, scale, dx, dy, shiver) => {
      const wished = moved(turn, scale, dx, dy)
      const first = inked(photo({ lines: heron(1, shiver) }))
      const other = inked(photo({ lines: heron(2, shiver), matrix: wished, seed: 3, uneven: 0.3 }))
      const { matrix, alike } = alignedOn(other, first)
      const { px, degrees } = off(matrix, wished)
      // What shivers is not to be laid nearer than it shivers.
      expect(px).toBeLessThan(0.5 + shiver)
      expect(degrees).toBeLessThan(0.1 + shiver / 2)
      expect(alike).toBeGreaterThan(0.8)
    },
  )

  test('by a region that stays, while the rest of the drawing moves far', () => {
    const wished = moved(2.5, 1.02, 8, -5)
    // The legs and the tail swing out; the head stays.
    const swung = heron(1).map((line, i) =>
      i < 2 ? line : line.map(({ x, y }, k) => ({ x: x - 9 * k, y: y - 4 * k })),
    )
    const [ink, other] = [inked(photo({ lines: heron(1) })), inked(photo({ lines: swung, matrix: wished, seed: 3 }))]
    const drawn = (of: typeof ink): SheetDrawing => ({
      ink: of,
      marks: [],
      box: partsOf(of, 'whole')[0]!,
      corners: null,
    })
    const region = { left: 226, top: 46, right: 326, bottom: 146 }
    const back = inverse(wished)!
    const byHead = registeredOn(drawn(ink), drawn(other), 'a region', region)
    const [px, degrees] = [off(byHead.matrix, back).px, off(byHead.matrix, back).degrees]
    expect(byHead.lost).toBe(false)
    expect(px).toBeLessThan(0.8)
    expect(degrees).toBeLessThan(0.3)
    // By all that is drawn on it the head would not stay.
    expect(off(registeredOn(drawn(ink), drawn(other), 'one another').matrix, back).px).toBeGreaterThan(2 * px)
    // Without a region, or where nothing of it is found, it lies in the middle, and says so.
    expect(registeredOn(drawn(ink), drawn(other), 'a region')).toMatchObject({ lost: true })
    const blank = { left: 340, top: 200, right: 390, bottom: 280 }
    expect(registeredOn(drawn(ink), drawn(other), 'a region', blank)).toMatchObject({ lost: true })
  })

  test('by peg holes: the middles of a row along the lower edge, one of them hidden on a sheet', () => {
    const holes = [60, 200, 340].map(x => ({ x, y: 280, r: 8 }))
    const wished = moved(-3, 0.96, 7, -5)
    const first = pegHoles(inked(photo({ holes, lines: heron(1, 3) })))
    const other = pegHoles(inked(photo({ holes: holes.slice(0, 2), lines: heron(2, 3), matrix: wished, seed: 5 })))
    expect([first.length, other.length]).toEqual([3, 2])
    first.forEach((p, i) => expect(distance(p, holes[i]!)).toBeLessThan(0.25))
    const whole = pegHoles(inked(photo({ holes, lines: heron(2, 3), matrix: wished, seed: 6 })))
    const { px, degrees } = off(pairedMarks(first, whole)!.matrix, wished)
    expect(px).toBeLessThan(0.5)
    expect(degrees).toBeLessThan(0.1)
  })

  test('by crosses in the corners', () => {
    const cross = (x: number, y: number): Point[][] => [
      [
        { x: x - 9, y },
        { x: x + 9, y },
      ],
      [
        { x, y: y - 9 },
        { x, y: y + 9 },
      ],
    ]
    const lines = [...heron(4, 2), ...cross(24, 24), ...cross(376, 24), ...cross(376, 276), ...cross(24, 276)]
    const wished = moved(2, 1.02, -4, 3)
    const first = crosses(inked(photo({ lines })))
    const other = crosses(inked(photo({ lines, matrix: wished, seed: 9 })))
    expect([first.length, other.length]).toEqual([4, 4])
    const { px, degrees } = off(pairedMarks(first, other)!.matrix, wished)
    expect(px).toBeLessThan(0.5)
    expect(degrees).toBeLessThan(0.1)
  })

  test('points by hand: a quarter turn, twice as large, shifted; of one point nothing can be told', () => {
    const from = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 0, y: 5 },
    ]
    const to = [
      { x: 3, y: 4 },
      { x: 3, y: 24 },
      { x: -7, y: 4 },
    ]
    const fit = fitPoints(from, to)!
    expect(similarityOf(fit.matrix)).toEqual({
      shiftX: expect.closeTo(3, 9),
      shiftY: expect.closeTo(4, 9),
      turnRad: expect.closeTo(Math.PI / 2, 9),
      scale: expect.closeTo(2, 9),
    })
    expect(fit.offPx).toBeCloseTo(0, 9)
    expect(fitPoints(from.slice(0, 1), to)).toBeNull()
    expect(pairedMarks([], to)).toBeNull()
  })

  test('a blank drawing stays where it is', () => {
    const blank = { width: 40, height: 30, data: new Uint8Array(1200) }
    expect(alignedOn(blank, blank)).toEqual({ matrix: [1, 0, 0, 1, 0, 0], alike: 0 })
  })
})

describe('drawings on a sheet', () => {
  const small = (x: number, y: number): Point[][] => [
    [
      { x, y },
      { x: x + 40, y: y + 20 },
      { x: x + 10, y: y + 34 },
      { x, y },
    ],
    [
      { x: x + 4, y: y + 40 },
      { x: x + 30, y: y + 42 },
    ],
  ]
  const sheet = inked(
    photo({ lines: [...small(30, 40), ...small(160, 34), ...small(290, 46), ...small(36, 180), ...small(170, 190)] }),
  )

  test('loose, in cells, in rows, or one: in the order they are read; specks are none', () => {
    const loose = partsOf(sheet, 'loose')
    expect(loose.map(box => [Math.round(box.left / 10), Math.round(box.top / 10)])).toEqual([
      [3, 4],
      [16, 3],
      [29, 5],
      [4, 18],
      [17, 19],
    ])
    expect(partsOf(sheet, 'cells')).toHaveLength(5)
    expect(partsOf(sheet, 'rows')).toHaveLength(2)
    expect(partsOf(sheet, 'whole')).toHaveLength(1)
    expect(partsOf({ ...sheet, data: new Uint8Array(sheet.data.length) }, 'loose')).toEqual([])
    expect(asRead([])).toEqual([])
  })

  test('cut out with a margin; what lies beyond the sheet is blank', () => {
    const [first] = partsOf(sheet, 'loose')
    const { grey, at } = cutOut(sheet, first!, 5)
    expect([grey.width, grey.height]).toEqual([first!.right - first!.left + 11, first!.bottom - first!.top + 11])
    expect(at).toEqual({ x: first!.left - 5, y: first!.top - 5 })
    expect(cutOut(sheet, { left: -3, top: -3, right: 2, bottom: 2 }, 4).grey.data[0]).toBe(0)
  })

  test('smaller by a part of a pixel, it is as bright as before', () => {
    const { grey, by } = smaller(sheet, 150)
    expect(by).toBeCloseTo(400 / 150, 9)
    const mean = (one: Grey) => one.data.reduce((sum, value) => sum + value, 0) / one.data.length
    expect(mean(grey)).toBeCloseTo(mean(sheet), 0)
  })
})

describe('sheets laid on the first one', () => {
  const holes = [60, 200, 340].map(x => ({ x, y: 282, r: 7 }))
  const sheet = { width: 400, height: 300 }
  function drawing(seed: number, matrix: Matrix): SheetDrawing {
    const taken = photo({ width: 460, height: 360, lines: heron(seed, 0.4), holes, matrix, sheet, seed, uneven: 0.3 })
    const corners = paperOf(taken)!
    const ink = insideSheet(inked(taken), corners, 4)
    const marks = pegHoles(ink)
    const [box] = partsOf(withoutMarks(ink, marks), 'whole')
    return { ink, box: box!, corners, marks }
  }
  const [one, two] = [moved(1.5, 1, 30, 28), moved(-2, 0.96, 34, 31)]
  const [first, other] = [drawing(1, one), drawing(2, two)]

  test('by each way they come to lie alike: a place of the other sheet lands on the same place of the first', () => {
    for (const how of ['one another', 'peg holes', 'edges'] as const) {
      const { matrix, lost, marks, alike } = registeredOn(first, other, how)
      const far = [60, 200, 330].flatMap(x =>
        [60, 150, 240].map(y => distance(map(matrix, map(two, { x, y })), map(one, { x, y }))),
      )
      expect(Math.max(...far)).toBeLessThan(how === 'edges' ? 1 : 0.9)
      expect(lost).toBe(false)
      expect(how === 'one another' ? alike! > 0.7 : marks!.offPx < 0.8).toBe(true)
    }
    expect(registeredOn(first, first, 'peg holes')).toMatchObject({ matrix: [1, 0, 0, 1, 0, 0], lost: false })
  })

  test('what cannot be laid so lies in the middle of the first, and says so', () => {
    const { matrix, lost } = registeredOn(first, { ...other, marks: [] }, 'crosses')
    expect(lost).toBe(true)
    const [a, b] = [first.box, other.box]
    expect(map(matrix, { x: (b.left + b.right) / 2, y: 0 }).x).toBeCloseTo((a.left + a.right) / 2, 6)
    expect(registeredOn(first, other, 'as they lie').lost).toBe(false)
  })

  test('peg holes are no part of the drawing, and nothing of the table is', () => {
    expect(first.box.bottom).toBeLessThan(map(one, { x: 0, y: 272 }).y)
    const { ink } = first
    expect(ink.data[3 * ink.width + 3]).toBe(0)
  })

  test('the sheet lies on the paper of the shot, or what is drawn in its middle', () => {
    const paper = { width: 1280, height: 720 }
    const whole = onPaper(paper, first)
    // 400 × 300 on 1280 × 720: 960 wide, with 160 to either side.
    const corner = map(whole, map(one, { x: 0, y: 0 }))
    expect([corner.x, corner.y]).toEqual([expect.closeTo(160, -0.5), expect.closeTo(0, -0.5)])
    const box = boxRound([{ box: first.box, matrix: [1, 0, 0, 1, 0, 0] }])
    const fitted = onPaper(paper, { corners: null, box })
    const [tl, br] = [map(fitted, { x: box.left, y: box.top }), map(fitted, { x: box.right, y: box.bottom })]
    expect(tl.x + br.x).toBeCloseTo(1280, 6)
    expect(tl.y + br.y).toBeCloseTo(720, 6)
    expect(Math.max((br.x - tl.x) / 1280, (br.y - tl.y) / 720)).toBeCloseTo(0.8, 6)
    const laid = inkThrough(first.ink, fitted, paper)
    expect(laid.data.some(value => value > 200)).toBe(true)
    expect(inkThrough(first.ink, [0, 0, 0, 0, 0, 0], paper).data.some(value => value > 0)).toBe(false)
  })
})
