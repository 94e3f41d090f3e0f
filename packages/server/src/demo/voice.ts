import { createHash } from 'node:crypto'

/** Samples a second. */
const RATE = 44_100

/** Something said: from when on and how long in seconds, its pitch at its beginning and end, and the two lowest formants at both. */
export interface Syllable {
  readonly at: number
  readonly long: number
  readonly hz: readonly [number, number]
  readonly first: readonly [number, number]
  readonly second: readonly [number, number]
  readonly loud: number
  /** how much of it begins as breath: a hiss or a stop, 0–1 */
  readonly breath: number
}

/** A recording made up by figures. */
export interface Recording {
  /** SHA-256 of the bytes, hexadecimal */
  readonly id: string
  readonly bytes: Buffer
  readonly seconds: number
}

const between = ([a, b]: readonly [number, number], share: number): number => a + (b - a) * share

/** A resonance: what comes near its frequency rings (two poles; J. O. Smith, Introduction to Digital Filters). */
function resonance(widthHz: number): (value: number, hz: number) => number {
  const r = Math.exp((-Math.PI * widthHz) / RATE)
  let [one, two] = [0, 0]
  return (value, hz) => {
    const next = (1 - r) * value + 2 * r * Math.cos((2 * Math.PI * hz) / RATE) * one - r * r * two
    two = one
    one = next
    return next
  }
}

/** Up within a moment, down over the last third. */
const swell = (share: number): number => Math.min(1, share / 0.06) * Math.min(1, (1 - share) / 0.34)

/** Something like a small voice: a pulse of the throat through two formants, and breath before it. The same every time. */
export function spoken(seconds: number, syllables: readonly Syllable[]): Recording {
  const samples = new Float64Array(Math.round(seconds * RATE))
  let chance = 7
  const noise = () => (chance = (Math.imul(chance, 1_664_525) + 1_013_904_223) | 0) / 2 ** 31
  for (const { at, long, hz, first, second, loud, breath } of syllables) {
    const [low, high] = [resonance(90), resonance(140)]
    let phase = 0
    for (let i = 0; i < long * RATE; i++) {
      const share = i / (long * RATE)
      phase = (phase + between(hz, share) / RATE + (2 * Math.sin((2 * Math.PI * 5.5 * i) / RATE)) / RATE) % 1
      // Open for less than half of the time, and shut at once.
      const throat = phase < 0.4 ? Math.sin((Math.PI * phase) / 0.4) ** 2 - 0.4 : -0.4
      const air = breath * noise() * Math.max(0, 1 - share / 0.22)
      const through = low(throat + air, between(first, share)) + 0.6 * high(throat + 2 * air, between(second, share))
      const to = Math.round(at * RATE) + i
      if (to < samples.length) samples[to] = (samples[to] as number) + loud * swell(share) * through
    }
  }
  return asWav(samples, seconds)
}

/** Samples as a WAV file of 16 bits and one channel, as loud as it may be. */
function asWav(samples: Float64Array, seconds: number): Recording {
  const most = samples.reduce((high, value) => Math.max(high, Math.abs(value)), 1e-9)
  const bytes = Buffer.alloc(44 + 2 * samples.length)
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(36 + 2 * samples.length, 4)
  bytes.write('WAVEfmt ', 8)
  for (const [at, value] of [
    [16, 16],
    [24, RATE],
    [28, 2 * RATE],
  ] as const)
    bytes.writeUInt32LE(value, at)
  for (const [at, value] of [
    [20, 1],
    [22, 1],
    [32, 2],
    [34, 16],
  ] as const)
    bytes.writeUInt16LE(value, at)
  bytes.write('data', 36)
  bytes.writeUInt32LE(2 * samples.length, 40)
  samples.forEach((value, i) => bytes.writeInt16LE(Math.round((28_000 * value) / most), 44 + 2 * i))
  return { id: createHash('sha256').update(bytes).digest('hex'), bytes, seconds }
}
