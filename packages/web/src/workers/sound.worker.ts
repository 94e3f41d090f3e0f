import { MEDIA_LIMITS, withoutTags } from '@unhurried/core/assets'
import { LIMITS } from '@unhurried/core/document'
import { fluxOf, peakMaker, stretched } from '@unhurried/core/sound'
import { expose, transfer } from 'comlink'
import { ALL_FORMATS, BlobSource, Input } from 'mediabunny'
import type { PackedSound, SoundProtocol } from '../protocols/sound.ts'
import { hashOf } from '../local/hash.ts'
import { Fault, formOf, packedAnew } from './packing.ts'

/** What is read for peaks and onsets is read at least so finely. */
const FLUX_RATE = 20_000

async function pack(file: Blob): Promise<PackedSound> {
  const form = await formOf(file)
  if (!form) throw new Fault('no-sound')
  using input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS })
  const track = await input.getPrimaryAudioTrack()
  if (!track || (await track.getNumberOfChannels()) > MEDIA_LIMITS.channels) throw new Fault('no-sound')
  // Counted from what is there and not from what is promised: a small file may hold days of silence.
  if ((await track.computeDuration()) > LIMITS.soundSeconds) throw new Fault('too-many-seconds')
  // From some only what is told about it is taken; the others are packed anew.
  const isBlanked = form === 'mp3' || form === 'flac' || form === 'ogg'
  const bytes = isBlanked ? await blank(form, file) : await packedAnew(input, form, 'audio')
  return { bytes, id: await hashOf(bytes), form }
}

async function blank(form: 'mp3' | 'flac' | 'ogg', file: Blob): Promise<Uint8Array<ArrayBuffer>> {
  const bytes = withoutTags(form, new Uint8Array(await file.arrayBuffer()))
  if (!bytes) throw new Fault('broken')
  return bytes.slice()
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
