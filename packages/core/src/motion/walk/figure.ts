import { distance, type Point } from '../../geometry/point.ts'
import { anglesByOffset, jointsOf } from '../chain/links.ts'
import { footAt, jointBetween } from '../gait.ts'
import { softly } from '../plain.ts'
import type { WalkNumbers } from './numbers.ts'

/** A limb from the body outwards. */
export interface Limb {
  readonly joints: readonly Point[]
}

/** A leg: hip, knee, ankle, ball of the foot; and whether it stands. */
export interface Leg extends Limb {
  readonly ball: Point
  readonly stands: boolean
  /** from the hip to the ankle, px */
  readonly reach: number
}

/** A walker on a moment of its walk. */
export interface Walker {
  readonly hip: Point
  readonly shoulder: Point
  readonly head: Point
  readonly near: Leg
  readonly far: Leg
  readonly nearArm: Limb
  readonly farArm: Limb
  /** what hangs on the back, from where it hangs; one place only when nothing does */
  readonly pack: readonly Point[]
}

/** An ankle is so high over the ground when the foot lies flat: a share of the foot. */
const ANKLE = 0.25
/** The heel begins to rise so long before the foot leaves: a share of the cycle. */
const ROLLS_FOR = 0.18
/** A lower arm is bent by so much. */
const ELBOW_RAD = 0.35

/** Which way it faces: 1 to the right, −1 to the left. */
export const waysOf = ({ facing }: Pick<WalkNumbers, 'facing'>): 1 | -1 => (facing === 'right' ? 1 : -1)

/** The lowest that a hip can be over the ground, px: lower, its knees would be in it. */
export const leastHip = ({ leg }: Pick<WalkNumbers, 'leg'>): number => 0.4 * leg

/** How far before the hip a foot comes down. */
const aheadOf = ({ plant, duty, stride }: WalkNumbers): number => (plant === 'even' ? duty * stride : stride / 2)

/** The frame of a step, from its contact on, on which the body is lowest. */
export function lowestAt({ school, step, duty }: WalkNumbers): number {
  if (school === 'simple') return 0
  return school === 'classical' ? step / 4 : duty * step
}

/** How far over its lowest the hip is on a frame: a cosine a step. */
const bobOn = (numbers: WalkNumbers, frame: number): number =>
  (numbers.bob * (1 - Math.cos((2 * Math.PI * (frame - lowestAt(numbers))) / numbers.step))) / 2

/** How far the heel is up, radians: it rises before the toes leave and is down again before the foot is. */
function heelUp({ duty, roll }: WalkNumbers, share: number, swung: number, stands: boolean): number {
  if (!stands) return roll * (1 - softly(1.5 * swung))
  const u = share - Math.floor(share)
  const from = duty - Math.min(ROLLS_FOR, duty / 2)
  return u <= from ? 0 : roll * softly((u - from) / (duty - from))
}

/** A leg whose contact was `share` of a cycle ago, from a hip. */
function legAt(numbers: WalkNumbers, hip: Point, share: number): Leg {
  const { stride, duty, lift, leg, thigh, foot, ground } = numbers
  const way = waysOf(numbers)
  const step = footAt({ stride, duty, lift, ahead: aheadOf(numbers) }, share)
  const heel = heelUp(numbers, share, step.swung, step.stands)
  const ball = { x: hip.x + way * (step.ahead + foot), y: ground - step.up }
  // The foot turns about its ball: heel up, the ankle goes up and forwards.
  const ankle = {
    x: ball.x - way * (foot * Math.cos(heel) - ANKLE * foot * Math.sin(heel)),
    y: ball.y - (foot * Math.sin(heel) + ANKLE * foot * Math.cos(heel)),
  }
  const knee = jointBetween(hip, ankle, thigh * leg, (1 - thigh) * leg, way)
  return { joints: [hip, knee, ankle, ball], ball, stands: step.stands, reach: distance(hip, ankle) }
}

/** The walker on a frame (any number), the near foot in contact on frame 0. */
export function walkerOn(numbers: WalkNumbers, frame: number): Walker {
  const { step, stride, ground, hip: low, torso, lean, sway, head, headLag, arm, armSwing, elbow, onSpot } = numbers
  const way = waysOf(numbers)
  const share = frame / (2 * step)
  const up = bobOn(numbers, frame)
  const hip = { x: numbers.x + (onSpot ? 0 : (way * stride * frame) / step), y: ground - low - up }
  const leans = lean + sway * Math.cos((2 * Math.PI * frame) / step)
  const shoulder = { x: hip.x + way * torso * Math.sin(leans), y: hip.y - torso * Math.cos(leans) }
  const nods = bobOn(numbers, frame - headLag) - up
  const armAt = (side: number): Limb => {
    const upper = (f: number) => side * armSwing * Math.cos((Math.PI * f) / step)
    const along = (from: Point, angle: number): Point => ({
      x: from.x + (way * arm * Math.sin(angle)) / 2,
      y: from.y + (arm * Math.cos(angle)) / 2,
    })
    const joint = along(shoulder, upper(frame))
    return { joints: [shoulder, joint, along(joint, upper(frame - elbow) + ELBOW_RAD)] }
  }
  const back = { x: hip.x - way * 0.18 * torso, y: hip.y - 0.35 * torso }
  const swings = (f: number) => numbers.packSwing * Math.cos((2 * Math.PI * f) / step)
  const chain = { links: numbers.pack, lag: numbers.packLag, growth: 1, relative: false }
  return {
    hip,
    shoulder,
    head: { x: shoulder.x + way * 0.15 * head, y: shoulder.y - 1.3 * head - nods },
    near: legAt(numbers, hip, share),
    far: legAt(numbers, hip, share + 1 / 2),
    nearArm: armAt(-1),
    farArm: armAt(1),
    pack: jointsOf(back, numbers.packLink, anglesByOffset(chain, -way * 0.15, swings, frame)),
  }
}

/** How far apart the two sides are, at most, px: between what is near and what is far, joint by joint. */
export function sidesApart({ near, far, nearArm, farArm }: Walker): number {
  const apart = (a: Limb, b: Limb) => a.joints.map((joint, i) => distance(joint, b.joints[i] as Point))
  return Math.max(...apart(near, far), ...apart(nearArm, farArm))
}

/** The frames of the drawings of two steps. */
export const framesOf = ({ step, exposure: n }: WalkNumbers): number[] =>
  Array.from({ length: (2 * step) / n }, (_, i) => i * n)

/** How long a leg has to be on the drawing that asks most of it, px. */
export const longestReach = (numbers: WalkNumbers): number =>
  Math.max(
    ...framesOf(numbers).flatMap(frame => {
      const { near, far } = walkerOn(numbers, frame)
      return [near.reach, far.reach]
    }),
  )
