import { describe, expect, test } from '@jest/globals'
import { acceptFinding, acceptedOf } from '../accepting.ts'
import { restingPath, evenKey } from '../../path/path.ts'
import { cutTo } from '../../document/acts/format.ts'
import { FIRST, newLayer } from '../../document/model/fresh.ts'
import type { ShotDocument } from '../../document/model/model.ts'
import type { Operation } from '../../document/operations/index.ts'
import { sampleElement } from '../../document/tests/sample.ts'
import type { Survey } from '../survey.ts'
import { blockAt, done, layer, moving, survey, twos } from '../tests/moving.ts'
import { CHECKS, findingsOf } from './table.ts'

/** A shot of 1920 by 1080 in which d1, d2 … are blocks of 200 by 200 px with their corner at places. */
function blocks(places: readonly (readonly [number, number])[], more: readonly Operation[] = []): Survey {
  const document = moving({}, twos(places.length), more)
  const shapes = new Map(
    places.map(([x, y], i) => [
      `d${i + 1}`,
      {
        ...{
          area: 40_000,
          centroid: { x: x + 100, y: y + 100 },
          halfAxes: [100, 100] as const,
          tiltRad: 0,
          open: null,
        },
        coverage: blockAt(x, y, 200, 200),
      },
    ]),
  )
  return { ...survey(document), shapes }
}
const said = (of: Survey) => findingsOf(of, 'framed').map(one => one.words)
const across = (...xs: number[]): (readonly [number, number])[] => xs.map(x => [x, 400])
const HOME = 800
const cuts = (...names: ShotDocument['cuts']): Operation[] => [{ kind: 'shot.set', patch: { cuts: names } }]

describe('what leaves the picture', () => {
  test('and comes back is told with its side; what comes in or goes out is not', () => {
    expect(said(blocks(across(HOME, -40, HOME)))).toEqual(['20 % of 2 lies outside the picture, on the left'])
    expect(said(blocks(across(-100, -40, HOME, HOME, 1760, 1900)))).toEqual([])
    expect(said(blocks(across(-200, 1920)))).toEqual([])
    expect(
      said(
        blocks([
          [HOME, 400],
          [HOME, 900],
          [HOME, 400],
        ]),
      )[0],
    ).toBe('10 % of 2 lies outside the picture, at the bottom')
  })

  test('is moved back in with what is painted for it, and is quiet then', () => {
    const paint = newLayer('paint', 'paint', 0, { follows: layer })
    const sheet = { id: 'p2', layer: 'paint', number: 2, role: 'key' as const, marks: {} }
    const of = blocks(across(HOME, -40, HOME), [
      { kind: 'layer.add', layer: paint },
      { kind: 'drawing.add', drawing: { ...sheet, elements: { s: { ...sampleElement('s'), kind: 'shape' } } } },
    ])
    const [found] = findingsOf(of, 'framed')
    expect(found).toMatchObject({ severity: 'look', isInPicture: true, from: 2, to: 4, drawings: ['d2'] })
    expect(found?.within).toEqual({ left: 0, top: 0, right: 1920, bottom: 1080 })
    const fix = CHECKS.framed.fix?.(of, found!, () => 'n')
    expect(fix?.words).toBe('move 2 by 40 px right')
    const after = done(of.document, fix!.ops)
    const moved = ['d2', 'p2'].map(id => Object.values(after.drawings[id]!.elements)[0]!.matrix)
    expect(moved).toEqual([
      [1, 0, 0, 1, 40, 0],
      [1, 0, 0, 1, 40, 0],
    ])
  })

  test('one that is larger than the picture has no way back in', () => {
    const of = blocks(across(HOME, 0, HOME))
    const shapes = new Map(of.shapes)
    shapes.set('d2', { ...shapes.get('d2')!, coverage: blockAt(-100, 0, 2200, 200) })
    const [found] = findingsOf({ ...of, shapes }, 'framed')
    expect(found?.figures.dx).toBeUndefined()
    expect(CHECKS.framed.fix?.(of, found!, () => 'n')).toBeNull()
  })

  test('begins to be told where the shot says, and never of what has no body', () => {
    const out = across(HOME, -40, HOME)
    expect(said(blocks(out, [{ kind: 'threshold.set', name: 'cut', value: 0.5 }]))).toEqual([])
    expect(said(blocks(out, [{ kind: 'layer.set', id: layer, patch: { volume: 'off' } }]))).toEqual([])
  })
})

describe('other edges', () => {
  test('of the safe margin a stretch is one note, by its worst', () => {
    const [found, ...rest] = findingsOf(blocks(across(HOME, 60, 46, 80, HOME)), 'framed')
    expect(rest).toEqual([])
    expect(found).toMatchObject({ severity: 'note', from: 2, to: 8, drawings: ['d3', 'd2', 'd4'] })
    expect(found?.words).toBe('up to 25 % of 2, 3, 4 lies in the safe margin, on the left: edges may be cut off')
  })

  test('of shapes the picture is cut to are asked once the shot says so', () => {
    // A square leaves 420 to 1500; a quarter of the second is beyond it.
    const out = across(HOME, 370, HOME)
    expect(said(blocks(out))).toEqual([])
    expect(said(blocks(out, cuts('square')))).toEqual(['cut to a square, 25 % of 2 is lost, on the left'])
    // 9:16 leaves 656.25 to 1263.75; its own shape is no other one.
    expect(said(blocks(out, cuts('wide', 'tall')))).toEqual(['cut to 9:16, 100 % of 2 is lost, on the left'])
    // What the picture has lost already a square has not lost besides: here it loses the same.
    expect(
      said(
        blocks(
          [
            [HOME, 400],
            [HOME, -100],
            [HOME, 400],
          ],
          cuts('square'),
        ),
      ),
    ).toHaveLength(1)
    expect(cutTo(done(blocks(out).document, cuts('tall')), 'square', true)).toEqual(cuts('square', 'tall'))
    // What the picture has lost already a square has not lost besides: here it loses the same.
    expect(
      said(
        blocks(
          [
            [HOME, 400],
            [HOME, -100],
            [HOME, 400],
          ],
          cuts('square'),
        ),
      ),
    ).toHaveLength(1)
    expect(cutTo(done(blocks(out).document, cuts('tall')), 'tall', false)).toEqual(cuts())
  })

  test('what ends in the picture and is lost there is told; what comes from beyond the picture, or goes there, is not', () => {
    // It lands at the right of a square, and stays.
    expect(said(blocks(across(HOME, 1100, 1400, 1600), cuts('square')))).toEqual([
      'cut to a square, up to 100 % of 3, 4 is lost, on the right',
    ])
    expect(said(blocks(across(HOME, 1100, 1400, 1600, 1900), cuts('square')))).toEqual([])
    expect(said(blocks(across(-150, 100, 300, HOME), cuts('square')))).toEqual([])
    // Of the safe margin too: it ends 16 px from the edge.
    expect(said(blocks(across(HOME, 1704)))).toEqual([
      '40 % of 2 lies in the safe margin, on the right: edges may be cut off',
    ])
    // Always there it is where it belongs.
    expect(said(blocks(across(1704, 1704)))).toEqual([])
  })

  test('each is its own question about a drawing: one that is meant so leaves the others', () => {
    const of = blocks(across(HOME, 40, HOME), cuts('square', 'portrait', 'tall'))
    const all = findingsOf(of, 'framed').slice(1)
    expect(all).toHaveLength(3)
    const once = done(of.document, acceptFinding(of.document, all[0]!, all, 'it peeks', 'm1'))
    const twice = done(once, acceptFinding(once, all[2]!, all, 'never a square', 'm2'))
    expect(all.map(one => acceptedOf(twice, one)?.reason)).toEqual(['it peeks', undefined, 'never a square'])
    // Drawn on, all is asked anew; what was said before goes with the next word.
    const drawn = done(twice, [{ kind: 'elements.remove', drawing: 'd2', ids: ['e2'] }])
    expect(all.map(one => acceptedOf(drawn, one))).toEqual([null, null, null])
    const again = done(drawn, acceptFinding(drawn, all[0]!, all, 'still', 'm3'))
    expect(Object.keys(again.accepted)).toEqual(['m3'])
  })
})

describe('layers that are carried', () => {
  const path = (keys: readonly (readonly [frame: number, x: number])[], more: object = {}): Operation => ({
    kind: 'path.set',
    take: FIRST.take,
    layer,
    path: { ...restingPath(1920, 1080), keys: keys.map(([frame, x]) => evenKey(frame, x, 0)), ...more },
  })

  test('are asked where they are seen, frame by frame; a stretch of it is told once, and its way is not mended by a drawing', () => {
    // Held drawings that go left by 100 px a frame, from 300 on, and back.
    const of = blocks(across(300, 300, 300, 300), [
      path([
        [0, 0],
        [4, -400],
        [7, -100],
      ]),
    ])
    const [found, ...rest] = findingsOf(of, 'framed').filter(one => one.severity === 'look')
    expect(rest).toEqual([])
    // At 0 on frame 3, at −100 on frame 4, at 0 again on frame 5.
    expect(found).toMatchObject({ from: 4, to: 5 })
    expect(found?.words).toBe('50 % of 3 lies outside the picture, on the left')
    expect(CHECKS.framed.fix?.(of, found!, () => 'n')).toBeNull()
  })

  test('one that goes out for good is meant to; on the spot when sent off is on the spot; strips have no end', () => {
    const away = [
      path([
        [0, 0],
        [7, -700],
      ]),
    ]
    expect(said(blocks(across(300, 300, 300, 300), away)).filter(words => words.includes('outside'))).toEqual([])
    const out = path(
      [
        [0, 0],
        [4, -400],
        [7, -100],
      ],
      { use: 'pin' },
    )
    expect(said(blocks(across(300, 300, 300, 300), [out]))).toEqual([])
    const strip = path(
      [
        [0, 0],
        [4, -400],
        [7, -100],
      ],
      { closes: 1920 },
    )
    expect(said(blocks(across(300, 300, 300, 300), [strip]))).toEqual([])
    expect(CHECKS.framed.series?.(blocks(across(300, 300, 300, 300), [strip]))).toEqual([])
  })
})

test('its series tell what lies beyond each edge, and the head room', () => {
  // Its own shape is no other edge.
  const own = CHECKS.framed.series?.(blocks([[HOME, 108]], cuts('wide')))
  expect(own?.map(one => one.what)).toEqual(['picture', 'safe', undefined])
  const series =
    CHECKS.framed.series?.(
      blocks(
        [
          [HOME, 108],
          [1820, 27],
        ],
        cuts('square'),
      ),
    ) ?? []
  expect(series.map(one => [one.name.split(', ')[1], one.unit, one.isOnlyTold ?? false])).toEqual([
    ['outside the picture', '%', false],
    ['outside the safe margin', '%', false],
    ['lost when cut to a square', '%', false],
    ['head room', '% of the height', true],
  ])
  expect(series.map(one => one.values.map(({ value }) => Math.round(10 * value) / 10))).toEqual([
    [0, 50],
    [0, expect.closeTo(98.5, 0)],
    [0, 100],
    [10, 2.5],
  ])
  expect(series[0]?.values.map(({ frame, drawing }) => [frame, drawing])).toEqual([
    [0, 'd1'],
    [2, 'd2'],
  ])
})
