import { performance } from 'node:perf_hooks'
import { core } from './core.mjs'

/** Guides with as much in them as their numbers allow. */
const HEAVY = {
  bounce: { restitution: 0.95, exposure: 1 },
  chain: { how: 'spring', links: 24, damping: 0.3, exposure: 1, period: 240 },
  pendulum: { links: 12, exposure: 1, period: 240 },
  walk: { pack: 8, exposure: 1 },
  legs: { legs: 24, exposure: 1 },
  wisps: { height: 4000, pitch: 80, drawings: 48 },
  flame: { tips: 3, drawings: 24 },
  soft: { drawings: 48 },
}
const SHOT = { width: 1920, height: 1080, fps: 24, exposure: 1 }
const ROUNDS = 5
const BUDGET_MS = 1

/** What the figure of one frame takes, of the recipe that takes longest. */
export async function guideRows() {
  const { RECIPES, figureOf } = await core('motion')
  const ignore = () => undefined
  const sink = { ellipse: ignore, bend: ignore, line: ignore, path: ignore, arrow: ignore }
  const figures = Object.entries(RECIPES).map(([name, recipe]) => {
    const numbers = { ...recipe.defaults(SHOT), ...HEAVY[name] }
    const no = recipe.refuse(numbers, SHOT)
    if (no) throw new Error(`${name}: ${no.field} ${no.why}`)
    const plan = recipe.plan(numbers, SHOT)
    const frames = Math.min(plan.frames, 200)
    let best = Infinity
    for (let round = 0; round < ROUNDS; round++) {
      const start = performance.now()
      for (let frame = 0; frame < frames; frame++) figureOf(name, plan, frame, sink)
      best = Math.min(best, (performance.now() - start) / frames)
    }
    return { name, best }
  })
  const slowest = figures.reduce((most, one) => (one.best > most.best ? one : most))
  return [
    {
      what: `guide: one frame of the heaviest (${slowest.name})`,
      figure: `${slowest.best.toFixed(3)} ms`,
      budget: `< ${BUDGET_MS} ms`,
      met: slowest.best < BUDGET_MS,
      ratio: `of ${figures.length} movements`,
    },
  ]
}
