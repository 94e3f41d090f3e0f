import { mediaForm, SOUND_LIMITS, type MediaFormName } from '@unhurried/core/assets'
import { LIMITS } from '@unhurried/core/document'
import { fluxOf, peakMaker, stretched } from '@unhurried/core/sound'
import { expose, transfer } from 'comlink'
import {
  ALL_FORMATS,
  AudioSampleSink,
  BlobSource,
  BufferSource,
  BufferTarget,
  Conversion,
  FlacOutputFormat,
  Input,
  Mp3OutputFormat,
  Mp4OutputFormat,
  OggOutputFormat,
  Output,
  WavOutputFormat,
  WebMOutputFormat,
  type AudioSample,
  type OutputFormat,
} from 'mediabunny'
import type { OpenedSound, ReadSound, SoundProtocol } from '../protocols/sound.ts'
import type { NotBrought } from '../words/bringing.ts'

/** What a recording is packed into again, by what it came in. */
const PACKED: { readonly [F in MediaFormName]: () => OutputFormat } = {
  wav: () => new WavOutputFormat(),
  mp3: () => new Mp3OutputFormat({ xingHeader: false }),
  ogg: () => new OggOutputFormat(),
  flac: () => new FlacOutputFormat(),
  mp4: () => new Mp4OutputFormat({ fastStart: 'in-memory' }),
  webm: () => new WebMOutputFormat(),
}

class Fault extends Error {
  constructor(readonly why: NotBrought) {
    super(why)
  }
}

const HEAD_BYTES = 64
/** What is read for peaks and onsets is read at least so finely. */
const FLUX_RATE = 20_000

async function read(file: Blob): Promise<ReadSound> {
  if (file.size === 0) throw new Fault('nothing-in-it')
  if (file.size > SOUND_LIMITS.bytes) throw new Fault('too-many-sound-bytes')
  const form = mediaForm(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()))
  if (!form) throw new Fault('no-sound')
  using input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS })
  const track = await input.getPrimaryAudioTrack()
  if (!track) throw new Fault('no-sound')
  if ((await track.getNumberOfChannels()) > SOUND_LIMITS.channels || !(await track.canDecode()))
    throw new Fault('no-sound')
  if ((await track.computeDuration()) > LIMITS.soundSeconds) throw new Fault('too-many-seconds')
  const target = new BufferTarget()
  const output = new Output({ format: PACKED[form](), target })
  const conversion = await Conversion.init({
    input,
    output,
    tracks: 'primary',
    video: { discard: true },
    // Names, places and devices stay outside.
    tags: () => ({}),
    showWarnings: false,
  })
  if (!conversion.isValid) throw new Fault('broken')
  await conversion.execute()
  if (!target.buffer || target.buffer.byteLength === 0) throw new Fault('broken')
  const bytes = new Uint8Array(target.buffer)
  // It is unpacked once before it is kept: what cannot be heard is not brought in.
  const { channels, rate } = await unpack(bytes)
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
  const id = [...digest].map(byte => byte.toString(16).padStart(2, '0')).join('')
  return { bytes, id, form, seconds: (channels[0] as Float32Array).length / rate }
}

/** Samples of the first two channels, each where its moment is. Throws a Fault when there are none, or they never end. */
async function unpack(bytes: Uint8Array): Promise<{ rate: number; channels: Float32Array[] }> {
  using input = new Input({ source: new BufferSource(bytes), formats: ALL_FORMATS })
  const track = await input.getPrimaryAudioTrack()
  if (!track) throw new Fault('broken')
  const rate = await track.getSampleRate()
  const count = Math.min(2, await track.getNumberOfChannels())
  const most = Math.ceil(rate * LIMITS.soundSeconds)
  let channels = Array.from({ length: count }, () => new Float32Array(Math.min(most, Math.ceil(rate * 30))))
  let end = 0
  for await (const sample of new AudioSampleSink(track).samples()) {
    using one = sample
    const at = Math.round(one.timestamp * rate)
    const next = at + one.numberOfFrames
    if (next > most) throw new Fault('too-many-seconds')
    if (next > (channels[0] as Float32Array).length)
      channels = channels.map(old => longer(old, Math.min(most, 2 * next)))
    channels.forEach((channel, plane) => place(one, plane, channel, at))
    end = Math.max(end, next)
  }
  if (end === 0) throw new Fault('broken')
  return { rate, channels: channels.map(channel => channel.slice(0, end)) }
}

function longer(old: Float32Array, length: number): Float32Array<ArrayBuffer> {
  const all = new Float32Array(length)
  all.set(old)
  return all
}

/** Puts one plane of a piece where it belongs; what lies before the beginning is left out. */
function place(sample: AudioSample, plane: number, into: Float32Array, at: number): void {
  const planeIndex = Math.min(plane, sample.numberOfChannels - 1)
  const piece = new Float32Array(sample.numberOfFrames)
  sample.copyTo(piece, { planeIndex, format: 'f32-planar' })
  if (at >= 0) into.set(piece, at)
  else if (piece.length + at > 0) into.set(piece.subarray(-at), 0)
}

/** All channels as one, and only as finely as setting in is read. */
function coarse(channels: readonly Float32Array[], rate: number): { samples: Float32Array; rate: number } {
  const [first, second] = channels as [Float32Array, Float32Array?]
  const step = Math.max(1, Math.floor(rate / FLUX_RATE))
  const samples = new Float32Array(Math.floor(first.length / step))
  for (let i = 0; i < samples.length; i++) {
    let sum = 0
    for (let k = i * step; k < (i + 1) * step; k++) sum += (first[k] as number) + ((second ?? first)[k] as number)
    samples[i] = sum / step / 2
  }
  return { samples, rate: rate / step }
}

async function open(bytes: Uint8Array): Promise<OpenedSound> {
  const { rate, channels } = await unpack(bytes)
  const mono = coarse(channels, rate)
  const maker = peakMaker(mono.rate)
  maker.take(mono.samples)
  return { rate, channels, peaks: maker.done(), flux: fluxOf(mono.samples, mono.rate) }
}

const protocol: SoundProtocol = {
  async read(file) {
    try {
      const sound = await read(file)
      return transfer({ ok: true as const, sound }, [sound.bytes.buffer as ArrayBuffer])
    } catch (error) {
      return { ok: false, why: error instanceof Fault ? error.why : 'broken' }
    }
  },
  async open(bytes) {
    const opened = await open(bytes)
    return transfer(
      opened,
      opened.channels.map(channel => channel.buffer as ArrayBuffer),
    )
  },
  async stretch(channels, rate, factor) {
    const all = stretched(channels, rate, factor).map(channel => channel.slice())
    return transfer(
      all,
      all.map(channel => channel.buffer),
    )
  },
}
expose(protocol)
