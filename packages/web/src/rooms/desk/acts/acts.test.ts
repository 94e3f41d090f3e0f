import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import {
  newLayer,
  applyBatch,
  currentTake,
  FIRST,
  freshDocument,
  get,
  openReplica,
  type Element,
  type Operation,
} from '@unhurried/core/document'
import { presetWish } from '@unhurried/core/chart'
import { Batch } from '@unhurried/contract'
import { LOCKED, LOCKED_GUIDE } from '../../../words/refusals.ts'
import { createPinia, setActivePinia } from 'pinia'
import { markRaw, nextTick } from 'vue'
import { oneLine } from '../../../words/oneLine.ts'

/** The browser's storage, as far as the desk needs it. */
function storage() {
  const kept = new Map<string, string>()
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  }
}
Object.assign(globalThis, { localStorage: storage(), sessionStorage: storage() })
let clip: unknown
jest.unstable_mockModule('../../../local/copies.ts', () => ({
  keepEntries: async () => undefined,
  keepCopy: async () => undefined,
  copyOf: async () => undefined,
  copies: async () => [],
  forgetCopies: async () => undefined,
}))
jest.unstable_mockModule('../../../local/media.ts', () => ({
  keepMedia: async () => undefined,
  mediaHere: async () => undefined,
  unsentMedia: async () => [],
  mediaSent: async () => undefined,
  dropMedia: async () => undefined,
}))
jest.unstable_mockModule('../../../local/database.ts', () => ({
  keep: () => Promise.resolve(),
  forget: () => Promise.resolve(),
  keepHistory: () => Promise.resolve(),
  readHistory: () => Promise.resolve(undefined),
  leftover: () => Promise.resolve({ batches: [], samples: new Map() }),
  keepClip: (held: unknown) => Promise.resolve(void (clip = held)),
  readClip: () => Promise.resolve(clip),
}))

const { useShot } = await import('../../../stores/shot.ts')
const { useDesk } = await import('../../../stores/desk.ts')
const { useKit } = await import('../../../stores/kit.ts')
const { useLamp } = await import('../../../stores/lamp.ts')
const { useSight } = await import('../../../stores/sight.ts')
const { startAfresh } = await import('../../../stores/afresh.ts')
const { useActs } = await import('./acts.ts')
const { useAsking } = await import('../../../stores/asking.ts')
const { useGuides } = await import('../../../stores/guides.ts')
const { useGuideActs } = await import('./guideActs.ts')
const { usePathActs } = await import('./pathActs.ts')
const { useCarried } = await import('../../../stores/carried.ts')
const { useInForce } = await import('../../../stores/inForce.ts')

const L = FIRST.drawn
const element = (id: string): Element => ({
  id,
  kind: 'line',
  z: 1,
  samples: 's',
  part: null,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
})

/** A desk with drawings 1 (two frames) and 3 (four frames) of twelve, standing on the first frame. */
function desk() {
  setActivePinia(createPinia())
  const [shot, on, kit, sight] = [useShot(), useDesk(), useKit(), useSight()]
  const ops: Operation[] = [1, 3].map(number => ({
    kind: 'drawing.add',
    drawing: {
      id: `d${number}`,
      layer: L,
      number,
      role: 'key',
      elements: { [`e${number}`]: element(`e${number}`) },
      marks: {},
    },
  }))
  const runs = [
    { drawing: 'd1', frames: 2 },
    { drawing: 'd3', frames: 4 },
  ]
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)
  const result = applyBatch(fresh, [...ops, { kind: 'exposure.write', take: FIRST.take, layer: L, from: 0, runs }])
  if (!result.ok) throw new Error(result.refusal.code)
  shot.replica = markRaw(openReplica(0, result.document))
  shot.role = 'owner'
  startAfresh(0)
  const column = () => {
    const take = get(shot.document!.takes, FIRST.take)
    const written = get(take.columns, L).map(r => `${r.drawing ? shot.drawing(r.drawing)?.number : '-'}×${r.frames}`)
    return `${written.join(' ')} / ${take.length}`
  }
  return { shot, on, kit, sight, acts: useActs(), column }
}

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

describe('acts on the sheet', () => {
  test('new, copy and share put a drawing where one stands and go there; undo takes it away again', () => {
    const { shot, on, acts, column } = desk()
    on.goTo(8)
    acts.newDrawing('empty')
    expect([column(), on.frame, on.drawing?.role]).toEqual(['1×2 3×6 9×2 -×2 / 12', 8, 'key'])
    on.goTo(10)
    acts.newDrawing('copy')
    expect(on.drawing?.number).toBe(11)
    shot.undo()
    acts.share()
    expect(column()).toBe('1×2 3×6 9×4 / 12')
    shot.undo()
    shot.undo()
    expect(column()).toBe('1×2 3×4 -×6 / 12')
    expect(shot.redo()).not.toBeNull()
    expect(column()).toBe('1×2 3×6 9×2 -×2 / 12')
  })

  test('on ones re-exposes what is marked, or the drawing one stands on; what new drawings get is the shot’s to say', () => {
    const { on, acts, column } = desk()
    on.goTo(2)
    acts.sheet.exposeOn(1)
    expect([column(), on.exposure]).toEqual(['1×2 3×1 -×9 / 12', 2])
    acts.sheet.newDrawingsOn(3)
    expect([on.exposure, column()]).toEqual([3, '1×2 3×1 -×9 / 12'])
    on.goTo(0)
    acts.arrow(0, 1, true)
    acts.arrow(0, 1, true)
    expect(on.selection).toEqual({ layers: [L], from: 0, to: 3 })
    acts.sheet.exposeOn(3)
    expect(column()).toBe('1×3 3×3 -×6 / 12')
  })

  test('marking shrinks again towards where it began', () => {
    const { on, acts } = desk()
    on.goTo(5)
    for (const by of [1, 1, -1, -1, -1]) acts.arrow(0, by, true)
    expect(on.selection).toEqual({ layers: [L], from: 4, to: 6 })
    acts.arrow(0, 1, false)
    expect(on.selection).toBeNull()
  })

  test('holds, frames put in and taken out, and the loop', () => {
    const { shot, on, acts, column } = desk()
    acts.sheet.hold(1)
    expect(column()).toBe('1×3 3×4 -×5 / 12')
    acts.sheet.insertFrames()
    expect(column()).toBe('1×4 3×4 -×5 / 13')
    acts.sheet.removeFrames()
    expect(column()).toBe('1×3 3×4 -×5 / 12')
    on.goTo(4)
    acts.setLoop('from')
    on.goTo(9)
    acts.setLoop('to')
    expect(get(shot.document!.takes, FIRST.take).loop).toEqual({ from: 4, to: 10 })
    on.goTo(2)
    acts.setLoop('to')
    expect(get(shot.document!.takes, FIRST.take).loop).toEqual({ from: 2, to: 3 })
  })

  test('clear keeps the sheet, remove moves up what follows', () => {
    const { shot, acts, column } = desk()
    acts.clear()
    expect([column(), Object.keys(shot.drawing('d1')?.elements ?? { x: 1 })]).toEqual(['1×2 3×4 -×6 / 12', []])
    acts.remove()
    expect(column()).toBe('3×4 -×8 / 12')
  })
})

describe('acts on marked frames', () => {
  test('reverse, there and back, repeat, stretch and slide, with or without moving what follows', () => {
    const { shot, on, acts, column } = desk()
    on.selection = { layers: [L], from: 0, to: 6 }
    acts.sheet.retimeMarked({ kind: 'reverse' })
    expect(column()).toBe('3×4 1×2 -×6 / 12')
    shot.undo()
    acts.sheet.retimeMarked({ kind: 'repeat', times: 2 })
    expect(column()).toBe('1×2 3×4 1×2 3×4 / 12')
    shot.undo()
    on.following = 'stay'
    acts.sheet.retimeMarked({ kind: 'stretch', frames: 3 })
    // Frames that stay are filled by holding the last drawing.
    expect(column()).toBe('1×1 3×5 -×6 / 12')
    shot.undo()
    acts.sheet.slideBy(2)
    expect([column(), on.selection]).toEqual(['-×2 1×2 3×4 -×4 / 12', { layers: [L], from: 2, to: 8 }])
    on.following = 'ripple'
  })

  test('a stretch with fewer frames than drawings is told in words and changes nothing', () => {
    const { shot, on, acts, column } = desk()
    on.selection = { layers: [L], from: 0, to: 6 }
    acts.sheet.retimeMarked({ kind: 'stretch', frames: 1 })
    expect(shot.notice).toBe('1 frame is too few for 2 drawings; each needs at least one.')
    expect([column(), shot.history.undo]).toEqual(['1×2 3×4 -×6 / 12', []])
  })

  test('link, hold in a later turn, repeat to the end, and unlink', () => {
    const { shot, on, acts, column } = desk()
    on.selection = { layers: [L], from: 0, to: 6 }
    acts.sheet.link(2)
    expect([column(), on.cycle?.to]).toEqual(['1×2 3×4 1×2 3×4 / 12', 12])
    on.goTo(7)
    acts.sheet.hold(1)
    // There is no room: nothing is done until one way out is taken.
    expect(column()).toBe('1×2 3×4 1×2 3×4 / 12')
    const asking = useAsking()
    expect(asking.question?.choices.map(choice => choice.words)).toEqual(['make the shot 2 frames longer: 14 frames'])
    asking.question?.choices[0]?.take()
    expect([column(), asking.question]).toEqual(['1×3 3×4 1×3 3×4 / 14', null])
    expect(asking.answer).toBe('hold longer: 1 held 2 frames longer · 3 begins 1 later · the shot 2 frames longer: 14')
    acts.sheet.setCycle('to the end', { to: null })
    acts.sheet.insertFrames(3)
    expect(column()).toBe('1×3 3×4 1×3 3×4 1×3 / 17')
    acts.sheet.unlink()
    expect([on.cycle, column()]).toEqual([null, '1×3 3×4 1×3 3×4 1×3 / 17'])
    for (let i = 0; i < 5; i++) shot.undo()
    expect(column()).toBe('1×2 3×4 -×6 / 12')
  })

  test('a drawing begins or ends where one stands, and only marked frames are kept', () => {
    const { shot, on, acts, column } = desk()
    on.goTo(3)
    acts.sheet.trimAt('end')
    expect(column()).toBe('1×2 3×2 -×8 / 12')
    shot.undo()
    acts.sheet.trimAt('start')
    expect(column()).toBe('1×2 3×3 -×7 / 12')
    shot.undo()
    on.selection = { layers: [L], from: 1, to: 4 }
    acts.sheet.keepMarked()
    expect([column(), on.frame, on.selection]).toEqual(['1×1 3×2 / 3', 0, null])
  })

  test('copied frames are pasted as the same drawings, or as copies of their own', async () => {
    const { shot, on, acts, column } = desk()
    clip = undefined
    await acts.sheet.paste('share')
    expect(shot.notice).toBe('Nothing has been copied yet: mark frames on the sheet and copy them first.')
    expect(await acts.sheet.copy()).toBe(true)
    on.goTo(8)
    on.following = 'stay'
    await acts.sheet.paste('share')
    expect(column()).toBe('1×2 3×4 -×2 1×2 -×2 / 12')
    on.goTo(10)
    await acts.sheet.paste('copy')
    // Its number is taken on this layer: it gets that of its frame.
    expect(column()).toBe('1×2 3×4 -×2 1×2 11×2 / 12')
    await acts.sheet.cut()
    expect(column()).toBe('1×2 3×4 -×2 1×2 -×2 / 12')
    on.following = 'ripple'
  })

  test('a key is moved with what lies before it; a locked layer takes no edit and says so', () => {
    const { shot, on, acts, column } = desk()
    on.goTo(2)
    acts.sheet.nudgeKey(1)
    expect([column(), on.frame]).toEqual(['1×3 3×4 -×5 / 12', 3])
    shot.commit('lock', [{ kind: 'layer.set', id: L, patch: { locked: true } }])
    acts.sheet.exposeOn(1)
    expect([column(), on.mayEdit]).toEqual(['1×3 3×4 -×5 / 12', false])
    expect(shot.notice).toBe('This layer is locked. Unlock it to change it.')
  })

  test('marking goes over layers, and over the whole sheet', () => {
    const { on, acts } = desk()
    acts.arrow(1, 0, true)
    acts.arrow(0, 1, true)
    expect(on.selection).toEqual({ layers: [L, FIRST.background], from: 0, to: 2 })
    acts.sheet.markAll()
    expect(on.selection).toMatchObject({ from: 0, to: 12 })
  })
})

describe('what the desk answers and asks', () => {
  test('every act is answered in one line, also when nothing changed', () => {
    const { on, acts } = desk()
    const asking = useAsking()
    acts.sheet.hold(1)
    expect(asking.answer).toBe('hold longer: 1 held 1 frame longer · 3 begins 1 later · 12 frames as before')
    acts.sheet.exposeOn(3)
    expect(asking.answer).toBe('on threes: nothing changed, it is so already')
    acts.sheet.insertFrames(2)
    expect(asking.answer).toBe(
      'insert frames: 1 held 2 frames longer · 3 begins 2 later · the shot 2 frames longer: 14',
    )
    on.selection = { layers: [L], from: 0, to: 3 }
    acts.setRole('inbetween')
    expect(asking.answer).toBe('1 becomes inbetween')
    acts.undo()
    expect(asking.answer).toBe('undone: 1 becomes inbetween')
  })

  test('what does not fit is asked, with what each way does to the length; leaving it leaves it', () => {
    const { on, acts, column } = desk()
    const asking = useAsking()
    const words = () => asking.question?.choices.map(choice => choice.words)
    acts.sheet.holdFor(L, 0, 10, 2)
    expect([column(), asking.question?.why]).toEqual([
      '1×2 3×4 -×6 / 12',
      'It needs 2 frames more than there are free; the shot keeps its length unless you say so.',
    ])
    expect(words()).toEqual([
      'make the shot 2 frames longer: 14 frames',
      'shorten the holds that follow',
      'move later drawings on all layers: 20 frames',
    ])
    asking.drop()
    expect([column(), asking.question]).toEqual(['1×2 3×4 -×6 / 12', null])
    acts.sheet.holdFor(L, 0, 10, 2)
    asking.question?.choices[1]?.take()
    expect(column()).toBe('1×10 3×2 / 12')
    acts.undo()
    on.following = 'stay'
    acts.sheet.holdFor(L, 0, 8, 2)
    expect(asking.question?.why).toBe('3 would no longer be shown.')
    expect(words()).toEqual(['cover 3', 'let later drawings move'])
    on.following = 'ripple'
  })

  test('holds up to somewhere, a number shown here, the loop from what is marked, leaps', () => {
    const { shot, on, acts, column } = desk()
    on.goTo(8)
    acts.sheet.holdUp('here')
    expect(column()).toBe('1×2 3×7 -×3 / 12')
    acts.sheet.holdUp('end')
    expect(column()).toBe('1×2 3×10 / 12')
    acts.undo()
    acts.undo()
    on.selection = { layers: [L], from: 0, to: 6 }
    acts.sheet.holdNext()
    expect(column()).toBe('1×2 3×10 / 12')
    acts.undo()
    acts.sheet.loopMarked()
    expect(shot.take?.loop).toEqual({ from: 0, to: 6 })
    on.selection = null
    on.goTo(8)
    expect(acts.sheet.showNumber(1)).toBe(true)
    expect([column(), acts.sheet.showNumber(77), shot.notice]).toEqual([
      '1×2 3×6 1×2 -×2 / 12',
      false,
      'No drawing of this layer has the number 77.',
    ])
    acts.leap('last')
    expect(on.frame).toBe(11)
    acts.leap('second-up')
    expect(on.frame).toBe(0)
    acts.goToFrame()
    useAsking().question?.field?.take(5)
    expect(on.frame).toBe(4)
  })

  test('an open take ends with its last drawing and grows with the next, and is fixed by a press', () => {
    const { on, acts, column } = desk()
    acts.sheet.setOpen(true)
    expect(column()).toBe('1×2 3×4 / 6')
    on.goTo(2)
    acts.newDrawing('empty')
    expect(column()).toBe('1×2 3×4 7×2 / 8')
    acts.sheet.setOpen(false)
    acts.sheet.hold(1)
    expect([column(), useAsking().question]).not.toBeNull()
    expect(column()).toBe('1×2 3×4 7×2 / 8')
  })

  test('undoing what lies on another take says so first', () => {
    const { shot, acts, column } = desk()
    acts.sheet.hold(1)
    const take = get(shot.document!.takes, FIRST.take)
    shot.commit('copy', [{ kind: 'take.add', take: { ...take, id: 'slow', name: 'slower' } }])
    shot.commit('other take', [{ kind: 'shot.set', patch: { current: 'slow' } }])
    shot.history = { ...shot.history, undo: shot.history.undo.slice(0, 1) }
    acts.undo()
    expect([column(), useAsking().question?.why]).toEqual([
      '1×3 3×4 -×5 / 12',
      'Undoing “hold longer” is on another take: first take.',
    ])
    useAsking().question?.choices[0]?.take()
    expect(column()).toBe('1×2 3×4 -×6 / 12')
  })

  test('shift with the arrows goes on from any marking', () => {
    const { on, acts } = desk()
    on.selection = { layers: [L], from: 2, to: 6 }
    on.goTo(9)
    acts.arrow(0, 1, true)
    expect(on.selection).toEqual({ layers: [L], from: 2, to: 7 })
  })
})

describe('the layer in the hand', () => {
  test('is another one when it goes', async () => {
    const { shot, on } = desk()
    const layer = newLayer('bag', 'satchel', 5)
    shot.commit('new layer', [{ kind: 'layer.add', layer }])
    on.layerId = 'bag'
    await nextTick()
    expect(on.layer?.name).toBe('satchel')
    shot.undo()
    await nextTick()
    expect([on.layerId, on.mayEdit]).toEqual([L, true])
  })

  test('tied to another has no keys and no timing of its own', () => {
    const { shot, on, acts } = desk()
    const layer = newLayer('paint', 'paint', 0.5, { follows: L })
    shot.commit('paint', [{ kind: 'layer.add', layer }])
    on.layerId = 'paint'
    expect([on.keys, on.timedLayer, on.over?.id]).toEqual([null, L, 'd1'])
    acts.share()
    expect(shot.notice).toBe('')
    acts.newDrawing('empty')
    const sheet = on.drawing
    expect([sheet?.layer, sheet?.number]).toEqual(['paint', on.over?.number])
    acts.share()
    expect(shot.notice).toContain('tied to another')
    acts.sheet.hold(2)
    expect(shot.take?.columns.paint?.[0]).toEqual({ drawing: sheet?.id, frames: shot.take?.columns[L]?.[0]?.frames })
    acts.remove()
    expect([on.drawing, on.over?.id]).toEqual([null, 'd1'])
  })
})

describe('what is left to look at', () => {
  test('looks of layers and drawings put off are kept for the shot, and have their way back', async () => {
    const { shot, on, sight } = desk()
    shot.id = 'a-shot'
    startAfresh(0)
    sight.setLook(L, { opacity: 0.3 })
    on.deferred = ['d3']
    const inForce = useInForce()
    expect(inForce.list.map(one => one.words)).toEqual(['figure is at 30 %'])
    await nextTick()
    setActivePinia(createPinia())
    const [again, fresh] = [useShot(), useSight()]
    again.id = 'a-shot'
    startAfresh(0)
    expect([fresh.looks, useDesk().deferred]).toEqual([{ [L]: { hidden: false, opacity: 0.3, tint: null } }, ['d3']])
    sessionStorage.setItem('shot a-shot', '{"looks":{"x":"upside down"},"deferred":"d3"}')
    startAfresh(0)
    expect([fresh.looks, useDesk().deferred]).toEqual([{}, []])
  })

  test('guides: keys that move one are one step; a locked layer keeps its own, whatever layer one stands on', () => {
    const { shot, on } = desk()
    const guides = useGuideActs()
    guides.add('bounce')
    const guide = () => Object.values(shot.document?.guides ?? {})[0]!
    const { x } = guide().numbers
    const steps = shot.history.undo.length
    for (const by of [1, 2, 3]) {
      guides.draft(guide(), { x: (x as number) + by })
      guides.commitDraft()
    }
    expect([guide().numbers.x, shot.history.undo.length]).toEqual([(x as number) + 3, steps + 1])
    expect(guides.change(guide(), { radius: 0 })).toBe('radius: numbers from 1 to 4000')
    shot.undo()
    expect(guide().numbers.x).toBe(x)

    shot.commit('lock', [{ kind: 'layer.set', id: L, patch: { locked: true } }])
    on.layerId = FIRST.background
    const before = shot.document
    expect(guides.mayChange(guide())).toBe(false)
    guides.lay(guide())
    guides.remove(guide())
    guides.move(guide(), { from: 4 })
    expect([shot.document, shot.notice]).toEqual([before, LOCKED])
    shot.role = 'reviewer'
    expect(guides.mayChange(guide())).toBe(false)
  })

  test('a locked guide keeps its numbers and its place, and can be hidden, copied and unlocked', () => {
    const { shot, on } = desk()
    const guides = useGuideActs()
    guides.add('bounce')
    const guide = () => Object.values(shot.document?.guides ?? {})[0]!
    guides.lock(guide(), true)
    const before = guide()
    guides.change(guide(), { radius: 12 })
    on.goTo(4)
    guides.move(guide(), { from: 4 })
    guides.remove(guide())
    expect([guide(), shot.notice]).toEqual([before, LOCKED_GUIDE])
    guides.move(guide(), { dimmed: true })
    guides.copyHere(guide())
    const [first, second] = Object.values(shot.document?.guides ?? {})
    expect([first?.dimmed, first?.locked, second?.from, second?.locked]).toEqual([true, true, 4, false])
    guides.lock(guide(), false)
    guides.change(guide(), { radius: 12 })
    expect(guide().numbers.radius).toBe(12)
  })

  test('what loops is seen on for ever; handles are there until it is laid, and then when asked for', () => {
    const { shot } = desk()
    const [acts, guides] = [useGuideActs(), useGuides()]
    acts.add('flame')
    acts.add('bounce')
    const [flame, bounce] = ['flame', 'bounce'].map(
      recipe => () => Object.values(shot.document?.guides ?? {}).find(guide => guide.recipe === recipe)!,
    )
    const seen = (frame: number) => guides.seenOn(frame).map(one => [one.guide.recipe, one.frame])
    // Eight drawings on twos.
    expect(seen(16 + 3)).toEqual(expect.arrayContaining([['flame', 3]]))
    expect(seen(1000)).toEqual([['flame', 1000 % 16]])
    expect(guides.hasHandles(bounce!())).toBe(true)
    shot.commit('laid', [{ kind: 'guide.set', id: bounce!().id, patch: { laid: { drawings: ['d1'], beats: [] } } }])
    expect([guides.hasHandles(bounce!()), guides.hasHandles(flame!())]).toEqual([false, true])
    guides.place(bounce!().id, true)
    expect(guides.hasHandles(bounce!())).toBe(true)
    startAfresh(0)
    expect(guides.hasHandles(bounce!())).toBe(false)
  })

  test('what the hand has of a guide is let go of with the shot', () => {
    const { shot } = desk()
    const acts = useGuideActs()
    acts.add('bounce')
    const [guide] = Object.values(shot.document?.guides ?? {})
    acts.draft(guide!, { x: 9 })
    expect(useGuides().all[0]?.numbers.x).toBe(9)
    startAfresh(0)
    expect(useGuides().all[0]?.numbers.x).toBe(guide!.numbers.x)
  })

  test('a layer is put elsewhere frame by frame; what the hand has is seen, and one step on each frame', () => {
    const { shot, on } = desk()
    const [acts, carried] = [usePathActs(), useCarried()]
    const path = () => currentTake(shot.document!).paths[on.layerId]
    const places = () => path()?.keys.map(({ frame, x, y }) => [frame, x, y])
    expect([carried.path, carried.hand, carried.moves]).toEqual([null, null, false])
    on.goTo(3)
    acts.draft({ x: 30 })
    // Seen where the hand has it, and stored only when it lets go.
    expect([carried.hand, path()]).toEqual([[1, 0, 0, 1, 30, 0], undefined])
    acts.dropDraft()
    expect(carried.hand).toBeNull()
    for (const x of [30, 40]) {
      acts.draft({ x })
      acts.commitDraft()
    }
    expect(places()).toEqual([
      [0, 0, 0],
      [3, 40, 0],
    ])
    on.goTo(1)
    acts.draft({ y: 6 })
    acts.commitDraft()
    expect(places()).toEqual([
      [0, 0, 0],
      [1, expect.closeTo(40 / 3, 9), 6],
      [3, 40, 0],
    ])
    // Each frame is a step of its own; nudges on one are one.
    shot.undo()
    expect(places()).toHaveLength(2)
    shot.undo()
    expect(places()).toBeUndefined()
  })

  test('a speed, a spacing, a place taken out; numbers out of bounds are told; still again, nothing is left', () => {
    const { shot, on } = desk()
    const [acts, carried] = [usePathActs(), useCarried()]
    const path = () => currentTake(shot.document!).paths[on.layerId]
    expect(acts.change({ speed: { x: -4, y: 0 } })).toBeNull()
    expect(path()?.speed).toEqual({ x: -4, y: 0 })
    on.goTo(2)
    expect(carried.hand).toEqual([1, 0, 0, 1, -8, 0])
    expect(carried.seenFromHand(on.layerId, 1, { x: 10, y: 0 })).toEqual({ x: 14, y: 0 })
    acts.place({ x: 9 })
    acts.space(0, { wish: presetWish('both'), halves: true })
    expect(path()?.keys.map(key => [key.frame, key.wish.ease, key.halves])).toEqual([
      [0, 'both', true],
      [2, 'even', false],
    ])
    expect(acts.change({ on: 0 })).toBe('frames of a place: out of bounds')
    expect(acts.change({ closes: 3 })).toBe('width of the strip: out of bounds')
    carried.atRest = true
    expect([carried.hand, carried.moves]).toEqual([null, true])
    expect(useInForce().list.map(one => one.words)).toContain('layers lie where they were drawn')
    useInForce().clear()
    expect(carried.hand).not.toBeNull()
    acts.takeOut(2)
    expect(path()?.keys).toHaveLength(1)
    acts.lieStill()
    expect(path()).toBeUndefined()
  })

  test('what shows through is seen where its layer lay when it was shown, nearest to where one stands', () => {
    const { shot, on } = desk()
    const lamp = useLamp()
    shot.commit('again', [
      { kind: 'exposure.write', take: FIRST.take, layer: L, from: 8, runs: [{ drawing: 'd1', frames: 2 }] },
    ])
    const through = (frame: number) => {
      on.goTo(frame)
      return lamp.shownThrough.map(ghost => [ghost.drawing, ghost.side, ghost.frame])
    }
    expect(through(0)).toEqual([['d3', 'future', 2]])
    expect(through(3)).toEqual([['d1', 'past', 0]])
    expect(through(6)).toEqual([
      ['d3', 'past', 2],
      ['d1', 'past', 0],
    ])
    expect(through(11)).toEqual([
      ['d1', 'past', 8],
      ['d3', 'past', 2],
    ])
  })

  test('a locked layer is not moved, and says so; a tied one goes along with what it follows', () => {
    const { shot, on } = desk()
    const [acts, carried] = [usePathActs(), useCarried()]
    const line = on.layerId
    shot.commit('paint', [{ kind: 'layer.add', layer: newLayer('paint', 'paint', 0.5, { follows: line }) }])
    on.layerId = 'paint'
    acts.place({ x: 5 })
    expect(currentTake(shot.document!).paths[line]?.keys[0]?.x).toBe(5)
    expect(carried.hand).toEqual([1, 0, 0, 1, 5, 0])
    shot.commit('lock', [{ kind: 'layer.set', id: line, patch: { locked: true } }])
    expect(acts.mayMove()).toBe(false)
    expect(acts.place({ x: 9 })).toBe(LOCKED)
    acts.draft({ x: 9 })
    expect(carried.draft).toBeNull()
    expect(currentTake(shot.document!).paths[line]?.keys[0]?.x).toBe(5)
  })

  test('another shot starts with an empty hand and nothing left on the light table', () => {
    const { shot, on, kit } = desk()
    const lamp = useLamp()
    kit.gathered = new Set(['e1'])
    kit.through = true
    kit.markId = 'a-mark'
    lamp.pin('d3')
    lamp.setLit(FIRST.background, 0.5)
    lamp.parents = { left: 'd1', right: 'd3' }
    expect(lamp.pinned).toEqual(['d3'])
    shot.id = 'another-shot'
    startAfresh(0)
    expect([[...kit.gathered], kit.through, kit.markId]).toEqual([[], false, null])
    expect([lamp.pinned, lamp.lit, lamp.parents]).toEqual([[], {}, null])
    // Parents laid there by the queue are for the drawing it led to.
    lamp.parents = { left: 'd1', right: 'd3' }
    on.goTo(5)
    expect(lamp.parents).toBeNull()
  })

  test('a guide that was laid is gone to', () => {
    const { shot, on } = desk()
    const guides = useGuideActs()
    on.goTo(4)
    guides.add('bounce')
    on.goTo(0)
    on.following = 'stay'
    const guide = Object.values(shot.document?.guides ?? {})[0]!
    guides.lay(guide)
    expect([useAsking().question?.choices.length, on.frame]).toEqual([expect.any(Number), 0])
    useAsking().question?.choices[0]?.take()
    expect(on.frame).toBe(4)
  })

  test('the queue is skipped and put off', () => {
    const { shot, on, acts } = desk()
    shot.commit('clear both', [
      { kind: 'elements.remove', drawing: 'd1', ids: ['e1'] },
      { kind: 'elements.remove', drawing: 'd3', ids: ['e3'] },
    ])
    const queue = () => on.queue.map(item => item.drawing.id)
    expect(queue()).toEqual(['d1', 'd3'])
    acts.defer()
    expect([queue(), on.frame]).toEqual([['d3', 'd1'], 2])
    acts.skip()
    expect([queue(), on.frame]).toEqual([['d1'], 0])
    useInForce().clear()
    expect(queue()).toEqual(['d3', 'd1'])
  })
})

describe('acts on strokes', () => {
  test('nudges are one step; arrows move what is gathered and nothing else', () => {
    const { shot, on, acts, kit } = desk()
    kit.gathered = new Set(['e1'])
    for (let i = 0; i < 5; i++) acts.arrow(1, 0, false)
    acts.arrow(0, 1, true)
    expect(get(shot.drawing('d1')!.elements, 'e1').matrix).toEqual([1, 0, 0, 1, 5, 10])
    expect([on.frame, shot.history.undo.length]).toEqual([0, 1])
    shot.undo()
    expect(get(shot.drawing('d1')!.elements, 'e1').matrix).toBeNull()
  })

  test('delete takes off what is gathered, and else the whole drawing’s lines', () => {
    const { shot, on, acts, kit } = desk()
    kit.gathered = new Set(['e1', 'gone'])
    acts.deleteStrokes()
    expect([kit.gathered.size, Object.keys(shot.drawing('d1')!.elements)]).toEqual([0, []])
    on.goTo(3)
    acts.deleteStrokes()
    expect(Object.keys(shot.drawing('d3')!.elements)).toEqual([])
  })

  test('the role goes round, and thickness stays within its bounds', () => {
    const { on, acts, kit } = desk()
    const roles = [1, 2, 3].map(() => (acts.nextRole(), on.drawing?.role))
    expect(roles).toEqual(['breakdown', 'inbetween', 'key'])
    for (let i = 0; i < 60; i++) acts.thicken(1.2)
    expect(kit.pens[kit.pen].width).toBe(160)
    for (let i = 0; i < 90; i++) acts.thicken(0.8)
    expect(kit.pens[kit.pen].width).toBe(1)
  })
})

describe('looking', () => {
  test('flipping shows a neighbour instead, rolling goes at most four away, letting go comes back', () => {
    const { acts, sight } = desk()
    acts.flip(1)
    expect(sight.flippedTo).toBe('d3')
    acts.letGo()
    acts.rollBy(9)
    expect(sight.flippedTo).toBe('d3')
    acts.rollBy(0)
    expect(sight.flippedTo).toBeNull()
    acts.flip(-1)
    expect(sight.flippedTo).toBeNull()
  })

  test('more changes than one step may hold are told and not begun', () => {
    const { shot } = desk()
    const beats = Array.from({ length: 2501 }, (_, i): Operation => ({
      kind: 'beat.add',
      beat: { id: `b${i}`, name: 'beat', frame: i % 100 },
    }))
    expect(shot.commit('beats', beats)?.code).toBe('too-many')
    expect(shot.notice).toBe('That is 2501 changes at once; at most 2500 can be one step. Do it in parts.')
    expect(Object.keys(shot.document?.beats ?? { none: 1 })).toEqual([])
    expect(shot.commit('beats', beats.slice(0, 1500))).toBeNull()
  })

  test('names are stored as one line, however they were typed, and labels that hold them fit', () => {
    const { shot } = desk()
    expect(oneLine('  far\tlegs\n')).toBe('far legs')
    const long = 'reeds '.repeat(20)
    expect(shot.commit(`name of ${long}`, [{ kind: 'layer.set', id: L, patch: { name: oneLine(long) } }])).toBeNull()
    const [batch] = shot.replica?.pending ?? []
    expect(Batch.safeParse(batch).success).toBe(true)
  })

  test('what a change made by another desk refuses is told in one line', () => {
    const { shot } = desk()
    const refusal = shot.commit('paint', [{ kind: 'elements.remove', drawing: 'd1', ids: ['none'] }])
    expect(refusal).toEqual({ code: 'unknown-element', what: 'none' })
    expect(shot.notice).toBe('That cannot be done: that stroke is gone.')
  })
})
