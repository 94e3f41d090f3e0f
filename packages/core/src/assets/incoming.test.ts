import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { inCountedOrder, incomingKind, incomingSize, INCOMING_LIMITS, keptSize, type Incoming } from './incoming.ts'

const text = (...parts: (string | number[])[]): Uint8Array =>
  Uint8Array.from(parts.flatMap(part => (typeof part === 'string' ? [...part].map(c => c.charCodeAt(0)) : part)))
const be = (n: number, bytes: number): number[] =>
  Array.from({ length: bytes }, (_, i) => (n >> (8 * (bytes - 1 - i))) & 255)
const le = (n: number, bytes: number): number[] => be(n, bytes).reverse()

/** The beginnings of pictures 300 wide and 200 high, as their standards have them. */
const HEADS: Record<Exclude<Incoming, 'svg' | 'zip'>, Uint8Array> = {
  png: text([0x89], 'PNG\r\n\x1a\n', be(13, 4), 'IHDR', be(300, 4), be(200, 4), [8, 6, 0, 0, 0]),
  // An application segment, a table, a restart marker that stands alone, then the frame.
  jpeg: text(
    [0xff, 0xd8, 0xff, 0xe1],
    be(8, 2),
    'Exif\0\0',
    [0xff, 0xc4],
    be(3, 2),
    [0, 0xff, 0xd0, 0xff, 0xff, 0xc2],
    be(17, 2),
    [8],
    be(200, 2),
    be(300, 2),
    [3, 1],
  ),
  webp: text('RIFF', le(100, 4), 'WEBPVP8X', le(10, 4), le(16, 4), le(299, 3), le(199, 3)),
  gif: text('GIF89a', le(300, 2), le(200, 2), [0xf7, 0, 0]),
  avif: text(
    be(28, 4),
    'ftypavif',
    be(0, 4),
    'mif1miaf',
    be(20, 4),
    'ispe',
    be(0, 4),
    be(100, 4),
    be(50, 4),
    be(20, 4),
    'ispe',
    be(0, 4),
    be(300, 4),
    be(200, 4),
  ),
}
const lossy = text(
  'RIFF',
  le(100, 4),
  'WEBPVP8 ',
  le(80, 4),
  [0, 0, 0, 0x9d, 0x01, 0x2a],
  le(300 | 0x4000, 2),
  le(200, 2),
)
const lossless = text('RIFF', le(100, 4), 'WEBPVP8L', le(80, 4), [0x2f], le(299 | (199 << 14), 4), [0, 0, 0, 0, 0])

describe('what is brought in is known by its contents', () => {
  test.each(Object.entries(HEADS))('%s, with the size that its beginning tells', (kind, bytes) => {
    expect(incomingKind(bytes)).toBe(kind)
    expect(incomingSize(kind as Incoming, bytes)).toEqual({ widthPx: 300, heightPx: 200 })
    // In the middle of other bytes it is read as what it is.
    const within = Uint8Array.from([7, 7, ...bytes, 7]).subarray(2, 2 + bytes.length)
    expect(incomingSize(kind as Incoming, within)).toEqual({ widthPx: 300, heightPx: 200 })
  })

  test('the other two forms of WebP', () => {
    for (const bytes of [lossy, lossless]) {
      expect(incomingKind(bytes)).toBe('webp')
      expect(incomingSize('webp', bytes)).toEqual({ widthPx: 300, heightPx: 200 })
    }
  })

  test.each([
    ['<svg xmlns="http://www.w3.org/2000/svg"/>', 'svg'],
    [
      '\xEF\xBB\xBF<?xml version="1.0"?>\n<!-- a lily pad -->\n<!DOCTYPE svg [<!ENTITY a "b">]>\n<svg\nwidth="3">',
      'svg',
    ],
    ['<html><svg></svg></html>', null],
    ['<svgs>', null],
    ['PK\x03\x04', 'zip'],
    ['PK\x05\x06', null],
    ['', null],
    ['RIFF1234WAVEfmt ', null],
    ['%PDF-1.7', null],
  ])('%j is %s', (begins, kind) => expect(incomingKind(text(begins))).toBe(kind))

  test('bytes that were cut off, or are any, never throw, and sizes are above nothing', () => {
    const all = [...Object.values(HEADS), lossy, lossless]
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.nat(40), fc.uint8Array({ maxLength: 40 }), (head, cut, more) => {
        const bytes = Uint8Array.from([...head.subarray(0, cut), ...more])
        const kind = incomingKind(bytes)
        const size = kind && incomingSize(kind, bytes)
        if (size) expect(Math.min(size.widthPx, size.heightPx)).toBeGreaterThan(0)
      }),
      { seed: 11, numRuns: 2000 },
    )
    expect(incomingSize('png', text([0x89], 'PNG\r\n\x1a\n', be(13, 4), 'IHDR', be(0, 4), be(200, 4)))).toBeNull()
  })
})

describe('how large a picture is kept', () => {
  const paper = { widthPx: 1280, heightPx: 720 }
  test('small ones as they are; large ones with six times the pixels of the paper, in their proportion', () => {
    expect(keptSize({ widthPx: 1920, heightPx: 1080 }, paper)).toEqual({ widthPx: 1920, heightPx: 1080 })
    expect(keptSize({ widthPx: 8000, heightPx: 6000 }, paper)).toEqual({ widthPx: 2715, heightPx: 2036 })
    expect(keptSize({ widthPx: 16_000, heightPx: 100 }, paper)).toEqual({ widthPx: 8192, heightPx: 51 })
    expect(keptSize({ widthPx: 60_000, heightPx: 1 }, paper)).toEqual({ widthPx: 8192, heightPx: 1 })
  })

  test('never larger, never beyond the bounds, never nothing', () => {
    const side = fc.integer({ min: 1, max: 60_000 })
    fc.assert(
      fc.property(side, side, fc.integer({ min: 8, max: 4000 }), (widthPx, heightPx, width) => {
        const kept = keptSize({ widthPx, heightPx }, { widthPx: width, heightPx: width })
        expect(kept.widthPx).toBeLessThanOrEqual(widthPx)
        expect(Math.min(kept.widthPx, kept.heightPx)).toBeGreaterThanOrEqual(1)
        expect(Math.max(kept.widthPx, kept.heightPx)).toBeLessThanOrEqual(8192)
      }),
      { seed: 3 },
    )
    expect(INCOMING_LIMITS.pixels).toBeLessThan(100_000_000)
  })
})

test('names are in the order people count in', () => {
  expect(['walk 10.png', 'walk 9.png', 'Walk 1.png', 'walk 02.png'].sort(inCountedOrder)).toEqual([
    'Walk 1.png',
    'walk 02.png',
    'walk 9.png',
    'walk 10.png',
  ])
})
