import { distance, type Point } from '../../geometry/point.ts'
import { refuseOutside } from '../allowed.ts'
import { footAt, jointBetween, largestFit } from '../gait.ts'
import { PLAIN_PLAN, softly, told1, wholeSteps } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type NumbersRefusal, type Plan, type Recipe } from '../recipe.ts'
import { LEGS_ALLOWED, legsDefaults, type LegsNumbers } from './numbers.ts'

/** Something on other legs worked out. */
export interface LegsPlan extends Plan<LegsNumbers> {
  /** frames of a cycle, as they were taken */
  readonly cycle: number
}

/** A leg on a drawing, from the body to its foot. */
export interface OneLeg {
  readonly name: string
  readonly near: boolean
  readonly joints: readonly Point[]
  readonly foot: Point
  readonly stands: boolean
  /** from the body to the foot, px */
  readonly reach: number
}

/** The whole of it on a drawing. */
export interface Creature {
  readonly centre: Point
  readonly along: number
  readonly across: number
  readonly tiltRad: number
  readonly legs: readonly OneLeg[]
}

/**
 * Something that goes on one to twenty-four legs, stiff, hinged or sweeping, in an order of its own; or on none: stretching and drawing
 * up, or rocking over its edges. What stands goes back under it exactly as fast as it gets on.
 */
export const legs: Recipe<LegsNumbers, LegsPlan> = {
  through: [],
  measures: { across: ['x'], down: ['ground'], lengths: ['leg', 'length', 'thick', 'high', 'stride', 'lift', 'bob'] },
  defaults: legsDefaults,
  refuse: refuseLegs,
  plan: planLegs,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const { centre, along, across, tiltRad, legs: all } = creatureOn(plan, drawingOf(plan, shownOn(plan, frame)).frame)
    const wide = numbers.length
    sink.line('ground', { x: centre.x - wide, y: numbers.ground }, { x: centre.x + wide, y: numbers.ground })
    for (const { name, near, joints } of all) if (!near) sink.path(name, joints, 'far')
    sink.ellipse('body', centre, along, across, tiltRad)
    for (const { name, near, joints } of all) if (near) sink.path(name, joints, 'near')
  },
  expect(plan, drawing) {
    const { centre, along, across, tiltRad, legs: all } = creatureOn(plan, drawingOf(plan, drawing).frame)
    const feet = all.map(
      ({ name, foot, stands }) => [name, { ...foot, ...(stands && { planted: true as const }) }] as const,
    )
    return {
      marks: { middle: centre, ...Object.fromEntries(feet) },
      body: { area: Math.PI * along * across, axes: [along, across], tiltRad },
    }
  },
}

/** Share of the cycle by which a leg is ahead of the first one. Legs are counted in pairs from the front, near and far. */
export function phaseOf({ legs: count, order }: Pick<LegsNumbers, 'legs' | 'order'>, leg: number): number {
  const [pair, side] = [Math.floor(leg / 2), leg % 2]
  const pairs = Math.ceil(count / 2)
  // The hindmost goes first: a wave runs from the back to the front.
  const fromBack = (pairs - 1 - pair) / pairs
  if (order === 'wave') return (1 - fromBack + side / 2) % 1
  if (order === 'pairs') return (1 - fromBack) % 1
  if (order === 'tripod') return ((pair + side) % 2) / 2
  if (order === 'gallop') return (1 - fromBack / 2 + side / 8) % 1
  return 0
}

const ways = ({ facing }: LegsNumbers): number => (facing === 'right' ? 1 : -1)

function refuseLegs(numbers: LegsNumbers): NumbersRefusal<LegsNumbers> | null {
  const outside = refuseOutside(numbers, LEGS_ALLOWED)
  if (outside) return outside
  if (numbers.cycle < 2 * numbers.exposure)
    return { field: 'cycle', why: `must be at least ${2 * numbers.exposure} frames: two drawings` }
  if (numbers.by !== 'legs') return null
  if (numbers.kind === 'stiff') {
    const reach = numbers.duty * numbers.stride
    if (reach < numbers.leg) return null
    return {
      field: 'stride',
      why: `is too long for a stiff leg of ${told1(numbers.leg)} px: up to ${Math.floor((numbers.leg - 1) / numbers.duty)} px would fit`,
    }
  }
  const fits = (patch: Partial<LegsNumbers>) => longest({ ...numbers, ...patch }) <= numbers.leg + 1e-9
  if (fits({})) return null
  const stride = largestFit(numbers.stride, value => fits({ stride: value }))
  const high = largestFit(numbers.high, value => fits({ high: value }))
  const would = [
    ...(stride !== null && stride >= 1 ? [`a stride up to ${Math.floor(stride)} px`] : []),
    ...(high !== null && high >= 1 ? [`a body no higher than ${Math.floor(high)} px`] : []),
  ]
  const asked = `asks a leg of ${told1(numbers.leg)} px to be ${told1(longest(numbers))} px long`
  return { field: 'stride', why: would.length ? `${asked}; ${would.join(' or ')} would fit` : asked }
}

/** How long a leg has to be on the drawing that asks most of it, px. */
function longest(numbers: LegsNumbers): number {
  const cycle = wholeSteps(numbers.cycle, numbers.exposure)
  const frames = Array.from({ length: cycle / numbers.exposure }, (_, i) => i * numbers.exposure)
  return Math.max(...frames.flatMap(frame => legsOn(numbers, cycle, frame).legs.map(leg => leg.reach)))
}

/** The highest body up to a wished one, in whole pixels, at which its legs reach the ground. */
export function bodyWithinReach(numbers: LegsNumbers, wished: number): number {
  if (numbers.by !== 'legs' || numbers.kind === 'stiff') return wished
  const most = largestFit(wished, high => longest({ ...numbers, high }) <= numbers.leg)
  return most === null || most === wished ? wished : Math.floor(most)
}

function planLegs(numbers: LegsNumbers): LegsPlan {
  const { exposure: n, by, legs: count } = numbers
  const cycle = wholeSteps(numbers.cycle, n)
  const drawings = cycle / n
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: cycle,
    loops: numbers.onSpot,
    drawings: Array.from({ length: drawings }, (_, i) => {
      const key = i === 0 || 2 * i === drawings
      return { frame: i * n, role: key ? 'key' : 'inbetween', name: i === 0 ? 'contact' : key ? 'half-way' : null }
    }),
    exposures: oneByOne(drawings, n),
    marks: ['middle', ...(by === 'legs' ? Array.from({ length: count }, (_, i) => nameOf(i, count)) : [])],
    snapped: [snap('frames of a cycle', numbers.cycle, cycle)],
    ground: numbers.onSpot && by !== 'rock' ? (-ways(numbers) * 2 * numbers.stride) / cycle : 0,
    cycle,
  }
}

const nameOf = (leg: number, count: number): string => {
  if (count === 1) return 'leg'
  return `${leg % 2 ? 'far' : 'near'} leg ${Math.floor(leg / 2) + 1}`
}

/** The whole of it on a frame. */
export function creatureOn({ numbers, cycle }: LegsPlan, frame: number): Creature {
  if (numbers.by === 'inch') return inching(numbers, cycle, frame)
  if (numbers.by === 'rock') return rocking(numbers, cycle, frame)
  return legsOn(numbers, cycle, frame)
}

/** How far it got on a frame; nowhere on the spot. */
const gotOn = (numbers: LegsNumbers, cycle: number, frame: number): number =>
  numbers.onSpot ? 0 : (ways(numbers) * 2 * numbers.stride * frame) / cycle

function legsOn(numbers: LegsNumbers, cycle: number, frame: number): Creature {
  const { legs: count, kind, leg, length, thick, high, stride, duty, lift, ground, bob } = numbers
  const way = ways(numbers)
  const share = frame / cycle
  const x = numbers.x + gotOn(numbers, cycle, frame)
  const pairs = Math.ceil(count / 2)
  const feet = Array.from({ length: count }, (_, i) => {
    const pair = Math.floor(i / 2)
    const at = pairs === 1 ? 0 : (1 / 2 - pair / (pairs - 1)) * length * 0.8
    return { at, step: footAt({ stride, duty, lift, ahead: duty * stride }, share + phaseOf(numbers, i)) }
  })
  // Stiff legs carry the body as high as the steepest of those that stand is long.
  const steep = (ahead: number) => Math.sqrt(Math.max(0, leg * leg - ahead * ahead))
  const standing = feet.filter(({ step }) => step.stands)
  const stiffHigh = Math.max(0, ...standing.map(({ step }) => steep(step.ahead)))
  const up = kind === 'stiff' && standing.length ? stiffHigh : high + (bob * (1 - Math.cos(4 * Math.PI * share))) / 2
  const middle = ground - up - (kind === 'sweeping' ? 0 : thick / 4)
  return {
    centre: { x, y: middle },
    along: length / 2,
    across: thick / 2,
    tiltRad: 0,
    legs: feet.map(({ at, step }, i): OneLeg => {
      const hip = { x: x + way * at, y: ground - up }
      const near = i % 2 === 0
      if (kind === 'stiff') {
        const ahead = Math.max(-leg, Math.min(leg, step.ahead))
        const foot = { x: hip.x + way * ahead, y: hip.y + steep(ahead) - step.up }
        return { name: nameOf(i, count), near, joints: [hip, foot], foot, stands: step.stands, reach: leg }
      }
      const out = kind === 'sweeping' ? Math.sign(at || 1) * 0.3 * leg : 0
      const foot = { x: hip.x + way * (step.ahead + out), y: ground - step.up }
      // Knees stand away from the middle; sweeping ones stand over the body.
      const side = kind === 'sweeping' ? way * Math.sign(at || 1) : way * (at >= 0 ? 1 : -1)
      const knee = jointBetween(hip, foot, leg / 2, leg / 2, side)
      return {
        name: nameOf(i, count),
        near,
        joints: [hip, knee, foot],
        foot,
        stands: step.stands,
        reach: distance(hip, foot),
      }
    }),
  }
}

/** It stretches forwards while its end stands, then draws its end up while its front stands; its area is kept. */
function inching(numbers: LegsNumbers, cycle: number, frame: number): Creature {
  const { length, thick, stride, ground, onSpot } = numbers
  const way = ways(numbers)
  const turns = Math.floor(frame / cycle)
  const u = frame / cycle - turns
  const gets = 2 * stride
  const [front, end] = [length / 2 + gets * softly(2 * u), -length / 2 + gets * softly(2 * u - 1)]
  const carried = onSpot ? gets * u : -gets * turns
  const half = (front - end) / 2
  const across = (thick * length) / 4 / half
  return {
    centre: { x: numbers.x + way * ((front + end) / 2 - carried), y: ground - across },
    along: half,
    across,
    tiltRad: 0,
    legs: [],
  }
}

/** It tilts over one edge and over the other. */
function rocking(numbers: LegsNumbers, cycle: number, frame: number): Creature {
  const { length, thick, rock, ground } = numbers
  const tilt = rock * Math.sin((2 * Math.PI * frame) / cycle)
  const side = Math.sign(tilt)
  const [half, up] = [(length / 2) * side, thick / 2]
  // The edge it stands on is where it is; the middle turns about it.
  const x = numbers.x + half + (-half * Math.cos(tilt) + up * Math.sin(tilt))
  const y = ground - (half * Math.sin(tilt) + up * Math.cos(tilt))
  return { centre: { x, y }, along: length / 2, across: thick / 2, tiltRad: tilt, legs: [] }
}
