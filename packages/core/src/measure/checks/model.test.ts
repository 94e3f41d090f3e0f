import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { ShotDocument } from '../../document/model/model.ts'
import type { Point } from '../../geometry/point.ts'
import type { ModelSheet } from '../../models/model.ts'
import { done, layer, moving, survey, twos } from '../tests/moving.ts'
import { CHECKS } from './table.ts'

const height = (name: string, share: number) => ({ id: name, name, share })
const TILDA: ModelSheet = {
  name: 'Tilda',
  views: [],
  heights: [height('crown', 1), height('Eyes', 0.75), height('mouth', 0.5), height('sole', 0)],
}
const told = (document: ShotDocument, models: readonly ModelSheet[] = [TILDA]) =>
  CHECKS.model.inspect({ ...survey(document), models }).map(one => one.words)

/** Marks on a line up from a sole, at so many px. */
const up = (...all: readonly [name: string, ...px: number[]][]) =>
  moving(
    Object.fromEntries(all.map(([name, ...px]) => [name, px.map((y, i): Point => ({ x: 300 + 40 * i, y: 500 - y }))])),
    twos(all[0]!.length - 1),
  )

describe('on model', () => {
  test('what is as high as on the sheet, at whatever size, is not told; what is off by more than six per cent is', () => {
    // 200 high: eyes belong at 150, mouth at 100. On the second, half as large, all is as it should be.
    const right = up(['sole', 0, 0], ['mouth', 100, 50], ['eyes', 150, 75], ['crown', 200, 100])
    expect(told(right)).toEqual([])
    // From mouth to eyes 60 instead of 50: 120 %, and 40 of 50 above it: 80 %.
    const long = up(['sole', 0, 0], ['mouth', 100, 50], ['eyes', 160, 75], ['crown', 200, 100])
    expect(told(long)).toEqual(['from mouth to eyes 1 has 120 % of what Tilda has there, as large as it is'])
    // 52 of 50 and 48 of 50 are within.
    expect(told(up(['sole', 0], ['mouth', 100], ['eyes', 152], ['crown', 200]))).toEqual([])
    const set = done(long, [{ kind: 'threshold.set', name: 'model', value: 0.25 }])
    expect(told(set)).toEqual([])
  })

  test('it is asked where three marks are called like heights; a drawing without one of them is held by the others', () => {
    const two = up(['sole', 0], ['crown', 200])
    expect(CHECKS.model.isAsked?.({ document: two, models: [TILDA] })).toBe(false)
    expect(CHECKS.model.isAsked?.({ document: two })).toBe(false)
    const three = up(['sole', 0, 0], ['eyes', 150, 130], ['crown', 200, 200])
    expect(CHECKS.model.isAsked?.({ document: three, models: [TILDA] })).toBe(true)
    // Without a crown the eyes are the highest: the mouth is at two thirds of the way to them.
    expect(told(up(['sole', 0], ['mouth', 100], ['eyes', 150]))).toEqual([])
    // 130 of 150 below the eyes: 87 %; 70 of 50 above them: 140 %.
    expect(told(three)).toEqual(['from eyes to crown 2 has 140 % of what Tilda has there, as large as it is'])
    const gone = done(three, [{ kind: 'marks.place', drawing: 'd2', places: { eyes: null } }])
    expect(told(gone)).toEqual([])
  })

  test('of two sheets it is the one with more of the heights, of two alike the one called like the layer', () => {
    const other: ModelSheet = {
      ...TILDA,
      name: 'moth',
      heights: TILDA.heights.map(one => height(one.name, one.share ** 2)),
    }
    const document = up(['sole', 0], ['mouth', 100], ['eyes', 150], ['crown', 200])
    const named = (name: string) => done(document, [{ kind: 'layer.set', id: layer, patch: { name } }])
    expect(told(named('tilda'), [other, TILDA])).toEqual([])
    expect(told(named('moth'), [TILDA, other])).toHaveLength(1)
    expect(told(named('moth'), [TILDA, { ...other, heights: other.heights.slice(0, 3) }])).toEqual([])
  })

  test('moved, turned and scaled as a whole, a figure is as much on model as before', () => {
    const n = (min: number, max: number) => fc.double({ min, max, noNaN: true })
    fc.assert(
      fc.property(n(-3, 3), n(0.2, 4), n(-300, 300), n(10, 190), (turn, scale, dx, eyes) => {
        const places = { sole: 0, mouth: 100, eyes, crown: 200 }
        const seen = (by: (y: number) => Point) =>
          CHECKS.model.series!({
            ...survey(moving(Object.fromEntries(Object.entries(places).map(([name, y]) => [name, [by(y)]])), [2])),
            models: [TILDA],
          }).map(({ values }) => values[0]?.value ?? 0)
        const as = seen(y => ({ x: 300, y: 500 - y }))
        const turned = seen(y => ({ x: dx + scale * y * Math.sin(turn), y: 40 - scale * y * Math.cos(turn) }))
        as.forEach((value, i) => expect(turned[i]).toBeCloseTo(value, 6))
        // By hand: from mouth to eyes of 50.
        expect(as[1]).toBeCloseTo((100 * (eyes - 100)) / 50, 6)
      }),
    )
  })
})
