import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  cycleAfterInsert,
  cycleAfterRemove,
  drawingAt,
  fitOf,
  fittingPeriods,
  framesPerBeat,
  lengthOf,
  meetAgain,
  patternFrame,
  periodOf,
  plain,
  tappedBeats,
  tappedTempo,
  tempoBeats,
  unrolled,
  withCycle,
  withCycles,
  type Cycle,
  type Run,
} from './index.ts'

const run = fc.record({ drawing: fc.constantFrom('a', 'b', 'c', null), frames: fc.integer({ min: 1, max: 4 }) })
const pattern = fc.array(run, { minLength: 1, maxLength: 5 }).map(plain)
const small = fc.integer({ min: 1, max: 40 })

describe('a linked cycle', () => {
  test('every frame shows the pattern at its turn, whatever the offset', () => {
    fc.assert(
      fc.property(pattern, fc.nat(30), fc.nat(60), (turn, offset, frames) => {
        const runs = unrolled(turn, offset, frames)
        expect(lengthOf(runs)).toBe(frames)
        expect(plain(runs)).toEqual(runs)
        const period = lengthOf(turn)
        for (let f = 0; f < frames; f++) expect(drawingAt(runs, f)).toBe(drawingAt(turn, (f + offset) % period))
      }),
    )
  })

  test('the frame of the pattern comes round, and writing the cycle again changes nothing', () => {
    fc.assert(
      fc.property(pattern, fc.nat(9), fc.nat(8), fc.integer({ min: 9, max: 30 }), (turn, from, offset, to) => {
        const cycle: Cycle = { id: 'y', layer: 'l', from, to, offset: offset % lengthOf(turn), pattern: turn }
        const column = withCycle([{ drawing: 'z', frames: 30 }], cycle)
        expect(withCycle(column, cycle)).toEqual(column)
        for (let f = 0; f < 30; f++) {
          const inside = f >= from && f < to
          expect(drawingAt(column, f)).toBe(inside ? drawingAt(turn, patternFrame(cycle, f)) : 'z')
        }
      }),
    )
  })

  test('a flame of five drawings on threes: 15 frames repeat 6 times in 96, six frames are left over', () => {
    expect(fitOf(15, 96)).toEqual({
      period: 15,
      frames: 96,
      turns: 6,
      remainder: 6,
      shorter: 90,
      longer: 105,
      offsetToEnd: 9,
      startLater: 6,
    })
    expect(fittingPeriods(96, 15)).toEqual([16, 12, 8])
    expect(fitOf(8, 5)).toMatchObject({ turns: 0, remainder: 5, shorter: null, longer: 8 })
  })

  test('what is offered as fitting does fit', () => {
    fc.assert(
      fc.property(small, fc.integer({ min: 1, max: 300 }), (period, frames) => {
        const fit = fitOf(period, frames)
        expect(fit.turns * period + fit.remainder).toBe(frames)
        expect(fit.longer % period).toBe(0)
        if (fit.shorter !== null) expect(fit.shorter % period).toBe(0)
        expect((fit.offsetToEnd + frames) % period).toBe(0)
        expect((frames - fit.startLater) % period).toBe(0)
        for (const other of fittingPeriods(frames, period)) expect(frames % other).toBe(0)
      }),
    )
  })

  test('two cycles meet again after their least common multiple, and not before', () => {
    expect([meetAgain(12, 8), meetAgain(15, 24), meetAgain(7, 7)]).toEqual([24, 120, 7])
    fc.assert(
      fc.property(small, small, (a, b) => {
        const met = meetAgain(a, b)
        const first = Array.from({ length: a * b }, (_, i) => i + 1).find(f => f % a === 0 && f % b === 0)
        expect(met).toBe(first)
      }),
    )
  })

  test('frames put in before it move it, inside it grow it; taken out they shrink or end it', () => {
    const cycle: Cycle = { id: 'y', layer: 'l', from: 4, to: 12, offset: 0, pattern: [{ drawing: 'a', frames: 2 }] }
    expect(cycleAfterInsert(cycle, 4, 3)).toMatchObject({ from: 7, to: 15 })
    expect(cycleAfterInsert(cycle, 5, 3)).toMatchObject({ from: 4, to: 15 })
    expect(cycleAfterInsert(cycle, 12, 3)).toBe(cycle)
    expect(cycleAfterInsert({ ...cycle, to: null }, 2, 3)).toMatchObject({ from: 7, to: null })
    expect(cycleAfterRemove(cycle, 2, 6, 20)).toMatchObject({ from: 2, to: 8 })
    expect(cycleAfterRemove(cycle, 0, 20, 4)).toBeNull()
    expect(cycleAfterRemove({ ...cycle, to: null }, 3, 10, 3)).toBeNull()
    expect(periodOf(cycle)).toBe(2)
  })
})

describe('beats', () => {
  test('120 beats a minute at 24 fps are 12 frames apart, 100 are 14.4', () => {
    expect([framesPerBeat(120, 24), framesPerBeat(100, 24)]).toEqual([12, expect.closeTo(14.4)])
    expect(tempoBeats(100, 24, 0, 72)).toEqual([0, 14, 29, 43, 58])
    expect(() => framesPerBeat(0, 24)).toThrow('tempo must be a number above 0')
  })

  test('no error adds up, however long the music', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 220 }), fc.integer({ min: 6, max: 60 }), (bpm, fps) => {
        tempoBeats(bpm, fps, 3, 4000).forEach((frame, i) => {
          if (60 * fps > bpm) expect(Math.abs(frame - 3 - (i * 60 * fps) / bpm)).toBeLessThanOrEqual(0.5)
        })
      }),
    )
  })

  test('taps become frames and a tempo', () => {
    expect(tappedBeats([1000, 1500, 2010, 2010], 24, 6)).toEqual([6, 18, 30])
    expect(tappedTempo([1000, 1500, 2000])).toBe(120)
    expect(tappedTempo([5])).toBeNull()
  })
})

describe('cycles of a layer in one pass', () => {
  test('are what they are one after the other', () => {
    const drawing = fc.constantFrom('a', 'b', 'c', null)
    const runs = fc.array(fc.record({ drawing, frames: fc.integer({ min: 1, max: 4 }) }), {
      minLength: 1,
      maxLength: 8,
    })
    const stretch = fc.tuple(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 1, max: 6 }), runs, fc.boolean())
    fc.assert(
      fc.property(runs, fc.array(stretch, { maxLength: 4 }), (column, stretches) => {
        let at = 0
        const cycles = stretches.map(([gap, frames, pattern, open], i): Cycle => {
          const from = at + gap
          at = from + frames
          const last = open && i === stretches.length - 1
          return { id: `c${i}`, layer: 'l', from, to: last ? null : at, offset: 0, pattern }
        })
        const start = plain(column as Run[])
        const single = cycles.reduce<readonly Run[]>((now, cycle) => withCycle(now, cycle), start)
        expect(withCycles(start, [...cycles].reverse())).toEqual(single)
      }),
      { numRuns: 500, seed: 29 },
    )
  })
})
