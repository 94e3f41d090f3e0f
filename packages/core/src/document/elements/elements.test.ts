import { describe, expect, test } from '@jest/globals'
import type { Point } from '../../geometry/point.ts'
import { packSamples, unpackSamples, type Sample } from '../../geometry/samples.ts'
import type { Element } from '../model/model.ts'
import { placeholdersIn } from '../model/placeholders.ts'
import { currentTake, elementsInOrder, firstFrameOf } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { applyBatch, assetsUsed, refuse } from '../operations/index.ts'
import { sampleDocument, sampleDrawing, sampleElement, samplePicture } from '../tests/sample.ts'
import { ELEMENT_KINDS, kindOf } from './table.ts'

const document = sampleDocument()
const row: Sample[] = Array.from({ length: 11 }, (_, i) => ({ x: i * 10, y: 50, pressure: 0.5 }))
const square: Sample[] = [
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
].map(([x, y]) => ({ x: x as number, y: y as number, pressure: 1 }))
const stored = (id: string): Sample[] => (id === 's-shape' ? square : row)
const elements: Element[] = [
  sampleElement('line'),
  { ...sampleElement('shape'), kind: 'shape' },
  { ...samplePicture('seen'), widthPx: 100, heightPx: 100 },
]
const across: Point[] = [
  { x: 50, y: -20 },
  { x: 50, y: 120 },
]
const left: Point[] = [
  { x: -20, y: -20 },
  { x: 45, y: -20 },
  { x: 45, y: 120 },
  { x: -20, y: 120 },
]

describe('what every kind of element knows', () => {
  test.each(elements)('$kind: placed, touched where it lies, gathered by a loop round it', element => {
    const kind = kindOf(element)
    const placed = kind.placed(element, stored)
    if (!placed) throw new Error('not placed')
    expect(placed.box.right).toBeGreaterThanOrEqual(100)
    expect([kind.touched(placed, across, 3), kind.touched(placed, [{ x: 50, y: 300 }], 3)]).toEqual([true, false])
    const round = [-30, 130].flatMap(x => (x < 0 ? [-30, 130] : [130, -30]).map(y => ({ x, y })))
    expect([
      kind.gathered(placed, round),
      kind.gathered(
        placed,
        round.map(p => ({ ...p, x: p.x + 300 })),
      ),
    ]).toEqual([true, false])
    expect(kind.parted(element, placed, round)).toBe('inside')
    expect(kind.refuse(document, element)).toBeNull()
    expect(kindOf(kind.showing(element, 'other')).asset(kind.showing(element, 'other')).id).toBe('other')
    const { likeness } = kind
    expect(likeness({ ...element, z: 7, id: 'twin' })).toEqual(likeness(element))
    expect(likeness({ ...element, matrix: [1, 0, 0, 1, 3, 0] })).not.toEqual(likeness(element))
  })

  test('lines are cut into parts of their samples, paint into paths, pictures not at all', () => {
    const cut = elements.map(element => {
      const placed = kindOf(element).placed(element, stored)
      return placed && kindOf(element).left(element, placed, across, 4)
    })
    expect(cut[0]?.map(piece => [piece.stroke.part, piece.path])).toEqual([
      [[0, 4], null],
      [[6, 10], null],
    ])
    expect(cut[1]).toHaveLength(2)
    expect(cut[1]?.every(({ stroke, path }) => path && path.length > 3 && stroke.part === null)).toBe(true)
    expect(cut[2]).toBeNull()
    const parted = elements.map(element => {
      const placed = kindOf(element).placed(element, stored)
      return placed && kindOf(element).parted(element, placed, left)
    })
    expect(parted[0]).toMatchObject({ inside: [{ path: null }], outside: [{ path: null }] })
    expect(parted[1]).toMatchObject({ inside: [{}], outside: [{}] })
    expect(parted[2]).toBe('outside')
  })

  test('a stroke has a silhouette once its bytes are here; a picture says nothing rather than its whole sheet', () => {
    const picture = samplePicture('seen')
    expect(kindOf(picture).silhouette(picture, () => new Uint8Array(9))).toBeNull()
    const line = elements[0] as Element
    expect(kindOf(line).silhouette(line, () => undefined)).toBeNull()
    const bytes = packSamples(row)
    expect(unpackSamples(kindOf(line).silhouette(line, () => bytes)?.bytes ?? bytes)).toHaveLength(11)
  })

  test('of a picture that is cut only what is seen is touched; a cut that is none is refused', () => {
    const cut = { left: 10, top: 5, right: 40, bottom: 20 }
    const picture = { ...samplePicture('seen'), cut }
    const placed = kindOf(picture).placed(picture, () => null)!
    expect(placed.box).toEqual(cut)
    expect(kindOf(picture).touched(placed, [{ x: 4, y: 10 }], 2)).toBe(false)
    expect(kindOf(picture).touched(placed, [{ x: 20, y: 10 }], 2)).toBe(true)
    for (const bad of [
      { ...cut, left: -1 },
      { ...cut, right: 41 },
      { ...cut, right: 10.5 },
      { ...cut, bottom: NaN },
    ]) {
      expect(ELEMENT_KINDS.picture.refuse(document, { ...picture, cut: bad })).toMatchObject({ code: 'bad-value' })
    }
    expect(ELEMENT_KINDS.picture.refuse(document, picture)).toBeNull()
  })

  test('placeholders are counted where they are shown and sent off, each once', () => {
    const stands = { ...samplePicture('stands'), placeholder: true }
    const there = applyBatch(document, [
      { kind: 'elements.add', drawing: 'a', elements: [stands, samplePicture('seen')] },
    ])
    if (!there.ok) throw new Error('it fits')
    const take = currentTake(there.document)
    const first = firstFrameOf(take, get(there.document.drawings, 'a'))!
    expect(placeholdersIn(there.document, take, { from: 0, to: take.length })).toBe(1)
    expect(placeholdersIn(there.document, take, { from: first, to: first + 1 })).toBe(1)
    expect(placeholdersIn(there.document, take, { from: take.length + 5, to: take.length + 9 })).toBe(0)
    expect(placeholdersIn(document, currentTake(document), { from: 0, to: 99 })).toBe(0)
    const late = applyBatch(document, [{ kind: 'elements.add', drawing: 'c', elements: [stands] }])
    if (!late.ok) throw new Error('it fits')
    const begins = firstFrameOf(take, get(late.document.drawings, 'c'))!
    expect(placeholdersIn(late.document, take, { from: 0, to: begins })).toBe(0)
    expect(placeholdersIn(late.document, take, { from: 0, to: begins + 1 })).toBe(1)
  })

  test('pictures lie under shapes, shapes under lines, whatever their order', () => {
    const [line, shape, picture] = elements as [Element, Element, Element]
    const drawing = {
      ...sampleDrawing('q', 1),
      elements: { line: { ...line, z: 0 }, shape: { ...shape, z: 5 }, seen: { ...picture, z: 9 } } as Record<
        string,
        Element
      >,
    }
    expect(elementsInOrder(drawing).map(e => e.kind)).toEqual(['picture', 'shape', 'line'])
    expect(assetsUsed([{ kind: 'drawing.add', drawing }]).map(({ kind, id }) => `${kind} ${id}`)).toEqual([
      'samples s-line',
      'samples s-shape',
      'picture p-seen',
    ])
  })

  test('every kind says which of its properties may be set, and nothing else is', () => {
    const there = applyBatch(document, [{ kind: 'elements.add', drawing: 'a', elements: [samplePicture('seen')] }])
    if (!there.ok) throw new Error(there.refusal.code)
    const set = (id: string, patch: object) =>
      refuse(there.document, { kind: 'elements.set', drawing: 'a', changes: [{ id, patch }] })
    expect(set('seen', { opacity: 0.3, z: 4, matrix: null })).toBeNull()
    expect(set('seen', { opacity: 1.1 })).toEqual({ code: 'bad-value', what: 'opacity' })
    expect(set('seen', { swatch: 'graphite' })).toEqual({ code: 'bad-value', what: 'swatch of a picture' })
    expect(set('a1', { opacity: 0.3 })).toEqual({ code: 'bad-value', what: 'opacity of a line' })
    expect(set('a1', { kind: 'picture' })).toEqual({ code: 'bad-value', what: 'kind of a line' })
    const sizes = [0, 1.5, 16_385, Number.NaN].map(widthPx =>
      ELEMENT_KINDS.picture.refuse(document, { ...samplePicture('x'), widthPx }),
    )
    expect(sizes.map(refused => refused?.what)).toEqual(Array(4).fill('size of the picture'))
  })
})
