import type { Point } from '../../geometry/point.ts'
import { PLAIN_PLAN, softly, wholeSteps } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type Plan, type PlannedDrawing, type Recipe } from '../recipe.ts'
import { refuseTurn, turnDefaults, type TurnNumbers } from './numbers.ts'

/** A turn worked out. */
export interface TurnPlan extends Plan<TurnNumbers> {
  /** frames from the first drawing to the last */
  readonly span: number
}

/** How a head is held, radians: yaw to the right, pitch down, tilt to its own right on the paper. */
export interface Pose {
  readonly yaw: number
  readonly pitch: number
  readonly tilt: number
}

type Place3 = readonly [x: number, y: number, z: number]

/**
 * A head that turns: a ball with three half axes, with its middle line, the line of its eyes, eyes, nose and ears as points of it,
 * turned by yaw, then pitch, then tilt, and seen from so far that all lines of sight are parallel. It nods on the way by a pitch of
 * sin πu; the eyes come first.
 */
export const turn: Recipe<TurnNumbers, TurnPlan> = {
  through: ['middle line'],
  measures: { across: ['x'], down: ['y'], lengths: ['wide', 'high', 'deep'] },
  defaults: turnDefaults,
  refuse: refuseTurn,
  plan: planTurn,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const at = drawingOf(plan, shownOn(plan, frame)).frame
    const pose = poseOn(plan, at)
    const { along, across, tiltRad } = outlineOf(numbers, pose)
    sink.ellipse('body', numbers, along, across, tiltRad)
    for (const [name, line] of Object.entries(linesOf(numbers))) {
      for (const piece of seenPieces(numbers, pose, line)) sink.path(name, piece)
    }
    for (const side of [-1, 1]) {
      const eye = onBall(numbers, eyeOf(numbers, side, 0))
      if (depth(numbers, pose, eye) <= 0) continue
      const middle = seen(numbers, pose, eye)
      const [wide, shut] = [numbers.wide * EYE, shutOn(plan, at)]
      sink.ellipse('eye', middle, wide, wide * Math.max(0.06, 1 - shut), pose.tilt)
      const looks = seen(numbers, pose, onBall(numbers, eyeOf(numbers, side, gazeOn(plan, at))))
      sink.path('looks', [middle, looks], 'near')
    }
    const nose = noseOf(numbers)
    sink.path('nose', [seen(numbers, pose, [0, 0, numbers.deep]), seen(numbers, pose, nose)], 'near')
  },
  expect(plan, drawing) {
    const { frame } = drawingOf(plan, drawing)
    const { numbers } = plan
    const pose = poseOn(plan, frame)
    const { along, across, tiltRad } = outlineOf(numbers, pose)
    const at = (place: Place3) => seen(numbers, pose, place)
    return {
      marks: {
        nose: at(noseOf(numbers)),
        'left eye': at(onBall(numbers, eyeOf(numbers, -1, 0))),
        'right eye': at(onBall(numbers, eyeOf(numbers, 1, 0))),
        'left ear': at([-numbers.wide, 0, 0]),
        'right ear': at([numbers.wide, 0, 0]),
      },
      body: { area: Math.PI * along * across, axes: [along, across], tiltRad },
    }
  },
}

/** Half the width of an eye as a share of the head's. */
const EYE = 0.16
/** How far the nose stands out before the ball. */
const NOSE = 1.18
/** An eye looks no farther aside than this. */
const MOST_GAZE = 0.5

function planTurn(numbers: TurnNumbers): TurnPlan {
  const { exposure: n } = numbers
  const span = wholeSteps(numbers.frames, n, 2 * n)
  const count = span / n + 1
  const middle = Math.floor(count / 2)
  const shares = Array.from({ length: count - 2 }, (_, i) => wayAt(numbers, (i + 1) / (count - 1)))
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: span + n,
    drawings: Array.from({ length: count }, (_, i): PlannedDrawing => {
      if (i === 0 || i === count - 1) return { frame: i * n, role: 'key', name: i === 0 ? 'looks away' : 'looks there' }
      return { frame: i * n, role: i === middle ? 'breakdown' : 'inbetween', name: i === middle ? 'on the way' : null }
    }),
    exposures: oneByOne(count, n),
    charts: count > 2 && numbers.from !== numbers.to ? [{ from: 0, to: count - 1, shares }] : [],
    marks: ['nose', 'left eye', 'right eye', 'left ear', 'right ear'],
    snapped: [snap('frames of the turn', numbers.frames, span)],
    told:
      Math.abs(numbers.to - numbers.from) > Math.PI
        ? ['it turns by more than half round: it could go the other way']
        : [],
    span,
  }
}

/**
 * The share of the turn at a share of its time: soft at both ends, and at `favours` in the middle: a soft way from there to
 * either end, bent by a power, so that it never goes back.
 */
function wayAt({ favours }: TurnNumbers, u: number): number {
  return softly(u) ** (Math.log(favours) / Math.log(1 / 2))
}

/** How the head is held on a frame of the plan; before and after it as at its ends. */
export function poseOn({ numbers, span }: TurnPlan, frame: number): Pose {
  const u = Math.min(1, Math.max(0, frame / span))
  const way = wayAt(numbers, u)
  return {
    yaw: numbers.from + (numbers.to - numbers.from) * way,
    pitch: numbers.dip * Math.sin(Math.PI * u),
    tilt: numbers.tiltFrom + (numbers.tiltTo - numbers.tiltFrom) * way,
  }
}

/** How far the eyes look ahead of the head on a frame: what it will have turned by then. */
function gazeOn(plan: TurnPlan, frame: number): number {
  const ahead = poseOn(plan, frame + plan.numbers.lead).yaw - poseOn(plan, frame).yaw
  return Math.max(-MOST_GAZE, Math.min(MOST_GAZE, ahead))
}

/** How far the eyes are shut: in the middle of the turn, over a third of it. */
function shutOn({ numbers, span }: TurnPlan, frame: number): number {
  return numbers.blinks ? softly(1 - Math.abs(frame / span - 1 / 2) * 6) : 0
}

/** Where an eye sits: an angle aside and one up; looking aside moves it on the ball. */
const eyeOf = ({ eyeHigh, eyeWide }: TurnNumbers, side: number, gaze: number) => ({
  aside: side * Math.asin(eyeWide) + gaze * EYE,
  up: Math.asin(eyeHigh),
})

/** A place on the ball by the angles aside and up from its front. */
const onBall = ({ wide, high, deep }: TurnNumbers, { aside, up }: { aside: number; up: number }): Place3 => [
  wide * Math.sin(aside) * Math.cos(up),
  -high * Math.sin(up),
  deep * Math.cos(aside) * Math.cos(up),
]
const noseOf = ({ deep, high }: TurnNumbers): Place3 => [0, high * 0.12, deep * NOSE]

/** A place of the head turned by its pose: x to the right, y down, z towards us. */
export function turned({ yaw, pitch, tilt }: Pose, [x, y, z]: Place3): Place3 {
  const [x1, z1] = [x * Math.cos(yaw) + z * Math.sin(yaw), -x * Math.sin(yaw) + z * Math.cos(yaw)]
  const [y2, z2] = [y * Math.cos(pitch) + z1 * Math.sin(pitch), -y * Math.sin(pitch) + z1 * Math.cos(pitch)]
  return [x1 * Math.cos(tilt) - y2 * Math.sin(tilt), x1 * Math.sin(tilt) + y2 * Math.cos(tilt), z2]
}

/** A place of the head as it is seen on the paper. */
function seen(numbers: TurnNumbers, pose: Pose, place: Place3): Point {
  const [x, y] = turned(pose, place)
  return { x: numbers.x + x, y: numbers.y + y }
}

/** Whether a place on the ball is towards us: the ball's own outward direction there, turned, has a part along the sight. */
function depth({ wide, high, deep }: TurnNumbers, pose: Pose, [x, y, z]: Place3): number {
  return turned(pose, [x / wide ** 2, y / high ** 2, z / deep ** 2])[2]
}

const PIECES = 32
/** The middle line from crown to chin, and the line through both eyes, all round the ball. */
function linesOf(numbers: TurnNumbers): Record<string, Place3[]> {
  const round = (place: (a: number) => Place3) =>
    Array.from({ length: PIECES + 1 }, (_, i) => place((2 * Math.PI * i) / PIECES))
  return {
    'middle line': round(a => [0, -numbers.high * Math.sin(a), numbers.deep * Math.cos(a)]),
    'eye line': round(a => onBall(numbers, { aside: a, up: Math.asin(numbers.eyeHigh) })),
  }
}

/** The stretches of a line on the ball that are towards us. */
function seenPieces(numbers: TurnNumbers, pose: Pose, line: readonly Place3[]): Point[][] {
  const pieces: Point[][] = [[]]
  for (const place of line) {
    if (depth(numbers, pose, place) >= 0) (pieces[pieces.length - 1] as Point[]).push(seen(numbers, pose, place))
    else pieces.push([])
  }
  return pieces.filter(piece => piece.length > 1)
}

/**
 * The outline of the turned ball: an ellipse whose squared half axes are the eigenvalues of M·Mᵀ, M being the first two rows of the
 * turn times the half axes.
 */
export function outlineOf(
  { wide, high, deep }: TurnNumbers,
  pose: Pose,
): { along: number; across: number; tiltRad: number } {
  const columns = [turned(pose, [wide, 0, 0]), turned(pose, [0, high, 0]), turned(pose, [0, 0, deep])]
  const sum = (of: (column: Place3) => number) => columns.reduce((total, column) => total + of(column), 0)
  const [xx, yy, xy] = [sum(([x]) => x * x), sum(([, y]) => y * y), sum(([x, y]) => x * y)]
  const [middle, half] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)]
  return {
    along: Math.sqrt(middle + half),
    across: Math.sqrt(Math.max(0, middle - half)),
    tiltRad: half < 1e-9 ? 0 : Math.atan2(2 * xy, xx - yy) / 2,
  }
}
