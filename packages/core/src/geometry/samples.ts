import { UsageError } from '../errors.ts'

/** One sample of a pen stroke: place in paper pixels, pressure from 0 to 1. */
export interface Sample {
  readonly x: number
  readonly y: number
  readonly pressure: number
}

/**
 * Stored form of a stroke's samples. Layout:
 *
 *     byte 0      version (1)
 *     varint      number of samples
 *     per sample  zigzag varint dx, zigzag varint dy (in 1/8 px, from the sample before; the first from 0,0), byte pressure
 *
 * A second of drawing is about 120 samples and 360 bytes. Places are kept to 1/16 px, pressure to 1/510.
 */
const VERSION = 1
const UNITS_PER_PX = 8
const PRESSURE_STEPS = 255

/** The most samples one stroke may hold: about seven minutes of drawing without lifting the pen. */
export const MOST_SAMPLES = 50_000
/** Coordinates may lie this far off the paper, in pixels. */
export const FARTHEST_PX = 100_000

/** Packs samples into bytes. Throws when there are none, too many, or a number is not finite or too far off. */
export function packSamples(samples: readonly Sample[]): Uint8Array {
  if (samples.length === 0 || samples.length > MOST_SAMPLES) {
    throw new UsageError(`a stroke holds 1 to ${MOST_SAMPLES} samples, not ${samples.length}`)
  }
  const bytes: number[] = [VERSION]
  pushVarint(bytes, samples.length)
  let x = 0
  let y = 0
  for (const sample of samples) {
    if (!(Math.abs(sample.x) <= FARTHEST_PX && Math.abs(sample.y) <= FARTHEST_PX)) {
      throw new UsageError(`a sample lies at ${sample.x}, ${sample.y}, off any paper`)
    }
    const nextX = Math.round(sample.x * UNITS_PER_PX)
    const nextY = Math.round(sample.y * UNITS_PER_PX)
    pushVarint(bytes, zigzag(nextX - x))
    pushVarint(bytes, zigzag(nextY - y))
    bytes.push(Math.round(Math.max(0, Math.min(1, sample.pressure || 0)) * PRESSURE_STEPS))
    x = nextX
    y = nextY
  }
  return Uint8Array.from(bytes)
}

/** What is wrong with stored sample bytes, or null when they can be unpacked. For data from outside. */
export type SamplesFault = 'empty' | 'unknown-version' | 'bad-count' | 'cut-short' | 'trailing-bytes' | 'off-the-paper'

/** Unpacks stored samples; answers with the fault instead of throwing, for bytes may come from anywhere. */
export function unpackSamplesSafe(
  bytes: Uint8Array,
): { ok: true; samples: Sample[] } | { ok: false; fault: SamplesFault } {
  if (bytes.length === 0) return { ok: false, fault: 'empty' }
  if (bytes[0] !== VERSION) return { ok: false, fault: 'unknown-version' }
  const reader = { bytes, at: 1 }
  const count = readVarint(reader)
  if (count === null || count < 1 || count > MOST_SAMPLES) return { ok: false, fault: 'bad-count' }
  const samples: Sample[] = []
  let x = 0
  let y = 0
  for (let i = 0; i < count; i++) {
    const dx = readVarint(reader)
    const dy = readVarint(reader)
    const pressure = bytes[reader.at++]
    if (dx === null || dy === null || pressure === undefined) return { ok: false, fault: 'cut-short' }
    x += unzigzag(dx)
    y += unzigzag(dy)
    if (Math.max(Math.abs(x), Math.abs(y)) > FARTHEST_PX * UNITS_PER_PX) return { ok: false, fault: 'off-the-paper' }
    samples.push({ x: x / UNITS_PER_PX, y: y / UNITS_PER_PX, pressure: pressure / PRESSURE_STEPS })
  }
  return reader.at === bytes.length ? { ok: true, samples } : { ok: false, fault: 'trailing-bytes' }
}

/** Unpacks stored samples that were checked before. Throws on broken bytes. */
export function unpackSamples(bytes: Uint8Array): Sample[] {
  const result = unpackSamplesSafe(bytes)
  if (!result.ok) throw new UsageError(`stroke samples cannot be read: ${result.fault}`)
  return result.samples
}

const zigzag = (n: number): number => (n < 0 ? -2 * n - 1 : 2 * n)
const unzigzag = (n: number): number => (n % 2 === 0 ? n / 2 : -(n + 1) / 2)

function pushVarint(bytes: number[], value: number): void {
  let rest = value
  while (rest >= 128) {
    bytes.push((rest % 128) + 128)
    rest = Math.floor(rest / 128)
  }
  bytes.push(rest)
}

const LONGEST_VARINT = 4

function readVarint(reader: { bytes: Uint8Array; at: number }): number | null {
  let value = 0
  let place = 1
  for (let i = 0; i < LONGEST_VARINT; i++) {
    const byte = reader.bytes[reader.at++]
    if (byte === undefined) return null
    value += (byte % 128) * place
    if (byte < 128) return value
    place *= 128
  }
  return null
}
