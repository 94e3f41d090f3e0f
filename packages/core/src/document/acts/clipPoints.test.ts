import { describe, expect, test } from '@jest/globals'
import { FIRST } from '../model/fresh.ts'
import { guidePlan, recipeShot } from '../model/guides.ts'
import type { ClipPoint, SeenPlace, ShotDocument } from '../model/model.ts'
import { pointsOf, seenAt, seenOn, stepsOfSeen, usualStepOf, wayOfSeen } from '../model/seen.ts'
import { BY_HAND } from '../operations/clips.ts'
import { applyBatch, refuse } from '../operations/index.ts'
import { done } from '../tests/done.ts'
import { aClip, aPoint, richDocument } from '../tests/rich.ts'
import { addPoint, followedAnew, guideAlong, removeClip, withPlaces } from './clipPoints.ts'

const place = (s: number, x: number, sure = 0.9): SeenPlace => ({ s, x, y: 10, sure })
const point = (places: readonly SeenPlace[]): ClipPoint => ({ ...aPoint('beak'), places })
const rich: ShotDocument = richDocument()

describe('points that are followed through a clip', () => {
  test('a new one lies where the hand put it, behind those there are', () => {
    const [op] = addPoint(rich, aClip('walked'), { id: 'toe', name: 'toe' }, { s: 0.5, x: 3, y: 4 })
    expect(op).toMatchObject({ point: { clip: 'walked', order: 1, places: [{ s: 0.5, x: 3, y: 4, sure: BY_HAND }] } })
    expect(pointsOf(done(rich, [op!]), 'walked').map(({ id }) => id)).toEqual(['beak', 'toe'])
  })

  test('put right by hand it is followed on to the next place the hand said, and back only where there is none before', () => {
    const places = [place(0, 1, BY_HAND), place(1, 2), place(2, 3), place(3, 4, BY_HAND), place(4, 5)]
    expect(followedAnew(point(places), 1)).toEqual({ after: 1, before: 3 })
    expect(followedAnew(point(places.slice(1)), 1)).toEqual({ after: -Infinity, before: 3 })
    const [op] = withPlaces(point(places), [place(1, 22, BY_HAND), place(2, 33.337)], { after: 1, before: 3 })
    expect(op).toMatchObject({ patch: { places: [{ x: 1 }, { x: 22 }, { x: 33.34 }, { x: 4 }, { x: 5 }] } })
  })

  test('how far it usually goes a frame: each change of place by the frames it took, the middle one of them', () => {
    // On twos by 8 pixels of the clip, twice as large on the paper: 16 in two frames, 8 a frame; once 20 a frame.
    const xs = [0, 0, 8, 8, 16, 16, 24, 44, 44]
    const document = done(rich, [
      { kind: 'point.set', id: 'beak', patch: { places: xs.map((x, i) => place(i / 24, 20 + x / 1)) } },
    ])
    expect(usualStepOf(document, document.points.beak as ClipPoint)).toBeCloseTo(8, 9)
    const still = done(rich, [
      { kind: 'point.set', id: 'beak', patch: { places: [0, 1, 2].map(i => place(i / 24, 20)) } },
    ])
    expect(usualStepOf(still, still.points.beak as ClipPoint)).toBeNull()
  })

  test('it lies on the paper where its clip does, on the frames under which it is seen, and not where it was lost', () => {
    // The clip lies from the first frame on, twice as large; 24 frames a second.
    const document = done(rich, [
      { kind: 'point.set', id: 'beak', patch: { places: [0, 1, 2, 3, 12].map(i => place(i / 24, 20 + i)) } },
    ])
    const beak = document.points.beak as ClipPoint
    const { fps } = recipeShot(document)
    const frames = wayOfSeen(document, beak, 0, 20)
    expect(fps).toBe(24)
    expect(frames.map(({ frame, at }) => [frame, at.x]).slice(0, 4)).toEqual([0, 1, 2, 3].map(i => [i, 40 + 2 * i]))
    // Nothing was seen on pictures 4 to 11: it holds for a little, and is then not known.
    expect(seenOn(document, beak, 11)).toBeNull()
    expect(seenOn(document, beak, 12)).toEqual({ x: 64, y: 20 })
    expect(seenAt(beak, -1)).toBeNull()
    expect(stepsOfSeen(aClip('walked'), beak)).toEqual([2, 2, 2, 18])
  })

  test('its way is a guide, begun where it is seen first and laid over it', () => {
    const where = { take: FIRST.take, layer: FIRST.drawn, from: 4 }
    const far = done(rich, [{ kind: 'point.set', id: 'beak', patch: { places: [5, 6, 7].map(i => place(i / 24, i)) } }])
    const document = done(far, guideAlong(far, far.points.beak as ClipPoint, where, 'g'))
    const guide = document.guides.g!
    expect([guide.from, guide.numbers.follows, guide.numbers.x, guide.numbers.y]).toEqual([5, 'beak', 10, 20])
    // What was seen last holds for a tenth of a second: frames 5 to 9, on twos.
    expect(guidePlan(document, guide).drawings.map(({ name }) => name)).toEqual(['begins', null, 'ends'])
    // It goes along with what is found of the point later.
    const [op] = withPlaces(document.points.beak!, [place(8 / 24, 8), place(9 / 24, 30)], { after: 7 / 24, before: 1 })
    expect(guidePlan(done(document, [op!]), guide).drawings).toHaveLength(4)
    expect(guideAlong(rich, point([]), where, 'g')).toEqual([])
  })

  test('a clip goes with its points, and not without them', () => {
    expect(refuse(rich, { kind: 'clip.remove', id: 'walked' })?.code).toBe('still-tracked')
    const gone = done(rich, removeClip(rich, 'walked'))
    expect([gone.points, Object.keys(gone.clips)]).toEqual([{}, ['danced']])
  })

  test('places out of order, out of bounds, or too many are refused', () => {
    const set = (places: readonly SeenPlace[]) =>
      applyBatch(rich, [{ kind: 'point.set', id: 'beak', patch: { places } }]).ok
    expect(set([place(0, 1), place(0.5, 2)])).toBe(true)
    expect(set([place(0.5, 1), place(0.5, 2)])).toBe(false)
    expect(set([place(0, NaN)])).toBe(false)
    expect(set([{ ...place(0, 1), sure: 3 }])).toBe(false)
    expect(set(Array.from({ length: 1501 }, (_, i) => place(i / 100, 1)))).toBe(false)
    expect(refuse(rich, { kind: 'point.add', point: aPoint('x', 'nobody') })?.code).toBe('unknown-clip')
  })
})
