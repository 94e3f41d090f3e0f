import { refuseOutside } from '../allowed.ts'
import { largestFit } from '../gait.ts'
import { PLAIN_PLAN, told1 } from '../plain.ts'
import {
  drawingOf,
  shownOn,
  type NumbersRefusal,
  type Plan,
  type PlannedDrawing,
  type PlannedPlace,
  type Recipe,
} from '../recipe.ts'
import { framesOf, leastHip, longestReach, sidesApart, walkerOn, waysOf, type Leg } from './figure.ts'
import { WALK_ALLOWED, walkDefaults, type WalkNumbers } from './numbers.ts'

/** A walk worked out. */
export type WalkPlan = Plan<WalkNumbers>

/**
 * A figure on two legs that walks or runs, on the spot or getting somewhere. The body goes S/N px a frame and a foot that stands goes
 * back under it by exactly as much; the legs are two bones, and none is longer than it is.
 */
export const walk: Recipe<WalkNumbers, WalkPlan> = {
  through: [],
  measures: {
    across: ['x'],
    down: ['ground'],
    lengths: ['leg', 'hip', 'stride', 'lift', 'bob', 'foot', 'torso', 'arm', 'head', 'packLink'],
  },
  defaults: walkDefaults,
  refuse: refuseWalk,
  plan: planWalk,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const walker = walkerOn(numbers, drawingOf(plan, shownOn(plan, frame)).frame)
    const { hip, shoulder, head } = walker
    const wide = numbers.stride + numbers.foot
    sink.line('ground', { x: hip.x - wide, y: numbers.ground }, { x: hip.x + wide, y: numbers.ground })
    sink.path('far leg', walker.far.joints, 'far')
    sink.path('far arm', walker.farArm.joints, 'far')
    if (walker.pack.length > 1) sink.path('pack', walker.pack)
    sink.path('body', [hip, shoulder])
    if (numbers.head > 0) sink.ellipse('head', head, numbers.head, numbers.head, 0)
    sink.path('near leg', walker.near.joints, 'near')
    sink.path('near arm', walker.nearArm.joints, 'near')
  },
  expect(plan, drawing) {
    const walker = walkerOn(plan.numbers, drawingOf(plan, drawing).frame)
    const ball = ({ ball, stands }: Leg): PlannedPlace => ({ ...ball, ...(stands && { planted: true }) })
    return {
      marks: { head: walker.head, hip: walker.hip, 'near ball': ball(walker.near), 'far ball': ball(walker.far) },
      body: null,
    }
  },
}

/** Fewer drawings are no cycle; the classical heights want more. */
const LEAST_DRAWINGS = 2
const LEAST_CLASSICAL = 8
const WALK_DUTY = [0.5, 0.7] as const
const LEAST_RUN_DUTY = 0.15

function refuseWalk(numbers: WalkNumbers): NumbersRefusal<WalkNumbers> | null {
  const outside = refuseOutside(numbers, WALK_ALLOWED)
  if (outside) return outside
  const { step, exposure: n, school, duty } = numbers
  const drawings = (2 * step) / n
  if (!Number.isInteger(drawings))
    return { field: 'step', why: `and another make ${2 * step} frames, which are no whole drawings of ${n}` }
  if (drawings < LEAST_DRAWINGS)
    return { field: 'step', why: `must be at least ${n} frames, for two drawings in two steps` }
  if (school === 'classical' && drawings < LEAST_CLASSICAL) {
    return {
      field: 'school',
      why: `classical needs ${LEAST_CLASSICAL} drawings in two steps, and there are ${drawings}`,
    }
  }
  if (school === 'run') {
    const most = 1 / 2 - n / (2 * step)
    if (duty < LEAST_RUN_DUTY || duty > most) {
      return most < LEAST_RUN_DUTY
        ? { field: 'step', why: 'has too few drawings for one of them to be in the air' }
        : { field: 'duty', why: `must be from ${LEAST_RUN_DUTY} to ${told2(most)}, so that a drawing is in the air` }
    }
  } else if (duty < WALK_DUTY[0] || duty > WALK_DUTY[1]) {
    return { field: 'duty', why: `must be from ${WALK_DUTY.join(' to ')}; less is a run` }
  }
  const least = leastHip(numbers)
  if (numbers.hip < least - 1e-9)
    return { field: 'hip', why: `must be at least ${Math.ceil(least)} px over the ground, for legs of this length` }
  return refuseLeg(numbers)
}

const told2 = (value: number): string => String(Math.floor(value * 100) / 100)

/** A leg that is asked to be longer than it is, with what would fit. */
function refuseLeg(numbers: WalkNumbers): NumbersRefusal<WalkNumbers> | null {
  const fits = (patch: Partial<WalkNumbers>) => longestReach({ ...numbers, ...patch }) <= numbers.leg + 1e-9
  if (fits({})) return null
  const stride = largestFit(numbers.stride, value => fits({ stride: value }))
  const hip = largestFit(numbers.hip, value => fits({ hip: value }))
  const ways = [
    ...(stride !== null && stride >= 1 ? [`a stride up to ${Math.floor(stride)} px`] : []),
    ...(hip !== null && hip >= 1 ? [`a hip no higher than ${Math.floor(hip)} px`] : []),
  ]
  const asked = `asks a leg of ${told1(numbers.leg)} px to be ${told1(longestReach(numbers))} px long`
  return { field: 'stride', why: ways.length ? `${asked}; ${ways.join(' or ')} would fit` : asked }
}

/** Named positions and their phases in a step; what falls between drawings is the nearer one's, ties to the later. */
const POSITIONS = [
  ['contact', 0],
  ['passing', 1 / 2],
  ['down', 1 / 4],
  ['up', 3 / 4],
] as const

function planWalk(numbers: WalkNumbers): WalkPlan {
  const { exposure: n, step, onSpot, stride, steps, alike } = numbers
  const cycle = (2 * step) / n
  const count = onSpot ? cycle : Math.max(1, Math.floor((steps * step) / n))
  const names = new Map<number, string>()
  for (const [name, phase] of POSITIONS) {
    for (const side of [0, 1]) {
      const i = Math.floor(((phase + side) * step) / n + 1 / 2) % cycle
      if (!names.has(i)) names.set(i, name)
    }
  }
  const apart = framesOf(numbers).map(frame => sidesApart(walkerOn(numbers, frame)))
  const exchanged = Number.isInteger(step / n)
  // On the spot, the second step may show drawings of the first.
  const shares = (i: number) => onSpot && exchanged && 2 * i >= cycle && alike > 0 && (apart[i] as number) <= alike
  const drawings: PlannedDrawing[] = []
  const shown: number[] = []
  for (let i = 0; i < count; i++) {
    if (shares(i)) {
      shown.push(shown[i - cycle / 2] as number)
      continue
    }
    const name = names.get(i % cycle) ?? null
    const role = name === null ? 'inbetween' : name === 'contact' ? 'key' : 'breakdown'
    shown.push(drawings.length)
    drawings.push({ frame: i * n, role, name })
  }
  const passing = [...names].find(([, name]) => name === 'passing')?.[0] ?? 0
  const told: string[] = []
  if (!exchanged) told.push('the second step is not the first with its sides exchanged: a step is no whole drawings')
  else if (onSpot) {
    const other = (passing + cycle / 2) % cycle
    const [a, b] = [Math.min(passing, other) + 1, Math.max(passing, other) + 1]
    const differ = `drawings ${a} and ${b} differ by ${told1(apart[passing] as number)} px with the sides exchanged`
    told.push(shares(b - 1) ? `${differ}, and are one` : differ)
  }
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: count * n,
    loops: onSpot,
    drawings,
    exposures: shown.map(drawing => ({ drawing, frames: n })),
    beats: exchanged
      ? Array.from({ length: Math.ceil((count * n) / step) }, (_, k) => ({ frame: k * step, name: 'contact' }))
      : [],
    marks: ['head', 'hip', 'near ball', 'far ball'],
    told,
    ground: onSpot ? (-waysOf(numbers) * stride) / step : 0,
  }
}
