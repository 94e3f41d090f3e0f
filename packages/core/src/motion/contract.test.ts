import { describe, expect, test } from '@jest/globals'
import { refusePath } from '../path/path.ts'
import { movedNumbers, RECIPE_NAMES, RECIPES } from './table.ts'
import { shownOn, type ConstructionSink, type Plan, type Recipe, type RecipeShot } from './recipe.ts'

const SHOTS = [8, 12, 24, 60].flatMap(fps =>
  [
    [64, 64],
    [1920, 1080],
    [1080, 1920],
  ].map(([width = 0, height = 0]): RecipeShot => ({ width, height, fps, exposure: fps > 15 ? 2 : 1 })),
)

/** Everything a construction is made of, as text; numbers that are none are found. */
function listener() {
  const told: string[] = []
  const write =
    (kind: string) =>
    (...all: unknown[]) =>
      void told.push(JSON.stringify([kind, ...all], (_, value: unknown) => (Number.isNaN(value) ? 'NaN' : value)))
  const sink: ConstructionSink = {
    ellipse: write('ellipse'),
    bend: write('bend'),
    line: write('line'),
    path: write('path'),
    arrow: write('arrow'),
  }
  return { told, sink }
}

describe.each(RECIPE_NAMES)('%s keeps the contract', name => {
  const recipe = RECIPES[name] as unknown as Recipe<object, Plan<object>>
  const plans = SHOTS.map(shot => ({ shot, numbers: recipe.defaults(shot) }))

  test('has numbers that it takes, at any rate and size, and the same plan for them always', () => {
    for (const { shot, numbers } of plans) {
      expect(recipe.refuse(numbers, shot)).toBeNull()
      expect(recipe.plan(numbers, shot)).toEqual(recipe.plan({ ...numbers }, shot))
    }
  })

  test('every frame shows a drawing, every drawing is shown, first where it says', () => {
    for (const { shot, numbers } of plans) {
      const plan = recipe.plan(numbers, shot)
      const frames = plan.exposures.flatMap(({ drawing, frames }) => Array<number>(frames).fill(drawing))
      expect(plan.exposures.every(one => Number.isInteger(one.frames) && one.frames > 0)).toBe(true)
      expect(frames).toHaveLength(plan.frames)
      expect(plan.drawings.map((_, i) => frames.indexOf(i))).toEqual(plan.drawings.map(({ frame }) => frame))
      expect(shownOn(plan, plan.frames - 1)).toBe(frames.at(-1))
      expect(() => shownOn(plan, plan.frames)).toThrow(`a plan of ${plan.frames} frames has no frame ${plan.frames}`)
      expect(plan.beats.every(({ frame }) => frame >= 0 && frame < plan.frames)).toBe(true)
      for (const { from, to, shares } of plan.charts) {
        expect(shares).toHaveLength(to - from - 1)
        expect([0, ...shares, 1].every((share, i, all) => i === 0 || share > (all[i - 1] as number))).toBe(true)
      }
    }
  })

  test('where its layer moves, its path can be used, begins with it and ends no later', () => {
    for (const { shot, numbers } of plans) {
      const plan = recipe.plan(numbers, shot)
      if (!plan.path) continue
      expect(refusePath(plan.path)).toBeNull()
      expect(plan.path.keys.every(key => key.frame < plan.frames)).toBe(true)
    }
  })

  test('draws a figure on every frame, the same for all frames of a drawing, of numbers only', () => {
    for (const { shot, numbers } of plans) {
      const plan = recipe.plan(numbers, shot)
      const figures = Array.from({ length: plan.frames }, (_, frame) => {
        const { told, sink } = listener()
        recipe.figure(plan, frame, sink)
        return told.join('\n')
      })
      expect(figures.every(text => text.length > 0 && !/NaN|null\b/.test(text))).toBe(true)
      expect(figures).toEqual(figures.map((_, frame) => figures[plan.drawings[shownOn(plan, frame)]?.frame ?? -1]))
      for (const frame of [-1, plan.frames, 0.5])
        expect(() => recipe.figure(plan, frame, listener().sink)).toThrow('has no frame')
    }
  })

  test('on a larger paper, moved aside, its numbers give the same movement, larger and moved aside', () => {
    // Hardly larger: what settles within a pixel takes as many drawings.
    const [factor, dx, dy] = [1.01, 30, -12]
    const points = (numbers: object, shot: RecipeShot): number[][] => {
      const plan = recipe.plan(numbers, shot)
      const found: number[][] = []
      const at = (...ps: { x: number; y: number }[]) => found.push(...ps.map(p => [p.x, p.y]))
      for (const { frame } of plan.drawings)
        recipe.figure(plan, frame, {
          ellipse: (_, middle, along, across, tilt) => {
            at(middle)
            at({ x: middle.x + along * Math.cos(tilt), y: middle.y + along * Math.sin(tilt) })
            at({ x: middle.x - across * Math.sin(tilt), y: middle.y + across * Math.cos(tilt) })
          },
          bend: (_, ...ps) => at(...ps),
          line: (_, ...ps) => at(...ps),
          path: (_, ps) => at(...ps),
          arrow: () => undefined,
        })
      return found
    }
    const shot = { width: 640, height: 360, fps: 24, exposure: 2 }
    const numbers = { ...recipe.defaults(shot) } as Record<string, number>
    const larger = movedNumbers(name, numbers, factor, dx, dy)
    expect(recipe.refuse(larger, shot)).toBeNull()
    const [small, large] = [points(numbers, shot), points(larger, shot)]
    expect(large).toHaveLength(small.length)
    const off = small.map(([x = 0, y = 0], i) => {
      const [u = 0, v = 0] = large[i] ?? []
      return Math.hypot(factor * x + dx - u, factor * y + dy - v)
    })
    // A hundred pixels that are not measured would lie a pixel off.
    expect(Math.max(...off)).toBeLessThan(0.05)
  })

  test('every drawing has a place for every mark, and says what it should measure', () => {
    for (const { shot, numbers } of plans) {
      const plan = recipe.plan(numbers, shot)
      for (const i of plan.drawings.keys()) {
        const { marks, body } = recipe.expect(plan, i)
        expect(Object.keys(marks)).toEqual(plan.marks)
        const numbers = Object.values(marks).flatMap(({ x, y }) => [x, y])
        expect([...numbers, ...(body ? [body.area, ...body.axes, body.tiltRad] : [])].every(Number.isFinite)).toBe(true)
      }
      expect(() => recipe.expect(plan, plan.drawings.length)).toThrow('has no drawing')
    }
  })

  test('refuses whatever is none of its numbers, by its name, and never throws', () => {
    const [{ shot, numbers }] = plans as [(typeof plans)[number]]
    for (const field of Object.keys(numbers)) {
      for (const value of [NaN, Infinity, 1e9, -1e9, 'none of these', undefined, {}, []]) {
        expect(recipe.refuse({ ...numbers, [field]: value }, shot)?.field).toBe(field)
      }
    }
  })
})
