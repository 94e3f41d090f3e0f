import { expect, test } from '@jest/globals'
import { sampleDrawing } from '../../../../../core/src/document/tests/sample.ts'
import { sceneGhosts } from './sceneGhosts.ts'

test('what shows through is painted farthest first, weaker with distance and by its layer’s share', () => {
  const drawing = sampleDrawing('a', 1)
  const ghosts = sceneGhosts(
    [
      { drawing: 'other', side: 'past', rank: 0, frame: 0, share: 0.5 },
      { drawing: 'near', side: 'past', rank: 0, frame: 0, share: 1 },
      { drawing: 'far', side: 'past', rank: 1, frame: 0, share: 1 },
      { drawing: 'gone', side: 'future', rank: 0, frame: 0, share: 1 },
      { drawing: 'next', side: 'future', rank: 0, frame: 0, share: 1 },
    ],
    id => (id === 'gone' ? null : { ...drawing, id }),
    { strength: 0.5, past: '#111111', future: '#222222', lines: false },
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

test('a past drawing shows its full lines over a light wash of itself, unless the wash alone is wanted', () => {
  const drawing = sampleDrawing('a', 1)
  const [wash, lines] = sceneGhosts([{ drawing: 'a', side: 'past', rank: 0, frame: 0, share: 1 }], () => drawing, {
    strength: 0.5,
    past: '#111111',
    future: '#222222',
    lines: true,
  })
  expect([wash?.look.kind, lines?.look.kind]).toEqual(['wash', 'lines'])
  expect(wash?.opacity).toBeLessThan((lines?.opacity ?? 0) / 2)
})
