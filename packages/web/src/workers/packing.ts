import { MEDIA_LIMITS, mediaForm, type MediaFormName } from '@unhurried/core/assets'
import {
  BufferTarget,
  Conversion,
  Mp4OutputFormat,
  Output,
  WavOutputFormat,
  WebMOutputFormat,
  type Input,
} from 'mediabunny'
import type { NotBrought } from '../words/bringing.ts'

/** Something is wrong with a file. */
export class Fault<Why extends string = NotBrought> extends Error {
  constructor(readonly why: Why) {
    super(why)
  }
}

const HEAD_BYTES = 64

/** The form of a recording or clip by how it begins; null for none. Throws a Fault where it is empty, or too much. */
export async function formOf(file: Blob): Promise<Exclude<MediaFormName, 'png'> | null> {
  if (file.size === 0) throw new Fault('nothing-in-it')
  if (file.size > MEDIA_LIMITS.bytes) throw new Fault('too-many-media-bytes')
  const form = mediaForm(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()))
  return form === 'png' ? null : form
}

const FORMATS = {
  wav: () => new WavOutputFormat(),
  mp4: () => new Mp4OutputFormat({ fastStart: 'in-memory' }),
  webm: () => new WebMOutputFormat(),
} as const
export type PackedForm = keyof typeof FORMATS

/** The sound alone, or the pictures alone, of a file, packed anew: names, places and devices stay outside. Throws a Fault. */
export async function packedAnew(
  input: Input,
  form: PackedForm,
  keep: 'audio' | 'video',
): Promise<Uint8Array<ArrayBuffer>> {
  const target = new BufferTarget()
  const conversion = await Conversion.init({
    input,
    output: new Output({ format: FORMATS[form](), target }),
    tracks: 'primary',
    [keep === 'audio' ? 'video' : 'audio']: { discard: true },
    tags: () => ({}),
    showWarnings: false,
  })
  if (!conversion.isValid) throw new Fault('broken')
  await conversion.execute()
  if (!target.buffer || target.buffer.byteLength === 0) throw new Fault('broken')
  return new Uint8Array(target.buffer)
}
