import { describe, expect, test } from '@jest/globals'
import { EMPTY_BOX, IDENTITY } from '@unhurried/core/geometry'
import { Aids, cropBox, freshArc, NO_AIDS, paintAids, type PaperAids } from './aids.ts'

const FORMAT = { width: 400, height: 300, fps: 24, paper: '#fdfaf3' }

/** A canvas that writes down the lines traced and the words written on it. */
function told(aids: Partial<PaperAids>, everything = EMPTY_BOX) {
  const said: string[] = []
  const brush = new Proxy({} as Record<string, unknown>, {
    get: (_, name: string) => (x: unknown, y: unknown, z: unknown) => {
      if (name === 'moveTo' || name === 'lineTo')
        said.push(`${name === 'moveTo' ? 'from' : 'to'} ${String(x)},${String(y)}`)
      if (name === 'fillText') said.push(`“${String(x)}” ${String(y)},${String(z)}`)
    },
    set: () => true,
  })
  const canvas = { getContext: () => brush } as unknown as HTMLCanvasElement
  paintAids(canvas, IDENTITY, 1, FORMAT, { ...NO_AIDS, ...aids }, everything)
  return said
}

describe('lines over the paper', () => {
  test('none when none is wanted', () => expect(told({})).toEqual([]))

  test('a grid, thirds and the safe margin lie where they say', () => {
    expect(told({ grid: 200 })).toEqual(['from 200,0', 'to 200,300', 'from 0,200', 'to 400,200'])
    expect(told({ thirds: true })).toContain('from 0,100')
    expect(told({ safe: true })).toHaveLength(4)
  })

  test('the ground says its height; the head room is measured from the box of everything drawn', () => {
    expect(told({ ground: 250 })).toEqual(['from 0,250', 'to 400,250', '“ground 250” 14,245'])
    const box = { left: 40, top: 60, right: 200, bottom: 250 }
    expect(told({ room: true }, box)).toContain('“head room 60 px (20 %)” 40,55')
    expect(told({ room: true })).toEqual([])
  })

  test('a grid too fine to be seen is not drawn', () => expect(told({ grid: 1 })).toEqual([]))

  test('an arc goes through its three places and is ticked at its quarters', () => {
    // Level and straight: 400 px long, so its quarters lie at 100, 200 and 300.
    const arc = [0, 200, 400].map(x => ({ x, y: 90 }))
    const said = told({ arcs: [arc] })
    expect([said[0], said.includes('to 400,90')]).toEqual(['from 0,90', true])
    expect(said.slice(-6)).toEqual(['from 100,95', 'to 100,85', 'from 200,95', 'to 200,85', 'from 300,95', 'to 300,85'])
  })

  test('a new arc lies along the way of the drawings, or over the middle of the paper', () => {
    const way = [10, 20, 30, 40, 50].map(x => ({ x: x + 0.3, y: x }))
    expect(freshArc(FORMAT, way).map(p => p.x)).toEqual([10, 30, 50])
    expect(freshArc(FORMAT, [])).toEqual([
      { x: 80, y: 225 },
      { x: 200, y: 90 },
      { x: 320, y: 225 },
    ])
  })

  test('a crop leaves the picture, or the middle of it in another shape, and covers the rest', () => {
    expect(cropBox(FORMAT, 'frame')).toEqual({ left: 0, top: 0, right: 400, bottom: 300 })
    expect(cropBox(FORMAT, 'square')).toEqual({ left: 50, top: 0, right: 350, bottom: 300 })
    // 400 wide at 16:9 is 225 high; 300 high at 9:16 is 168.75 wide.
    expect(cropBox(FORMAT, 'wide')).toEqual({ left: 0, top: 37.5, right: 400, bottom: 262.5 })
    expect(cropBox(FORMAT, 'tall')).toEqual({ left: 115.625, top: 0, right: 284.375, bottom: 300 })
  })

  test('what was kept is read again; what cannot be is off', () => {
    const arcs = [[1, 2, 3].map(x => ({ x, y: 0 }))]
    const aids: PaperAids = { ...NO_AIDS, safe: true, grid: 40, ground: 612, arcs, crop: 'tall' }
    expect(Aids.parse(JSON.parse(JSON.stringify(aids)))).toEqual(aids)
    for (const broken of [null, 'x', { grid: -3, horizon: 'low', safe: 'yes', arcs: [[{ x: 1 }], 7], crop: 'oval' }])
      expect(Aids.parse(broken)).toEqual(NO_AIDS)
  })
})
