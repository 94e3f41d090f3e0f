import { inCountedOrder, incomingKind, INCOMING_LIMITS, type PictureSize } from '@unhurried/core/assets'
import { transfer, wrap, type Remote } from 'comlink'
import type { BringProtocol, Brought, BroughtAll } from '../protocols/bring.ts'
import type { NotIn } from '../words/bringing.ts'
import { harmless, isTooMuch, parsedText } from './harmless.ts'

/** A file that takes longer than this to be read is let go. */
const DEADLINE_MS = 30_000
const HEAD_BYTES = 64 * 1024

/** Reads files that are brought in, one after the other, in a worker of its own; it lives as long as there are some. */
export async function bringFiles(
  files: readonly File[],
  paper: PictureSize,
  told: (done: number, of: number) => void,
  isWanted: () => boolean,
): Promise<BroughtAll> {
  const pictures: Brought[] = []
  const out: NotIn[] = []
  const inOrder = [...files].sort((a, b) => inCountedOrder(a.name, b.name))
  let reader = startReader()
  for (const [i, file] of inOrder.entries()) {
    if (!isWanted()) break
    told(i, files.length)
    if (pictures.length >= INCOMING_LIMITS.pictures) {
      out.push({ name: file.name, why: 'too-many-pictures' })
      continue
    }
    const read = await Promise.race([inTime(readOne(reader.remote, file, paper)), reader.missing])
    if (read === 'missing') {
      out.push(...inOrder.slice(i).map(({ name }): NotIn => ({ name, why: 'no-reader' })))
      break
    }
    if (read) {
      pictures.push(...read.pictures)
      out.push(...read.out)
    } else {
      // Whatever it does in there, it is ended; the next file gets another reader.
      reader.end()
      reader = startReader()
      out.push({ name: file.name, why: 'too-long' })
    }
  }
  reader.end()
  return { pictures: pictures.slice(0, INCOMING_LIMITS.pictures), out }
}

/** A reader; `missing` when it cannot be had, since nobody answers. */
function startReader(): { remote: Remote<BringProtocol>; missing: Promise<'missing'>; end(): void } {
  const worker = new Worker(new URL('../workers/bring.worker.ts', import.meta.url), { type: 'module' })
  const missing = new Promise<'missing'>(done => worker.addEventListener('error', () => done('missing')))
  return { remote: wrap<BringProtocol>(worker), missing, end: () => worker.terminate() }
}

async function inTime<T>(work: Promise<T>): Promise<T | null> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<null>(done => (timer = setTimeout(() => done(null), DEADLINE_MS)))
  return Promise.race([work, late]).finally(() => clearTimeout(timer))
}

async function readOne(remote: Remote<BringProtocol>, file: File, paper: PictureSize): Promise<BroughtAll> {
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer())
  if (incomingKind(head) !== 'svg') return remote.bring(file, file.name, paper)
  if (file.size > INCOMING_LIMITS.svgBytes) return { pictures: [], out: [{ name: file.name, why: 'too-many-bytes' }] }
  const text = await file.text()
  const why = whyNotShown(text)
  const bitmap = why === null ? await paintedSvg(text, paper).catch(() => null) : null
  if (!bitmap) return { pictures: [], out: [{ name: file.name, why: why ?? 'broken' }] }
  const { pictures, out } = await remote.keep(transfer(bitmap, [bitmap]), file.name, paper)
  return { pictures: pictures.map(picture => ({ ...picture, text })), out }
}

/** Why a drawn text is not even shown; null where it is. */
function whyNotShown(text: string): 'broken' | 'too-much-drawn' | null {
  try {
    return isTooMuch(parsedText(text)) ? 'too-much-drawn' : null
  } catch {
    return 'broken'
  }
}

/**
 * A drawn text painted as a picture, as large as it says or as the paper: shown as an image nothing in it runs, and nothing is fetched from
 * elsewhere. Rejects what cannot be read.
 */
async function paintedSvg(text: string, paper: PictureSize): Promise<ImageBitmap> {
  const url = URL.createObjectURL(new Blob([harmless(text)], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const [own, high] = [image.naturalWidth || paper.widthPx, image.naturalHeight || paper.heightPx]
    const share = Math.min(paper.widthPx / own, paper.heightPx / high)
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(own * share)), Math.max(1, Math.round(high * share)))
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
    return canvas.transferToImageBitmap()
  } finally {
    URL.revokeObjectURL(url)
  }
}
