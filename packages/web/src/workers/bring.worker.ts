import {
  assetFault,
  inCountedOrder,
  incomingKind,
  INCOMING_LIMITS,
  incomingSize,
  keptSize,
  type PictureSize,
} from '@unhurried/core/assets'
import { expose, transfer } from 'comlink'
import { unzip, type UnzipFileInfo } from 'fflate'
import type { BringProtocol, Brought, BroughtAll } from '../protocols/bring.ts'
import type { NotBrought, NotIn } from '../words/bringing.ts'

/** Something is wrong with a file: it is told by name, and the others come in all the same. */
class Fault extends Error {
  constructor(readonly why: NotBrought) {
    super(why)
  }
}

const whyOf = (error: unknown): NotBrought => (error instanceof Fault ? error.why : 'broken')
const isTooLarge = ({ widthPx, heightPx }: PictureSize): boolean => widthPx * heightPx > INCOMING_LIMITS.pixels

/** What has to be made smaller than this to be kept is not worth it. */
const SMALLEST_SHARE = 0.05

/** A picture as PNG: painted anew, so that nothing else that was in the file is in it, and smaller until it may be kept. */
async function kept(bitmap: ImageBitmap, name: string, paper: PictureSize, shownMs: number | null): Promise<Brought> {
  const was = { widthPx: bitmap.width, heightPx: bitmap.height }
  if (isTooLarge(was)) throw new Fault('too-many-pixels')
  const first = keptSize(was, paper)
  for (let share = 1; share > SMALLEST_SHARE; share *= 0.8) {
    const size = {
      widthPx: Math.max(1, Math.round(first.widthPx * share)),
      heightPx: Math.max(1, Math.round(first.heightPx * share)),
    }
    const canvas = new OffscreenCanvas(size.widthPx, size.heightPx)
    const brush = canvas.getContext('2d')
    if (!brush) throw new Fault('broken')
    brush.imageSmoothingQuality = 'high'
    brush.drawImage(bitmap, 0, 0, size.widthPx, size.heightPx)
    const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())
    if (assetFault('picture', bytes) === null) return { bytes, name, ...size, was, shownMs }
  }
  throw new Fault('too-many-bytes')
}

/** The one picture of a file. */
async function still(bytes: Uint8Array, kind: string, name: string, paper: PictureSize): Promise<Brought> {
  const bitmap = await createImageBitmap(new Blob([bytes.slice()], { type: `image/${kind}` })).catch(() => {
    throw new Fault('broken')
  })
  try {
    return await kept(bitmap, name, paper, null)
  } finally {
    bitmap.close()
  }
}

/** The pictures of one that moves, each with the time it is shown; a single one like any other. */
async function moving(bytes: Uint8Array, kind: string, name: string, paper: PictureSize): Promise<Brought[]> {
  if (!('ImageDecoder' in self)) return [await still(bytes, kind, name, paper)]
  const decoder = new ImageDecoder({ data: bytes.slice(), type: `image/${kind}` })
  try {
    await decoder.tracks.ready
    const count = decoder.tracks.selectedTrack?.frameCount ?? 1
    if (count > INCOMING_LIMITS.pictures) throw new Fault('too-many-pictures')
    if (count === 1) return [await still(bytes, kind, name, paper)]
    const all: Brought[] = []
    for (let frameIndex = 0; frameIndex < count; frameIndex++) {
      const { image } = await decoder.decode({ frameIndex })
      const bitmap = await createImageBitmap(image)
      const shownMs = image.duration === null ? null : image.duration / 1000
      image.close()
      try {
        all.push(await kept(bitmap, `${name} ${frameIndex + 1}`, paper, shownMs))
      } finally {
        bitmap.close()
      }
    }
    return all
  } catch (error) {
    throw error instanceof Fault ? error : new Fault('broken')
  } finally {
    decoder.close()
  }
}

const MOVES: ReadonlySet<string> = new Set(['gif', 'webp', 'avif', 'png'])

async function one(bytes: Uint8Array, name: string, paper: PictureSize): Promise<Brought[]> {
  const kind = incomingKind(bytes)
  if (!kind || kind === 'zip' || kind === 'svg') throw new Fault('unknown')
  const size = incomingSize(kind, bytes)
  // It is asked before anything of it is decoded: a small file may hold a picture that fills the memory.
  if (!size) throw new Fault('broken')
  if (isTooLarge(size)) throw new Fault('too-many-pixels')
  return MOVES.has(kind) ? moving(bytes, kind, name, paper) : [await still(bytes, kind, name, paper)]
}

/** What is packed in a file, in counted order; refused before it is unpacked where it says that it is too much. */
function packed(bytes: Uint8Array): Promise<[string, Uint8Array][]> {
  let sum = 0
  let count = 0
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (name.endsWith('/') || /(^|\/)(\.|__MACOSX)/.test(name)) return false
    sum += originalSize
    count++
    return sum <= INCOMING_LIMITS.unpackedBytes && originalSize <= INCOMING_LIMITS.bytes
  }
  return new Promise((done, fail) => {
    unzip(bytes, { filter }, (error, files) => {
      if (error) return fail(new Fault('broken'))
      if (count > INCOMING_LIMITS.pictures) return fail(new Fault('too-many-pictures'))
      if (Object.keys(files).length < count) return fail(new Fault('too-many-bytes'))
      done(Object.entries(files).sort(([a], [b]) => inCountedOrder(a, b)))
    })
  })
}

const lastName = (path: string): string => path.split('/').at(-1) ?? path

/** Does something for every file, and tells which could not be read. */
async function each(files: readonly [string, Uint8Array][], paper: PictureSize): Promise<BroughtAll> {
  const pictures: Brought[] = []
  const out: NotIn[] = []
  for (const [path, bytes] of files) {
    try {
      pictures.push(...(await one(bytes, lastName(path), paper)))
      if (pictures.length > INCOMING_LIMITS.pictures) throw new Fault('too-many-pictures')
    } catch (error) {
      out.push({ name: lastName(path), why: whyOf(error) })
    }
  }
  return { pictures: pictures.slice(0, INCOMING_LIMITS.pictures), out }
}

/** What comes of reading something, handed over; what is wrong with it as a whole is told by its name. */
async function handedOver(name: string, read: () => Promise<BroughtAll>): Promise<BroughtAll> {
  try {
    const all = await read()
    return transfer(
      all,
      all.pictures.map(picture => picture.bytes.buffer),
    )
  } catch (error) {
    return { pictures: [], out: [{ name, why: whyOf(error) }] }
  }
}

const protocol: BringProtocol = {
  bring: (file, name, paper) =>
    handedOver(name, async () => {
      if (file.size > INCOMING_LIMITS.bytes) throw new Fault('too-many-bytes')
      const bytes = new Uint8Array(await file.arrayBuffer())
      const files: [string, Uint8Array][] = incomingKind(bytes) === 'zip' ? await packed(bytes) : [[name, bytes]]
      if (file.size === 0 || files.length === 0) throw new Fault('nothing-in-it')
      return each(files, paper)
    }),
  keep: (bitmap, name, paper) =>
    handedOver(name, async () => ({ pictures: [await kept(bitmap, name, paper, null)], out: [] })).finally(() =>
      bitmap.close(),
    ),
}
expose(protocol)
