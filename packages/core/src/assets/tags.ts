import { ascii } from './bytes.ts'

/** A number of four times seven bits, as ID3 has it. */
const sevens = (bytes: Uint8Array, at: number): number =>
  [0, 1, 2, 3].reduce((sum, i) => sum * 128 + ((bytes[at + i] ?? 0) & 0x7f), 0)

const view = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

const ID3_HEAD = 10
const ID3_TAIL = 128
const APE_FOOT = 32

/** MPEG audio without what is told about it before and behind (ID3 v2 and v1, APE). What the frames say of their own edges stays. */
function mp3WithoutTags(bytes: Uint8Array): Uint8Array {
  let [from, to] = [0, bytes.length]
  while (ascii(bytes, from, 'ID3') && from + ID3_HEAD <= to) {
    const hasFoot = ((bytes[from + 5] ?? 0) & 0x10) !== 0
    from += ID3_HEAD + sevens(bytes, from + 6) + (hasFoot ? ID3_HEAD : 0)
  }
  if (to - from > ID3_TAIL && ascii(bytes, to - ID3_TAIL, 'TAG')) to -= ID3_TAIL
  if (to - from > APE_FOOT && ascii(bytes, to - APE_FOOT, 'APETAGEX')) {
    const size = view(bytes).getUint32(to - APE_FOOT + 12, true)
    const hasHead = (view(bytes).getUint32(to - APE_FOOT + 20, true) & 0x80000000) !== 0
    to -= Math.min(to - from, size + (hasHead ? APE_FOOT : 0))
  }
  return bytes.slice(Math.min(from, to), to)
}

/** Kinds of blocks of a FLAC that belong to the sound: what it is, and where to go in it (RFC 9639, 8.1). */
const FLAC_KEPT: ReadonlySet<number> = new Set([0, 3])

/** FLAC with no blocks but those that belong to the sound; null where they do not end. */
function flacWithoutTags(bytes: Uint8Array): Uint8Array | null {
  const kept: Uint8Array[] = []
  let at = 4
  for (let isLast = false; !isLast;) {
    const head = bytes[at]
    if (head === undefined || at + 4 > bytes.length) return null
    const length = view(bytes).getUint32(at) & 0xffffff
    isLast = (head & 0x80) !== 0
    const block = bytes.slice(at, at + 4 + length)
    if (FLAC_KEPT.has(head & 0x7f)) kept.push(block)
    at += 4 + length
  }
  if (kept.length === 0) return null
  kept.forEach((block, i) => (block[0] = ((block[0] ?? 0) & 0x7f) | (i === kept.length - 1 ? 0x80 : 0)))
  const parts = [bytes.slice(0, 4), ...kept, bytes.slice(Math.min(at, bytes.length))]
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0))
  let to = 0
  for (const part of parts) {
    all.set(part, to)
    to += part.length
  }
  return all
}

/** The check sum of an Ogg page, its own place taken as 0 (RFC 3533, 6). */
function oggSum(page: Uint8Array): number {
  let sum = 0
  for (const [i, byte] of page.entries()) {
    sum ^= (i >= SUM_AT && i < SUM_AT + 4 ? 0 : byte) << 24
    for (let bit = 0; bit < 8; bit++) sum = sum & 0x80000000 ? (sum << 1) ^ 0x04c11db7 : sum << 1
  }
  return sum >>> 0
}
const OGG_HEAD = 27
const SUM_AT = 22
const SPACE = 0x20
/** What the packets of comments begin with: Vorbis, Opus. */
const COMMENTS = ['\x03vorbis', 'OpusTags'] as const
/** Comments lie at the front; farther in they are not looked for. */
const MOST_PAGES = 2000

/** Ogg whose comments say nothing any more: as long as they were, and blank; null where its pages cannot be followed. */
function oggWithoutTags(from: Uint8Array): Uint8Array | null {
  const bytes = from.slice()
  // What is left to be blanked of the comments, as soon as they have begun; how the rest of a length goes over an edge of pages is kept.
  let blank: ((packet: Uint8Array) => void) | null = null
  for (let at = 0, pages = 0; at < bytes.length && pages < MOST_PAGES; pages++) {
    if (!ascii(bytes, at, 'OggS') || at + OGG_HEAD > bytes.length) return null
    const count = bytes[at + 26] as number
    const lacing = bytes.subarray(at + OGG_HEAD, at + OGG_HEAD + count)
    const body = at + OGG_HEAD + count
    const end = body + lacing.reduce((sum, length) => sum + length, 0)
    if (end > bytes.length) return null
    const isTouched = blankIn(bytes, body, lacing, blank, next => (blank = next))
    if (isTouched) view(bytes).setUint32(at + SUM_AT, oggSum(bytes.subarray(at, end)), true)
    at = end
    if (pages > 0 && blank === null && isTouched) break
  }
  return bytes
}

/** Blanks what of the comments lies in a page, packet by packet. Answers whether there was any. */
function blankIn(
  bytes: Uint8Array,
  body: number,
  lacing: Uint8Array,
  blank: ((packet: Uint8Array) => void) | null,
  set: (next: ((packet: Uint8Array) => void) | null) => void,
): boolean {
  let isTouched = false
  let now = blank
  let at = body
  let start = body
  for (const [i, length] of lacing.entries()) {
    at += length
    const isEnd = length < 255
    if (!isEnd && i < lacing.length - 1) continue
    const packet = bytes.subarray(start, at)
    const begins = now === null ? COMMENTS.find(word => ascii(packet, 0, word)) : undefined
    if (begins !== undefined) now = blanker(begins.length)
    if (now) {
      now(packet)
      isTouched = true
    }
    if (isEnd) now = null
    start = at
  }
  set(now)
  return isTouched
}

/** Blanks the texts of a packet of comments that comes in pieces, and leaves their lengths: the maker first, then each comment. */
function blanker(headBytes: number): (piece: Uint8Array) => void {
  let skip = headBytes
  let text = 0
  let number: number[] = []
  let texts = 0
  let left = Infinity
  return piece => {
    for (let i = 0; i < piece.length; i++) {
      if (skip > 0) skip--
      else if (text > 0) {
        piece[i] = SPACE
        text--
      } else if (left > 0) {
        number.push(piece[i] as number)
        if (number.length < 4) continue
        const value = number.reduce((sum, byte, k) => sum + byte * 256 ** k, 0)
        number = []
        // The maker's name, how many comments there are, and they themselves.
        if (texts === 1) left = value
        else text = value
        if (texts > 1) left--
        texts++
      }
    }
  }
}

/**
 * A recording without what is told about it in its file: names, places, devices, pictures. What is heard stays as it is, to the bit. Null where the
 * file is cut off or broken. Forms that are packed anew as a whole need it not.
 */
export function withoutTags(form: 'mp3' | 'flac' | 'ogg', bytes: Uint8Array): Uint8Array | null {
  if (form === 'mp3') return mp3WithoutTags(bytes)
  return form === 'flac' ? flacWithoutTags(bytes) : oggWithoutTags(bytes)
}
