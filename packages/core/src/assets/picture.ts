import type { AssetKind } from './asset.ts'

/** A side of a picture has at most so many pixels. */
export const MOST_PICTURE_PX = 16_384

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
const HEADER = [0x49, 0x48, 0x44, 0x52]
const END = [0x49, 0x45, 0x4e, 0x44]
/** bytes of a chunk besides its contents: length, name, check sum */
const AROUND = 12

const holds = (bytes: Uint8Array, at: number, wanted: readonly number[]): boolean =>
  wanted.every((byte, i) => bytes[at + i] === byte)

/** The size of a PNG picture in pixels, read from its beginning (Portable Network Graphics, third edition, 11.2.1); null when it is none. */
export function pngSize(bytes: Uint8Array): { widthPx: number; heightPx: number } | null {
  if (bytes.length < 24 || !holds(bytes, 0, SIGNATURE) || !holds(bytes, 12, HEADER)) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset)
  return { widthPx: view.getUint32(16), heightPx: view.getUint32(20) }
}

const isSide = (px: number): boolean => px >= 1 && px <= MOST_PICTURE_PX

/** Whether chunks follow one another up to the end, which is the last. */
function isWhole(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let at = SIGNATURE.length; at + AROUND <= bytes.length;) {
    const next = at + AROUND + view.getUint32(at)
    if (holds(bytes, at + 4, END)) return next === bytes.length
    at = next
  }
  return false
}

/** Pictures as they are stored, whatever they were brought in as: PNG. */
export const PICTURE_ASSET: AssetKind = {
  mostBytes: 4 * 1024 * 1024,
  fault(bytes) {
    const size = pngSize(bytes)
    if (!size) return 'not-a-picture'
    if (!isSide(size.widthPx) || !isSide(size.heightPx)) return 'too-large'
    return isWhole(bytes) ? null : 'cut-short'
  },
}
