import { BufferTarget, CanvasSource, Output, QUALITY_VERY_HIGH, type OutputFormat, type VideoCodec } from 'mediabunny'
import { framesOf, type Encode } from './format.ts'
import { withSound } from './heard.ts'

/** Seconds between pictures that stand on their own, so that players can go to any place. */
const KEY_EVERY_S = 1

/** A video with every frame of every turn at its own moment, so that it lasts exactly as long as it is meant to. */
export const videoEncoder =
  (format: () => OutputFormat, codec: VideoCodec): Encode =>
  async film => {
    const target = new BufferTarget()
    const output = new Output({ format: format(), target })
    const first = film.pictures[0]
    if (!first) throw new Error('there are no frames')
    const source = new CanvasSource((await film.paint(first)).canvas, {
      codec,
      quality: QUALITY_VERY_HIGH,
      keyFrameInterval: KEY_EVERY_S,
      latencyMode: 'quality',
    })
    output.addVideoTrack(source, { frameRate: film.fps })
    const hear = await withSound(output, film)
    await output.start()
    const turns = film.turns ?? 1
    const count = framesOf(film.pictures) * turns
    let frame = 0
    for (let turn = 0; turn < turns; turn++) {
      for (const picture of film.pictures) {
        await film.paint(picture)
        for (let i = 0; i < picture.frames; i++, frame++) await source.add(frame / film.fps, 1 / film.fps)
        await hear(frame / film.fps)
        film.tell(frame / count)
      }
    }
    await output.finalize()
    if (!target.buffer) throw new Error('nothing was written')
    return new Uint8Array(target.buffer)
  }
