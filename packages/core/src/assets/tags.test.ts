import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { mediaForm } from './media.ts'
import { withoutTags } from './tags.ts'

const bytes = (...parts: (string | readonly number[] | Uint8Array)[]): Uint8Array =>
  Uint8Array.from(parts.flatMap(part => (typeof part === 'string' ? [...part].map(c => c.charCodeAt(0)) : [...part])))
const text = (all: Uint8Array) => String.fromCharCode(...all)
const le = (n: number): number[] => [n & 255, (n >> 8) & 255, (n >> 16) & 255, n >>> 24]
const SECRET = 'lily pad 7, N 52.5'
const FRAME = [0xff, 0xfb, 0x90, 0x64, 1, 2, 3, 4]

describe('what is told about a recording in its file', () => {
  test('is taken off MPEG audio before and behind, and the frames stay to the bit', () => {
    const id3 = bytes('ID3', [4, 0, 0, 0, 0, 0, SECRET.length], SECRET)
    const id3v1 = bytes('TAG', SECRET, new Uint8Array(125 - SECRET.length))
    const ape = bytes(
      'APETAGEX',
      le(2000),
      le(SECRET.length + 32),
      le(1),
      le(0xa0000000),
      new Uint8Array(8),
      SECRET,
      'APETAGEX',
      le(2000),
      le(SECRET.length + 32),
      le(1),
      le(0x80000000),
      new Uint8Array(8),
    )
    expect(withoutTags('mp3', bytes(id3, id3, FRAME))).toEqual(bytes(FRAME))
    expect(withoutTags('mp3', bytes(FRAME, ape, id3v1))).toEqual(bytes(FRAME))
    expect(withoutTags('mp3', bytes(FRAME, id3v1))).toEqual(bytes(FRAME))
    expect(withoutTags('mp3', bytes(FRAME))).toEqual(bytes(FRAME))
    // A head that promises more than there is leaves nothing.
    expect(withoutTags('mp3', bytes('ID3', [4, 0, 0, 9, 9, 9, 9], FRAME))).toEqual(bytes())
  })

  test('is taken out of FLAC with its blocks; the one that says what it is stays, and is the last', () => {
    const block = (type: number, body: Uint8Array, isLast = false) =>
      bytes([type | (isLast ? 0x80 : 0), 0, 0, body.length], body)
    const stream = bytes(new Uint8Array(34).fill(7))
    const whole = bytes(
      'fLaC',
      block(0, stream),
      block(4, bytes(SECRET)),
      block(3, bytes('seek')),
      block(6, bytes(SECRET), true),
      FRAME,
    )
    expect(withoutTags('flac', whole)).toEqual(bytes('fLaC', block(0, stream), block(3, bytes('seek'), true), FRAME))
    expect(withoutTags('flac', bytes('fLaC', block(0, stream)))).toBeNull()
    expect(withoutTags('flac', bytes('fLaC', block(4, bytes(SECRET), true)))).toBeNull()
  })

  /** A page as an encoder wrote it: the head of a Vorbis stream, 44,100 samples a second, with its check sum. */
  const HEAD = Uint8Array.from(
    (
      '4f67675300020000000000000000475a37c6000000004b81b8b6011e01766f72626973000000000144ac0000000000008038010000000000b801'.match(
        /../g,
      ) ?? []
    ).map(pair => Number.parseInt(pair, 16)),
  )
  /** A page with a check sum that is not right yet. */
  const page = (flags: number, lacing: readonly number[], body: Uint8Array) =>
    bytes('OggS', [0, flags], new Uint8Array(8), le(1), le(1), le(0), [lacing.length], lacing, body)
  const sumOf = (all: Uint8Array, at: number) => new DataView(all.buffer, all.byteOffset).getUint32(at + 22, true)
  /** The check sum again, by a table and from the page without its own. */
  function summed(all: Uint8Array): number {
    const table = Array.from({ length: 256 }, (_, i) => {
      let r = i * 2 ** 24
      for (let k = 0; k < 8; k++) r = r >= 2 ** 31 ? (((r * 2) % 2 ** 32) ^ 0x04c11db7) >>> 0 : r * 2
      return r
    })
    return all.reduce((sum, byte, i) => {
      const value = i >= 22 && i < 26 ? 0 : byte
      return (((sum << 8) >>> 0) ^ (table[((sum >>> 24) ^ value) & 255] as number)) >>> 0
    }, 0)
  }

  test('is blanked in Ogg, over the edges of pages, with the lengths as they were and the sums right', () => {
    expect(summed(HEAD)).toBe(sumOf(HEAD, 0))
    const comment = `PLACE=${SECRET.repeat(20)}`
    const packet = bytes('\x03vorbis', le(5), 'maker', le(2), le(comment.length), comment, le(6), 'A=bcde', [1])
    const cut = 255
    const [first, second] = [packet.subarray(0, cut), packet.subarray(cut)]
    const setup = bytes('\x05vorbis', SECRET)
    const whole = bytes(
      HEAD,
      page(0, [255], first),
      page(1, [second.length, setup.length], bytes(second, setup)),
      page(0, [5], bytes('audio')),
    )
    const blank = withoutTags('ogg', whole) as Uint8Array
    expect(blank).toHaveLength(whole.length)
    expect(text(blank)).not.toContain('PLACE')
    expect(text(blank)).not.toContain('maker')
    expect(text(blank)).not.toContain('bcde')
    // The packet behind belongs to the sound, whatever it says.
    expect(text(blank).split(SECRET)).toHaveLength(2)
    expect(blank.subarray(0, HEAD.length)).toEqual(HEAD)
    const at = HEAD.length
    expect(sumOf(blank, at)).toBe(summed(blank.subarray(at, at + 28 + cut)))
    const next = at + 28 + cut
    const length = 29 + second.length + setup.length
    expect(sumOf(blank, next)).toBe(summed(blank.subarray(next, next + length)))
    // What is not touched keeps the sum it came with.
    expect(sumOf(blank, next + length)).toBe(0)
    // Lengths stand where they stood.
    expect(blank.subarray(at + 28, at + 28 + 11)).toEqual(bytes('\x03vorbis', le(5)))
    expect(text(blank.subarray(at + 28 + 11, at + 28 + 16))).toBe('     ')
  })

  test('is blanked in Opus alike; pages that cannot be followed are no recording', () => {
    // What lies behind the last comment is no comment.
    const tags = bytes('OpusTags', le(4), 'made', le(1), le(SECRET.length), SECRET, le(4), 'kept')
    const whole = bytes(page(2, [8], bytes('OpusHead')), page(0, [tags.length], tags))
    expect(text(withoutTags('ogg', whole) as Uint8Array)).not.toContain(SECRET)
    expect(text(withoutTags('ogg', whole) as Uint8Array)).toContain('kept')
    expect(withoutTags('ogg', bytes('OggS', [0]))).toBeNull()
    expect(withoutTags('ogg', whole.subarray(0, whole.length - 3))).toBeNull()
    expect(withoutTags('ogg', bytes(whole, 'what is this?'))).not.toBeUndefined()
  })

  test('whatever comes, it is answered, and never with more than came', () => {
    const begins = [bytes('ID3'), bytes('fLaC'), bytes('OggS'), HEAD, bytes(FRAME)]
    fc.assert(
      fc.property(fc.constantFrom(...begins), fc.uint8Array({ maxLength: 300 }), (begin, more) => {
        const all = bytes(begin, more)
        const form = mediaForm(all)
        if (form !== 'mp3' && form !== 'flac' && form !== 'ogg') return
        expect(withoutTags(form, all)?.length ?? 0).toBeLessThanOrEqual(all.length)
      }),
      { seed: 9, numRuns: 500 },
    )
  })
})
