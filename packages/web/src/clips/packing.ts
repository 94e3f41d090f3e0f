import { wrap } from 'comlink'
import type { ClipPacked, ClipProtocol } from '../protocols/clip.ts'

/** What takes longer than this to be read is let go. */
const DEADLINE_MS = 90_000

/** Reads a file that may be a clip, in a worker of its own that ends with it. */
export async function packClip(file: Blob): Promise<ClipPacked> {
  const worker = new Worker(new URL('../workers/clip.worker.ts', import.meta.url), { type: 'module' })
  let timer: ReturnType<typeof setTimeout> | undefined
  const missing = new Promise<ClipPacked>(done =>
    worker.addEventListener('error', () => done({ ok: false, why: 'no-reader' })),
  )
  const late = new Promise<ClipPacked>(done => {
    timer = setTimeout(() => done({ ok: false, why: 'too-long' }), DEADLINE_MS)
  })
  try {
    return await Promise.race([wrap<ClipProtocol>(worker).pack(file), missing, late])
  } finally {
    clearTimeout(timer)
    worker.terminate()
  }
}
