import { LIMITS } from '@unhurried/core/document'
import type { Remote } from 'comlink'
import type { PackedSound, SoundPacked, SoundProtocol, SoundSurvey } from '../protocols/sound.ts'
import type { NotBrought } from '../words/bringing.ts'
import { inTime, inWorker, whyUnanswered } from '../workers/once.ts'

/** What takes longer than this is let go: a recording of the longest length takes a few seconds. */
const DEADLINE_MS = 60_000
/** Samples a second of everything that is heard here. */
const RATE = 48_000

/** Does one thing with sound behind one's back. */
const doing = <T>(work: (remote: Remote<SoundProtocol>) => Promise<T>): Promise<T> =>
  inWorker<SoundProtocol, T>(
    new Worker(new URL('../workers/sound.worker.ts', import.meta.url), { type: 'module' }),
    DEADLINE_MS,
    work,
  )

/** What is heard of a recording, unpacked by the browser to the sample; null when it cannot. */
async function unpacked(bytes: Uint8Array): Promise<AudioBuffer | null> {
  const context = new OfflineAudioContext(1, 1, RATE)
  const heard = await inTime(context.decodeAudioData(bytes.slice().buffer), DEADLINE_MS).catch(() => null)
  return heard && heard.length > 0 ? heard : null
}

const channelsOf = (heard: AudioBuffer): Float32Array[] =>
  Array.from({ length: Math.min(2, heard.numberOfChannels) }, (_, i) => heard.getChannelData(i))

/** A recording as it is kept, and how long it is; or why there is none. */
export type SoundRead =
  | { readonly ok: true; readonly sound: PackedSound; readonly seconds: number }
  | { readonly ok: false; readonly why: NotBrought }

/** Reads a file that may be a recording. It is unpacked once: what cannot be heard is not brought in. */
export async function readSound(file: Blob): Promise<SoundRead> {
  const packed = await doing(async (remote): Promise<SoundPacked> => remote.pack(file)).catch(whyUnanswered)
  if (!packed.ok) return packed
  const heard = await unpacked(packed.sound.bytes)
  if (!heard) return { ok: false, why: 'broken' }
  if (heard.duration > LIMITS.soundSeconds) return { ok: false, why: 'too-many-seconds' }
  return { ok: true, sound: packed.sound, seconds: heard.duration }
}

/** A recording unpacked: what is heard, and what is drawn and read of it. */
export interface OpenedSound extends SoundSurvey {
  readonly buffer: AudioBuffer
}

/** Unpacks a kept recording; null when it cannot be read here. */
export async function openSound(bytes: Uint8Array): Promise<OpenedSound | null> {
  const buffer = await unpacked(bytes)
  if (!buffer) return null
  const survey = await doing(async remote => remote.survey(channelsOf(buffer), buffer.sampleRate)).catch(() => null)
  return survey && { buffer, ...survey }
}

/** A recording at its pitch, so many times as long; null when that cannot be had. */
export async function stretchSound(heard: AudioBuffer, factor: number): Promise<AudioBuffer | null> {
  const rate = heard.sampleRate
  const longer = await doing(async remote => remote.stretch(channelsOf(heard), rate, factor)).catch(() => null)
  const first = longer?.[0]
  if (!longer || !first) return null
  const made = new AudioBuffer({ numberOfChannels: longer.length, length: Math.max(1, first.length), sampleRate: rate })
  longer.forEach((channel, i) => made.copyToChannel(channel as Float32Array<ArrayBuffer>, i))
  return made
}
