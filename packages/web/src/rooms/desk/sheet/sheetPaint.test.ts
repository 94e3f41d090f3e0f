import { newLayer } from '@unhurried/core/document'
import { describe, expect, test } from '@jest/globals'
import type { Drawing, Layer, Role } from '@unhurried/core/document'
import { endAt, keyAt, paintColumns, type PaintedColumn, type SheetInks } from './sheetPaint.ts'
import type { SeenRun } from './sheetSight.ts'

const layer: Layer = newLayer('l', 'figure', 1)
const INKS: SheetInks = {
  ink: 'ink',
  soft: 'soft',
  hold: 'hold',
  repeatedHold: 'rule',
  repeated: 'again',
  shared: 'green',
  cycle: 'past',
  face: 'sans',
}
const STROKES = { s: {} } as unknown as Drawing['elements']

function run(number: number, start: number, frames: number, role: Role = 'inbetween', more: Partial<SeenRun> = {}) {
  const sheet: Drawing = { id: `d${number}`, layer: 'l', number, role, elements: STROKES, marks: {} }
  return { drawing: sheet.id, start, frames, sheet, shared: false, repeated: false, ...more }
}
const column = (runs: SeenRun[], more: Partial<PaintedColumn> = {}): PaintedColumn => ({
  layer,
  left: 100,
  width: 40,
  runs,
  cycles: [],
  guides: [],
  places: [],
  unseen: false,
  drag: null,
  ...more,
})

/** A pen that writes down what it is told, with the colour it has by then. */
function writingPen() {
  const said: string[] = []
  const state: Record<string, unknown> = { fillStyle: '', globalAlpha: 1 }
  const pen = new Proxy(state, {
    get: (_, name: string) => {
      if (name in state) return state[name]
      if (name === 'measureText') return (text: string) => ({ width: text.length * 7 })
      return (...args: unknown[]) => void said.push(`${name} ${args.join(' ')} ${String(state.fillStyle)}`)
    },
    set: (_, name: string, value) => {
      state[name] = value
      return true
    },
  })
  return { pen: pen as unknown as CanvasRenderingContext2D, said }
}

function painted(columns: PaintedColumn[]): string[] {
  const { pen, said } = writingPen()
  paintColumns(pen, columns, 20, 200, INKS)
  return said
}

describe('the sheet written on a canvas', () => {
  test('a place that the layer has of its own is marked at the right of its row', () => {
    const bare = painted([column([])])
    const said = painted([column([], { places: [12] })]).slice(bare.length)
    // The middle of the third row in sight, at the right end of the column.
    expect(said.filter(one => /^(moveTo|lineTo)/.test(one)).map(one => one.split(' ').slice(1, 3).map(Number))).toEqual(
      [
        [133, 50],
        [136.5, 45.5],
        [140, 50],
        [136.5, 54.5],
      ],
    )
  })

  test('a guide is bracketed at the right, dotted, along the frames it covers', () => {
    const bare = painted([column([])])
    const said = painted([column([], { guides: [[12, 18]] })]).slice(bare.length)
    // Rows are 20 px, the first in sight is the tenth; the column ends at 140.
    expect(said.filter(one => /^(moveTo|lineTo)/.test(one)).map(one => one.split(' ').slice(1, 3).map(Number))).toEqual(
      [
        [132, 43],
        [136.5, 43],
        [136.5, 157],
        [132, 157],
      ],
    )
    expect(said.some(one => one.startsWith('setLineDash 2,2.5'))).toBe(true)
  })

  test('a number stands in its row, the line of its hold ends before the next', () => {
    // Frame 12 is 240 px down; the canvas begins at 200.
    expect(painted([column([run(7, 12, 3)])])).toEqual(['fillRect 120 62 1 35 hold', 'fillText 7 120.5 51.5 ink'])
    expect(painted([column([run(7, 12, 1)])])).toEqual(['fillText 7 120.5 51.5 ink'])
  })

  test('a key is ringed, a breakdown underlined; drawings of a background are only counted', () => {
    const signs = (role: Role, on = layer) =>
      painted([column([run(7, 12, 1, role)], { layer: on })]).map(line => line.split(' ')[0])
    expect(signs('key')).toEqual(['fillText', 'beginPath', 'roundRect', 'stroke'])
    expect(signs('breakdown')).toEqual(['fillText', 'fillRect'])
    expect(signs('inbetween')).toEqual(['fillText'])
    expect(signs('key', { ...layer, kind: 'background' })).toEqual(['fillText'])
  })

  test('shared, repeated and locked drawings are told apart', () => {
    expect(painted([column([run(7, 12, 1, 'inbetween', { shared: true })])])).toContain('fillText = 131.5 51.5 green')
    expect(painted([column([run(7, 12, 2, 'inbetween', { repeated: true })])])).toEqual([
      'fillRect 120 62 1 15 rule',
      'fillText 7 120.5 51.5 again',
    ])
    expect(painted([column([run(7, 12, 1)], { layer: { ...layer, locked: true } })])[0]).toMatch(/soft$/)
  })

  test('a hold that is being dragged is shown as long as it will be', () => {
    const drag = { kind: 'hold', layer: 'l', start: 12, frames: 6, was: 3 } as const
    expect(painted([column([run(7, 12, 3)], { drag })])[0]).toBe('fillRect 120 62 1 95 hold')
  })

  test('a key is taken hold of at its ring, a hold at its end', () => {
    const runs = [run(1, 0, 3, 'key'), run(2, 3, 3)]
    expect(keyAt(layer, runs, 5, 12, 20)?.sheet?.number).toBe(1)
    expect([keyAt(layer, runs, 20, 12, 20), keyAt(layer, runs, 5, 30, 20), keyAt(layer, runs, 5, 72, 20)]).toEqual([
      null,
      null,
      null,
    ])
    expect(endAt(runs, 57, 20)?.sheet?.number).toBe(1)
    expect(endAt(runs, 50, 20)).toBeNull()
    expect(endAt(runs, 122, 20)?.sheet?.number).toBe(2)
  })
})
