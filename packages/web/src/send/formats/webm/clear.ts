import { BufferTarget, EncodedPacket, EncodedVideoPacketSource, Output, WebMOutputFormat } from 'mediabunny'
import { framesOf, type Encode, type Film } from '../format.ts'
import { withSound } from '../heard.ts'

/** VP9, eight bits. https://www.webmproject.org/vp9/mp4/#codecs-parameter-string */
const CODEC = 'vp09.00.41.08'
/** Bits to a pixel and frame: drawings are flat colour with sharp edges. */
const BITS_PER_PIXEL = 0.25
const MICROSECONDS = 1e6
/** Frames under way in an encoder before more are handed to it. */
const MOST_WAITING = 8
const NEUTRAL = 128

/** Encodes frames one after the other; `add` waits while too many are under way, `end` gives what they became. */
function encoderFor(film: Film) {
  const chunks: { readonly chunk: EncodedVideoChunk; readonly meta: EncodedVideoChunkMetadata | undefined }[] = []
  let failed: Error | null = null
  const encoder = new VideoEncoder({
    output: (chunk, meta) => chunks.push({ chunk, meta }),
    error: error => (failed = error),
  })
  encoder.configure({
    codec: CODEC,
    width: film.width,
    height: film.height,
    framerate: film.fps,
    bitrate: Math.max(200_000, Math.round(BITS_PER_PIXEL * film.width * film.height * film.fps)),
    latencyMode: 'quality',
    alpha: 'discard',
  })
  return {
    async add(frame: VideoFrame, keyFrame: boolean): Promise<void> {
      encoder.encode(frame, { keyFrame })
      frame.close()
      while (encoder.encodeQueueSize > MOST_WAITING && !failed) {
        await new Promise(done => encoder.addEventListener('dequeue', done, { once: true }))
      }
      if (failed) throw failed
    },
    async end() {
      await encoder.flush()
      encoder.close()
      if (failed) throw failed
      return chunks
    },
  }
}

/** A picture parted in its colours, and how opaque it is as a grey picture. What is not seen gets the paper's colour, so that edges do not darken. */
function parted(rgba: Uint8ClampedArray, film: Film) {
  const { width, height, paper } = film
  const [r, g, b] = [1, 3, 5].map(at => Number.parseInt(paper.slice(at, at + 2), 16)) as [number, number, number]
  const colours = new Uint8Array(rgba)
  const chroma = Math.ceil(width / 2) * Math.ceil(height / 2)
  const opaque = new Uint8Array(width * height + 2 * chroma).fill(NEUTRAL)
  for (let i = 0; i < width * height; i++) {
    const alpha = rgba[4 * i + 3] as number
    opaque[i] = alpha
    if (alpha === 0) colours.set([r, g, b], 4 * i)
  }
  return { colours, opaque }
}

/** A see-through VP9 video in WebM: colours, and beside each frame how opaque it is, as a second picture. */
export const encodeClear: Encode = async film => {
  const { width, height, fps } = film
  const turns = film.turns ?? 1
  const count = framesOf(film.pictures) * turns
  const [colour, alpha] = [encoderFor(film), encoderFor(film)]
  let frame = 0
  for (let turn = 0; turn < turns; turn++) {
    for (const picture of film.pictures) {
      const { colours, opaque } = parted((await film.paint(picture)).getImageData(0, 0, width, height).data, film)
      for (let i = 0; i < picture.frames; i++, frame++) {
        const at = { codedWidth: width, codedHeight: height, timestamp: Math.round((frame / fps) * MICROSECONDS) }
        // Both stand on their own at the same frames: one is no use without the other.
        const isKey = frame % fps === 0
        await colour.add(new VideoFrame(colours, { format: 'RGBX', ...at }), isKey)
        await alpha.add(new VideoFrame(opaque, { format: 'I420', ...at }), isKey)
      }
      film.tell(frame / count)
    }
  }
  const [colours, alphas] = await Promise.all([colour.end(), alpha.end()])
  const target = new BufferTarget()
  const output = new Output({ format: new WebMOutputFormat(), target })
  const source = new EncodedVideoPacketSource('vp9')
  output.addVideoTrack(source, { frameRate: fps, canBeTransparent: true })
  const hear = await withSound(output, film)
  await output.start()
  for (const [i, { chunk, meta }] of colours.entries()) {
    const beside = alphas[i]?.chunk
    if (!beside) throw new Error('a frame has no picture of what is seen of it')
    const [data, seen] = [chunk, beside].map(one => {
      const bytes = new Uint8Array(one.byteLength)
      one.copyTo(bytes)
      return bytes
    }) as [Uint8Array, Uint8Array]
    const side = { alpha: seen, alphaByteLength: seen.length }
    await source.add(new EncodedPacket(data, chunk.type, i / fps, 1 / fps, i, data.length, side), meta)
    await hear((i + 1) / fps)
  }
  await output.finalize()
  if (!target.buffer) throw new Error('nothing was written')
  return new Uint8Array(target.buffer)
}
