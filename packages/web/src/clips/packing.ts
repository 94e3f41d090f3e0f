import type { ClipPacked, ClipProtocol, SequencePicture } from '../protocols/clip.ts'
import { inWorker, whyUnanswered } from '../workers/once.ts'

/** What takes longer than this to be read is let go. */
const DEADLINE_MS = 90_000

/** A worker that reads, opens and looks through one clip. */
export const clipWorker = (): Worker =>
  new Worker(new URL('../workers/clip.worker.ts', import.meta.url), { type: 'module' })

/** Reads a file that may be a clip. */
export const packClip = (file: Blob): Promise<ClipPacked> =>
  inWorker<ClipProtocol, ClipPacked>(clipWorker(), DEADLINE_MS, async remote => remote.pack(file)).catch(whyUnanswered)

/** Makes a clip of pictures that follow one another. */
export const packPictures = (pictures: readonly SequencePicture[]): Promise<ClipPacked> =>
  inWorker<ClipProtocol, ClipPacked>(clipWorker(), DEADLINE_MS, async remote => remote.packPictures(pictures)).catch(
    whyUnanswered,
  )
