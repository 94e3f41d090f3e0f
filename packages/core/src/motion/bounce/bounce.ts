import { UsageError } from '../../errors.ts'
import type { Point } from '../../geometry/point.ts'
import {
  drawingOf,
  nearestMultiple,
  oneByOne,
  snap,
  type ConstructionSink,
  type Expected,
  type Plan,
  type PlannedChart,
  type PlannedDrawing,
  type Recipe,
  type Snapped,
} from '../recipe.ts'
import { bodyOf, halfHeightOf, type Body } from './body.ts'
import { bounceDefaults, fallOf, refuseBounce, type BounceNumbers } from './numbers.ts'

/** A flight from contact to contact; the first is only the second half of one, from its apex. */
export interface Arc {
  /** first frame of the flight, and the frame of the contact it ends with */
  readonly start: number
  readonly end: number
  /** frames of the whole parabola, and pixels it rises */
  readonly span: number
  readonly rise: number
}

/** A bounce worked out. */
export interface BouncePlan extends Plan<BounceNumbers> {
  /** pixels a frame, a frame: as wished, or as it had to be */
  readonly gravity: number
  /** height of the centre at the start: as wished, or as it had to be */
  readonly startY: number
  /** speed at the first contact, pixels a frame */
  readonly firstSpeed: number
  readonly arcs: readonly Arc[]
  /** frame from which it lies or rolls */
  readonly rests: number
  /** frames it rolls, in whole exposures */
  readonly rolls: number
}

/** Below so many pixels a bounce is not drawn any more. */
const LEAST_RISE_PX = 1

/**
 * A thing dropped from rest that bounces until it lies: ballistic arcs under one gravity, each `restitution` times as fast
 * as the one before (Newton's law of impact), with contacts on exposed frames. t₁ = √(2h/g); arcs last 2eᵏt₁ and rise e²ᵏh,
 * to the nearest multiple of the exposure and never as long as the one before; each then rises g·T²/8.
 */
export const bounce: Recipe<BounceNumbers, BouncePlan> = {
  through: ['body'],
  measures: { across: ['x'], down: ['y', 'ground'], lengths: ['radius', 'gravity', 'forward'] },
  defaults: bounceDefaults,
  refuse: refuseBounce,
  plan: planBounce,
  figure: drawBounce,
  expect(plan, drawing): Expected {
    const { centre, along, across, tiltRad } = bodyOn(plan, drawingOf(plan, drawing).frame)
    return { marks: { centre }, body: { area: Math.PI * along * across, axes: [along, across], tiltRad } }
  },
}

function planBounce(numbers: BounceNumbers): BouncePlan {
  const { exposure: n, restitution, gravity: wished, nudge } = numbers
  const fall = fallOf(numbers)
  const first = Math.max(n, nearestMultiple(Math.sqrt((2 * fall) / wished), n))
  const gravity = nudge === 'gravity' ? (2 * fall) / (first * first) : wished
  const used = nudge === 'gravity' ? fall : (wished * first * first) / 2
  const hold = numbers.contact === 'touch' ? n : 0
  const snapped: Snapped[] = [
    nudge === 'gravity' ? snap('gravity', wished, gravity) : snap('height of the start', fall, used),
  ]
  const arcs: Arc[] = [{ start: 0, end: first, span: 2 * first, rise: used }]
  for (let k = 1; k <= (numbers.bounces ?? Infinity); k++) {
    const before = arcs[k - 1] as Arc
    const span = Math.min(nearestMultiple(2 * restitution ** k * first, n), before.span - n)
    const rise = (gravity * span * span) / 8
    if (span < 2 * n || rise < LEAST_RISE_PX) break
    const start = before.end + hold
    arcs.push({ start, end: start + span, span, rise })
    snapped.push(snap(`height of bounce ${k}`, restitution ** (2 * k) * used, rise))
  }
  const last = (arcs[arcs.length - 1] as Arc).end
  const rests = last + hold + n
  const rolls = numbers.forward === 0 ? 0 : Math.ceil(numbers.roll / n) * n
  // What rolls is drawn until it has stopped; the exposure on which it lies still is the last.
  const frames = Math.max(rests, last + hold + rolls) + n
  const drawings = drawingsOf(arcs, frames, n, hold, rests)
  return {
    numbers,
    frames,
    drawings,
    exposures: oneByOne(drawings.length, n),
    loops: false,
    charts: chartsOf(arcs, drawings, n, gravity, numbers.forward),
    beats: arcs.map(({ end }, k) => ({ frame: end, name: k === 0 ? 'contact' : `contact ${k + 1}` })),
    marks: ['centre'],
    snapped,
    told: [],
    ground: 0,
    gravity,
    startY: numbers.ground - numbers.radius - used,
    firstSpeed: gravity * first,
    arcs,
    rests,
    rolls,
  }
}

/** Every exposure is a drawing: keys at the start, at contacts and at rest, breakdowns at the tops of arcs. */
function drawingsOf(arcs: readonly Arc[], frames: number, n: number, hold: number, rests: number): PlannedDrawing[] {
  const named = new Map<number, Pick<PlannedDrawing, 'role' | 'name'>>()
  arcs.forEach(({ start, end, span }, k) => {
    if (k > 0) named.set(nearestMultiple(start + span / 2, n), { role: 'breakdown', name: 'top' })
    named.set(end, { role: 'key', name: hold > 0 ? 'touches' : 'contact' })
    if (hold > 0) named.set(end + hold, { role: 'key', name: 'squashed' })
  })
  named.set(0, { role: 'key', name: 'start' })
  if (!named.has(rests)) named.set(rests, { role: 'key', name: 'rests' })
  named.set(frames - n, { role: 'key', name: 'rests' })
  return Array.from({ length: frames / n }, (_, i) => ({
    frame: i * n,
    role: 'inbetween',
    name: null,
    ...named.get(i * n),
  }))
}

/** The spacing of every arc that has drawings between its two keys: shares of the length of its parabola. */
function chartsOf(
  arcs: readonly Arc[],
  drawings: readonly PlannedDrawing[],
  n: number,
  gravity: number,
  forward: number,
): PlannedChart[] {
  return arcs.flatMap(({ start, end, span }): PlannedChart[] => {
    const [from, to] = [start / n, end / n]
    if (to - from < 2) return []
    // Counted from the top of the arc.
    const along = (frame: number) => parabolaLength(frame - (end - span / 2), gravity, forward)
    const [a, b] = [along(start), along(end)]
    const between = drawings.slice(from + 1, to)
    return [{ from, to, shares: between.map(({ frame }) => (along(frame) - a) / (b - a)) }]
  })
}

/** Signed length of a ballistic path from its top to `t` frames after it: ∫√(v² + g²t²) dt. */
function parabolaLength(t: number, g: number, v: number): number {
  const fallen = g * t
  if (v === 0) return (fallen * Math.abs(t)) / 2
  return (t * Math.hypot(v, fallen) + ((v * v) / g) * Math.asinh(fallen / Math.abs(v))) / 2
}

/** The body on a frame of a plan: as the drawing shown there has it. Throws a UsageError on a frame outside the plan. */
export function bodyOn(plan: BouncePlan, frame: number): Body {
  const { numbers, arcs, gravity, firstSpeed } = plan
  const { exposure: n, ground, radius, forward, contact } = numbers
  if (!Number.isInteger(frame) || frame < 0 || frame >= plan.frames) {
    throw new UsageError(`a bounce of ${plan.frames} frames has no frame ${frame}`)
  }
  const at = Math.floor(frame / n) * n
  const hold = contact === 'touch' ? n : 0
  const nth = arcs.findIndex(arc => at < arc.end + n + hold)
  // Forwards it gets while it flies; what is pressed on the ground after it touched stays there.
  const x = (flown: number) => numbers.x + forward * flown
  if (nth < 0) {
    const last = arcs[arcs.length - 1] as Arc
    const t = Math.min(at - last.end - hold, plan.rolls)
    const rolled = plan.rolls === 0 ? 0 : t - (t * t) / (2 * plan.rolls)
    const centre = { x: x(last.end - hold * (arcs.length - 1) + rolled), y: ground - radius }
    return { centre, along: radius, across: radius, tiltRad: 0 }
  }
  const { start, end, span, rise } = arcs[nth] as Arc
  const flown = (until: number) => until - hold * nth
  const impact = (gravity * span) / 2
  if (at >= end && (contact === 'squash' || at > end)) {
    const flat = bodyOf(numbers, 1 - (numbers.squash * impact) / firstSpeed, Math.PI / 2)
    return { ...flat, centre: { x: x(flown(end)), y: ground - flat.along } }
  }
  const u = (at - (end - span)) / span
  const speed = gravity * (at - (end - span / 2))
  const tiltRad = Math.atan2(speed, forward)
  const wished = 1 + (numbers.stretch * Math.abs(speed)) / firstSpeed
  if (at === end) {
    const long = bodyOf(numbers, wished, tiltRad)
    return { ...long, centre: { x: x(flown(end)), y: ground - halfHeightOf(long) } }
  }
  const y = ground - radius - 4 * rise * u * (1 - u)
  const room = ground - y
  return { ...bodyOf(numbers, wished, tiltRad, room), centre: { x: x(flown(Math.max(start, at))), y } }
}

/** The ground, the way of the centre, and the body of the drawing that a frame shows. */
function drawBounce(plan: BouncePlan, frame: number, sink: ConstructionSink): void {
  const { numbers, arcs } = plan
  const { ground, radius, forward } = numbers
  const body = bodyOn(plan, frame)
  const end = bodyOn(plan, plan.frames - 1).centre.x
  const [left, right] = [Math.min(numbers.x, end) - 2 * radius, Math.max(numbers.x, end) + 2 * radius]
  sink.line('ground', { x: left, y: ground }, { x: right, y: ground })
  const floor = ground - radius
  let x = numbers.x
  arcs.forEach(({ span, rise }, k) => {
    const [from, to]: [Point, Point] = [
      { x, y: k === 0 ? plan.startY : floor },
      { x: x + forward * (k === 0 ? span / 2 : span), y: floor },
    ]
    // A parabola's control point lies where its two tangents meet: at twice its height, or level with its top.
    const control =
      k === 0 ? { x: (from.x + to.x) / 2, y: plan.startY } : { x: (from.x + to.x) / 2, y: floor - 2 * rise }
    sink.bend('way', from, control, to)
    x = to.x
  })
  sink.ellipse('body', body.centre, body.along, body.across, body.tiltRad)
}
