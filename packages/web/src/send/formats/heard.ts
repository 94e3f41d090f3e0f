import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  canEncodeAudio,
  Output,
  QUALITY_HIGH,
  WavOutputFormat,
} from 'mediabunny'
import type { Mix } from '../../protocols/sound.ts'
import { framesOf, type Film } from './format.ts'

/** A film's sound as a file of its own: WAV, 16 bits. */
export async function soundFile({ rate, channels }: Mix): Promise<Uint8Array> {
  const target = new BufferTarget()
  const output = new Output({ format: new WavOutputFormat(), target })
  const source = new AudioSampleSource({ codec: 'pcm-s16' })
  output.addAudioTrack(source)
  await output.start()
  const seconds = (channels[0]?.length ?? 0) / rate
  using piece = pieceOf({ rate, channels }, 0, seconds, seconds)
  await source.add(piece)
  await output.finalize()
  if (!target.buffer) throw new Error('nothing was written')
  return new Uint8Array(target.buffer)
}

/** Sound is handed over by so many seconds at a time, beside the pictures that belong to it. */
const PIECE_S = 0.5

/**
 * Gives a file that is made the sound of its film, before it is started; answers with how to hand over what is heard up to a moment (seconds from
 * the beginning, all turns counted). Where the film is silent nothing is added.
 */
export async function withSound(output: Output, film: Film): Promise<(untilS: number) => Promise<void>> {
  const { sound, fps } = film
  if (!sound) return async () => undefined
  // Where the machine can, what plays in most places.
  const codec =
    output.format.getSupportedAudioCodecs().includes('aac') && (await canEncodeAudio('aac')) ? 'aac' : 'opus'
  const source = new AudioSampleSource({ codec, quality: QUALITY_HIGH })
  output.addAudioTrack(source)
  const turn = framesOf(film.pictures) / fps
  const end = turn * (film.turns ?? 1)
  let at = 0
  return async untilS => {
    while (at < Math.min(end, untilS) - 1e-9) {
      // A piece never goes over the end of a turn.
      const ends = Math.min(end, at + PIECE_S, (Math.floor(at / turn + 1e-9) + 1) * turn)
      using piece = pieceOf(sound, at, ends, turn)
      await source.add(piece)
      at = ends
    }
  }
}

function pieceOf({ rate, channels }: Mix, from: number, to: number, turn: number): AudioSample {
  const start = Math.round((from - Math.floor(from / turn + 1e-9) * turn) * rate)
  // Counted over the whole, so that no sample is lost between pieces.
  const count = Math.max(1, Math.round(to * rate) - Math.round(from * rate))
  const data = new Float32Array(count * channels.length)
  channels.forEach((channel, i) => data.set(channel.subarray(start, start + count), i * count))
  return new AudioSample({
    data,
    format: 'f32-planar',
    numberOfChannels: channels.length,
    sampleRate: rate,
    timestamp: from,
  })
}
