import { expect, test } from '@jest/globals'
import { coloursApart, plainColour } from './plain.ts'

test.each<[string, number, string | null]>([
  ['black', 1, '#000000'],
  [' #f80 ', 1, '#ff8800'],
  ['rgb(10, 20, 30)', 1, '#0a141e'],
  ['rgba(0,0,0,0.5)', 1, '#808080'],
  ['black', 0.25, '#bfbfbf'],
  ['rgba(0,0,0,0.5)', 0.5, '#bfbfbf'],
  ['hsl(120, 100%, 25%)', 1, '#008000'],
  ['black', 7, '#000000'],
  ['black', 0, null],
  ['black', NaN, null],
  ['transparent', 1, null],
  ['none', 1, null],
  ['url(#a)', 1, null],
  ['', 1, null],
])('%j at %d on white is %s', (text, share, told) => expect(plainColour(text, share, '#ffffff')).toBe(told))

test('how far colours lie apart', () => {
  expect(coloursApart('#000000', '#030400')).toBe(5)
  expect(coloursApart('#102030', '#102030')).toBe(0)
})
