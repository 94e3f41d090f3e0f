import { describe, expect, test } from '@jest/globals'
import { readSettings } from '../src/settings.ts'
import { recentlyUsed } from '../src/services/recentlyUsed.ts'

const DATABASE_URL = 'postgres://app@127.0.0.1:5432/unhurried'

describe('settings', () => {
  test('listen on this machine only unless told otherwise', () => {
    expect(readSettings({ DATABASE_URL })).toMatchObject({ HOST: '127.0.0.1', PORT: 4610, DEMO: false })
    expect(readSettings({ DATABASE_URL, DEMO: '1', PORT: '80' })).toMatchObject({ DEMO: true, PORT: 80 })
  })

  test('all that is wrong is told at once, by name', () => {
    const read = () => readSettings({ PORT: 'many', DATABASE_URL: 'mysql://x', LOG_LEVEL: 'loud' })
    expect(read).toThrow(/PORT: .*DATABASE_URL: must start with postgres:\/\/.*LOG_LEVEL/)
    expect(() => readSettings({})).toThrow('DATABASE_URL')
  })
})

describe('a table of what was used recently', () => {
  test('forgets what was not used for longest', () => {
    const table = recentlyUsed<number>(2)
    table.set('a', 1)
    table.set('b', 2)
    expect(table.get('a')).toBe(1)
    table.set('c', 3)
    expect([table.get('a'), table.get('b'), table.get('c')]).toEqual([1, undefined, 3])
    table.set('a', 4)
    expect(table.get('a')).toBe(4)
  })
})
