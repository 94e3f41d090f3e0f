import { describe, expect, test } from '@jest/globals'
import { KEY_A, KEY_B } from '../../chart/halves.ts'
import { presetTicks, presetWish } from '../../chart/wish.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { FIRST, freshDocument, newLayer } from './fresh.ts'
import type { Role, ShotDocument, WayOfWorking } from './model.ts'
import { drawingQueue, parentDrawing, plannedPlace, type QueueWish } from './queue.ts'
import { currentTake } from './selectors.ts'
import { get } from './table.ts'
import { sampleElement } from '../tests/sample.ts'

const L = FIRST.drawn

/** A layer as letters, two frames each: capitals are keys, a B is a breakdown, the rest inbetweens; drawn ones are told. */
function laid(layer: string, letters: string, drawn: string): Operation[] {
  const ids = [...letters].map(letter => `${layer}-${letter}`)
  const roleOf = (letter: string): Role => (letter === 'B' ? 'breakdown' : letter < 'a' ? 'key' : 'inbetween')
  return [
    ...[...letters].map((letter, i): Operation => ({
      kind: 'drawing.add',
      drawing: {
        id: `${layer}-${letter}`,
        layer,
        number: i + 1,
        role: roleOf(letter),
        elements: drawn.includes(letter) ? { s: sampleElement('s') } : {},
        marks: {},
      },
    })),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer,
      from: 0,
      runs: ids.map(drawing => ({ drawing, frames: 2 })),
    },
  ]
}

function shot(way: WayOfWorking, letters: string, drawn: string, more: readonly Operation[] = []): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 20)
  const result = applyBatch(fresh, [...laid(L, letters, drawn), { kind: 'shot.set', patch: { way } }, ...more])
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const short = (id: string | undefined) => id?.replace(/^.*-/, '') ?? null
const queue = (document: ShotDocument, wish: QueueWish = {}) => drawingQueue(document, currentTake(document), wish)
const order = (document: ShotDocument, wish: QueueWish = {}) =>
  queue(document, wish)
    .map(item => short(item.drawing.id))
    .join('')
const beside = (document: ShotDocument) =>
  Object.fromEntries(
    queue(document).map(item => [short(item.drawing.id), [short(item.left?.id), short(item.right?.id)]]),
  )

/** A chart of three inbetweens from A to E: x, y, z, of which y is half-way. */
const charted = (): Operation => ({
  kind: 'chart.add',
  chart: {
    id: 'chart',
    layer: L,
    from: `${L}-A`,
    to: `${L}-E`,
    part: null,
    wish: presetWish('even'),
    ticks: presetTicks('even', 3).map((tick, i) => ({ ...tick, drawing: `${L}-${'xyz'.charAt(i)}` })),
  },
})

describe('the queue', () => {
  test('keys first, then breakdowns, then the rest, each in the order of frames', () => {
    expect(order(shot('pose-to-pose', 'AxBE', ''))).toBe('AEBx')
    expect(order(shot('pose-to-pose', 'AxBE', 'AB'))).toBe('Ex')
    expect(order(shot('pose-to-pose', 'AxBE', 'AxBE'))).toBe('')
  })

  test('halves by their depth on the chart, before what has no place on one', () => {
    const document = shot('pose-to-pose', 'AwxyzE', 'AE', [charted()])
    expect(order(document)).toBe('ywxz')
    // Half-way from the keys; then half-way from the half.
    expect(beside(document)).toEqual({ y: ['A', 'E'], w: ['A', 'E'], x: ['A', 'y'], z: ['y', 'E'] })
  })

  test('straight ahead is the order of frames, with what was drawn before and nothing after', () => {
    const document = shot('straight-ahead', 'AxBE', 'A')
    expect(order(document)).toBe('xBE')
    expect(beside(document)).toEqual({ x: ['A', null], B: ['A', null], E: ['A', null] })
  })

  test('mixed: keys first, then everything between straight ahead, breakdowns still from both sides', () => {
    const document = shot('mixed', 'AxByE', 'AE')
    expect(order(document)).toBe('Bxy')
    expect(beside(document)).toEqual({ B: ['A', 'E'], x: ['A', null], y: ['A', null] })
  })

  test('what is nearest and drawn stands on either side, past sheets that are blank', () => {
    const document = shot('pose-to-pose', 'AxyzE', 'Ay')
    expect(beside(document)).toEqual({ E: ['y', null], x: ['A', 'y'], z: ['y', null] })
  })

  test('of several layers alike in rank and frame the one whose sheet has the lesser id; locked ones ask for nothing', () => {
    const other = (patch: object = {}): Operation[] => [
      { kind: 'layer.add', layer: { ...newLayer('bag', 'satchel', 5), ...patch } },
      ...laid('bag', 'Ax', ''),
    ]
    const document = shot('pose-to-pose', 'Ax', '', other())
    expect(queue(document).map(item => item.drawing.id)).toEqual(['bag-A', `${L}-A`, 'bag-x', `${L}-x`])
    expect(queue(document, { layer: 'bag' }).map(item => item.drawing.id)).toEqual(['bag-A', 'bag-x'])
    expect(order(shot('pose-to-pose', 'Ax', '', other({ locked: true })))).toBe('Ax')
    expect(order(shot('pose-to-pose', 'Ax', '', other({ kind: 'guide' })))).toBe('Ax')
  })

  test('what is skipped is left out, what is put off comes last in that order', () => {
    const document = shot('pose-to-pose', 'ABCD', '')
    expect(order(document)).toBe('ACDB')
    expect(order(document, { skipped: new Set([`${L}-C`]) })).toBe('ADB')
    expect(order(document, { deferred: [`${L}-D`, `${L}-A`] })).toBe('CBDA')
  })

  test('a sheet shown twice is asked for once, where it is first seen', () => {
    const document = shot('pose-to-pose', 'AxE', 'A', [
      { kind: 'exposure.write', take: FIRST.take, layer: L, from: 8, runs: [{ drawing: `${L}-x`, frames: 2 }] },
    ])
    expect(queue(document).map(item => [short(item.drawing.id), item.frame])).toEqual([
      ['E', 4],
      ['x', 2],
    ])
  })
})

describe('a place on a chart', () => {
  const document = shot('pose-to-pose', 'AxyzE', 'AE', [charted()])
  const take = currentTake(document)
  const chart = get(document.charts, 'chart')

  test('is made from its parents, at its ratio', () => {
    const place = (letter: string) => {
      const found = plannedPlace(document, take, get(document.drawings, `${L}-${letter}`))
      return found && [short(found.left.id), short(found.right.id), found.ratio, found.tick, found.at]
    }
    expect(place('y')).toEqual(['A', 'E', '1/2', 1, { num: 1, den: 2 }])
    expect(place('x')).toEqual(['A', 'y', '1/2', 0, { num: 1, den: 4 }])
    expect(place('z')).toEqual(['y', 'E', '1/2', 2, { num: 3, den: 4 }])
    expect(place('A')).toBeNull()
  })

  test('parents are the keys or the drawings of other ticks; a tick without a drawing is none', () => {
    expect([KEY_A, KEY_B, 1].map(parent => short(parentDrawing(document, chart, parent)?.id))).toEqual(['A', 'E', 'y'])
    const bare = { ...chart, ticks: chart.ticks.map(tick => ({ ...tick, drawing: null })) }
    expect(parentDrawing(document, bare, 1)).toBeNull()
    expect(parentDrawing(document, chart, 9)).toBeNull()
  })

  test('what is not exposed has none, and charts of parts give none', () => {
    const hidden = applyBatch(document, [
      { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs: [{ drawing: null, frames: 20 }] },
    ])
    if (!hidden.ok) throw new Error(hidden.refusal.what)
    const y = get(document.drawings, `${L}-y`)
    expect(plannedPlace(hidden.document, currentTake(hidden.document), y)).toBeNull()
    const parts = { ...document, charts: { chart: { ...chart, part: 'nose' } } }
    expect(plannedPlace(parts, take, y)).toBeNull()
    expect(queue(parts as ShotDocument).every(item => item.place === null)).toBe(true)
  })
})
