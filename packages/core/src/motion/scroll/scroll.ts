import { evenKey, judderOf, type LayerPath } from '../../path/path.ts'
import { PLAIN_PLAN, told1 } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, type Plan, type Recipe, type RecipeShot } from '../recipe.ts'
import { closesAfter, passes, refuseScroll, scrollDefaults, wholeRound, type ScrollNumbers } from './numbers.ts'

/** A layer that passes, worked out. */
export interface ScrollPlan extends Plan<ScrollNumbers> {
  /** how long the strip is shown to be, px */
  readonly length: number
  readonly path: LayerPath
}

/** A drawn layer that passes by: a ground, a row of reeds, a sky. It is drawn once; the layer goes. */
export const scroll: Recipe<ScrollNumbers, ScrollPlan> = {
  through: ['strip'],
  measures: { across: ['x'], down: ['y'], lengths: ['height', 'speed', 'fall', 'closes'] },
  defaults: scrollDefaults,
  refuse: refuseScroll,
  plan(numbers, shot) {
    const round = wholeRound(numbers)
    const frames = round ?? numbers.frames
    return {
      ...PLAIN_PLAN,
      numbers,
      frames,
      loops: round !== null,
      drawings: [{ frame: 0, role: 'key', name: 'strip' }],
      exposures: oneByOne(1, frames),
      told: told(numbers, shot),
      length: numbers.closes ?? shot.width,
      path: pathFor(numbers, shot),
      onlyMoves: true,
    }
  },
  figure(plan, frame, sink) {
    shownOn(plan, frame)
    const { x, y, height, exposure } = plan.numbers
    const [right, top] = [x + plan.length, y - height]
    const corners = [
      { x, y: top },
      { x: right, y: top },
      { x: right, y },
      { x, y },
    ]
    sink.path('strip', [...corners, { x, y: top }])
    for (let i = 1; i < MARKS; i++) {
      const at = x + (i * plan.length) / MARKS
      sink.line('marks', { x: at, y }, { x: at, y: y - height * (i % (MARKS / 2) === 0 ? 0.5 : 0.2) })
    }
    const middle = { x: x + plan.length / 2, y: y - height / 2 }
    const step = { x: passes(plan.numbers) * exposure, y: plan.numbers.fall * plan.numbers.share * exposure }
    if (step.x || step.y) sink.arrow('step', middle, { x: middle.x + step.x, y: middle.y + step.y })
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    return { marks: {}, body: null }
  },
}

/** Pieces the strip is marked in. */
const MARKS = 16

function pathFor(numbers: ScrollNumbers, { width, height }: RecipeShot): LayerPath {
  const { share, fall, whole, exposure, closes } = numbers
  return {
    keys: [evenKey(0, 0, 0)],
    speed: { x: passes(numbers), y: fall * share || 0 },
    pivot: { x: width / 2, y: height / 2 },
    whole,
    on: exposure,
    closes,
    // What is as near as the ground is what one stands on.
    use: share === 1 ? 'ground' : 'moves',
  }
}

/** The steps between places that are rounded, where they are not all alike: a speed of 13.5 px goes 13 and 14. */
export function roundedSteps(pxPerFrame: number, exposure: number): readonly number[] {
  const step = Math.abs(pxPerFrame) * exposure
  return Number.isInteger(step) ? [] : [Math.floor(step), Math.ceil(step)]
}

function told(numbers: ScrollNumbers, shot: RecipeShot): string[] {
  const said: string[] = []
  const speed = passes(numbers)
  const steps = numbers.whole ? roundedSteps(speed, numbers.exposure) : []
  if (steps.length)
    said.push(
      `in whole pixels its steps are ${steps.join(' and ')} px; the speed stays ${told2(Math.abs(speed))} px a frame`,
    )
  const after = closesAfter(numbers)
  if (after !== null && wholeRound(numbers) === null)
    said.push(`the strip closes after ${told1(after)} frames, which is no whole step: a loop of it jumps`)
  const judder = judderOf(pathFor(numbers, shot), shot.width, shot.fps, Number(numbers.judder))
  if (judder) said.push(judder)
  return said
}

const told2 = (px: number): string => String(Math.round(px * 100) / 100)

/** The same with the speed nearest to it at which the strip closes in whole exposures; itself where it does not close, or stands. */
export function closing(numbers: ScrollNumbers): ScrollNumbers {
  const after = closesAfter(numbers)
  if (after === null || numbers.closes === null) return numbers
  const frames = Math.max(1, Math.round(after / numbers.exposure)) * numbers.exposure
  return { ...numbers, speed: (Math.sign(numbers.speed) * numbers.closes) / frames / numbers.share }
}
