import { DEGREE } from '../allowed.ts'
import { largestFit } from '../gait.ts'
import type { RecipeShot } from '../recipe.ts'
import { leastHip, longestReach } from './figure.ts'
import { partOf, stepOf, walkDefaults, type WalkNumbers } from './numbers.ts'

/** Ways to walk: the same numbers, set otherwise. */
export const WALKS = ['walk', 'run', 'sneak', 'march', 'tired', 'skip', 'child'] as const
export type WalkName = (typeof WALKS)[number]

/** The numbers of a way to walk for a figure as it is: its place, size and exposure are kept. */
export function walkAs(name: WalkName, numbers: WalkNumbers, shot: RecipeShot): WalkNumbers {
  const { leg, exposure } = numbers
  const usual = walkDefaults({ ...shot, exposure })
  const part = (share: number) => partOf(leg, share)
  const base: WalkNumbers = {
    ...numbers,
    hip: part(0.88),
    stride: part(0.72),
    lift: part(0.16),
    bob: part(0.07),
    step: usual.step,
    duty: 0.6,
    school: usual.school,
    lean: DEGREE * 3,
    sway: DEGREE * 1,
    armSwing: DEGREE * 29,
    roll: DEGREE * 29,
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
    run: {
      ...flies,
      hip: part(0.86),
      stride: part(1.1),
      lift: part(0.32),
      bob: part(0.13),
      lean: DEGREE * 13,
      armSwing: DEGREE * 52,
    },
    sneak: {
      step: inSeconds(2 / 3),
      hip: part(0.72),
      stride: part(0.75),
      lift: part(0.34),
      bob: part(0.05),
      lean: DEGREE * 18,
      armSwing: DEGREE * 14,
    },
    march: {
      step: inSeconds(1 / 2),
      stride: part(0.6),
      lift: part(0.42),
      bob: part(0.04),
      lean: DEGREE * -2,
      armSwing: DEGREE * 46,
      roll: DEGREE * 14,
    },
    tired: {
      step: inSeconds(2 / 3),
      hip: part(0.88),
      stride: part(0.42),
      lift: part(0.05),
      bob: part(0.05),
      lean: DEGREE * 16,
      armSwing: DEGREE * 11,
      headLag: 3,
    },
    skip: {
      ...flies,
      hip: part(0.9),
      stride: part(0.7),
      lift: part(0.3),
      bob: part(0.22),
      lean: DEGREE * 0,
      armSwing: DEGREE * 46,
    },
    child: {
      step: inSeconds(1 / 4),
      stride: part(0.5),
      lift: part(0.2),
      bob: part(0.1),
      sway: DEGREE * 5,
      lean: DEGREE * 1,
      armSwing: DEGREE * 37,
    },
  }
  const asked = { ...base, ...ways[name] }
  const simple = (2 * asked.step) / exposure < 8 && asked.school === 'classical'
  return reachable(simple ? { ...asked, school: 'simple' } : asked)
}

/** The same with a stride, or else a hip, that the leg can reach. */
function reachable(numbers: WalkNumbers): WalkNumbers {
  const fits = (patch: Partial<WalkNumbers>) => longestReach({ ...numbers, ...patch }) <= numbers.leg
  const stride = withinReach(numbers, 'stride', numbers.stride)
  if (stride >= numbers.stride / 2 && fits({ stride })) return { ...numbers, stride }
  return { ...numbers, hip: withinReach(numbers, 'hip', numbers.hip) }
}

/** The largest whole number of pixels up to a wished one at which the leg still reaches, none lower than its knees allow; the wished one where none does. */
export function withinReach(numbers: WalkNumbers, field: 'stride' | 'hip', wished: number): number {
  const least = field === 'hip' ? Math.ceil(leastHip(numbers)) : 1
  if (wished < least) return withinReach(numbers, field, least)
  const most = largestFit(wished, value => longestReach({ ...numbers, [field]: value }) <= numbers.leg)
  if (most === wished) return wished
  return most === null || most < 1 ? wished : Math.floor(most)
}

/** A walker made larger or smaller about where it stands; places and times stay. Lengths to a tenth of a pixel. */
export function walkScaled(numbers: WalkNumbers, factor: number): WalkNumbers {
  const fields = ['leg', 'hip', 'stride', 'lift', 'bob', 'foot', 'torso', 'arm', 'head', 'packLink'] as const
  const times = Math.max(10 / numbers.leg, Math.min(2000 / numbers.leg, factor))
  const scaled = fields.map(field => [field, Math.max(1, Math.round(numbers[field] * times * 10) / 10)])
  const figure: WalkNumbers = { ...numbers, ...Object.fromEntries(scaled) }
  // Rounded down, a low hip may be lower than the knees allow.
  const least = Math.ceil(leastHip(figure) * 10 - 1e-9) / 10
  return reachable({ ...figure, hip: Math.max(least, figure.hip) })
}

/** How tall a walker stands, px. */
export const tallOf = ({ hip, torso, head }: WalkNumbers): number => hip + torso + 2.3 * head
