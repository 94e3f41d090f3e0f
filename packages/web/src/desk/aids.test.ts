import { describe, expect, test } from '@jest/globals'
import { EMPTY_BOX, IDENTITY } from '@unhurried/core/geometry'
import { aidsFrom, NO_AIDS, paintAids, type PaperAids } from './aids.ts'

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

  test('what was kept is read again; what cannot be is off', () => {
    const aids: PaperAids = { ...NO_AIDS, safe: true, grid: 40, ground: 612 }
    expect(aidsFrom(JSON.parse(JSON.stringify(aids)))).toEqual(aids)
    for (const broken of [null, 'x', { grid: -3, horizon: 'low', safe: 'yes' }])
      expect(aidsFrom(broken)).toEqual(NO_AIDS)
  })
})
