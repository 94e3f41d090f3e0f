import { describe, expect, test } from '@jest/globals'
import { FIRST, newLayer } from '../model/fresh.ts'
import type { Drawing, ShotDocument } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { aRemark, richDocument } from '../tests/rich.ts'
import { sampleDocument, sampleElement } from '../tests/sample.ts'
import {
  answerRemark,
  frameOfRemark,
  lookAgain,
  lookAt,
  lookedState,
  notLookedAt,
  printOfDrawing,
  remarksOn,
  stopsLeft,
  stopsOf,
} from './review.ts'

const done = (document: ShotDocument, ops: readonly Operation[]): ShotDocument => {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const takeOf = (document: ShotDocument) => document.takes[FIRST.take]!
const stroke: Operation = { kind: 'elements.add', drawing: 'b', elements: [sampleElement('new', 9)] }

describe('looking a shot through', () => {
  const start = sampleDocument()

  test('a fingerprint knows what is drawn, not in which order it came, nor where marks lie', () => {
    const { elements } = start.drawings.a as Drawing
    const both = { ...elements, z1: sampleElement('z1') }
    const turned = Object.fromEntries(Object.entries(both).reverse())
    expect(printOfDrawing({ elements: both })).toBe(printOfDrawing({ elements: turned }))
    expect(printOfDrawing({ elements: both })).not.toBe(printOfDrawing({ elements }))
    const wider = { ...elements, a1: { ...sampleElement('a1'), width: 5 } }
    expect(printOfDrawing({ elements: wider })).not.toBe(printOfDrawing({ elements }))
  })

  test('stops are where something that goes out is new: each drawing once, over all layers, blank and left ones aside', () => {
    const blank = { id: 'e', layer: FIRST.drawn, number: 40, role: 'key' as const, elements: {}, marks: {} }
    const moth = (id: string, number: number): Operation => ({
      kind: 'drawing.add',
      drawing: { id, layer: 'moth', number, role: 'key', elements: { [id]: sampleElement(id) }, marks: {} },
    })
    const runs = (...all: [string | null, number][]) => all.map(([drawing, frames]) => ({ drawing, frames }))
    const document = done(start, [
      { kind: 'layer.add', layer: newLayer('moth', 'moth', 5) },
      { kind: 'layer.add', layer: newLayer('rough', 'rough', 6, { kind: 'guide' }) },
      moth('m', 1),
      moth('m2', 2),
      // Construction is not sent off.
      {
        kind: 'drawing.add',
        drawing: { id: 'r', layer: 'rough', number: 1, role: 'key', elements: { r: sampleElement('r') }, marks: {} },
      },
      { kind: 'exposure.write', take: FIRST.take, layer: 'rough', from: 2, runs: [{ drawing: 'r', frames: 6 }] },
      { kind: 'drawing.add', drawing: blank },
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: 'moth',
        from: 2,
        runs: runs(['m2', 2], ['m', 2], [null, 2], ['m', 4]),
      },
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 12, runs: runs(['e', 2], ['a', 2]) },
    ])
    const told = stopsOf(document, takeOf(document)).map(stop => [stop.frame, stop.drawings.map(one => one.id).join()])
    expect(told).toEqual([
      [0, 'a'],
      [2, 'm2'],
      [4, 'b,m'],
      [8, 'c'],
    ])
  })

  test('what is looked at is left out until it is drawn on; each account for itself', () => {
    const [a, b] = [start.drawings.a as Drawing, start.drawings.b as Drawing]
    const seen = done(start, lookAt(start, 'otter', [a, b]))
    const left = (document: ShotDocument, by: string) =>
      stopsLeft(document, takeOf(document), by).map(stop => stop.frame)
    expect([left(start, 'otter'), left(seen, 'otter'), left(seen, 'heron')]).toEqual([[0, 4, 8], [8], [0, 4, 8]])
    expect(lookAt(seen, 'otter', [a, b])).toEqual([])
    const drawn = done(seen, [stroke])
    expect(left(drawn, 'otter')).toEqual([4, 8])
    expect(['a', 'b', 'c'].map(id => lookedState(drawn, 'otter', drawn.drawings[id] as Drawing))).toEqual([
      'seen',
      'changed',
      'never',
    ])
    expect(notLookedAt(drawn, takeOf(drawn), 'otter').map(one => one.id)).toEqual(['b', 'c'])
    // Taken back, it is as it was looked at.
    const back = done(drawn, [{ kind: 'elements.remove', drawing: 'b', ids: ['new'] }])
    expect(left(back, 'otter')).toEqual([8])
    expect(left(done(back, lookAgain(back, 'otter', [a])), 'otter')).toEqual([0, 8])
    expect(lookAgain(start, 'otter', [a])).toEqual([])
    // Another timing shows nothing new.
    const held = done(seen, [{ kind: 'frames.insert', take: FIRST.take, at: 2, count: 3, fill: {} }])
    expect(left(held, 'otter')).toEqual([11])
  })
})

describe('remarks', () => {
  test('a remark goes along with its drawing when the timing is another, and stays on its frame while that still shows it', () => {
    const document = done(sampleDocument(), [
      { kind: 'remark.add', remark: { ...aRemark('late'), drawing: 'b', frame: 5 } },
      { kind: 'remark.add', remark: { ...aRemark('soon'), drawing: null, frame: 1 } },
      { kind: 'remark.add', remark: { ...aRemark('gone'), drawing: 'nobody', frame: 400 } },
    ])
    const told = (of: ShotDocument) => remarksOn(of, takeOf(of)).map(({ remark, frame }) => `${remark.id} ${frame}`)
    expect(told(document)).toEqual(['soon 1', 'late 5', 'gone 23'])
    const later = done(document, [{ kind: 'frames.insert', take: FIRST.take, at: 1, count: 6, fill: {} }])
    expect(told(later)).toEqual(['soon 1', 'late 10', 'gone 29'])
    const off = done(document, [
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 4, runs: [{ drawing: null, frames: 4 }] },
    ])
    expect(frameOfRemark(off, takeOf(off), off.remarks.late!)).toBe(5)
    // Shown earlier and shorter than where it was made: it has gone along.
    const sooner = done(off, [
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: 2, runs: [{ drawing: 'b', frames: 1 }] },
    ])
    expect(frameOfRemark(sooner, takeOf(sooner), sooner.remarks.late!)).toBe(2)
  })

  test('answers follow one another', () => {
    const document = richDocument()
    const said = (text: string) => ({ by: 'heron', name: 'Heron', text })
    const once = done(document, answerRemark(document.remarks.seen!, said('yes')))
    const twice = done(once, answerRemark(once.remarks.seen!, said('done')))
    expect(twice.remarks.seen?.answers.map(one => one.text)).toEqual(['yes', 'done'])
  })
})
