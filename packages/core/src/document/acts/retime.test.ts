import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { presetWish } from '../../chart/index.ts'
import { drawingAt, lengthOf, plain, type Run } from '../../time/exposure.ts'
import { copyClip, pasteClip } from './clip.ts'
import { newLayer, FIRST, freshDocument } from '../model/fresh.ts'
import { RECIPES } from '../../motion/table.ts'
import { freshGuide } from './guides.ts'
import { recipeShot } from '../model/guides.ts'
import { withPattern } from './layerForm.ts'
import type { Proposal } from './proposal.ts'
import { makeDrawings, setPartChart } from './make.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { drawingQueue } from '../model/queue.ts'
import * as retime from './retime.ts'
import type { Manner, Room } from './room.ts'
import { chartBetween, columnOf, currentTake, cycleAt, keysAround } from '../model/selectors.ts'
import { exposeSelection, holdDrawing, putNewDrawing, removeExposure } from './sheetEdits.ts'
import { get } from '../model/table.ts'
import { copyTake, differencesInWords, timingDifferences, unexposedDrawings } from './takes.ts'
import { sampleDrawing, sampleElement, sure } from '../tests/sample.ts'

const L = FIRST.drawn
const LONGER: Manner = { following: 'ripple', room: 'longer' }
const takeOf = (document: ShotDocument): Take => currentTake(document)

function apply(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

function done(document: ShotDocument, step: Proposal): ShotDocument {
  if (!step.ok) throw new Error(step.code)
  return apply(document, step.ops)
}

const sheet = (letters: string): Run[] =>
  plain([...letters].map(letter => ({ drawing: letter === '.' ? null : letter, frames: 1 })))

/** A shot whose drawn layer shows the letters, one a frame; capitals are keys. */
function shotOf(letters: string): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, letters.length)
  const ids = [...new Set(letters)].filter(letter => letter !== '.')
  return apply(fresh, [
    ...ids.map((id, i): Operation => {
      const role = id === id.toUpperCase() ? 'key' : 'inbetween'
      return { kind: 'drawing.add', drawing: { ...sampleDrawing(id, i + 1), role } }
    }),
    { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs: sheet(letters) },
  ])
}

const shown = (document: ShotDocument, layer: string = L, take = takeOf(document)) => {
  const column = columnOf(take, layer)
  return Array.from({ length: lengthOf(column) }, (_, f) => drawingAt(column, f) ?? '.').join('')
}

const linked = (document: ShotDocument, from: number, to: number | null, letters: string, offset = 0) =>
  apply(document, [
    {
      kind: 'cycle.add',
      take: document.current,
      cycle: { id: 'y', layer: L, from, to, offset, pattern: sheet(letters) },
    },
  ])

describe('frames taken out where a linked cycle begins', () => {
  const cycled = linked(shotOf('abcabcab'), 0, null, 'abc')
  test('what stays shows what it showed: abcabcab, frames 2 to 5 kept, is bcab', () => {
    const kept = apply(cycled, retime.keepOnly(takeOf(cycled), 1, 5))
    expect(shown(kept)).toBe('bcab')
    expect(takeOf(kept).cycles.y?.offset).toBe(1)
    const headless = apply(cycled, retime.framesOut(takeOf(cycled), 0, 2))
    expect(shown(headless)).toBe('cabcab')
  })

  test('whatever is kept or cut off at the head, of any cycle, stays as it was; and it is undone exactly', () => {
    fc.assert(
      fc.property(fc.nat(7), fc.integer({ min: 1, max: 8 }), fc.nat(3), fc.nat(2), (from, n, start, offset) => {
        const document = linked(shotOf('abcabcabab'), start, null, 'abc', offset)
        const [was, to] = [shown(document), Math.min(10, from + n)]
        expect(shown(apply(document, retime.keepOnly(takeOf(document), from, to)))).toBe(was.slice(from, to))
        if (from > start) return
        const cut = applyBatch(document, retime.framesOut(takeOf(document), from, Math.min(n, 9 - from)))
        if (!cut.ok) throw new Error(cut.refusal.code)
        if (from + n > start)
          expect(shown(cut.document)).toBe(was.slice(0, from) + was.slice(from + Math.min(n, 9 - from)))
        expect(apply(cut.document, cut.inverse)).toEqual(document)
      }),
    )
  })
})

describe('there and back', () => {
  const marked = (from: number, to: number) => ({ layers: [L], from, to })
  const back = (document: ShotDocument, from: number, to: number) =>
    shown(
      done(document, retime.retime(document, takeOf(document), marked(from, to), { kind: 'there-and-back' }, 'ripple')),
    )
  test('comes home, unless it is the loop, which shows the first drawing again by itself', () => {
    const base = shotOf('aabbcc......')
    expect(back(base, 0, 6)).toContain('aabbccbbaa')
    const looped = apply(base, [{ kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 6 } }])
    expect(back(looped, 0, 6)).toContain('aabbccbb')
    expect(back(looped, 0, 6)).not.toContain('aabbccbbaa')
    expect(back(linked(shotOf('abcabc..'), 0, 6, 'abc'), 0, 3)).toBe('abcbabcb')
  })
})

describe('moving a key', () => {
  const base = shotOf('AAbbccDDeeffGG')

  test('later: the drawings before it get the frames, those behind it give them', () => {
    expect(shown(done(base, retime.moveKey(base, takeOf(base), 'D', 9, 'stay')))).toBe('AAAbbbcccDefGG')
    expect(shown(done(base, retime.moveKey(base, takeOf(base), 'D', 4, 'stay')))).toBe('AbbcDDDeefffGG')
  })

  test('with a ripple everything behind it moves along', () => {
    const to = (frame: number, manner: Manner = 'ripple') => retime.moveKey(base, takeOf(base), 'D', frame, manner)
    // The shot keeps its length: what it ends on is held for less, or for longer.
    expect(shown(done(base, to(7)))).toBe('AAbbbccDDeeffG')
    expect(shown(done(base, to(3)))).toBe('AbcDDeeffGGGGG')
    expect(to(9)).toEqual({ ok: false, code: 'no-room', over: 3 })
    expect(shown(done(base, to(9, LONGER)))).toBe('AAAbbbcccDDeeffGG')
    const roomy = shotOf('AAbbccDDeeff..GG')
    expect(shown(done(roomy, retime.moveKey(roomy, takeOf(roomy), 'D', 8, 'ripple')))).toBe('AAAbbcccDDeeffGG')
  })

  test('is refused in words where there is no room', () => {
    const step = (frame: number) => retime.moveKey(base, takeOf(base), 'D', frame, 'stay')
    expect(step(2)).toEqual({ ok: false, code: 'too-little-room', frames: 2, needed: 3 })
    expect(step(11)).toEqual({ ok: false, code: 'too-little-room', frames: 1, needed: 3 })
    expect(step(12)).toEqual({ ok: false, code: 'past-a-key' })
    expect(retime.moveKey(base, takeOf(base), 'nobody', 3, 'stay')).toEqual({ ok: false, code: 'not-a-key' })
  })

  test('wherever it goes, nothing is lost, the order stays, and undo is exact', () => {
    fc.assert(
      fc.property(fc.nat(30), fc.constantFrom('stay' as const, 'ripple' as const), (frame, following) => {
        const step = retime.moveKey(base, takeOf(base), 'D', frame, following)
        if (!step.ok) return
        const result = applyBatch(base, step.ops)
        if (!result.ok) throw new Error(result.refusal.code)
        expect(columnOf(takeOf(result.document), L).map(run => run.drawing)).toEqual([...'AbcDefG'])
        const before = shown(result.document).indexOf('D')
        expect(before).toBe(frame)
        const back = applyBatch(result.document, result.inverse)
        expect(back.ok && back.document).toEqual(base)
      }),
    )
  })

  test('the inbetweens keep their chart: spacing is not timing', () => {
    const ids = (() => {
      let n = 0
      return () => `n${++n}`
    })()
    const two = shotOf('AAAAAAAAB')
    const pair = keysAround(two, takeOf(two), L, 0)
    if (!pair) throw new Error('no keys')
    const making = makeDrawings(two, takeOf(two), pair, presetWish('slow-in'), 3, 2, ids)
    if (!making.ok) throw new Error(making.code)
    const made = apply(two, making.ops)
    const moved = done(made, retime.moveKey(made, takeOf(made), 'B', 12, LONGER))
    expect(moved.charts).toBe(made.charts)
    expect(columnOf(takeOf(moved), L).map(run => run.frames)).toEqual([3, 3, 3, 3, 1])
  })

  test('a beat moves keys of the takes in which they are pinned to it, and of no others', () => {
    const document = apply(base, [
      { kind: 'beat.add', beat: { id: 'step', name: 'step', frame: 6 } },
      { kind: 'beat.add', beat: { id: 'clap', name: 'clap', frame: 3 } },
      ...copyTake(base, FIRST.take, 'slow', 'slower', () => 'unused'),
      { kind: 'pin.set', take: 'slow', drawing: 'D', beat: 'step' },
      { kind: 'pin.set', take: FIRST.take, drawing: 'D', beat: 'clap' },
    ])
    const moved = done(document, retime.moveBeat(document, 'step', 9))
    expect([shown(moved), shown(moved, L, get(moved.takes, 'slow'))]).toEqual([shown(base), 'AAAbbbcccDefGG'])
    expect(moved.beats.step?.frame).toBe(9)
    // Nothing is pinned to it: only the beat moves.
    const free = apply(base, [{ kind: 'beat.add', beat: { id: 'lone', name: 'lone', frame: 1 } }])
    expect(retime.moveBeat(free, 'lone', 4)).toEqual({
      ok: true,
      ops: [{ kind: 'beat.set', id: 'lone', patch: { frame: 4 } }],
    })
  })

  test('a beat takes its pinned key along, in every take', () => {
    let document = apply(base, [
      { kind: 'beat.add', beat: { id: 'step', name: 'step', frame: 6 } },
      { kind: 'pin.set', take: FIRST.take, drawing: 'D', beat: 'step' },
      ...copyTake(base, FIRST.take, 'slow', 'slower', () => 'unused'),
      { kind: 'pin.set', take: 'slow', drawing: 'D', beat: 'step' },
    ])
    document = done(document, retime.moveBeat(document, 'step', 9))
    expect([shown(document), shown(document, L, get(document.takes, 'slow'))]).toEqual([
      'AAAbbbcccDefGG',
      'AAAbbbcccDefGG',
    ])
    expect(retime.readPins(document, takeOf(document))).toEqual([{ drawing: 'D', beat: 'step', offFrames: 0 }])
    const late = done(document, retime.moveKey(document, takeOf(document), 'D', 8, 'stay'))
    expect(retime.readPins(late, takeOf(late))[0]?.offFrames).toBe(-1)
    expect(retime.moveBeat(document, 'step', 13)).toMatchObject({ ok: false })
  })
})

/** What a step leads to: what is shown then, or the code it is refused by. */
const answer = (document: ShotDocument, step: Proposal | readonly Operation[]): string => {
  if ('ok' in step) return step.ok ? shown(done(document, step)) : step.code
  return shown(apply(document, step as readonly Operation[]))
}

describe('where keys go, frame by frame', () => {
  const base = shotOf('AAbbCCddEE..')
  const to = (key: string, frames: readonly number[], following: 'stay' | 'ripple') =>
    frames.map(frame => answer(base, retime.moveKey(base, takeOf(base), key, frame, following)))

  test('what follows stays: both sides share out their frames, up to one for each drawing, never past a key', () => {
    expect(to('C', [1, 2, 3, 4, 5, 6, 7, 8], 'stay')).toEqual([
      'too-little-room',
      'AbCCCdddEE..',
      'AbbCCdddEE..',
      'AAbbCCddEE..',
      'AAbbbCddEE..',
      'AAAbbbCdEE..',
      'too-little-room',
      'past-a-key',
    ])
    expect(to('A', [0, 1, 3, 9], 'stay')).toEqual(['AAbbCCddEE..', '.AbbCCddEE..', 'too-little-room', 'past-a-key'])
    expect(to('E', [3, 9, 10, 12], 'stay')).toEqual(['past-a-key', 'AAbbCCdddE..', 'AAbbCCCdddE.', 'past-a-key'])
    expect(to('b', [3], 'stay')).not.toEqual(['AAbbCCddEE..'])
    expect(retime.moveKey(base, takeOf(base), 'gone', 3, 'stay')).toEqual({ ok: false, code: 'not-a-key' })
  })

  test('what follows moves: up to the end of the shot', () => {
    expect(to('C', [1, 2, 3, 4, 5, 6, 7], 'ripple')).toEqual([
      'too-little-room',
      'AbCCddEE....',
      'AbbCCddEE...',
      'AAbbCCddEE..',
      'AAbbbCCddEE.',
      'AAAbbbCCddEE',
      'no-room',
    ])
  })
})

describe('trimmed, taken out, kept', () => {
  const base = shotOf('AAAbbbCCC...')
  const take = takeOf(base)

  test('a drawing begins or ends on a frame; what follows moves up or stays', () => {
    const trim = (side: 'start' | 'end', frames: readonly number[], following: 'stay' | 'ripple') =>
      frames.map(frame => answer(base, retime.trim(base, take, L, frame, side, following)))
    expect(trim('start', [0, 2, 3, 4, 9], 'stay')).toEqual([
      'AAAbbbCCC...',
      '..AbbbCCC...',
      'AAAbbbCCC...',
      'AAA.bbCCC...',
      'AAAbbbCCC...',
    ])
    expect(trim('end', [0, 2, 4, 5], 'stay')).toEqual(['A..bbbCCC...', 'AAAbbbCCC...', 'AAAbb.CCC...', 'AAAbbbCCC...'])
    expect(trim('start', [2, 4], 'ripple')).toEqual(['AbbbCCC.....', 'AAAbbCCC....'])
    expect(trim('end', [0, 3], 'ripple')).toEqual(['AbbbCCC.....', 'AAAbCCC.....'])
  })

  test('frames are taken out of a layer and leave a gap, or are closed up', () => {
    const out = (from: number, to: number, following: 'stay' | 'ripple') =>
      answer(base, retime.takeOut(base, take, { layers: [L], from, to }, following))
    expect([out(0, 2, 'stay'), out(2, 5, 'stay'), out(8, 12, 'stay')]).toEqual([
      '..AbbbCCC...',
      'AA...bCCC...',
      'AAAbbbCC....',
    ])
    expect([out(0, 2, 'ripple'), out(2, 5, 'ripple'), out(3, 6, 'ripple')]).toEqual([
      'AbbbCCC.....',
      'AAbCCC......',
      'AAACCC......',
    ])
  })

  test('only some frames are kept of the shot, with cycles as far in as they were', () => {
    const kept = (from: number, to: number) => answer(base, retime.keepOnly(take, from, to))
    expect([kept(0, 12), kept(2, 12), kept(0, 5), kept(2, 5)]).toEqual(['AAAbbbCCC...', 'AbbbCCC...', 'AAAbb', 'Abb'])
    const cycled = apply(shotOf('AAbbC.......'), [
      {
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: { id: 'y', layer: L, from: 5, to: null, offset: 0, pattern: sheet('AbC') },
      },
    ])
    const of = (step: readonly Operation[]) => answer(cycled, step)
    expect([of(retime.keepOnly(takeOf(cycled), 2, 9)), of(retime.keepOnly(takeOf(cycled), 4, 7))]).toEqual([
      'bbCAbCA',
      'CAb',
    ])
    expect(
      [
        [0, 6],
        [5, 1],
        [5, 2],
        [4, 3],
        [8, 2],
      ].map(([at = 0, count = 0]) => of(retime.framesOut(takeOf(cycled), at, count))),
    ).toEqual(['bCAbCA', 'AAbbCbCAbCA', 'AAbbCCAbCA', 'AAbbCAbCA', 'AAbbCAbCAb'])
  })

  test('marked frames: the other way round, there and back, again, as long as wished', () => {
    const of = (what: retime.Retiming, following: 'stay' | 'ripple' = 'stay') =>
      answer(base, retime.retime(base, take, { layers: [L], from: 1, to: 5 }, what, following))
    expect(of({ kind: 'reverse' })).toBe('AbbAAbCCC...')
    expect(of({ kind: 'there-and-back' })).toBe('AAAbbAACC...')
    expect(of({ kind: 'there-and-back' }, 'ripple')).toBe('AAAbbAAbCCC.')
    expect(of({ kind: 'repeat', times: 2 })).toBe('would-cover')
    expect(of({ kind: 'repeat', times: 2 }, 'ripple')).toBe('no-room')
    expect(of({ kind: 'stretch', frames: 4 })).toBe('AAAbbbCCC...')
    expect(of({ kind: 'stretch', frames: 1 })).toBe('too-little-room')
    expect(of({ kind: 'stretch', frames: 2 }, 'ripple')).toBe('AAbbCCC.....')
  })
})

describe('sliding what is marked', () => {
  const base = apply(shotOf('AAbbCC......'), [
    { kind: 'layer.add', layer: newLayer('bag', 'satchel', 5) },
    { kind: 'drawing.add', drawing: { ...sampleDrawing('p', 9), layer: 'bag' } },
    {
      kind: 'cycle.add',
      take: FIRST.take,
      cycle: { id: 'y', layer: 'bag', from: 6, to: 9, offset: 0, pattern: [{ drawing: 'p', frames: 1 }] },
    },
  ])
  const slid = (layers: readonly string[], from: number, to: number, by: number) =>
    retime.slide(base, takeOf(base), { layers, from, to }, by)

  test('moves it on its layer, what was before holds up to it, what lies in its way is covered only if asked', () => {
    expect(shown(done(base, slid([L], 4, 6, 3)))).toBe('AAbbbbbCC...')
    expect(shown(done(base, slid([L], 4, 6, 1)))).toBe('AAbbbCC.....')
    // What is covered in part is still there; what would be gone is named.
    expect(shown(done(base, slid([L], 4, 6, -1)))).toBe('AAbCC.......')
    expect(slid([L], 4, 6, -2)).toMatchObject({ ok: false, code: 'would-cover' })
  })

  test('stops at linked cycles of the layers that are marked, and of no other', () => {
    const crossing = { ok: false, code: 'crosses-cycle' }
    expect(slid(['bag'], 2, 4, 3)).toEqual(crossing)
    expect(slid(['bag'], 2, 4, 2).ok).toBe(true)
    expect(slid(['bag'], 10, 12, -2)).toEqual(crossing)
    expect(slid(['bag'], 10, 12, -1).ok).toBe(true)
    expect(slid([L, 'bag'], 4, 6, 1)).toEqual(crossing)
    expect(slid([L], 4, 6, 3).ok).toBe(true)
  })
})

describe('a linked cycle on the sheet', () => {
  const base = linked(shotOf('Pbc.........Z'), 3, 12, 'bc')

  test('is edited in one place: a hold in any turn is a hold in every turn', () => {
    expect(shown(base)).toBe('PbcbcbcbcbcbZ')
    const held = done(base, holdDrawing(base, takeOf(base), L, 9, 2))
    // Nine frames were four turns and one over: the stretch keeps its frames.
    expect(shown(held)).toBe('PbcbbcbbcbbcZ')
  })

  test('whole turns stay whole: what follows moves', () => {
    const whole = linked(shotOf('Pbc........Z'), 3, 11, 'bc')
    expect(shown(whole)).toBe('PbcbcbcbcbcZ')
    const held = done(whole, holdDrawing(whole, takeOf(whole), L, 4, 3, LONGER))
    expect(shown(held)).toBe('PbcbcccbcccbcccbcccZ')
    const cycle = cycleAt(takeOf(held), L, 5)
    expect([cycle?.from, cycle?.to]).toEqual([3, 19])
    const twos = done(held, exposeSelection(held, takeOf(held), [L], 3, 5, 2, LONGER))
    expect(shown(twos)).toBe('PbcbbccbbccbbccbbccZ')
  })

  test('a new drawing in one turn is in all of them, and comes off all of them', () => {
    const edit = sure(putNewDrawing(base, takeOf(base), L, 5, 1, null, 'inbetween', () => 'n'))
    const more = apply(base, edit.ops)
    expect(shown(more)).toBe('PbcbncbncbncZ')
    // Three whole turns now: taking it off keeps three, and what follows moves up.
    expect(shown(apply(more, sure(removeExposure(more, takeOf(more), L, edit.frame)).ops))).toBe('PbcbcbcbcZ...')
  })

  test('its frames cannot be written one by one, nor its drawings removed', () => {
    const write: Operation = { kind: 'exposure.write', take: FIRST.take, layer: L, from: 4, runs: sheet('P') }
    expect(applyBatch(base, [write])).toMatchObject({ ok: false, refusal: { code: 'linked' } })
    const across = retime.retime(base, takeOf(base), { layers: [L], from: 2, to: 5 }, { kind: 'reverse' }, 'stay')
    expect(across).toEqual({ ok: false, code: 'crosses-cycle' })
    const turns = retime.retime(base, takeOf(base), { layers: [L], from: 3, to: 5 }, { kind: 'reverse' }, 'stay')
    expect(shown(done(base, turns))).toBe('PbccbcbcbcbcZ')
  })

  test('to the end of the shot it grows with the shot, and unlinked its frames stay', () => {
    const endless = linked(shotOf('bc......'), 2, null, 'bc', 1)
    expect(shown(endless)).toBe('bccbcbcb')
    const longer = apply(endless, [{ kind: 'frames.insert', take: FIRST.take, at: 8, count: 3, fill: {} }])
    expect(shown(longer)).toBe('bccbcbcbcbc')
    const free = apply(longer, [{ kind: 'cycle.remove', take: FIRST.take, id: 'y' }])
    expect(shown(free)).toBe(shown(longer))
    const write: Operation = { kind: 'exposure.write', take: FIRST.take, layer: L, from: 4, runs: sheet('b') }
    expect(shown(apply(free, [write]))).toBe('bccbbbcbcbc')
  })

  test('a pattern of nothing is refused', () => {
    const cycle = cycleAt(takeOf(base), L, 4)
    if (!cycle) throw new Error('no cycle')
    expect(withPattern(cycle, [], 13, true)).toBeNull()
  })
})

describe('takes', () => {
  const base = shotOf('AAbbCC')

  test('a copy is timed on its own, and the difference is told in words', () => {
    const two = apply(base, [
      ...copyTake(base, FIRST.take, 'slow', 'slower', () => 'unused'),
      { kind: 'shot.set', patch: { current: 'slow' } },
    ])
    const held = done(two, holdDrawing(two, takeOf(two), L, 2, 4, LONGER))
    const [one, other] = [get(held.takes, FIRST.take), get(held.takes, 'slow')]
    expect([shown(held, L, one), shown(held, L, other)]).toEqual(['AAbbCC', 'AAbbbbCC'])
    expect(differencesInWords(held, one, other)).toEqual(['2 frames longer', '2 held 2 frames longer'])
    expect(differencesInWords(held, other, one)).toEqual(['2 frames shorter', '2 held 2 frames shorter'])
    expect(differencesInWords(two, one, one)).toEqual(['the same timing'])
    const less = apply(held, sure(removeExposure(held, other, L, 3)).ops)
    expect(timingDifferences(less, one, takeOf(less))).toEqual([
      { layer: L, drawing: 'b', held: [2, 0], start: [2, null] },
    ])
  })

  test('a drawing that only another take shows is not lost; the current take cannot be thrown away', () => {
    const two = apply(
      base,
      copyTake(base, FIRST.take, 'slow', 'slower', () => 'unused'),
    )
    const removed = apply(two, sure(removeExposure(two, takeOf(two), L, 2)).ops)
    expect(Object.keys(removed.drawings)).toContain('b')
    expect(applyBatch(two, [{ kind: 'take.remove', id: FIRST.take }])).toMatchObject({
      refusal: { code: 'current-take' },
    })
    const only = apply(removed, [{ kind: 'take.remove', id: 'slow' }])
    expect(unexposedDrawings(only)).toEqual(['b'])
  })
})

describe('copying and pasting stretches', () => {
  const base = apply(shotOf('AAbbCC......'), [
    { kind: 'layer.add', layer: newLayer('bag', 'satchel', 5) },
    { kind: 'mark.add', mark: { id: 'nose', layer: L, name: 'nose', order: 1, kind: 'point' } },
    { kind: 'marks.place', drawing: 'b', places: { nose: { x: 10, y: 20, planted: true } } },
  ])
  const clip = copyClip(base, takeOf(base), 'here', { layers: [L], from: 2, to: 6 })
  const ids = () => {
    let n = 0
    return () => `p${++n}`
  }
  const paste = (
    into: ShotDocument,
    layer: string,
    frame: number,
    how: 'share' | 'copy',
    stays = true,
    shot = 'here',
  ) => done(into, pasteClip(into, takeOf(into), shot, clip, layer, frame, how, stays ? 'stay' : 'ripple', ids()))

  test('as the same drawings on the same layer, as copies everywhere else', () => {
    expect(shown(paste(base, L, 8, 'share'))).toBe('AAbbCC..bbCC')
    const copied = paste(base, L, 8, 'copy')
    const [copy] = columnOf(takeOf(copied), L).slice(-2)
    expect(get(copied.drawings, copy?.drawing ?? '')).toMatchObject({
      number: 9,
      marks: { nose: { x: 10, y: 20, planted: true } },
    })
    const across = paste(base, 'bag', 0, 'share')
    expect(Object.values(across.drawings).filter(d => d.layer === 'bag')).toHaveLength(2)
    expect(Object.values(across.marks).map(m => `${m.layer} ${m.name}`)).toEqual([`${L} nose`, 'bag nose'])
  })

  test('with a ripple what is there moves; past the end the shot gets longer only when asked', () => {
    expect(shown(paste(base, L, 2, 'share', false))).toBe('AAbbCCbbCC..')
    const late = (room: Room) =>
      pasteClip(base, takeOf(base), 'here', clip, L, 10, 'share', { following: 'stay', room }, ids())
    expect(late('free')).toEqual({ ok: false, code: 'no-room', over: 2 })
    expect(shown(done(base, late('longer')))).toBe('AAbbCC....bbCC')
  })

  test('beside, before and in a linked cycle: on free frames, or in one turn for all of them, never half across', () => {
    const cycled = apply(shotOf('AABB..cD....'), [
      {
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: { id: 'y', layer: L, from: 6, to: 10, offset: 0, pattern: sheet('cA') },
      },
    ])
    expect(shown(cycled)).toBe('AABB..cAcA..')
    const at = (frames: number, frame: number, following: 'stay' | 'ripple') => {
      const held = copyClip(cycled, takeOf(cycled), 'here', { layers: [L], from: 0, to: frames })
      const step = pasteClip(cycled, takeOf(cycled), 'here', held, L, frame, 'share', following, ids())
      if (step.ok) return shown(done(cycled, step))
      return step.code === 'would-cover' ? `covers ${step.drawings.join()}` : step.code
    }
    const all = (frames: number, following: 'stay' | 'ripple') =>
      [0, 2, 4, 5, 6, 7, 8, 9, 10, 11].map(frame => at(frames, frame, following))
    expect(all(1, 'stay')).toEqual([
      'AABB..cAcA..',
      'AAAB..cAcA..',
      'AABBA.cAcA..',
      'AABB.AcAcA..',
      'covers c',
      'AABB..cAcA..',
      'covers c',
      'AABB..cAcA..',
      'AABB..cAcAA.',
      'AABB..cAcA.A',
    ])
    expect(all(1, 'ripple')).toEqual([
      'AAABB.cAcA..',
      'AAABB.cAcA..',
      'AABBA.cAcA..',
      'AABB.AcAcA..',
      'AABB..AcAcA.',
      'crosses-cycle',
      'crosses-cycle',
      'crosses-cycle',
      'AABB..cAcAA.',
      'AABB..cAcA.A',
    ])
    expect(all(2, 'stay')).toEqual([
      'AABB..cAcA..',
      'covers B',
      'AABBAAcAcA..',
      'crosses-cycle',
      'covers c',
      'crosses-cycle',
      'covers c',
      'crosses-cycle',
      'AABB..cAcAAA',
      'no-room',
    ])
    expect(all(4, 'stay')).toEqual([
      'AABB..cAcA..',
      'AAAABBcAcA..',
      ...Array<string>(6).fill('crosses-cycle'),
      'no-room',
      'no-room',
    ])
  })

  test('guides that begin in it come along, with what was laid by them where all of it is copied', () => {
    const at = { take: FIRST.take, layer: L, from: 2 }
    const guided = apply(base, [
      ...freshGuide(base, 'chain', at, 'tail'),
      ...freshGuide(base, 'bounce', { ...at, from: 7 }, 'late'),
      { kind: 'guide.set', id: 'tail', patch: { laid: { drawings: ['b', 'C'], beats: [] } } },
      {
        kind: 'guide.set',
        id: 'tail',
        patch: { numbers: { ...RECIPES.chain.defaults(recipeShot(base)), follows: 'nose' } },
      },
    ])
    const taken = copyClip(guided, takeOf(guided), 'here', { layers: [L], from: 2, to: 6 })
    expect(taken.guides.map(({ id, from }) => [id, from])).toEqual([['tail', 0]])
    const across = (into: ShotDocument, layer: string, how: 'share' | 'copy', frame = 1) =>
      done(into, pasteClip(into, takeOf(into), 'here', taken, layer, frame, how, 'stay', ids()))
    const there = across(guided, 'bag', 'copy')
    const copy = Object.values(there.guides).find(guide => guide.layer === 'bag')
    const sheets = Object.values(there.drawings).filter(drawing => drawing.layer === 'bag')
    expect([copy?.from, copy?.laid.drawings]).toEqual([1, sheets.map(sheet => sheet.id)])
    expect(there.marks[copy?.numbers.follows as string]).toMatchObject({ layer: 'bag', name: 'nose' })
    // The same drawings again have their guide already; drawings that did not come along are not laid by the copy.
    expect(Object.keys(across(guided, L, 'share', 8).guides)).toEqual(['tail', 'late'])
    const half = copyClip(guided, takeOf(guided), 'here', { layers: [L], from: 2, to: 4 })
    const cut = done(guided, pasteClip(guided, takeOf(guided), 'here', half, 'bag', 0, 'copy', 'stay', ids()))
    expect(Object.values(cut.guides).find(guide => guide.layer === 'bag')?.laid.drawings).toEqual([])
    // A shot that is full of guides takes the drawings.
    const full = apply(guided, Array.from({ length: 58 }, (_, i) => freshGuide(base, 'boil', at, `g${i}`)).flat())
    expect(Object.keys(across(full, 'bag', 'copy').guides)).toHaveLength(60)
  })

  test('into another shot come its colours too', () => {
    const lamp = apply(base, [
      { kind: 'swatch.add', swatch: { id: 'ember', name: 'ember', colour: '#b0552a', order: 0 } },
      { kind: 'elements.add', drawing: 'b', elements: [{ ...sampleElement('glow'), swatch: 'ember' }] },
    ])
    const taken = copyClip(lamp, takeOf(lamp), 'here', { layers: [L], from: 2, to: 4 })
    const other = freshDocument(base.format, 6)
    const step = pasteClip(other, takeOf(other), 'there', taken, L, 0, 'share', 'stay', ids())
    const pasted = done(other, step)
    expect(pasted.swatches.ember).toMatchObject({ colour: '#b0552a' })
    expect(Object.values(pasted.drawings)[0]?.elements).not.toEqual({})
  })
})

describe('the queue of a whole shot', () => {
  function waiting(): ShotDocument {
    const base = shotOf('AAbbccDDeeFF')
    const blank: Operation[] = ['b', 'c', 'e', 'F'].map(id => ({
      kind: 'elements.remove',
      drawing: id,
      ids: [`${id}1`],
    }))
    return apply(base, [...blank, { kind: 'drawing.set', id: 'e', patch: { role: 'breakdown' } }])
  }
  const order = (document: ShotDocument, wish = {}) =>
    drawingQueue(document, takeOf(document), wish)
      .map(item => `${item.drawing.id}<${item.left?.id ?? ''}${item.right?.id ?? ''}`)
      .join(' ')

  test('keys, then breakdowns, then the rest; with the nearest drawn ones on either side', () => {
    expect(order(waiting())).toBe('F<D e<D b<AD c<AD')
  })

  test('straight ahead is the order of frames, with only the drawing before', () => {
    const ahead = apply(waiting(), [{ kind: 'shot.set', patch: { way: 'straight-ahead' } }])
    expect(order(ahead)).toBe('b<A c<A e<D F<D')
    const mixed = apply(waiting(), [{ kind: 'shot.set', patch: { way: 'mixed' } }])
    expect(order(mixed)).toBe('F<D e<D b<A c<A')
  })

  test('skipping leaves out, deferring puts at the end, a locked layer asks for nothing', () => {
    expect(order(waiting(), { skipped: new Set(['F']) })).toBe('e<D b<AD c<AD')
    expect(order(waiting(), { deferred: ['F', 'e'] })).toBe('b<AD c<AD F<D e<D')
    expect(order(waiting(), { layer: FIRST.background })).toBe('')
    expect(order(apply(waiting(), [{ kind: 'layer.set', id: L, patch: { locked: true } }]))).toBe('')
  })
})

describe('charts of parts', () => {
  test('lie beside the chart of the drawings, with the same drawings at other fractions', () => {
    const base = apply(shotOf('AAbbccddEE'), [
      { kind: 'mark.add', mark: { id: 'jaw', layer: L, name: 'jaw', order: 1, kind: 'point' } },
    ])
    const pair = keysAround(base, takeOf(base), L, 0)
    if (!pair) throw new Error('no keys')
    const made = apply(
      base,
      setPartChart(base, takeOf(base), pair, 'jaw', presetWish('slow-out'), () => 'jaw-chart'),
    )
    const chart = chartBetween(made, 'A', 'E', 'jaw')
    expect(chart?.ticks.map(tick => tick.drawing)).toEqual(['b', 'c', 'd'])
    expect(chartBetween(made, 'A', 'E')).toBeNull()
    expect(applyBatch(made, [{ kind: 'mark.remove', id: 'jaw' }])).toMatchObject({ refusal: { code: 'still-charted' } })
  })
})
