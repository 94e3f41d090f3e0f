import { describe, expect, test } from '@jest/globals'
import { coloursOf } from './colours.ts'
import { colouredBy, isPlain, lookInWords, lookOf, KeptLooks, nextLook, PLAINLY, withLook } from './looks.ts'

describe('how layers are looked at', () => {
  test('one press dims, the next hides, the next shows again', () => {
    let look = PLAINLY
    const seen = [0, 1, 2].map(() => lookInWords((look = { ...look, ...nextLook(look) })))
    expect(seen).toEqual(['at 30 %', 'hidden', 'shown'])
    expect(isPlain(look)).toBe(true)
  })

  test('a layer seen plainly has no look of its own', () => {
    const looks = withLook(withLook({}, 'bag', { opacity: 0.5 }), 'bag', { tint: '#5b7f95' })
    expect(lookInWords(lookOf(looks, 'bag'))).toBe('at 50 %, tinted')
    expect(withLook(looks, 'bag', PLAINLY)).toEqual({})
    expect(lookOf(looks, 'other')).toBe(PLAINLY)
  })

  test('what was kept is read, words of earlier evenings too, and nonsense is not', () => {
    expect(
      KeptLooks.parse({
        a: 'hidden',
        b: 'dimmed',
        c: { hidden: false, opacity: 0.4, tint: '#AA0000' },
        d: { opacity: 7, tint: 'red; background: url(x)' },
        e: null,
        f: 'upside down',
      }),
    ).toEqual({
      a: { hidden: true, opacity: 1, tint: null },
      b: { hidden: false, opacity: 0.3, tint: null },
      c: { hidden: false, opacity: 0.4, tint: '#AA0000' },
    })
    expect([KeptLooks.parse(null), KeptLooks.parse('x')]).toEqual([{}, {}])
  })

  test('a tint lies over three quarters of a colour, and the same colours come out for the same tint', () => {
    const plain = coloursOf({ ink: { id: 'ink', name: 'ink', colour: '#000000', order: 0 } }, false)
    const blue = colouredBy(plain, '#4080ff')
    // 0 + 0.75 · (64, 128, 255) = 48, 96, 191.25
    expect(blue({ swatch: 'ink', label: null })).toBe('#3060bf')
    expect(colouredBy(plain, '#4080ff')).toBe(blue)
    expect(colouredBy(plain, null)).toBe(plain)
  })
})
