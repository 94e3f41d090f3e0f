import { DEGREE, EXPOSURE, ON_OFF, oneOf, PLACE, real, whole, type AllowedNumbers } from '../allowed.ts'
import type { RecipeShot } from '../recipe.ts'

/** What is asked of something that goes on other legs than two, or on none. Places and lengths in paper pixels, times in frames. */
export interface LegsNumbers {
  /** the middle of the body */
  readonly x: number
  readonly ground: number
  readonly facing: 'right' | 'left'
  /** legs: it goes on them. inch: it stretches and draws up. rock: it tilts over its edges */
  readonly by: 'legs' | 'inch' | 'rock'
  readonly legs: number
  /** who goes when */
  readonly order: 'wave' | 'pairs' | 'tripod' | 'gallop' | 'together'
  /** stiff as a stool's, hinged as a ruler's, or sweeping with the knee over the body as a crab's */
  readonly kind: 'stiff' | 'hinged' | 'sweeping'
  readonly leg: number
  /** how long and how thick the body is, and how high its middle is over the ground */
  readonly length: number
  readonly thick: number
  readonly high: number
  /** how far it gets in a cycle is twice this */
  readonly stride: number
  /** frames of a cycle */
  readonly cycle: number
  readonly exposure: number
  /** share of the cycle that a foot stands */
  readonly duty: number
  readonly lift: number
  readonly bob: number
  /** how far it tilts when it rocks, radians */
  readonly rock: number
  readonly onSpot: boolean
}

const LENGTH = real(1, 8000)
/** What each number of a thing on other legs may be. */
export const LEGS_ALLOWED: AllowedNumbers<LegsNumbers> = {
  x: PLACE,
  ground: PLACE,
  facing: oneOf('right', 'left'),
  by: oneOf('legs', 'inch', 'rock'),
  legs: whole(1, 24),
  order: oneOf('wave', 'pairs', 'tripod', 'gallop', 'together'),
  kind: oneOf('stiff', 'hinged', 'sweeping'),
  leg: LENGTH,
  length: LENGTH,
  thick: LENGTH,
  high: real(0, 8000),
  stride: real(1, 8000),
  cycle: whole(2, 240),
  exposure: EXPOSURE,
  duty: real(0.2, 0.95),
  lift: real(0, 4000),
  bob: real(0, 2000),
  rock: real(0, 1),
  onSpot: ON_OFF,
}

/** A beetle with six legs, three of them standing while the others go. */
export function legsDefaults({ width, height, fps, exposure }: RecipeShot): LegsNumbers {
  const leg = Math.max(2, Math.round(height * 0.22))
  return {
    x: Math.round(width / 2),
    ground: Math.round(height * 0.82),
    facing: 'right',
    by: 'legs',
    legs: 6,
    order: 'tripod',
    kind: 'hinged',
    leg,
    length: Math.max(1, Math.round(height * 0.4)),
    thick: Math.max(1, Math.round(height * 0.14)),
    high: Math.round(leg * 0.75),
    stride: Math.max(1, Math.round(leg * 0.35)),
    cycle: Math.max(2, Math.round((0.5 * fps) / exposure)) * exposure,
    exposure,
    duty: 0.55,
    lift: Math.round(leg * 0.2),
    bob: Math.round(leg * 0.05),
    rock: DEGREE * 12,
    onSpot: true,
  }
}
