import { describe, expect, test } from '@jest/globals'
import {
  applyBatch,
  FIRST,
  freshDocument,
  get,
  isStroke,
  strokesOn,
  type Drawing,
  type Picture,
  type Operation,
  type Stroke,
} from '@unhurried/core/document'
import { INK, packSamples, rotation, translation, unpackSamples, type Sample } from '@unhurried/core/geometry'
import fc from 'fast-check'
import { moveOps, rubbedBy, strokesEdit, touchedBy, trimmed, cutByLoop } from './edits.ts'
import { rawSamples, strokeUnderWay, type RawSample } from '../paint/pen.ts'
import { strokeBook } from '../paint/strokes.ts'
import { FLAT, paperToScreen } from '../paint/view.ts'

const straight = (y: number, n = 21): Sample[] => Array.from({ length: n }, (_, i) => ({ x: i * 10, y, pressure: 0.5 }))
const element = (id: string, more: Partial<Stroke> = {}): Stroke => ({
  id,
  kind: 'line',
  z: 1,
  samples: id,
  part: null,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
  ...more,
})
const bytes = new Map([
  ['top', packSamples(straight(0))],
  ['low', packSamples(straight(100))],
  [
    'patch',
    packSamples([
      { x: 0, y: 40, pressure: 1 },
      { x: 200, y: 40, pressure: 1 },
      { x: 200, y: 60, pressure: 1 },
      { x: 0, y: 60, pressure: 1 },
    ]),
  ],
])
const book = strokeBook({ bytes: id => bytes.get(id) })
const drawing: Drawing = {
  id: 'd',
  layer: FIRST.drawn,
  number: 1,
  role: 'key',
  elements: { top: element('top'), low: element('low'), patch: element('patch', { kind: 'shape' }) },
  marks: {},
}
const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)
const base = must(fresh, [{ kind: 'drawing.add', drawing }])

function must(document: typeof fresh, ops: readonly Operation[]) {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

describe('rubbing out and trimming', () => {
  const across = [
    { x: 100, y: -30 },
    { x: 100, y: 130 },
  ]

  test('a tip touches what it passes over, however fast it moves', () => {
    expect(touchedBy(drawing, book, across, 3).sort()).toEqual(['low', 'patch', 'top'])
    expect(touchedBy(drawing, book, [{ x: 100, y: 20 }], 3)).toEqual([])
  })

  test('a picture is touched under what lies over it, and never rubbed out', () => {
    const picture: Picture = {
      id: 'hill',
      kind: 'picture',
      picture: 'hill',
      z: 9,
      matrix: null,
      opacity: 1,
      cut: null,
      placeholder: false,
      widthPx: 200,
      heightPx: 100,
    }
    const traced = { ...drawing, elements: { ...drawing.elements, hill: picture } }
    expect(touchedBy(traced, book, across, 3)).toEqual(['hill', 'patch', 'low', 'top'])
    expect(rubbedBy(traced, book, across, 3)).toEqual(['patch', 'low', 'top'])
  })

  test('trimming parts lines over the same samples, and paint into shapes of its own', () => {
    const { ops, samples } = trimmed(drawing, book, across, 6)
    const after = get(must(base, ops).drawings, 'd')
    const [left, paint] = ['line', 'shape'].map(kind => strokesOn(after).filter(e => e.kind === kind))
    expect(paint?.map(e => [samples.has(e.samples), e.part, e.swatch, e.z])).toEqual([
      [true, null, 'graphite', 1],
      [true, null, 'graphite', 1],
    ])
    const spans = [...samples.values()].map(b => unpackSamples(b).map(s => s.x))
    expect(spans.map(xs => [Math.min(...xs), Math.max(...xs)]).sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0))).toEqual([
      [0, 94],
      [106, 200],
    ])
    expect(left?.map(e => [e.samples, e.part]).sort()).toEqual([
      ['low', [0, 9]],
      ['low', [11, 20]],
      ['top', [0, 9]],
      ['top', [11, 20]],
    ])
  })

  test('a part is trimmed again in the numbers of the whole line', () => {
    const once = get(must(base, trimmed(drawing, book, across, 6).ops).drawings, 'd')
    const twice = trimmed(once, book, [{ x: 170, y: -3 }], 3).ops
    const added = twice.flatMap(op => (op.kind === 'elements.add' ? op.elements.filter(isStroke).map(e => e.part) : []))
    expect(added).toEqual([
      [11, 16],
      [18, 20],
    ])
  })

  test('a loop cuts lines and paint where it crosses them, and tells what lies inside', () => {
    const loop = [
      { x: -10, y: 30 },
      { x: 50, y: 30 },
      { x: 50, y: 130 },
      { x: -10, y: 130 },
    ]
    const { ops, samples, inside } = cutByLoop(drawing, book, loop)
    const after = get(must(base, ops).drawings, 'd')
    expect(Object.keys(after.elements)).toHaveLength(5)
    const within = inside.map(id => get(after.elements, id)).filter(isStroke)
    expect(within.map(e => e.kind).sort()).toEqual(['line', 'shape'])
    const paint = within.find(e => e.kind === 'shape')
    expect(unpackSamples(samples.get(paint?.samples ?? '') ?? new Uint8Array()).every(s => s.x <= 50)).toBe(true)
    // Round everything, or beside it, nothing is cut.
    const around = cutByLoop(
      drawing,
      book,
      loop.map(p => ({ x: p.x * 9, y: (p.y - 80) * 9 })),
    )
    expect([around.ops, around.inside.length]).toEqual([[], 3])
    expect(
      cutByLoop(
        drawing,
        book,
        loop.map(p => ({ x: p.x, y: p.y + 500 })),
      ),
    ).toMatchObject({ ops: [], inside: [] })
  })

  test('lines alone, or paint alone, are taken off when that is asked for', () => {
    const kinds = (takes: 'line' | 'shape') =>
      Object.values(get(must(base, trimmed(drawing, book, across, 6, takes).ops).drawings, 'd').elements).map(
        e => e.kind,
      )
    expect([kinds('line').sort(), kinds('shape').sort()]).toEqual([
      ['line', 'line', 'line', 'line', 'shape'],
      ['line', 'line', 'shape', 'shape'],
    ])
    expect(rubbedBy(drawing, book, across, 3, 'shape')).toEqual(['patch'])
  })

  test('passing by changes nothing', () => {
    expect(trimmed(drawing, book, [{ x: 50, y: 20 }], 5).ops).toEqual([])
  })
})

describe('moving', () => {
  test('there and back again leaves every stroke where it was, to a millionth', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -400, max: 400 }),
        fc.integer({ min: -400, max: 400 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (dx, dy, a) => {
          const ids = new Set(['top', 'low', 'gone'])
          const turned = must(base, moveOps(drawing, ids, rotation(a, { x: dx, y: dy })))
          const back = must(turned, moveOps(get(turned.drawings, 'd'), ids, rotation(-a, { x: dx, y: dy })))
          for (const id of ['top', 'low']) {
            const matrix = get(get(back.drawings, 'd').elements, id).matrix ?? []
            matrix.forEach((v, i) => expect(v).toBeCloseTo([1, 0, 0, 1, 0, 0][i] as number, 2))
          }
        },
      ),
    )
    expect(moveOps(drawing, new Set(), translation(1, 1))).toEqual([])
  })
})

describe('a new stroke', () => {
  const DRAWN = { width: 4, nib: INK, label: null } as const
  const where = (document: typeof fresh, on: Drawing | null) => ({
    document,
    take: get(document.takes, FIRST.take),
    layer: FIRST.drawn,
    frame: 4,
    hold: 2,
    drawing: on,
  })

  const present = <T>(edit: T | null): T => {
    if (!edit) throw new Error('nothing was made')
    return edit
  }

  test('on an empty frame begins a key there, in one step', () => {
    const edit = present(strokesEdit(where(fresh, null), [straight(5)], { ...DRAWN, kind: 'line', swatch: 'graphite' }))
    const after = must(fresh, edit.ops)
    expect(edit.frame).toBe(4)
    expect(Object.values(after.drawings).map(d => [d.number, d.role, Object.keys(d.elements).length])).toEqual([
      [5, 'key', 1],
    ])
    expect([...edit.samples.values()].map(b => unpackSamples(b).length)).toEqual([21])
  })

  test('on a drawing lies above what is there', () => {
    const edit = present(strokesEdit(where(base, drawing), [straight(5)], { ...DRAWN, kind: 'shape', swatch: 'leaf' }))
    const [op] = edit.ops
    expect(edit.frame).toBeNull()
    expect(op?.kind === 'elements.add' && op.elements[0]).toMatchObject({ z: 2, kind: 'shape', swatch: 'leaf' })
  })
})

describe('a stroke under way', () => {
  const matrix = paperToScreen(FLAT, { width: 692, height: 412 }, { width: 640, height: 360 })
  const raw = (x: number, more: Partial<RawSample> = {}): RawSample => ({
    x,
    y: 100,
    pressure: 0.8,
    timeMs: x,
    isPen: true,
    ...more,
  })

  test('keeps the pen’s own pressure and leads the line to where the pen was lifted', () => {
    const stroke = strokeUnderWay(matrix, { smoothing: 0.6 })
    stroke.add([100, 120, 140, 160].map(x => raw(x)))
    const samples = stroke.finish()
    const end = samples[samples.length - 1] as Sample
    expect(end.x).toBeCloseTo(160 - 26)
    expect(samples[0]?.pressure).toBe(0.8)
    expect(end.pressure).toBeLessThan(0.8)
  })

  test('a mouse gets pressure from its speed, and a resting pen does not pile up', () => {
    const mouse = strokeUnderWay(matrix, { smoothing: 0 })
    mouse.add([100, 101, 102, 220].map(x => raw(x, { isPen: false, pressure: 0.5 })))
    expect(mouse.samples.every(s => s.pressure > 0 && s.pressure < 1 && s.pressure !== 0.5)).toBe(true)
    const resting = strokeUnderWay(matrix, { smoothing: 0 })
    resting.add(Array.from({ length: 50 }, () => raw(100)))
    expect(resting.finish()).toHaveLength(1)
  })

  test('samples that the browser put together are all taken', () => {
    const event = { clientX: 9, clientY: 9, pressure: 1, timeStamp: 3, pointerType: 'pen' }
    const together = { ...event, getCoalescedEvents: () => [{ ...event, clientX: 5 }, event] }
    const origin = { left: 1, top: 2 }
    expect(rawSamples(together as unknown as PointerEvent, origin).map(s => [s.x, s.y])).toEqual([
      [4, 7],
      [8, 7],
    ])
    expect(rawSamples({ ...event, getCoalescedEvents: () => [] } as unknown as PointerEvent, origin)).toHaveLength(1)
  })
})
