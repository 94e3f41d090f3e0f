import { beforeEach, describe, expect, test } from '@jest/globals'
import { PENS_AS_THEY_CAME } from '../strokes/pens.ts'

function storage() {
  const kept = new Map<string, string>()
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    clear: () => kept.clear(),
  }
}
const [machine, tab] = [storage(), storage()]
Object.assign(globalThis, { localStorage: machine, sessionStorage: tab })
const { keepSettings, readSettings } = await import('./settings.ts')

beforeEach(() => {
  machine.clear()
  tab.clear()
})

describe('what the desk is set to', () => {
  const fresh = readSettings()

  test('comes back as it was kept, and as it came where nothing was', () => {
    const set = {
      ...fresh,
      tool: 'gather',
      following: 'stay',
      toolSettings: { gather: { by: 'box', parts: true } },
    } as const
    keepSettings(set)
    expect(readSettings()).toEqual(set)
    expect(fresh).toMatchObject({ tool: 'line', swatch: 'graphite', pens: PENS_AS_THEY_CAME })
    // What is not told of stays as it was kept.
    keepSettings({ dim: 0.3 })
    expect(readSettings()).toEqual({ ...set, dim: 0.3 })
    expect(fresh.lightTable).toMatchObject({ on: true, before: 2, after: 2, strength: 0.55 })
  })

  test('of nonsense, each part is as it came and the rest is kept', () => {
    machine.setItem(
      'desk settings',
      JSON.stringify({
        tool: 7,
        swatch: 'moss',
        pen: 'feather',
        pens: { line: { width: 1e9, smoothing: 0.7, nib: { look: 'chalk', thinning: 0.2 } }, rough: 'none' },
        pressure: { least: 0 },
        lightTable: { before: 90, after: 4, past: 'red; background: url(x)' },
        closedGapPx: -3,
        sheetShape: 'round',
      }),
    )
    const read = readSettings()
    expect(read).toMatchObject({ tool: 'line', swatch: 'moss', pen: 'line', sheetShape: 'edge' })
    expect(read.pens.line).toEqual({
      ...PENS_AS_THEY_CAME.line,
      smoothing: 0.7,
      nib: { ...PENS_AS_THEY_CAME.line.nib, thinning: 0.2 },
    })
    expect(read.pens.rough).toEqual(PENS_AS_THEY_CAME.rough)
    expect([read.pressure, read.closedGapPx]).toEqual([fresh.pressure, fresh.closedGapPx])
    expect(read.lightTable).toEqual({ ...fresh.lightTable, after: 4 })
    machine.setItem('desk settings', '{"tool": ')
    expect(readSettings()).toEqual(fresh)
  })

  test('two tabs keep their own over a reload; a new one begins with what was kept last', () => {
    keepSettings({ ...fresh, tool: 'trim' })
    // The other tab, in a storage of its own.
    machine.setItem('desk settings', JSON.stringify({ ...fresh, tool: 'push' }))
    expect(readSettings().tool).toBe('trim')
    tab.clear()
    expect(readSettings().tool).toBe('push')
  })

  test('what tools were set to before each had settings of its own goes to the tool it belonged to', () => {
    machine.setItem(
      'desk settings',
      JSON.stringify({
        tips: { 'rub-out': 20, trim: 9, push: 120 },
        takes: 'line',
        gathering: { by: 'box', parts: true },
        shapeSmoothing: 0.8,
      }),
    )
    expect(readSettings().toolSettings).toMatchObject({
      'rub-out': { width: 20, takes: 'line' },
      trim: { width: 9, takes: 'line' },
      push: { width: 120 },
      gather: { by: 'box', parts: true },
      shape: { smoothing: 0.8 },
    })
  })
})
