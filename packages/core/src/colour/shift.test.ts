import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { lightnessOf, shifted, UNSHIFTED } from './shift.ts'

const colour = fc.integer({ min: 0, max: 0xffffff }).map(n => `#${n.toString(16).padStart(6, '0')}`)
const channels = (hex: string) => [1, 3, 5].map(i => parseInt(hex.slice(i, i + 2), 16))

describe('colours shifted together', () => {
  test('not shifted, each is what it was', () => {
    fc.assert(fc.property(colour, hex => expect(shifted(hex, UNSHIFTED)).toBe(hex)))
  })
  test('whatever the shift, a colour comes of it, and a grey stays a grey', () => {
    fc.assert(
      fc.property(
        colour,
        fc.double({ min: -60, max: 60, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (hex, by, hueDeg) => expect(shifted(hex, { lightness: by, chroma: by, hueDeg })).toMatch(/^#[0-9a-f]{6}$/),
      ),
    )
    for (const grey of ['#000000', '#808080', '#ffffff']) {
      const [r, g, b] = channels(shifted(grey, { lightness: 12, chroma: 40, hueDeg: 90 })) as [number, number, number]
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThanOrEqual(1)
    }
  })
  test('lightness is what is asked for, where a screen has it', () => {
    // L* of the middle grey #777777 is 50.03 (CIE 15:2004, with the sRGB transfer curve of IEC 61966-2-1).
    expect(lightnessOf('#777777')).toBeCloseTo(50.0, 0)
    expect(lightnessOf('#ffffff')).toBeCloseTo(100, 6)
    expect(lightnessOf(shifted('#6a7f55', { ...UNSHIFTED, lightness: 10 }))).toBeCloseTo(lightnessOf('#6a7f55') + 10, 0)
  })
  test('round by half the circle a green is a purple, as light as before', () => {
    const [r, g, b] = channels(shifted('#6a7f55', { ...UNSHIFTED, hueDeg: 180 })) as [number, number, number]
    expect(g).toBeLessThan(r)
    expect(g).toBeLessThan(b)
    expect(lightnessOf(shifted('#6a7f55', { ...UNSHIFTED, hueDeg: 180 }))).toBeCloseTo(lightnessOf('#6a7f55'), 0)
  })
})
