import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { mirroredKey } from './mirrored.ts'

describe('keys under the other hand', () => {
  test.each([
    ['q', 'p'],
    ['s', 'l'],
    ['shift+t', 'shift+y'],
    ['shift+a', ':'],
    [',', 'c'],
    ['ctrl+z', 'ctrl+z'],
    ['?', '?'],
    ['alt+1', 'alt+1'],
    ['space', 'space'],
    ['shift+arrowup', 'shift+arrowup'],
  ])('%s becomes %s', (key, mirrored) => expect(mirroredKey(key)).toBe(mirrored))

  test('mirrored twice a key is itself again, so that no two become one', () => {
    const letters = fc.constantFrom(...'qwertyuiopasdfghjklzxcvbnm', ';', ',', '.', 'escape', '=', '7')
    fc.assert(
      fc.property(letters, fc.boolean(), (key, shift) => {
        const name = shift && /^[a-z]$/.test(key) && key !== 'z' ? `shift+${key}` : key
        expect(mirroredKey(mirroredKey(name))).toBe(name)
      }),
    )
  })
})
