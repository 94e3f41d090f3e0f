import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { freshGuide, changeGuide } from '../../document/acts/guides.ts'
import { FIRST } from '../../document/model/fresh.ts'
import type { ShotDocument } from '../../document/model/model.ts'
import type { Operation } from '../../document/operations/index.ts'
import { get } from '../../document/model/table.ts'
import type { Point } from '../../geometry/point.ts'
import { coverageOf } from '../../raster/coverage.ts'
import { posesAlike, type Pose } from '../../raster/pose.ts'
import type { Shape } from '../../raster/shapeOf.ts'
import { parabolaThrough } from '../tracks/parabola.ts'
import { along, done, layer, moving, survey, twos } from '../tests/moving.ts'
import { attentionOf } from './attention.ts'
import { CHECKS, type CheckName } from './table.ts'

/** A survey in which the silhouettes of d1, d2 … lie at places, 60 by 30 px. */
const bodyOf = (centroid: Point, pose?: Pose): Shape => ({
  area: 1400,
  centroid,
  halfAxes: [30, 15],
  tiltRad: 0,
  open: null,
  ...(pose && { pose }),
})
const withBodies = (document: ShotDocument, places: readonly Point[], poses: readonly Pose[] = []) => ({
  ...survey(document),
  shapes: new Map(places.map((at, i) => [`d${i + 1}`, bodyOf(at, poses[i])])),
})
const said = (check: CheckName, document: ShotDocument, places: readonly Point[], poses: readonly Pose[] = []) =>
  CHECKS[check].inspect(withBodies(document, places, poses)).map(one => one.words)

describe('a parabola through values', () => {
  test('one that is one is found, and nothing is off it', () => {
    const n = fc.integer({ min: -50, max: 50 })
    fc.assert(
      fc.property(n, n, n, fc.integer({ min: 0, max: 400 }), (a, b, c, from) => {
        const values = Array.from({ length: 7 }, (_, i) => from + 2 * i).map(t => ({ t, y: a + b * t + c * t * t }))
        const fit = parabolaThrough(values)!
        for (const { t, y } of values) expect(Math.abs(fit.a + fit.b * t + fit.c * t * t - y)).toBeLessThan(1e-3)
        expect(fit.rms).toBeLessThan(1e-3)
        expect(fit.c).toBeCloseTo(c, 5)
      }),
    )
  })
  test('with fewer than three times there is none', () => {
    expect(
      parabolaThrough([
        { t: 1, y: 2 },
        { t: 1, y: 3 },
        { t: 2, y: 4 },
      ]),
    ).toBeNull()
  })
})

describe('flight', () => {
  /** Standing, so many drawings in the air at heights, standing again. */
  function jump(...ys: number[]) {
    const all = [0, ...ys, 0]
    const places = all.map((y, i) => ({ x: 100 + 20 * i, y: 400 - y }))
    const planted = [0, all.length - 1].map((i): Operation => ({
      kind: 'marks.place',
      drawing: `d${i + 1}`,
      places: { foot: { ...(places[i] as Point), planted: true } },
    }))
    return said('flight', moving({ foot: places }, twos(all.length), planted), places)
  }
  test('thrown: 45, 80, 105, 120, 125, 120 … lie on a parabola; one that hangs does not', () => {
    expect(jump(45, 80, 105, 120, 125, 120, 105, 80, 45)).toEqual([])
    expect(jump(45, 80, 105, 120, 155, 120, 105, 80, 45)).toEqual([
      // 30 px too high in the middle of nine: with a leverage of 708 / 2772 there, 30 · √(0.745 / 9) and 30 · 0.745.
      '2 to 10 do not fly on a parabola: off by 9 px of 110, 6 by 22',
    ])
  })
  test('as long up as down for its heights; four in the air are too few to be told', () => {
    // From 20 to 120 and back to 20: on twos seven frames each, and not four and ten.
    expect(jump(20, 110, 120, 115, 100, 80, 50, 20)).toEqual([
      '2 to 9 rise in 4 frames and fall in 10: thrown, it would be 7 and 7',
    ])
    // From nearly the top it may be nearly all down.
    expect(jump(100, 104, 102, 94, 80, 60, 34)).toEqual([])
    expect(jump(45, 20, 105, 45)).toEqual([])
  })
})

describe('before and after', () => {
  const move = (xs: readonly number[], holds: readonly number[]) => {
    const places = along(...xs)
    return said('launch', moving({}, holds), places)
  }
  test('a fast move that is neither announced nor goes past its end is told', () => {
    expect(move([0, 60, 140, 200, 200], [12, 2, 2, 2, 12])).toEqual([
      'moves 200 px in 5 frames: nothing goes the other way before it, and nothing goes past its end',
    ])
    // Back by a tenth before it; past its end by a tenth.
    expect(move([0, -20, 140, 200], [12, 2, 2, 12])).toEqual([])
    expect(move([0, 140, 220, 200], [12, 2, 2, 12])).toEqual([])
  })
  test('what is slow, or goes a little way, needs neither; what falls has neither', () => {
    expect(move([0, 40, 80, 120, 160, 200], [12, 3, 3, 3, 3, 12])).toEqual([])
    expect(move([0, 3, 6, 8], [12, 2, 2, 12])).toEqual([])
    const fall = [0, 10, 60, 150].map(y => ({ x: 100, y: 100 + y }))
    expect(said('launch', moving({}, [12, 2, 2, 12]), fall)).toEqual([])
  })
})

describe('reads as a shape', () => {
  const pose = (from: number, to: number): Pose =>
    Uint8Array.from({ length: 100 }, (_, i) => (i >= from && i < to ? 1 : 0))
  const keys = (...poses: Pose[]) =>
    said(
      'poses',
      moving(
        {},
        poses.map(() => 6),
      ),
      poses.map((_, i) => ({ x: 100 * i, y: 100 })),
      poses,
    )

  test('what both cover of what either does', () => {
    expect(posesAlike(pose(0, 50), pose(0, 50))).toBe(1)
    expect(posesAlike(pose(0, 50), pose(50, 100))).toBe(0)
    expect(posesAlike(pose(0, 60), pose(20, 80))).toBe(0.5)
  })
  test('two keys that follow one another and are more than nine tenths alike are told', () => {
    expect(keys(pose(0, 100), pose(0, 90), pose(0, 83))).toEqual([
      'the silhouettes of 2 and 3 are 92 % alike: as shapes they read as one pose',
    ])
    expect(keys(pose(0, 50), pose(50, 100), pose(0, 50))).toEqual([])
    // One key after the other on twos is straight ahead, and what fills its hull has no pose.
    const ahead = moving({}, twos(2))
    expect(said('poses', ahead, along(0, 100), [pose(0, 100), pose(0, 99)])).toEqual([])
    const solid = withBodies(moving({}, [6, 6]), along(0, 100), [pose(0, 100), pose(0, 99)])
    expect(CHECKS.poses.inspect(solid)).toHaveLength(1)
    const discs = new Map([...solid.shapes].map(([id, shape]) => [id, { ...shape, solidity: 0.97 }]))
    expect(CHECKS.poses.inspect({ ...solid, shapes: discs })).toEqual([])
    // What lies between keys may look like them.
    const between = done(moving({}, [6, 6]), [{ kind: 'drawing.set', id: 'd2', patch: { role: 'inbetween' } }])
    expect(said('poses', between, along(0, 100), [pose(0, 100), pose(0, 99)])).toEqual([])
  })
})

describe('limbs as a shape', () => {
  test('a limb that makes nothing of the outline of a key is told; on what is no key, or gone at once, nothing is', () => {
    const document = moving({}, [6, 6, 2])
    const bodies = withBodies(document, along(0, 100, 200))
    const limbs = (...shares: number[]) => ({
      ...bodies,
      shapes: new Map(
        [...bodies.shapes].map(([id, shape], i) => [id, { ...shape, limbs: { near: shares[i] ?? 1, far: 0.2 } }]),
      ),
    })
    const told = (of: typeof bodies) => CHECKS.poses.inspect(of).map(one => one.words)
    expect(told(limbs(0.3, 0.004, 0))).toEqual([
      'the near limbs of 2 lie wholly inside its outline: as a shape they are not there',
    ])
    expect(told(limbs(0.3, 0.009, 0))).toHaveLength(1)
    expect(told(limbs(0.3, 0.011, 0))).toEqual([])
    const between = done(document, [{ kind: 'drawing.set', id: 'd2', patch: { role: 'breakdown' } }])
    expect(told({ ...limbs(0.3, 0, 0), document: between })).toEqual([])
  })
})

describe('landing', () => {
  /** A jump whose body moves on by so much a drawing while its foot lies `ahead` of it. */
  const landing = (ahead: (i: number) => number, hasFeet = true) => {
    const ys = [0, 45, 80, 105, 120, 125, 120, 105, 80, 45, 0]
    const places = ys.map((y, i) => ({ x: 100 + 20 * i, y: 400 - y }))
    const feet = places.map(({ x, y }, i) => (hasFeet || i === 0 || i === 10 ? { x: x + ahead(i), y: y + 20 } : null))
    const planted = [0, 10].map((i): Operation => ({
      kind: 'marks.place',
      drawing: `d${i + 1}`,
      places: { foot: { ...(feet[i] as Point), planted: true } },
    }))
    return said('flight', moving({ foot: feet }, twos(ys.length), planted), places)
  }
  test('weight that stays beside what lands over the whole last third is told; once over it, or without marks, nothing is', () => {
    // The body is 60 px long: its half is 30.
    expect(landing(() => 75)).toEqual([
      '10 comes down with its weight 75 px beside what lands: it would go over it in the last third',
    ])
    expect(landing(i => (i === 9 ? 25 : 75))).toEqual([])
    expect(landing(() => -29)).toEqual([])
    expect(landing(() => 75, false)).toEqual([])
  })
})

describe('stands still', () => {
  const laid = (numbers: Record<string, number>) => {
    const document = moving({}, twos(3))
    const guided = done(document, freshGuide(document, 'wisps', { take: FIRST.take, layer, from: 0 }, 'steam'))
    return done(guided, changeGuide(get(guided.guides, 'steam'), numbers))
  }
  test('as many wisps as drawings seem to stand; a quarter of them rises', () => {
    expect(said('stands', laid({ drawings: 8, pitch: 30, rise: 30 }), [])).toEqual([
      '8 pass in 8 drawings: it will seem to stand still: each wisp comes to where the next one was',
    ])
    expect(said('stands', laid({ drawings: 8, pitch: 40, rise: 10 }), [])).toEqual([])
    expect(CHECKS.stands.isAsked?.({ document: moving({}, twos(2)) })).toBe(false)
  })

  test('without a plan it is shown how they seem to go: as the nearest fits', () => {
    /** Bars of 40 by 20 px, 60 px apart, all of them higher by so much from drawing to drawing. */
    const bars = (rise: number) => {
      const document = moving({}, twos(6), [{ kind: 'layer.set', id: layer, patch: { volume: 'off' } }])
      const shapes = new Map(
        Array.from({ length: 6 }, (_, i) => {
          const inside = Uint8Array.from({ length: 60 * 320 }, (_, k) => {
            const [x, y] = [k % 60, Math.floor(k / 60)]
            const within = (((y + i * rise) % 60) + 60) % 60
            return x >= 10 && x < 50 && within >= 20 && within < 40 ? 1 : 0
          })
          const coverage = coverageOf({ width: 60, height: 320, inside }, { left: 300, top: 200, scale: 1 })!
          return [`d${i + 1}`, { ...bodyOf({ x: 330, y: 360 }), coverage }]
        }),
      )
      return { ...survey(document), shapes }
    }
    const rises = (of: ReturnType<typeof bars>) =>
      CHECKS.stands.series?.(of).map(one => one.values.map(({ value }) => Math.round(value))) ?? []
    expect(rises(bars(20))).toEqual([Array(5).fill(20), Array(5).fill(0)])
    // Drawn 50 px up, 60 apart: it seems to sink by 10. Drawn as far as they are apart: it seems to stand.
    expect(rises(bars(50))).toEqual([Array(5).fill(-10), Array(5).fill(0)])
    expect(rises(bars(60))).toEqual([Array(5).fill(0), Array(5).fill(0)])
    const { document } = bars(20)
    expect(CHECKS.stands.isAsked?.({ document })).toBe(true)
    expect(CHECKS.stands.inspect(bars(60))).toEqual([])
    expect([...CHECKS.stands.prepare!(bars(20))]).toHaveLength(5)
    expect(CHECKS.stands.series?.({ ...bars(20), document: moving({}, twos(6)) })).toEqual([])
  })
})

describe('how well drawings are seen', () => {
  test('the longest and slowest come first; nothing is found', () => {
    const document = moving({ nose: along(0, 0, 40, 80) }, [12, 2, 2, 8])
    const read = attentionOf(survey(document)).map(({ drawing, frames, pxPerFrame }) => [drawing, frames, pxPerFrame])
    // 12 frames at rest, 2 at rest, 8 at 20 px a frame, 2 at 20 px a frame.
    expect(read).toEqual([
      ['d1', 12, 0],
      ['d2', 2, 0],
      ['d4', 8, 20],
      ['d3', 2, 20],
    ])
    expect(said('attention', document, [])).toEqual([])
    // One that is seen again counts for both, and for where it is slowest.
    const again = done(moving({ nose: along(0, 40) }, [2, 8]), [
      { kind: 'exposure.write', take: FIRST.take, layer, from: 6, runs: [{ drawing: 'd1', frames: 4 }] },
    ])
    expect(attentionOf(survey(again)).map(({ drawing, frames }) => [drawing, frames])).toEqual([
      ['d1', 6],
      ['d2', 4],
    ])
    expect(attentionOf(survey(document)).reduce((sum, one) => sum + one.share, 0)).toBeCloseTo(1, 10)
  })
})
