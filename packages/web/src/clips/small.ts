import { LRUCache } from 'lru-cache'

/** Small pictures are so wide: enough to see what one goes over, and unpacked in no time. */
export const SMALL_WIDTH = 480
/** Bytes of all small pictures of one clip; a longer one has none towards its end. */
const MOST_BYTES = 64 * 1024 * 1024
/** So many are made at a time, and only when nothing else was wanted for so long. */
const AT_A_TIME = 12
const REST_MS = 1200
/** What is made is kept at least after so many, should one leave before all are. */
const KEPT_EVERY = 300
/** So many lie unpacked. */
const MOST_UNPACKED = 60

/** Small pictures, packed: each as bytes of a picture, in order; what is missing at the end was never made. */
export type Packed = readonly Uint8Array[]

/** Small pictures in one row of bytes: how many, how long each is, then all of them. */
export function inOneRow(pictures: Packed): Uint8Array {
  const head = Uint32Array.of(pictures.length, ...pictures.map(one => one.length))
  const row = new Uint8Array(head.byteLength + pictures.reduce((sum, one) => sum + one.length, 0))
  row.set(new Uint8Array(head.buffer))
  let at = head.byteLength
  for (const one of pictures) {
    row.set(one, at)
    at += one.length
  }
  return row
}

/** The small pictures in a row of bytes; none where it is something else. */
export function outOfRow(row: Uint8Array): Packed {
  if (row.length < 4) return []
  const at = (i: number) => new DataView(row.buffer, row.byteOffset).getUint32(4 * i, true)
  const count = at(0)
  if (4 * (count + 1) > row.length) return []
  const pictures: Uint8Array[] = []
  let from = 4 * (count + 1)
  for (let i = 1; i <= count; i++) {
    pictures.push(row.subarray(from, from + at(i)))
    from += at(i)
  }
  return from === row.length ? pictures : []
}

export interface SmallPort {
  /** makes small pictures from one number up to, but not with, another */
  make(from: number, to: number): Promise<Packed>
  /** those of an earlier evening */
  kept(): Promise<Uint8Array | undefined>
  keep(row: Uint8Array): Promise<void>
  unpack(picture: Uint8Array): Promise<ImageBitmap>
  wait(ms: number): Promise<void>
  /** ms since anything was wanted of the clip */
  idleMs(): number
  /** another one is unpacked */
  come(number: number): void
}

/**
 * Small pictures of a clip, all of them: made once, behind one's back, and kept on this machine. Going over a clip by leaps costs a whole stretch of it for
 * each large picture; a small one is there at once, and stands until the large one has come.
 */
export function smallPictures(count: number, port: SmallPort) {
  let pictures: Packed = []
  let isOver = false
  const unpacked = new LRUCache<number, ImageBitmap>({ max: MOST_UNPACKED, dispose: picture => picture.close() })
  const asked = new Set<number>()

  async function make(): Promise<void> {
    pictures = outOfRow((await port.kept().catch(() => undefined)) ?? new Uint8Array())
    if (pictures.length > count) pictures = []
    let bytes = pictures.reduce((sum, one) => sum + one.length, 0)
    let kept = pictures.length
    const keep = async () => {
      kept = pictures.length
      await port.keep(inOneRow(pictures))
    }
    while (!isOver && pictures.length < count && bytes < MOST_BYTES) {
      const rest = REST_MS - port.idleMs()
      if (rest > 0) {
        await port.wait(rest)
        continue
      }
      const some = await port.make(pictures.length, Math.min(count, pictures.length + AT_A_TIME))
      // What cannot be made now is not made by asking again.
      if (some.length === 0) break
      pictures = [...pictures, ...some]
      bytes += some.reduce((sum, one) => sum + one.length, 0)
      if (pictures.length - kept >= KEPT_EVERY) await keep()
    }
    if (!isOver && pictures.length > kept) await keep()
  }

  async function unpack(number: number, packed: Uint8Array): Promise<void> {
    asked.add(number)
    const picture = await port.unpack(packed).catch(() => null)
    asked.delete(number)
    if (!picture) return
    if (isOver) return picture.close()
    unpacked.set(number, picture)
    port.come(number)
  }

  function wish(number: number): void {
    const packed = pictures[number]
    if (packed && !unpacked.has(number) && !asked.has(number)) void unpack(number, packed)
  }

  return {
    made: make().catch(() => undefined),
    /** whether there is one of a picture */
    has: (number: number): boolean => number < pictures.length,
    /** A small picture, if it is unpacked; else it is unpacked now, and `come` is told. */
    picture(number: number): ImageBitmap | null {
      wish(number)
      return unpacked.get(number) ?? null
    },
    /** Unpacks those that may be wanted next, so that they are there at once. */
    ready: (numbers: readonly number[]) => numbers.forEach(wish),
    close(): void {
      isOver = true
      unpacked.clear()
    },
  }
}

export type SmallPictures = ReturnType<typeof smallPictures>
