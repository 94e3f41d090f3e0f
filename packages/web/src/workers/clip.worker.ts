import { changeBetween, followOn, trackerOf, type Change, type Grey, type Tracker } from '@unhurried/core/clip'
import { LIMITS } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { expose, transfer } from 'comlink'
import {
  ALL_FORMATS,
  BufferTarget,
  CanvasSource,
  BlobSource,
  Input,
  Output,
  QUALITY_VERY_HIGH,
  WebMOutputFormat,
  type VideoSample,
} from 'mediabunny'
import { greyOf } from './grey.ts'
import { hashOf } from '../local/hash.ts'
import { MOST_PICTURES, openClip, type OpenClip } from './openClip.ts'
import { Fault, formOf, packedAnew, type PackedForm } from './packing.ts'
import type {
  ClipPacked,
  ClipProtocol,
  ClipTimes,
  FollowEnd,
  FoundPlace,
  PackedClip,
  SequencePicture,
} from '../protocols/clip.ts'

type Why = Exclude<ClipPacked, { ok: true }>['why']

/** How large pictures are that are looked through. */
const GREY_WIDTH = 160
/** No picture of a clip has more pixels. */
const MOST_PIXELS = 4096 * 2304

async function pack(file: Blob): Promise<PackedClip> {
  const form = await formOf(file)
  if (form !== 'mp4' && form !== 'webm') throw new Fault<Why>('no-pictures')
  using input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS })
  const track = await input.getPrimaryVideoTrack()
  if (!track) throw new Fault<Why>('no-pictures')
  const [widthPx, heightPx] = [await track.getDisplayWidth(), await track.getDisplayHeight()]
  if (widthPx * heightPx > MOST_PIXELS) throw new Fault<Why>('too-many-pixels')
  if (!(await track.canDecode())) throw new Fault<Why>('no-clip')
  const seconds = await track.computeDuration()
  if (seconds > LIMITS.clipSeconds) throw new Fault<Why>('too-many-seconds')
  return seenOnce(await packedAnew(input, form, 'video'), form, Math.round(widthPx), Math.round(heightPx), seconds)
}

/** What was packed, if it can be looked at. Throws a Fault. */
async function seenOnce(
  bytes: Uint8Array<ArrayBuffer>,
  form: PackedForm,
  widthPx: number,
  heightPx: number,
  seconds: number,
): Promise<PackedClip> {
  const opened = await openClip(bytes)
  // It is seen once before it is kept.
  const first = await opened.sink.getSample(opened.times[0] ?? 0)
  if (!first || opened.times.length === 0) throw new Fault<Why>('broken')
  first.close()
  opened.input.dispose()
  return { bytes, id: await hashOf(bytes), form, widthPx, heightPx, seconds }
}

/** Seconds between pictures of a packed sequence that stand on their own: to go to any place costs no more than these. */
const KEY_EVERY_S = 0.5

/** A clip of pictures that follow one another, each as long as it is shown. Throws a Fault. */
async function packSequence(pictures: readonly SequencePicture[]): Promise<PackedClip> {
  // To the microsecond, as packed films tell it.
  const seconds = Math.round(pictures.reduce((sum, picture) => sum + picture.seconds, 0) * 1e6) / 1e6
  if (pictures.length < 2) throw new Fault<Why>('nothing-in-it')
  if (pictures.length > MOST_PICTURES) throw new Fault<Why>('too-many-pictures')
  if (seconds > LIMITS.clipSeconds) throw new Fault<Why>('too-many-seconds')
  let canvas: OffscreenCanvas | null = null
  const target = new BufferTarget()
  const output = new Output({ format: new WebMOutputFormat(), target })
  let source: CanvasSource | null = null
  let at = 0
  for (const { bytes, seconds: shown } of pictures) {
    const bitmap = await createImageBitmap(new Blob([bytes.slice()], { type: 'image/png' })).catch(() => {
      throw new Fault<Why>('broken')
    })
    if (!canvas || !source) {
      const share = Math.min(1, Math.sqrt(MOST_PIXELS / (bitmap.width * bitmap.height)))
      // Halves of pixels have no colour of their own: sides are even.
      const even = (px: number) => Math.max(2, 2 * Math.floor((px * share) / 2))
      canvas = new OffscreenCanvas(even(bitmap.width), even(bitmap.height))
      source = new CanvasSource(canvas, {
        codec: 'vp9',
        quality: QUALITY_VERY_HIGH,
        keyFrameInterval: KEY_EVERY_S,
        latencyMode: 'quality',
      })
      output.addVideoTrack(source)
      await output.start()
    }
    const brush = canvas.getContext('2d')
    if (!brush) throw new Fault<Why>('broken')
    const fit = Math.min(canvas.width / bitmap.width, canvas.height / bitmap.height)
    const [w, h] = [bitmap.width * fit, bitmap.height * fit]
    brush.fillStyle = '#fff'
    brush.fillRect(0, 0, canvas.width, canvas.height)
    brush.imageSmoothingQuality = 'high'
    brush.drawImage(bitmap, (canvas.width - w) / 2, (canvas.height - h) / 2, w, h)
    bitmap.close()
    await source.add(at, shown)
    at += shown
  }
  await output.finalize()
  if (!target.buffer || !canvas) throw new Fault<Why>('broken')
  return seenOnce(new Uint8Array(target.buffer), 'webm', canvas.width, canvas.height, seconds)
}

let clip: OpenClip | null = null
/** Pictures that follow one another are decoded in one go: each of them alone would begin at the last whole one again. */
function runOf(opened: OpenClip) {
  let run: { next: number; readonly samples: AsyncGenerator<VideoSample, void, unknown> } | null = null
  const stop = async () => {
    await run?.samples.return()
    run = null
  }
  return {
    stop,
    /** A picture by its number; null where there is none. */
    async sample(number: number): Promise<VideoSample | null> {
      const time = opened.times[number]
      if (time === undefined) return null
      if (run?.next !== number) {
        await stop()
        run = { next: number, samples: opened.sink.samples(time + 1e-4) }
      }
      const { value } = (run.next++, await run.samples.next())
      return value ?? null
    },
  }
}
/** What is looked at, and what is made behind one's back: each goes on where it was. */
let looking: ReturnType<typeof runOf> | null = null
let behind: ReturnType<typeof runOf> | null = null

/** A sample as wide as is said, or as wide as it is, on a canvas. */
function drawnOut(sample: VideoSample, widthPx: number, quality: ImageSmoothingQuality): OffscreenCanvas | null {
  const scale = Math.min(1, widthPx / sample.displayWidth)
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(sample.displayWidth * scale)),
    Math.max(1, Math.round(sample.displayHeight * scale)),
  )
  const brush = canvas.getContext('2d')
  if (!brush) return null
  brush.imageSmoothingQuality = quality
  sample.draw(brush, 0, 0, canvas.width, canvas.height)
  return canvas
}

/** How much of a small picture may be lost by packing it. */
const SMALL_QUALITY = 0.72

async function small(from: number, to: number, widthPx: number): Promise<Uint8Array[]> {
  const pictures: Uint8Array[] = []
  for (let number = from; number < to; number++) {
    const sample = await behind?.sample(number)
    if (!sample) break
    using one = sample
    const blob = await drawnOut(one, widthPx, 'medium')?.convertToBlob({ type: 'image/jpeg', quality: SMALL_QUALITY })
    if (!blob) break
    pictures.push(new Uint8Array(await blob.arrayBuffer()))
  }
  return pictures
}

/** Grey pictures of the opened clip from one number up to, but not with, another, as wide as is said. */
async function* greys(from: number, to: number, widthPx: number): AsyncGenerator<Grey> {
  if (!clip) return
  const { sink, times } = clip
  let canvas: OffscreenCanvas | null = null
  for await (const sample of sink.samplesAtTimestamps(times.slice(from, to))) {
    if (!sample) continue
    using one = sample
    canvas ??= new OffscreenCanvas(
      widthPx,
      Math.max(24, Math.min(2.5 * widthPx, Math.round((widthPx * one.displayHeight) / one.displayWidth))),
    )
    const brush = canvas.getContext('2d', { willReadFrequently: true })
    if (!brush) return
    brush.imageSmoothingQuality = 'high'
    one.draw(brush, 0, 0, canvas.width, canvas.height)
    yield greyOf(brush)
  }
}

/** What is told waits for an answer: it comes from the page. */
type Told = (found: FoundPlace[]) => Promise<boolean>

/** What is followed is looked at no larger than this, and so many pictures are decoded at a time where they are gone through backwards. */
const FOLLOW_WIDTH = 640
const BACK_PICTURES = 40

/** The pictures behind one, on or back, each with its number. */
async function* picturesAlong(from: number, to: number, widthPx: number): AsyncGenerator<readonly [number, Grey]> {
  if (to > from) {
    let number = from
    for await (const grey of greys(from, to, widthPx)) yield [number++, grey]
    return
  }
  for (let last = from; last > to; last -= BACK_PICTURES) {
    const first = Math.max(to + 1, last - BACK_PICTURES + 1)
    const some: Grey[] = []
    for await (const grey of greys(first, last + 1, widthPx)) some.push(grey)
    for (let i = some.length - 1; i >= 0; i--) yield [first + i, some[i] as Grey]
  }
}

async function follow(from: number, to: number, at: Point, told: Told): Promise<FollowEnd> {
  const wide = (await (await clip?.input.getPrimaryVideoTrack())?.getDisplayWidth()) ?? 0
  if (wide === 0) return 'flat'
  const scale = Math.min(1, FOLLOW_WIDTH / wide)
  // The middle of the first pixel is half a pixel off the edge, however large a pixel is.
  const inward = ({ x, y }: Point) => ({ x: x * scale - 0.5, y: y * scale - 0.5 })
  const outward = ({ x, y }: Point) => ({ x: (x + 0.5) / scale, y: (y + 0.5) / scale })
  let tracker: Tracker | null = null
  let found: FoundPlace[] = []
  for await (const [number, grey] of picturesAlong(from, to, Math.round(wide * scale))) {
    if (!tracker) {
      tracker = trackerOf(grey, inward(at))
      if (!tracker) return 'flat'
      continue
    }
    const next = followOn(tracker, grey)
    if (!next) {
      await told(found)
      return 'lost'
    }
    tracker = next.tracker
    found.push({ number, ...outward(tracker.at), sure: next.sure })
    if (found.length >= 8) {
      if (!(await told(found))) return 'off'
      found = []
    }
  }
  await told(found)
  return 'through'
}

/** A packed clip handed over, or why there is none. */
async function handedOver(packing: () => Promise<PackedClip>): Promise<ClipPacked> {
  try {
    const packed = await packing()
    return transfer({ ok: true as const, clip: packed }, [packed.bytes.buffer as ArrayBuffer])
  } catch (error) {
    return { ok: false, why: error instanceof Fault ? (error.why as Why) : 'broken' }
  }
}

const protocol: ClipProtocol = {
  pack: file => handedOver(() => pack(file)),
  packPictures: pictures => handedOver(() => packSequence(pictures)),
  async open(bytes): Promise<ClipTimes> {
    await Promise.all([looking?.stop(), behind?.stop()])
    clip?.input.dispose()
    clip = await openClip(bytes)
    ;[looking, behind] = [runOf(clip), runOf(clip)]
    return { times: clip.times }
  },
  async picture(number, widthPx) {
    const sample = await looking?.sample(number)
    if (!sample) return null
    using one = sample
    // They lie under the paper, and are gone over: there is no time to be finer.
    const bitmap = drawnOut(one, widthPx, 'low')?.transferToImageBitmap()
    return bitmap ? transfer(bitmap, [bitmap]) : null
  },
  async small(from, to, widthPx) {
    const pictures = await small(from, to, widthPx)
    return transfer(
      pictures,
      pictures.map(one => one.buffer),
    )
  },
  follow: (from, to, at, told) => follow(from, to, at, told as unknown as Told),
  async changes(from, to, told) {
    const changes: Change[] = []
    let before: Grey | null = null
    for await (const grey of greys(from, to, GREY_WIDTH)) {
      if (before) changes.push(changeBetween(before, grey))
      before = grey
      if (changes.length % 10 === 0) told(changes.length)
    }
    return changes
  },
}
expose(protocol)
