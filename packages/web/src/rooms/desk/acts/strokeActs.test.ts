import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { newLayer, FIRST, freshDocument, get, openReplica, strokesOn, type Drawing } from '@unhurried/core/document'
import { IDENTITY, rotation, scaling, translation } from '@unhurried/core/geometry'
import { Batch } from '@unhurried/contract'
import fc from 'fast-check'
import { createPinia, setActivePinia } from 'pinia'
import { markRaw, nextTick } from 'vue'
import type { Hand, PaperPort } from '../../../tools/hand.ts'
import { FRESH_LETTERS, shapeLetters } from '../../../strokes/letters.ts'
import { bookFont } from '../../../strokes/tests/fonts.ts'

const kept = new Map<string, string>()
Object.assign(globalThis, {
  localStorage: { getItem: (key: string) => kept.get(key) ?? null, setItem: () => undefined },
  sessionStorage: { getItem: () => null, setItem: () => undefined },
  Path2D: class {
    moveTo() {}
    quadraticCurveTo() {}
    closePath() {}
  },
})
const sent: { id: string; label: string; ops: unknown }[] = []
// Regions are found in a worker, and tested where they are found.
jest.unstable_mockModule('../../../tools/fill/regions.ts', () => ({ regionAt: async () => null }))
jest.unstable_mockModule('../../../local/copies.ts', () => ({
  keepEntries: async () => undefined,
  keepCopy: async () => undefined,
  copyOf: async () => undefined,
  copies: async () => [],
  forgetCopies: async () => undefined,
}))
jest.unstable_mockModule('../../../local/database.ts', () => ({
  database: () => Promise.reject(new Error('no storage here')),
  keep: (_shot: string, batch: (typeof sent)[number]) => Promise.resolve(void sent.push(batch)),
  forget: () => Promise.resolve(),
  keepHistory: () => Promise.resolve(),
  readHistory: () => Promise.resolve(undefined),
  leftover: () => Promise.resolve({ batches: [], samples: new Map() }),
  keepClip: () => Promise.resolve(),
  readClip: () => Promise.resolve(undefined),
}))

const { useShot } = await import('../../../stores/shot.ts')
const { useDesk } = await import('../../../stores/desk.ts')
const { useKit } = await import('../../../stores/kit.ts')
const { useSight } = await import('../../../stores/sight.ts')
const { startAfresh } = await import('../../../stores/afresh.ts')
const { useLetters } = await import('../../../stores/letters.ts')
const { settingsNow, TOOL_NAMES, TOOLS } = await import('../../../tools/table.ts')
const { useStrokeActs } = await import('./strokeActs.ts')
const { forgetStrokes } = await import('./strokeClip.ts')

type Name = (typeof TOOL_NAMES)[number]
/** A tool as it is set now, on the paper. */
function handOf(port: PaperPort, name: Name): Hand {
  const hand = TOOLS[name].hand?.(port, settingsNow(name))
  if (!hand) throw new Error(`${name} has no hand`)
  return hand
}
const setTo = ({ kit }: PaperPort, name: Name, settings: object) =>
  (kit.toolSettings = { ...kit.toolSettings, [name]: settings })

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

/** A canvas that takes everything and shows nothing. */
const noCanvas = () =>
  new Proxy(
    { canvas: { width: 100, height: 100 } },
    { get: (target, name) => (name === 'canvas' ? target.canvas : () => undefined), set: () => true },
  ) as unknown as CanvasRenderingContext2D

/** A desk with three empty drawings of four frames each, standing on the first. */
function desk() {
  setActivePinia(createPinia())
  forgetStrokes()
  sent.length = 0
  const [shot, on, kit, sight] = [useShot(), useDesk(), useKit(), useSight()]
  shot.replica = markRaw(openReplica(0, freshDocument({ width: 640, height: 360, fps: 24, paper: '#fdfaf3' }, 12)))
  shot.role = 'owner'
  startAfresh(0)
  shot.commit('drawings', [
    ...[1, 5, 9].map(number => ({
      kind: 'drawing.add' as const,
      drawing: { id: `d${number}`, layer: FIRST.drawn, number, role: 'key' as const, elements: {}, marks: {} },
    })),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: FIRST.drawn,
      from: 0,
      runs: [1, 5, 9].map(number => ({ drawing: `d${number}`, frames: 4 })),
    },
  ])
  const lifted = new Set<string>()
  const port: PaperPort = {
    shot,
    desk: on,
    kit,
    sight,
    matrix: IDENTITY,
    density: 1,
    brush: noCanvas(),
    px: px => px,
    lift: () => undefined,
    lifted: () => lifted,
    say: () => undefined,
    show: () => undefined,
  }
  const use = (hand: Hand, places: readonly (readonly [number, number])[], keys = { shift: false, alt: false }) => {
    places.forEach(([x, y], i) => hand.move([{ x, y, pressure: 0.5, timeMs: i * 16, isPen: true }], keys))
    hand.finish()
  }
  const row = (y: number, from = 40, to = 200) =>
    Array.from({ length: 21 }, (_, i) => [from + ((to - from) * i) / 20, y] as const)
  const strokes = (id = 'd1') => strokesOn(shot.drawing(id) as Drawing)
  return { shot, on, kit, acts: useStrokeActs(), port, use, row, strokes }
}

const around = [
  [0, 0],
  [640, 0],
  [640, 360],
  [0, 360],
] as const

describe('strokes changed later', () => {
  test('paint that lies under a line drawing goes along when that is moved whole', () => {
    const { shot, acts, port, use, row } = desk()
    use(handOf(port, 'line'), row(50))
    const paint = newLayer('p', 'paint', 0.5, { follows: FIRST.drawn })
    const line = shot.drawing('d1') as Drawing
    const [stroke] = strokesOn(line)
    const under = {
      ...line,
      id: 'p1',
      layer: 'p',
      marks: {},
      elements: { f: { ...stroke!, id: 'f', kind: 'shape' } },
    } as const
    shot.commit('paint', [
      { kind: 'layer.add', layer: paint },
      { kind: 'drawing.add', drawing: under },
    ])
    acts.gatherAll()
    acts.mapBy('shift', translation(10, 5))
    expect(shot.drawing('p1')?.elements.f?.matrix).toEqual([1, 0, 0, 1, 10, 5])
    expect(shot.drawing('p1')?.elements.f?.matrix).toEqual(Object.values(shot.drawing('d1')!.elements)[0]?.matrix)
  })

  test('a whole drawing that is moved takes its marks along; a part of it does not', () => {
    const { shot, acts, port, use, row, kit } = desk()
    use(handOf(port, 'line'), row(50))
    use(handOf(port, 'line'), row(90))
    shot.commit('nose', [
      { kind: 'mark.add', mark: { id: 'nose', layer: FIRST.drawn, name: 'nose', order: 1, kind: 'point' } },
      { kind: 'marks.place', drawing: 'd1', places: { nose: { x: 100, y: 50, planted: true } } },
    ])
    acts.gatherAll()
    acts.mapBy('shift', translation(10, 5))
    expect(shot.drawing('d1')?.marks).toEqual({ nose: { x: 110, y: 55, planted: true } })
    kit.gather([[...kit.gathered][0] as string])
    acts.mapBy('shift', translation(10, 5))
    expect(shot.drawing('d1')?.marks).toEqual({ nose: { x: 110, y: 55, planted: true } })
  })

  test('numbers are done in order about the pivot', () => {
    const { acts, port, use, row, strokes, kit } = desk()
    use(handOf(port, 'line'), row(50))
    acts.gatherAll()
    kit.pivot = { x: 0, y: 0 }
    acts.byNumbers({ dx: 3, dy: 0, width: 200, height: 100, turn: 90, skew: 0 })
    // (1, 0) is twice as far out, a quarter turn clockwise, and 3 px to the right.
    expect(strokes()[0]?.matrix?.map(v => Math.round(v * 100) / 100 + 0)).toEqual([0, 2, -1, 0, 3, 0])
  })

  test('lines are re-weighted, re-coloured, labelled and given another pen; a shape stays what it is', () => {
    const { acts, port, use, row, strokes, kit } = desk()
    use(handOf(port, 'line'), row(50))
    acts.gatherAll()
    kit.swatch = 'leaf'
    acts.reweight(2)
    acts.relabel('near')
    acts.renib({ look: 'pencil', ends: 'blunt', thinning: 0.1 })
    expect(strokes().map(e => [e.width, e.label, e.nib.look, e.kind])).toEqual([[10, 'near', 'pencil', 'line']])
  })

  test('strokes copied are pasted in place through all marked drawings, and mirrored as a copy', () => {
    const { on, acts, port, use, row, strokes, kit } = desk()
    use(handOf(port, 'line'), row(50))
    acts.gatherAll()
    expect(acts.copy()).toBe(true)
    on.selection = { layers: [FIRST.drawn], from: 0, to: 12 }
    kit.through = true
    acts.paste()
    expect(['d1', 'd5', 'd9'].map(id => strokes(id).length)).toEqual([2, 1, 1])
    expect(new Set(strokes('d9').map(e => e.samples))).toEqual(new Set(strokes('d1').map(e => e.samples)))
    acts.duplicateMirrored('upright')
    expect(['d1', 'd5', 'd9'].map(id => strokes(id).length)).toEqual([3, 2, 2])
    expect(strokes('d9')[1]?.matrix?.[0]).toBe(-1)
    use(handOf(port, 'rub-out'), row(50, 110, 130))
    expect(['d1', 'd5', 'd9'].map(id => strokes(id).length)).toEqual([0, 0, 0])
  })

  test('lines that run on behind a gathered part are cut there, on all marked drawings and on the lines over paint, and come back', () => {
    const { shot, on, acts, port, use, row, strokes, kit } = desk()
    const square = (left: number) =>
      [...row(80, left, left + 80), ...row(160, left + 80, left)].concat([[left, 80]]) as [number, number][]
    // A line across, one drawn on the part, and the part: a closed line.
    use(handOf(port, 'line'), row(120))
    use(handOf(port, 'line'), row(130, 100, 140))
    expect(acts.behind()).toBeNull()
    use(handOf(port, 'line'), square(80))
    const part = strokes()[2]!
    kit.gather([strokes()[1]!.id])
    expect(acts.behind()).toBeNull()
    kit.gather([part.id])
    expect(acts.behind()).toMatchObject({ lines: 1, drawings: 1 })
    acts.cutBehind()
    // 40 to 200 in steps of 8, the part from 80 to 160.
    // From 40 to 200, the part from 80 to 160: pieces of one line lie as high as it did, in no order among them.
    const ends = strokes()
      .slice(0, 2)
      .map(stroke => shot.book.placed(stroke)!.samples.map(({ x }) => x))
      .map(xs => [xs[0]!, xs.at(-1)!])
      .sort(([p], [q]) => p! - q!)
    // The part is drawn by hand, and fitted: within a pixel or so.
    expect(ends.flat().map((x, i) => Math.abs(x - [40, 80, 160, 200][i]!) < 1.5)).toEqual([true, true, true, true])
    expect(strokes().slice(2)).toHaveLength(2)
    expect(acts.behind()).toMatchObject({ lines: 0 })
    shot.undo()
    expect(strokes()).toHaveLength(3)

    // The same on three drawings at once.
    acts.gatherAll()
    acts.copy()
    on.selection = { layers: [FIRST.drawn], from: 0, to: 12 }
    kit.through = true
    acts.paste()
    kit.gather(['d1', 'd5', 'd9'].map(id => strokes(id)[2]!.id))
    expect(acts.behind()).toMatchObject({ lines: 4, drawings: 3 })
    shot.undo()
    on.selection = null
    kit.through = false

    // The same part as paint on a sheet under the lines.
    shot.commit('paint', [
      { kind: 'layer.add', layer: newLayer('p', 'paint', 0.5, { follows: FIRST.drawn }) },
      {
        kind: 'drawing.add',
        drawing: {
          ...shot.drawing('d1')!,
          id: 'p1',
          layer: 'p',
          marks: {},
          elements: { f: { ...part, id: 'f', kind: 'shape' } },
        },
      },
    ])
    on.layerId = 'p'
    kit.gather(['f'])
    // The closed line runs along the edge of the paint: it is the part’s own.
    expect(acts.behind()).toMatchObject({ lines: 1, drawings: 1 })
    acts.cutBehind()
    expect(strokes()).toHaveLength(4)
    expect(strokes('p1')).toHaveLength(1)
  })

  test('lines are joined into one, and smoothed with the same ends', () => {
    const { shot, acts, port, use, row, strokes } = desk()
    use(handOf(port, 'line'), row(50, 40, 120))
    use(handOf(port, 'line'), row(50, 200, 130))
    acts.gatherAll()
    expect(acts.canJoin()).toBe(true)
    acts.join()
    expect([strokes().length, acts.canJoin()]).toEqual([1, false])
    const ends = () => {
      const samples = shot.book.placed(strokes()[0]!)?.samples ?? []
      return [samples[0]?.x, samples.at(-1)?.x].map(x => Math.round(x ?? -1)).sort((a, b) => a - b)
    }
    expect(ends()).toEqual([40, 200])
    acts.smooth()
    expect(ends()).toEqual([40, 200])
  })

  test('gathering adds with Shift, takes away with Alt, and cuts when told to', () => {
    const { port, use, row, strokes, kit } = desk()
    use(handOf(port, 'line'), row(50))
    use(handOf(port, 'line'), row(90))
    const box = (top: number, bottom: number, right = 640) =>
      [
        [0, top],
        [right, bottom],
      ] as const
    setTo(port, 'gather', { by: 'box', parts: false })
    use(handOf(port, 'gather'), box(0, 70))
    expect(kit.gathered.size).toBe(1)
    use(handOf(port, 'gather'), box(70, 120), { shift: true, alt: false })
    expect(kit.gathered.size).toBe(2)
    use(handOf(port, 'gather'), box(70, 120), { shift: false, alt: true })
    expect([...kit.gathered]).toEqual([strokes()[0]?.id])
    setTo(port, 'gather', { by: 'box', parts: true })
    use(handOf(port, 'gather'), box(0, 70, 120))
    expect([strokes().length, kit.gathered.size]).toEqual([3, 1])
  })
})

describe('what the hand is told', () => {
  test('a rubber is as wide as the rubber, whatever tool is in the hand', () => {
    const { port, use, row, strokes, kit } = desk()
    use(handOf(port, 'line'), row(50))
    kit.tool = 'line'
    kit.setPen({ width: 150 })
    use(handOf(port, 'rub-out'), row(110, 60, 90))
    expect(strokes()).toHaveLength(1)
    use(handOf(port, 'rub-out'), row(56, 60, 90))
    expect(strokes()).toHaveLength(0)
  })

  test('the total of a nudge counts what was done, and not what was undone', async () => {
    const { shot, acts, port, use, row, kit } = desk()
    use(handOf(port, 'line'), row(50))
    acts.gatherAll()
    acts.nudge(3, 0)
    acts.nudge(0, -10)
    expect(kit.nudged).toEqual({ x: 3, y: -10 })
    shot.undo()
    await nextTick()
    expect(kit.nudged).toEqual({ x: 0, y: 0 })
    shot.role = 'reviewer'
    acts.nudge(5, 5)
    expect(kit.nudged).toEqual({ x: 0, y: 0 })
  })
})

describe('an evening of tools', () => {
  const font = bookFont()
  const place = fc.tuple(fc.integer({ min: 0, max: 640 }), fc.integer({ min: 0, max: 360 }))
  const track = fc.array(place, { minLength: 1, maxLength: 8 })
  const act = fc.oneof(
    fc.record({
      what: fc.constantFrom(...TOOL_NAMES.filter(name => TOOLS[name].hand)),
      track,
      shift: fc.boolean(),
    }),
    fc.record({
      what: fc.constantFrom(
        'all' as const,
        'copy' as const,
        'paste' as const,
        'smooth' as const,
        'join' as const,
        'bend' as const,
        'turn' as const,
        'skew' as const,
        'mirror' as const,
        'thicker' as const,
        'label' as const,
        'nudge' as const,
        'take off' as const,
      ),
      track,
      shift: fc.boolean(),
    }),
  )

  test('any use of the tools is taken by the server, undone exactly, and redone exactly', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 14 }), fc.boolean(), fc.boolean(), (done, through, parts) => {
        const { shot, on, acts, port, use, kit } = desk()
        on.selection = { layers: [FIRST.drawn], from: 0, to: 8 }
        kit.through = through
        setTo(port, 'gather', { by: 'loop', parts })
        useLetters().shaped = shapeLetters(font, FRESH_LETTERS)
        const start = shot.document
        const begun = shot.history.undo.length
        for (const { what, track: places, shift } of done) {
          const other = {
            all: acts.gatherAll,
            copy: acts.copy,
            paste: acts.paste,
            smooth: acts.smooth,
            join: acts.join,
            bend: () =>
              acts.change('bend', { kind: 'bend', root: { x: 0, y: 300 }, tip: { x: 0, y: 0 }, angleRad: 0.4 }),
            turn: () => acts.mapBy('turn', rotation(0.3, acts.pivot())),
            skew: () => acts.mapBy('skew', scaling(1.2, 0.7, acts.pivot())),
            mirror: () => acts.duplicateMirrored(shift ? 'upright' : 'level'),
            thicker: () => acts.reweight(1.2),
            label: () => acts.relabel(shift ? 'far' : null),
            nudge: () => acts.nudge(3, shift ? -10 : 0),
            'take off': acts.remove,
          }
          if (what in TOOLS) {
            kit.tool = what
            use(handOf(port, what as Name), [...around.slice(0, shift ? 1 : 0), ...places], { shift, alt: false })
          } else other[what as keyof typeof other]()
        }
        expect(shot.notice).toBe('')
        const end = shot.document
        const steps = shot.history.undo.length - begun
        for (let i = 0; i < steps; i++) shot.undo()
        expect(shot.document).toEqual(start)
        for (let i = 0; i < steps; i++) shot.redo()
        expect(shot.document).toEqual(end)
        for (const batch of sent) expect(Batch.safeParse(batch).error?.issues ?? []).toEqual([])
        expect(get(shot.document!.drawings, 'd9').elements).toEqual({})
      }),
      { numRuns: 60 },
    )
  })
})
