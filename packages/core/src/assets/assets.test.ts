import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { packSamples } from '../geometry/samples.ts'
import { assetFault, ASSET_KINDS, pngSize } from './index.ts'

/** A chunk of a PNG: its length, name, contents, and a check sum that nobody here asks for. */
const chunk = (name: string, contents: readonly number[]): number[] => [
  ...[24, 16, 8, 0].map(shift => (contents.length >> shift) & 255),
  ...[...name].map(letter => letter.charCodeAt(0)),
  ...contents,
  ...[0, 0, 0, 0],
]
const four = (n: number): number[] => [24, 16, 8, 0].map(shift => (n >>> shift) & 255)
const png = (width: number, height: number, ...more: number[][]): Uint8Array =>
  Uint8Array.from([
    ...[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
    ...chunk('IHDR', [...four(width), ...four(height), 8, 6, 0, 0, 0]),
    ...more.flat(),
  ])
const WHOLE = png(640, 480, chunk('IDAT', [1, 2, 3]), chunk('IEND', []))

describe('stored things', () => {
  test('a picture is a whole PNG of a bounded size', () => {
    expect(pngSize(WHOLE)).toEqual({ widthPx: 640, heightPx: 480 })
    expect(assetFault('picture', WHOLE)).toBeNull()
    expect(assetFault('picture', png(16_385, 1, chunk('IEND', [])))).toBe('too-large')
    expect(assetFault('picture', png(0, 1, chunk('IEND', [])))).toBe('too-large')
    expect(assetFault('picture', Uint8Array.from([...WHOLE, 0]))).toBe('cut-short')
    expect(assetFault('picture', new Uint8Array(ASSET_KINDS.picture.mostBytes + 1))).toBe('too-large')
    // A view into the middle of other bytes is read as what it is.
    const within = Uint8Array.from([9, 9, 9, ...WHOLE, 9]).subarray(3, 3 + WHOLE.length)
    expect([pngSize(within), assetFault('picture', within)]).toEqual([{ widthPx: 640, heightPx: 480 }, null])
  })

  test('nothing that was cut off is one', () => {
    fc.assert(
      fc.property(fc.nat(WHOLE.length - 1), length => {
        expect(assetFault('picture', WHOLE.subarray(0, length))).not.toBeNull()
      }),
    )
  })

  test('of any bytes each kind says that they are one or what is wrong, and never throws', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), fc.boolean(), (bytes, begins) => {
        const some = begins ? Uint8Array.from([...WHOLE.subarray(0, 24), ...bytes]) : bytes
        for (const kind of ['samples', 'picture'] as const) {
          const fault = assetFault(kind, some)
          expect(fault === null || fault.length > 0).toBe(true)
        }
      }),
    )
    expect(assetFault('samples', packSamples([{ x: 1, y: 2, pressure: 0.5 }]))).toBeNull()
    expect(assetFault('samples', WHOLE)).toBe('unknown-version')
  })
})
