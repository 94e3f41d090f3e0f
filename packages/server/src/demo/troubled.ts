import {
  exposures,
  FIRST,
  find,
  freshGuide,
  get,
  isStroke,
  newLayer,
  setCeiling,
  type Drawing,
  type Operation,
  type Role,
  type SayingKind,
  type Stroke,
} from '@unhurried/core/document'
import { after, scaling, translation, IDENTITY, type Matrix, type Point } from '@unhurried/core/geometry'
import { movedBy } from '@unhurried/core/measure'
import type { ModelSheet } from '@unhurried/core/models'
import { hop, HOP } from './hop.ts'
import { Study, type Drawn } from './study.ts'
import { disc, line, shape } from './tilda.ts'

/** Nothing it finds is planted in a shot that is seen on the shelf: what flashes is not shown to anybody. */
const TAKE = FIRST.take

/** Strokes of a drawing under a map. */
function mapped(drawing: Drawing, by: Matrix, which: (stroke: Stroke) => boolean = () => true): Operation {
  const changes = Object.values(drawing.elements).flatMap(element =>
    isStroke(element) && which(element)
      ? [{ id: element.id, patch: { matrix: after(element.matrix ?? IDENTITY, by) } }]
      : [],
  )
  return { kind: 'elements.set', drawing: drawing.id, changes }
}
/** A layer of its own with copies of a few strokes, one place after the other. */
function extra(
  study: Study,
  id: string,
  name: string,
  places: readonly Point[],
  holds: readonly number[],
  of: Drawing,
  role: Role = 'inbetween',
): string[] {
  const strokes = Object.values(of.elements).filter(isStroke)
  const drawings = places.map((at, i): Drawing => {
    const own = strokes.map((stroke, k): Stroke => ({
      ...stroke,
      id: `${id}-${i}-${k}`,
      matrix: after(stroke.matrix ?? IDENTITY, translation(at.x, at.y)),
    }))
    return {
      id: `${id}-${i}`,
      layer: id,
      number: i + 1,
      role,
      elements: Object.fromEntries(own.map(one => [one.id, one])),
      marks: {},
    }
  })
  study.commit(name, [
    { kind: 'layer.add', layer: newLayer(id, name, 3) },
    ...drawings.map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
    {
      kind: 'exposure.write',
      take: TAKE,
      layer: id,
      from: 0,
      runs: holds.map((frames, i) => ({ drawing: `${id}-${i}`, frames })),
    },
  ])
  return drawings.map(drawing => drawing.id)
}

/** What lies on the extra layers is her moth’s first drawing. */
const scrapOf = (study: Study): Drawing => get(study.document.drawings, 'moth-1')
const tildaOn = (study: Study, number: number): Drawing => get(study.document.drawings, `tilda-${number}`)

/** What the thrown letter is to look like; on one drawing its seal lies too near to its corner (on model). */
export const LETTER: ModelSheet = {
  name: 'a thrown letter',
  views: [],
  heights: [
    { id: 'corner', name: 'corner', share: 0 },
    { id: 'seal', name: 'seal', share: 0.5 },
    { id: 'edge', name: 'edge', share: 1 },
  ],
}

/** Three marks that set out, glide and stop dead together (all at once, too smooth, weight), after a place where they stand (pops and stalls). */
function thrownLetter(study: Study): void {
  const xs = [0, 40, 80, 120, 122, 162, 202, 242, 282]
  const thrown = extra(
    study,
    'layer-thrown',
    'a thrown letter',
    xs.map(x => ({ x: x - 560, y: 330 })),
    [2, 2, 2, 2, 2, 2, 2, 2, 14],
    scrapOf(study),
  )
  study.commit('marks of the thrown letter', [
    ...['corner', 'seal', 'edge'].map((name, i): Operation => ({
      kind: 'mark.add',
      mark: { id: `thrown-${name}`, layer: 'layer-thrown', name, order: i, kind: 'point' },
    })),
    ...thrown.map((drawing, i): Operation => ({
      kind: 'marks.place',
      drawing,
      places: Object.fromEntries(
        ['corner', 'seal', 'edge'].map((name, k) => [
          `thrown-${name}`,
          { x: 400 + (xs[i] as number) + 14 * k - (i === 6 && k === 1 ? 2 : 0), y: 470, planted: false },
        ]),
      ),
    })),
  ])
}

/** Its first drawing is its last again (loop); and as many wisps rise from it as there are drawings (stands still). */
function drop(study: Study): void {
  const all = extra(
    study,
    'layer-drop',
    'a drop',
    [0, 14, 30].map(y => ({ x: -300, y: 250 + y })),
    [8, 8, 8],
    scrapOf(study),
    // Poses that are all alike (reads as a shape).
    'key',
  )
  study.commit('the first once more', [
    {
      kind: 'exposure.write',
      take: TAKE,
      layer: 'layer-drop',
      from: 24,
      runs: [{ drawing: all[0] ?? null, frames: 6 }],
    },
  ])
  study.commit('wisps that seem to stand', [
    ...freshGuide(study.document, 'wisps', { take: TAKE, layer: 'layer-drop', from: 0 }, 'wisps').map(op =>
      op.kind === 'guide.add'
        ? {
            ...op,
            guide: { ...op.guide, shown: false, numbers: { ...op.guide.numbers, drawings: 8, pitch: 30, rise: 30 } },
          }
        : op,
    ),
  ])
}

/** The edge of the letter follows its corner, its seal touches the corner, the drop is still, her clasp keeps its distance from her nose. */
function saidAndNotSo(study: Study): void {
  const on = (number: number) => tildaOn(study, number)
  const clasp = find(on(17).marks, 'clasp')
  const says = (id: string, kind: SayingKind, layer: string, about: readonly string[], to = 30): Operation => ({
    kind: 'saying.add',
    saying: { id, kind, layer, about, from: 0, to },
  })
  study.commit('what is said of parts', [
    ...(clasp
      ? [
          {
            kind: 'marks.place',
            drawing: on(17).id,
            places: { clasp: { ...clasp, x: clasp.x - 40, y: clasp.y + 20 } },
          } as const,
        ]
      : []),
    says('says-size', 'size', FIRST.drawn, ['nose', 'clasp']),
    says('says-follows', 'follows', 'layer-thrown', ['thrown-edge', 'thrown-corner']),
    says('says-touches', 'touches', 'layer-thrown', ['thrown-seal', 'thrown-corner'], 4),
    says('says-still', 'still', 'layer-drop', []),
    // The top of the hop is gone in two frames.
    { kind: 'saying.add', saying: { id: 'says-reads', kind: 'reads', layer: FIRST.drawn, about: [], from: 8, to: 10 } },
  ])
}

/** A pebble that flies on a way no thrown thing takes, with nothing before or after it (flight, before and after). */
function pebble(study: Study): void {
  const ways: readonly Point[] = [
    { x: 0, y: 0 },
    { x: 0, y: 0 },
    { x: 30, y: -40 },
    { x: 60, y: -46 },
    { x: 90, y: -48 },
    { x: 120, y: -92 },
    { x: 150, y: -30 },
    { x: 180, y: 0 },
  ]
  const all = extra(
    study,
    'layer-pebble',
    'a pebble',
    ways.map(({ x, y }) => ({ x: x - 500, y: y + 380 })),
    [8, 1, 1, 1, 1, 1, 1, 16],
    scrapOf(study),
  )
  study.commit('where the pebble lies', [
    { kind: 'mark.add', mark: { id: 'pebble-foot', layer: 'layer-pebble', name: 'foot', order: 0, kind: 'point' } },
    ...all.map((drawing, i): Operation => ({
      kind: 'marks.place',
      drawing,
      places: {
        'pebble-foot': { x: 480 + (ways[i]?.x ?? 0), y: 520 + (ways[i]?.y ?? 0), planted: i === 0 || i === 7 },
      },
    })),
  ])
}

/** A berry that lies on the pad and is larger once (volume). */
function berry(study: Study): void {
  const layer = study.layer('layer-berry', 'a berry', 4)
  study.commit('a body', [{ kind: 'layer.set', id: layer, patch: { volume: 'flat' } }])
  const radii = [15, 17, 15]
  radii.forEach((r, i) => {
    const [id, at] = [`berry-${i}`, { x: 850, y: 622 - r }]
    const drawing: Drawing = { id, layer, number: i + 1, role: i === 1 ? 'inbetween' : 'key', elements: {}, marks: {} }
    study.commit('a berry', [{ kind: 'drawing.add', drawing }])
    study.draw(id, [shape('bark', disc(at, r)), line(3, [...disc(at, r), { x: at.x + r, y: at.y }])])
  })
  const runs = radii.map((_, i) => ({ drawing: `berry-${i}`, frames: 10 }))
  study.commit('it lies', [{ kind: 'exposure.write', take: TAKE, layer, from: 0, runs }])
}

/** A bubble that was traced nine times, once by a hand that was not steady (lines). */
function bubble(study: Study): void {
  const layer = study.layer('layer-bubble', 'a bubble', 6)
  study.commit('a body', [{ kind: 'layer.set', id: layer, patch: { volume: 'flat' } }])
  const at = { x: 300, y: 480 }
  const traced = (i: number): Point[] => {
    const shake = i === 4 ? 2.4 : 0.3
    return Array.from({ length: 241 }, (_, k) => {
      const a = (k / 240) * 2 * Math.PI
      const r = 44 + 0.1 * i + shake * Math.sin(14 * a + 2.1 * i)
      return { x: at.x + r * Math.cos(a), y: at.y - 2 * i + r * Math.sin(a) }
    })
  }
  const drawings = Array.from({ length: 9 }, (_, i) => `bubble-${i}`)
  drawings.forEach((id, i) => {
    const role = i % 8 === 0 ? 'key' : 'inbetween'
    study.commit('a bubble', [
      { kind: 'drawing.add', drawing: { id, layer, number: i + 1, role, elements: {}, marks: {} } },
    ])
    study.draw(id, [shape('mist', disc({ x: at.x - 14, y: at.y - 2 * i - 16 }, 8)), line(3, traced(i))])
  })
  const runs = drawings.map((drawing, i) => ({ drawing, frames: i === 8 ? 14 : 2 }))
  study.commit('it rises', [{ kind: 'exposure.write', take: TAKE, layer, from: 0, runs }])
}

/** A leaf as green as the pad it lies on, without a line (figure and ground). */
function leaf(study: Study): void {
  const layer = study.layer('layer-leaf', 'a leaf', 5)
  study.commit('a body', [{ kind: 'layer.set', id: layer, patch: { volume: 'flat' } }])
  study.still(layer, [shape('lily', disc({ x: 1000, y: 606 }, 26, 12))])
}

/** The hop with one fault for each check that can be shown: to practise on, and to try the checks with. */
export function troubledHop(): Drawn {
  const whole = hop()
  const study = new Study('troubled', HOP, 'Tilda')
  for (const { label, ops } of whole.batches) study.commit(label, ops)
  const on = (number: number): Drawing => tildaOn(study, number)
  const colourOf = (drawing: Drawing, swatch: string) =>
    Object.values(drawing.elements).flatMap(element =>
      isStroke(element) && element.swatch === swatch ? [element.id] : [],
    )
  const nose = (drawing: Drawing): Point => find(drawing.marks, 'nose') ?? { x: 640, y: 360 }

  // exposure: the frame before the last pose shows nothing
  const before = exposures(get(study.document.takes, TAKE), FIRST.drawn).find(run => run.drawing === 'tilda-21')
  const from = (before?.start ?? 20) + 1
  study.commit('a forgotten frame', [
    { kind: 'exposure.write', take: TAKE, layer: FIRST.drawn, from, runs: [{ drawing: null, frames: 1 }] },
  ])
  // in the picture: the top of the hop leaves it, and a shape it is cut to is too narrow
  study.commit('cut to a square too', [{ kind: 'shot.set', patch: { cuts: ['square'] } }])
  study.commit('too high', movedBy(on(9), 0, -230))
  // parts: the satchel is missing once
  study.commit('no satchel', [{ kind: 'elements.remove', drawing: on(7).id, ids: colourOf(on(7), 'bark') }])
  // off the arc, and off its place on the way
  study.commit('off the arc', movedBy(on(13), 46, -40))
  // lines: a heavier pen once, and a stroke that slipped
  const heavy = Object.values(on(19).elements).flatMap(element =>
    isStroke(element) && element.kind === 'line' ? [{ id: element.id, patch: { width: element.width * 1.5 } }] : [],
  )
  const slip = Object.values(on(23).elements).find(element => isStroke(element) && element.kind === 'line') as Stroke
  const stray: Stroke = { ...slip, id: 'slip', part: [0, 1], matrix: translation(-760, -480) }
  study.commit('a heavier pen, and a slip of it', [
    { kind: 'elements.set', drawing: on(19).id, changes: heavy },
    { kind: 'elements.add', drawing: on(23).id, elements: [stray] },
  ])
  // colours: the letter in her satchel is three times as large once
  const letter = new Set(colourOf(on(15), 'lamp'))
  study.commit('a large letter', [mapped(on(15), scaling(2, 2, nose(on(15))), stroke => letter.has(stroke.id))])
  // colours: a green mixed anew for her back, hardly another one
  const back = colourOf(on(11), 'moss').slice(0, 1)
  study.commit('a green mixed anew', [
    { kind: 'swatch.add', swatch: { id: 'moss-2', name: 'moss again', colour: '#66824b', order: 40 } },
    {
      kind: 'elements.set',
      drawing: on(11).id,
      changes: back.map(id => ({ id, patch: { swatch: 'moss-2' } })),
    },
  ])
  // planted marks: her toes slip while she settles
  const toes = find(on(21).marks, 'toes')
  if (toes)
    study.commit('toes slip', [
      { kind: 'marks.place', drawing: on(21).id, places: { toes: { ...toes, x: toes.x + 9 } } },
    ])
  // longest step
  study.commit('a ceiling of steps', setCeiling(125))

  thrownLetter(study)
  drop(study)
  saidAndNotSo(study)
  pebble(study)
  berry(study)
  leaf(study)
  bubble(study)
  return { ...study.drawn, samples: new Map([...whole.samples, ...study.drawn.samples]) }
}
