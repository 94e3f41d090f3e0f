import { mediaForm, SOUND_LIMITS, withoutTags, type MediaFormName } from '@unhurried/core/assets'
import { LIMITS } from '@unhurried/core/document'
import { fluxOf, peakMaker, stretched } from '@unhurried/core/sound'
import { expose, transfer } from 'comlink'
import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  Conversion,
  Input,
  Mp4OutputFormat,
  Output,
  WavOutputFormat,
  WebMOutputFormat,
  type OutputFormat,
} from 'mediabunny'
import type { PackedSound, SoundProtocol } from '../protocols/sound.ts'
import type { NotBrought } from '../words/bringing.ts'

class Fault extends Error {
  constructor(readonly why: NotBrought) {
    super(why)
  }
}

/** Forms that are packed anew, to their sound alone; from the others only what is told about it is taken. */
const PACKED_ANEW: { readonly [F in MediaFormName]?: () => OutputFormat } = {
  wav: () => new WavOutputFormat(),
  mp4: () => new Mp4OutputFormat({ fastStart: 'in-memory' }),
  webm: () => new WebMOutputFormat(),
}

const HEAD_BYTES = 64
/** What is read for peaks and onsets is read at least so finely. */
const FLUX_RATE = 20_000

async function pack(file: Blob): Promise<PackedSound> {
  if (file.size === 0) throw new Fault('nothing-in-it')
  if (file.size > SOUND_LIMITS.bytes) throw new Fault('too-many-sound-bytes')
  const form = mediaForm(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()))
  if (!form) throw new Fault('no-sound')
  using input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS })
  const track = await input.getPrimaryAudioTrack()
  if (!track || (await track.getNumberOfChannels()) > SOUND_LIMITS.channels) throw new Fault('no-sound')
  // Counted from what is there and not from what is promised: a small file may hold days of silence.
  if ((await track.computeDuration()) > LIMITS.soundSeconds) throw new Fault('too-many-seconds')
  const bytes = form === 'mp3' || form === 'flac' || form === 'ogg' ? await blank(form, file) : await anew(form, input)
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
  const id = [...digest].map(byte => byte.toString(16).padStart(2, '0')).join('')
  return { bytes, id, form }
}

async function blank(form: 'mp3' | 'flac' | 'ogg', file: Blob): Promise<Uint8Array<ArrayBuffer>> {
  const bytes = withoutTags(form, new Uint8Array(await file.arrayBuffer()))
  if (!bytes) throw new Fault('broken')
  return bytes.slice()
}

async function anew(form: MediaFormName, input: Input): Promise<Uint8Array<ArrayBuffer>> {
  const format = PACKED_ANEW[form]?.()
  if (!format) throw new Fault('no-sound')
  const target = new BufferTarget()
  const conversion = await Conversion.init({
    input,
    output: new Output({ format, target }),
    tracks: 'primary',
    video: { discard: true },
    // Names, places and devices stay outside.
    tags: () => ({}),
    showWarnings: false,
  })
  if (!conversion.isValid) throw new Fault('broken')
  await conversion.execute()
  if (!target.buffer || target.buffer.byteLength === 0) throw new Fault('broken')
  return new Uint8Array(target.buffer)
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

const protocol: SoundProtocol = {
  async pack(file) {
    try {
      const sound = await pack(file)
      return transfer({ ok: true as const, sound }, [sound.bytes.buffer as ArrayBuffer])
    } catch (error) {
      return { ok: false, why: error instanceof Fault ? error.why : 'broken' }
    }
  },
  survey(channels, rate) {
    const mono = coarse(channels, rate)
    const maker = peakMaker(mono.rate)
    maker.take(mono.samples)
    return { peaks: maker.done(), flux: fluxOf(mono.samples, mono.rate) }
  },
  stretch(channels, rate, factor) {
    const all = stretched(channels, rate, factor).map(channel => channel.slice())
    return transfer(
      all,
      all.map(channel => channel.buffer),
    )
  },
}
expose(protocol)
