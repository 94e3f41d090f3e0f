import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { colourDifference, differenceOfLab } from './difference.ts'

test('differences of colours are those that were published with the formula', () => {
  // Sharma, Wu and Dalal, 2005, table 1: pairs that try each branch of it.
  const pairs: [number, number, number, number, number, number, number][] = [
    [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
    [50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0],
    [50, 0, 0, 50, -1, 2, 2.3669],
    [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
    [50, 2.5, 0, 73, 25, -18, 27.1492],
    [50, 2.5, 0, 50, 3.2592, 0.335, 1.0],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ]
  for (const [l1, a1, b1, l2, a2, b2, de] of pairs) {
    expect(differenceOfLab({ l: l1, a: a1, b: b1 }, { l: l2, a: a2, b: b2 })).toBeCloseTo(de, 4)
  }
})

test('it is the same either way round, and none of a colour with itself', () => {
  const colour = fc.integer({ min: 0, max: 0xffffff }).map(n => `#${n.toString(16).padStart(6, '0')}`)
  fc.assert(
    fc.property(colour, colour, (a, b) => {
      expect(colourDifference(a, b)).toBeCloseTo(colourDifference(b, a), 8)
      expect(colourDifference(a, a)).toBeCloseTo(0, 8)
    }),
  )
})
