import { describe, expect, test } from '@jest/globals'
import { presetTicks, presetWish } from '../../chart/wish.ts'
import type { Point } from '../../geometry/point.ts'
import { freshGuide } from '../../document/acts/guides.ts'
import { FIRST } from '../../document/model/fresh.ts'
import type { MarkPlace, ShotDocument } from '../../document/model/model.ts'
import { applyBatch, type Operation } from '../../document/operations/index.ts'
import { currentTake } from '../../document/model/selectors.ts'
import { sampleDocument } from '../../document/tests/sample.ts'
import type { Shape } from '../../raster/shapeOf.ts'
import { done } from '../tests/moving.ts'
import { CHECK_NAMES, CHECKS, findings, type CheckName } from './table.ts'

/** A round silhouette of a radius at a place. */
const disc = (x: number, y: number, r = 20, open: Point | null = null): Shape => ({
  area: Math.PI * r * r,
  centroid: { x, y },
  halfAxes: [r, r],
  tiltRad: 0,
  open,
})

/** The sample shot: keys a and c on frames 1 and 9, b half-way between them on 5, with a mark on each. */
function charted(places: readonly (MarkPlace | null)[] = [null, null, null]): ShotDocument {
  const ticks = presetTicks('even', 1).map(tick => ({ ...tick, drawing: 'b' }))
  const layer = FIRST.drawn
  const ops: Operation[] = [
    { kind: 'drawing.set', id: 'b', patch: { role: 'inbetween' } },
    { kind: 'chart.add', chart: { id: 'ac', layer, from: 'a', to: 'c', part: null, wish: presetWish('even'), ticks } },
    { kind: 'mark.add', mark: { id: 'heel', layer, name: 'heel', order: 1, kind: 'point' } },
    ...['a', 'b', 'c'].map((drawing, i): Operation => ({
      kind: 'marks.place',
      drawing,
      places: { heel: places[i] ?? null },
    })),
  ]
  const result = applyBatch(sampleDocument(), ops)
  if (!result.ok) throw new Error(result.refusal.code)
  return result.document
}

/** Inbetweens are judged: half-way there is one that does not make the path. */
function inbetween(document: ShotDocument): ShotDocument {
  const chart = document.charts['ac']
  if (!chart) throw new Error('no chart')
  return { ...document, charts: { ac: { ...chart, ticks: chart.ticks.map(tick => ({ ...tick, depth: 1 })) } } }
}

const survey = (document: ShotDocument, shapes: Readonly<Record<string, Shape>>, loop = false) => {
  const take = currentTake(document)
  return {
    document,
    take,
    shapes: new Map(Object.entries(shapes)),
    facts: new Map(),
    delivered: null,
    loop: loop ? { from: 0, to: take.length } : null,
  }
}
const asked = (check: CheckName, document: ShotDocument, shapes: Readonly<Record<string, Shape>> = {}) =>
  CHECKS[check].inspect(survey(document, shapes)).map(({ drawings, words, from, to }) => [drawings[0], from, to, words])

describe('checks', () => {
  test('volume: what grew, and where an outline stands open instead', () => {
    const shapes = { a: disc(0, 0), b: disc(50, 0, 22), c: disc(100, 0, 20.5) }
    // 22²/20² = 1.21; 20.5²/20² = 1.05, within eight per cent.
    expect(asked('volume', charted(), shapes)).toEqual([['b', 4, 8, '5 has 121 % of the area of 1']])
    const open = { ...shapes, b: disc(50, 0, 9, { x: 41, y: 2 }) }
    expect(asked('volume', charted(), open)).toEqual([['b', 4, 8, 'outline of 5 open here']])
    expect(CHECKS.volume.inspect(survey(charted(), open))[0]?.at).toEqual({ x: 41, y: 2 })
  })

  test('volume: of a figure with limbs only the values are told, unless it is said to be round or the shot asks for it', () => {
    const spread = (r: number, solidity = 0.7) => ({ ...disc(0, 0, r), solidity })
    const limbs = { a: spread(20), b: spread(22), c: spread(20, 0.95) }
    expect(asked('volume', charted(), limbs)).toEqual([])
    expect(CHECKS.volume.series?.(survey(charted(), limbs))[0]?.values).toHaveLength(3)
    const round = done(charted(), [{ kind: 'layer.set', id: FIRST.drawn, patch: { volume: 'round' } }])
    expect(asked('volume', round, limbs).map(one => one[0])).toEqual(['b'])
    const set = done(charted(), [{ kind: 'threshold.set', name: 'solid', value: 0.6 }])
    expect(asked('volume', set, limbs).map(one => one[0])).toEqual(['b'])
    expect(asked('volume', charted(), { a: spread(20, 0.92), b: spread(22, 0.91), c: spread(20) })).toHaveLength(1)
  })

  test('volume straight ahead: 12 per cent over the shot, and 5 from one to the next', () => {
    const ahead = done(charted(), [{ kind: 'shot.set', patch: { way: 'straight-ahead' } }])
    const areas = (a: number, b: number, c: number) => {
      const [one, two, three] = [a, b, c].map(area => disc(0, 0, Math.sqrt(area)))
      return { a: one!, b: two!, c: three! }
    }
    // 104 and 109 of 100: no step over 5 per cent, and within 12; pose to pose 109 is too much.
    expect(asked('volume', ahead, areas(100, 104, 109))).toEqual([])
    expect(asked('volume', charted(), areas(100, 104, 109)).map(one => one[3])).toEqual([
      '9 has 109 % of the area of 1',
    ])
    expect(asked('volume', ahead, areas(100, 106, 106)).map(one => one[3])).toEqual(['5 has 106 % of the area of 1'])
    expect(asked('volume', ahead, areas(100, 107, 114)).map(one => one[3])).toEqual([
      '5 has 107 % of the area of 1',
      '9 has 114 % of the area of 1',
    ])
    expect(asked('volume', ahead, areas(100, 97, 103)).map(one => one[3])).toEqual(['9 has 106 % of the area of 5'])
  })

  test('stretch is told beside what a guide planned for that drawing', () => {
    const oval = { ...disc(0, 0), halfAxes: [40, 10] as const }
    const series = (document: ShotDocument) =>
      CHECKS.volume.series?.(survey(document, { a: disc(0, 0), b: oval, c: disc(9, 0) })).at(-1)
    const values = series(charted())?.values.map(({ frame, value }) => [frame, value])
    // √(40/10) = 2.
    expect(values).toEqual([
      [0, 1],
      [4, 2],
      [8, 1],
    ])
    expect(series(charted())?.planned).toEqual([])
    const take = FIRST.take
    const guided = done(charted(), freshGuide(charted(), 'bounce', { take, layer: FIRST.drawn, from: 0 }, 'drop'))
    const planned = series(guided)?.planned ?? []
    expect(planned.map(({ frame }) => frame)).toEqual([0, 4, 8])
    expect(planned[0]?.value).toBeGreaterThanOrEqual(1)
    expect(planned.every(({ value }) => value >= 1 && value < 3)).toBe(true)
  })

  test('volume is silent where it is off, before anything is measured, and on references', () => {
    const shapes = { a: disc(0, 0), b: disc(50, 0, 40) }
    const off = applyBatch(charted(), [{ kind: 'layer.set', id: FIRST.drawn, patch: { volume: 'off' } }])
    const reference = applyBatch(charted(), [{ kind: 'layer.set', id: FIRST.drawn, patch: { kind: 'reference' } }])
    if (!off.ok || !reference.ok) throw new Error('refused')
    expect(asked('volume', off.document, shapes)).toEqual([])
    expect(asked('volume', reference.document, shapes)).toEqual([])
    expect(asked('volume', charted(), {})).toEqual([])
    // The key itself stands open: nothing is held against it.
    expect(asked('volume', charted(), { a: disc(0, 0, 5, { x: 1, y: 1 }), b: disc(0, 0) }).map(f => f[3])).toEqual([
      'outline of 1 open here',
    ])
  })

  test('place on the way: what lies too far on, in pixels and where it belongs', () => {
    const at = (x: number, y = 0) => ({ a: disc(0, 0), b: disc(x, y), c: disc(200, 0) })
    expect(asked('way', inbetween(charted()), at(120))).toEqual([
      ['b', 4, 8, '5 lies at 60 % of the way, planned 50 %: 20 px left'],
    ])
    expect(asked('way', inbetween(charted()), at(103))).toEqual([])
    // A drawing that is not there yet is not missed.
    expect(asked('way', inbetween(charted()), { a: disc(0, 0), c: disc(200, 0) })).toEqual([])
  })

  test('off the arc: only what does not make the path', () => {
    const shapes = { a: disc(0, 0), b: disc(100, 12), c: disc(200, 0) }
    expect(asked('arc', inbetween(charted()), shapes)).toEqual([['b', 4, 8, '5 lies 12 px off the arc']])
    expect(asked('arc', charted(), shapes)).toEqual([])
    expect(asked('arc', inbetween(charted()), { ...shapes, b: disc(100, 3) })).toEqual([])
  })

  test('planted marks: the frames it is seen on, and what it was held against', () => {
    const down = (x: number): MarkPlace => ({ x, y: 100, planted: true })
    const document = charted([down(100), down(105), down(101)])
    const found = CHECKS.planted.inspect(survey(document, {}))
    expect(found).toEqual([
      {
        severity: 'look',
        layer: FIRST.drawn,
        from: 4,
        to: 8,
        drawings: ['b', 'a'],
        marks: ['heel'],
        figures: { offPx: 5 },
        at: { x: 105, y: 100 },
        words: 'heel slips on 5: 5 px from where 1 set it down',
      },
    ])
  })

  test('a chart of a mark is read by that mark', () => {
    const at = (x: number): MarkPlace => ({ x, y: 0, planted: false })
    const document = inbetween(charted([at(0), at(80), at(100)]))
    const chart = { ...document.charts['ac'], id: 'heel', part: 'heel' } as ShotDocument['charts'][string]
    const shapes = { a: disc(0, 0), b: disc(100, 0), c: disc(200, 0) }
    const found = CHECKS.way.inspect(survey({ ...document, charts: { ...document.charts, heel: chart } }, shapes))
    expect(found.map(({ words, marks }) => [words, marks])).toEqual([
      ['heel of 5 lies at 80 % of the way, planned 50 %: 30 px left', ['heel']],
    ])
  })

  test('all of them: in the order of time, each with its check; moved or with nothing drawn, no other verdict', () => {
    const shapes = (dx: number) => ({ a: disc(dx, 0), b: disc(dx + 120, 12, 22), c: disc(dx + 200, 0, 23) })
    const found = findings(survey(inbetween(charted()), shapes(0)))
    expect(found.map(({ check, from }) => [check, from])).toEqual([
      ['volume', 4],
      ['way', 4],
      ['arc', 4],
      ['volume', 8],
      // Of three drawings, each held a sixth of a second, none rests at the beginning.
      ['exposed', 0],
    ])
    expect(findings(survey(inbetween(charted()), shapes(300))).map(f => f.words)).toEqual(found.map(f => f.words))
    expect(findings(survey(sampleDocument(), {})).map(f => f.check)).toEqual(['exposed'])
    expect(findings(survey(inbetween(charted()), shapes(0)), ['arc']).map(f => f.check)).toEqual(['arc'])
    expect(new Set(CHECK_NAMES.map(name => CHECKS[name].words)).size).toBe(CHECK_NAMES.length)
  })

  test('longest step: silent without a ceiling and within it; beyond it, by how much and from where', () => {
    const places = [0, 50, 100].map(x => ({ x, y: 10, planted: false }))
    const held = (ceiling: number | null) => {
      const result = applyBatch(charted(places), [{ kind: 'shot.set', patch: { ceiling } }])
      if (!result.ok) throw new Error(result.refusal.code)
      return result.document
    }
    // Four frames from one to the next, 50 px: 12.5 a frame. A pixel is never too far: 50 > 4 · 12 + 1, and not 4 · 12.3 + 1.
    expect(asked('ceiling', held(null))).toEqual([])
    expect(asked('ceiling', held(12.3))).toEqual([])
    expect(asked('ceiling', held(12))).toEqual([
      ['b', 4, 5, 'heel of 5 goes 12.5 px a frame, more than 12, from 1'],
      ['c', 8, 9, 'heel of 9 goes 12.5 px a frame, more than 12, from 5'],
    ])
    // Without marks it is read by the middles of the drawings.
    const bare = { ...held(12), marks: {} }
    expect(asked('ceiling', bare, { a: disc(0, 0), b: disc(20, 0), c: disc(100, 0) })).toEqual([
      ['c', 8, 9, '9 goes 20 px a frame, more than 12, from 5'],
    ])
    expect(CHECKS.ceiling.isAsked?.({ document: held(null) })).toBe(false)
  })
})
