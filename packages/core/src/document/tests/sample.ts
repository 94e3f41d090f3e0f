import fc from 'fast-check'
import { PRESETS } from '../../chart/ease.ts'
import { presetTicks, presetWish } from '../../chart/wish.ts'
import type { Run } from '../../time/exposure.ts'
import { newLayer, FIRST, freshDocument } from '../model/fresh.ts'
import { CUT_NAMES, type Drawing, type Picture, type ShotDocument, type Stroke } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'

/** A shot of 24 frames with two keys on twos, for tests. */
export function sampleDocument(): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 24)
  const drawings = Object.fromEntries(['a', 'b', 'c'].map((id, i) => [id, sampleDrawing(id, i * 4 + 1)]))
  const column: Run[] = [
    { drawing: 'a', frames: 4 },
    { drawing: 'b', frames: 4 },
    { drawing: 'c', frames: 4 },
    { drawing: null, frames: 12 },
  ]
  const take = fresh.takes[FIRST.take] as ShotDocument['takes'][string]
  return {
    ...fresh,
    drawings,
    takes: { [FIRST.take]: { ...take, columns: { ...take.columns, [FIRST.drawn]: column } } },
  }
}

export const samplePicture = (id: string, z = 1): Picture => ({
  id,
  kind: 'picture',
  z,
  matrix: null,
  picture: `p-${id}`,
  widthPx: 40,
  heightPx: 20,
  opacity: 0.5,
  cut: null,
  placeholder: false,
})

export function sampleElement(id: string, z = 1): Stroke {
  return {
    id,
    kind: 'line',
    z,
    samples: `s-${id}`,
    part: null,
    nib: { look: 'ink', ends: 'round', thinning: 0.62 },
    label: null,
    matrix: null,
    swatch: 'graphite',
    width: 4,
  }
}

export function sampleDrawing(id: string, number: number): Drawing {
  const element = sampleElement(`${id}1`)
  return { id, layer: FIRST.drawn, number, role: 'key', elements: { [element.id]: element }, marks: {} }
}

/** Ids: known ones, new ones, and ones that spell things every object inherits. */
const id = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'x1', 'constructor', '__proto__', 'toString')
const layer = fc.constantFrom(FIRST.drawn, FIRST.background, 'layer-2', 'hasOwnProperty')
const elementId = fc.constantFrom('a1', 'b1', 'c1', 'n1', 'n2', 'valueOf')
const drawingId = fc.option(id, { nil: null })
const frame = fc.integer({ min: -1, max: 30 })
const runs = fc.array(fc.record({ drawing: drawingId, frames: fc.integer({ min: 0, max: 6 }) }), { maxLength: 4 })
const element = fc
  .tuple(elementId, fc.integer({ min: 0, max: 9 }))
  .map(([i, z]) => (z > 7 ? samplePicture(i, z) : sampleElement(i, z)))
const take = fc.constantFrom(FIRST.take, FIRST.take, FIRST.take, 'no-take')
const ticks = fc
  .tuple(
    fc.constantFrom(...PRESETS),
    fc.integer({ min: 0, max: 3 }),
    fc.array(drawingId, { minLength: 3, maxLength: 3 }),
  )
  .map(([preset, n, made]) => ({
    wish: presetWish(preset),
    ticks: presetTicks(preset, n).map((t, i) => ({ ...t, drawing: made[i] ?? null })),
  }))

const mark = fc.constantFrom('m1', 'm2', 'constructor')
const beat = fc.constantFrom('b1', 'b2', '__proto__')
const cycleId = fc.constantFrom('y1', 'y2')
const place = fc.option(fc.record({ x: fc.integer(), y: fc.integer(), planted: fc.boolean() }), { nil: null })
const anyCycle = fc
  .tuple(cycleId, frame, fc.option(frame, { nil: null }), fc.nat(6), runs)
  .map(([i, from, to, offset, pattern]) => ({ id: i, layer: FIRST.drawn, from, to, offset, pattern }))
const takeId = fc.constantFrom(FIRST.take, 'take-2', 'take-3')

/** Operations on what lies around the drawings: cycles, takes, marks, beats, notes, swatches. */
const around: fc.Arbitrary<Operation> = fc.oneof(
  fc.tuple(take, anyCycle).map(([t, cycle]): Operation => ({ kind: 'cycle.add', take: t, cycle })),
  fc.tuple(take, anyCycle).map(([t, cycle]): Operation => ({ kind: 'cycle.add', take: t, cycle })),
  fc
    .tuple(cycleId, anyCycle, fc.constantFrom('from', 'to', 'offset', 'pattern') as fc.Arbitrary<'from'>)
    .map(([i, cycle, what]): Operation => ({
      kind: 'cycle.set',
      take: FIRST.take,
      id: i,
      patch: { [what]: cycle[what] },
    })),
  fc.tuple(take, cycleId).map(([t, i]): Operation => ({ kind: 'cycle.remove', take: t, id: i })),
  fc.tuple(takeId, runs).map(([t, column]): Operation => {
    const first = sampleDocument().takes[FIRST.take] as ShotDocument['takes'][string]
    const columns = column.length ? { ...first.columns, [FIRST.drawn]: column } : first.columns
    return { kind: 'take.add', take: { ...first, id: t, name: t, columns } }
  }),
  takeId.map((i): Operation => ({ kind: 'take.set', id: i, patch: { name: 'slower' } })),
  takeId.map((i): Operation => ({ kind: 'take.remove', id: i })),
  takeId.map((current): Operation => ({ kind: 'shot.set', patch: { current } })),
  fc
    .constantFrom('mixed', 'straight-ahead', 'surest')
    .map((way): Operation => ({ kind: 'shot.set', patch: { way } as object })),
  fc.subarray([...CUT_NAMES]).map((cuts): Operation => ({ kind: 'shot.set', patch: { cuts } })),
  fc.tuple(mark, layer).map(([i, l]): Operation => ({
    kind: 'mark.add',
    mark: { id: i, layer: l, name: 'nose', order: 1, kind: 'point' },
  })),
  mark.map((i): Operation => ({ kind: 'mark.set', id: i, patch: { name: 'heel' } })),
  mark.map((i): Operation => ({ kind: 'mark.remove', id: i })),
  fc.tuple(id, mark, place).map(([drawing, m, p]): Operation => ({ kind: 'marks.place', drawing, places: { [m]: p } })),
  fc.tuple(beat, frame).map(([i, f]): Operation => ({ kind: 'beat.add', beat: { id: i, name: 'step', frame: f } })),
  fc.tuple(beat, frame).map(([i, f]): Operation => ({ kind: 'beat.set', id: i, patch: { frame: f } })),
  beat.map((i): Operation => ({ kind: 'beat.remove', id: i })),
  fc
    .tuple(take, id, fc.option(beat, { nil: null }))
    .map(([t, drawing, b]): Operation => ({ kind: 'pin.set', take: t, drawing, beat: b })),
  fc
    .tuple(frame, frame)
    .map(([from, to]): Operation => ({ kind: 'note.add', note: { id: 'n1', from, to, text: 'hop' } })),
  fc.tuple(frame, frame).map(([from, to]): Operation => ({ kind: 'note.set', id: 'n1', patch: { from, to } })),
  fc.constant<Operation>({ kind: 'note.remove', id: 'n1' }),
  fc.constantFrom('reed', 'graphite').map((i): Operation => ({
    kind: 'swatch.add',
    swatch: { id: i, name: i, colour: '#b9b394', order: 0 },
  })),
  fc.constantFrom('reed', 'graphite', 'valueOf').map((i): Operation => ({ kind: 'swatch.remove', id: i })),
  fc.constantFrom('reed', 'bark').map((i): Operation => ({ kind: 'swatch.set', id: i, patch: { colour: '#b9b395' } })),
)

/** Any operation on `sampleDocument` or its likes; many will be refused. */
export const anyOperation: fc.Arbitrary<Operation> = fc.oneof(
  { weight: 14, arbitrary: around },
  fc.record({ fps: fc.integer({ min: 0, max: 130 }) }).map((patch): Operation => ({ kind: 'format.set', patch })),
  layer.map((l): Operation => ({
    kind: 'layer.add',
    layer: newLayer(l, l, 3),
  })),
  layer.map((l): Operation => ({ kind: 'layer.set', id: l, patch: { name: 'cloth' } })),
  layer.map((l): Operation => ({ kind: 'layer.remove', id: l })),
  fc
    .tuple(id, layer, fc.integer({ min: 0, max: 30 }), fc.uniqueArray(element, { maxLength: 2, selector: e => e.id }))
    .map(([i, l, number, es]): Operation => {
      const elements = Object.fromEntries(es.map(e => [e.id, e]))
      return { kind: 'drawing.add', drawing: { id: i, layer: l, number, role: 'inbetween', elements, marks: {} } }
    }),
  fc
    .tuple(id, fc.integer({ min: 0, max: 20 }))
    .map(([i, number]): Operation => ({ kind: 'drawing.set', id: i, patch: { number } })),
  id.map((i): Operation => ({ kind: 'drawing.set', id: i, patch: { role: 'breakdown' } })),
  id.map((i): Operation => ({ kind: 'drawing.remove', id: i })),
  fc
    .tuple(id, fc.array(element, { maxLength: 3 }))
    .map(([drawing, elements]): Operation => ({ kind: 'elements.add', drawing, elements })),
  fc
    .tuple(id, fc.array(elementId, { maxLength: 2 }))
    .map(([drawing, ids]): Operation => ({ kind: 'elements.remove', drawing, ids })),
  fc.tuple(id, elementId, fc.double({ min: -1, max: 700 })).map(([drawing, e, width]): Operation => ({
    kind: 'elements.set',
    drawing,
    changes: [{ id: e, patch: { width } }],
  })),
  fc.tuple(id, id, id, ticks).map(([i, from, to, t]): Operation => ({
    kind: 'chart.add',
    chart: { id: i, layer: FIRST.drawn, from, to, part: null, ...t },
  })),
  fc.tuple(id, ticks).map(([i, patch]): Operation => ({ kind: 'chart.set', id: i, patch })),
  id.map((i): Operation => ({ kind: 'chart.remove', id: i })),
  fc
    .tuple(take, layer, frame, runs)
    .map(([t, l, from, r]): Operation => ({ kind: 'exposure.write', take: t, layer: l, from, runs: r })),
  fc.tuple(take, frame, fc.integer({ min: 0, max: 5 }), drawingId).map(([t, at, count, d]): Operation => {
    const fill: Record<string, Run[]> = d === null ? {} : { [FIRST.drawn]: [{ drawing: d, frames: count }] }
    return { kind: 'frames.insert', take: t, at, count, fill }
  }),
  fc
    .tuple(take, frame, fc.integer({ min: 0, max: 26 }))
    .map(([t, at, count]): Operation => ({ kind: 'frames.remove', take: t, at, count })),
  fc
    .tuple(take, fc.option(fc.tuple(frame, frame), { nil: null }))
    .map(([t, loop]): Operation => ({ kind: 'loop.set', take: t, loop: loop && { from: loop[0], to: loop[1] } })),
)

/** An edit that is expected to be possible. Throws its code when it is not. */
export function sure<S extends { readonly ok: boolean }>(step: S | null): Extract<S, { readonly ok: true }> {
  if (!step?.ok) throw new Error(step && 'code' in step ? String(step.code) : 'nothing to do')
  return step as Extract<S, { readonly ok: true }>
}
