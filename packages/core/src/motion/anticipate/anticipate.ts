import { distance, type Point } from '../../geometry/point.ts'
import { namedDrawings, PLAIN_PLAN, softly, wholeSteps } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type Plan, type PlannedChart, type Recipe } from '../recipe.ts'
import { stretchKeepingArea } from '../squash.ts'
import { anticipateDefaults, refuseAnticipate, type AnticipateNumbers } from './numbers.ts'

/** A move worked out: when each of its parts begins, in frames from its start. */
export interface AnticipatePlan extends Plan<AnticipateNumbers> {
  /** length of the way in px */
  readonly wayPx: number
  /** the shares of the way it goes back and past its end, as they were taken */
  readonly back: number
  readonly past: number
  readonly backFrames: number
  /** frames of the main move, and after it until it is nearer than a pixel to rest */
  readonly moveFrames: number
  readonly settleFrames: number
}

/** Parts from what leads to what comes last. */
export const PARTS = ['head', 'torso', 'arm', 'hand'] as const

/**
 * A move that goes back a little first, comes past its end and settles: the main move over F frames; before it −αD over
 * some frames; after it x = 1 + ω·e^(−λt)·[cos(2πt/P) + (λP/2π)·sin(2πt/P)], which begins at rest, until it is nearer than a
 * pixel to the end. Parts come one after the other, so that not everything arrives at once.
 */
export const anticipate: Recipe<AnticipateNumbers, AnticipatePlan> = {
  through: ['body'],
  measures: { across: ['x', 'toX'], down: ['y', 'toY'], lengths: ['bow', 'radius'] },
  defaults: anticipateDefaults,
  refuse: refuseAnticipate,
  plan: planAnticipate,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const { frame: at } = drawingOf(plan, shownOn(plan, frame))
    sink.path(
      'way',
      Array.from({ length: 33 }, (_, i) => placeAt(numbers, -plan.back + ((1 + plan.back + plan.past) * i) / 32)),
      'aid',
    )
    const body = bodyAt(plan, at)
    sink.ellipse('body', body.centre, body.along, body.across, body.tiltRad)
    const places = PARTS.slice(0, numbers.parts).map((_, part) => partAt(plan, part, at))
    if (places.length > 1) sink.path('parts', places, 'near')
  },
  expect(plan, drawing) {
    const { frame } = drawingOf(plan, drawing)
    const { along, across, tiltRad } = bodyAt(plan, frame)
    const marks = Object.fromEntries(
      PARTS.slice(0, plan.numbers.parts).map((name, i) => [name, partAt(plan, i, frame)]),
    )
    return { marks, body: { area: Math.PI * along * across, axes: [along, across], tiltRad } }
  },
}

const EASES: Readonly<Record<AnticipateNumbers['ease'], (u: number) => number>> = {
  even: u => u,
  in: u => 1 - Math.cos((Math.PI / 2) * u),
  out: u => Math.sin((Math.PI / 2) * u),
  both: softly,
}

/** What is left of the swing about the end after `t` frames, as a share of the way: 1 + this. */
export function settling(
  { past, decay, swing }: Pick<AnticipateNumbers, 'past' | 'decay' | 'swing'>,
  t: number,
): number {
  const turn = (2 * Math.PI * t) / swing
  return past * Math.exp(-decay * t) * (Math.cos(turn) + ((decay * swing) / (2 * Math.PI)) * Math.sin(turn))
}

/** The first frame from which the swing about the end stays below a pixel, by its hull. */
function settledAfter({ past, decay, swing }: AnticipateNumbers, wayPx: number): number {
  const hull = past * wayPx * Math.hypot(1, (decay * swing) / (2 * Math.PI))
  return hull < 1 ? 0 : Math.log(hull) / decay
}

const MOST_SETTLE = 1000

function planAnticipate(numbers: AnticipateNumbers): AnticipatePlan {
  const { exposure: n } = numbers
  const wayPx = lengthOf(numbers)
  const moveFrames = wholeSteps(numbers.frames, n)
  // A pixel and an exposure at least, where it goes back at all.
  const back = numbers.back === 0 ? 0 : Math.max(numbers.back, 1 / wayPx)
  const backFrames = back === 0 ? 0 : wholeSteps(numbers.backTime * moveFrames, n)
  const settleFrames = Math.min(Math.ceil(settledAfter(numbers, wayPx) / n) * n, Math.floor(MOST_SETTLE / n) * n)
  // Less than a pixel past its end is not drawn.
  const past = settleFrames === 0 ? 0 : numbers.past
  const late = Math.ceil(((numbers.parts - 1) * numbers.offset) / n) * n
  const frames = backFrames + moveFrames + settleFrames + late + n
  const [turns, arrives, rests] = [backFrames, backFrames + moveFrames, frames - n]
  const names = new Map<number, string>([
    [0, 'start'],
    [turns / n, back === 0 ? 'start' : 'back'],
    [arrives / n, past > 0 ? 'past the end' : 'end'],
    [rests / n, 'rests'],
  ])
  const drawings = namedDrawings(frames / n, n, names)
  const plan: AnticipatePlan = {
    ...PLAIN_PLAN,
    numbers,
    frames,
    drawings,
    exposures: oneByOne(drawings.length, n),
    beats: [
      { frame: turns, name: 'goes' },
      { frame: arrives, name: 'arrives' },
    ],
    marks: PARTS.slice(0, numbers.parts),
    snapped: [
      snap('frames of the move', numbers.frames, moveFrames),
      ...(back > numbers.back ? [snap('share of the way back', numbers.back, back)] : []),
      ...(back === 0 ? [] : [snap('frames back', numbers.backTime * moveFrames, backFrames)]),
    ],
    told: settleFrames >= MOST_SETTLE - n ? ['it has not settled where the plan ends: let it die down faster'] : [],
    wayPx,
    back,
    past,
    backFrames,
    moveFrames,
    settleFrames,
  }
  return { ...plan, charts: chartsOf(plan, [0, turns / n, arrives / n]) }
}

/** The spacing of the way back and of the main move, of the part that leads. */
function chartsOf(plan: AnticipatePlan, keys: readonly number[]): PlannedChart[] {
  const n = plan.numbers.exposure
  return keys.slice(1).flatMap((to, k): PlannedChart[] => {
    const from = keys[k] as number
    if (to - from < 2) return []
    const at = (i: number) => shareAt(plan, i * n)
    return [
      {
        from,
        to,
        shares: Array.from({ length: to - from - 1 }, (_, i) => (at(from + 1 + i) - at(from)) / (at(to) - at(from))),
      },
    ]
  })
}

/** How far along the way what leads is after so many frames: 0 at the start, 1 at the end, below 0 and above 1 past them. */
export function shareAt(
  { numbers, back, past, backFrames, moveFrames, settleFrames }: AnticipatePlan,
  frame: number,
): number {
  const { ease } = numbers
  if (frame <= 0) return 0
  if (frame < backFrames) return -back * softly(frame / backFrames)
  const t = frame - backFrames
  if (t < moveFrames) return -back + (1 + past + back) * EASES[ease](t / moveFrames)
  if (t - moveFrames >= settleFrames) return 1
  return 1 + settling(numbers, t - moveFrames)
}

/** The place at a share of the way: on the straight one, bowed up by half a sine in between. */
function placeAt({ x, y, toX, toY, bow }: AnticipateNumbers, share: number): Point {
  const rise = bow * Math.sin(Math.PI * Math.min(1, Math.max(0, share)))
  return { x: x + (toX - x) * share, y: y + (toY - y) * share - rise }
}

/** Parts hang under one another by so many radii, and each comes so many frames after the one before it. */
function partAt(plan: AnticipatePlan, part: number, frame: number): Point {
  const { x, y } = placeAt(plan.numbers, shareAt(plan, frame - part * plan.numbers.offset))
  return { x, y: y + part * plan.numbers.radius * 1.4 }
}

const WAY_PIECES = 64
function lengthOf(numbers: AnticipateNumbers): number {
  let sum = 0
  for (let i = 0; i < WAY_PIECES; i++) {
    const [a, b] = [placeAt(numbers, i / WAY_PIECES), placeAt(numbers, (i + 1) / WAY_PIECES)]
    sum += distance(a, b)
  }
  return sum
}

/** The body that leads, stretched along its way by its speed against the greatest there is, its area kept. */
function bodyAt(plan: AnticipatePlan, frame: number) {
  const { radius, stretch, exposure: n } = plan.numbers
  const here = partAt(plan, 0, frame)
  const [a, b] = [partAt(plan, 0, frame - n / 2), partAt(plan, 0, frame + n / 2)]
  const speed = distance(a, b)
  const top = ((1 + plan.back + plan.past) * plan.wayPx * n * Math.PI) / (2 * plan.moveFrames)
  const axes = stretchKeepingArea(radius, 1 + stretch * Math.min(1, speed / top))
  return { centre: here, ...axes, tiltRad: speed < 1e-6 ? 0 : Math.atan2(b.y - a.y, b.x - a.x) }
}
