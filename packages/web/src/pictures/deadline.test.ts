import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { find, type Drawing } from '@unhurried/core/document'
import { drawnIn } from '../paint/bitmaps.ts'
import type { Brush } from '../paint/nibs.ts'
import { TooSlow, withDeadline, type Said, type WorkerLike } from './deadline.ts'
import type { DrawingOrder, PicturePart } from '../protocols/pictures.ts'
import { remoteShelf } from './remoteShelf.ts'

/** Workers that answer, hang or die as told by the order's name. */
function workers<Order, Part>(answer: (order: Order) => readonly Said<Part>[] | 'hang' | 'die') {
  const made: { orders: Order[]; ended: boolean }[] = []
  const make = (): WorkerLike => {
    const own = { orders: [] as Order[], ended: false }
    made.push(own)
    const worker: WorkerLike = {
      onmessage: null,
      onerror: null,
      terminate: () => (own.ended = true),
      postMessage(order) {
        own.orders.push(order as Order)
        const said = answer(order as Order)
        if (said === 'hang') return
        setTimeout(() => {
          if (own.ended) return
          if (said === 'die') worker.onerror?.({ message: 'out of memory' } as ErrorEvent)
          else for (const data of said) worker.onmessage?.({ data } as MessageEvent)
        }, 5)
      },
    }
    return worker
  }
  return { made, make }
}

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

describe('orders within a deadline', () => {
  const echo = (order: string): readonly Said<string>[] | 'hang' | 'die' =>
    order === 'hang' || order === 'die'
      ? order
      : order === 'bad'
        ? [{ kind: 'failed', message: 'no such thing' }]
        : [{ kind: 'part', part: order }, { kind: 'done' }]

  test('one that hangs is given up, and those behind it are done by a fresh worker', async () => {
    const { made, make } = workers(echo)
    const line = withDeadline<string, string>(make, 1000)
    const heard: string[] = []
    const ran = ['a', 'hang', 'b', 'die', 'c', 'bad', 'd'].map(order =>
      line
        .run(
          () => order,
          part => heard.push(part),
        )
        .then(
          () => 'done',
          (error: Error) => (error instanceof TooSlow ? 'too slow' : error.message),
        ),
    )
    await jest.advanceTimersByTimeAsync(3000)
    expect(await Promise.all(ran)).toEqual([
      'done',
      'too slow',
      'done',
      'out of memory',
      'done',
      'no such thing',
      'done',
    ])
    expect(heard).toEqual(['a', 'b', 'c', 'd'])
    // What merely failed was answered: its worker goes on.
    expect(made.map(worker => [worker.orders, worker.ended])).toEqual([
      [['a', 'hang'], true],
      [['b', 'die'], true],
      [['c', 'bad', 'd'], false],
    ])
  })
})

describe('drawings painted elsewhere', () => {
  const drawing = (id: string, samples: readonly string[]): Drawing => ({
    id,
    layer: 'l',
    number: 7,
    role: 'key',
    marks: {},
    elements: Object.fromEntries(
      samples.map(s => [`${id}-${s}`, { id: `${id}-${s}`, kind: 'line', samples: s, swatch: 'leaf' } as never]),
    ),
  })
  const bitmap = { width: 40, height: 20, close: () => undefined } as ImageBitmap
  const picture: PicturePart = { kind: 'drawn', bitmap, left: 3, top: 4, scale: 2 }
  const look = drawnIn(() => '#7f9c5c')
  function brush() {
    const drawn: unknown[][] = []
    const words: string[] = []
    return {
      drawn,
      words,
      as: {
        drawImage: (...args: unknown[]) => drawn.push(args),
        fillText: (text: string) => words.push(text),
        save: () => undefined,
        restore: () => undefined,
      } as unknown as Brush,
    }
  }

  test('are drawn once they are there; strokes are sent once to each worker', async () => {
    const { made, make } = workers<DrawingOrder, PicturePart>(order =>
      order.drawing.id === 'slow' ? 'hang' : [{ kind: 'part', part: picture }, { kind: 'done' }],
    )
    const shelf = remoteShelf(make, id => Uint8Array.from([id.length]), 1000)
    const [one, two, slow] = [drawing('one', ['s', 't']), drawing('two', ['t', 'u']), drawing('slow', ['s'])]
    const b = brush()
    shelf.draw(b.as, one, look, 2)
    expect([b.drawn, shelf.isReady(one, look, 2), shelf.isReady(two, look, 2)]).toEqual([[], false, false])
    await jest.advanceTimersByTimeAsync(50)
    expect([shelf.painted.value, shelf.isReady(one, look, 2)]).toEqual([2, true])
    shelf.draw(b.as, one, look, 2)
    expect(b.drawn).toEqual([[bitmap, 3, 4, 20, 10]])
    expect(made[0]?.orders.map(order => [...order.samples.keys()])).toEqual([['s', 't'], ['u']])
    expect(made[0]?.orders[0]?.look).toEqual({ kind: 'drawn', colours: { 'one-s': '#7f9c5c', 'one-t': '#7f9c5c' } })
    expect(find(made[0]?.orders[0]?.drawing.elements ?? {}, 'one-s')).toBeDefined()

    // What takes too long is a plain sheet with a word on it, and the next one is painted by a worker that knows nothing yet.
    shelf.draw(b.as, slow, look, 2)
    shelf.draw(b.as, drawing('three', ['t']), look, 2)
    await jest.advanceTimersByTimeAsync(1500)
    shelf.draw(b.as, slow, look, 2)
    expect([b.words, shelf.isReady(slow, look, 2)]).toEqual([['drawing 7 is too much to be painted here'], true])
    expect(made[1]?.orders.map(order => [...order.samples.keys()])).toEqual([['t']])
  })
})
