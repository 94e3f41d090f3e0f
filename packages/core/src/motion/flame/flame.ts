import type { Point } from '../../geometry/point.ts'
import { PLAIN_PLAN } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, type Plan, type Recipe } from '../recipe.ts'
import { flameDefaults, refuseFlame, type FlameNumbers } from './numbers.ts'

/** A flame worked out. */
export type FlamePlan = Plan<FlameNumbers>

/** A tip that came off: a drop that rises and fades. */
export interface Tip {
  readonly centre: Point
  readonly along: number
  readonly across: number
}

/**
 * A flame that burns for ever: its foot stands, lobes travel upwards along it, x = A·u²·sin 2π(m·u − i/N) at the share u of its
 * height on drawing i of N; its tips break off, rise and fade. After N drawings all is as it was.
 */
export const flame: Recipe<FlameNumbers, FlamePlan> = {
  through: [],
  measures: { across: ['x'], down: ['y'], lengths: ['width', 'height', 'sway'] },
  defaults: flameDefaults,
  refuse: refuseFlame,
  plan(numbers) {
    const { drawings: count, exposure: n } = numbers
    return {
      ...PLAIN_PLAN,
      numbers,
      frames: count * n,
      loops: true,
      drawings: Array.from({ length: count }, (_, i) => ({
        frame: i * n,
        role: i === 0 || 2 * i === count ? 'key' : 'inbetween',
        name: i === 0 ? 'to one side' : 2 * i === count ? 'to the other' : null,
      })),
      exposures: oneByOne(count, n),
      marks: ['tip'],
      told: ['the last drawing is drawn with the first shown through after it'],
    }
  },
  figure({ numbers, ...plan }, frame, sink) {
    const drawing = shownOn({ numbers, ...plan }, frame)
    sink.path('spine', spineOf(numbers, drawing), 'aid')
    sink.path('outline', outlineOf(numbers, drawing), 'near')
    for (const { centre, along, across } of tipsOf(numbers, drawing))
      sink.ellipse('tip', centre, along, across, Math.PI / 2)
    const { x, y, width } = numbers
    sink.line('foot', { x: x - width / 2, y }, { x: x + width / 2, y })
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    return { marks: { tip: spineOf(plan.numbers, drawing)[PIECES] as Point }, body: null }
  },
}

const PIECES = 24

/** The middle line of a flame on a drawing, from its foot to its tip; any whole number is a drawing. */
export function spineOf({ x, y, height, sway, waves, drawings }: FlameNumbers, drawing: number): Point[] {
  const turn = (((drawing % drawings) + drawings) % drawings) / drawings
  return Array.from({ length: PIECES + 1 }, (_, i) => {
    const u = i / PIECES
    return { x: x + sway * u * u * Math.sin(2 * Math.PI * (waves * u - turn)), y: y - height * u }
  })
}

/** Half the width of a flame at a share of its height: full a little above the foot, nothing at the tip. */
const halfAt = (width: number, u: number): number => (width / 2) * Math.sqrt(1 - u) * (1 - 0.35 * (1 - u) ** 4)

function outlineOf(numbers: FlameNumbers, drawing: number): Point[] {
  const spine = spineOf(numbers, drawing)
  const side = (sign: number) => spine.map(({ x, y }, i) => ({ x: x + sign * halfAt(numbers.width, i / PIECES), y }))
  return [...side(-1), ...side(1).reverse()]
}

/** How high a tip gets over the flame before it is gone: a share of its height. */
const FADES_AT = 0.4

/** The tips that came off on a drawing: each is born at the tip and gone one turn later, evenly spread over the cycle. */
export function tipsOf(numbers: FlameNumbers, drawing: number): Tip[] {
  const { tips, drawings, height, width } = numbers
  return Array.from({ length: tips }, (_, k): Tip | null => {
    // In whole numbers, so that a turn later it is the same to the last bit.
    const turns = drawings * tips
    const age = ((((drawing * tips + k * drawings) % turns) + turns) % turns) / turns
    if (age === 0) return null
    // Born where the tip of the flame was when it came off.
    const born = spineOf(numbers, Math.floor(((1 - k / tips) % 1) * drawings))[PIECES] as Point
    const size = width * 0.12 * (1 - age)
    return {
      centre: { x: born.x, y: born.y - height * FADES_AT * age },
      along: size * (1.4 + age),
      across: size,
    }
  }).filter(tip => tip !== null)
}
