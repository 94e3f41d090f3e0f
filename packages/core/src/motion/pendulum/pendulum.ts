import type { Point } from '../../geometry/point.ts'
import { anglesByOffset, jointsOf } from '../chain/links.ts'
import { PLAIN_PLAN, wholeSteps } from '../plain.ts'
import {
  drawingOf,
  oneByOne,
  shownOn,
  snap,
  type Plan,
  type PlannedChart,
  type PlannedDrawing,
  type Recipe,
} from '../recipe.ts'
import { pendulumDefaults, periodOfLength, refusePendulum, type PendulumNumbers } from './numbers.ts'

/** A pendulum worked out. */
export interface PendulumPlan extends Plan<PendulumNumbers> {
  /** frames of a swing to and fro, as they were taken */
  readonly period: number
}

/** So many swings are planned at most; then it is still. */
const MOST_SWINGS = 24
/** A swing of fewer pixels is not drawn any more. */
const LEAST_PX = 1

/**
 * Something that hangs and swings: its angle is A·cos(2πt/P), less by its decay with every swing, P taken to a multiple of
 * four exposures, so that both ends and the bottom are drawn. What hangs on it follows by offset.
 */
export const pendulum: Recipe<PendulumNumbers, PendulumPlan> = {
  through: ['body'],
  measures: { across: ['x'], down: ['y'], lengths: ['length', 'gravity', 'radius', 'link'] },
  defaults: pendulumDefaults,
  refuse: refusePendulum,
  plan: planPendulum,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const { joints, bob, angle } = hangingOn(plan, shownOn(plan, frame))
    sink.path('way', arcOf(numbers), 'aid')
    sink.line('rod', numbers, bob)
    sink.ellipse('body', bob, numbers.radius, numbers.radius, -angle)
    if (joints.length > 1) sink.path('chain', joints, 'near')
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const { bob, joints } = hangingOn(plan, drawing)
    const { radius } = plan.numbers
    const body = { area: Math.PI * radius ** 2, axes: [radius, radius] as const, tiltRad: 0 }
    return { marks: { bob, tip: joints[joints.length - 1] as Point }, body }
  },
}

/** The angle from straight down on a frame, radians; before the first frame it was held as it begins. */
export function angleOn({ numbers, period, loops }: PendulumPlan, frame: number): number {
  const t = loops ? frame : Math.max(0, frame)
  const left = (1 - numbers.decay) ** (t / period)
  if (!loops && numbers.swing * left * numbers.length < LEAST_PX) return 0
  return numbers.swing * left * Math.cos((2 * Math.PI * t) / period)
}

/** What a drawing shows: the angle, the middle of what swings, and the joints of what hangs on it from its lower edge on. Throws a UsageError on a drawing that is none. */
export function hangingOn(plan: PendulumPlan, drawing: number) {
  const { numbers } = plan
  const { frame } = drawingOf(plan, drawing)
  const at = drawing === plan.drawings.length - 1 && !plan.loops ? Infinity : frame
  const turn = (f: number) => (at === Infinity ? 0 : angleOn(plan, f))
  const angle = turn(frame)
  const along = (px: number): Point => ({ x: numbers.x + px * Math.sin(angle), y: numbers.y + px * Math.cos(angle) })
  const angles = anglesByOffset({ ...numbers, relative: false }, 0, f => turn(f - numbers.lag), frame)
  return {
    angle,
    bob: along(numbers.length),
    joints: jointsOf(along(numbers.length + numbers.radius), numbers.link, angles),
  }
}

const ARC_PIECES = 24
function arcOf({ x, y, length, swing }: PendulumNumbers): Point[] {
  return Array.from({ length: ARC_PIECES + 1 }, (_, i) => {
    const angle = swing * ((2 * i) / ARC_PIECES - 1)
    return { x: x + length * Math.sin(angle), y: y + length * Math.cos(angle) }
  })
}

function planPendulum(numbers: PendulumNumbers): PendulumPlan {
  const { exposure: n, by, decay, swing, length } = numbers
  const wished = by === 'frames' ? numbers.period : periodOfLength(length, numbers.gravity)
  const period = wholeSteps(wished, 4 * n)
  const loops = decay === 0
  // Half swings until the next end would be nearer than a pixel to the bottom; then it hangs still for a drawing.
  const halves = loops
    ? 2
    : Math.min(
        2 * MOST_SWINGS,
        Math.max(1, Math.ceil((2 * Math.log(LEAST_PX / (swing * length))) / Math.log(1 - decay))),
      )
  const frames = loops ? period : (halves * period) / 2 + n
  const drawings = Array.from({ length: frames / n }, (_, i): PlannedDrawing => {
    const frame = i * n
    if (!loops && frame === frames - n) return { frame, role: 'key', name: 'rests' }
    if (frame % (period / 2) === 0) return { frame, role: 'key', name: 'end' }
    if (frame % (period / 4) === 0) return { frame, role: 'breakdown', name: 'bottom' }
    return { frame, role: 'inbetween', name: null }
  })
  const plan: PendulumPlan = {
    ...PLAIN_PLAN,
    numbers,
    frames,
    loops,
    drawings,
    exposures: oneByOne(drawings.length, n),
    marks: ['bob', 'tip'],
    snapped: [snap('frames of a swing', wished, period)],
    told:
      !loops && halves === 2 * MOST_SWINGS ? [`it still swings after ${MOST_SWINGS} swings, where the plan ends`] : [],
    period,
  }
  return { ...plan, charts: chartsOf(plan) }
}

/** The spacing from end to end: shares of the arc between them. */
function chartsOf(plan: PendulumPlan): PlannedChart[] {
  const keys = plan.drawings.flatMap(({ name }, i) => (name === 'end' ? [i] : []))
  return keys.slice(1).flatMap((to, k): PlannedChart[] => {
    const from = keys[k] as number
    const at = (i: number) => angleOn(plan, drawingOf(plan, i).frame)
    const shares = Array.from({ length: to - from - 1 }, (_, i) => (at(from + 1 + i) - at(from)) / (at(to) - at(from)))
    const grows = [0, ...shares, 1].every((share, i, all) => i === 0 || share > (all[i - 1] as number))
    return grows ? [{ from, to, shares }] : []
  })
}
