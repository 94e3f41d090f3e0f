import { describe, expect, test } from '@jest/globals'
import { applyBatch, type Operation } from '../operations/index.ts'
import { FIRST, freshDocument, newLayer } from './fresh.ts'
import type { ShotDocument } from './model.ts'
import * as select from './selectors.ts'
import { get } from './table.ts'
import { sampleDrawing, sampleElement, samplePicture } from '../tests/sample.ts'

const L = FIRST.drawn
/** A layer that shows letters, a frame each; capitals are keys, x and X are blank sheets, dots show nothing. */
function shotOf(letters: string): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, letters.length)
  const ids = [...new Set(letters)].filter(letter => letter !== '.')
  const result = applyBatch(fresh, [
    ...ids.map((id, i): Operation => {
      const drawn = id.toLowerCase() !== 'x'
      const drawing = { ...sampleDrawing(id, i + 1), role: id < 'a' ? ('key' as const) : ('inbetween' as const) }
      return { kind: 'drawing.add', drawing: drawn ? drawing : { ...drawing, elements: {} } }
    }),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: L,
      from: 0,
      runs: [...letters].map(letter => ({ drawing: letter === '.' ? null : letter, frames: 1 })),
    },
  ])
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const take = (document: ShotDocument) => select.currentTake(document)

describe('neighbours on the light table', () => {
  const near = (
    letters: string,
    frame: number,
    direction: -1 | 1,
    count = 9,
    loop: [number, number] | null = null,
    keys = false,
  ) => {
    const document = shotOf(letters)
    const round = loop && { from: loop[0], to: loop[1] }
    return select.neighbours(document, take(document), L, frame, direction, count, round, keys).join('')
  }

  test('the nearest different ones first, as many as asked for, the present one and blank ones passed over', () => {
    expect(near('aabbccddee', 4, -1)).toBe('ba')
    expect(near('aabbccddee', 4, 1)).toBe('de')
    expect(near('aabbccddee', 5, 1, 1)).toBe('d')
    expect(near('aabbccddee', 4, 1, 0)).toBe('')
    expect(near('abxcX.d', 3, -1)).toBe('ba')
    expect(near('abxcX.d', 3, 1)).toBe('d')
    expect(near('abacab', 2, -1)).toBe('b')
    expect(near('abacab', 3, 1)).toBe('ab')
  })

  test('from an empty frame too; from the ends there is nothing beyond', () => {
    expect(near('ab..cd', 2, -1)).toBe('ba')
    expect(near('ab..cd', 3, 1)).toBe('cd')
    expect([near('abc', 0, -1), near('abc', 2, 1)]).toEqual(['', ''])
  })

  test('of keys only', () => {
    expect(near('AbcDefG', 4, -1, 9, null, true)).toBe('DA')
    expect(near('AbcDefG', 1, 1, 9, null, true)).toBe('DG')
    expect(near('AbXcD', 4, -1, 9, null, true)).toBe('A')
  })

  test('round a loop once, and only from within it', () => {
    expect(near('zabcdy', 1, -1, 9, [1, 5])).toBe('dcb')
    expect(near('zabcdy', 4, 1, 9, [1, 5])).toBe('abc')
    expect(near('zabcdy', 0, 1, 9, [1, 5])).toBe('abcdy')
    expect(near('zabcdy', 5, -1, 9, [1, 5])).toBe('dcbaz')
    expect(near('zaaaay', 2, 1, 9, [1, 5])).toBe('')
    expect(near('z....y', 2, 1, 9, [1, 5])).toBe('')
    expect(near('zab.by', 2, -1, 9, [1, 5])).toBe('a')
  })
})

describe('what a shot is asked for', () => {
  test('the keys around a frame; on or after the last one the last pair; a key held in parts is one', () => {
    const around = (letters: string, frame: number) => {
      const document = shotOf(letters)
      const pair = select.keysAround(document, take(document), L, frame)
      return pair && [pair.from.id, pair.to.id, pair.fromFrame, pair.toFrame]
    }
    expect(around('AbbCddE', 0)).toEqual(['A', 'C', 0, 3])
    expect(around('AbbCddE', 2)).toEqual(['A', 'C', 0, 3])
    expect(around('AbbCddE', 3)).toEqual(['C', 'E', 3, 6])
    expect(around('AbbCddE', 6)).toEqual(['C', 'E', 3, 6])
    expect(around('..AbC', 0)).toEqual(['A', 'C', 2, 4])
    expect(around('AbAcD', 1)).toEqual(['A', 'D', 0, 4])
    expect(around('Abbb', 1)).toBeNull()
    expect(around('abcd', 1)).toBeNull()
  })

  test('a free number: that of the frame as people count, or the next one that nobody has on the layer', () => {
    const document = shotOf('abc...')
    expect(select.freeNumber(document, L, 4)).toBe(5)
    expect(select.freeNumber(document, L, 0)).toBe(4)
    expect(select.freeNumber(document, L, 3, [4, 5])).toBe(6)
    expect(select.freeNumber(document, FIRST.background, 0)).toBe(1)
  })

  test('where and how often a drawing is shown', () => {
    const document = shotOf('abba.aa')
    const of = (id: string) => get(document.drawings, id)
    expect([select.firstFrameOf(take(document), of('a')), select.firstFrameOf(take(document), of('b'))]).toEqual([0, 1])
    expect([select.exposureCount(take(document), of('a')), select.exposureCount(take(document), of('b'))]).toEqual([
      3, 1,
    ])
    const hidden = { ...of('a'), id: 'never' }
    expect([select.firstFrameOf(take(document), hidden), select.exposureCount(take(document), hidden)]).toEqual([
      null,
      0,
    ])
    expect(select.exposures(take(document), L).map(run => [run.drawing, run.start, run.frames])).toEqual([
      ['a', 0, 1],
      ['b', 1, 2],
      ['a', 3, 1],
      ['a', 5, 2],
    ])
    expect(select.exposedDrawing(document, take(document), L, 4)).toBeNull()
    expect(select.exposedDrawing(document, take(document), L, 6)?.id).toBe('a')
  })

  test('volume is held against the first key that has something on it', () => {
    const first = (letters: string) => {
      const document = shotOf(letters)
      return select.referenceKey(document, take(document), L)?.id ?? null
    }
    expect([first('abCD'), first('XaB'), first('abc'), first('....')]).toEqual(['C', 'B', null, null])
  })

  test('orders: layers and marks by their order, then their id; elements by what they are, then from below', () => {
    const document = shotOf('a')
    const done = applyBatch(document, [
      { kind: 'layer.add', layer: newLayer('q', 'q', 1) },
      { kind: 'layer.add', layer: newLayer('p', 'p', 1) },
      ...['n2', 'n1'].map((id): Operation => ({
        kind: 'mark.add',
        mark: { id, layer: L, name: id, order: 1, kind: 'point' },
      })),
      { kind: 'mark.add', mark: { id: 'n0', layer: 'q', name: 'n0', order: 0, kind: 'point' } },
      {
        kind: 'elements.add',
        drawing: 'a',
        elements: [
          sampleElement('k2', 3),
          sampleElement('k1', 3),
          { ...sampleElement('s', 9), kind: 'shape' },
          samplePicture('p', 50),
        ],
      },
    ])
    if (!done.ok) throw new Error(done.refusal.what)
    const now = done.document
    expect(select.layersInOrder(now).map(layer => layer.id)).toEqual([FIRST.background, L, 'p', 'q'])
    expect(select.marksOf(now, L).map(mark => mark.id)).toEqual(['n1', 'n2'])
    const drawing = get(now.drawings, 'a')
    expect(select.elementsInOrder(drawing).map(element => element.id)).toEqual(['p', 's', 'a1', 'k1', 'k2'])
    expect(select.elementsInOrder(drawing)).toBe(select.elementsInOrder(drawing))
    expect(select.strokesOn(drawing).map(stroke => stroke.id)).toEqual(['s', 'a1', 'k1', 'k2'])
    expect([select.topZ(drawing), select.topZ({ ...drawing, elements: {} })]).toEqual([51, 1])
    expect([select.isBlank(drawing), select.isBlank({ ...drawing, elements: {} })]).toEqual([false, true])
  })
})
