import { expect, test } from '@jest/globals'
import { distance } from '../../geometry/point.ts'
import { unpackSamples } from '../../geometry/samples.ts'
import { FIRST, freshDocument } from '../model/fresh.ts'
import { guidePlan } from '../model/guides.ts'
import { isDelivered, isStroke } from '../model/model.ts'
import { columnOf, currentTake } from '../model/selectors.ts'
import { get } from '../model/table.ts'
import { RECIPE_NAMES } from '../../motion/table.ts'
import { applyBatch } from '../operations/index.ts'
import { guideLines } from './guideLines.ts'
import { freshGuide } from './guides.ts'

function linesOf(recipe: (typeof RECIPE_NAMES)[number], from = 0, frames = 400) {
  const start = freshDocument({ width: 1280, height: 720, fps: 24, paper: '#fdfaf3' }, frames)
  const guided = applyBatch(start, freshGuide(start, recipe, { take: FIRST.take, layer: FIRST.drawn, from }, 'g'))
  if (!guided.ok) throw new Error(guided.refusal.what)
  const { document } = guided
  let n = 0
  const made = guideLines(document, currentTake(document), get(document.guides, 'g'), 'lines', () => `n${++n}`)
  const done = applyBatch(document, made.ops)
  if (!done.ok) throw new Error(done.refusal.what)
  return {
    document: done.document,
    samples: made.samples,
    plan: guidePlan(document, get(document.guides, 'g')),
    before: document,
    inverse: done.inverse,
  }
}

test.each(RECIPE_NAMES)(
  '%s becomes lines on a guide layer that is never sent off, a sheet for every drawing',
  recipe => {
    const { document, samples, plan, before, inverse } = linesOf(recipe)
    const layer = Object.values(document.layers).find(one => one.kind === 'guide')!
    expect([isDelivered(layer), layer.order]).toEqual([false, 0.75])
    const sheets = Object.values(document.drawings)
    expect(sheets).toHaveLength(plan.drawings.length)
    for (const { elements } of sheets) expect(Object.keys(elements).length).toBeGreaterThan(0)
    expect(samples.size).toBe(sheets.reduce((sum, { elements }) => sum + Object.keys(elements).length, 0))
    for (const bytes of samples.values()) expect(unpackSamples(bytes).length).toBeGreaterThan(1)
    const back = applyBatch(document, inverse)
    expect(back.ok && back.document).toEqual(before)
  },
)

test('a body is as round as it was worked out, and what does not loop ends with the shot', () => {
  const { document, samples, plan } = linesOf('bounce', 4, 24)
  const layer = Object.values(document.layers).find(one => one.kind === 'guide')!
  const column = columnOf(currentTake(document), layer.id)
  expect([column[0], column.reduce((sum, run) => sum + run.frames, 0)]).toEqual([{ drawing: null, frames: 4 }, 24])
  // The last line of a bounce is its body: on the first drawing a circle round its middle.
  const first = get(document.drawings, column[1]?.drawing ?? '')
  const { x, y, radius } = (plan.numbers ?? {}) as { x: number; y: number; radius: number }
  const last = Object.values(first.elements)
    .sort((a, b) => a.z - b.z)
    .at(-1)
  const points = unpackSamples(samples.get(last?.kind === 'line' ? last.samples : '')!)
  for (const p of points) expect(Math.abs(distance(p, { x, y }) - radius)).toBeLessThan(0.4)
})

test('lines of a layer that moves go along with it', () => {
  const { document } = linesOf('scroll', 3)
  const layer = Object.values(document.layers).find(one => one.kind === 'guide')!
  expect(currentTake(document).paths[layer.id]?.keys[0]?.frame).toBe(3)
  const { document: walked } = linesOf('walk')
  expect(currentTake(walked).paths).toEqual({})
})

test('near and far limbs are told apart as those of a rough are', () => {
  const labels = (recipe: (typeof RECIPE_NAMES)[number]) => {
    const strokes = Object.values(linesOf(recipe).document.drawings).flatMap(drawing => Object.values(drawing.elements))
    return new Set(strokes.map(stroke => (isStroke(stroke) ? stroke.label : 'none')))
  }
  expect(labels('walk')).toEqual(new Set([null, 'near', 'far']))
  expect(labels('bounce')).toEqual(new Set([null]))
})
