import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { drawingAt, lengthOf, plain, type Run } from '../../time/exposure.ts'
import { presetWish } from '../../chart/wish.ts'
import { evenKey, restingPath, type LayerPath } from '../../path/path.ts'
import { copyCycle, linkCycle, moveCycle, slideCycle } from './cycles.ts'
import { changeRate, changeSize, setScale } from './format.ts'
import { FIRST, freshDocument, newLayer } from '../model/fresh.ts'
import type { Proposal } from './proposal.ts'
import { isAnimated, isDelivered, type ShotDocument } from '../model/model.ts'
import { applyBatch, columnsCover, cyclesHold, refuse, type Operation } from '../operations/index.ts'
import { alikeIn, layerIntoDrawings, partToLayer } from './parts.ts'
import { freshGuide } from './guides.ts'
import { layPath } from './paths.ts'
import { layerOver, newPass, newPassOfAll, oldPasses } from './passes.ts'
import { drawingQueue } from '../model/queue.ts'
import { columnOf, currentTake, cycleAt, swatchesInOrder } from '../model/selectors.ts'
import { moveSwatch, replaceSwatch, shiftSwatches, strokesIn } from './swatches.ts'
import { tapExposures } from './taps.ts'
import { get } from '../model/table.ts'
import { sampleDrawing, sampleElement } from '../tests/sample.ts'

const L = FIRST.drawn
const sheet = (letters: string): Run[] =>
  plain([...letters].map(letter => ({ drawing: letter === '.' ? null : letter, frames: 1 })))

function after(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  // Whatever is done here is one step that is undone exactly.
  expect(applyBatch(result.document, result.inverse)).toMatchObject({ ok: true, document })
  expect(columnsCover(result.document) && cyclesHold(result.document.takes)).toBe(true)
  return result.document
}
const did = (document: ShotDocument, step: Proposal) => {
  if (!step.ok) throw new Error(step.code)
  return after(document, step.ops)
}

function shotOf(letters: string, fps = 24): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps, paper: '#fdfaf3' }, letters.length)
  const ids = [...new Set(letters)].filter(letter => letter !== '.')
  return after(fresh, [
    ...ids.map((id, i): Operation => {
      const role = id === id.toUpperCase() ? 'key' : 'inbetween'
      return { kind: 'drawing.add', drawing: { ...sampleDrawing(id, i + 1), role } }
    }),
    { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs: sheet(letters) },
  ])
}
const shown = (document: ShotDocument, layer: string = L) => {
  const column = columnOf(currentTake(document), layer)
  return Array.from({ length: lengthOf(column) }, (_, f) => drawingAt(column, f) ?? '.').join('')
}
const ids = () => {
  let n = 0
  return () => `new${++n}`
}

describe('a linked cycle and its neighbours', () => {
  const two = (() => {
    const base = shotOf('ab..........')
    const cycle = (id: string, from: number, to: number | null) => ({
      id,
      layer: L,
      from,
      to,
      offset: 0,
      pattern: sheet('ab'),
    })
    const other = { ...cycle('bag', 4, 8), layer: FIRST.background, pattern: [{ drawing: null, frames: 2 }] }
    return after(base, [
      ...[cycle('one', 2, 6), cycle('two', 8, null), other].map((one): Operation => ({
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: one,
      })),
    ])
  })()
  const take = currentTake(two)
  const moved = (to: { from?: number; to?: number | null }) =>
    moveCycle(two, take, get(take.cycles, 'one'), { from: 2, to: 6, ...to })

  test('it goes up to the next one, and no farther; those of other layers are not in its way', () => {
    expect(moved({ to: 8 }).ok).toBe(true)
    expect(moved({ to: 9 })).toEqual({ ok: false, code: 'crosses-cycle' })
    expect(moved({ from: 8, to: 10 })).toEqual({ ok: false, code: 'crosses-cycle' })
    expect(moved({ from: 0, to: 4 }).ok).toBe(true)
    expect(moved({ from: 5, to: 5 })).toEqual({ ok: false, code: 'nothing-left' })
    expect(moved({ from: -1 })).toEqual({ ok: false, code: 'nothing-left' })
  })

  test('one behind another is held off by its end', () => {
    const second = get(take.cycles, 'two')
    expect(moveCycle(two, take, second, { from: 6, to: null }).ok).toBe(true)
    expect(moveCycle(two, take, second, { from: 5, to: null })).toEqual({ ok: false, code: 'crosses-cycle' })
  })

  test('frames it leaves at its beginning hold what was before it', () => {
    expect(shown(did(two, moved({ from: 4, to: 8 })))).toBe('abbbabababab')
    expect(shown(did(two, moved({ from: 3, to: 6 })))).toBe('abbaba..abab')
  })
})

describe('linked cycles as a whole', () => {
  const base = shotOf('Pab.....Z...')
  const pattern = sheet('ab')
  const cycle = { id: 'y', layer: L, from: 1, to: 7, offset: 0, pattern }
  const linked = did(base, linkCycle(base, currentTake(base), cycle))
  const y = (document: ShotDocument) => get(currentTake(document).cycles, 'y')

  test('linking says which drawings it would cover, and past the end what it needs', () => {
    expect(shown(linked)).toBe('Pababab.Z...')
    const link = (to: number | null, room: 'free' | 'cover' | 'longer' = 'free') =>
      linkCycle(base, currentTake(base), { ...cycle, to }, room)
    expect(link(null)).toEqual({ ok: false, code: 'would-cover', drawings: ['Z'] })
    expect(shown(did(base, link(null, 'cover')))).toBe('Pabababababa')
    const tail = linkCycle(base, currentTake(base), { ...cycle, from: 9, to: 15 })
    expect(tail).toEqual({ ok: false, code: 'no-room', over: 3 })
    expect(shown(did(base, linkCycle(base, currentTake(base), { ...cycle, from: 9, to: 15 }, 'longer')))).toBe(
      'Pab.....Zababab',
    )
  })

  test('sliding moves it as a whole; what was before it is held', () => {
    const later = did(linked, slideCycle(linked, currentTake(linked), y(linked), 1))
    expect(shown(later)).toBe('PPabababZ...')
    expect(shown(did(later, slideCycle(later, currentTake(later), y(later), -1)))).toBe('PabababZZ...')
    expect(slideCycle(linked, currentTake(linked), y(linked), 2)).toMatchObject({ code: 'would-cover' })
    expect(slideCycle(linked, currentTake(linked), y(linked), -3)).toMatchObject({ code: 'nothing-left' })
  })

  test('beginning later leaves its end; entering at a frame leaves its place', () => {
    const begun = did(linked, moveCycle(linked, currentTake(linked), y(linked), { from: 3 }))
    expect(shown(begun)).toBe('PPPabab.Z...')
    const entered = did(linked, moveCycle(linked, currentTake(linked), y(linked), { offset: 1 }))
    expect(shown(entered)).toBe('Pbababa.Z...')
    const shorter = did(linked, moveCycle(linked, currentTake(linked), y(linked), { to: 3 }))
    expect(shown(shorter)).toBe('Pababab.Z...')
    expect(cycleAt(currentTake(shorter), L, 4)).toBeNull()
  })

  test('a copy is another cycle with its pattern', () => {
    const two = did(linked, copyCycle(linked, currentTake(linked), y(linked), 9, 'y2', 'longer'))
    expect(shown(two)).toBe('Pababab.Zababab')
    expect(Object.keys(currentTake(two).cycles).sort()).toEqual(['y', 'y2'])
  })
})

describe('another rate', () => {
  test('keeps the frames, or the seconds: at 12 instead of 24 everything takes half the frames, told what was rounded', () => {
    const base = after(shotOf('AAAAbbccDDDDDD..'), [
      { kind: 'beat.add', beat: { id: 'step', name: 'step', frame: 8 } },
      { kind: 'note.add', note: { id: 'n', from: 0, to: 8, text: 'Tilda looks up' } },
      { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 8 } },
    ])
    const frames = changeRate(base, 12, 'frames')
    expect(shown(did(base, frames.step))).toBe(shown(base))
    const { step, ...told } = changeRate(base, 12, 'seconds')
    const half = did(base, step)
    expect([shown(half), half.format.fps, half.beats.step?.frame, half.notes.n?.to, half.exposure]).toEqual([
      'AAbcDDD.',
      12,
      4,
      4,
      1,
    ])
    expect(currentTake(half).loop).toEqual({ from: 0, to: 4 })
    expect(told).toEqual({ frames: [16, 8], rounded: 0, exposures: 6, worstSeconds: 0 })
    const odd = changeRate(shotOf('AAAb'), 12, 'seconds')
    expect(odd).toMatchObject({ frames: [4, 2], rounded: 2, worstSeconds: 0.5 / 12 })
    expect(changeRate(shotOf('Abcd'), 6, 'seconds').step).toEqual({
      ok: false,
      code: 'too-little-room',
      frames: 1,
      needed: 4,
    })
  })

  test('there and back again is as before wherever whole frames allow, cycles and all', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 2, maxLength: 6 }),
        fc.nat(2),
        (holds, turns) => {
          const letters = holds.map((n, i) => 'abcdef'.charAt(i).repeat(n)).join('')
          let base = shotOf(letters + '.'.repeat(6), 12)
          if (turns > 0) {
            const cycle = {
              id: 'y',
              layer: L,
              from: letters.length,
              to: letters.length + 2 * turns,
              offset: 0,
              pattern: sheet('ab'),
            }
            base = did(base, linkCycle(base, currentTake(base), cycle))
          }
          const double = did(base, changeRate(base, 24, 'seconds').step)
          expect(currentTake(double).length).toBe(2 * currentTake(base).length)
          const back = did(double, changeRate(double, 12, 'seconds').step)
          expect(shown(back)).toBe(shown(base))
          expect(currentTake(back).cycles).toEqual(currentTake(base).cycles)
        },
      ),
    )
  })
})

const moving: LayerPath = {
  ...restingPath(640, 360),
  keys: [0, 4, 8].map(frame => ({ ...evenKey(frame, 5 * frame, frame), wish: presetWish('both') })),
  speed: { x: 6, y: 0 },
  on: 2,
  closes: 400,
}
const withPath = (document: ShotDocument) =>
  after(document, [{ kind: 'path.set', take: FIRST.take, layer: L, path: moving }])
const pathIn = (document: ShotDocument, layer: string = L) => get(currentTake(document).paths, layer)

test('layers that move go on as fast in a second at another rate, and as far in the picture at another size', () => {
  const base = withPath(shotOf('AAAAbbccDDDDDD..'))
  expect(pathIn(did(base, changeRate(base, 12, 'frames').step))).toEqual(moving)
  const half = pathIn(did(base, changeRate(base, 12, 'seconds').step))
  expect([half.keys.map(key => [key.frame, key.x]), half.speed, half.on]).toEqual([
    [
      [0, 0],
      [2, 20],
      [4, 40],
    ],
    { x: 12, y: 0 },
    1,
  ])
  // Its last place lies right behind the end of a shorter take as well.
  const late = after(base, [
    { kind: 'path.set', take: FIRST.take, layer: L, path: { ...moving, keys: [{ ...moving.keys[0]!, frame: 16 }] } },
  ])
  expect(pathIn(did(late, changeRate(late, 12, 'seconds').step)).keys[0]?.frame).toBe(8)
  const sized = (how: 'fit' | 'centre' | 'leave') => pathIn(after(base, changeSize(base, 1280, 1280, how)))
  expect(sized('leave')).toEqual(moving)
  expect(sized('centre')).toEqual({ ...moving, pivot: { x: 640, y: 640 } })
  expect(sized('fit')).toMatchObject({ speed: { x: 12 }, pivot: { x: 640, y: 640 }, closes: 800 })
  expect(sized('fit').keys[1]).toMatchObject({ frame: 4, x: 40, y: 8 })
})

test('guides lie over the same drawings at another size', () => {
  const base = after(shotOf('AA'), freshGuide(shotOf('AA'), 'bounce', { take: FIRST.take, layer: L, from: 0 }, 'g'))
  const was = get(base.guides, 'g').numbers as Record<string, number>
  const sized = (how: 'fit' | 'centre' | 'leave') =>
    get(after(base, changeSize(base, 1280, 1280, how)).guides, 'g').numbers
  expect(sized('leave')).toEqual(was)
  expect(sized('centre')).toEqual({ ...was, x: was.x! + 320, y: was.y! + 460, ground: was.ground! + 460 })
  expect(sized('fit')).toMatchObject({
    x: 2 * was.x!,
    y: 2 * was.y! + 280,
    radius: 2 * was.radius!,
    bounces: was.bounces,
  })
})

test('laying the path that is there, or one that rests where none is, is nothing to do', () => {
  const base = shotOf('AA')
  const take = currentTake(base)
  expect(layPath(take, L, null)).toEqual([])
  expect(layPath(take, L, restingPath(640, 360))).toEqual([])
  const moved = withPath(shotOf('AAAAAAAA'))
  expect(layPath(currentTake(moved), L, { ...moving })).toEqual([])
  expect(layPath(currentTake(moved), L, restingPath(640, 360))).toEqual([
    { kind: 'path.set', take: FIRST.take, layer: L, path: null },
  ])
})

test('another size scales to fit, centres, or leaves: strokes and marks alike', () => {
  const base = after(shotOf('AA'), [
    { kind: 'mark.add', mark: { id: 'nose', layer: L, name: 'nose', order: 1, kind: 'point' } },
    { kind: 'marks.place', drawing: 'A', places: { nose: { x: 320, y: 180, planted: true } } },
  ])
  const sized = (how: 'fit' | 'centre' | 'leave') => {
    const { format, drawings } = after(base, changeSize(base, 1280, 1280, how))
    const drawing = get(drawings, 'A')
    return [format.width, Object.values(drawing.elements)[0]?.matrix ?? null, drawing.marks.nose]
  }
  expect(sized('leave')).toEqual([1280, null, { x: 320, y: 180, planted: true }])
  expect(sized('centre')).toEqual([1280, [1, 0, 0, 1, 320, 460], { x: 640, y: 640, planted: true }])
  expect(sized('fit')).toEqual([1280, [2, 0, 0, 2, 0, 280], { x: 640, y: 640, planted: true }])
  // A metre grows along with what is drawn.
  const scaled = after(base, setScale(180, 1.5))
  const scales = (['fit', 'centre', 'leave'] as const).map(
    how => after(scaled, changeSize(scaled, 1280, 1280, how)).scale,
  )
  expect([scaled.scale, ...scales]).toEqual([120, 240, 120, 120])
  expect(after(scaled, setScale(1, null)).scale).toBeNull()
  for (const [px, metres] of [
    [0, 1],
    [1, 0],
    [Infinity, 1],
    [-5, 1],
  ] as const) {
    const [op] = setScale(px, metres)
    expect(refuse(base, op as Operation)?.what).toBe('scale')
  }
})

describe('a new pass', () => {
  const base = after(shotOf('AAbbAA'), [
    { kind: 'mark.add', mark: { id: 'nose', layer: L, name: 'nose', order: 1, kind: 'point' } },
    { kind: 'marks.place', drawing: 'A', places: { nose: { x: 3, y: 4, planted: false } } },
    { kind: 'layer.add', layer: newLayer('paint', 'paint', 0.5, { follows: L }) },
    {
      kind: 'chart.add',
      chart: {
        id: 'c',
        layer: L,
        from: 'A',
        to: 'b',
        part: 'nose',
        wish: { ease: 'even', strength: 0.5, thirds: false, points: [] },
        ticks: [],
      },
    },
  ])
  const two = after(base, newPass(base, L, 'the arm was too long', ids()))
  const fresh = Object.values(two.layers).find(layer => layer.name === 'figure' && layer.left === null)

  test('is blank sheets under the same numbers, with the timing, charts and marks; the old one stays, with the reason', () => {
    if (!fresh) throw new Error('no pass')
    const sheets = Object.values(two.drawings).filter(drawing => drawing.layer === fresh.id)
    expect(sheets.map(({ number, role, elements }) => [number, role, elements])).toEqual([
      [1, 'key', {}],
      [2, 'inbetween', {}],
    ])
    const [a, b] = sheets.map(drawing => drawing.id)
    expect(columnOf(currentTake(two), fresh.id).map(run => run.drawing)).toEqual([a, b, a])
    expect(Object.values(two.marks).filter(mark => mark.layer === fresh.id)).toHaveLength(1)
    expect(Object.values(two.charts).find(chart => chart.layer === fresh.id)).toMatchObject({ from: a, to: b })
    expect(Object.values(sheets[0]?.marks ?? {})).toEqual([{ x: 3, y: 4, planted: false }])
    const old = get(two.layers, L)
    expect([old.name, old.left, old.locked, isDelivered(old), isAnimated(old)]).toEqual([
      'figure · pass 1',
      { for: fresh.id, why: 'the arm was too long' },
      true,
      false,
      false,
    ])
    expect(get(two.layers, 'paint').left).not.toBeNull()
    expect(drawingQueue(two, currentTake(two)).map(item => item.drawing.id)).toEqual([a, b])
    // A step that nothing goes beyond is as long on the larger paper.
    const low = after(base, [{ kind: 'shot.set', patch: { ceiling: 12 } }])
    const k = 1280 / Math.max(base.format.width, base.format.height)
    expect(after(low, changeSize(low, 1280, 1280, 'fit')).ceiling).toBeCloseTo(12 * k, 9)
    expect(after(low, changeSize(low, 1280, 1280, 'centre')).ceiling).toBe(12)
  })

  test('moves as the old one does', () => {
    const moved = withPath(shotOf('AAbbAAbb'))
    const again = after(moved, newPass(moved, L, 'too stiff', ids()))
    const next = Object.values(again.layers).find(layer => layer.name === 'figure' && layer.left === null)
    expect([pathIn(again, next?.id), pathIn(again)]).toEqual([moving, moving])
  })

  test('of the whole shot, every layer that carries the action is begun afresh in one step', () => {
    const twoLayers = after(base, [{ kind: 'layer.add', layer: newLayer('bag', 'satchel', 3) }])
    const all = after(twoLayers, newPassOfAll(twoLayers, 'another height', ids()))
    const left = Object.values(all.layers).filter(layer => layer.left !== null)
    expect(left.map(layer => layer.name).sort()).toEqual(['figure · pass 1', 'paint · pass 1', 'satchel · pass 1'])
    expect(
      Object.values(all.layers)
        .filter(isAnimated)
        .map(layer => layer.name)
        .sort(),
    ).toEqual(['figure', 'satchel'])
  })

  test('can be begun again, and the older ones are known', () => {
    if (!fresh) throw new Error('no pass')
    let n = 100
    const three = after(
      two,
      newPass(two, fresh.id, 'too stiff', () => `third${++n}`),
    )
    const newest = Object.values(three.layers).find(layer => layer.name === 'figure')
    expect(oldPasses(three, newest?.id ?? '').map(layer => layer.name)).toEqual(['figure · pass 2', 'figure · pass 1'])
  })
})

test('finished art over blocks is shown in their time and counted; the blocks are not sent off', () => {
  const base = shotOf('AAbbAA')
  const over = after(base, layerOver(base, L, 'finished', 'above', false, ids()))
  const art = Object.values(over.layers).find(layer => layer.name === 'finished')
  if (!art) throw new Error('no layer')
  expect([art.order > get(over.layers, L).order, isAnimated(art), isDelivered(get(over.layers, L))]).toEqual([
    true,
    true,
    false,
  ])
  const queue = drawingQueue(over, currentTake(over))
  expect(queue.map(item => [item.drawing.layer, item.drawing.number, item.frame])).toEqual([
    [art.id, 1, 0],
    [art.id, 2, 2],
  ])
  const under = after(base, layerOver(base, L, 'shade', 'below', true, ids()))
  expect(Object.values(under.layers).find(layer => layer.name === 'shade')?.order).toBeLessThan(1)
  expect(isDelivered(get(under.layers, L))).toBe(true)
})

describe('a part on a layer of its own', () => {
  const copied = (id: string) => ({ ...sampleElement(id), samples: 's-body' })
  const base = after(shotOf('AAbbCC'), [
    ...['A', 'b', 'C'].map((drawing): Operation => ({
      kind: 'elements.add',
      drawing,
      elements: [copied(`body-${drawing}`)],
    })),
    { kind: 'elements.set', drawing: 'C', changes: [{ id: 'body-C', patch: { width: 9 } }] },
  ])
  const names = (document: ShotDocument, drawing: string) =>
    Object.keys(get(document.drawings, drawing).elements).sort()

  test('held, it lies there once, and is off every drawing on which it is alike', () => {
    const wish = { name: 'body', where: 'below', timing: 'held' } as const
    const parted = after(base, partToLayer(base, 'A', ['body-A'], wish, ids()))
    expect(['A', 'b', 'C'].map(id => names(parted, id))).toEqual([['A1'], ['b1'], ['C1', 'body-C']])
    const body = Object.values(parted.layers).find(layer => layer.name === 'body')
    expect(columnOf(currentTake(parted), body?.id ?? '').map(run => run.frames)).toEqual([6])
    // And back: every drawing it was shown with gets the strokes.
    let made = 0
    const back = layerIntoDrawings(parted, currentTake(parted), body?.id ?? '', L, () => `back${++made}`)
    const whole = after(parted, back ?? [])
    expect(['A', 'b', 'C'].map(id => names(whole, id).length)).toEqual([2, 2, 3])
    expect(Object.keys(whole.layers)).toEqual(Object.keys(base.layers))
  })

  test('its paint on a tied layer, and its marks, go along from every drawing on which it is alike', () => {
    const fill = (id: string) => ({ ...sampleElement(id), kind: 'shape' as const, samples: 's-fill' })
    const painted = after(base, [
      { kind: 'layer.add', layer: newLayer('paint', 'paint', 0.5, { follows: L }) },
      ...[1, 2].map((number): Operation => ({
        kind: 'drawing.add',
        drawing: {
          id: `p${number}`,
          layer: 'paint',
          number,
          role: 'key',
          elements: { [`f${number}`]: fill(`f${number}`), [`g${number}`]: sampleElement(`g${number}`) },
          marks: {},
        },
      })),
      { kind: 'mark.add', mark: { id: 'hip', layer: L, name: 'hip', order: 1, kind: 'point' } },
      { kind: 'marks.place', drawing: 'A', places: { hip: { x: 1, y: 2, planted: false } } },
    ])
    const wish = {
      name: 'body',
      where: 'below' as const,
      timing: 'held' as const,
      paint: [{ sheet: 'p1', elements: ['f1'] }],
      marks: ['hip'],
    }
    const parted = after(painted, partToLayer(painted, 'A', ['body-A'], wish, ids()))
    expect([names(parted, 'p1'), names(parted, 'p2'), names(parted, 'b')]).toEqual([['g1'], ['g2'], ['b1']])
    const body = Object.values(parted.layers).find(layer => layer.name === 'body')?.id
    const sheet = Object.values(parted.drawings).find(d => d.layer === body)
    expect(Object.keys(sheet?.elements ?? {}).sort()).toEqual(['body-A', 'f1'])
    expect([Object.values(sheet?.marks ?? {}), get(parted.drawings, 'A').marks]).toEqual([
      [{ x: 1, y: 2, planted: false }],
      {},
    ])
  })

  test('strokes of another layer are never alike, and a drawing with some of them only is not', () => {
    const other = after(base, [
      { kind: 'layer.add', layer: newLayer('bag', 'satchel', 5) },
      {
        kind: 'drawing.add',
        drawing: { id: 'z', layer: 'bag', number: 1, role: 'key', elements: { copy: copied('copy') }, marks: {} },
      },
    ])
    expect([...alikeIn(other, 'A', ['body-A']).keys()]).toEqual(['A', 'b'])
    expect(alikeIn(other, 'A', ['body-A', 'A1', 'gone']).get('A')).toEqual(['body-A', 'A1'])
    // Nothing that is asked for is on it: nothing is alike.
    expect([...alikeIn(other, 'A', ['gone'])]).toEqual([['A', []]])
    expect(partToLayer(other, 'A', ['gone'], { name: 'n', where: 'above', timing: 'held' }, ids())).toEqual([])
  })

  test('it lies right above or below the layer it comes from', () => {
    const orders = (where: 'above' | 'below', document: ShotDocument) => {
      const parted = after(
        document,
        partToLayer(document, 'A', ['body-A'], { name: 'body', where, timing: 'held' }, ids()),
      )
      return Object.values(parted.layers).find(layer => layer.name === 'body')?.order
    }
    expect([orders('above', base), orders('below', base)]).toEqual([2, 0.5])
    const between = after(base, [{ kind: 'layer.add', layer: newLayer('bag', 'satchel', 2) }])
    expect(orders('above', between)).toBe(1.5)
    const lowest = after(base, [{ kind: 'layer.set', id: FIRST.background, patch: { order: 7 } }])
    expect(orders('below', lowest)).toBe(0)
  })

  test('put back, strokes lie over those of the drawing or under them, as the layer did; each drawing takes what is shown when it is first seen', () => {
    const put = (order: number, letters = 'AAbbAA') => {
      const two = after(shotOf(letters), [
        { kind: 'layer.add', layer: newLayer('part', 'part', order) },
        ...['p', 'q'].map((id, i): Operation => ({
          kind: 'drawing.add',
          drawing: {
            id,
            layer: 'part',
            number: i + 1,
            role: 'key',
            elements: { [`${id}1`]: sampleElement(`${id}1`, 4), [`${id}2`]: sampleElement(`${id}2`, 9) },
            marks: {},
          },
        })),
        {
          kind: 'exposure.write',
          take: FIRST.take,
          layer: 'part',
          from: 0,
          runs: [
            { drawing: 'p', frames: 3 },
            { drawing: 'q', frames: 3 },
          ],
        },
      ])
      const ops = layerIntoDrawings(two, currentTake(two), 'part', L, ids())
      return after(two, ops ?? [])
    }
    const heights = (document: ShotDocument, id: string) =>
      Object.values(get(document.drawings, id).elements)
        .sort((a, b) => a.z - b.z)
        .map(element => element.id)
    const above = put(3)
    // A is first seen with p, b on its first frame as well.
    expect([heights(above, 'A'), heights(above, 'b')]).toEqual([
      ['A1', 'new1', 'new2'],
      ['b1', 'new3', 'new4'],
    ])
    expect(heights(put(0.5), 'A')).toEqual(['new1', 'new2', 'A1'])
    expect(Object.keys(above.layers).sort()).toEqual([L, FIRST.background].sort())
    // Nothing is put where nothing is shown.
    const late = put(3, '...AAA')
    expect(heights(late, 'A')).toHaveLength(3)
    const empty = put(3, 'AAAbbb')
    expect(empty.drawings['b'] && heights(empty, 'b')).toHaveLength(3)
  })

  test('a layer that something else still needs is not put back', () => {
    const part = after(base, [
      { kind: 'layer.add', layer: newLayer('part', 'part', 3) },
      {
        kind: 'drawing.add',
        drawing: { id: 'p', layer: 'part', number: 1, role: 'key', elements: { p1: sampleElement('p1') }, marks: {} },
      },
    ])
    const back = (ops: readonly Operation[]) => {
      const document = after(part, ops)
      return layerIntoDrawings(document, currentTake(document), 'part', L, ids())
    }
    expect(back([])).not.toBeNull()
    expect(
      back([{ kind: 'mark.add', mark: { id: 'm', layer: 'part', name: 'm', order: 1, kind: 'point' } }]),
    ).toBeNull()
    expect(back([{ kind: 'layer.add', layer: newLayer('paint', 'paint', 2.5, { follows: 'part' }) }])).toBeNull()
    const cycle = { id: 'y', layer: 'part', from: 0, to: 4, offset: 0, pattern: [{ drawing: 'p', frames: 2 }] }
    expect(back([{ kind: 'cycle.add', take: FIRST.take, cycle }])).toBeNull()
    // A cycle, or a mark, of another layer is nothing to it.
    expect(
      back([
        { kind: 'cycle.add', take: FIRST.take, cycle: { ...cycle, layer: L, pattern: sheet('ab'.replace('a', 'A')) } },
      ]),
    ).not.toBeNull()
  })

  test('timed, each drawing has its part on a sheet of its number', () => {
    const wish = { name: 'body', where: 'above', timing: 'timed' } as const
    const parted = after(base, partToLayer(base, 'A', ['body-A'], wish, ids()))
    const body = Object.values(parted.layers).find(layer => layer.name === 'body')
    const column = columnOf(currentTake(parted), body?.id ?? '')
    expect(
      column.map(run => [run.drawing === null ? null : get(parted.drawings, run.drawing).number, run.frames]),
    ).toEqual([
      [1, 2],
      [2, 2],
      [null, 2],
    ])
  })
})

describe('colours of one’s own', () => {
  const base = shotOf('AAbb')
  const order = (document: ShotDocument) => swatchesInOrder(document).map(swatch => swatch.id)

  test('are put in order one place at a time, also where none had a place', () => {
    const unplaced: ShotDocument = {
      ...base,
      swatches: Object.fromEntries(Object.entries(base.swatches).map(([id, swatch]) => [id, { ...swatch, order: 0 }])),
    }
    expect(order(unplaced)).toEqual(order(base))
    for (const document of [base, unplaced]) {
      const moved = after(document, moveSwatch(document, 'leaf', -1))
      expect(order(moved).slice(0, 3)).toEqual(['graphite', 'leaf', 'bark'])
      expect(order(after(moved, moveSwatch(moved, 'leaf', 1)))).toEqual(order(base))
    }
    expect(moveSwatch(base, 'graphite', -1)).toEqual([])
  })

  test('several are shifted together in one step; what no shift changes, and what is not there, is left out', () => {
    const darker = { lightness: -20, chroma: 0, hueDeg: 0 }
    const ops = shiftSwatches(base, ['leaf', 'moss', 'gone'], darker)
    expect(ops.map(op => op.kind === 'swatch.set' && op.id)).toEqual(['leaf', 'moss'])
    const shifted = after(base, ops)
    expect(shifted.swatches.leaf?.colour).not.toBe(base.swatches.leaf?.colour)
    expect(shifted.swatches.bark).toBe(base.swatches.bark)
    expect(shiftSwatches(base, ['leaf'], { lightness: 0, chroma: 0, hueDeg: 0 })).toEqual([])
  })

  test('one that goes gives its strokes to another', () => {
    const less = after(base, replaceSwatch(base, 'graphite', 'leaf'))
    expect([less.swatches.graphite, strokesIn(less, 'leaf')]).toEqual([undefined, 2])
  })
})

describe('taps while the film plays', () => {
  const tapped = (letters: string, taps: readonly number[]) => {
    const document = shotOf(letters)
    return shown(did(document, tapExposures(document, currentTake(document), L, taps, ids())))
  }

  test('become exposures: the drawings from there on begin where the taps fell', () => {
    expect(tapped('AAbbccdd....', [0, 3, 4, 9])).toBe('AAAbcccccddd')
    // Fewer taps than drawings: the rest follow as they were held.
    expect(tapped('AAbbccdd....', [0, 3])).toBe('AAAbbccddddd')
    // The tap falls into a drawing that began before.
    expect(tapped('AAbbccdd....', [3, 5, 8])).toBe('AAAbbcccdddd')
  })

  test('in any order, each once; what falls beside the shot is none', () => {
    expect(tapped('AAbbccdd....', [9, 0, 4, 3, 4, 0])).toBe('AAAbcccccddd')
    expect(tapped('AAbbccdd....', [-2, 0, 3, 12, 40])).toBe(tapped('AAbbccdd....', [0, 3]))
    const document = shotOf('AAbb')
    expect(tapExposures(document, currentTake(document), L, [-1, 4], ids())).toEqual({
      ok: false,
      code: 'nothing-left',
    })
  })

  test('numbers of new ones are free ones, one after the other; a gap before the first tap stays', () => {
    const document = shotOf('..AA....')
    const made = did(document, tapExposures(document, currentTake(document), L, [4, 5, 6, 7], ids()))
    expect(Object.values(made.drawings).map(drawing => [drawing.id, drawing.number, drawing.role])).toEqual([
      ['A', 1, 'key'],
      ['new1', 5, 'key'],
      ['new2', 6, 'key'],
      ['new3', 7, 'key'],
      ['new4', 8, 'key'],
    ])
    expect(shown(made)).toBe('..AAnew1new2new3new4')
    expect(tapped('..AAbb..', [3, 5])).toBe('..AAAbbb')
  })

  test('beyond the drawings there are new ones; in a cycle nothing is done', () => {
    expect(tapped('AA......', [0, 3, 6])).toMatch(/^AAA(new1){3}(new2){2}$/)
    const document = did(shotOf('ab......'), {
      ok: true,
      ops: [
        {
          kind: 'cycle.add',
          take: FIRST.take,
          cycle: { id: 'y', layer: L, from: 2, to: null, offset: 0, pattern: sheet('ab') },
        },
      ],
    })
    expect(tapExposures(document, currentTake(document), L, [1, 4], ids())).toEqual({
      ok: false,
      code: 'crosses-cycle',
    })
    expect(tapExposures(document, currentTake(document), L, [], ids())).toMatchObject({ ok: false })
  })
})
