import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { changeBetween, type Change } from './change.ts'
import type { Grey } from '../raster/grey.ts'
import { frameOver, momentUnder, pictureAt } from './laid.ts'
import { corrected, holdsOf, readClip, readingInWords, thresholdOf } from './reading.ts'
import { chance } from '../raster/tests/chance.ts'

const [WIDTH, HEIGHT] = [96, 56]
// Looked up once: the runner of tests takes long to find what is global.
const { abs, cos, floor, max, min, PI, round, sin, sqrt } = Math
/** Holds of a made clip: ones, twos, threes and longer ones in turn. */
const HOLDS = [2, 2, 1, 1, 1, 3, 3, 2, 8, 1, 2, 1, 3, 2, 2, 12, 1, 1, 2, 2, 2, 3, 1, 6, 2]

interface Made {
  /** brightness steps of chance in every pixel */
  noise?: number
  /** steps to which brightness is rounded in blocks, as packing does; and anew every so many frames */
  packed?: number
  /** how bright it is on a frame, 0–1 */
  fade?: (share: number) => number
  /** pixels a frame that the ground passes */
  ground?: number
  /** how far the body moves with each drawing, pixels */
  step?: number
}

/** A made clip: a body of two parts that takes another place with every drawing, before a ground with texture. */
function made(
  holds: readonly number[],
  { noise = 0, packed = 0, fade = () => 1, ground = 0, step = 3 }: Made = {},
): Grey[] {
  const next = chance(5)
  const frames: Grey[] = []
  const total = holds.reduce((sum, hold) => sum + hold, 0)
  holds.forEach((hold, drawing) => {
    for (let i = 0; i < hold; i++) {
      const frame = frames.length
      const data = new Uint8Array(WIDTH * HEIGHT)
      const [cx, cy] = [40 + 16 * sin((drawing * step) / 14), 28 + 7 * cos((drawing * step) / 9)]
      for (let y = 0; y < HEIGHT; y++) {
        for (let x = 0; x < WIDTH; x++) {
          const gx = x + ground * frame
          let value = 190 + 18 * sin(gx / 5) + 12 * sin(y / 7 + gx / 11)
          if (sqrt((x - cx) ** 2 + ((y - cy) * 1.3) ** 2) < 9) value = 70
          if (abs(x - cx - 10) < 3 && abs(y - cy + 6) < 3) value = 40
          value = 128 + (value - 128) * fade(frame / total)
          if (packed > 0) {
            // Blocks are off by a little, otherwise every twelfth frame: as when a picture is sent whole.
            const key = floor(frame / 12)
            value += packed * sin(key * 7.1 + floor(x / 8) * 1.3 + floor(y / 8) * 2.1)
          }
          data[y * WIDTH + x] = max(0, min(255, round(value + noise * next())))
        }
      }
      frames.push({ width: WIDTH, height: HEIGHT, data })
    }
  })
  return frames
}
const changesOf = (frames: readonly Grey[]): Change[] =>
  frames.slice(1).map((frame, i) => changeBetween(frames[i] as Grey, frame))
/** The share of frames read rightly: as the beginning of a drawing, or not. */
function right(holds: readonly number[], how: Made): number {
  const { starts, changes } = readClip(changesOf(made(holds, how)))
  const wished = new Set(holds.reduce<number[]>((all, hold, i) => [...all, (all[i] as number) + hold], [0]))
  const found = new Set(starts)
  return changes.filter((_, frame) => found.has(frame) === wished.has(frame)).length / changes.length
}

describe('where a clip changes its picture', () => {
  test.each<[string, Made]>([
    ['clean', {}],
    ['with steps of two pixels', { step: 2 }],
    ['noisy', { noise: 9 }],
    ['packed', { packed: 3, noise: 2 }],
    ['fading in and out', { fade: share => 0.35 + 0.65 * sin(PI * share), noise: 2 }],
    ['before a ground that passes by whole pixels', { ground: 2, noise: 2 }],
    ['before a ground that passes by parts of pixels', { ground: 0.7, noise: 2 }],
  ])('is read in 98 of 100 frames and more: %s', (_, how) => {
    expect(right(HOLDS, how)).toBeGreaterThanOrEqual(0.98)
  })

  test('all on ones, and nothing but a hold, are told apart from noise', () => {
    expect(
      right(
        Array.from({ length: 40 }, () => 1),
        { noise: 4 },
      ),
    ).toBe(1)
    expect(right([40], { noise: 9 })).toBe(1)
    expect(right([40], {})).toBe(1)
  })

  test('what has moved as a whole, or become brighter, differs hardly anywhere; what has not is left as it is', () => {
    const [one, moved] = made([1, 1], { ground: 3, step: 0 }) as [Grey, Grey]
    expect(changeBetween(one, moved).usual).toBeLessThan(0.5)
    const brighter = { ...one, data: one.data.map(value => 60 + value / 2) }
    const { most, usual } = changeBetween(one, brighter)
    expect(Math.max(most, usual)).toBeLessThan(1.5)
    expect(changeBetween(one, one)).toEqual({ most: 0, usual: 0 })
  })

  test('pictures of different sizes are no clip; an empty one has no changes', () => {
    const [one] = made([1]) as [Grey]
    expect(() => changeBetween(one, { ...one, width: 80 })).toThrow('sizes')
    expect(readClip([]).starts).toEqual([0])
    expect(thresholdOf([])).toBeGreaterThan(0)
  })

  test('its exposures in words; a frame that was read wrongly is put right', () => {
    const reading = readClip(changesOf(made(HOLDS)))
    expect(holdsOf(reading)).toEqual(HOLDS)
    expect(readingInWords(reading)).toBe(
      '25 drawings in 66 frames: 10 on twos, 8 on ones, 4 on threes, 3 holds (8, 12, 6 frames)',
    )
    const other = corrected(corrected(reading, 2), 1)
    expect(holdsOf(other).slice(0, 3)).toEqual([1, 3, 1])
    expect(corrected(reading, 0)).toBe(reading)
    expect(corrected(reading, 999)).toBe(reading)
  })
})

describe('a clip under the frames of a shot', () => {
  const laid = { from: 10, inS: 0.5, outS: 2.5, rate: 1 }

  test('the moment under a frame, and the frame over a moment', () => {
    expect([9, 10, 22, 57, 58].map(frame => momentUnder(laid, 24, frame))).toEqual([
      null,
      0.5,
      1,
      expect.closeTo(0.5 + 47 / 24, 9),
      null,
    ])
    expect(momentUnder({ ...laid, rate: 2 }, 24, 22)).toBe(1.5)
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 57 }), fc.constantFrom(0.5, 1, 2), (frame, rate) => {
        const moment = momentUnder({ ...laid, rate }, 24, frame)
        if (moment !== null) expect(frameOver({ ...laid, rate }, 24, moment)).toBe(frame)
      }),
    )
    expect([frameOver(laid, 24, 0.2), frameOver(laid, 24, 2.5)]).toEqual([null, null])
  })

  test('the picture seen then is the last that has begun', () => {
    const times = [0, 0.04, 0.08, 0.2]
    expect([0, 0.03, 0.04, 0.0799999, 0.19, 0.2, 9].map(at => pictureAt(times, at))).toEqual([0, 0, 1, 2, 2, 3, 3])
    // Kept in thousandths, the picture of frame 26 begins a hair after it.
    expect(pictureAt([1, 1.042, 1.083], 25 / 24)).toBe(1)
    expect(pictureAt([0.1], 0)).toBe(0)
    expect(pictureAt([], 1)).toBeNull()
  })
})
