import { ALL_FORMATS, BufferSource, EncodedPacketSink, Input, VideoSampleSink } from 'mediabunny'
import { Fault } from './packing.ts'

/** Pictures of a clip that are looked through. */
export const MOST_PICTURES = 20_000
/** What comes out of order comes no more than so much late, seconds. */
const OUT_OF_ORDER_S = 2

/** A clip of which any picture can be had. */
export interface OpenClip {
  readonly input: Input
  readonly sink: VideoSampleSink
  /** the moments at which its pictures begin, in seconds, rising */
  readonly times: readonly number[]
}

/** Opens a packed clip. Throws a Fault where it holds no pictures, or more than can be. */
export async function openClip(bytes: Uint8Array): Promise<OpenClip> {
  const input = new Input({ source: new BufferSource(bytes), formats: ALL_FORMATS })
  const track = await input.getPrimaryVideoTrack()
  if (!track) throw new Fault<'no-pictures'>('no-pictures')
  const times: number[] = []
  for await (const packet of new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true })) {
    if (times.length >= MOST_PICTURES) throw new Fault('too-many-pictures')
    if (packet.timestamp > -OUT_OF_ORDER_S) times.push(Math.max(0, packet.timestamp))
  }
  times.sort((a, b) => a - b)
  return { input, sink: new VideoSampleSink(track), times: times.filter((time, i) => time !== times[i - 1]) }
}
