import { describe, expect, test } from '@jest/globals'
import { filesIn, MOST_DROPPED, type Entry } from './dropped.ts'

const file = (name: string): Entry => ({
  isFile: true,
  isDirectory: false,
  name,
  file: done => done(new File(['x'], name)),
})
const broken: Entry = { ...file('broken.png'), file: (_done, failed) => failed() }
/** A folder that tells so many at a time, as browsers do. */
function folder(name: string, all: readonly Entry[], atATime = 2): Entry {
  return {
    isFile: false,
    isDirectory: true,
    name,
    createReader() {
      let told = 0
      return { readEntries: done => done(all.slice(told, (told += atATime))) }
    },
  }
}
const names = async (...entries: Entry[]) => (await filesIn(entries)).map(one => one.name)

describe('what is dropped', () => {
  test('folders are opened, all of them is told, and what is hidden or cannot be read is left out', async () => {
    const deep = folder('walk', [
      file('1.png'),
      file('.hidden'),
      folder('more', [file('2.png'), broken]),
      file('3.png'),
    ])
    expect(await names(file('a.png'), deep)).toEqual(['a.png', '1.png', '2.png', '3.png'])
    expect(await names(folder('empty', []))).toEqual([])
  })
  test('of a folder without end only so many files come, and no one goes down for ever', async () => {
    const many = Array.from({ length: MOST_DROPPED + 50 }, (_, i) => file(`${i}.png`))
    expect(await names(folder('many', many, 100))).toHaveLength(MOST_DROPPED)
    expect(await names(endless())).toEqual([])
  })
})

/** A folder that holds itself. */
function endless(): Entry {
  return { isFile: false, isDirectory: true, name: 'x', createReader: () => ({ readEntries: once([endless()]) }) }
}
/** Tells something once, and then nothing more. */
function once(some: readonly Entry[]) {
  let isTold = false
  return (done: (some: readonly Entry[]) => void) => {
    done(isTold ? [] : some)
    isTold = true
  }
}
