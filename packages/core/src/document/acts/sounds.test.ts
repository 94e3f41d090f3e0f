import { describe, expect, test } from '@jest/globals'
import { spreadWords } from '../../sound/words.ts'
import { FIRST } from '../model/fresh.ts'
import type { Sound } from '../model/model.ts'
import { currentTake } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { mediaUsed, refuse, type Operation } from '../operations/index.ts'
import { aSound, richDocument } from '../tests/rich.ts'
import { counting, done } from '../tests/done.ts'
import { sampleDocument } from '../tests/sample.ts'
import { changeRate } from './format.ts'
import {
  addSound,
  beatsHeld,
  changeSound,
  layWords,
  moveWordEdge,
  poseFrames,
  removeWords,
  soundsInOrder,
  trimSoundEnd,
  trimSoundStart,
  wordsInOrder,
} from './sounds.ts'

const MEDIA = 'cd'.repeat(32)

describe('sounds on a shot', () => {
  const laid = done(
    sampleDocument(),
    addSound(sampleDocument(), { id: 's', name: 'voice', media: MEDIA, seconds: 2.5 }, 6),
  )
  const sound = get(laid.sounds, 's')
  const after = (ops: readonly Operation[]) => get(done(laid, ops).sounds, 's')

  test("a recording is laid whole, below the tracks there are, and is not one's own until one says so", () => {
    expect(sound).toEqual({ ...aSound('s'), name: 'voice', media: MEDIA, seconds: 2.5, from: 6, use: 2.5, mine: false })
    const two = done(laid, addSound(laid, { id: 'r', name: 'rain', media: MEDIA, seconds: 9 }, 0))
    expect(soundsInOrder(two).map(one => [one.id, one.order])).toEqual([
      ['s', 0],
      ['r', 1],
    ])
    expect(mediaUsed(addSound(laid, { id: 'x', name: 'x', media: MEDIA, seconds: 1 }, 0))).toEqual([MEDIA])
    expect(mediaUsed([{ kind: 'sound.set', id: 's', patch: { gain: 1 } }])).toEqual([])
  })

  test('its beginning trimmed, what is heard stays on its moments; no farther than there is something of it', () => {
    // Six frames later at 24 a second: a quarter of a second is left out.
    expect(after(trimSoundStart(sound, 24, 12))).toMatchObject({ from: 12, skip: 0.25, use: 2.25 })
    const trimmed = after(trimSoundStart(sound, 24, 12))
    expect(trimSoundStart(trimmed, 24, 0)[0]).toMatchObject({ patch: { from: 6, skip: 0, use: 2.5 } })
    expect(trimSoundStart(sound, 24, 6)).toEqual([])
    expect(after(trimSoundStart(sound, 24, 999)).use).toBeGreaterThan(0)
    expect(after(trimSoundEnd(sound, 24, 30)).use).toBe(1)
    expect(trimSoundEnd(sound, 24, 500)).toEqual([])
    expect(after(trimSoundEnd(sound, 24, 0)).use).toBeCloseTo(1 / 24, 9)
  })

  test('changes are kept within bounds, and nothing is done where nothing changes', () => {
    expect(changeSound(sound, { gain: 1, name: 'voice' })).toEqual([])
    expect(after(changeSound(sound, { gain: 99 })).gain).toBe(4)
    expect(after(changeSound(sound, { skip: 2, use: 2 }))).toMatchObject({ skip: 2, use: 0.5 })
    expect(after(changeSound(sound, { muted: true, mine: true }))).toMatchObject({ muted: true, mine: true })
  })

  test('numbers out of bounds are refused by name', () => {
    const wrong: [Partial<Sound>, string][] = [
      [{ name: '' }, 'name of a sound'],
      [{ media: MEDIA.toUpperCase() }, 'recording of a sound'],
      [{ media: 'cd' }, 'recording of a sound'],
      [{ seconds: 0 }, 'length of a sound'],
      [{ seconds: 1e9 }, 'length of a sound'],
      [{ order: NaN }, 'track of a sound'],
      [{ from: 0.5 }, 'frame of a sound'],
      [{ from: 20_000 }, 'frame of a sound'],
      [{ skip: -1 }, 'part of a sound'],
      [{ use: 0 }, 'part of a sound'],
      [{ skip: 1 }, 'part of a sound'],
      [{ gain: 5 }, 'loudness of a sound'],
      [{ muted: 1 as never }, 'sound'],
    ]
    const said = wrong.map(([patch]) => refuse(laid, { kind: 'sound.add', sound: { ...aSound('t'), ...patch } })?.what)
    expect(said).toEqual(wrong.map(([, what]) => what))
    expect(refuse(laid, { kind: 'sound.add', sound: aSound('s') })?.code).toBe('id-taken')
    expect(refuse(laid, { kind: 'sound.remove', id: 'gone' })).toEqual({ code: 'unknown-sound', what: 'gone' })
  })

  test('at another rate sounds and words begin at the same moment', () => {
    const change = changeRate(done(laid, layWords(laid, spreadWords(['late'], 3, 4), counting())), 12, 'seconds')
    if (!change.step.ok) throw new Error(change.step.code)
    const half = done(done(laid, layWords(laid, spreadWords(['late'], 3, 4), counting())), change.step.ops)
    expect(half.sounds.s).toMatchObject({ from: 3, use: 2.5 })
    expect(wordsInOrder(half).map(word => [word.from, word.to])).toEqual([[2, 3]])
  })
})

describe('spoken words', () => {
  test('are laid over frames in the stead of those that lay there; an edge takes its neighbour along', () => {
    const first = done(richDocument(), layWords(richDocument(), spreadWords(['the', 'post'], 6, 16), counting()))
    // The word there was, on frames 4 to 9, is gone.
    expect(wordsInOrder(first).map(word => [word.text, word.from, word.to])).toEqual([
      ['the', 6, 10],
      ['post', 10, 16],
    ])
    const moved = done(first, moveWordEdge(first, 'id1', 'from', 12))
    expect(wordsInOrder(moved).map(word => [word.from, word.to])).toEqual([
      [6, 12],
      [12, 16],
    ])
    expect(moveWordEdge(first, 'id1', 'from', 10)).toEqual([])
    expect(moveWordEdge(first, 'nobody', 'from', 10)).toEqual([])
    expect(wordsInOrder(done(moved, removeWords(moved, ['id0', 'gone'])))).toHaveLength(1)
    expect(layWords(first, [], counting())).toEqual([])
    const word = { id: 'w', text: 'x', from: 2, to: 4 }
    const said = [{ to: 2 }, { from: -1 }, { text: '' }, { text: 'x'.repeat(99) }, { to: 20_001 }].map(
      patch => refuse(first, { kind: 'word.add', word: { ...word, ...patch } })?.what,
    )
    expect(said).toEqual([
      'frames of a word',
      'frames of a word',
      'text of a word',
      'text of a word',
      'frames of a word',
    ])
  })

  test('beats are held against the frames on which keys come into sight', () => {
    const document = richDocument()
    const take = currentTake(document)
    expect(take.id).toBe(FIRST.take)
    const poses = poseFrames(document, take)
    expect(poses.length).toBeGreaterThan(0)
    const held = beatsHeld(document, take, 2)
    expect(held.accents.map(one => one.frame)).toEqual([4, 9])
    for (const { frame, pose, offFrames } of held.accents) {
      if (pose !== null) expect([poses.includes(pose), pose - frame]).toEqual([true, offFrames])
    }
  })
})
