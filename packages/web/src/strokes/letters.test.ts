import { describe, expect, test } from '@jest/globals'
import { boxOf, insidePolygon } from '@unhurried/core/geometry'
import { FRESH_LETTERS, Letters, shapeLetters, type LetterSettings } from './letters.ts'
import { bookFont } from './tests/fonts.ts'

const font = bookFont()
const shaped = (wish: Partial<LetterSettings>) => shapeLetters(font, { ...FRESH_LETTERS, sizePx: 100, ...wish })
const box = (wish: Partial<LetterSettings>) => boxOf(shaped(wish).paths.flat())

describe('letters from a typeface', () => {
  test('are painted piece by piece, with their holes', () => {
    expect(['o', 'i', 'B', 'The'].map(text => shaped({ text }).paths.length)).toEqual([1, 2, 1, 3])
    const o = shaped({ text: 'o' }).paths[0] ?? []
    // The middle of an o is a hole: by the cut it is outside the path.
    expect(insidePolygon({ x: 0, y: 0 }, o)).toBe(false)
  })

  test('or are lines round their outlines, holes too', () => {
    const lines = shaped({ text: 'oi', outlined: true }).paths
    expect(lines).toHaveLength(4)
    for (const line of lines) expect(line[0]).toEqual(line.at(-1))
  })

  test('lie around their middle, as large as they are asked for, apart and below each other', () => {
    const plain = box({ text: 'marsh' })
    expect(plain.left + plain.right).toBeCloseTo(0)
    expect(plain.top + plain.bottom).toBeCloseTo(0)
    const twice = box({ text: 'marsh', sizePx: 200 })
    expect((twice.right - twice.left) / (plain.right - plain.left)).toBeCloseTo(2, 1)
    // Four gaps of a tenth of 100 px.
    const apart = box({ text: 'marsh', spacing: 0.1 })
    expect(apart.right - apart.left - (plain.right - plain.left)).toBeCloseTo(40, 0)
    const [one, two] = [box({ text: 'm' }), box({ text: 'm\nm' })]
    expect(two.bottom - two.top - (one.bottom - one.top)).toBeCloseTo(125, 3)
  })

  test('that the typeface does not have are told, each once', () => {
    expect(shaped({ text: '漢 a漢 字' }).missing).toEqual(['漢', '字'])
    expect([shaped({ text: '' }), shaped({ text: ' \n ' })]).toEqual([
      { paths: [], missing: [] },
      { paths: [], missing: [] },
    ])
  })

  test('are kept from one evening to the next; what cannot be read is fresh', () => {
    const kept: LetterSettings = { text: 'Ripples', face: 'plain-bold', sizePx: 40, spacing: 0.2, outlined: true }
    expect(Letters.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept)
    expect(Letters.parse({ face: 'fancy', sizePx: 1e9, spacing: 'wide', outlined: 'yes' })).toEqual(FRESH_LETTERS)
    expect(Letters.parse({})).toEqual(FRESH_LETTERS)
    expect(Letters.parse({ text: 'x'.repeat(900) }).text).toHaveLength(200)
  })
})
