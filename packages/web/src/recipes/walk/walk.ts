import { tallOf, walkAs, WALKS, walkScaled, withinReach, type NumbersOf, type RecipeShot } from '@unhurried/core/motion'
import { clamp } from '@vueuse/core'
import {
  choice,
  count,
  degrees,
  EACH_DRAWING,
  frames,
  groundHandle,
  onOff,
  px,
  share,
  rounded,
  type RecipeDesk,
} from '../recipe.ts'

type Numbers = NumbersOf<'walk'>
const round = rounded
const wayOf = ({ facing }: Numbers): number => (facing === 'right' ? 1 : -1)
/** Whole pixels that the leg can reach; what is there already is left alone. */
const within = (numbers: Numbers, field: 'stride' | 'hip', px: number): number =>
  px === numbers[field] ? px : withinReach(numbers, field, clamp(round(px), 1, 4000))

export const walk: RecipeDesk<Numbers> = {
  words: 'walk',
  says: 'a walk or run on two legs: contact, down, passing, up; what stands never slips',
  main: ['step', 'stride', 'exposure'],
  fields: {
    step: frames('a step'),
    stride: px('stride'),
    exposure: EACH_DRAWING,
    school: choice('lowest', { simple: 'at the contact', classical: 'after the contact', run: 'under a run' }),
    bob: px('goes up by'),
    lift: px('lifts its feet by'),
    duty: share('a foot stands'),
    plant: choice('at the contact', { even: 'foot well ahead', midway: 'hip half-way' }),
    roll: degrees('heel rises'),
    lean: degrees('leans'),
    sway: degrees('leans to and fro'),
    armSwing: degrees('arms swing'),
    elbow: frames('lower arm later', 0.5),
    headLag: frames('head later', 0.5),
    facing: choice('faces', { right: 'right', left: 'left' }),
    onSpot: onOff('on the spot'),
    steps: count('steps else'),
    hip: px('hip over the ground'),
    leg: px('leg, hip to ankle'),
    thigh: share('of that the thigh'),
    foot: px('foot'),
    torso: px('body'),
    arm: px('arm'),
    head: px('half a head'),
    pack: count('links on the back'),
    packLink: px('length of a link'),
    packSwing: degrees('it swings'),
    packLag: frames('each later by', 0.5),
    alike: px('one drawing up to'),
  },
  ways: Object.fromEntries(
    WALKS.map(name => [name, (numbers: Numbers, shot: RecipeShot) => walkAs(name, numbers, shot)]),
  ),
  handles: {
    feet: groundHandle('where it walks'),
    stride: {
      words: 'how far it strides',
      goes: 'to the sides',
      at: numbers => ({ x: numbers.x + wayOf(numbers) * numbers.stride, y: numbers.ground }),
      dragged: (numbers, to) => ({ stride: within(numbers, 'stride', Math.abs(to.x - numbers.x)) }),
    },
    hip: {
      words: 'how high its hip is',
      goes: 'up and down',
      at: ({ x, ground, hip }) => ({ x, y: ground - hip }),
      dragged: (numbers, to) => ({ hip: within(numbers, 'hip', numbers.ground - to.y) }),
    },
    tall: {
      words: 'how tall it is',
      goes: 'up and down',
      at: numbers => ({ x: numbers.x, y: numbers.ground - tallOf(numbers) }),
      dragged: (numbers, to) => {
        const factor = Math.max(0.01, (numbers.ground - to.y) / tallOf(numbers))
        return Math.abs(factor - 1) < 1e-6 ? {} : walkScaled(numbers, factor)
      },
    },
  },
}
