import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  frameAt,
  gifDelays,
  loopAfterInsert,
  loopAfterRemove,
  LONGEST_SHOT_FRAMES,
  readLength,
  timecode,
  wholeFrames,
  wrapFrame,
} from './index.ts'

const rates = fc.integer({ min: 1, max: 60 })

describe('frames and seconds', () => {
  test('0.2 s at 24 fps is no whole number of frames: 4.8 becomes 5, which last 0.2083 s', () => {
    expect(wholeFrames(0.2, 24)).toEqual({ frames: 5, wished: expect.closeTo(4.8), exact: false, seconds: 5 / 24 })
  })

  test('a wish never becomes less than a frame, and whole wishes stay exact', () => {
    expect(wholeFrames(0.001, 24).frames).toBe(1)
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20_000 }), rates, (frames, fps) => {
        const back = wholeFrames(frames / fps, fps)
        expect([back.frames, back.exact]).toEqual([frames, true])
      }),
    )
  })

  test('playback asks which frame is due, and every frame is due at its own moment', () => {
    expect(frameAt(999, 24)).toBe(23)
    fc.assert(
      fc.property(fc.nat(100_000), rates, (frame, fps) => {
        expect(frameAt((frame * 1000) / fps, fps)).toBe(frame)
      }),
    )
  })

  test('timecode counts frames within the second', () => {
    expect(timecode(24 * 61 + 5, 24)).toBe('0:01:01:05')
  })

  test('a caller with an impossible rate is told so', () => {
    expect(() => wholeFrames(1, 0)).toThrow('fps must be a number above 0, not 0')
  })
})

describe('a typed length', () => {
  test.each([
    ['36', 36],
    ['36f', 36],
    ['1 frame', 1],
    ['1.5 s', 36],
    ['1,5s', 36],
    ['.5 s', 12],
    ['200 ms', 5],
    ['1:12', 36],
    ['1:00:00', 1440],
  ])('%s at 24 fps is %i frames', (typed, frames) => {
    expect(readLength(typed, 24)).toMatchObject({ ok: true, frames })
  })

  test.each([
    ['', 'empty'],
    ['soon', 'not-a-length'],
    ['1:24', 'not-a-length'],
    ['0', 'too-short'],
    ['2.5 f', 'fraction-of-a-frame'],
    ['999999', 'too-long'],
    ['9'.repeat(400), 'too-long'],
    [`${'9'.repeat(400)} s`, 'too-long'],
    [`${'9'.repeat(400)} ms`, 'too-long'],
    [`${'9'.repeat(400)}:00`, 'too-long'],
    ['1:75:00', 'past-sixty'],
    ['1:00:75:00', 'past-sixty'],
    ['1:60:00:00', 'past-sixty'],
    ['0:00:00:24', 'not-a-length'],
    ['1:2:3:4:5', 'not-a-length'],
    ['-4', 'not-a-length'],
    ['1e3', 'not-a-length'],
  ])('%s is refused as %s', (typed, code) => {
    expect(readLength(typed, 24)).toEqual({ ok: false, code })
  })
})

describe('timecode', () => {
  test('is taken as it is shown', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: LONGEST_SHOT_FRAMES }), fc.integer({ min: 1, max: 100 }), (frames, fps) => {
        expect(readLength(timecode(frames, fps), fps)).toMatchObject({ ok: true, unit: 'timecode', frames })
      }),
      { seed: 31 },
    )
  })
})

describe('GIF delays', () => {
  test('12 fps is 8.33 hundredths: delays alternate and three pictures take exactly 25', () => {
    expect(gifDelays([1, 1, 1], 12).map(f => f.delayCs)).toEqual([8, 9, 8])
  })

  test('above 50 fps the shortest picture is left out, never a hold', () => {
    // 100 fps: one frame is one hundredth, too short to be shown.
    expect(gifDelays([1, 10], 100)).toEqual([{ picture: 1, delayCs: 11 }])
    expect(gifDelays([1, 10, 1, 1, 8], 100).map(f => f.picture)).toEqual([1, 2, 4])
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 51, max: 120 }),
        (frames, fps) => {
          const kept = new Set(gifDelays(frames, fps).map(f => f.picture))
          frames.forEach((n, picture) => {
            // What is shown for four hundredths or more in the film is in the file.
            if ((n * 100) / fps >= 4)
              expect([frames, fps, picture, kept.has(picture)]).toEqual([frames, fps, picture, true])
          })
        },
      ),
      { seed: 37 },
    )
  })

  test('the total is the true length to the hundredth and no delay is under two', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 8 }), { minLength: 1, maxLength: 60 }), rates, (frames, fps) => {
        const delays = gifDelays(frames, fps)
        const total = delays.reduce((sum, f) => sum + f.delayCs, 0)
        const length = (frames.reduce((a, b) => a + b, 0) * 100) / fps
        expect(total).toBe(Math.max(2, Math.round(length)))
        expect(Math.min(...delays.map(f => f.delayCs))).toBeGreaterThanOrEqual(2)
      }),
    )
  })

  test('at 60 fps on ones pictures are left out rather than slowed down', () => {
    const delays = gifDelays(new Array<number>(60).fill(1), 60)
    expect(delays.length).toBeLessThanOrEqual(50)
    expect(delays.reduce((sum, f) => sum + f.delayCs, 0)).toBe(100)
  })
})

describe('loop range', () => {
  test('frames put in inside a loop belong to it, before it they move it', () => {
    expect(loopAfterInsert({ from: 4, to: 8 }, 6, 3)).toEqual({ from: 4, to: 11 })
    expect(loopAfterInsert({ from: 4, to: 8 }, 4, 3)).toEqual({ from: 7, to: 11 })
    expect(loopAfterInsert({ from: 4, to: 8 }, 8, 3)).toEqual({ from: 4, to: 8 })
  })

  test('a loop shrinks with the frames taken out of it and ends when none is left', () => {
    expect(loopAfterRemove({ from: 4, to: 8 }, 2, 6)).toEqual({ from: 2, to: 4 })
    expect(loopAfterRemove({ from: 4, to: 8 }, 0, 20)).toBeNull()
  })

  test('playback comes round', () => {
    expect([8, 9, 3].map(f => wrapFrame(f, { from: 4, to: 8 }))).toEqual([4, 5, 7])
  })
})
