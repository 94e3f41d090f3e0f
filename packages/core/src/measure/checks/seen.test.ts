import { describe, expect, test } from '@jest/globals'
import { FIRST, freshDocument } from '../../document/model/fresh.ts'
import type { Drawing, ShotDocument } from '../../document/model/model.ts'
import { applyBatch, type Operation } from '../../document/operations/index.ts'
import { currentTake } from '../../document/model/selectors.ts'
import { sampleElement } from '../../document/tests/sample.ts'
import { runsOf } from '../../raster/wobble.ts'
import type { DrawingFacts } from '../../raster/index.ts'
import { gapsIn, partGrid } from '../presence.ts'
import type { Survey } from '../survey.ts'
import { deliveredFrames } from '../delivered.ts'
import { flashGrid } from '../../raster/index.ts'
import { CHECKS, type CheckName } from './table.ts'

const layer = FIRST.drawn
const done = (document: ShotDocument, ops: readonly Operation[]): ShotDocument => {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}
const [INK, PAINT] = Object.keys(freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 1).swatches) as [
  string,
  string,
]
const element = (id: string, more: object = {}) => ({
  ...sampleElement(id),
  id,
  kind: 'line' as const,
  swatch: INK,
  label: null,
  ...more,
})

/** Drawings on twos; each is told by its elements. */
function shot(all: readonly (readonly object[])[], more: readonly Operation[] = []): ShotDocument {
  const fresh = freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 2 * all.length)
  return done(fresh, [
    ...all.map((elements, i): Operation => {
      const own = elements.map((one, k) => element(`e${i + 1}-${k}`, one))
      const drawing: Drawing = {
        id: `d${i + 1}`,
        layer,
        number: i + 1,
        role: 'key',
        elements: Object.fromEntries(own.map(one => [one.id, one])),
        marks: {},
      }
      return { kind: 'drawing.add', drawing }
    }),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer,
      from: 0,
      runs: all.map((_, i) => ({ drawing: `d${i + 1}`, frames: 2 })),
    },
    ...more,
  ])
}
const LINES = { count: 3, widthPx: 4, leaks: [], strays: [], runs: [] }
const facts = (more: Partial<DrawingFacts['lines']> = {}, areas: Record<string, number> = {}): DrawingFacts => ({
  lines: { ...LINES, ...more },
  areas,
})
const survey = (document: ShotDocument, all: readonly DrawingFacts[] = []): Survey => ({
  document,
  take: currentTake(document),
  shapes: new Map(),
  facts: new Map(all.map((one, i) => [`d${i + 1}`, one])),
  delivered: null,
  loop: null,
})
const said = (check: CheckName, of: Survey) => CHECKS[check].inspect(of).map(one => one.words)
const shape = { kind: 'shape', swatch: PAINT }
const off: Operation = { kind: 'layer.set', id: layer, patch: { volume: 'off' } }

describe('parts and drawings', () => {
  const marked = (on: readonly number[]): Operation[] => [
    { kind: 'mark.add', mark: { id: 'nose', layer, name: 'nose', order: 1, kind: 'point' } },
    ...on.map((n): Operation => ({
      kind: 'marks.place',
      drawing: `d${n}`,
      places: { nose: { x: 10 * n, y: 20, planted: false } },
    })),
  ]
  test('the grid: marks, limbs, colours, and the sheets that go along', () => {
    const document = shot(
      [[{}], [{ label: 'near' }, shape], [], [shape]],
      [
        ...marked([1, 4]),
        {
          kind: 'layer.add',
          layer: {
            ...shot([[{}]]).layers[layer]!,
            id: 'paint',
            name: 'paint',
            order: 0.5,
            follows: layer,
            counted: false,
          },
        },
        // A blank sheet is none.
        {
          kind: 'drawing.add',
          drawing: { id: 'p1', layer: 'paint', number: 1, role: 'key', elements: {}, marks: {} },
        },
        {
          kind: 'drawing.add',
          drawing: { id: 'p4', layer: 'paint', number: 4, role: 'key', elements: { x: element('x') }, marks: {} },
        },
      ],
    )
    const grid = partGrid(document, currentTake(document), document.layers[layer]!)
    // The third one is blank.
    expect(grid.drawings.map(({ drawing, from }) => [drawing.number, from])).toEqual([
      [1, 0],
      [2, 2],
      [4, 6],
    ])
    expect(grid.rows.map(({ kind, there }) => [kind, there])).toEqual([
      ['layer', [false, false, true]],
      ['mark', [true, false, true]],
      ['label', [false, true, false]],
      ['colour', [true, true, true]],
      ['colour', [false, true, true]],
    ])
  })

  test('empty cells between filled ones, and only these', () => {
    expect(gapsIn({ there: [false, true, false, false, true, false, true, false] })).toEqual([
      { from: 2, to: 4 },
      { from: 5, to: 6 },
    ])
    expect(gapsIn({ there: [false, false] })).toEqual([])
  })

  test('a mark that is missing is a note; a colour that is missing on one drawing is worth a look, on two it went away', () => {
    const all = [[{}, shape], [{}], [{}, shape], [{}], [{}], [{}, shape]]
    expect(
      CHECKS.present
        .inspect(survey(shot(all)))
        .map(({ severity, words, from, drawings }) => [severity, from, drawings.length, words.replace(/^.* is/, 'is')]),
    ).toEqual([['look', 2, 1, 'is not on 2, and on 1 and 3']])
    expect(said('present', survey(shot(all, [off])))).toEqual([])
    expect(
      CHECKS.present
        .inspect(survey(shot([[{}], [{}], [{}]], marked([1, 3]))))
        .map(({ severity, words }) => [severity, words]),
    ).toEqual([['note', 'nose is not on 2, and on 1 and 3']])
  })
})

describe('lines', () => {
  const four = [
    [{}, shape],
    [{}, shape],
    [{}, shape],
    [{}, shape],
  ]
  const at = { x: 100, y: 110 }
  const leak = { element: 'e2-0', at, to: { x: 100, y: 100 }, gapPx: 6 }

  test('wider or thinner than on the other drawings by more than 15 %, and evened in one step', () => {
    const document = shot(four)
    const measured = survey(document, [
      facts(),
      facts({ widthPx: 4.7 }),
      facts({ widthPx: 3.3 }),
      facts({ widthPx: 4.59 }),
    ])
    expect(said('lines', measured)).toEqual(
      ['lines of 2 are wider: 4.7 px, 4.6 otherwise', 'lines of 3 are thinner: 3.3 px, 4.6 otherwise'].slice(1),
    )
    const found = CHECKS.lines.inspect(measured)[0]!
    const fix = CHECKS.lines.fix?.(measured, found, () => 'new')
    expect(fix?.words).toBe('make 1 line of 3 139 % as wide')
    const after = done(document, fix!.ops).drawings.d3!.elements['e3-0']!
    expect(after).toMatchObject({ width: sampleElement('x').width * (4.59 / 3.3) })
    expect(said('lines', survey(shot(four, [off]), [facts(), facts({ widthPx: 9 }), facts(), facts()]))).toEqual([])
    // Three drawings do not say which of them is unlike the others.
    expect(said('lines', survey(shot(four.slice(1)), [facts(), facts({ widthPx: 9 }), facts()]))).toEqual([])
  })

  test('leaks are told where paint is still to come, and closed by a line like the one that ends there', () => {
    const document = shot([[{}, shape], [{ width: 5 }], [{}, shape]])
    const open = survey(document, [facts({ leaks: [{ ...leak, element: 'e1-0' }] }), facts({ leaks: [leak] }), facts()])
    expect(said('lines', open)).toEqual(['a line of 2 stands open by 6 px: paint would run out'])
    let n = 0
    const fix = CHECKS.lines.fix?.(open, CHECKS.lines.inspect(open)[0]!, () => `new${++n}`)
    expect(fix?.words).toBe('close the gap on 2')
    const after = done(document, fix!.ops).drawings.d2!.elements
    expect(Object.values(after)).toHaveLength(2)
    expect(after.new2).toMatchObject({ kind: 'line', samples: 'new1', width: 5, swatch: INK, matrix: null })
    expect([...fix!.samples!.keys()]).toEqual(['new1'])
    // Out of sight it is closed by a hair, which holds paint like any line; what is no leak has no other way.
    const hair = CHECKS.lines.otherFix?.(open, CHECKS.lines.inspect(open)[0]!, () => `hair${++n}`)
    expect(hair?.words).toBe('close it out of sight')
    const closed = Object.values(done(document, hair!.ops).drawings.d2!.elements).find(one => one.id.startsWith('hair'))
    expect(closed).toMatchObject({ kind: 'line', width: 0.05 })
    const uneven = survey(shot(four), [facts(), facts({ widthPx: 3 }), facts(), facts()])
    expect(CHECKS.lines.otherFix?.(uneven, CHECKS.lines.inspect(uneven)[0]!, () => 'x')).toBeNull()
    // Of a rough nothing is asked.
    expect(said('lines', survey(shot([[{}], [{}]]), [facts(), facts({ leaks: [leak] })]))).toEqual([])
  })

  describe('that tremble', () => {
    const nine = Array.from({ length: 9 }, () => [{}, shape])
    /** A ring of 100 px, shaking so much in waves of 21 px. */
    const ring = (px: number, i: number) =>
      runsOf([
        Array.from({ length: 721 }, (_, k) => {
          const a = (k / 720) * 2 * Math.PI
          const r = 100 + Math.SQRT2 * px * Math.sin(30 * a + 2 * i)
          return { x: 300 + r * Math.cos(a), y: 180 + r * Math.sin(a) }
        }),
      ])
    const traced = (...px: number[]) => px.map((one, i) => facts({ runs: ring(one, i) }))
    const steady = [0.2, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2]

    test('more than the others of their layer are told, from eight drawings on', () => {
      const shot9 = shot(nine)
      expect(said('lines', survey(shot9, traced(...steady)))).toEqual([])
      const shaken = traced(...steady.map((px, i) => (i === 4 ? 2 : px)))
      expect(said('lines', survey(shot9, shaken))).toEqual([
        expect.stringMatching(
          /^lines of 5 tremble against both drawings beside it: by 1\.[789] px, 0\.[123] otherwise$/,
        ),
      ])
      // All of them shake alike; it hardly shakes; there are too few to know what is usual; it comes and goes.
      expect(said('lines', survey(shot9, traced(...steady.map(() => 2))))).toEqual([])
      expect(said('lines', survey(shot9, traced(...steady.map((px, i) => (i === 4 ? 0.6 : px)))))).toEqual([])
      expect(said('lines', survey(shot(nine.slice(2)), shaken.slice(2)))).toEqual([])
      expect(said('lines', survey(shot(nine, [off]), shaken))).toEqual([])
      expect(said('lines', survey({ ...shot9, thresholds: { wobble: 20 } }, shaken))).toEqual([])
    })

    test('are not told where the hand was never steady: within four deviations it is chance', () => {
      const unsteady = [0.5, 0.5, 0.1, 1.4, 0.3, 1.8, 0.2, 1.2, 0.6]
      const measured = survey(shot(nine), traced(...unsteady))
      const values = CHECKS.lines.series?.(measured).find(one => one.what === 'tremble')?.values ?? []
      // One trembles twice as much as usual, and by more than is seen.
      const [usual = 0] = [...values.map(one => one.value)].sort((a, b) => a - b).slice(3)
      expect(Math.max(...values.map(one => one.value))).toBeGreaterThan(Math.max(0.75, 2 * usual))
      expect(said('lines', measured)).toEqual([])
    })

    test('are worked out anew once a drawing beside it is another', () => {
      const [document, all] = [shot(nine), traced(...steady)]
      const of = (facts9: readonly DrawingFacts[]) =>
        CHECKS.lines.series?.(survey(document, facts9)).find(one => one.what === 'tremble')?.values[3]?.value ?? 0
      const before = of(all)
      const other = [...all.slice(0, 5), facts({ runs: ring(3, 8) }), ...all.slice(6)]
      expect(of(other)).not.toBe(before)
      expect(of(all)).toBe(before)
    })

    test('are plotted for every drawing with two beside it, and worked out piece by piece', () => {
      const measured = survey(shot(nine), traced(...steady.map((px, i) => (i === 4 ? 2 : px))))
      const series = CHECKS.lines.series?.(measured).find(one => one.what === 'tremble')
      expect(series?.values.map(({ frame, drawing }) => [frame, drawing])).toEqual(
        [2, 3, 4, 5, 6, 7, 8].map(n => [2 * (n - 1), `d${n}`]),
      )
      expect(Math.max(...series!.values.map(one => one.value))).toBe(series!.values[3]!.value)
      expect([...CHECKS.lines.prepare!(measured)]).toHaveLength(7)
    })
  })

  test('a stray is taken off; what both neighbours have is drawn on purpose', () => {
    const stray = { element: 'e2-0', at }
    const document = shot(four)
    const one = survey(document, [facts(), facts({ strays: [stray] }), facts(), facts()])
    expect(said('lines', one)).toEqual(['a short stroke of 2 lies far from everything else'])
    const fix = CHECKS.lines.fix?.(one, CHECKS.lines.inspect(one)[0]!, () => 'new')
    expect(done(document, fix!.ops).drawings.d2!.elements['e2-0']).toBeUndefined()
    expect(
      said('lines', survey(document, [facts(), facts({ strays: [stray] }), facts({ strays: [stray] }), facts()])),
    ).toEqual([])
  })
})

describe('colours', () => {
  const three = [
    [{}, shape],
    [{}, shape],
    [{}, shape],
  ]
  const areas = (...px: number[]) => px.map(area => facts({}, { [PAINT]: area }))
  test('a colour twice as large, or half as large, as on both drawings beside it', () => {
    const name = shot(three).swatches[PAINT]!.name
    expect(said('paint', survey(shot(three), areas(1000, 2100, 900)))).toEqual([
      `${name} of 2 has 221 % of its size on 1 and 3`,
    ])
    expect(said('paint', survey(shot(three), areas(1000, 440, 900)))).toEqual([
      `${name} of 2 has 46 % of its size on 1 and 3`,
    ])
    for (const quiet of [
      [1000, 1900, 900],
      [1000, 460, 900],
      [1000, 2100, 2200],
      [100, 320, 90],
      [1000, 0, 900],
    ]) {
      expect(said('paint', survey(shot(three), areas(...quiet)))).toEqual([])
    }
    expect(said('paint', survey(shot(three, [off]), areas(1000, 2100, 900)))).toEqual([])
  })
})

describe('the arc of marks', () => {
  /** A quarter of a circle in nine drawings; one of them off it by so many px. */
  const circle = (offPx: number, more: readonly Operation[] = []) => {
    const places = Array.from({ length: 9 }, (_, i) => {
      const a = (i / 8) * (Math.PI / 2)
      const r = 200 + (i === 4 ? offPx : 0)
      return { x: 300 + r * Math.cos(a), y: 300 - r * Math.sin(a), planted: false }
    })
    return shot(
      places.map(() => [{}]),
      [
        { kind: 'mark.add', mark: { id: 'nose', layer, name: 'nose', order: 1, kind: 'point' } },
        ...places.map((nose, i): Operation => ({ kind: 'marks.place', drawing: `d${i + 1}`, places: { nose } })),
        ...more,
      ],
    )
  }
  // Steps are 39 px long.
  test('off by more than a quarter of a step is told once, at the one that is off', () => {
    expect(said('arc', survey(circle(14)))).toEqual([
      'nose of 5 lies 14.1 px off the arc of its neighbours: 33 % of a step',
    ])
    expect(said('arc', survey(circle(8)))).toEqual([])
    expect(said('arc', survey({ ...circle(8), thresholds: { arc: 0.15 } }))).toHaveLength(1)
    expect(said('arc', survey({ ...circle(14), thresholds: { arc: 0.4 } }))).toEqual([])
    expect(said('arc', survey(circle(0)))).toEqual([])
  })
  test('a planted place is a contact and may turn as it likes', () => {
    const planted: Operation = {
      kind: 'marks.place',
      drawing: 'd5',
      places: { nose: { x: 300 + 214 * Math.SQRT1_2, y: 300 - 214 * Math.SQRT1_2, planted: true } },
    }
    expect(said('arc', survey(circle(14, [planted])))).toEqual([])
  })
})

describe('flashes of a film', () => {
  const grid = { ...flashGrid(4, 3, 34), enough: 5 }
  const cells = (light: number) => new Uint16Array(3 * grid.across * grid.down).fill(Math.round(light * 65_535))
  const LIGHT = [cells(0.8), cells(0.1)]
  test('a loop is gone round as often as it is seen: half a second of it is enough', () => {
    // Five changes within half a second of a loop; gone round they are ten in a second.
    const frames = [0, 0, 1, 1, 0, 0, 1, 1, 0, 0, 1, 1]
    expect(deliveredFrames(frames, LIGHT, grid, 24, null).flashing).toEqual([])
    const [found] = deliveredFrames(frames, LIGHT, grid, 24, { from: 0, to: 12 }).flashing
    expect(found).toMatchObject({ kind: 'general', from: 0, to: 12 })
    expect(found!.changes).toBeGreaterThanOrEqual(8)
    const delivered = deliveredFrames(frames, LIGHT, grid, 24, { from: 0, to: 12 })
    const of = { ...survey(shot([[{}]])), delivered: { ...delivered, edges: new Map() } }
    expect(CHECKS.flashes.inspect(of)[0]).toMatchObject({
      severity: 'wrong',
      layer: null,
      from: 0,
      to: 12,
      isInPicture: true,
    })
    expect(CHECKS.flashes.series?.(of)[0]?.values).toHaveLength(12)
    expect(CHECKS.flashes.series?.(survey(shot([[{}]])))).toEqual([])
  })
})
