import { wrap, type Remote } from 'comlink'
import type { OpenedSound, SoundProtocol, SoundRead } from '../protocols/sound.ts'

/** What takes longer than this is let go: a recording of the longest length takes a few seconds. */
const DEADLINE_MS = 60_000

const TOO_LONG = Symbol('too long')

/** Does one thing in a worker of its own, which ends with it; null when it takes too long, or nobody can be had to do it. */
async function inWorker<T>(work: (remote: Remote<SoundProtocol>) => Promise<T>): Promise<T | typeof TOO_LONG | null> {
  const worker = new Worker(new URL('../workers/sound.worker.ts', import.meta.url), { type: 'module' })
  let timer: ReturnType<typeof setTimeout> | undefined
  const missing = new Promise<null>(done => worker.addEventListener('error', () => done(null)))
  const late = new Promise<typeof TOO_LONG>(done => (timer = setTimeout(() => done(TOO_LONG), DEADLINE_MS)))
  try {
    return await Promise.race([work(wrap<SoundProtocol>(worker)), missing, late])
  } finally {
    clearTimeout(timer)
    worker.terminate()
  }
}

/** Reads a file that may be a recording. */
export async function readSound(file: Blob): Promise<SoundRead> {
  const read = await inWorker(async (remote): Promise<SoundRead> => remote.read(file))
  if (read === TOO_LONG) return { ok: false, why: 'too-long' }
  return read ?? { ok: false, why: 'no-reader' }
}

/** Unpacks a kept recording; null when it cannot be read here. */
export async function openSound(bytes: Uint8Array): Promise<OpenedSound | null> {
  const opened = await inWorker(remote => remote.open(bytes)).catch(() => null)
  return opened === TOO_LONG ? null : opened
}

/** A recording at its pitch, so many times as long; null when that cannot be had. */
export async function stretchSound(
  channels: readonly Float32Array[],
  rate: number,
  factor: number,
): Promise<Float32Array[] | null> {
  const longer = await inWorker(remote => remote.stretch(channels, rate, factor)).catch(() => null)
  return longer === TOO_LONG ? null : longer
}
