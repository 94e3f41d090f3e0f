import { DEGREE, EXPOSURE, ON_OFF, oneOf, PLACE, real, whole, type AllowedNumbers } from '../allowed.ts'
import type { RecipeShot } from '../recipe.ts'

/** What is asked of a walk or a run. Places and lengths in paper pixels, angles in radians, times in frames. */
export interface WalkNumbers {
  /** where the hip is to begin with */
  readonly x: number
  readonly ground: number
  readonly facing: 'right' | 'left'
  /** from hip to ankle, straight */
  readonly leg: number
  /** height of the hip when it is lowest */
  readonly hip: number
  /** from contact to contact of the two feet */
  readonly stride: number
  /** frames of a step */
  readonly step: number
  readonly exposure: number
  /** share of the cycle that a foot stands */
  readonly duty: number
  /** where the body is low and high: simple, classical, or as in a run */
  readonly school: 'simple' | 'classical' | 'run'
  /** even: as far before the hip as behind it. midway: the hip is half-way between the feet at the contact */
  readonly plant: 'even' | 'midway'
  readonly lift: number
  /** from the lowest to the highest */
  readonly bob: number
  readonly lean: number
  /** how far the body leans to and fro with every step */
  readonly sway: number
  /** share of the leg that is the thigh */
  readonly thigh: number
  readonly foot: number
  /** how far the heel rises before the toes leave */
  readonly roll: number
  readonly torso: number
  readonly arm: number
  readonly armSwing: number
  /** frames the lower arm comes after the upper one */
  readonly elbow: number
  readonly head: number
  readonly headLag: number
  /** links of what hangs on the back, their length, how far they swing, and frames each comes later */
  readonly pack: number
  readonly packLink: number
  readonly packSwing: number
  readonly packLag: number
  /** on the spot: the ground passes instead */
  readonly onSpot: boolean
  /** steps that are walked when it gets somewhere */
  readonly steps: number
  /** drawings of the two sides that differ by no more than this are one; 0: none are */
  readonly alike: number
}

const LENGTH = real(1, 4000)
/** What each number of a walk may be. */
export const WALK_ALLOWED: AllowedNumbers<WalkNumbers> = {
  x: PLACE,
  ground: PLACE,
  facing: oneOf('right', 'left'),
  leg: LENGTH,
  hip: LENGTH,
  stride: real(1, 8000),
  step: whole(1, 96),
  exposure: EXPOSURE,
  duty: real(0.1, 0.9),
  school: oneOf('simple', 'classical', 'run'),
  plant: oneOf('even', 'midway'),
  lift: real(0, 4000),
  bob: real(0, 2000),
  lean: real(-1.2, 1.2),
  sway: real(0, 0.6),
  thigh: real(0.3, 0.7),
  foot: real(0, 2000),
  roll: real(0, 1.2),
  torso: real(1, 8000),
  arm: real(0, 4000),
  armSwing: real(0, 1.5),
  elbow: real(0, 12),
  head: real(0, 4000),
  headLag: real(0, 12),
  pack: whole(0, 8),
  packLink: LENGTH,
  packSwing: real(0, 1.5),
  packLag: real(0, 12),
  onSpot: ON_OFF,
  steps: whole(1, 60),
  alike: real(0, 200),
}

/** Frames of a step of so many seconds: whole drawings, two at least. */
export const stepOf = ({ fps, exposure }: RecipeShot, seconds: number): number =>
  Math.max(2, Math.round((seconds * fps) / exposure)) * exposure

/** A share of a leg in whole pixels, one at least. */
export const partOf = (leg: number, share: number): number => Math.max(1, Math.round(share * leg))

/** A figure in the middle of the paper that walks on the spot, two steps in a second. */
export function walkDefaults(shot: RecipeShot): WalkNumbers {
  const { width, height, exposure } = shot
  const leg = Math.max(4, Math.round(height * 0.3))
  const part = (share: number) => partOf(leg, share)
  const step = stepOf(shot, 1 / 3)
  return {
    x: Math.round(width / 2),
    ground: Math.round(height * 0.86),
    facing: 'right',
    leg,
    hip: part(0.88),
    stride: part(0.72),
    step,
    exposure,
    duty: 0.6,
    school: (2 * step) / exposure >= 8 ? 'classical' : 'simple',
    plant: 'midway',
    lift: part(0.16),
    bob: part(0.07),
    lean: DEGREE * 4,
    sway: DEGREE,
    thigh: 0.5,
    foot: part(0.2),
    roll: DEGREE * 30,
    torso: part(0.85),
    arm: part(0.75),
    armSwing: DEGREE * 30,
    elbow: 1,
    head: part(0.2),
    headLag: 1,
    pack: 0,
    packLink: part(0.2),
    packSwing: DEGREE * 17,
    packLag: 2,
    onSpot: true,
    steps: 6,
    alike: 0,
  }
}
