import { expect, test } from '@jest/globals'
import { nameOfSequence } from './oneLine.ts'

test.each<[string[], string]>([
  [['dusk.gif 1', 'dusk.gif 2', 'dusk.gif 11'], 'dusk'],
  [['reeds_0009.png', 'reeds_0010.png'], 'reeds'],
  [['walk 10.png', 'walk 11.png', 'walk 12.png'], 'walk'],
  [['heron.png'], 'heron'],
  [['0001.png', '0002.png'], 'pictures'],
  [['a.png', 'b.png'], 'pictures'],
  [[], 'pictures'],
])('%j are called %s', (names, called) => expect(nameOfSequence(names, 'pictures')).toBe(called))
