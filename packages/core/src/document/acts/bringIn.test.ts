import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { map } from '../../geometry/matrix.ts'
import { FIRST, freshDocument } from '../model/fresh.ts'
import type { Picture, ShotDocument } from '../model/model.ts'
import { columnOf, currentTake, layersInOrder } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { fittedOn, framesOfTimes, picturesInTurn, picturesOn, picturesOnLayer, type BroughtIn } from './bringIn.ts'
import { sampleDrawing } from '../tests/sample.ts'

const L = FIRST.drawn
const paper = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)
function after(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
function ids() {
  let n = 0
  return () => `n${++n}`
}
const asItCame = (widthPx: number, heightPx: number) => ({ widthPx, heightPx, was: { widthPx, heightPx } })
const brought = (id: string, frames: number | null = null): BroughtIn => ({ id, ...asItCame(100, 50), frames })
const here = { layer: L, frame: 2, holdFrames: 2, role: 'key' } as const
const sheetOf = (document: ShotDocument, layer: string): string =>
  columnOf(currentTake(document), layer)
    .map(run => `${run.drawing === null ? '-' : get(document.drawings, run.drawing).number}×${run.frames}`)
    .join(' ')

describe('how a picture lies on the paper', () => {
  test('in its middle as large as it is, or as much smaller as it takes to lie on it whole', () => {
    expect(fittedOn(asItCame(100, 51), { width: 640, height: 360 })).toEqual([1, 0, 0, 1, 270, 155])
    expect(fittedOn(asItCame(1280, 360), { width: 640, height: 360 })).toEqual([0.5, 0, 0, 0.5, 0, 90])
  })

  test('kept with fewer pixels than it came with, it lies as large as it came', () => {
    const smaller = { widthPx: 320, heightPx: 90, was: { widthPx: 640, heightPx: 180 } }
    expect(fittedOn(smaller, { width: 640, height: 360 })).toEqual([2, 0, 0, 2, 0, 90])
    const larger = { widthPx: 640, heightPx: 360, was: { widthPx: 2560, heightPx: 1440 } }
    expect(fittedOn(larger, { width: 640, height: 360 })).toEqual([1, 0, 0, 1, 0, 0])
  })

  test('never beyond the paper, never larger, always in the middle', () => {
    const side = fc.integer({ min: 1, max: 9000 })
    fc.assert(
      fc.property(side, side, side, side, (widthPx, heightPx, width, height) => {
        const at = fittedOn(asItCame(widthPx, heightPx), { width, height })
        const [a, b] = [map(at, { x: 0, y: 0 }), map(at, { x: widthPx, y: heightPx })]
        expect(at[0]).toBeLessThanOrEqual(1)
        for (const [low, high, most] of [
          [a.x, b.x, width],
          [a.y, b.y, height],
        ] as const) {
          expect(low).toBeGreaterThanOrEqual(-1e-6)
          expect(high).toBeLessThanOrEqual(most + 1e-6)
          expect(Math.abs(low + high - most)).toBeLessThanOrEqual(1 + 1e-6)
        }
      }),
      { seed: 5 },
    )
  })
})

describe('pictures on the sheet', () => {
  test('on a drawing they lie over what pictures it has, the first lowest', () => {
    const start = after(paper, [{ kind: 'drawing.add', drawing: sampleDrawing('a', 1) }])
    const { ops, elements } = picturesOn(start, get(start.drawings, 'a'), [brought('p'), brought('q')], ids())
    const a = get(after(start, ops).drawings, 'a')
    expect(elements.map(({ picture, z }) => [picture, z])).toEqual([
      ['p', 2],
      ['q', 3],
    ])
    const again = picturesOn(start, a, [brought('r')], () => 'above')
    expect(again.elements[0]?.z).toBeGreaterThan((a.elements[elements[1]?.id as string] as Picture).z)
  })

  test('as drawings one after the other, each as long as it says itself, else as long as others', () => {
    const step = picturesInTurn(
      paper,
      currentTake(paper),
      here,
      [brought('p'), brought('q', 3), brought('r')],
      'stay',
      ids(),
    )
    if (!step.ok) throw new Error(step.code)
    const made = after(paper, step.ops)
    expect([sheetOf(made, L), step.frame]).toEqual(['-×2 3×2 5×3 8×2 -×3', 2])
    for (const drawing of Object.values(made.drawings)) expect(Object.values(drawing.elements)).toHaveLength(1)
  })

  test('where the shot is too short, or something lies there, nothing is done unasked', () => {
    const all = Array.from({ length: 6 }, (_, i) => brought(`p${i}`))
    const tooMany = picturesInTurn(paper, currentTake(paper), here, all, 'stay', ids())
    expect(tooMany).toMatchObject({ ok: false, code: 'no-room' })
    const longer = picturesInTurn(paper, currentTake(paper), here, all, { following: 'stay', room: 'longer' }, ids())
    if (!longer.ok) throw new Error(longer.code)
    expect(currentTake(after(paper, longer.ops)).length).toBe(14)
    const drawn = after(paper, [
      { kind: 'drawing.add', drawing: sampleDrawing('a', 1) },
      { kind: 'exposure.write', take: FIRST.take, layer: L, from: 2, runs: [{ drawing: 'a', frames: 2 }] },
    ])
    expect(picturesInTurn(drawn, currentTake(drawn), here, [brought('p')], 'stay', ids())).toMatchObject({
      ok: false,
      code: 'would-cover',
    })
  })

  test('on a layer of their own: a still one to the end under what is drawn, several over all from the frame on', () => {
    const from = { frame: 4, holdFrames: 2, role: 'key' } as const
    const lay = (kind: 'drawn' | 'background' | 'reference', all: readonly BroughtIn[]) => {
      const step = picturesOnLayer(
        paper,
        currentTake(paper),
        { id: 'own', name: 'marsh', kind },
        from,
        all,
        'stay',
        ids(),
      )
      if (!step.ok) throw new Error(step.code)
      const made = after(paper, step.ops)
      return [
        sheetOf(made, 'own'),
        layersInOrder(made)
          .map(layer => layer.id)
          .join(),
        step.frame,
      ]
    }
    expect(lay('background', [brought('p')])).toEqual(['1×12', `${FIRST.background},own,${L}`, 4])
    expect(lay('reference', [brought('p')])).toEqual(['1×12', `${FIRST.background},own,${L}`, 4])
    expect(lay('reference', [brought('p'), brought('q')])).toEqual([
      '-×4 5×2 7×2 -×4',
      `${FIRST.background},own,${L}`,
      4,
    ])
    expect(lay('drawn', [brought('p'), brought('q')])).toEqual(['-×4 5×2 7×2 -×4', `${FIRST.background},${L},own`, 4])
  })
})

describe('times as frames', () => {
  test('each ends on the frame nearest to its end: 0.1 s at 24 is 2 or 3, ten of them are a second', () => {
    expect(framesOfTimes(Array(10).fill(100), 24)).toEqual([2, 3, 2, 3, 2, 2, 3, 2, 3, 2])
    expect(framesOfTimes([5, 5, 1000], 24)).toEqual([1, 1, 22])
    expect(framesOfTimes([60_000], 24)).toEqual([200])
  })

  test('the whole is as long as it was, within a frame, where no picture is too short or too long', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 50, max: 4000 }), { maxLength: 60 }),
        fc.integer({ min: 20, max: 40 }),
        (times, fps) => {
          const frames = framesOfTimes(times, fps)
          const whole = (times.reduce((sum, ms) => sum + ms, 0) * fps) / 1000
          expect(Math.abs(frames.reduce((sum, n) => sum + n, 0) - whole)).toBeLessThanOrEqual(0.5 + 1e-9)
        },
      ),
      { seed: 9 },
    )
  })
})
