import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { PRESETS, presetWish } from '../../chart/index.ts'
import { drawingAt, lengthOf } from '../../time/exposure.ts'
import { countDrawings, drawingsNeeded, usualExposure } from '../../work/index.ts'
import { newLayer, FIRST, freshDocument } from '../model/fresh.ts'
import type { Proposal } from './proposal.ts'
import { makeDrawings, setChart } from './make.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, columnsCover, type Operation } from '../operations/index.ts'
import { drawingQueue, plannedPlace } from '../model/queue.ts'
import { sampleDocument, sampleDrawing, sampleElement, sure } from '../tests/sample.ts'
import * as select from '../model/selectors.ts'
import type { Room } from './room.ts'
import * as edits from './sheetEdits.ts'
import { get } from '../model/table.ts'

const L = FIRST.drawn
const takeOf = (document: ShotDocument): Take => get(document.takes, FIRST.take)
const shown = (document: ShotDocument) => {
  const column = select.columnOf(takeOf(document), L)
  return Array.from({ length: lengthOf(column) }, (_, f) => drawingAt(column, f) ?? '.').join('')
}

function counter() {
  let n = 0
  return () => `new${++n}`
}

function apply(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

function ops(step: Proposal): readonly Operation[] {
  if (!step.ok) throw new Error(step.code)
  return step.ops
}

function mustMake(making: Proposal): readonly Operation[] {
  if (!making.ok) throw new Error(making.code)
  return making.ops
}

/** A shot with keys a on frame 1 and b on frame 9 (counted from 1), two frames each. */
function twoKeys(): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)
  return apply(fresh, [
    { kind: 'drawing.add', drawing: sampleDrawing('a', 1) },
    { kind: 'drawing.add', drawing: sampleDrawing('b', 9) },
    { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs: [{ drawing: 'a', frames: 2 }] },
    { kind: 'exposure.write', take: FIRST.take, layer: L, from: 8, runs: [{ drawing: 'b', frames: 4 }] },
  ])
}

const pairOf = (document: ShotDocument, frame = 0) => {
  const pair = select.keysAround(document, takeOf(document), L, frame)
  if (!pair) throw new Error('no keys')
  return pair
}

describe('making the drawings of a chart', () => {
  test('three inbetweens on twos fill the eight frames between keys 1 and 9, numbered by their frames', () => {
    const document = twoKeys()
    const made = apply(
      document,
      mustMake(makeDrawings(document, takeOf(document), pairOf(document), presetWish('slow-in'), 3, 2, counter())),
    )
    const numbers = select
      .exposures(takeOf(made), L)
      .map(run => `${get(made.drawings, run.drawing as string).number}×${run.frames}`)
    expect(numbers).toEqual(['1×2', '3×2', '5×2', '7×2', '9×4'])
    expect(select.exposures(takeOf(made), L).map(run => get(made.drawings, run.drawing as string).role)).toEqual([
      'key',
      'breakdown',
      'inbetween',
      'inbetween',
      'key',
    ])
  })

  test('on ones the later key comes earlier and is held to the end; on threes it needs a longer shot, or says so', () => {
    const document = twoKeys()
    const making = (on: number, room: Room) =>
      makeDrawings(document, takeOf(document), pairOf(document), presetWish('even'), 3, on, counter(), room)
    const lengths = ([1, 3] as const).map(on => {
      const made = apply(document, mustMake(making(on, 'longer')))
      expect(columnsCover(made)).toBe(true)
      return [takeOf(made).length, select.firstFrameOf(takeOf(made), get(made.drawings, 'b'))]
    })
    expect(lengths).toEqual([
      [12, 4],
      [16, 12],
    ])
    expect(making(3, 'free')).toEqual({ ok: false, code: 'no-room', over: 4 })
  })

  test('fitted in, the keys stay where they are', () => {
    const document = twoKeys()
    const made = apply(
      document,
      mustMake(makeDrawings(document, takeOf(document), pairOf(document), presetWish('even'), 2, 'fit', counter())),
    )
    expect(select.exposures(takeOf(made), L).map(run => run.frames)).toEqual([3, 2, 3, 4])
    expect(
      makeDrawings(document, takeOf(document), pairOf(document), presetWish('even'), 11, 'fit', counter()),
    ).toEqual({
      ok: false,
      code: 'too-little-room',
      frames: 8,
      needed: 12,
    })
  })

  test('making again keeps what is drawn, drops what is blank, and refuses to lose drawings', () => {
    const document = twoKeys()
    const ids = counter()
    let made = apply(
      document,
      mustMake(makeDrawings(document, takeOf(document), pairOf(document), presetWish('even'), 3, 2, ids)),
    )
    made = apply(made, [{ kind: 'elements.add', drawing: 'new2', elements: [sampleElement('x')] }])
    const fewer = apply(made, mustMake(makeDrawings(made, takeOf(made), pairOf(made), presetWish('even'), 1, 2, ids)))
    expect(shown(fewer)).toBe('aanew2new2bbbbbbbb')
    expect(Object.keys(fewer.drawings).sort()).toEqual(['a', 'b', 'new2'])
    expect(makeDrawings(fewer, takeOf(fewer), pairOf(fewer), presetWish('even'), 0, 2, ids)).toEqual({
      ok: false,
      code: 'more-are-drawn',
      drawn: 1,
    })
    expect(setChart(fewer, takeOf(fewer), pairOf(fewer), presetWish('even'), 0, ids)).toMatchObject({ ok: false })
  })

  test('a blank one too many stays where it is shown elsewhere: outside the keys, or in another take', () => {
    const document = twoKeys()
    const ids = counter()
    const make = (from: ShotDocument, count: number) =>
      makeDrawings(from, takeOf(from), pairOf(from), presetWish('even'), count, 2, ids)
    const made = apply(document, mustMake(make(document, 3)))
    const left = (ops: readonly Operation[]) => {
      const now = apply(made, ops)
      return Object.keys(apply(now, mustMake(make(now, 1))).drawings)
    }
    // One is kept for the one that is asked for; the others are blank.
    expect(left([])).toEqual(['a', 'b', 'new3'])
    const shownAt = (from: number, take: string = FIRST.take): Operation => ({
      kind: 'exposure.write',
      take,
      layer: L,
      from,
      runs: [{ drawing: 'new1', frames: 1 }],
    })
    // On the last frame, behind the later key.
    expect(left([shownAt(11)])).toEqual(['a', 'b', 'new1', 'new3'])
    const copy: Operation = { kind: 'take.add', take: { ...takeOf(made), id: 'slow', name: 'slow' } }
    expect(left([copy])).toEqual(['a', 'b', 'new1', 'new2', 'new3'])
    // Shown before the earlier key.
    const ahead: Operation[] = [
      { kind: 'frames.insert', take: FIRST.take, at: 0, count: 2, fill: { [L]: [{ drawing: 'new1', frames: 2 }] } },
    ]
    expect(left(ahead)).toContain('new1')
  })

  test('too many that are drawn are counted, blank ones are not', () => {
    const document = twoKeys()
    const ids = counter()
    const made = apply(document, [
      ...mustMake(makeDrawings(document, takeOf(document), pairOf(document), presetWish('even'), 3, 2, ids)),
      ...['new1', 'new3'].map((drawing): Operation => ({
        kind: 'elements.add',
        drawing,
        elements: [sampleElement(`on-${drawing}`)],
      })),
    ])
    const tooMany = { ok: false, code: 'more-are-drawn', drawn: 2 }
    expect(setChart(made, takeOf(made), pairOf(made), presetWish('even'), 1, ids)).toEqual(tooMany)
    expect(makeDrawings(made, takeOf(made), pairOf(made), presetWish('even'), 1, 2, ids)).toEqual(tooMany)
  })

  test('whatever is asked for can be done, covers the sheet and can be undone', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PRESETS),
        fc.integer({ min: 0, max: 11 }),
        fc.constantFrom<1 | 2 | 3 | 'fit'>(1, 2, 3, 'fit'),
        (preset, n, on) => {
          const document = twoKeys()
          const making = makeDrawings(
            document,
            takeOf(document),
            pairOf(document),
            presetWish(preset),
            n,
            on,
            counter(),
            'longer',
          )
          if (!making.ok) return expect(on === 'fit' && n > 7).toBe(true)
          const result = applyBatch(document, making.ops)
          if (!result.ok) throw new Error(result.refusal.code)
          expect(columnsCover(result.document)).toBe(true)
          const back = applyBatch(result.document, result.inverse)
          expect(back.ok && back.document).toEqual(document)
        },
      ),
    )
  })
})

describe('the queue', () => {
  test('asks for the breakdown first, then the halves, each with the two drawings it is made from', () => {
    const start = twoKeys()
    let document = apply(
      start,
      mustMake(makeDrawings(start, takeOf(start), pairOf(start), presetWish('even'), 3, 2, counter())),
    )
    const asked: string[] = []
    for (;;) {
      const [next] = drawingQueue(document, takeOf(document))
      if (!next) break
      asked.push(`${next.drawing.number} between ${next.left?.number} and ${next.right?.number}`)
      document = apply(document, [{ kind: 'elements.add', drawing: next.drawing.id, elements: [sampleElement('x')] }])
    }
    expect(asked).toEqual(['5 between 1 and 9', '3 between 1 and 5', '7 between 5 and 9'])
  })

  test('a new chart over the same drawings changes roles and places, not the drawings', () => {
    const start = twoKeys()
    const made = apply(
      start,
      mustMake(makeDrawings(start, takeOf(start), pairOf(start), presetWish('even'), 3, 2, counter())),
    )
    const changed = apply(
      made,
      mustMake(setChart(made, takeOf(made), pairOf(made), presetWish('slow-in'), 3, counter())),
    )
    expect(plannedPlace(changed, takeOf(changed), get(changed.drawings, 'new1'))).toMatchObject({
      at: { num: 1, den: 2 },
      left: { id: 'a' },
    })
    expect(shown(changed)).toBe(shown(made))
    expect(get(changed.drawings, 'new1').role).toBe('breakdown')
    expect(plannedPlace(changed, takeOf(changed), get(changed.drawings, 'a'))).toBeNull()
  })

  test('a key that is blank comes before everything made from it', () => {
    const start = twoKeys()
    const made = apply(
      start,
      mustMake(makeDrawings(start, takeOf(start), pairOf(start), presetWish('even'), 1, 2, counter())),
    )
    const cleared = apply(made, edits.clearDrawing(get(made.drawings, 'b')))
    expect(drawingQueue(cleared, takeOf(cleared)).map(item => item.drawing.id)).toEqual(['b', 'new1'])
  })
})

describe('edits of the sheet', () => {
  const base = sampleDocument()

  test('a new drawing goes on an empty frame, splits a hold, or follows the drawing that starts there', () => {
    const put = (frame: number) => {
      const edit = sure(edits.putNewDrawing(base, takeOf(base), L, frame, 2, null, 'key', () => 'N'))
      return [shown(apply(base, edit.ops)), edit.frame]
    }
    expect(put(14)).toEqual(['aaaabbbbccccccNN........', 14])
    expect(
      shown(
        apply(
          base,
          sure(edits.putNewDrawing(base, takeOf(base), L, 14, 2, null, 'key', () => 'N', { blank: true })).ops,
        ),
      ),
    ).toBe('aaaabbbbcccc..NN........')
    expect(put(2)).toEqual(['aaNNbbbbcccc............', 2])
    expect(put(8)).toEqual(['aaaabbbbccccNN..........', 12])
    expect(put(0)).toEqual(['aaaaNNbbbbcccc..........', 4])
  })

  test('a copy is a new drawing that shares the stored samples; a share is the same drawing again', () => {
    const copy = sure(edits.putNewDrawing(base, takeOf(base), L, 14, 2, get(base.drawings, 'a'), 'key', counter()))
    const copied = Object.values(get(apply(base, copy.ops).drawings, copy.drawing).elements)[0]
    expect(copied).toMatchObject({ samples: 's-a1' })
    expect(copied?.id).not.toBe('a1')
    const shared = apply(base, sure(edits.shareDrawing(base, takeOf(base), get(base.drawings, 'a'), 14, 2)).ops)
    expect(shown(shared)).toBe('aaaabbbbccccccaa........')
    expect(select.exposureCount(takeOf(shared), get(shared.drawings, 'a'))).toBe(2)
  })

  test('clear keeps the sheet, remove lets what follows move up and forgets a drawing shown nowhere else', () => {
    const cleared = apply(base, edits.clearDrawing(get(base.drawings, 'b')))
    expect(shown(cleared)).toBe(shown(base))
    expect(select.isBlank(get(cleared.drawings, 'b'))).toBe(true)
    const removed = apply(base, sure(edits.removeExposure(base, takeOf(base), L, 5)).ops)
    expect(shown(removed)).toBe('aaaacccc................')
    expect(Object.keys(removed.drawings)).toEqual(['a', 'c'])
    expect(takeOf(removed).length).toBe(24)
  })

  test('removing a shared exposure keeps the drawing, removing a key takes its chart along', () => {
    const shared = apply(base, sure(edits.shareDrawing(base, takeOf(base), get(base.drawings, 'a'), 14, 2)).ops)
    expect(
      Object.keys(apply(shared, sure(edits.removeExposure(shared, takeOf(shared), L, 14)).ops).drawings),
    ).toContain('a')
    const charted = apply(base, mustMake(setChart(base, takeOf(base), pairOf(base), presetWish('even'), 1, counter())))
    expect(Object.keys(apply(charted, sure(edits.removeExposure(charted, takeOf(charted), L, 0)).ops).charts)).toEqual(
      [],
    )
  })

  test('another animated layer keeps the length of the shot', () => {
    const two = apply(base, [
      {
        kind: 'layer.add',
        layer: newLayer('bag', 'satchel', 2),
      },
      { kind: 'drawing.add', drawing: { ...sampleDrawing('s', 1), layer: 'bag', elements: {} } },
      { kind: 'exposure.write', take: FIRST.take, layer: 'bag', from: 0, runs: [{ drawing: 's', frames: 24 }] },
    ])
    const removed = apply(two, sure(edits.removeExposure(two, takeOf(two), L, 5)).ops)
    expect(shown(removed)).toBe('aaaacccc................')
  })

  test('on twos and held longer: what follows moves, the shot keeps its length', () => {
    expect(shown(apply(base, ops(edits.exposeSelection(base, takeOf(base), [L], 0, 8, 2))))).toBe(
      'aabbcccc................',
    )
    expect(shown(apply(base, ops(edits.holdDrawing(base, takeOf(base), L, 5, 6))))).toBe('aaaabbbbbbcccc..........')
    expect(shown(apply(base, ops(edits.holdDrawing(base, takeOf(base), L, 5, 1))))).toBe('aaaabcccc...............')
    expect(ops(edits.holdDrawing(base, takeOf(base), L, 5, 4))).toEqual([])
  })

  test('the drawing before and after, and what a copy takes after', () => {
    const take = takeOf(base)
    expect([5, 0, 13].map(f => edits.frameOfNeighbour(take, L, f, -1))).toEqual([0, null, 8])
    expect([5, 9].map(f => edits.frameOfNeighbour(take, L, f, 1))).toEqual([8, null])
    expect(edits.sourceAt(base, take, L, 20)?.id).toBe('c')
    expect(edits.sourceAt(base, take, L, 5)?.id).toBe('b')
    expect(edits.sourceAt(base, take, FIRST.background, 5)).toBeNull()
  })
})

describe('what lies around', () => {
  const base = sampleDocument()
  const take = takeOf(base)

  test('the light table takes the nearest different drawings, and goes round a loop only when told', () => {
    expect(select.neighbours(base, take, L, 5, -1, 3, null)).toEqual(['a'])
    expect(select.neighbours(base, take, L, 5, 1, 3, null)).toEqual(['c'])
    expect(select.neighbours(base, take, L, 1, -1, 3, { from: 0, to: 12 })).toEqual(['c', 'b'])
    expect(select.neighbours(base, take, L, 9, 1, 1, { from: 0, to: 12 })).toEqual(['a'])
    expect(select.neighbours(base, take, L, 9, 1, 5, { from: 8, to: 12 })).toEqual([])
    expect(select.neighbours(base, take, FIRST.background, 3, 1, 2, { from: 0, to: 24 })).toEqual([])
    const blanked = apply(base, edits.clearDrawing(get(base.drawings, 'b')))
    expect(select.neighbours(blanked, take, L, 9, -1, 2, null)).toEqual(['a'])
  })

  test('the keys around a frame; past the last key still the last pair', () => {
    const pairs = [0, 4, 20].map(f => select.keysAround(base, take, L, f)).map(p => p && `${p.from.id}-${p.to.id}`)
    expect(pairs).toEqual(['a-b', 'b-c', 'b-c'])
    expect(select.keysAround(base, take, FIRST.background, 0)).toBeNull()
  })

  test('a new number is the frame people count, or the next free one', () => {
    expect(select.freeNumber(base, L, 12)).toBe(13)
    expect(select.freeNumber(base, L, 0)).toBe(2)
    expect(select.freeNumber(base, L, 0, [2, 3])).toBe(4)
  })

  test('the first drawn key is the reference; shapes are painted under lines', () => {
    expect(select.referenceKey(base, take, L)?.id).toBe('a')
    const drawing = {
      ...sampleDrawing('q', 1),
      elements: { l: { ...sampleElement('l', 1) }, p: { ...sampleElement('p', 5), kind: 'shape' as const } },
    }
    expect(select.elementsInOrder(drawing).map(e => e.id)).toEqual(['p', 'l'])
    expect(select.topZ(drawing)).toBe(6)
  })
})

describe('counting', () => {
  test('drawings are counted once, however long they are held', () => {
    const base = apply(sampleDocument(), edits.clearDrawing(get(sampleDocument().drawings, 'b')))
    expect(countDrawings(base, takeOf(base))).toEqual({ drawings: 3, drawn: 2, left: 1 })
    expect([drawingsNeeded(24, 2), drawingsNeeded(25, 2)]).toEqual([12, 13])
    expect(usualExposure(takeOf(base), L)).toBe(4)
    expect(usualExposure(takeOf(base), FIRST.background)).toBeNull()
  })
})
