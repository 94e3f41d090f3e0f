import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fullestBlock } from './block.ts'
import { cellsOf, flashGrid, type Cells, type FlashGrid } from './cells.ts'
import { flashMeter, framesToJudge, type FlashReport } from './flashes.ts'

type Light = readonly [number, number, number]
const grey = (light: number): Light => [light, light, light]
/** One block, and a picture of several. */
const GRID = flashGrid(4, 3, 341)
const WIDE = flashGrid(16, 9)

/** A picture whose cells have some light, 0–1. */
function picture(at: (x: number, y: number) => Light, { across, down }: FlashGrid = GRID): Cells {
  const cells = new Uint16Array(3 * across * down)
  for (let i = 0; i < across * down; i++) {
    const [r, g, b] = at(i % across, Math.floor(i / across))
    cells[3 * i] = Math.round(r * 65_535)
    cells[3 * i + 1] = Math.round(g * 65_535)
    cells[3 * i + 2] = Math.round(b * 65_535)
  }
  return cells
}
/** What is found in a film of so many frames; a picture of it is told by the frames that show it. */
function report(fps: number, frames: number, of: (frame: number) => Cells, grid = GRID): FlashReport {
  const meter = flashMeter(grid, fps)
  for (let frame = 0; frame < frames; frame++) meter.add(of(frame), frame)
  return meter.end(frames)
}
/** Whether a picture is at its other state: `changes` changes in every second of 24 frames, from the first frame on. */
const turned = (frame: number, changes: number): boolean => Math.floor((frame * changes) / 24) % 2 === 1
/** The whole picture between two states. */
const whole = (changes: number, one: Light, other: Light, frames = 24) => {
  const [a, b] = [picture(() => one), picture(() => other)]
  return report(24, frames, frame => (turned(frame, changes) ? b : a)).flashing
}
const kinds = (found: FlashReport['flashing']) => found.map(({ kind, changes }) => [kind, changes])

describe('flashes', () => {
  test('the grid: cells of a tenth of a degree, and a block of ten degrees', () => {
    // 1024 / 3.4 = 301.2 cells; 1024 · 9 / 16 = 576 px are 169.3 of them. A quarter of 341 × 256 px is 21,824 px², over 3.402² each.
    expect(WIDE).toMatchObject({ across: 301, down: 169, blockAcross: 100, blockDown: 75, widthPx: 903, heightPx: 507 })
    expect(WIDE.enough).toBeCloseTo(1885.7, 0)
    // A picture that is shown smaller than a block is a block, and as much of it must flash as of a whole one.
    expect(flashGrid(1, 1, 170)).toMatchObject({ across: 50, down: 50, blockAcross: 50, blockDown: 50 })
    // A strip is parted more coarsely, and as much of it must flash: a quarter of 341 × 256 px.
    const strip = flashGrid(8, 4000)
    expect(strip.across * strip.down).toBeLessThan(420_000)
    expect(strip.enough * (1024 / strip.across) ** 2).toBeCloseTo(21_824, 0)
    expect(() => flashGrid(0, 9)).toThrow(RangeError)
  })

  test('light of cells is the mean of linear light', () => {
    const small = flashGrid(1, 1, 3.4)
    expect(small).toMatchObject({ across: 1, down: 1, widthPx: 3, heightPx: 3 })
    // Five of nine pixels are white: 5 / 9 of 65,535. sRGB 188 alone would be 0.5029 (IEC 61966-2-1).
    const half = Uint8ClampedArray.from({ length: 36 }, (_, i) => (Math.floor(i / 4) % 2 === 0 ? 255 : 0))
    expect([...cellsOf(half, small)]).toEqual([36_408, 36_408, 36_408])
    expect(cellsOf(new Uint8ClampedArray(36).fill(188), small)[0]).toBe(
      Math.round(((188 / 255 + 0.055) / 1.055) ** 2.4 * 65_535),
    )
    expect(() => cellsOf(new Uint8ClampedArray(4), small)).toThrow(RangeError)
  })

  test('four flashes a second are too many, three are not: eight changes, and seven are near', () => {
    // Ten states in a second of 24 frames: nine changes lie within it.
    expect(kinds(whole(10, grey(0.1), grey(0.7)))).toEqual([['general', 9]])
    expect(kinds(whole(9, grey(0.1), grey(0.7)))).toEqual([['general', 8]])
    expect(kinds(whole(8, grey(0.1), grey(0.7)))).toEqual([['general', 7]])
    expect(whole(7, grey(0.1), grey(0.7))).toEqual([])
    // Three flashes a second, for ten seconds, are never more than three in one.
    expect(whole(6, grey(0.1), grey(0.7), 240)).toEqual([])
    const [long] = whole(8, grey(0.1), grey(0.7), 240)
    // Changes on 3, 6, … 237: from the first to the last; eight of them within 21 frames.
    expect(long).toMatchObject({ first: 3, last: 237, changes: 8 })
  })

  test('a change of 11 % of the light counts, one of 9 % does not; nor where both states are light', () => {
    expect(whole(10, grey(0.3), grey(0.41))).toHaveLength(1)
    expect(whole(10, grey(0.3), grey(0.4))).toHaveLength(1)
    expect(whole(10, grey(0.3), grey(0.39))).toEqual([])
    expect(whole(10, grey(0.79), grey(0.95))).toHaveLength(1)
    expect(whole(10, grey(0.81), grey(0.97))).toEqual([])
  })

  test('26 % of a block are enough, 24 % are not, wherever they lie; spread over the picture they are not', () => {
    const part = (share: number, left: number) => {
      const cells = Math.round(share * 4 * WIDE.enough)
      const dark = picture(() => grey(0.1), WIDE)
      const light = picture((x, y) => {
        const n = (y - 40) * 50 + (x - left)
        return grey(x >= left && x < left + 50 && n >= 0 && n < cells ? 0.9 : 0.1)
      }, WIDE)
      return report(24, 24, frame => (turned(frame, 10) ? light : dark), WIDE).flashing
    }
    expect([part(0.26, 0), part(0.26, 251)].map(kinds)).toEqual([[['general', 9]], [['general', 9]]])
    expect(part(0.24, 100)).toEqual([])
    // Every eleventh cell of all: 4,624 of them, far more than a quarter of a block, and 9 % of each.
    const dark = picture(() => grey(0.1), WIDE)
    const strewn = picture((x, y) => grey((y * WIDE.across + x) % 11 === 0 ? 0.9 : 0.1), WIDE)
    expect(report(24, 24, frame => (turned(frame, 10) ? strewn : dark), WIDE).flashing).toEqual([])
  })

  test('a swing counts however slowly each frame changes, and a little turn back belongs to it', () => {
    // 4 Hz at 60 frames a second: no frame changes by more than 0.1; of the peaks on 3, 10, 17, 23, 30 … nine lie within a second.
    const swing = (hz: number, of: number) =>
      report(60, 86, frame => picture(() => grey(0.3 + of * Math.sin((2 * Math.PI * hz * frame) / 60)))).flashing
    expect(kinds(swing(4.5, 0.2))[0]).toEqual(['general', 9])
    expect(swing(2.5, 0.2)).toEqual([])
    expect(swing(4.5, 0.045)).toEqual([])
    // Up by 0.3 with a turn back of 0.05 in the middle is one change, not three.
    const rising = [0.1, 0.25, 0.2, 0.4, 0.1]
    const found = report(24, 24, frame => picture(() => grey(rising[frame % 5] as number))).flashing
    expect(found[0]?.changes).toBe(9)
  })

  test('what changes in one half and then in the other is no flash of either', () => {
    const halves = (leftIs: boolean, rightIs: boolean) => picture(x => grey((x < 50 ? leftIs : rightIs) ? 0.8 : 0.1))
    // The left half goes up, then the right one, then the left one down, then the right one down: each has four changes a second.
    const states = [halves(false, false), halves(true, false), halves(true, true), halves(false, true)]
    expect(report(24, 24, frame => states[Math.floor(frame / 3) % 4] as Cells).flashing).toEqual([])
  })

  test('halves that change in turn are held against themselves, though something changes the other way eight times a second', () => {
    // Left: lighter on 3, darker on 12, lighter on 15, darker on 24. Right: darker on 6, lighter on 9, darker on 18, lighter on 21.
    const at = (frame: number, turns: readonly number[]) => turns.filter(turn => frame >= turn).length % 2 === 1
    const halves = (frame: number) => {
      const [left, right] = [at(frame, [3, 12, 15, 24]), !at(frame, [6, 9, 18, 21])]
      return picture(x => grey((x < 50 ? left : right) ? 0.8 : 0.1))
    }
    expect(report(24, 30, halves).flashing).toEqual([])
  })

  test('a change that comes in over two frames is one, though each of them would be enough', () => {
    // Six changes a second, each first on one half and then on the other: three flashes.
    const states = Array.from({ length: 24 }, (_, frame) => {
      const [now, before] = [turned(frame, 6), turned(Math.max(0, frame - 1), 6)]
      return picture(x => grey((x < 50 ? now : before) ? 0.8 : 0.1))
    })
    expect(report(24, 24, frame => states[frame] as Cells).flashing).toEqual([])
  })

  test('a picture that wanders does not flash; one that comes in over two frames does', () => {
    // A light field as large as a block crosses the picture: each place of it becomes light once, and dark once.
    expect(
      report(24, 30, frame => picture(x => grey(x >= 6 * frame && x < 6 * frame + 100 ? 0.9 : 0.1), WIDE), WIDE)
        .flashing,
    ).toEqual([])
    const [dark, light] = [picture(() => grey(0.1)), picture(() => grey(0.9))]
    const half = picture(x => grey(x < 60 ? 0.9 : 0.1))
    const states = [dark, half, light, light]
    expect(kinds(report(30, 30, frame => states[frame % 4] as Cells).flashing)[0]?.[0]).toBe('general')
  })

  describe('red', () => {
    const RED: Light = [0.3, 0.01, 0.01]
    test('a saturated red that comes and goes flashes though its light hardly changes', () => {
      // As light as each other: 0.2126 · 0.3 + 0.7874 · 0.01 = 0.0717. (R − G − B) · 320 goes from 90 to 0.
      expect(kinds(whole(10, RED, grey(0.0717)))).toEqual([['red', 9]])
      expect(kinds(whole(8, RED, grey(0.0717)))).toEqual([['red', 7]])
      expect(whole(7, RED, grey(0.0717))).toEqual([])
    })
    test('is saturated from four fifths of its light on', () => {
      // 0.24 of 0.30 is 0.8; 0.235 of 0.305 is 0.77. Both outweigh the rest by more than 20 / 320.
      expect(kinds(whole(10, [0.24, 0.03, 0.03], grey(0.06)))).toEqual([['red', 9]])
      expect(whole(10, [0.235, 0.035, 0.035], grey(0.06))).toEqual([])
    })
    test('a change of more than 20 of 320 counts, a smaller one only when its hue does', () => {
      // Between two saturated reds: 0.066 · 320 = 21, 0.06 · 320 = 19.2; neither changes its hue by 0.2.
      expect(kinds(whole(10, [0.15, 0, 0], [0.084, 0, 0]))).toEqual([['red', 9]])
      expect(whole(10, [0.15, 0, 0], [0.09, 0, 0])).toEqual([])
      // A dark red, 0.05 · 320 = 16, against a grey: u′ 0.451 and 0.198 lie 0.25 apart. Against black nothing is said.
      expect(kinds(whole(10, [0.05, 0, 0], grey(0.02)))).toEqual([['red', 9]])
      expect(whole(10, [0.05, 0, 0], grey(0))).toEqual([])
    })
    test('blue and green come and go without a word of red', () => {
      expect(whole(10, [0.01, 0.05, 0.3], grey(0.06))).toEqual([])
    })
  })

  test('held frames need not be told again', () => {
    const [a, b] = [picture(() => grey(0.1)), picture(() => grey(0.7))]
    const meter = flashMeter(GRID, 24)
    for (let frame = 0; frame < 48; frame++) {
      if (frame === 0 || turned(frame, 8) !== turned(frame - 1, 8)) meter.add(turned(frame, 8) ? b : a, frame)
    }
    expect(meter.end(48)).toEqual(report(24, 48, frame => (turned(frame, 8) ? b : a)))
  })

  test('the same film lighter by a constant, later by some frames, or mirrored flashes alike', () => {
    const small: FlashGrid = { ...flashGrid(4, 3, 40), enough: 27 }
    let flashed = 0
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 24, maxLength: 40 }),
        fc.integer({ min: 1, max: 9 }),
        (levels, later) => {
          const seen = (of: (frame: number, x: number) => number, frames: number) =>
            report(12, frames, frame => picture(x => grey(of(frame, x)), small), small)
          const light = (frame: number, x: number) => 0.02 + ((levels[frame] as number) + (x < 5 ? 0 : 1)) / 20
          const plain = seen(light, levels.length).flashing
          const lighter = seen((f, x) => light(f, x) + 0.15, levels.length).flashing
          const delayed = seen((f, x) => light(Math.max(0, f - later), x), levels.length + later).flashing
          const mirrored = seen((f, x) => light(f, small.across - 1 - x), levels.length).flashing
          flashed += plain.length
          expect(kinds(lighter)).toEqual(kinds(plain))
          expect(delayed.map(({ first, last }) => [first - later, last - later])).toEqual(
            plain.map(({ first, last }) => [first, last]),
          )
          expect(kinds(mirrored)).toEqual(kinds(plain))
        },
      ),
      { numRuns: 60, seed: 7 },
    )
    expect(flashed).toBeGreaterThan(20)
  })

  test('the fullest block, against counting each', () => {
    const small: FlashGrid = { ...GRID, across: 9, down: 7, blockAcross: 4, blockDown: 3 }
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1 }), { minLength: 63, maxLength: 63 }), bits => {
        const counted = (left: number, top: number) =>
          Array.from({ length: 12 }, (_, i) => bits[(top + Math.floor(i / 4)) * 9 + left + (i % 4)] as number).reduce(
            (a, b) => a + b,
          )
        const all = Array.from({ length: 5 * 6 }, (_, i) => counted(i % 6, Math.floor(i / 6)))
        const best = fullestBlock(Uint8Array.from(bits), small)
        expect([best.cells, counted(best.left, best.top)]).toEqual([Math.max(...all), Math.max(...all)])
      }),
    )
  })

  test('loops are gone through by whole turns', () => {
    // 8 frames at 24: 48 are two seconds. 40 at 24: 64 at least, so 80. 100 at 10: 110 at least, so 200.
    expect([framesToJudge(8, 24), framesToJudge(40, 24), framesToJudge(100, 10)]).toEqual([48, 80, 200])
  })
})
