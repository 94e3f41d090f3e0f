import { ascii } from './bytes.ts'

/** The size of a picture in its own pixels. */
export interface PictureSize {
  readonly widthPx: number
  readonly heightPx: number
}

/** Something that can be brought in, known by its contents and not by its name. */
interface IncomingKind {
  /** whether bytes begin like it */
  begins(bytes: Uint8Array): boolean
  /** the size that its beginning tells, before anything is decoded; null where it tells none */
  size(bytes: Uint8Array): PictureSize | null
}

const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
const sized = (widthPx: number, heightPx: number): PictureSize | null =>
  widthPx > 0 && heightPx > 0 ? { widthPx, heightPx } : null

/** Markers of a frame's beginning: all C0–CF but tables (C4), a reserved one (C8) and conditioning (CC). */
const isFrame = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc

/** The size in the first frame header of a JPEG (ITU-T T.81, B.2.2). */
function jpegSize(bytes: Uint8Array): PictureSize | null {
  const view = viewOf(bytes)
  for (let at = 2; at + 9 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1] as number
    if (isFrame(marker)) return sized(view.getUint16(at + 7), view.getUint16(at + 5))
    // Fill bytes, and markers that stand alone.
    const isAlone = marker === 0x01 || (marker >= 0xd0 && marker <= 0xd8)
    at += marker === 0xff ? 1 : isAlone ? 2 : 2 + view.getUint16(at + 2)
  }
  return null
}

/** The size of a WebP (RFC 9649, 2): extended, lossless or lossy. */
function webpSize(bytes: Uint8Array): PictureSize | null {
  if (bytes.length < 30) return null
  const view = viewOf(bytes)
  const three = (at: number) => view.getUint16(at, true) + (view.getUint8(at + 2) << 16)
  if (ascii(bytes, 12, 'VP8X')) return sized(three(24) + 1, three(27) + 1)
  if (ascii(bytes, 12, 'VP8L')) {
    const bits = view.getUint32(21, true)
    return sized((bits & 0x3fff) + 1, ((bits >>> 14) & 0x3fff) + 1)
  }
  return ascii(bytes, 12, 'VP8 ') ? sized(view.getUint16(26, true) & 0x3fff, view.getUint16(28, true) & 0x3fff) : null
}

/** How far into an AVIF its properties are looked for. */
const AVIF_HEAD_BYTES = 64 * 1024

/** The largest size among the properties of an AVIF (ISO/IEC 23008-12, 6.5.3: `ispe`). */
function avifSize(bytes: Uint8Array): PictureSize | null {
  const view = viewOf(bytes)
  let found: PictureSize | null = null
  for (let at = 4; at + 16 <= Math.min(bytes.length, AVIF_HEAD_BYTES); at++) {
    if (!ascii(bytes, at, 'ispe')) continue
    const next = sized(view.getUint32(at + 8), view.getUint32(at + 12))
    if (next && (!found || next.widthPx * next.heightPx > found.widthPx * found.heightPx)) found = next
  }
  return found
}

/** How far into a text it is looked for what it is. */
const SVG_HEAD_BYTES = 4096
/** What may stand before the root of an SVG: marks of the encoding, comments, a declaration, a document type. */
const SVG_ROOT = /^(?:\xEF\xBB\xBF)?(?:\s|<\?[^>]*\?>|<!--[\s\S]*?-->|<!DOCTYPE[^>[]*(?:\[[^\]]*\])?[^>]*>)*<svg[\s>]/i

/** The kinds of what can be brought in; a missing one does not compile. */
const INCOMING = {
  png: {
    begins: bytes => bytes[0] === 0x89 && ascii(bytes, 1, 'PNG\r\n\x1a\n'),
    size: bytes => (bytes.length < 24 ? null : sized(viewOf(bytes).getUint32(16), viewOf(bytes).getUint32(20))),
  },
  jpeg: { begins: bytes => bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff, size: jpegSize },
  webp: { begins: bytes => ascii(bytes, 0, 'RIFF') && ascii(bytes, 8, 'WEBP'), size: webpSize },
  gif: {
    begins: bytes => ascii(bytes, 0, 'GIF87a') || ascii(bytes, 0, 'GIF89a'),
    size: bytes =>
      bytes.length < 10 ? null : sized(viewOf(bytes).getUint16(6, true), viewOf(bytes).getUint16(8, true)),
  },
  avif: {
    begins: bytes => ascii(bytes, 4, 'ftyp') && (ascii(bytes, 8, 'avif') || ascii(bytes, 8, 'avis')),
    size: avifSize,
  },
  svg: {
    begins: bytes => SVG_ROOT.test(String.fromCharCode(...bytes.subarray(0, SVG_HEAD_BYTES))),
    size: () => null,
  },
  zip: { begins: bytes => ascii(bytes, 0, 'PK\x03\x04'), size: () => null },
} as const satisfies Record<string, IncomingKind>

export type Incoming = keyof typeof INCOMING

/** What bytes from outside are, by what they begin with; null when they are nothing that can be brought in. */
export const incomingKind = (bytes: Uint8Array): Incoming | null =>
  (Object.keys(INCOMING) as Incoming[]).find(kind => INCOMING[kind].begins(bytes)) ?? null

/** The size that a picture says it has, in pixels, before it is decoded; null where it says none. */
export const incomingSize = (kind: Incoming, bytes: Uint8Array): PictureSize | null => INCOMING[kind].size(bytes)

/** Bounds of what is brought in at once. */
export const INCOMING_LIMITS = {
  /** bytes of a file, and of all that is packed in one */
  bytes: 64 * 1024 * 1024,
  unpackedBytes: 512 * 1024 * 1024,
  /** of a text that is a picture */
  svgBytes: 2 * 1024 * 1024,
  /** pixels of a picture before it is made smaller */
  pixels: 64_000_000,
  /** pictures of one file, or brought in at once */
  pictures: 400,
} as const

/** A picture is kept with so many times the pixels of the paper at most: it may be shown larger, and moved along under it. */
const TIMES_PAPER = 6

/**
 * The size a picture is kept at: its own, or as much smaller as its side (8192 px), and its pixels against those of the paper (six
 * times as many), ask for. Whole pixels, at least one.
 */
export function keptSize({ widthPx, heightPx }: PictureSize, paper: PictureSize): PictureSize {
  const most = TIMES_PAPER * paper.widthPx * paper.heightPx
  const share = Math.min(1, 8192 / widthPx, 8192 / heightPx, Math.sqrt(most / (widthPx * heightPx)))
  const side = (px: number) => Math.max(1, Math.round(px * share))
  return { widthPx: side(widthPx), heightPx: side(heightPx) }
}

/** Names with numbers in the order in which people count: "a2" before "a10". */
export const inCountedOrder = (a: string, b: string): number => COUNTED.compare(a, b)
const COUNTED = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })
