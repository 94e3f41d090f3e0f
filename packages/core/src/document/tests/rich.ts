import { presetTicks, presetWish } from '../../chart/wish.ts'
import { evenKey, restingPath, type LayerPath } from '../../path/path.ts'
import { bounce } from '../../motion/bounce/bounce.ts'
import { AS_IT_COMES, freshGuide } from '../acts/guides.ts'
import { recipeShot } from '../model/guides.ts'
import { FIRST, newLayer } from '../model/fresh.ts'
import type { ClipPoint, FilmClip, Remark, ShotDocument, Sound, Take } from '../model/model.ts'
import { applyBatch, type Operation, type OperationKind, type OperationOf } from '../operations/index.ts'
import { sampleDocument, sampleElement, samplePicture } from './sample.ts'

/** A path with a place on some frames. */
const pathThrough = (frames: readonly number[]): LayerPath => ({
  ...restingPath(64, 36),
  keys: frames.map(frame => ({ ...evenKey(frame, 3 * frame, -frame, frame / 10), wish: presetWish('both') })),
})

/** A recording of three seconds, laid whole on the first frame. */
export const aSound = (id: string): Sound => ({
  id,
  name: id,
  media: 'ab'.repeat(32),
  seconds: 3,
  order: 0,
  from: 0,
  skip: 0,
  use: 3,
  gain: 1,
  muted: false,
  mine: true,
  source: '',
})

/** A clip of three seconds, laid whole on the first frame. */
export const aClip = (id: string): FilmClip => ({
  id,
  name: id,
  media: 'ef'.repeat(32),
  widthPx: 320,
  heightPx: 180,
  seconds: 3,
  from: 0,
  inS: 0,
  outS: 3,
  rate: 1,
  matrix: [2, 0, 0, 2, 0, 0],
  shown: true,
  wash: 0.5,
  mine: false,
  source: '',
  notes: [{ id: 'heel', s: 1, text: 'the heel turns here' }],
})

/** A point that is seen at two moments of the clip `walked`. */
export const aPoint = (id: string, clip = 'walked'): ClipPoint => ({
  id,
  clip,
  name: id,
  order: 0,
  places: [
    { s: 0, x: 20, y: 30, sure: 2 },
    { s: 0.04, x: 24, y: 31, sure: 0.93 },
  ],
})

export const aRemark = (id: string): Remark => ({
  id,
  by: 'otter',
  name: 'Otter',
  frame: 3,
  drawing: 'a',
  at: { x: 4, y: 5 },
  sketch: [[{ x: 1, y: 2 }]],
  text: 'lands too late',
  answers: [],
  closed: false,
})

/** A shot with some of everything: two takes, a tied layer with sheets, a linked cycle, a chart, marks, beats, a pin, notes. */
export function richDocument(): ShotDocument {
  const sample = sampleDocument()
  const take = sample.takes[FIRST.take] as Take
  const layer = FIRST.drawn
  const ticks = presetTicks('even', 1).map(tick => ({ ...tick, drawing: 'b' }))
  const ops: Operation[] = [
    { kind: 'layer.add', layer: newLayer('paint', 'paint', 0.5, { follows: layer }) },
    {
      kind: 'drawing.add',
      drawing: { id: 'pa', layer: 'paint', number: 1, role: 'key', elements: { q1: sampleElement('q1') }, marks: {} },
    },
    { kind: 'layer.add', layer: newLayer('moth', 'moth', 3) },
    ...['m', 'n'].map((id, i): Operation => ({
      kind: 'drawing.add',
      drawing: { id, layer: 'moth', number: i + 1, role: 'inbetween', elements: {}, marks: {} },
    })),
    { kind: 'drawing.set', id: 'b', patch: { role: 'inbetween' } },
    { kind: 'chart.add', chart: { id: 'ac', layer, from: 'a', to: 'c', part: null, wish: presetWish('even'), ticks } },
    { kind: 'drawing.add', drawing: { id: 'd', layer, number: 30, role: 'key', elements: {}, marks: {} } },
    {
      kind: 'chart.add',
      chart: { id: 'cd', layer, from: 'c', to: 'd', part: null, wish: presetWish('even'), ticks: [] },
    },
    { kind: 'mark.add', mark: { id: 'nose', layer, name: 'nose', order: 1, kind: 'point' } },
    { kind: 'mark.add', mark: { id: 'tail', layer, name: 'tail', order: 2, kind: 'point' } },
    { kind: 'marks.place', drawing: 'a', places: { nose: { x: 3, y: 4, planted: true } } },
    { kind: 'beat.add', beat: { id: 'step', name: 'step', frame: 4 } },
    { kind: 'beat.add', beat: { id: 'clap', name: 'clap', frame: 9 } },
    { kind: 'pin.set', take: FIRST.take, drawing: 'c', beat: 'step' },
    { kind: 'drawing.add', drawing: { id: 'e', layer, number: 31, role: 'key', elements: {}, marks: {} } },
    { kind: 'pin.set', take: FIRST.take, drawing: 'e', beat: 'step' },
    { kind: 'drawing.add', drawing: { id: 'f', layer, number: 32, role: 'key', elements: {}, marks: {} } },
    { kind: 'note.add', note: { id: 'hops', from: 0, to: 8, text: 'hops' } },
    {
      kind: 'accepted.add',
      accepted: { id: 'meant', about: 'volume layer-1 a', print: '1', reason: 'it breathes in' },
    },
    { kind: 'saying.add', saying: { id: 'so', kind: 'follows', layer, about: ['tail', 'nose'], from: 0, to: 9 } },
    { kind: 'remark.add', remark: aRemark('seen') },
    { kind: 'looked.set', by: 'otter', drawings: { a: '1', b: '2' } },
    { kind: 'threshold.set', name: 'volume', value: 0.1 },
    { kind: 'swatch.add', swatch: { id: 'reed', name: 'reed', colour: '#b9b394', order: 9 } },
    {
      kind: 'cycle.add',
      take: FIRST.take,
      cycle: {
        id: 'flutter',
        layer: 'moth',
        from: 2,
        to: 20,
        offset: 1,
        pattern: [
          { drawing: 'm', frames: 2 },
          { drawing: 'n', frames: 1 },
        ],
      },
    },
    { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: 12 } },
    { kind: 'path.set', take: FIRST.take, layer: 'moth', path: pathThrough([2, 5, 6, 9, 24]) },
    { kind: 'sound.add', sound: aSound('voice') },
    { kind: 'clip.add', clip: aClip('walked') },
    { kind: 'clip.add', clip: aClip('danced') },
    { kind: 'point.add', point: aPoint('beak') },
    { kind: 'word.add', word: { id: 'late', text: 'late', from: 3, to: 9 } },
    ...freshGuide(sample, 'bounce', { take: FIRST.take, layer, from: 2 }, 'dropped'),
  ]
  const done = applyBatch(sample, ops)
  if (!done.ok) throw new Error(`${done.refusal.code} ${done.refusal.what}`)
  const second = applyBatch(done.document, [
    {
      kind: 'take.add',
      take: { ...(done.document.takes[FIRST.take] as Take), id: 'snappy', name: 'snappy', order: 2, pins: {} },
    },
  ])
  if (!second.ok) throw new Error(`${second.refusal.code} ${take.id}`)
  return second.document
}

/** Choices out of numbers that were thrown: of what there is most of the time, else of what there is not. */
function chooser(thrown: readonly number[]) {
  let at = 0
  const next = () => thrown[at++ % thrown.length] as number
  return {
    number: (least: number, most: number) => least + (next() % (most - least + 1)),
    one: <T>(of: readonly T[]): T | undefined => of[next() % Math.max(1, of.length)],
    /** the id of something there is; once in twelve times of nothing */
    id: (table: object, not = 'nobody') => {
      const ids = Object.keys(table)
      return next() % 12 === 0 || ids.length === 0 ? not : (ids[next() % ids.length] as string)
    },
    /** an id that is free; once in twelve times one that is taken */
    free: (table: object) => {
      const ids = Object.keys(table)
      return next() % 12 === 0 && ids.length > 0 ? (ids[0] as string) : `new-${next() % 100_000}`
    },
  }
}
type Chooser = ReturnType<typeof chooser>

/** For every kind an operation that is likely to be taken; a kind without one does not compile. */
const LIKELY: { readonly [K in OperationKind]: (d: ShotDocument, c: Chooser) => Omit<OperationOf<K>, 'kind'> } = {
  'format.set': (_, c) => ({ patch: { fps: c.number(0, 60) } }),
  'shot.set': (d, c) => {
    const own = [{ current: c.id(d.takes) }, { exposure: c.number(0, 5) }, { scale: c.number(0, 3) || null }]
    return { patch: own[c.number(0, 2)] as object }
  },
  'layer.add': (d, c) => {
    const id = c.free(d.layers)
    return { layer: newLayer(id, id, c.number(0, 9), { follows: c.number(0, 3) ? null : c.id(d.layers) }) }
  },
  'layer.set': (d, c) => ({
    id: c.id(d.layers),
    patch: c.number(0, 1) ? { name: `n${c.number(0, 9)}` } : { follows: c.number(0, 1) ? null : c.id(d.layers) },
  }),
  'layer.remove': (d, c) => ({ id: c.id(d.layers) }),
  'drawing.add': (d, c) => {
    const element = sampleElement(c.free({}))
    const elements = c.number(0, 1) ? { [element.id]: element } : {}
    const [id, layer] = [c.free(d.drawings), c.id(d.layers)]
    return { drawing: { id, layer, number: c.number(1, 40), role: 'inbetween', elements, marks: {} } }
  },
  'drawing.set': (d, c) => ({
    id: c.id(d.drawings),
    patch: c.number(0, 1) ? { number: c.number(0, 40) } : { role: 'breakdown' },
  }),
  'drawing.remove': (d, c) => ({ id: c.id(d.drawings) }),
  'elements.add': (d, c) => ({
    drawing: c.id(d.drawings),
    elements: [(c.number(0, 3) ? sampleElement : samplePicture)(c.free({}), c.number(0, 9))],
  }),
  'elements.set': (d, c) => {
    const drawing = c.id(d.drawings)
    return {
      drawing,
      changes: [
        {
          id: c.id(d.drawings[drawing]?.elements ?? {}),
          patch: c.number(0, 2) ? { width: c.number(0, 90) } : { opacity: c.number(0, 2) },
        },
      ],
    }
  },
  'elements.remove': (d, c) => {
    const drawing = c.id(d.drawings)
    return { drawing, ids: [c.id(d.drawings[drawing]?.elements ?? {})] }
  },
  'chart.add': (d, c) => {
    const layer = c.id(d.layers)
    const keys = Object.values(d.drawings).filter(one => one.layer === layer)
    const [from, to] = [c.one(keys)?.id ?? 'nobody', c.one(keys)?.id ?? 'nobody']
    return { chart: { id: c.free(d.charts), layer, from, to, part: null, wish: presetWish('even'), ticks: [] } }
  },
  'chart.set': (d, c) => ({
    id: c.id(d.charts),
    patch: { ticks: presetTicks('slow-in', c.number(0, 3)).map(t => ({ ...t, drawing: null })) },
  }),
  'chart.remove': (d, c) => ({ id: c.id(d.charts) }),
  'exposure.write': (d, c) => {
    const [take, layer] = [c.id(d.takes), c.id(d.layers)]
    const own = Object.values(d.drawings).filter(one => one.layer === layer)
    return {
      take,
      layer,
      from: c.number(0, 20),
      runs: [{ drawing: c.one([...own, null])?.id ?? null, frames: c.number(1, 4) }],
    }
  },
  'frames.insert': (d, c) => ({ take: c.id(d.takes), at: c.number(0, 24), count: c.number(1, 4), fill: {} }),
  'frames.remove': (d, c) => ({ take: c.id(d.takes), at: c.number(0, 20), count: c.number(1, 5) }),
  'loop.set': (d, c) => {
    const from = c.number(0, 12)
    return { take: c.id(d.takes), loop: c.number(0, 2) ? { from, to: from + c.number(1, 10) } : null }
  },
  'cycle.add': (d, c) => {
    const [take, layer] = [c.id(d.takes), c.id(d.layers)]
    const own = Object.values(d.drawings).filter(one => one.layer === layer)
    const pattern = [{ drawing: c.one(own)?.id ?? null, frames: c.number(1, 3) }]
    const cycles = d.takes[take]?.cycles ?? {}
    return {
      take,
      cycle: {
        id: c.free(cycles),
        layer,
        from: c.number(0, 20),
        to: c.number(0, 1) ? null : c.number(3, 24),
        offset: 0,
        pattern,
      },
    }
  },
  'cycle.set': (d, c) => {
    const take = c.id(d.takes)
    return {
      take,
      id: c.id(d.takes[take]?.cycles ?? {}),
      patch: c.number(0, 1) ? { offset: c.number(0, 3) } : { to: c.number(3, 24) },
    }
  },
  'cycle.remove': (d, c) => {
    const take = c.id(d.takes)
    return { take, id: c.id(d.takes[take]?.cycles ?? {}) }
  },
  'take.add': (d, c) => {
    const id = c.free(d.takes)
    const like = d.takes[c.id(d.takes)] ?? (d.takes[d.current] as Take)
    return { take: { ...like, id, name: id, order: c.number(0, 9) } }
  },
  'take.set': (d, c) => ({ id: c.id(d.takes), patch: { name: `t${c.number(0, 9)}` } }),
  'take.remove': (d, c) => ({ id: c.id(d.takes) }),
  'guide.add': (d, c) => ({
    guide: {
      id: c.free(d.guides),
      recipe: 'bounce',
      numbers: { ...bounce.defaults(recipeShot(d)), radius: c.number(0, 40) },
      take: c.id(d.takes),
      layer: c.id(d.layers),
      from: c.number(0, 30),
      ...AS_IT_COMES,
    },
  }),
  'guide.set': (d, c) => {
    const id = c.id(d.guides)
    const numbers = { ...d.guides[id]?.numbers, bounces: c.number(-1, 4) }
    return {
      id,
      patch: c.number(0, 1)
        ? { numbers }
        : { from: c.number(0, 9), shown: false, laid: { drawings: [c.id(d.drawings)], beats: [] } },
    }
  },
  'guide.remove': (d, c) => ({ id: c.id(d.guides) }),
  'sound.add': (d, c) => ({ sound: { ...aSound(c.free(d.sounds)), from: c.number(0, 20), use: c.number(0, 4) } }),
  'sound.set': (d, c) => ({
    id: c.id(d.sounds),
    patch: c.number(0, 1) ? { from: c.number(0, 20) } : { skip: c.number(0, 2), gain: c.number(0, 5), muted: true },
  }),
  'sound.remove': (d, c) => ({ id: c.id(d.sounds) }),
  'clip.add': (d, c) => ({ clip: { ...aClip(c.free(d.clips)), from: c.number(0, 20), wash: c.number(0, 2) } }),
  'clip.set': (d, c) => ({
    id: c.id(d.clips),
    patch: c.number(0, 1) ? { from: c.number(0, 20), inS: c.number(0, 4) } : { shown: false, rate: c.number(0, 9) },
  }),
  'clip.remove'(d, c) {
    const free = Object.keys(d.clips).filter(id => !Object.values(d.points).some(point => point.clip === id))
    return { id: (c.number(0, 2) ? c.one(free) : undefined) ?? c.id(d.clips) }
  },
  'point.add': (d, c) => ({ point: aPoint(c.free(d.points), c.number(0, 2) ? 'walked' : c.id(d.clips)) }),
  'point.set': (d, c) => ({
    id: c.id(d.points),
    patch: c.number(0, 1) ? { name: 'tail' } : { places: [{ s: 0, x: c.number(0, 9), y: 4, sure: 2 }] },
  }),
  'point.remove': (d, c) => ({ id: c.id(d.points) }),
  'word.add': (d, c) => {
    const from = c.number(0, 20)
    return { word: { id: c.free(d.words), text: 'late', from, to: from + c.number(0, 6) } }
  },
  'word.set': (d, c) => ({ id: c.id(d.words), patch: c.number(0, 1) ? { text: 'post' } : { to: c.number(0, 30) } }),
  'word.remove': (d, c) => ({ id: c.id(d.words) }),
  'swatch.add': (d, c) => {
    const id = c.free(d.swatches)
    return { swatch: { id, name: id, colour: '#b9b394', order: c.number(0, 9) } }
  },
  'swatch.set': (d, c) => ({ id: c.id(d.swatches), patch: { colour: '#b9b395' } }),
  'swatch.remove': (d, c) => ({ id: c.id(d.swatches) }),
  'mark.add': (d, c) => ({
    mark: { id: c.free(d.marks), layer: c.id(d.layers), name: 'heel', order: 2, kind: 'point' },
  }),
  'mark.set': (d, c) => ({ id: c.id(d.marks), patch: { name: `m${c.number(0, 9)}` } }),
  'mark.remove': (d, c) => ({ id: c.id(d.marks) }),
  'marks.place': (d, c) => {
    const mark = c.id(d.marks)
    const on = Object.values(d.drawings).filter(one => one.layer === d.marks[mark]?.layer)
    const place = c.number(0, 3) ? { x: c.number(0, 99), y: 1, planted: false } : null
    return { drawing: c.one(on)?.id ?? 'nobody', places: { [mark]: place } }
  },
  'beat.add': (d, c) => ({ beat: { id: c.free(d.beats), name: 'lands', frame: c.number(0, 23) } }),
  'beat.set': (d, c) => ({ id: c.id(d.beats), patch: { frame: c.number(0, 23) } }),
  'beat.remove': (d, c) => ({ id: c.id(d.beats) }),
  'pin.set': (d, c) => {
    const take = c.id(d.takes)
    return { take, drawing: c.id(d.drawings), beat: c.number(0, 2) ? c.id(d.beats) : null }
  },
  'path.set': (d, c) => {
    const first = c.number(0, 20)
    const path = c.number(0, 3) ? pathThrough([first, first + c.number(0, 6), first + 7]) : null
    return { take: c.id(d.takes), layer: c.id(d.layers), path }
  },
  'note.add': (d, c) => {
    const from = c.number(0, 20)
    return { note: { id: c.free(d.notes), from, to: from + c.number(1, 9), text: 'lands' } }
  },
  'note.set': (d, c) => ({ id: c.id(d.notes), patch: { text: `then ${c.number(0, 9)}` } }),
  'note.remove': (d, c) => ({ id: c.id(d.notes) }),
  'accepted.add': (d, c) => ({
    accepted: { id: c.free(d.accepted), about: 'volume layer-1 a', print: `${c.number(0, 9)}`, reason: '' },
  }),
  'accepted.set': (d, c) => ({ id: c.id(d.accepted), patch: { reason: `meant ${c.number(0, 9)}` } }),
  'accepted.remove': (d, c) => ({ id: c.id(d.accepted) }),
  'saying.add': (d, c) => {
    const from = c.number(0, 20)
    const about = [c.id(d.marks), ...(c.number(0, 1) ? [c.id(d.marks)] : [])]
    const kind = c.one(['still', 'follows', 'goes'] as const) ?? 'still'
    return { saying: { id: c.free(d.sayings), kind, layer: c.id(d.layers), about, from, to: from + c.number(0, 9) } }
  },
  'saying.set': (d, c) => ({ id: c.id(d.sayings), patch: { to: c.number(0, 30) } }),
  'saying.remove': (d, c) => ({ id: c.id(d.sayings) }),
  'remark.add': (d, c) => ({ remark: { ...aRemark(c.free(d.remarks)), text: c.number(0, 3) ? 'late' : '' } }),
  'remark.set': (d, c) => ({
    id: c.id(d.remarks),
    patch: c.number(0, 1)
      ? { closed: true }
      : { text: '', sketch: c.number(0, 1) ? [] : [[{ x: 1, y: c.number(0, 3) }]] },
  }),
  'remark.remove': (d, c) => ({ id: c.id(d.remarks) }),
  'looked.set': (d, c) => ({
    by: c.one(['otter', 'heron']) ?? 'otter',
    drawings: { [c.id(d.drawings)]: c.number(0, 2) ? `${c.number(0, 9)}` : null },
  }),
  'threshold.set': (_d, c) => ({
    name: c.one(['volume', 'way']) ?? 'way',
    value: c.number(0, 3) ? c.number(-2, 9) : null,
  }),
}
export const KINDS = Object.keys(LIKELY) as OperationKind[]

/** An operation on a document as it is now, out of numbers that were thrown: most are taken, some are not. */
export function likely(document: ShotDocument, thrown: readonly number[]): Operation {
  const [first, ...rest] = thrown
  const kind = KINDS[(first ?? 0) % KINDS.length] as OperationKind
  return { kind, ...LIKELY[kind](document, chooser(rest)) } as Operation
}
