import { describe, expect, test } from '@jest/globals'
import { expectedOf } from '../../motion/table.ts'
import { copyClip, pasteClip } from '../acts/clip.ts'
import { changeGuide, freshGuide } from '../acts/guides.ts'
import { copyTake } from '../acts/takes.ts'
import { evenKey } from '../../path/path.ts'
import { applyBatch, refuse, type Operation } from '../operations/index.ts'
import { FIRST, freshDocument, newLayer } from './fresh.ts'
import { follows, guidePlan, guidesOf, pointsToFollow } from './guides.ts'
import type { ShotDocument } from './model.ts'
import { currentTake } from './selectors.ts'
import { get } from './table.ts'

const L = FIRST.drawn
const where = { take: FIRST.take, layer: L, from: 0 }
function after(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const paper = freshDocument({ width: 1280, height: 720, fps: 24, paper: '#fdfaf3' }, 48)
/** A walk from frame 1, and a chain that follows its hip from another frame on. */
function walked(from = 0, layer: string = L): ShotDocument {
  const withWalk = after(paper, [
    { kind: 'layer.add', layer: newLayer('other', 'other', 9) },
    ...freshGuide(paper, 'walk', where, 'walk'),
  ])
  const withChain = after(withWalk, freshGuide(withWalk, 'chain', { ...where, layer, from }, 'strap'))
  return after(withChain, changeGuide(get(withChain.guides, 'strap'), { drive: 'mark', follows: 'walk:hip' }))
}
const rootsOf = (document: ShotDocument, id = 'strap') => {
  const plan = guidePlan(document, get(document.guides, id))
  return plan.drawings.map((_, i) => expectedOf('chain', plan, i).marks.root)
}

describe('a chain on a point of another guide', () => {
  test('hangs on it on every drawing and goes round with it, begun wherever', () => {
    const document = walked()
    const walk = guidePlan(document, get(document.guides, 'walk'))
    const strap = guidePlan(document, get(document.guides, 'strap'))
    expect([strap.frames, strap.loops]).toEqual([walk.frames, true])
    const hips = walk.drawings.map((_, i) => expectedOf('walk', walk, i).marks.hip)
    const near = (place: object | undefined) =>
      Object.fromEntries(
        Object.entries(place ?? {}).flatMap(([k, v]) => (k === 'planted' ? [] : [[k, expect.closeTo(v, 6)]])),
      )
    rootsOf(document).forEach((root, i) => expect(root).toMatchObject(near(hips[i])))
    // Begun four frames later, its first drawing is where the walk is then; a whole turn later as if it had begun with it.
    expect(rootsOf(walked(4))[0]).toMatchObject(near(hips[2]))
    expect(rootsOf(walked(walk.frames))[0]).toMatchObject(near(hips[0]))
  })

  test('it is worked out anew when the walk changes, and once as long as nothing does', () => {
    const document = walked()
    const plan = guidePlan(document, get(document.guides, 'strap'))
    expect(guidePlan(document, get(document.guides, 'strap'))).toBe(plan)
    const moved = after(document, changeGuide(get(document.guides, 'walk'), { x: 700 }))
    expect(rootsOf(moved)[0]?.x).toBeGreaterThan(rootsOf(document)[0]?.x as number)
  })

  test('on a layer that moves otherwise it follows what is seen, and goes once', () => {
    const document = after(walked(0, 'other'), [
      {
        kind: 'path.set',
        take: FIRST.take,
        layer: 'other',
        path: {
          use: 'moves',
          keys: [evenKey(0, 30, -8)],
          speed: { x: 0, y: 0 },
          pivot: { x: 0, y: 0 },
          on: 1,
          whole: false,
          closes: null,
        },
      },
    ])
    const [still, carried] = [rootsOf(walked(0, 'other')), rootsOf(document)]
    expect(carried[0]?.x).toBeCloseTo((still[0]?.x as number) - 30, 6)
    expect(carried[0]?.y).toBeCloseTo((still[0]?.y as number) + 8, 6)
    expect(guidePlan(document, get(document.guides, 'strap')).loops).toBe(false)
  })

  test('one whose guide is gone, or has no such point, or is of another take, stands and says so', () => {
    const document = walked()
    const gone = after(document, [{ kind: 'guide.remove', id: 'walk' }])
    const strap = (patch: object) => after(document, changeGuide(get(document.guides, 'strap'), patch as never))
    for (const each of [gone, strap({ follows: 'walk:nose' }), strap({ follows: 'nothing:hip' })]) {
      expect(guidePlan(each, get(each.guides, 'strap')).told[0]).toContain('no place on two drawings')
    }
  })

  test('nothing may follow itself, by however many others', () => {
    const document = walked()
    const tail = after(document, freshGuide(document, 'chain', where, 'tail'))
    const following = after(tail, changeGuide(get(tail.guides, 'tail'), { drive: 'mark', follows: 'strap:tip' }))
    const [ring] = changeGuide(get(following.guides, 'strap'), { follows: 'tail:tip' })
    expect(refuse(following, ring as Operation)).toEqual({
      code: 'bad-value',
      what: 'what the guide follows: it follows itself',
    })
    const [own] = changeGuide(get(following.guides, 'strap'), { follows: 'strap:tip' })
    expect(refuse(following, own as Operation)?.code).toBe('bad-value')
    expect(follows(following, get(following.guides, 'tail'), 'walk')).toBe(true)
    const offered = (id: string) => pointsToFollow(following, get(following.guides, id)).map(({ guide }) => guide.id)
    expect([offered('strap'), offered('tail').sort(), offered('walk')]).toEqual([['walk'], ['strap', 'walk'], []])
    expect(pointsToFollow(following, get(following.guides, 'tail')).map(({ points }) => points)[0]).toContain('tip')
  })

  test('in a copied take, and in copied frames, it follows the copy', () => {
    const document = walked()
    let n = 0
    const newId = () => `c${++n}`
    const copied = after(document, copyTake(document, FIRST.take, 'slow', 'slower', newId))
    const [walk, strap] = ['walk', 'chain'].map(r => guidesOf(copied, 'slow').find(guide => guide.recipe === r))
    expect(strap?.numbers.follows).toBe(`${walk?.id}:hip`)
    expect(rootsOf(copied, strap?.id)).toEqual(rootsOf(document))

    const clip = copyClip(document, currentTake(document), 'shot', { layers: [L], from: 0, to: 16 })
    const pasted = pasteClip(document, currentTake(document), 'shot', clip, L, 16, 'copy', 'stay', newId)
    if (!pasted.ok) throw new Error(pasted.code)
    const there = guidesOf(after(document, pasted.ops), FIRST.take).filter(guide => guide.from === 16)
    expect(there.find(guide => guide.recipe === 'chain')?.numbers.follows).toBe(
      `${there.find(guide => guide.recipe === 'walk')?.id}:hip`,
    )
  })
})
