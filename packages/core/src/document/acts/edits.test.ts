import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { lengthOf, plain } from '../../time/exposure.ts'
import { PRESETS } from '../../chart/ease.ts'
import { presetWish } from '../../chart/wish.ts'
import { FIRST } from '../model/fresh.ts'
import { copyClip, pasteClip } from './clip.ts'
import type { Proposal } from './proposal.ts'
import { makeDrawings, setChart } from './make.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, assetIds, columnsCover, cyclesHold, type Operation } from '../operations/index.ts'
import { drawingQueue } from '../model/queue.ts'
import { columnOf, keysAround, layersInOrder, neighbours } from '../model/selectors.ts'
import { sampleDocument, sampleElement, sure } from '../tests/sample.ts'
import { ROOMS, type Manner } from './room.ts'
import * as retime from './retime.ts'
import * as edits from './sheetEdits.ts'
import { copyTake } from './takes.ts'
import { find, get } from '../model/table.ts'

/** The numbers written on the sheets of a layer. */
const numbersOn = (document: ShotDocument, layer: string): number[] =>
  Object.values(document.drawings)
    .filter(drawing => drawing.layer === layer)
    .map(drawing => drawing.number)

const takeOf = (document: ShotDocument): Take => get(document.takes, document.current)

/** Something an animator does on the sheet: any act, anywhere. */
type Act = { act: string; frame: number; n: number }
const act: fc.Arbitrary<Act> = fc.record({
  act: fc.constantFrom(
    'new',
    'copy',
    'share',
    'own',
    'remove',
    'clear',
    'on',
    'hold',
    'insert',
    'out',
    'make',
    'chart',
    'draw',
    'background',
    'link',
    'link',
    'unlink',
    'reverse',
    'there-and-back',
    'repeat',
    'stretch',
    'slide',
    'trim',
    'take-out',
    'keep',
    'move-key',
    'take',
    'paste',
    'pin',
    'beat',
  ),
  frame: fc.nat(40),
  n: fc.integer({ min: 1, max: 4 }),
})

/** The operations of an edit, or none when it says no: whatever it says yes to must be possible. */
const allowed = (step: Proposal | null): readonly Operation[] => (step?.ok ? step.ops : [])

function opsOf(
  document: ShotDocument,
  { act: what, frame: wished, n }: Act,
  newId: () => string,
): readonly Operation[] {
  const take = takeOf(document)
  const frame = wished % take.length
  const layer = what === 'background' ? FIRST.background : FIRST.drawn
  const here = edits.sourceAt(document, take, layer, frame)
  const pair = keysAround(document, take, layer, frame)
  const following = wished % 3 ? 'ripple' : 'stay'
  const manner: Manner = { following, room: ROOMS[n] ?? 'free' }
  const marked = {
    layers: n % 2 ? [layer] : [FIRST.drawn, FIRST.background],
    from: frame,
    to: Math.min(take.length, frame + n * 2),
  }
  switch (what) {
    case 'new':
    case 'background':
      return allowed(edits.putNewDrawing(document, take, layer, frame, n, null, 'key', newId, { manner }))
    case 'copy':
      return allowed(edits.putNewDrawing(document, take, layer, frame, n, here, 'inbetween', newId, { manner }))
    case 'share':
      return here ? allowed(edits.shareDrawing(document, take, here, frame, n, { manner })) : []
    case 'own':
      return allowed(edits.ownCopy(document, take, layer, frame, newId))
    case 'remove':
      return allowed(edits.removeExposure(document, take, layer, frame))
    case 'clear':
      return here ? edits.clearDrawing(here) : []
    case 'draw':
      return here ? [{ kind: 'elements.add', drawing: here.id, elements: [sampleElement(newId())] }] : []
    case 'on':
      return allowed(edits.exposeSelection(document, take, [layer, FIRST.background], frame, frame + n * 3, n, manner))
    case 'hold':
      return allowed(edits.holdDrawing(document, take, layer, frame, n, manner))
    case 'insert':
      return [{ kind: 'frames.insert', take: take.id, at: frame, count: n, fill: {} }]
    case 'out':
      return frame + n < take.length ? [{ kind: 'frames.remove', take: take.id, at: frame, count: n }] : []
    case 'link': {
      const to = Math.min(take.length, frame + 2 + n * 3)
      const pattern = columnOf(take, layer).slice(0, n)
      const cycle = { id: newId(), layer, from: frame, to: n > 3 ? null : to, offset: 0, pattern }
      const ops: Operation[] = [{ kind: 'cycle.add', take: take.id, cycle }]
      return applyBatch(document, ops).ok ? ops : []
    }
    case 'unlink':
      return Object.keys(take.cycles)
        .slice(0, 1)
        .map(id => ({ kind: 'cycle.remove', take: take.id, id }))
    case 'reverse':
    case 'there-and-back':
      return allowed(retime.retime(document, take, marked, { kind: what }, manner))
    case 'repeat':
      return allowed(retime.retime(document, take, marked, { kind: what, times: n }, manner))
    case 'stretch':
      return allowed(retime.retime(document, take, marked, { kind: what, frames: n * 3 }, manner))
    case 'slide':
      return allowed(retime.slide(document, take, marked, frame % 2 ? n : -n, ROOMS[n]))
    case 'trim':
      return allowed(retime.trim(document, take, layer, frame, n % 2 ? 'start' : 'end', manner))
    case 'take-out':
      return allowed(retime.takeOut(document, take, marked, manner))
    case 'keep':
      return n > 3 ? retime.keepOnly(take, marked.from, marked.to) : []
    case 'move-key':
      return here ? allowed(retime.moveKey(document, take, here.id, frame + n - 2, manner)) : []
    case 'take': {
      const id = newId()
      return [
        ...copyTake(document, take.id, id, 'slower', () => 'unused'),
        { kind: 'shot.set', patch: { current: id } },
      ]
    }
    case 'paste': {
      const clip = copyClip(document, take, 'here', { ...marked, layers: [FIRST.drawn, FIRST.background] })
      const how = n % 2 ? 'share' : 'copy'
      return allowed(pasteClip(document, take, 'here', clip, layer, (frame * 7) % take.length, how, manner, newId))
    }
    case 'pin': {
      if (!here) return []
      const beat = newId()
      return [
        { kind: 'beat.add', beat: { id: beat, name: 'step', frame } },
        { kind: 'pin.set', take: take.id, drawing: here.id, beat },
      ]
    }
    case 'beat': {
      const beat = Object.keys(document.beats)[0]
      return beat ? allowed(retime.moveBeat(document, beat, frame)) : []
    }
    default: {
      if (!pair) return []
      const preset = PRESETS[frame % PRESETS.length] ?? 'even'
      const make =
        what === 'make'
          ? makeDrawings(document, take, pair, presetWish(preset), n, n, newId, ROOMS[n])
          : setChart(document, take, pair, presetWish(preset), n, newId)
      return make.ok ? make.ops : []
    }
  }
}

/** Does the acts one after the other; with everything that undoes them, newest first. */
function evening(acts: readonly Act[]) {
  let document = sampleDocument()
  const undo: (readonly Operation[])[] = []
  let made = 0
  for (const one of acts) {
    const result = applyBatch(
      document,
      opsOf(document, one, () => `e${++made}`),
    )
    if (!result.ok) throw new Error(`${one.act} at ${one.frame}: ${result.refusal.code} ${result.refusal.what}`)
    document = result.document
    undo.unshift(result.inverse)
  }
  return { document, undo }
}

describe('its own copy', () => {
  test('of a drawing shown in several places: the others keep it, and the strokes are copies', () => {
    const base = sampleDocument()
    const take = takeOf(base)
    const layer = FIRST.drawn
    const shown = columnOf(take, layer).find(run => run.drawing !== null)
    const source = get(base.drawings, shown?.drawing as string)
    const shared = applyBatch(base, sure(edits.shareDrawing(base, take, source, take.length - 2, 2)).ops)
    if (!shared.ok) throw new Error(shared.refusal.code)
    const frame = takeOf(shared.document).length - 2
    let made = 0
    const own = sure(edits.ownCopy(shared.document, takeOf(shared.document), layer, frame, () => `own-${++made}`))
    const after = applyBatch(shared.document, own.ops)
    if (!after.ok) throw new Error('no copy was made')
    const column = columnOf(takeOf(after.document), layer)
    expect(column.filter(run => run.drawing === source.id).length).toBe(
      columnOf(takeOf(shared.document), layer).filter(run => run.drawing === source.id).length - 1,
    )
    const copy = get(after.document.drawings, own.drawing)
    expect(assetIds([{ kind: 'drawing.add', drawing: copy }])).toEqual(
      assetIds([{ kind: 'drawing.add', drawing: source }]),
    )
    expect(Object.keys(copy.elements)).not.toEqual(Object.keys(source.elements))
    expect(copy.number).not.toBe(source.number)
  })
})

describe('an evening at the sheet', () => {
  const acts = fc.array(act, { maxLength: 25 })

  test('no act is ever refused, and all of them are undone exactly', () => {
    fc.assert(
      fc.property(acts, all => {
        const { document, undo } = evening(all)
        const back = applyBatch(document, undo.flat())
        expect(back.ok && back.document).toEqual(sampleDocument())
      }),
      { numRuns: 400, seed: 31 },
    )
  })

  test('afterwards every layer is exposed from the first frame to the last, in plain form', () => {
    fc.assert(
      fc.property(acts, all => {
        const { document } = evening(all)
        expect(columnsCover(document)).toBe(true)
        expect(cyclesHold(document.takes)).toBe(true)
        for (const layer of layersInOrder(document)) {
          const column = columnOf(takeOf(document), layer.id)
          expect(plain(column)).toEqual(column)
          expect(lengthOf(column)).toBe(takeOf(document).length)
        }
      }),
      { numRuns: 300, seed: 33 },
    )
  })

  test('no number is written on two sheets of a layer', () => {
    fc.assert(
      fc.property(acts, all => {
        const numbers = numbersOn(evening(all).document, FIRST.drawn)
        expect(new Set(numbers).size).toBe(numbers.length)
      }),
      { numRuns: 200, seed: 35 },
    )
  })

  test('the queue asks only for blank drawings whose parents exist, and comes to an end', () => {
    fc.assert(
      fc.property(acts, all => {
        let { document } = evening(all)
        for (let i = 0; ; i++) {
          const [next] = drawingQueue(document, takeOf(document))
          if (!next) break
          expect(i).toBeLessThan(200)
          expect(Object.keys(next.drawing.elements)).toEqual([])
          for (const parent of [next.left, next.right]) {
            if (parent) expect(find(document.drawings, parent.id)).toBe(parent)
          }
          const drawn = applyBatch(document, [
            { kind: 'elements.add', drawing: next.drawing.id, elements: [sampleElement(`q${i}`)] },
          ])
          if (!drawn.ok) throw new Error(drawn.refusal.code)
          document = drawn.document
        }
      }),
      { numRuns: 200, seed: 37 },
    )
  })

  test('the light table never shows the present drawing, a blank one, or one twice', () => {
    fc.assert(
      fc.property(acts, fc.nat(30), fc.integer({ min: 0, max: 5 }), fc.boolean(), (all, wished, count, round) => {
        const { document } = evening(all)
        const take = takeOf(document)
        const frame = wished % take.length
        const loop = round ? { from: 0, to: take.length } : null
        for (const direction of [-1, 1] as const) {
          const ids = neighbours(document, take, FIRST.drawn, frame, direction, count, loop)
          expect(ids.length).toBeLessThanOrEqual(count)
          expect(new Set(ids).size).toBe(ids.length)
          for (const id of ids) expect(Object.keys(get(document.drawings, id).elements).length).toBeGreaterThan(0)
        }
      }),
      { numRuns: 200, seed: 39 },
    )
  })
})
