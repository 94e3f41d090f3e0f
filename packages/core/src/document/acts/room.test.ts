import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { drawingAt, lengthOf, plain, type Run } from '../../time/exposure.ts'
import { copyClip, pasteClip } from './clip.ts'
import { FIRST, freshDocument, newLayer } from '../model/fresh.ts'
import type { Proposal } from './proposal.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, columnsCover, cyclesHold, type Operation } from '../operations/index.ts'
import * as retime from './retime.ts'
import { ROOMS, type Manner, type Room } from './room.ts'
import { columnOf, currentTake } from '../model/selectors.ts'
import * as edits from './sheetEdits.ts'
import { get } from '../model/table.ts'
import { copyTake } from './takes.ts'
import { sampleDrawing } from '../tests/sample.ts'

const sheet = (letters: string): Run[] =>
  plain([...letters].map(letter => ({ drawing: letter === '.' ? null : letter, frames: 1 })))

function after(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

/** A shot whose layers l0, l1 … show letters, one a frame; on layer i they are followed by its number. */
function shotOf(...layers: string[]): ShotDocument {
  const length = Math.max(...layers.map(letters => letters.length))
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, length)
  return after(
    fresh,
    layers.flatMap((letters, i): Operation[] => {
      const layer = `l${i}`
      const ids = [...new Set(letters)].filter(letter => letter !== '.').map(letter => `${letter}${i}`)
      const runs = sheet(letters.padEnd(length, '.')).map(run => ({ ...run, drawing: run.drawing && run.drawing + i }))
      return [
        { kind: 'layer.add', layer: newLayer(layer, layer, i + 2) },
        ...ids.map((id, n): Operation => ({
          kind: 'drawing.add',
          drawing: { ...sampleDrawing(id, n + 1), layer },
        })),
        { kind: 'exposure.write', take: FIRST.take, layer, from: 0, runs },
      ]
    }),
  )
}

/** The frames of a layer as a plain table: one drawing (without its layer's number) or a dot each. */
const table = (take: Take, layer: string): string =>
  Array.from({ length: take.length }, (_, f) => (drawingAt(columnOf(take, layer), f) ?? '.').charAt(0)).join('')
const shown = (document: ShotDocument, layer = 'l0') => table(currentTake(document), layer)
const to = (room: Room): Manner => ({ following: 'ripple', room })
const did = (document: ShotDocument, step: Proposal) => {
  if (!step.ok) throw new Error(step.code)
  return after(document, step.ops)
}

describe('the shot keeps its length', () => {
  test('an edit over several layers makes it longer once, and only when asked', () => {
    const two = shotOf('aabb', 'ppqq')
    const repeat = (room: Room) =>
      retime.retime(
        two,
        currentTake(two),
        { layers: ['l0', 'l1'], from: 0, to: 2 },
        { kind: 'repeat', times: 2 },
        to(room),
      )
    expect(repeat('free')).toEqual({ ok: false, code: 'no-room', over: 2 })
    expect(['l0', 'l1'].map(layer => shown(did(two, repeat('longer')), layer))).toEqual(['aaaabb', 'ppppqq'])
    const ones = shotOf('abcdefghijk', 'lmnopqrstuv')
    const threes = edits.exposeSelection(ones, currentTake(ones), ['l0', 'l1'], 4, 7, 3, to('longer'))
    expect(currentTake(did(ones, threes)).length).toBe(17)
    const clip = copyClip(two, currentTake(two), 'here', { layers: ['l1', 'l0'], from: 0, to: 3 })
    const pasted = pasteClip(two, currentTake(two), 'here', clip, 'l1', 4, 'share', to('longer'), () => 'new')
    expect(['l0', 'l1'].map(layer => shown(did(two, pasted), layer))).toEqual(['aabbaab', 'ppqqppq'])
  })

  test('what becomes longer takes the next free frames; beyond them everything stays', () => {
    const base = shotOf('aabb..cc..dd')
    const hold = (frames: number, room: Room = 'free') =>
      edits.holdDrawing(base, currentTake(base), 'l0', 0, frames, to(room))
    expect(shown(did(base, hold(3)))).toBe('aaabb.cc..dd')
    expect(shown(did(base, hold(5)))).toBe('aaaaabbcc.dd')
    expect(shown(did(base, hold(1)))).toBe('abb...cc..dd')
    expect(hold(8)).toEqual({ ok: false, code: 'no-room', over: 2 })
    expect(shown(did(base, hold(8, 'longer')))).toBe('aaaaaaaabbccdd')
    expect(shown(did(base, hold(8, 'shorter')))).toBe('aaaaaaaabbcd'.replace('bbcd', 'bccd'))
    expect(shown(did(base, hold(3, 'all')))).toBe('aaabb..cc..dd')
    // Longer and shorter again is as before.
    const longer = did(base, hold(3))
    expect(shown(did(longer, edits.holdDrawing(longer, currentTake(longer), 'l0', 0, 2)))).toBe(shown(base))
  })

  test('holds give way in proportion, each keeps a frame; where they cannot, it is said by how much', () => {
    const base = shotOf('aabbbbcccccc')
    const hold = (frames: number) => edits.holdDrawing(base, currentTake(base), 'l0', 0, frames, to('shorter'))
    // Five frames more: four and six become two and three.
    expect(shown(did(base, hold(7)))).toBe('aaaaaaabbccc')
    expect(shown(did(base, hold(10)))).toBe('aaaaaaaaaabc')
    expect(hold(11)).toEqual({ ok: false, code: 'no-room', over: 9 })
    expect(shown(did(base, hold(2)))).toBe(shown(base))
    // Empty frames behind are taken first.
    const free = shotOf('aabbbb....')
    const held = edits.holdDrawing(free, currentTake(free), 'l0', 0, 7, to('shorter'))
    expect(shown(did(free, held))).toBe('aaaaaaabbb')
  })

  test('where what follows stays, what is shorter is held up to it, and what is longer covers it', () => {
    const base = shotOf('aabbbbcc')
    const stay = (frames: number, room: Room = 'free') =>
      edits.exposeSelection(base, currentTake(base), ['l0'], 0, 6, frames, { following: 'stay', room })
    expect(shown(did(base, stay(2)))).toBe('aabbbbcc')
    expect(shown(did(base, stay(1)))).toBe('abbbbbcc')
    expect(shown(did(base, stay(3)))).toBe('aaabbbcc')
  })

  test('a cycle to the end gives way down to one turn', () => {
    const start = shotOf('aab.......')
    const cycled = after(start, [
      {
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: {
          id: 'y',
          layer: 'l0',
          from: 3,
          to: null,
          offset: 0,
          pattern: [
            { drawing: 'b0', frames: 1 },
            { drawing: 'a0', frames: 2 },
          ],
        },
      },
    ])
    expect(shown(cycled)).toBe('aabbaabaab'.slice(0, 10))
    const hold = (frames: number) => edits.holdDrawing(cycled, currentTake(cycled), 'l0', 0, frames, to('free'))
    expect(shown(did(cycled, hold(4)))).toBe('aaaabbaaba')
    expect(shown(did(cycled, hold(6)))).toBe('aaaaaabbaa')
    expect(hold(7)).toEqual({ ok: false, code: 'no-room', over: 1 })
  })

  test('with what follows moved on all layers, all stays in step', () => {
    const two = shotOf('aabb', 'ppqq')
    const step = edits.holdDrawing(two, currentTake(two), 'l0', 0, 4, to('all'))
    expect(['l0', 'l1'].map(layer => shown(did(two, step), layer))).toEqual(['aaaabb', 'ppppqq'])
  })

  test('what would cover a drawing says which, and covers it only when asked', () => {
    const base = shotOf('aabbccdd')
    const stay = (room: Room) => edits.holdDrawing(base, currentTake(base), 'l0', 0, 5, { following: 'stay', room })
    expect(stay('free')).toEqual({ ok: false, code: 'would-cover', drawings: ['b0'] })
    expect(shown(did(base, stay('cover')))).toBe('aaaaacdd')
    const slide = (room: Room) => retime.slide(base, currentTake(base), { layers: ['l0'], from: 0, to: 2 }, 2, room)
    expect(slide('free')).toMatchObject({ code: 'would-cover', drawings: ['b0'] })
  })

  test('a loop over the whole take stays so, one that was retimed follows, another is left alone', () => {
    const base = shotOf('aabbcc......')
    const loop = (from: number, end: number) =>
      after(base, [{ kind: 'loop.set', take: FIRST.take, loop: { from, to: end } }])
    const threes = (document: ShotDocument, room: Room = 'free') =>
      currentTake(did(document, edits.exposeSelection(document, currentTake(document), ['l0'], 0, 6, 3, to(room)))).loop
    expect(threes(loop(0, 6))).toEqual({ from: 0, to: 9 })
    expect(threes(loop(0, 12))).toEqual({ from: 0, to: 12 })
    const full = after(shotOf('aabbcc'), [{ kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 6 } }])
    expect(threes(full, 'longer')).toEqual({ from: 0, to: 9 })
    const two = after(shotOf('aabbcc......', 'ppqqrr......'), [
      { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 6 } },
    ])
    expect(threes(two)).toEqual({ from: 0, to: 6 })
  })

  test('an open take ends with its last drawing, whichever way that goes', () => {
    const open = after(shotOf('aabbcc'), [{ kind: 'take.set', id: FIRST.take, patch: { open: true } }])
    const on = (n: number) => did(open, edits.exposeSelection(open, currentTake(open), ['l0'], 0, 6, n))
    expect([shown(on(3)), shown(on(1))]).toEqual(['aaabbbccc', 'abc'])
    const put = edits.putNewDrawing(open, currentTake(open), 'l0', 4, 2, null, 'key', () => 'n0')
    expect(put?.ok && shown(after(open, put.ops))).toBe('aabbccnn')
  })
})

describe('holds up to somewhere', () => {
  const base = shotOf('aa..bb...c..')
  test('to the next drawing, for one and for a stretch of them; up to a frame; to the end', () => {
    const take = currentTake(base)
    expect(shown(did(base, edits.holdToNext(base, take, ['l0'], 0, 1)))).toBe('aaaabb...c..')
    expect(shown(did(base, edits.holdToNext(base, take, ['l0'], 0, 12)))).toBe('aaaabbbbbccc')
    expect(shown(did(base, edits.holdUpTo(base, take, 'l0', 7, 8)))).toBe('aa..bbbb.c..')
    expect(shown(did(base, edits.holdUpTo(base, take, 'l0', 10, 12)))).toBe('aa..bb...ccc')
    expect(edits.holdUpTo(base, take, 'l0', 7, 12)).toEqual({ ok: false, code: 'would-cover', drawings: ['c0'] })
  })
})

/* A plain table of frames, and what each act means on it: the twin that the sheet is held against. */
const runsOf = (frames: string): string[] => frames.match(/(.)\1*/g) ?? []
const onN = (frames: string, n: number) =>
  runsOf(frames)
    .map(run => (run[0] === '.' ? run : (run[0] as string).repeat(n)))
    .join('')

/** Frames [a, b) replaced, and what follows moved up to the next free frames; null when it goes past the end. */
function movedOn(frames: string, a: number, b: number, put: string): string | null {
  let tail = frames.slice(b)
  let more = put.length - (b - a)
  if (more < 0) {
    const gap = tail.indexOf('.')
    const at = gap < 0 ? tail.length : gap
    tail = tail.slice(0, at) + '.'.repeat(-more) + tail.slice(at)
  }
  for (; more > 0 && tail.includes('.'); more--) tail = tail.replace('.', '')
  const out = frames.slice(0, a) + put + tail
  return more > 0 ? null : out
}

type Act = { what: string; at: number; n: number; layers: number; room: Room; stay: boolean }
const act: fc.Arbitrary<Act> = fc.record({
  what: fc.constantFrom('on', 'hold', 'reverse', 'back', 'repeat', 'stretch', 'slide', 'trim', 'out', 'paste', 'new'),
  at: fc.nat(30),
  n: fc.integer({ min: 1, max: 5 }),
  layers: fc.integer({ min: 1, max: 63 }),
  room: fc.constantFrom(...ROOMS),
  stay: fc.boolean(),
})
const letters = fc
  .array(fc.tuple(fc.constantFrom(...'abcdef..'), fc.integer({ min: 1, max: 4 })), { minLength: 3, maxLength: 8 })
  .map(runs => runs.map(([letter, n]) => letter.repeat(n)).join(''))
const shot = fc.tuple(
  fc.array(letters, { minLength: 1, maxLength: 6 }),
  fc.option(
    fc.record({ layer: fc.nat(5), from: fc.nat(9), turns: fc.integer({ min: 1, max: 3 }), open: fc.boolean() }),
  ),
)

function build([layers, cycle]: [string[], { layer: number; from: number; turns: number; open: boolean } | null]) {
  let document = shotOf(...layers)
  document = after(
    document,
    copyTake(document, FIRST.take, 'other', 'as it was', () => 'unused'),
  )
  const layer = `l${cycle ? cycle.layer % layers.length : 0}`
  const pattern = columnOf(currentTake(document), layer).slice(0, 3)
  if (cycle && lengthOf(pattern) * cycle.turns + cycle.from <= currentTake(document).length) {
    const end = cycle.open ? null : cycle.from + lengthOf(pattern) * cycle.turns
    const link: Operation = {
      kind: 'cycle.add',
      take: FIRST.take,
      cycle: { id: 'y', layer, from: cycle.from, to: end, offset: 0, pattern },
    }
    document = after(document, [link])
  }
  return document
}

/** Does an act; what it may lose is told with it. */
function doing(document: ShotDocument, { what, at, n, layers, room, stay }: Act) {
  const take = currentTake(document)
  const all = Object.keys(document.layers).filter(
    id => id.startsWith('l') && id !== FIRST.drawn && id !== FIRST.background,
  )
  const ids = all.filter((_, i) => (layers >> i) & 1)
  const on = ids.length ? ids : all.slice(0, 1)
  const from = at % take.length
  const end = Math.min(take.length, from + n * 2)
  const marked = { layers: on, from, to: end }
  const manner: Manner = { following: stay ? 'stay' : 'ripple', room }
  const one = on[0] as string
  const kinds = { reverse: 'reverse', back: 'there-and-back' } as const
  const step = (): Proposal | null => {
    switch (what) {
      case 'on':
        return edits.exposeSelection(document, take, on, from, end, n, manner)
      case 'hold':
        return edits.holdDrawing(document, take, one, from, n * 2, manner)
      case 'reverse':
      case 'back':
        return retime.retime(document, take, marked, { kind: kinds[what] }, manner)
      case 'repeat':
        return retime.retime(document, take, marked, { kind: 'repeat', times: n }, manner)
      case 'stretch':
        return retime.retime(document, take, marked, { kind: 'stretch', frames: n * 3 }, manner)
      case 'slide':
        return retime.slide(document, take, marked, at % 2 ? n : -n, room)
      case 'trim':
        return retime.trim(document, take, one, from, n % 2 ? 'start' : 'end', manner)
      case 'out':
        return retime.takeOut(document, take, marked, manner)
      case 'paste': {
        const clip = copyClip(document, take, 'here', { ...marked, layers: [one] })
        return pasteClip(document, take, 'here', clip, one, (at * 7) % take.length, 'share', manner, () => 'new')
      }
      default:
        return edits.putNewDrawing(document, take, one, from, n, null, 'key', () => 'N0', { manner })
    }
  }
  return {
    step: step(),
    on: ['hold', 'trim', 'paste', 'new'].includes(what) ? [one] : on,
    take,
    from,
    end,
    loses: what === 'out',
  }
}

describe('all acts of the sheet, on one to six layers with cycles and takes', () => {
  test('keep the length, drop nothing, change nothing elsewhere, and are undone exactly', () => {
    fc.assert(
      fc.property(shot, fc.array(act, { minLength: 1, maxLength: 6 }), (start, acts) => {
        let document = build(start)
        const other = get(document.takes, 'other')
        for (const one of acts) {
          const { step, on, take, loses } = doing(document, one)
          if (!step?.ok) continue
          const result = applyBatch(document, step.ops)
          if (!result.ok) throw new Error(`${one.what}: ${result.refusal.code} ${result.refusal.what}`)
          const now = get(result.document.takes, FIRST.take)
          expect(columnsCover(result.document) && cyclesHold(result.document.takes)).toBe(true)
          const mayGrow = one.room === 'longer' || one.room === 'all' || one.room === 'cover'
          if (mayGrow) expect(now.length).toBeGreaterThanOrEqual(take.length)
          else expect(now.length).toBe(take.length)
          // Other takes are not touched, nor other layers but for what is held at the end, or moved with all.
          expect(get(result.document.takes, 'other')).toEqual(other)
          for (const layer of Object.keys(document.layers)) {
            if (on.includes(layer)) continue
            const [was, is] = [columnOf(take, layer), columnOf(now, layer)]
            if (one.room !== 'all') {
              for (let f = 0; f < take.length; f++) expect(drawingAt(is, f)).toBe(drawingAt(was, f))
            }
            expect(new Set(is.map(run => run.drawing))).toEqual(new Set(was.map(run => run.drawing)))
          }
          if (!loses && one.room !== 'cover') {
            for (const layer of on) {
              const kept = new Set(columnOf(now, layer).map(run => run.drawing))
              for (const cycle of Object.values(now.cycles)) for (const run of cycle.pattern) kept.add(run.drawing)
              for (const run of columnOf(take, layer)) if (run.drawing) expect(kept.has(run.drawing)).toBe(true)
            }
          }
          const back = applyBatch(result.document, result.inverse)
          expect(back.ok && back.document).toEqual(document)
          document = one.what === 'new' ? document : result.document
        }
      }),
      { numRuns: 500, seed: 71 },
    )
  })

  test('where no cycle lies, each layer is what the plain table says', () => {
    fc.assert(
      fc.property(fc.array(letters, { minLength: 1, maxLength: 6 }), act, (layers, one) => {
        const document = shotOf(...layers)
        const moving = { ...one, stay: false, room: 'free' as const }
        const { step, on, take, from, end } = doing(document, moving)
        const expected = on.map(layer => {
          const frames = table(take, layer)
          const part = frames.slice(from, end)
          switch (one.what) {
            case 'on': {
              // Whole drawings that start there.
              const starts = [...frames].map((c, f) => c !== '.' && c !== frames[f - 1])
              const first = starts.findIndex((s, f) => s && f >= from && f < end)
              if (first < 0) return frames
              const last = starts.lastIndexOf(true, end - 1)
              let b = last
              while (frames[b] === frames[last]) b++
              return movedOn(frames, first, b, onN(frames.slice(first, b), one.n))
            }
            case 'hold': {
              let [a, b] = [from, from]
              while (a > 0 && frames[a - 1] === frames[from]) a--
              while (frames[b] === frames[from]) b++
              return movedOn(frames, a, b, (frames[from] as string).repeat(one.n * 2))
            }
            case 'reverse':
              return movedOn(frames, from, end, runsOf(part).reverse().join(''))
            case 'repeat':
              return movedOn(frames, from, end, part.repeat(one.n))
            case 'out':
              return movedOn(frames, from, end, '')
            default:
              return undefined
          }
        })
        if (expected.includes(undefined)) return
        if (expected.includes(null)) return expect(step?.ok).toBe(false)
        const now = currentTake(after(document, step?.ok ? step.ops : []))
        expect(step?.ok).toBe(true)
        expect(on.map(layer => table(now, layer))).toEqual(expected)
      }),
      { numRuns: 600, seed: 73 },
    )
  })
})
