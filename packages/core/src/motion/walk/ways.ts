import { largestFit } from '../gait.ts'
import type { RecipeShot } from '../recipe.ts'
import { longestReach } from './figure.ts'
import { stepOf, walkDefaults, type WalkNumbers } from './numbers.ts'

/** Ways to walk: the same numbers, set otherwise. */
export const WALKS = ['walk', 'run', 'sneak', 'march', 'tired', 'skip', 'child'] as const
export type WalkName = (typeof WALKS)[number]

/** The numbers of a way to walk for a figure as it is: its place, size and exposure are kept. */
export function walkAs(name: WalkName, numbers: WalkNumbers, shot: RecipeShot): WalkNumbers {
  const { leg, exposure } = numbers
  const usual = walkDefaults({ ...shot, exposure })
  const part = (share: number) => share * leg
  const base: WalkNumbers = {
    ...numbers,
    hip: part(0.92),
    stride: part(0.62),
    lift: part(0.16),
    bob: part(0.07),
    step: usual.step,
    duty: 0.6,
    school: usual.school,
    lean: 0.06,
    sway: 0.02,
    armSwing: 0.5,
    roll: 0.5,
    elbow: 1,
    headLag: 1,
  }
  const inSeconds = (seconds: number) => stepOf({ ...shot, exposure }, seconds)
  // A run has a drawing in the air between any two contacts.
  const running = inSeconds(1 / 4)
  const flies = {
    school: 'run' as const,
    step: running,
    duty: Math.max(0.15, Math.min(0.35, 0.5 - exposure / running)),
  }
  const ways: Readonly<Record<WalkName, Partial<WalkNumbers>>> = {
    walk: {},
    run: { ...flies, hip: part(0.86), stride: part(1.1), lift: part(0.32), bob: part(0.13), lean: 0.22, armSwing: 0.9 },
    sneak: {
      step: inSeconds(2 / 3),
      hip: part(0.72),
      stride: part(0.75),
      lift: part(0.34),
      bob: part(0.05),
      lean: 0.32,
      armSwing: 0.25,
    },
    march: {
      step: inSeconds(1 / 2),
      stride: part(0.6),
      lift: part(0.42),
      bob: part(0.04),
      lean: -0.03,
      armSwing: 0.8,
      roll: 0.25,
    },
    tired: {
      step: inSeconds(2 / 3),
      hip: part(0.88),
      stride: part(0.42),
      lift: part(0.05),
      bob: part(0.05),
      lean: 0.28,
      armSwing: 0.2,
      headLag: 3,
    },
    skip: {
      ...flies,
      hip: part(0.9),
      stride: part(0.7),
      lift: part(0.3),
      bob: part(0.22),
      lean: 0,
      armSwing: 0.8,
    },
    child: {
      step: inSeconds(1 / 4),
      stride: part(0.5),
      lift: part(0.2),
      bob: part(0.1),
      sway: 0.08,
      lean: 0.02,
      armSwing: 0.65,
    },
  }
  const asked = { ...base, ...ways[name] }
  const simple = (2 * asked.step) / exposure < 8 && asked.school === 'classical'
  return reachable(simple ? { ...asked, school: 'simple' } : asked)
}

/** The same with a stride, or else a hip, that the leg can reach. */
function reachable(numbers: WalkNumbers): WalkNumbers {
  const fits = (patch: Partial<WalkNumbers>) => longestReach({ ...numbers, ...patch }) <= numbers.leg
  const stride = largestFit(numbers.stride, value => fits({ stride: value }))
  if (stride !== null && stride >= numbers.stride / 2) return { ...numbers, stride }
  return { ...numbers, hip: largestFit(numbers.hip, value => fits({ hip: value })) ?? numbers.hip }
}
