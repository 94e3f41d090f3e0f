import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { presetTicks, presetWish } from '../../chart/wish.ts'
import { FIRST } from '../../document/model/fresh.ts'
import type { ShotDocument } from '../../document/model/model.ts'
import type { Operation } from '../../document/operations/index.ts'
import { currentTake } from '../../document/model/selectors.ts'
import { get } from '../../document/model/table.ts'
import { restingPath } from '../../path/path.ts'
import { acceptedOf, acceptFinding, askAgain, aboutOf } from '../accepting.ts'
import { along, blockAt, done, layer, moving, said, survey, twos } from '../tests/moving.ts'
import { CHECKS, findings } from './table.ts'

const loop = (document: ShotDocument): Operation => ({
  kind: 'loop.set',
  take: FIRST.take,
  loop: { from: 0, to: currentTake(document).length },
})

describe('pops and stalls', () => {
  test('a step against both beside it, in px a frame: told where it is more than two and a half times both', () => {
    // On twos: 10, 10, 30, 10, 10 px a frame. 30 is three times both.
    const jump = moving({ nose: along(0, 20, 40, 100, 120, 140) }, twos(6))
    expect(said('pace', jump)).toEqual(['nose of 4 jumps from 3: 30 px a frame, 10 and 10 beside it'])
    const found = CHECKS.pace.inspect(survey(jump))[0]
    expect(found).toMatchObject({
      severity: 'look',
      from: 6,
      drawings: ['d4', 'd3'],
      marks: ['nose'],
      at: { x: 100, y: 300 },
    })
    // Two and a half times exactly is none.
    expect(said('pace', moving({ nose: along(0, 20, 40, 90, 110, 130) }, twos(6)))).toEqual([])
  })

  test('in a shot that asks earlier, or later, it is told earlier, or later', () => {
    const at = (thresholds: ShotDocument['thresholds'], ...xs: number[]) =>
      said('pace', { ...moving({ nose: along(...xs) }, twos(6)), thresholds })
    expect(at({ pop: 2.4 }, 0, 20, 40, 90, 110, 130)).toHaveLength(1)
    expect(at({ pop: 3.1 }, 0, 20, 40, 100, 120, 140)).toEqual([])
    expect(at({ stall: 0.3 }, 0, 20, 40, 45, 65, 85)).toHaveLength(1)
    expect(at({ stall: 0.05 }, 0, 20, 40, 42, 62, 82)).toEqual([])
  })

  test('a stall is less than a quarter of both, and by three pixels a frame', () => {
    expect(said('pace', moving({ nose: along(0, 20, 40, 42, 62, 82) }, twos(6)))).toEqual([
      'nose of 4 hardly moves from 3: 1 px a frame, 10 and 10 beside it',
    ])
    expect(said('pace', moving({ nose: along(0, 20, 40, 45, 65, 85) }, twos(6)))).toEqual([])
    // The same place on two drawings that follow one another.
    expect(said('pace', moving({ nose: along(0, 20, 40, 40, 60, 80) }, twos(6)))).toHaveLength(1)
    // What is too slow to be seen: 3, 0.1 and 3 px a frame.
    expect(said('pace', moving({ nose: along(0, 6, 12, 12.2, 18, 24) }, twos(6)))).toEqual([])
  })

  test('silent at the first and the last step, after a rest, at a turn, at a contact, and where a chart has spaced it', () => {
    expect(said('pace', moving({ nose: along(0, 60, 80, 100) }, twos(4)))).toEqual([])
    expect(said('pace', moving({ nose: along(0, 20, 40, 100) }, twos(4)))).toEqual([])
    // The third drawing is held for a dozen frames: what comes behind is another move.
    expect(said('pace', moving({ nose: along(0, 20, 40, 100, 120, 140) }, [2, 2, 12, 2, 2, 2]))).toEqual([])
    // So is the one it arrives on.
    expect(said('pace', moving({ nose: along(0, 20, 40, 100, 120, 140) }, [2, 2, 2, 12, 2, 2]))).toEqual([])
    const turned = [...along(0, 20, 40), { x: 40, y: 360 }, { x: 60, y: 360 }, { x: 80, y: 360 }]
    expect(said('pace', moving({ nose: turned }, twos(6)))).toEqual([])
    const jump = moving({ nose: along(0, 20, 40, 100, 120, 140) }, twos(6))
    const planted: Operation = {
      kind: 'marks.place',
      drawing: 'd4',
      places: { nose: { x: 100, y: 300, planted: true } },
    }
    expect(said('pace', done(jump, [planted]))).toEqual([])
    const ticks = presetTicks('even', 1).map(tick => ({ ...tick, drawing: 'd3' }))
    const chart = { id: 'c', layer, from: 'd2', to: 'd4', part: null, wish: presetWish('even'), ticks }
    expect(said('pace', done(jump, [{ kind: 'chart.add', chart }]))).toEqual([])
  })

  test('moved and scaled as a whole it says the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: -400, max: 400 }), fc.integer({ min: 1, max: 4 }), (by, scale) => {
        const xs = [0, 20, 40, 100, 120, 140].map(x => by + x * scale)
        expect(said('pace', moving({ nose: along(...xs) }, twos(6)))).toHaveLength(1)
      }),
      { numRuns: 30 },
    )
  })
})

describe('the loop', () => {
  const round = (...xs: number[]) => {
    const document = moving({ nose: along(...xs) }, twos(xs.length))
    return done(document, [loop(document)])
  }
  test('the step over its seam against the usual one', () => {
    // 10 px a frame there and back, and 10 over the seam: silent. 40 over the seam: told.
    expect(said('seam', round(0, 20, 40, 60, 40, 20))).toEqual([])
    expect(said('seam', round(0, 20, 40, 60, 80))).toEqual([
      'nose of 5 jumps to 1 where the loop closes: 40 px a frame, 10 otherwise',
    ])
    expect(said('seam', moving({ nose: along(0, 20, 40, 60, 80) }, twos(5)))).toEqual([])
    // Twice the usual one is none.
    expect(said('seam', round(0, 20, 40, 60, 80, 60, 40))).toEqual([])
    expect(said('seam', { ...round(0, 20, 40, 60, 80, 60, 40), thresholds: { seam: 1.5 } })).toHaveLength(1)
    expect(said('seam', { ...round(0, 20, 40, 60, 80), thresholds: { seam: 4.5 } })).toEqual([])
    // Three drawings have no usual step.
    expect(said('seam', round(0, 20, 80))).toEqual([])
  })

  test('a drawing that ends it and begins it is seen for the frames of both', () => {
    const document = moving({ nose: along(0, 20, 40, 20) }, twos(4))
    const twice = done(document, [
      { kind: 'exposure.write', take: FIRST.take, layer, from: 6, runs: [{ drawing: 'd1', frames: 2 }] },
      loop(document),
    ])
    expect(said('seam', twice)).toEqual(['1 ends the loop and begins it: it is seen for 4 frames, where it closes'])
  })

  test('a last drawing that is nearly the first, though it was drawn anew', () => {
    /** Blocks of 100 by 100 px at places, gone round on twos. */
    const blocks = (xs: readonly number[], more: readonly Operation[] = []) => {
      const document = moving({}, twos(xs.length), [
        { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 2 * xs.length } },
        ...more,
      ])
      const body = (x: number) => ({
        ...{ area: 10_000, centroid: { x, y: 350 }, halfAxes: [50, 50] as const, tiltRad: 0, open: null },
        coverage: blockAt(x, 300, 100, 100),
      })
      const shapes = new Map(xs.map((x, i) => [`d${i + 1}`, body(x)]))
      return CHECKS.seam.inspect({ ...survey(document), shapes }).map(({ severity, words }) => `${severity}: ${words}`)
    }
    expect(blocks([100, 140, 180, 140, 102])).toEqual([
      'note: 5 is nearly 1: where the loop closes it is seen twice, and a drawing less would go round evenly',
    ])
    expect(blocks([100, 140, 180, 140])).toEqual([])
    expect(blocks([100, 140, 180, 150, 118])).toEqual([])
    // It rests there: the steps beside it are as short.
    expect(blocks([100, 140, 180, 140, 102, 101])).toEqual([])
    expect(blocks([100, 103, 140, 180, 140, 102])).toEqual([])
    // Nothing moves; there are too few; what comes and goes; it is carried as well.
    expect(blocks([100, 101, 102, 101, 100])).toEqual([])
    expect(blocks([100, 140, 102])).toEqual([])
    expect(blocks([100, 140, 180, 140, 102], [{ kind: 'layer.set', id: layer, patch: { volume: 'off' } }])).toEqual([])
    const path = { ...restingPath(1920, 1080), speed: { x: 5, y: 0 } }
    const carried: Operation = { kind: 'path.set', take: FIRST.take, layer, path }
    expect(blocks([100, 140, 180, 140, 102], [carried])).toEqual([])
  })
})

describe('exposure', () => {
  const still = moving({}, [12, 4, 4, 4])
  const empty = (from: number, frames: number): Operation => ({
    kind: 'exposure.write',
    take: FIRST.take,
    layer,
    from,
    runs: [{ drawing: null, frames }],
  })
  test('a blink of nothing is told, and held over in one step; a longer pause is meant', () => {
    expect(said('exposed', still)).toEqual([])
    const blink = done(still, [empty(14, 2)])
    expect(said('exposed', blink)).toEqual(['nothing is shown on frames 15–16: a blink of nothing'])
    const [found] = CHECKS.exposed.inspect(survey(blink))
    const fix = CHECKS.exposed.fix?.(survey(blink), found!, () => 'new')
    expect(fix?.words).toBe('hold 2 2 frames longer')
    expect(said('exposed', done(blink, fix!.ops))).toEqual([])
    // A quarter of a second and more.
    expect(said('exposed', done(moving({}, [12, 12, 4]), [empty(12, 6)]))).toEqual([])
  })

  test('a layer that ends a moment too early; drawings that no take shows', () => {
    expect(said('exposed', done(still, [empty(21, 3)]))).toEqual(['ends 3 frames before the shot does, on 21'])
    expect(said('exposed', done(still, [empty(12, 12)]))).toEqual(['2, 3, 4 are drawn, and no take shows them'])
    const blank = { id: 'b', layer, number: 9, role: 'key', elements: {}, marks: {} } as const
    expect(said('exposed', done(still, [{ kind: 'drawing.add', drawing: blank }]))).toEqual([])
  })

  test('a beginning in which nothing rests, but not of a loop, and not where another layer rests', () => {
    const words = 'nothing rests in the first third of a second: there is no time to see who it is'
    const quick = moving({}, [4, ...twos(14)])
    expect(said('exposed', quick)).toEqual([words])
    expect(said('exposed', done(quick, [loop(quick)]))).toEqual([])
    expect(said('exposed', moving({}, [8, ...twos(14)]))).toEqual([])
    expect(said('exposed', moving({}, twos(6)))).toEqual([])
  })
})

describe('parts', () => {
  /** Three parts that set out together on frame 3 and arrive when told (drawing by drawing), and rest behind. */
  const arrive = (...at: number[]) =>
    moving(
      Object.fromEntries(
        at.map((end, i) => [
          `part${i + 1}`,
          Array.from({ length: 12 }, (_, k) => ({ x: 20 * Math.min(k, end), y: 50 * i })),
        ]),
      ),
      twos(12),
    )
  test('three that arrive on the same frame are told, with how they could be staggered; one after the other they are not', () => {
    expect(said('together', arrive(6, 6, 6))).toEqual([
      '3 of 3 parts arrive on frame 13: part1, part2, part3. Staggered: part2 1 later, part3 2 later',
    ])
    expect(said('together', arrive(4, 6, 8))).toEqual([])
    // Two are no crowd; what goes on until the shot ends has not arrived.
    expect(said('together', arrive(6, 6))).toEqual([])
    expect(said('together', arrive(11, 11, 11))).toEqual([])
  })

  test('what stops hard and gives nothing', () => {
    const stop = moving({ fist: along(0, 30, 60, 90, 90, 90, 90) }, twos(7))
    expect(said('weight', stop)).toEqual([
      'fist stops without weight on frame 7: from 15 px a frame, and nothing gives',
    ])
    expect(said('weight', moving({ fist: along(0, 30, 60, 90, 98, 94, 94, 94, 94) }, twos(9)))).toEqual([])
  })

  test('every part gliding alike, of three and more', () => {
    const eased = [0, 4, 14, 30, 52, 74, 90, 100, 104]
    const glide = (n: number) =>
      moving(
        Object.fromEntries(Array.from({ length: n }, (_, i) => [`part${i + 1}`, eased.map(x => ({ x, y: 60 * i }))])),
        twos(9),
      )
    expect(said('alike', glide(3))).toEqual(['every part glides alike: part1, part2, part3'])
    expect(said('alike', glide(2))).toEqual([])
  })
})

describe('a finding that is meant so', () => {
  const jump = moving({ nose: along(0, 20, 40, 100, 120, 140) }, [12, ...twos(5)])
  const [found] = findings(survey(jump), ['pace'])
  const meant = done(jump, acceptFinding(jump, found!, [], 'it slips', 'm1'))

  test('is known, with its reason, until its drawing changes or something else is found of it', () => {
    expect(acceptedOf(jump, found!)).toBeNull()
    expect(acceptedOf(meant, found!)?.reason).toBe('it slips')
    // Another drawing may change; a stroke more on this one asks again.
    const other: Operation = { kind: 'elements.remove', drawing: 'd1', ids: ['e1'] }
    expect(acceptedOf(done(meant, [other]), found!)).not.toBeNull()
    const own: Operation = { kind: 'elements.remove', drawing: 'd4', ids: ['e4'] }
    expect(acceptedOf(done(meant, [own]), found!)).toBeNull()
    expect(acceptedOf(meant, { ...found!, words: 'something else' })).toBeNull()
    expect(acceptedOf(meant, { ...found!, check: 'seam' })).toBeNull()
  })

  test('said again it is there once; asked again it is not', () => {
    const again = done(meant, acceptFinding(meant, found!, [], 'it really slips', 'm2'))
    expect(Object.values(again.accepted).map(one => one.reason)).toEqual(['it really slips'])
    expect(done(again, askAgain(again, found!)).accepted).toEqual({})
    expect(aboutOf({ ...found!, drawings: Array.from({ length: 200 }, (_, i) => `drawing${i}`) }).length).toBeLessThan(
      400,
    )
  })
})

test('a drawing is moved to its place by what the way to it says, marks and all', () => {
  const ticks = presetTicks('even', 1).map(tick => ({ ...tick, depth: 1, drawing: 'd2' }))
  const chart = { id: 'c', layer, from: 'd1', to: 'd3', part: 'nose', wish: presetWish('even'), ticks }
  const document = moving(
    { nose: [...along(0, 80), { x: 200, y: 300 }] },
    [12, 2, 2],
    [
      { kind: 'drawing.set', id: 'd2', patch: { role: 'inbetween' } },
      { kind: 'chart.add', chart },
    ],
  )
  const [found] = CHECKS.way.inspect(survey(document))
  expect(found?.words).toBe('nose of 2 lies at 40 % of the way, planned 50 %: 20 px right')
  const fix = CHECKS.way.fix?.(survey(document), found!, () => 'new')
  expect(fix?.words).toBe('move 2 by 20 px right')
  const after = done(document, fix!.ops)
  expect(said('way', after)).toEqual([])
  expect(get(after.drawings, 'd2').marks.nose).toMatchObject({ x: 100, y: 300 })
  expect(get(after.drawings, 'd2').elements.e2?.matrix).toEqual([1, 0, 0, 1, 20, 0])
})
