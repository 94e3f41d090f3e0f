import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { presetWish, type Wish } from '../chart/wish.ts'
import { map } from '../geometry/matrix.ts'
import {
  canLieByHalves,
  crossingSeconds,
  evenKey,
  isResting,
  layingsOn,
  matrixOn,
  pathAfterInsert,
  pathAfterRemove,
  placeOn,
  refusePath,
  restingPath,
  retimedPath,
  movedPath,
  seamPx,
  sharesBetween,
  withKey,
  withoutKey,
  type LayerPath,
  type PathKey,
} from './path.ts'

const rest = restingPath(640, 360)
const key = evenKey
const through = (...keys: PathKey[]): LayerPath => ({ ...rest, keys })
const xs = (path: LayerPath, frames: readonly number[]) => frames.map(frame => placeOn(path, frame).x)

const wishes: fc.Arbitrary<Wish> = fc.constantFrom(
  presetWish('even'),
  presetWish('both', 0.25),
  presetWish('favour-a'),
  { ...presetWish('even'), ease: 'overshoot' },
  { ...presetWish('even'), ease: 'curve', points: [0, 0.9, 0.9, 1] },
  { ...presetWish('even'), ease: 'hand', points: [0.5, 0.75, 1] },
)

const keys = fc.uniqueArray(fc.nat(40), { minLength: 1, maxLength: 6 }).chain(frames =>
  fc.tuple(
    ...frames
      .sort((a, b) => a - b)
      .map(frame =>
        fc.record({
          frame: fc.constant(frame),
          x: fc.integer({ min: -500, max: 500 }),
          y: fc.integer({ min: -500, max: 500 }),
          turnRad: fc.constantFrom(0, 0.5, -1),
          wish: wishes,
          halves: fc.boolean(),
        }),
      ),
  ),
)
const paths = fc.record({
  keys,
  speed: fc.record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -9, max: 9 }) }),
  pivot: fc.constant({ x: 320, y: 180 }),
  whole: fc.boolean(),
  on: fc.integer({ min: 1, max: 4 }),
  closes: fc.constantFrom(null, 200),
  use: fc.constant('moves' as const),
}) as fc.Arbitrary<LayerPath>

describe('where a layer lies', () => {
  test('between two places it goes by the spacing of the earlier, is at each on its frame, and stays behind the last', () => {
    const path = through({ ...key(2, 10, 4), wish: presetWish('slow-out') }, key(6, 26, 0))
    // u² of the way: 1/16, 4/16, 9/16 of 16 px.
    expect(xs(path, [0, 2, 3, 4, 5, 6, 7, 30])).toEqual([10, 10, 11, 14, 19, 26, 26, 26])
    expect(placeOn(path, 4)).toEqual({ x: 14, y: 3, turnRad: 0 })
  })

  test('on twos a place is kept for two frames, counted from the place before', () => {
    expect(xs({ ...through(key(1), key(7, 60)), on: 2 }, [0, 1, 2, 3, 4, 5, 6, 7, 8])).toEqual([
      0, 0, 0, 20, 20, 40, 40, 60, 60,
    ])
  })

  test('behind its last place it goes on at its speed, in the same steps', () => {
    const path = { ...through(key(0, 100)), speed: { x: -13.5, y: 1 }, on: 2 }
    expect(xs(path, [0, 1, 2, 3, 4, 40])).toEqual([100, 100, 73, 73, 46, 100 - 13.5 * 40])
    expect(placeOn(path, 5).y).toBe(4)
  })

  test('whole pixels round the place, ties up, and never the speed', () => {
    const path = { ...through(key(0)), speed: { x: 0.5, y: -0.5 }, whole: true }
    expect([0, 1, 2, 3, 4].map(frame => [placeOn(path, frame).x, placeOn(path, frame).y])).toEqual([
      [0, 0],
      [1, 0],
      [1, -1],
      [2, -1],
      [2, -2],
    ])
    expect(placeOn(path, 1000).x).toBe(500)
  })

  test('it turns about its pivot, clockwise as seen, and is moved then', () => {
    const path = { ...through(key(0, 5, 7, Math.PI / 2)), pivot: { x: 10, y: 10 } }
    const { x, y } = map(matrixOn(path, 3), { x: 12, y: 10 })
    expect([x, y]).toEqual([expect.closeTo(15, 9), expect.closeTo(19, 9)])
    expect(map(matrixOn(path, 3), { x: 10, y: 10 })).toEqual({ x: expect.closeTo(15, 9), y: expect.closeTo(17, 9) })
  })

  test('a fresh one rests; anything that moves, turns or is laid down again does not', () => {
    expect(isResting(rest)).toBe(true)
    const others = [
      through(key(0), key(4, 1)),
      through(key(0, 0, 0, 0.1)),
      { ...rest, speed: { x: 0, y: 1 } },
      { ...rest, closes: 640 },
    ]
    expect(others.map(isResting)).toEqual([false, false, false, false])
  })
})

describe('the way between two places is spaced', () => {
  const spaced = (wish: Partial<Wish>, halves: boolean, frames = 8, on = 1) =>
    sharesBetween({ ...key(0), wish: { ...presetWish('even'), ...wish }, halves }, frames, on)

  test('by the halves a chart of as many drawings has, or by what was wished itself', () => {
    // Three inbetweens slow out: u² would be 1/16, 1/4, 9/16; halves give 1/8, 1/4, 1/2 (largest error 1/16).
    expect(spaced({ ease: 'slow-out' }, false, 4)).toEqual([1 / 16, 1 / 4, 9 / 16])
    expect(spaced({ ease: 'slow-out' }, true, 4)).toEqual([1 / 8, 1 / 4, 1 / 2])
    // On twos there are three places in eight frames as well.
    expect(spaced({ ease: 'slow-out' }, true, 8, 2)).toEqual([1 / 8, 1 / 4, 1 / 2])
    const path = through({ ...key(0), wish: presetWish('slow-out'), halves: true }, key(4, 80))
    expect(xs(path, [0, 1, 2, 3, 4, 5])).toEqual([0, 10, 20, 40, 80, 80])
  })

  test('past the place and back, by a drawn curve, by ticks put by hand', () => {
    const most = (frames: number, strength: number) =>
      Math.max(...spaced({ ease: 'overshoot', strength }, false, frames))
    expect(most(8, 0.5)).toBeCloseTo(5 / 4, 9)
    expect(most(8, 0.3)).toBeCloseTo(9 / 8, 9)
    // Half-way up in three eighths of the time, half-way down from it in seven.
    expect(spaced({ ease: 'overshoot' }, false, 8)[2]).toBeCloseTo(5 / 8, 9)
    expect(spaced({ ease: 'overshoot' }, false, 8)[6]).toBeCloseTo(9 / 8, 9)
    expect(spaced({ ease: 'overshoot' }, true, 4)).toEqual([expect.any(Number), expect.any(Number), 5 / 4])
    expect(spaced({ ease: 'curve', points: [0, 0, 1, 1] }, false, 6)).toEqual([0, 0, expect.closeTo(0.5, 9), 1, 1])
    expect(spaced({ ease: 'hand', points: [1 / 4, 1 / 2, 3 / 4] }, true, 4)).toEqual([1 / 4, 1 / 2, 3 / 4])
    expect(spaced({ ease: 'hand', points: [1 / 2, 3 / 4] }, false, 6)[0]).toBeCloseTo(1 / 4, 9)
  })

  test('with more places than a chart holds it goes by the wish, and with none there are no halves', () => {
    expect([1, 2, 12, 13, 24].map(frames => canLieByHalves(frames, 1))).toEqual([false, true, true, false, false])
    expect([24, 26, 2, 3].map(frames => canLieByHalves(frames, 2))).toEqual([true, false, false, true])
    expect(spaced({ ease: 'slow-in' }, true, 40)).toEqual(spaced({ ease: 'slow-in' }, false, 40))
  })

  test('it is at each of the two on its frame, whatever was wished', () => {
    fc.assert(
      fc.property(
        wishes,
        fc.boolean(),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 4 }),
        (wish, halves, frames, on) => {
          const path = { ...through({ ...key(3, 7), wish, halves }, key(3 + frames, 90)), on }
          expect(xs(path, [3, 3 + frames])).toEqual([7, 90])
        },
      ),
      { seed: 8 },
    )
  })
})

describe('a strip that closes', () => {
  test('is laid down again wherever it reaches into the picture, and nowhere else', () => {
    const path = { ...through(key(0)), speed: { x: -100, y: 0 }, closes: 400 }
    const lefts = (frame: number) => layingsOn(path, frame, 640, 0, 400).map(matrix => matrix[4])
    expect(lefts(0)).toEqual([0, 400])
    expect(lefts(1)).toEqual([-100, 300])
    expect(lefts(9)).toEqual([-100, 300])
    // Drawn over its own edge, it is seen from farther off.
    expect(layingsOn(path, 0, 640, -170, 420).map(matrix => matrix[4])).toEqual([-400, 0, 400, 800])
  })

  test('the picture is covered on every frame, and looks the same a whole width later', () => {
    const at = fc.integer({ min: -2000, max: 2000 })
    fc.assert(
      fc.property(at, fc.integer({ min: 64, max: 900 }), (x, closes) => {
        const laid = layingsOn({ ...through(key(0, x)), closes }, 0, 640, 0, closes).map(matrix => matrix[4])
        expect(Math.min(...laid)).toBeLessThanOrEqual(0)
        expect(Math.max(...laid) + closes).toBeGreaterThanOrEqual(640)
        laid.slice(1).forEach((left, i) => expect(left - (laid[i] as number)).toBe(closes))
        expect(layingsOn({ ...through(key(0, x + closes)), closes }, 0, 640, 0, closes).map(m => m[4])).toEqual(laid)
      }),
      { seed: 3 },
    )
  })

  test('where nothing is drawn, or it does not close, it is laid down once', () => {
    expect(layingsOn({ ...rest, closes: 100 }, 0, 640, Infinity, -Infinity)).toHaveLength(1)
    expect(layingsOn(through(key(0, 9000)), 0, 640, 0, 100)).toHaveLength(1)
  })

  test('a loop that lets it go on by whole widths does not jump; another jumps by what is left', () => {
    const path = { ...through(key(0)), speed: { x: -25, y: 0 }, closes: 400 }
    expect([16, 32, 17, 24].map(to => seamPx(path, { from: 0, to }))).toEqual([0, 0, 25, 200])
    expect(seamPx({ ...path, closes: null }, { from: 4, to: 20 })).toBe(400)
    expect(seamPx(through(key(0), key(10, 3, 4)), { from: 0, to: 10 })).toBe(5)
  })
})

describe('what becomes of a path', () => {
  test('frames put in move what comes from there on; taking them out again restores it', () => {
    fc.assert(
      fc.property(paths, fc.nat(45), fc.integer({ min: 1, max: 9 }), (path, at, count) => {
        const longer = pathAfterInsert(path, at, count)
        expect(pathAfterRemove(longer, at, at + count)).toEqual(path)
        for (const one of path.keys) {
          const frame = one.frame < at ? one.frame : one.frame + count
          expect(longer.keys).toContainEqual({ ...one, frame })
        }
      }),
      { seed: 5 },
    )
  })

  test('of places that fall together where frames were taken out the latest stays', () => {
    const path = through(key(0, 1), key(4, 2), key(6, 3), key(9, 4))
    expect(pathAfterRemove(path, 3, 8).keys.map(({ frame, x }) => [frame, x])).toEqual([
      [0, 1],
      [3, 3],
      [4, 4],
    ])
    expect(pathAfterRemove(path, 3, 9).keys.map(({ frame, x }) => [frame, x])).toEqual([
      [0, 1],
      [3, 4],
    ])
    expect(pathAfterRemove(path, 20, 22)).toBe(path)
  })

  test('whatever is done to a usable one, it is usable', () => {
    fc.assert(
      fc.property(paths, fc.nat(45), fc.integer({ min: 1, max: 9 }), (path, at, count) => {
        const all = [
          path,
          pathAfterInsert(path, at, count),
          pathAfterRemove(path, at, at + count),
          withKey(path, at, { x: 3 }),
          movedPath(path, 0.25),
          retimedPath(path, 0.5),
        ]
        expect(all.map(refusePath)).toEqual(all.map(() => null))
      }),
      { seed: 6 },
    )
  })

  test('a place put in where it lies anyway changes nothing there, and others stay', () => {
    fc.assert(
      fc.property(paths, fc.nat(45), (path, frame) => {
        const more = withKey({ ...path, whole: false, on: 1 }, frame, {})
        expect(placeOn(more, frame)).toEqual(placeOn({ ...path, whole: false, on: 1 }, frame))
        expect(withoutKey(more, frame)?.keys ?? []).toEqual(path.keys.filter(one => one.frame !== frame))
      }),
      { seed: 7 },
    )
    expect(withKey(through(key(0), key(8, 80)), 4, { y: 6 }).keys[1]).toEqual({ ...key(4, 40, 6) })
  })

  test('enlarged, everything that is a length is; at another rate it takes as many seconds', () => {
    const path = { ...through(key(0), key(10, 4, 6)), speed: { x: 2, y: 1 }, closes: 100, on: 2 }
    expect(movedPath(path, 2)).toMatchObject({
      keys: [{}, { frame: 10, x: 8, y: 12 }],
      speed: { x: 4, y: 2 },
      pivot: { x: 640, y: 360 },
      closes: 200,
    })
    expect(movedPath(path, 0.1).closes).toBe(64)
    expect(retimedPath(path, 2)).toMatchObject({ keys: [{}, { frame: 20, x: 4 }], speed: { x: 1, y: 0.5 }, on: 4 })
    expect(retimedPath(through(key(0, 1), key(1, 2)), 0.25).keys.map(({ x }) => x)).toEqual([2])
  })

  test('the seconds in which a picture goes by', () => {
    // 640 px at 8 px a frame are 80 frames.
    expect(crossingSeconds({ ...rest, speed: { x: -8, y: 0 } }, 640, 24)).toBeCloseTo(80 / 24, 9)
    expect(crossingSeconds(rest, 640, 24)).toBeNull()
  })
})

test('a path that cannot be used is told by what is wrong with it', () => {
  const wished = (wish: Partial<Wish>): PathKey => ({ ...key(0), wish: { ...presetWish('even'), ...wish } })
  const wrong: [Partial<LayerPath>, string][] = [
    [{ keys: [] }, 'number of places'],
    [{ keys: Array.from({ length: 2001 }, (_, i) => key(i)) }, 'number of places'],
    [{ keys: [key(4), key(4)] }, 'frame of a place'],
    [{ keys: [key(4), key(2)] }, 'frame of a place'],
    [{ keys: [key(0.5)] }, 'frame of a place'],
    [{ keys: [key(20_001)] }, 'frame of a place'],
    [{ keys: [key(0, NaN)] }, 'place'],
    [{ keys: [key(0, 0, 1e6)] }, 'place'],
    [{ keys: [key(0, 0, 0, Infinity)] }, 'turn'],
    [{ keys: [wished({ ease: 'sudden' as never })] }, 'spacing'],
    [{ keys: [wished({ strength: 2 })] }, 'spacing'],
    [{ keys: [wished({ ease: 'curve', points: [0, 0.5, 0.4, 1] })] }, 'spacing'],
    [{ keys: [wished({ ease: 'hand', points: [0.5, 0.5] })] }, 'spacing'],
    [{ keys: [wished({ ease: 'hand', points: [0.5, NaN] })] }, 'spacing'],
    [{ keys: [{ ...key(0), halves: 'yes' as never }] }, 'spacing'],
    [{ speed: { x: 1e9, y: 0 } }, 'speed'],
    [{ pivot: { x: 0, y: NaN } }, 'pivot'],
    [{ whole: 1 as never }, 'whole pixels'],
    [{ on: 0 }, 'frames of a place'],
    [{ on: 1.5 }, 'frames of a place'],
    [{ closes: 12 }, 'width of the strip'],
    [{ closes: NaN }, 'width of the strip'],
    [{ use: 'camera' as never }, 'use'],
  ]
  expect(wrong.map(([patch]) => refusePath({ ...rest, ...patch }))).toEqual(wrong.map(([, why]) => why))
  expect(refusePath(rest)).toBeNull()
})
