import { LRUCache } from 'lru-cache'

/** Pixels of all pictures of a clip that are kept at a time: about a hundred of 1280 × 720. */
const MOST_PIXELS = 100_000_000
/** So many pictures are decoded before they are wanted. */
const AHEAD = 8
/** So many wishes wait; what was wished long ago is not looked at any more. */
const MOST_WISHES = 24
/** Pictures that one may lag behind while it plays, until all have come once. */
const MOST_LATE = 48

export interface LargePort {
  /** how many pictures there are; 0 while that is not known */
  count(): number
  decode(number: number): Promise<ImageBitmap | null>
  arrived(number: number): void
}

/** Pictures of a clip as large as they are looked at: decoded as they are wanted, the newest wish first, and only one at a time. */
export function largePictures(port: LargePort) {
  const pictures = new LRUCache<number, ImageBitmap>({
    maxSize: MOST_PIXELS,
    sizeCalculation: picture => Math.max(1, picture.width * picture.height),
    dispose: picture => picture.close(),
  })
  const asked = new Set<number>()
  let wishes: number[] = []
  let isBusy = false
  let last = 0
  let way: 1 | -1 = 1

  /** What is likely wanted next: the pictures behind the last that was, going on the way one goes. */
  function ahead(): number | undefined {
    // Backwards each one costs all from the last whole picture on: whoever waits for another one would wait longer.
    if (way < 0) return undefined
    for (let n = 1; n <= AHEAD; n++) {
      const number = last + n
      if (number >= port.count()) return undefined
      if (!pictures.has(number) && !asked.has(number)) return (asked.add(number), number)
    }
    return undefined
  }

  async function work(): Promise<void> {
    if (isBusy) return
    isBusy = true
    for (let next = wishes.pop() ?? ahead(); next !== undefined; next = wishes.pop() ?? ahead()) {
      const bitmap = await port.decode(next).catch(() => null)
      asked.delete(next)
      if (!bitmap) continue
      pictures.set(next, bitmap)
      port.arrived(next)
    }
    isBusy = false
  }

  return {
    /** One is looked for; whether it is another one than before. */
    goTo(number: number): boolean {
      if (number === last) return false
      way = number < last ? -1 : 1
      last = number
      return true
    },
    /** A picture, if it is here. */
    here: (number: number): ImageBitmap | null => pictures.get(number) ?? null,
    /** Decodes those that are likely wanted next. */
    goOn: (): void => void work(),
    wish(number: number): void {
      if (number >= port.count() || asked.has(number)) return
      asked.add(number)
      wishes.push(number)
      for (const old of wishes.slice(0, -MOST_WISHES)) asked.delete(old)
      wishes = wishes.slice(-MOST_WISHES)
      void work()
    },
    /** The nearest one before a picture that is here, of those just before it. */
    before(number: number): ImageBitmap | null {
      for (let n = number - 1; n >= Math.max(0, number - MOST_LATE); n--) {
        const found = pictures.peek(n)
        if (found) return found
      }
      return null
    },
    close: () => pictures.clear(),
  }
}
