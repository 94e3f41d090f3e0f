import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { inOneRow, outOfRow, smallPictures, type Packed, type SmallPort } from './small.ts'

const bitmap = (): ImageBitmap & { isClosed: boolean } => ({
  width: 480,
  height: 270,
  isClosed: false,
  close() {
    this.isClosed = true
  },
})
const settled = () => new Promise(done => setTimeout(done, 0))

/** A clip whose n-th picture is the byte n, and a machine that keeps what it is told to. */
function made(count: number, more: Partial<SmallPort> & { kept?: () => Promise<Uint8Array | undefined> } = {}) {
  const log: string[] = []
  const held: Uint8Array[] = []
  const unpackedOnes: ReturnType<typeof bitmap>[] = []
  const port: SmallPort = {
    make: async (from, to) => {
      log.push(`${from}–${to}`)
      return Array.from({ length: to - from }, (_, i) => Uint8Array.of(from + i))
    },
    kept: async () => undefined,
    keep: async row => void held.push(row),
    unpack: async () => {
      const one = bitmap()
      unpackedOnes.push(one)
      return one
    },
    wait: async () => undefined,
    idleMs: () => Infinity,
    come: number => log.push(`come ${number}`),
    ...more,
  }
  return { small: smallPictures(count, port), log, held, unpackedOnes }
}

describe('small pictures of a clip', () => {
  test('go into one row of bytes and come out of it; anything else is none', () => {
    fc.assert(
      fc.property(fc.array(fc.uint8Array({ maxLength: 40 }), { maxLength: 20 }), pictures => {
        expect(outOfRow(inOneRow(pictures)).map(one => [...one])).toEqual(pictures.map(one => [...one]))
        expect(outOfRow(Uint8Array.of(...inOneRow(pictures), 1))).toEqual([])
      }),
    )
    fc.assert(fc.property(fc.uint8Array({ maxLength: 60 }), bytes => Array.isArray(outOfRow(bytes))))
  })

  test('are made some at a time, all of them, and kept; another evening they are there at once', async () => {
    const { small, log, held } = made(30)
    await small.made
    expect(log).toEqual(['0–12', '12–24', '24–30'])
    expect(outOfRow(held[0] as Uint8Array).map(([n]) => n)).toEqual(Array.from({ length: 30 }, (_, n) => n))
    const later = made(30, { kept: async () => held[0] })
    await later.small.made
    expect([later.log, later.held, later.small.has(29), later.small.has(30)]).toEqual([[], [], true, false])
  })

  test('what was left half done goes on; what belongs to another clip is made anew', async () => {
    const some: Packed = Array.from({ length: 20 }, () => Uint8Array.of(9))
    const half = made(25, { kept: async () => inOneRow(some) })
    await half.small.made
    expect(half.log).toEqual(['20–25'])
    const other = made(5, { kept: async () => inOneRow(some) })
    await other.small.made
    expect(other.log).toEqual(['0–5'])
  })

  test('wait as long as something else is wanted', async () => {
    const waited: number[] = []
    let idle = 200
    const { small, log } = made(5, {
      idleMs: () => idle,
      wait: async ms => {
        waited.push(ms)
        idle += ms
      },
    })
    await small.made
    expect([waited, log]).toEqual([[1000], ['0–5']])
  })

  test('end where nothing more can be made, without asking for ever', async () => {
    const { small, held } = made(40, { make: async from => (from === 0 ? [Uint8Array.of(1)] : []) })
    await small.made
    expect([small.has(0), small.has(1), held.length]).toEqual([true, false, 1])
  })

  test('are unpacked when one goes over them, once, and closed with the clip', async () => {
    const { small, log, unpackedOnes } = made(5)
    await small.made
    log.length = 0
    expect([small.picture(3), small.picture(3), small.picture(7)]).toEqual([null, null, null])
    await settled()
    expect([unpackedOnes.length, log, small.picture(3)]).toEqual([1, ['come 3'], unpackedOnes[0]])
    small.picture(4)
    small.close()
    await settled()
    expect(unpackedOnes.map(one => one.isClosed)).toEqual([true, true])
  })
})
