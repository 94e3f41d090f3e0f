import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { accentsAndPoses } from './accents.ts'
import { endsOn, frameOfMoment, heardIn, momentsOf } from './heard.ts'
import { fluxOf, onsetsOf, tempoOf } from './onsets.ts'
import { peakMaker, swing } from './peaks.ts'
import { stretched } from './stretch.ts'
import { spreadWords, tappedWords, withEdgeAt, wordsOf } from './words.ts'

const RATE = 11_025

/** Noise of chance that comes again with its seed, −1 … 1. */
function noise(seed: number): () => number {
  let state = seed
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) | 0
    return state / 2 ** 31
  }
}

/** A sound of so many seconds: plucked tones at given moments over a floor of noise. */
function plucked(seconds: number, hits: readonly { at: number; hz?: number; loud?: number }[], floor = 0.002) {
  const samples = new Float32Array(Math.round(seconds * RATE))
  const chance = noise(7)
  samples.forEach((_, i) => (samples[i] = floor * chance()))
  for (const { at, hz = 330, loud = 0.5 } of hits) {
    for (let i = Math.round(at * RATE); i < samples.length; i++) {
      const t = i / RATE - at
      if (t > 0.5) break
      const tone = Math.sin(2 * Math.PI * hz * t) + 0.5 * Math.sin(4 * Math.PI * hz * t)
      samples[i] = (samples[i] as number) + loud * Math.exp(-t * 12) * tone * Math.min(1, t / 0.003)
    }
  }
  return samples
}

describe('what is heard while frames pass', () => {
  const laid = { from: 12, skip: 0.5, use: 2 }

  test('a recording laid on frame 13 is heard from half a second in, for two seconds', () => {
    expect(heardIn(laid, 24, 0, 24)).toEqual({ afterS: 0.5, offsetS: 0.5, seconds: 0.5 })
    expect(heardIn(laid, 24, 24, 48)).toEqual({ afterS: 0, offsetS: 1, seconds: 1 })
    expect(heardIn(laid, 24, 48, 100)).toEqual({ afterS: 0, offsetS: 2, seconds: 0.5 })
    expect([heardIn(laid, 24, 0, 12), heardIn(laid, 24, 60, 90)]).toEqual([null, null])
    expect(endsOn(laid, 24)).toBe(60)
    expect(endsOn({ ...laid, use: 2.01 }, 24)).toBe(61)
  })

  test('frames that follow one another hear it all, and nothing twice', () => {
    const seconds = fc.double({ min: 0.01, max: 5, noNaN: true })
    fc.assert(
      fc.property(fc.nat(40), seconds, seconds, fc.constantFrom(12, 24, 25, 30), (from, skip, use, fps) => {
        const one = { from, skip, use }
        const pieces = Array.from({ length: endsOn(one, fps) }, (_, f) => momentsOf(one, fps, f)).filter(
          p => p !== null,
        )
        const heard = pieces.reduce((sum, [a, b]) => sum + b - a, 0)
        expect(heard).toBeGreaterThan(use - 0.0003)
        expect(heard).toBeLessThan(use + 1e-6)
        pieces.slice(1).forEach(([a], i) => expect(a).toBeCloseTo((pieces[i] as readonly number[])[1] as number, 9))
      }),
      { seed: 1 },
    )
  })

  test('a moment lies on the frame that is shown then; trimmed off, on none', () => {
    expect([0.4, 0.5, 0.54, 0.5 + 1 / 24, 2.499, 2.5].map(s => frameOfMoment(laid, 24, s))).toEqual([
      null,
      12,
      12,
      13,
      59,
      null,
    ])
  })
})

describe('peaks', () => {
  test('come the same whichever pieces the sound comes in, and hold every swing', () => {
    const samples = plucked(0.7, [{ at: 0.2 }])
    const whole = peakMaker(RATE)
    whole.take(samples)
    const all = whole.done()
    fc.assert(
      fc.property(fc.array(fc.nat(samples.length), { maxLength: 6 }), cuts => {
        const maker = peakMaker(RATE)
        const ends = [0, ...cuts.sort((a, b) => a - b), samples.length]
        ends.slice(1).forEach((end, i) => maker.take(samples.subarray(ends[i], end)))
        expect(maker.done()).toEqual(all)
      }),
      { seed: 2, numRuns: 30 },
    )
    expect(all.high).toHaveLength(70)
    const [low, high] = swing(all, 0, 0.7)
    expect(high).toBeCloseTo(
      Math.min(
        1,
        samples.reduce((m, v) => Math.max(m, v), 0),
      ),
      1,
    )
    expect(low).toBeLessThan(-0.3)
    expect(Math.max(...swing(all, 0.05, 0.1).map(Math.abs))).toBeLessThan(0.02)
    expect(swing(all, 5, 6)).toEqual([0, 0])
  })

  test('what is too loud, or no number, is kept within bounds', () => {
    const maker = peakMaker(100)
    maker.take(Float32Array.from([2, -3, NaN, 0.5]))
    expect([...maker.done().high]).toEqual([127, -127, 0, 64])
    expect(() => peakMaker(0)).toThrow('rate')
  })
})

describe('where a sound sets in', () => {
  const hits = [0.3, 0.62, 1.1, 1.18, 1.9, 2.75]

  test('is found within a frame, loud or soft, and nothing else is', () => {
    const sound = plucked(
      3.4,
      hits.map((at, i) => ({ at, hz: 220 + 60 * i, loud: i % 2 ? 0.2 : 0.6 })),
    )
    const found = onsetsOf(fluxOf(sound, RATE), 0.5)
    expect(found).toHaveLength(hits.length)
    found.forEach(({ seconds }, i) => expect(Math.abs(seconds - (hits[i] as number))).toBeLessThan(1 / 24))
    expect(Math.max(...found.map(one => one.strength))).toBe(1)
  })

  test('a tone on the same pitch is found under the one before; a slow swell sets in nowhere', () => {
    const same = onsetsOf(fluxOf(plucked(1.5, [{ at: 0.2 }, { at: 0.6 }, { at: 1 }]), RATE), 0.5)
    expect(same.map(one => Math.round(one.seconds * 10) / 10)).toEqual([0.2, 0.6, 1])
    const swell = Float32Array.from(
      { length: 2 * RATE },
      (_, i) => 0.5 * (i / RATE / 2) * Math.sin((2 * Math.PI * 200 * i) / RATE),
    )
    expect(onsetsOf(fluxOf(swell, RATE), 0.3).filter(one => one.seconds > 0.1)).toEqual([])
  })

  test('more is found with more sensitivity, never less; in silence nothing', () => {
    const sound = plucked(
      4,
      [0.4, 1, 1.6, 2.4, 3.1].map((at, i) => ({ at, loud: 0.5 / 2 ** i })),
      0.004,
    )
    const flux = fluxOf(sound, RATE)
    const counts = [0, 0.25, 0.5, 0.75, 1].map(sensitivity => onsetsOf(flux, sensitivity).length)
    counts.slice(1).forEach((count, i) => expect(count).toBeGreaterThanOrEqual(counts[i] as number))
    expect(counts[4]).toBeGreaterThanOrEqual(5)
    expect(onsetsOf(fluxOf(new Float32Array(RATE), RATE), 1)).toEqual([])
    expect(onsetsOf(fluxOf(new Float32Array(0), RATE), 1)).toEqual([])
    expect(() => fluxOf(sound, 0)).toThrow('rate')
  })

  test('what sets in twice within a sixteenth of a second is one, at its stronger moment', () => {
    const at = (...peaks: [number, number][]) => {
      const values = new Float32Array(60)
      for (const [i, value] of peaks) values[i] = value
      return onsetsOf({ stepS: 0.01, values }, 0.5).map(one => Math.round(one.seconds * 100))
    }
    expect(at([20, 0.6], [25, 1])).toEqual([25])
    expect(at([20, 1], [25, 0.6])).toEqual([20])
    expect(at([20, 1], [27, 0.6])).toEqual([20, 27])
  })

  test.each([96, 120, 137.5])(
    'a tempo of %d a minute is read within half a percent, and its first beat within a frame',
    bpm => {
      const beats = Array.from({ length: Math.floor((11 * bpm) / 60) }, (_, i) => ({
        at: 0.35 + (i * 60) / bpm,
        loud: i % 4 ? 0.3 : 0.6,
      }))
      const tempo = tempoOf(fluxOf(plucked(12, beats), RATE))
      expect(tempo?.bpm).toBeGreaterThan(bpm * 0.995)
      expect(tempo?.bpm).toBeLessThan(bpm * 1.005)
      const off = (((tempo?.firstS ?? 0) - 0.35) * bpm) / 60
      expect(Math.abs(off - Math.round(off)) * (60 / bpm)).toBeLessThan(1 / 24)
      expect(tempo?.clear).toBeGreaterThan(0.5)
    },
  )

  test('noise, silence and very short sounds have none', () => {
    const chance = noise(3)
    expect(
      tempoOf(
        fluxOf(
          Float32Array.from({ length: 6 * RATE }, () => 0.3 * chance()),
          RATE,
        ),
      ),
    ).toBeNull()
    expect(tempoOf(fluxOf(new Float32Array(6 * RATE), RATE))).toBeNull()
    expect(tempoOf(fluxOf(plucked(2, [{ at: 0.5 }, { at: 1 }]), RATE))).toBeNull()
  })
})

describe('accents and poses', () => {
  test('go together when they are near: nearest first, each once, early before late', () => {
    expect(accentsAndPoses([10, 20, 40], [8, 12, 21, 33], 3)).toEqual({
      accents: [
        { frame: 10, pose: 8, offFrames: -2 },
        { frame: 20, pose: 21, offFrames: 1 },
        { frame: 40, pose: null, offFrames: null },
      ],
      alone: [12, 33],
    })
    // One pose between two accents goes with the nearer.
    expect(accentsAndPoses([10, 13], [12], 3).accents.map(one => one.pose)).toEqual([null, 12])
    expect(accentsAndPoses([], [4, 4], 2)).toEqual({ accents: [], alone: [4] })
  })
})

describe('words over frames', () => {
  test('a line becomes words, spread by their letters', () => {
    expect(wordsOf('  The  post is\nlate! ')).toEqual(['The', 'post', 'is', 'late!'])
    expect(wordsOf('a'.repeat(90))[0]).toHaveLength(40)
    // Weights 4, 5, 3, 5 of 17 over 34 frames.
    expect(spreadWords(['The', 'post', 'is', 'late!'], 6, 40).map(word => [word.from, word.to])).toEqual([
      [6, 14],
      [14, 24],
      [24, 30],
      [30, 40],
    ])
  })

  test('they cover their frames without a gap, each at least one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 30 }), { maxLength: 30 }),
        fc.nat(50),
        fc.nat(60),
        (words, from, length) => {
          const spans = spreadWords(words, from, from + length)
          expect(spans).toHaveLength(Math.min(words.length, length))
          let at = from
          for (const span of spans) {
            expect(span.from).toBe(at)
            expect(span.to).toBeGreaterThan(span.from)
            at = span.to
          }
          if (spans.length) expect(at).toBe(from + length)
        },
      ),
      { seed: 4 },
    )
  })

  test('tapped along, each begins on its tap; the last ends on one more, or is as long as the one before', () => {
    const spans = (taps: number[]) => tappedWords(['one', 'two', 'three'], taps, 6).map(word => [word.from, word.to])
    expect(spans([4, 10, 13, 20])).toEqual([
      [4, 10],
      [10, 13],
      [13, 20],
    ])
    expect(spans([4, 10])).toEqual([
      [4, 10],
      [10, 16],
    ])
    expect(spans([4, 4])).toEqual([
      [4, 5],
      [5, 6],
    ])
    expect(spans([])).toEqual([])
  })

  test('an edge that is moved takes the neighbour along that touched it, and leaves everyone a frame', () => {
    const words = spreadWords(['aa', 'bb'], 0, 12).concat({ text: 'cc', from: 15, to: 18 })
    const to = (index: number, edge: 'from' | 'to', frame: number) =>
      withEdgeAt(words, index, edge, frame).map(({ index: i, span }) => [i, span.from, span.to])
    expect(to(0, 'to', 4)).toEqual([
      [0, 0, 4],
      [1, 4, 12],
    ])
    expect(to(1, 'from', -3)).toEqual([
      [1, 1, 12],
      [0, 0, 1],
    ])
    expect(to(1, 'to', 99)).toEqual([[1, 6, 15]])
    expect(to(2, 'from', 9)).toEqual([[2, 12, 18]])
    expect(to(2, 'to', 3)).toEqual([[2, 15, 16]])
    expect(to(7, 'to', 3)).toEqual([])
  })
})

describe('a sound made longer at its pitch', () => {
  const tone = Float32Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 220 * i) / RATE))
  const crossings = (sound: Float32Array) =>
    sound.reduce((count, value, i) => count + Number(i > 0 && value >= 0 && (sound[i - 1] as number) < 0), 0)

  test.each([2, 4, 0.5])('%d times as long, a tone of 220 stays one, as loud as it was', factor => {
    const [longer] = stretched([tone], RATE, factor) as [Float32Array]
    expect(longer).toHaveLength(Math.round(RATE * factor))
    expect(crossings(longer) / factor).toBeGreaterThan(215)
    expect(crossings(longer) / factor).toBeLessThan(225)
    const middle = longer.subarray(Math.round(longer.length * 0.2), Math.round(longer.length * 0.8))
    const power = Math.sqrt(middle.reduce((sum, v) => sum + v * v, 0) / middle.length)
    expect(power).toBeGreaterThan(0.31)
    expect(power).toBeLessThan(0.38)
  })

  test('what is heard at a moment is heard at the same share of it, in all channels', () => {
    const hit = plucked(1, [{ at: 0.5 }], 0)
    const both = stretched([hit, hit.map(v => -v)], RATE, 2) as [Float32Array, Float32Array]
    const first = both[0].findIndex(v => Math.abs(v) > 0.1) / RATE
    expect(Math.abs(first - 1)).toBeLessThan(1 / 24)
    expect(both[1].every((v, i) => Math.abs(v + (both[0][i] as number)) < 1e-6)).toBe(true)
    expect(stretched([], RATE, 2)).toEqual([])
  })
})
