import { beforeEach, describe, expect, test } from '@jest/globals'
import { createPinia, setActivePinia } from 'pinia'
import { effectScope } from 'vue'

const kept = new Map<string, string>()
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
}
class Nothing {}
Object.assign(globalThis, {
  localStorage: storage,
  sessionStorage: storage,
  HTMLElement: Nothing,
  window: new EventTarget(),
  document: { documentElement: { dataset: {} }, querySelectorAll: () => [] },
})

const { commandsOf } = await import('./command.ts')
const { keyName, useKeys } = await import('./listen.ts')
const { useHabits } = await import('../stores/habits.ts')

const press = (type: 'keydown' | 'keyup', key: string) =>
  window.dispatchEvent(
    Object.assign(new Event(type), {
      key,
      code: key,
      shiftKey: false,
      ctrlKey: false,
      metaKey: false,
      altKey: false,
    }),
  )

beforeEach(() => {
  kept.clear()
  setActivePinia(createPinia())
})

describe('keys of rooms', () => {
  const line = (name: string, keys: string[]) => ({ name, words: name, group: 'Play', keys, run: () => undefined })

  test('a key that is changed in one room stays as it came in the other', () => {
    const [desk, flip] = [commandsOf('desk', [line('play', ['space'])]), commandsOf('flip', [line('play', ['space'])])]
    useHabits().set({ keys: { [desk.get('play').id]: ['p'] } })
    expect([desk.keysOf('play'), flip.keysOf('play')]).toEqual(['P', 'Space'])
    expect(flip.tip('play')).toBe('play (Space)')
  })

  test('keys that were kept before names told the room belong to the room they were chosen in', () => {
    kept.set('habits', JSON.stringify({ keys: { play: ['p'], help: ['shift+p'] } }))
    setActivePinia(createPinia())
    expect(useHabits().habits.keys).toEqual({ 'desk/play': ['p'], 'flip/help': ['shift+p'] })
  })

  test('a tip of a command without a key names none', () => {
    const flip = commandsOf('flip', [line('help', [])])
    expect(flip.tip('help')).toBe('help')
  })

  test('two commands of one name, and a name nobody has, are faults', () => {
    expect(() => commandsOf('desk', [line('undo', ['q']), line('undo', ['u'])])).toThrow('one name')
    expect(() => commandsOf('desk', []).get('undo')).toThrow('is called undo')
  })

  test('what a held key has begun ends when its room is left', () => {
    const did: string[] = []
    const hold = { ...line('see', ['s']), run: () => did.push('begun'), release: () => did.push('ended') }
    const room = effectScope()
    room.run(() => useKeys(commandsOf('desk', [hold]).commands))
    press('keydown', 's')
    press('keydown', 's')
    room.stop()
    expect(did).toEqual(['begun', 'ended'])
    press('keyup', 's')
    press('keydown', 's')
    expect(did).toEqual(['begun', 'ended'])
  })
})

describe('names of keys', () => {
  const named = (key: string, more = {}) =>
    keyName({ key, shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, ...more })

  test.each([
    [named('s'), 's'],
    [named('S', { shiftKey: true }), 'shift+s'],
    [named('?', { shiftKey: true }), '?'],
    [named(' '), 'space'],
    [named('z', { metaKey: true, shiftKey: true }), 'ctrl+shift+z'],
    [named('1', { altKey: true }), 'alt+1'],
    [named('ArrowUp', { shiftKey: true }), 'shift+arrowup'],
  ])('%s', (name, wanted) => expect(name).toBe(wanted))
})
