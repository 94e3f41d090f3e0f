import { describe, expect, test } from '@jest/globals'
import { readSettings } from '../src/settings.ts'

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

  test('a public address is taken with a slash at its end and without, and is nothing more than an address', () => {
    const read = (PUBLIC_ORIGIN: string) => readSettings({ DATABASE_URL, PUBLIC_ORIGIN }).PUBLIC_ORIGIN
    expect([read('https://Desk.example/'), read('https://desk.example:8443')]).toEqual([
      'https://desk.example',
      'https://desk.example:8443',
    ])
    for (const wrong of ['desk.example', 'https://desk.example/a', 'https://', 'javascript:alert(1)', 'https://a b']) {
      expect(() => read(wrong)).toThrow('PUBLIC_ORIGIN: must be an address like https://desk.example')
    }
  })

  test('other names are a list; a proxy is only believed together with the address it stands for', () => {
    const read = (more: Record<string, string>) => readSettings({ DATABASE_URL, ...more })
    expect(read({ ALLOWED_HOSTS: ' a.example:4610, b.example ,' }).ALLOWED_HOSTS).toEqual([
      'a.example:4610',
      'b.example',
    ])
    expect(() => read({ ALLOWED_HOSTS: 'http://a.example' })).toThrow('ALLOWED_HOSTS')
    expect(() => read({ TRUST_PROXY: '1' })).toThrow('TRUST_PROXY needs PUBLIC_ORIGIN')
  })
})
