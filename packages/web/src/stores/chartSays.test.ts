import { expect, test } from '@jest/globals'
import { presetTicks, presetWish } from '@unhurried/core/chart'
import { applyBatch, currentTake, FIRST, type KeyPair } from '@unhurried/core/document'
import { readChart } from '@unhurried/core/measure'
import { sampleDocument } from '../../../core/src/document/tests/sample.ts'
import { gapBetween, verdictOf } from './chartSays.ts'

/** Keys a and c with b half-way between them, seven frames apart or eight. */
function charted() {
  const layer = FIRST.drawn
  const ticks = presetTicks('even', 1).map(tick => ({ ...tick, drawing: 'b' }))
  const done = applyBatch(sampleDocument(), [
    { kind: 'drawing.set', id: 'b', patch: { role: 'inbetween' } },
    { kind: 'chart.add', chart: { id: 'ac', layer, from: 'a', to: 'c', part: null, wish: presetWish('even'), ticks } },
  ])
  if (!done.ok) throw new Error(done.refusal.what)
  return done.document
}
const disc = (x: number) => ({
  area: 400,
  centroid: { x, y: 0 },
  halfAxes: [11, 11] as const,
  tiltRad: 0,
  open: null,
})

test('the rail says which drawing misses its tick by most, by how much and which way; met, what they amount to', () => {
  const document = charted()
  const read = (x: number) => {
    const shapes = new Map([
      ['a', disc(0)],
      ['b', disc(x)],
      ['c', disc(200)],
    ])
    return readChart({ document, take: currentTake(document), shapes }, document.charts['ac']!, null)
  }
  const says = (x: number) => verdictOf(read(x), document.charts['ac']!, id => (id ? document.drawings[id]! : null))
  expect(says(120)).toEqual({ words: '5 lies at 0.60, wanted 0.50: 20 px back', met: false })
  expect(says(70)).toEqual({ words: '5 lies at 0.35, wanted 0.50: 30 px on', met: false })
  expect(says(101)).toEqual({ words: read(101).words, met: true })
  // Read of another chart, or of none.
  expect(verdictOf(read(120), null, () => null)).toEqual({ words: '', met: true })
  expect(verdictOf(null, document.charts['ac']!, () => null)).toEqual({ words: '', met: true })
})

test('an odd gap is told with the moves that can be made; an even one is not', () => {
  const document = charted()
  const take = currentTake(document)
  const pair = (toFrame: number): KeyPair => ({
    from: document.drawings['a']!,
    to: document.drawings['c']!,
    fromFrame: 0,
    toFrame,
  })
  expect(gapBetween(document, take, pair(8), 1, 'stay')).toBeNull()
  expect(gapBetween(document, take, pair(8), 0, 'stay')).toBeNull()
  expect(gapBetween(document, take, pair(1), 1, 'stay')).toBeNull()
  const odd = gapBetween(document, take, pair(7), 1, 'stay')
  expect(odd?.exact).toBe(false)
  for (const move of odd?.moves ?? []) expect(Number.isInteger(move.frame)).toBe(true)
})
