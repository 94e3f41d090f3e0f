import { describe, expect, test } from '@jest/globals'
import { sampleDrawing } from '../../../core/src/document/tests/sample.ts'
import { coloursOf } from './colours.ts'
import { colouredBy, isPlain, lookInWords, lookOf, looksFrom, nextLook, PLAINLY, withLook } from './looks.ts'
import { sceneGhosts } from './sceneGhosts.ts'

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
      looksFrom({
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
    expect([looksFrom(null), looksFrom('x')]).toEqual([{}, {}])
  })

  test('a tint lies over three quarters of a colour, and the same colours come out for the same tint', () => {
    const plain = coloursOf({ ink: { id: 'ink', name: 'ink', colour: '#000000' } }, false)
    const blue = colouredBy(plain, '#4080ff')
    // 0 + 0.75 · (64, 128, 255) = 48, 96, 191.25
    expect(blue({ swatch: 'ink', label: null })).toBe('#3060bf')
    expect(colouredBy(plain, '#4080ff')).toBe(blue)
    expect(colouredBy(plain, null)).toBe(plain)
  })
})

test('what shows through is painted farthest first, weaker with distance and by its layer’s share', () => {
  const drawing = sampleDrawing('a', 1)
  const ghosts = sceneGhosts(
    [
      { drawing: 'other', side: 'past', rank: 0, share: 0.5 },
      { drawing: 'near', side: 'past', rank: 0, share: 1 },
      { drawing: 'far', side: 'past', rank: 1, share: 1 },
      { drawing: 'gone', side: 'future', rank: 0, share: 1 },
      { drawing: 'next', side: 'future', rank: 0, share: 1 },
    ],
    id => (id === 'gone' ? null : { ...drawing, id }),
    { strength: 0.5, past: '#111111', future: '#222222' },
  )
  expect(ghosts.map(({ drawing: { id }, look }) => [id, look.kind])).toEqual([
    ['next', 'hollow'],
    ['far', 'wash'],
    ['near', 'wash'],
    ['other', 'wash'],
  ])
  // 0.5 · 1.5; 0.5 · 0.62 · 0.8; 0.5 · 0.8; 0.5 · 0.5 · 0.8
  const expected = [0.75, 0.248, 0.4, 0.2]
  ghosts.forEach(({ opacity }, i) => expect(opacity).toBeCloseTo(expected[i] as number, 10))
})
